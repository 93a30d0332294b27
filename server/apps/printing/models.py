"""Long prints: asked for, set beside the web server, kept while they hold."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from apps.background.models import Work
from apps.weldlist.models import WeldList


class PrintRun(Work):
    """Booth sheets or joint cards of a whole weld list, and the PDF that was made of them."""

    weld_list = models.ForeignKey(WeldList, on_delete=models.CASCADE, related_name="print_runs")
    file = models.FileField(upload_to="printed/%Y/%m", max_length=300, blank=True)

    class Meta(Work.Meta):
        """Found by what was asked, and by what waits."""

        indexes: ClassVar = [
            models.Index(fields=["weld_list", "asked_hash"], name="print_run_asked"),
            models.Index(fields=["state"], name="print_run_state"),
        ]

    def __str__(self) -> str:
        return f"{self.asked['what']} of {self.weld_list}, {self.state}"
