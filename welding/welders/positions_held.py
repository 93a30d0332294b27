"""In which positions people are qualified, process by process: a first look over a crew."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from welding.documents.welder_weld import WelderWeld
from welding.qualification.items import RangeItem
from welding.welders.covers import POSITION, welder_range
from welding.welders.who import HeldTest


@dataclass(frozen=True, slots=True, kw_only=True)
class PositionsHeld:
    """Positions of one process.

    Attributes:
        code: Code for persons.
        process: The process as it names it.
        weld: Butt (groove) welds, or fillet welds; empty where the code does not tell them apart.
        valid: Positions that valid certificates cover.
        lapsed: Those that only certificates cover that do not hold on the day.
    """

    code: str
    process: str
    weld: str
    valid: tuple[str, ...]
    lapsed: tuple[str, ...]


def positions_held(tests: Sequence[HeldTest]) -> tuple[PositionsHeld, ...]:
    """Positions of a person by code, process and weld; sizes, fillers and details are not told by it.

    Args:
        tests: The person's tests as they stand on the day.
    """
    valid: dict[tuple[str, str, str], dict[str, None]] = {}
    ever: dict[tuple[str, str, str], dict[str, None]] = {}
    for one in tests:
        for process, weld, positions in _held(one.weld):
            key = (one.weld.code, process, weld)
            for found in (ever, valid) if one.validity.valid else (ever,):
                found.setdefault(key, {}).update(dict.fromkeys(positions))
    return tuple(
        PositionsHeld(
            code=key[0],
            process=key[1],
            weld=key[2],
            valid=tuple(sorted(valid.get(key, ()))),
            lapsed=tuple(sorted(one for one in positions if one not in valid.get(key, ()))),
        )
        for key, positions in sorted(ever.items())
    )


def _held(tested: WelderWeld) -> Iterator[tuple[str, str, tuple[str, ...]]]:
    items = welder_range(tested).items
    kind = tested.weld if any(one.variable == "weld_type" for one in items) else ""
    own = {"groove": "butt", "fillet": "fillet", None: kind}
    positions = [one for one in items if one.variable == POSITION]
    for process in _processes(items, tested):
        if not positions:
            yield process, kind, ()
        for one in positions:
            yield process, own[one.weld], one.values


def _processes(items: Sequence[RangeItem], tested: WelderWeld) -> list[str]:
    covered = [value for one in items if one.variable == "welder_process" for value in one.values]
    return list(dict.fromkeys(covered or [part.process for part in tested.parts]))
