"""Links of the chain."""

from __future__ import annotations

from typing import ClassVar

from django.contrib.postgres.fields import ArrayField
from django.db import models


class Link(models.Model):
    """One row of evidence or of the trail: what it held when it was written, linked to the row before.

    ``row_hash`` is over the named columns of the row and the person and address of its request; ``hash``
    is over table, row, ``row_hash`` and the hash of the link before. Written by the database alone.
    """

    table_name = models.CharField(max_length=63)
    row_id = models.CharField(max_length=40)
    columns = ArrayField(models.CharField(max_length=63))
    row_hash = models.CharField(max_length=64)
    previous = models.CharField(max_length=64)
    hash = models.CharField(max_length=64)
    at = models.DateTimeField()

    class Meta:
        """In the order of writing."""

        db_table = "audit_link"
        ordering: ClassVar = ["id"]
        indexes: ClassVar = [models.Index(fields=["table_name", "row_id"], name="link_of_row")]

    def __str__(self) -> str:
        return f"{self.table_name} {self.row_id}"
