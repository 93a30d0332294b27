"""A printed limit as the judging functions take it, whichever edition it comes from."""

from __future__ import annotations

from dataclasses import dataclass

from welding.language import tr
from welding.qualification.items import RuleRef
from welding.quantities.writing import System, quantity_text
from welding.testing.verdict import Point

SLACK = 1e-9


@dataclass(frozen=True, slots=True)
class Limit:
    """A limit [mm, J, MPa, HV …] and where it stands; ``value`` is ``None`` where none is known."""

    value: float | None
    rule: RuleRef
    unchecked: tuple[str, ...] = ()


def at_most(limit: Limit, actual: float | None, what: str, system: System, path: str = "") -> Point:
    """A length that may not exceed a limit; exactly at the limit is kept."""
    if limit.value is None:
        return Point(None, tr("{what}: no limit is known", what=what), "", limit.rule, limit.unchecked, "")
    criterion = tr(
        "{what} at most {quantity_text}", what=what, quantity_text=quantity_text(limit.value, "gap", system)
    )
    if actual is None:
        return Point(None, criterion, "", limit.rule, limit.unchecked, path or what)
    kept = actual <= limit.value * (1 + SLACK) + SLACK
    return Point(kept, criterion, quantity_text(actual, "gap", system), limit.rule, limit.unchecked)


def must(truth: bool | None, wanted: bool, criterion: str, limit: Limit, path: str) -> Point:
    """A yes or no that has to be one of them; ``None`` where nobody said."""
    if truth is None:
        return Point(None, criterion, "", limit.rule, limit.unchecked, path)
    return Point(truth is wanted, criterion, "yes" if truth else "no", limit.rule, limit.unchecked)
