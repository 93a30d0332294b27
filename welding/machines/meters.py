"""Meters of a machine and the dates of their calibration."""

from __future__ import annotations

from datetime import date

from welding.documents.machine import Machine


def overdue_meters(machine: Machine, on: date) -> tuple[str, ...]:
    """Names of the meters whose calibration was due before a day.

    A meter is good on the day it is due; one without a date is not judged.
    """
    return tuple(
        meter.name for meter in machine.meters if meter.due_on and date.fromisoformat(meter.due_on) < on
    )
