"""Charts of the library that may be meant for what is to be welded."""

from __future__ import annotations

from functools import partial

from api.damage import attempt

from apps.shelf.models import Kind, Record
from welding.documents.chart import SettingsChart
from welding.documents.codec import CHART
from welding.documents.intent import Intent

MOST_CHARTS = 40


def charts_for(intent: Intent) -> tuple[SettingsChart, ...]:
    """Charts for the processes of an intent, by name; those that cannot be read are passed over."""
    processes = [one for one in (intent.process, intent.fill_process) if one]
    records = Record.objects.filter(kind=Kind.CHART, document__process__in=processes)[:MOST_CHARTS]
    read = (attempt(f"chart {one.pk}", partial(CHART.take, one.document))[0] for one in records)
    return tuple(one for one in read if one is not None)
