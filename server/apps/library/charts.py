"""Charts of the library that may be meant for what is welded."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

from api.damage import attempt

from apps.library.models import Kind, Record
from welding.documents.chart import SettingsChart
from welding.documents.codec import CHART

MOST_CHARTS = 40


def charts_for(processes: Iterable[str | None]) -> tuple[SettingsChart, ...]:
    """Charts for processes, by name; those that cannot be read are passed over."""
    asked = sorted({one for one in processes if one})
    records = Record.objects.filter(kind=Kind.CHART, document__process__in=asked)[:MOST_CHARTS]
    read = (attempt(f"chart {one.pk}", partial(CHART.take, one.document))[0] for one in records)
    return tuple(one for one in read if one is not None)
