"""One figure of a prediction: a number with its band, or words, or why there is no model."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from welding.bead.state import Band
from welding.citation import Citation

Group = Literal["arc", "heat", "bead", "shielding", "distortion"]
Level = Literal["", "fine", "watch", "bad"]
PRACTICE_LOW = Citation(document="common practice", provenance="practice", confidence="low")
PRACTICE = Citation(document="common practice", provenance="practice", confidence="medium")
BALANCE = Citation(document="balance of volume and energy", provenance="practice", confidence="high")


@dataclass(frozen=True, slots=True, kw_only=True)
class Figure:
    """What is predicted.

    Attributes:
        key: What it is known by, such as ``penetration_mm``.
        group: Which part of the picture it belongs to.
        title: What it is called.
        value: The number; ``None`` where it is words or there is no model.
        low: What it may be at least.
        high: What it may be at most.
        quantity: Kind of quantity, as for documents; empty where the unit stands in ``unit``.
        unit: Unit of a number that is no kind of quantity.
        swatch: Colour of the metal, as ``#rrggbb``; empty but for heat tint.
        words: What is told in words.
        level: Whether it is fine, to be watched or bad; empty where it is neither.
        no_model: Why nothing is predicted; empty otherwise.
        citation: Where the relation stands; ``None`` without a model.
        error: What the band holds.
    """

    key: str
    group: Group
    title: str
    value: float | None = None
    low: float | None = None
    high: float | None = None
    quantity: str = ""
    unit: str = ""
    swatch: str = ""
    words: str = ""
    level: Level = ""
    no_model: str = ""
    citation: Citation | None = None
    error: str = ""


def banded(
    key: str,
    group: Group,
    title: str,
    band: Band,
    citation: Citation,
    *,
    quantity: str = "",
    unit: str = "",
    error: str = "",
    words: str = "",
    level: Level = "",
) -> Figure:
    """A number with its band."""
    return Figure(
        key=key,
        group=group,
        title=title,
        value=band.value,
        low=band.low,
        high=band.high,
        quantity=quantity,
        unit=unit,
        citation=citation,
        error=error,
        words=words,
        level=level,
    )


def without_model(key: str, group: Group, title: str, why: str) -> Figure:
    """Said outright: nothing is predicted."""
    return Figure(key=key, group=group, title=title, no_model=why)
