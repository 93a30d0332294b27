"""Take up the prints that wait, one after the other: ``manage.py set_prints``.

The web server starts it beside itself, with BEAD_ALONE=1. Where one is at work already, another one ends.
"""

from __future__ import annotations

from django.core.management.base import BaseCommand

from apps.background.serve import serve
from apps.printing.models import PrintRun
from apps.printing.services.print_runs import take_up


class Command(BaseCommand):
    """``manage.py set_prints``."""

    help = __doc__ or ""
    # The web server made them; here they would load every page of it first.
    requires_system_checks = ()

    def handle(self, **_: object) -> None:
        """Set prints until nothing has waited for a while."""
        serve("print", PrintRun, take_up)
