"""Two settings side by side: what was changed, and what it does, in a sentence."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass

from welding.bead.predict import Prediction
from welding.documents.bead_settings import BeadSettings
from welding.language import tr

TOLD = (
    "penetration_mm",
    "width_mm",
    "reinforcement_mm",
    "leg_mm",
    "arc_energy_kj_mm",
    "zone_mm",
    "t85_s",
    "deposition_kg_h",
)
"""Figures that a sentence names, the most telling first."""
LEAST_PERCENT = 2.0
MOST_TOLD = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """One field that differs; ``None`` where a side does not state it."""

    field: str
    before: object
    after: object


@dataclass(frozen=True, slots=True, kw_only=True)
class Comparison:
    """What differs between two settings, and what it does.

    Attributes:
        changes: Fields of the settings that differ.
        percent: By how much each figure differs [%], for those that both have.
        sentence: The effect in words; empty where nothing was changed.
    """

    changes: tuple[Change, ...]
    percent: dict[str, float]
    sentence: str


def compare(
    before: BeadSettings, after: BeadSettings, predicted: tuple[Prediction, Prediction]
) -> Comparison:
    """Compare two settings whose predictions are known."""
    changes = tuple(
        Change(field=one.name, before=getattr(before, one.name), after=getattr(after, one.name))
        for one in dataclasses.fields(BeadSettings)
        if getattr(before, one.name) != getattr(after, one.name)
    )
    percent = {}
    for figure in predicted[0].figures:
        other = predicted[1].figure(figure.key)
        if figure.value and other is not None and other.value is not None:
            percent[figure.key] = 100 * (other.value - figure.value) / abs(figure.value)
    return Comparison(
        changes=changes, percent=percent, sentence=_sentence(percent, predicted[0]) if changes else ""
    )


def _sentence(percent: dict[str, float], prediction: Prediction) -> str:
    told = []
    for key in TOLD:
        figure = prediction.figure(key)
        if figure is None or abs(percent.get(key, 0.0)) < LEAST_PERCENT:
            continue
        size = abs(percent[key])
        told.append(
            tr("{what} {size:.0f} % more", what=figure.title, size=size)
            if percent[key] > 0
            else tr("{what} {size:.0f} % less", what=figure.title, size=size)
        )
    if not told:
        return tr("No figure of the model changes by more than 2 %.")
    return "; ".join(told[:MOST_TOLD]) + "."
