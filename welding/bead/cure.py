"""What would cure it: the smallest change of one setting that has the effect asked for, inside the limits.

Settings are tried in the order of practice. What would have to leave the limits of the procedure is never
offered as a setting: it is the engineer's to decide.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from welding.bead.from_procedure import HEAT
from welding.bead.predict import Prediction, predict
from welding.bead.state import PACKAGE, BeadState
from welding.citation import Citation
from welding.codebook.table import load_table
from welding.documents.bead_settings import BeadSettings
from welding.errors import UnknownEntryError
from welding.language import tr, tr_noop
from welding.ranges import Range

Outcome = Literal["cured", "helps", "outside", "no-effect"]
MOST_STEPS = 6
GOALS = {
    "flatter": tr_noop("Flatter crown"),
    "cooler": tr_noop("Cooler"),
    "hotter": tr_noop("Hotter"),
    "deeper": tr_noop("More penetration"),
    "shallower": tr_noop("Less penetration"),
    "smoother-toes": tr_noop("Smoother weld toes"),
    "wider": tr_noop("Wider bead"),
    "narrower": tr_noop("Narrower"),
    "less-spatter": tr_noop("Less spatter"),
    "brighter": tr_noop("Lighter heat tint"),
    "softer-zone": tr_noop("Softer heat-affected zone"),
}
_ABSOLUTE = (
    "torch_angle_deg",
    "weave_mm",
    "inductance_percent",
    "start_c",
    "extension_mm",
    "cup",
    "ac_frequency_hz",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """One setting changed.

    Attributes:
        field: Field of the settings.
        before: Its value now; ``None`` where it is not set.
        after: The value that is proposed; ``None`` where none may be offered.
        outcome: ``cured``; ``helps`` but not enough; ``outside``: the first step would leave the limits
            and needs the engineer; ``no-effect``.
        limited: Whether the limits ended the search.
        worsens: What has to be watched then and had not before, by title.
        percent: What it changes of the figure that counts [%].
        why: Why it works, in words.
        settings: The changed settings; ``None`` where none may be offered.
        citation: Where the order stands.
    """

    field: str
    before: float | None
    after: float | None
    outcome: Outcome
    limited: bool
    worsens: tuple[str, ...]
    percent: float
    why: str
    settings: BeadSettings | None
    citation: Citation


@dataclass(frozen=True, slots=True, kw_only=True)
class Cure:
    """Remedies for one goal in the order of practice; ``no_model`` says why there are none."""

    goal: str
    title: str
    remedies: tuple[Remedy, ...]
    no_model: str = ""


def cure(settings: BeadSettings, goal: str, limits: Mapping[str, Range]) -> Cure:
    """Find the smallest changes that reach a goal.

    Args:
        settings: Settings as they are.
        goal: One of ``GOALS``.
        limits: What each field must keep to, such as the qualified ranges of the procedure; a field without
            limits is free.

    Raises:
        UnknownEntryError: No such goal.
    """
    if goal not in GOALS:
        raise UnknownEntryError(goal, tuple(GOALS))
    table = load_table(PACKAGE, "cures")
    rows = [row for row in table.rows if row["goal"] == goal]
    now = _as_fed(settings)
    predicted = predict(now)
    figure = predicted.figure(rows[0]["figure"])
    if figure is None or not figure.value:
        why = figure.no_model if figure else ""
        return Cure(
            goal=goal,
            title=tr(GOALS[goal]),
            remedies=(),
            no_model=why or tr("The model has no figure for this here."),
        )
    remedies = tuple(
        found
        for row in rows
        if (found := _try(now, predicted, row, limits, table.citation_of(row))) is not None
    )
    return Cure(goal=goal, title=tr(GOALS[goal]), remedies=remedies)


def _as_fed(settings: BeadSettings) -> BeadSettings:
    """Where the wire feed is set, the current follows from it."""
    if settings.wire_feed_m_min is not None and settings.process != "141":
        return replace(settings, current_a=None)
    return settings


def _value(settings: BeadSettings, field: str) -> float | None:
    if field == "cup":
        return float(settings.cup.number) if settings.cup else None
    if field == "ac_frequency_hz":
        return settings.ac.frequency_hz if settings.ac else None
    value: float | None = getattr(settings, field)
    if value is None and field in ("torch_angle_deg", "weave_mm"):
        return 0.0
    return value


def _with(settings: BeadSettings, field: str, value: float) -> BeadSettings:
    if field == "cup" and settings.cup:
        return replace(settings, cup=replace(settings.cup, number=round(value)))
    if field == "ac_frequency_hz" and settings.ac:
        return replace(settings, ac=replace(settings.ac, frequency_hz=value))
    changed: dict[str, Any] = {field: value}
    return replace(settings, **changed)


def _plausible(field: str, value: float) -> bool:
    """Whether a torch, a cup or a weave can be held so at all."""
    least, most = {
        "torch_angle_deg": (-25.0, 25.0),
        "weave_mm": (0.0, 15.0),
        "inductance_percent": (0.0, 100.0),
        "cup": (4.0, 20.0),
        "ac_frequency_hz": (40.0, 250.0),
        "start_c": (5.0, 400.0),
        "extension_mm": (6.0, 40.0),
    }.get(field, (0.01, float("inf")))
    return least <= value <= most


def _try(
    settings: BeadSettings,
    now: Prediction,
    row: Mapping[str, Any],
    limits: Mapping[str, Range],
    citation: Citation,
) -> Remedy | None:
    field, target = row["field"], row["target_percent"]
    value = _value(settings, field)
    if value is None or (field == "current_a" and BeadState(settings).wire):
        return None
    size = row["step_percent"] if field in _ABSOLUTE else value * row["step_percent"] / 100
    step = _direction(settings, row) * size
    kept = limits.get(field)
    best: tuple[float, BeadSettings, float, Prediction] | None = None
    left = False
    bad_now = _at_level(now, "bad")
    for count in range(1, MOST_STEPS + 1):
        after = value + count * step
        if step == 0 or not _plausible(field, after):
            break
        if kept is not None and not kept.min - 1e-9 <= after <= kept.max + 1e-9:
            left = True
            break
        changed = _with(settings, field, round(after, 4))
        predicted = predict(changed)
        percent = _percent(predicted, now, row["figure"])
        if percent is None or _at_level(predicted, "bad").keys() - bad_now.keys():
            break  # one fault is not cured by another
        if _leaves_heat(now, predicted, limits.get(HEAT)):
            left = True
            break
        gain = percent / target
        if gain > 0 and (best is None or gain > best[2] / target):
            best = (after, changed, percent, predicted)
        if gain >= 1:
            break
    outcome: Outcome = "no-effect"
    if best is not None:
        outcome = "cured" if best[2] / target >= 1 else "helps"
    elif left:
        outcome = "outside"
    return Remedy(
        field=field,
        before=value,
        after=round(best[0], 4) if best else None,
        outcome=outcome,
        limited=left,
        worsens=_worse(now, best[3]) if best else (),
        percent=best[2] if best else 0.0,
        why=tr(row["words"]),
        settings=best[1] if best else None,
        citation=citation,
    )


def _direction(settings: BeadSettings, row: Mapping[str, Any]) -> float:
    if row["direction"] != "?":
        return 1.0 if row["direction"] == "+" else -1.0
    state = BeadState(settings)
    if state.usual_v is None or settings.voltage_v is None:
        return 0.0
    off = state.usual_v - settings.voltage_v
    return 0.0 if abs(off) < 0.3 else 1.0 if off > 0 else -1.0


def _leaves_heat(before: Prediction, after: Prediction, kept: Range | None) -> bool:
    """Whether a change leaves the heat input's limits, with k or without, whichever was inside them."""
    if kept is None:
        return False
    for key in (HEAT, "arc_energy_kj_mm"):
        old, new = before.figure(key), after.figure(key)
        if old is None or new is None or old.value is None or new.value is None:
            continue
        if kept.min <= old.value <= kept.max and not kept.min <= new.value <= kept.max:
            return True
    return False


def _percent(after: Prediction, before: Prediction, key: str) -> float | None:
    new, old = after.figure(key), before.figure(key)
    if new is None or old is None or new.value is None or not old.value:
        return None
    return 100 * (new.value - old.value) / abs(old.value)


def _at_level(prediction: Prediction, *levels: str) -> dict[str, str]:
    return {one.key: one.title for one in prediction.figures if one.level in levels}


def _worse(before: Prediction, after: Prediction) -> tuple[str, ...]:
    known = _at_level(before, "watch", "bad")
    return tuple(title for key, title in _at_level(after, "watch").items() if key not in known)
