"""Between a pass of the document and a row of the log. Nothing is lost either way."""

from __future__ import annotations

from typing import Any

from apps.coupons.models import PassLog
from welding.documents.codec import PASS_RECORD
from welding.documents.coupon import PassRecord

_PLAIN = ("length_mm", "time_s", "travel_mm_min", "before_c", "energy_j")
_SPREAD = (
    ("current_a", "current", "a"),
    ("voltage_v", "voltage", "v"),
    ("wire_feed_m_min", "wire_feed", "m_min"),
)


def to_columns(record: PassRecord) -> dict[str, Any]:
    """Field values of a ``PassLog``; what has no column of its own goes to ``rest``."""
    plain = PASS_RECORD.plain(record)
    columns: dict[str, Any] = {"number": plain.pop("number"), "process": plain.pop("process", "")}
    for name in _PLAIN:
        columns[name] = plain.pop(name, None)
    for name, stem, unit in _SPREAD:
        reading = plain.pop(name, None)
        spread = reading if isinstance(reading, dict) else {"mean": reading}
        for part in ("mean", "min", "max"):
            columns[f"{stem}_{part}_{unit}"] = spread.get(part)
    return {**columns, "rest": plain}


def to_plain(row: PassLog) -> dict[str, Any]:
    """The pass of the document as plain JSON values."""
    plain: dict[str, Any] = {"number": row.number, **row.rest}
    if row.process:
        plain["process"] = row.process
    for name in _PLAIN:
        if (value := getattr(row, name)) is not None:
            plain[name] = value
    for name, stem, unit in _SPREAD:
        spread = {
            part: value
            for part in ("mean", "min", "max")
            if (value := getattr(row, f"{stem}_{part}_{unit}")) is not None
        }
        if spread:
            plain[name] = spread["mean"] if set(spread) == {"mean"} else spread
    return plain


def to_record(row: PassLog) -> PassRecord:
    """The pass of the document."""
    return PASS_RECORD.take(to_plain(row))
