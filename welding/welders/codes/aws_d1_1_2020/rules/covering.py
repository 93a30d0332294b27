"""Whether what a test covers takes in a weld that is asked, variable by variable."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from welding.documents.welder_weld import WelderWeld
from welding.language import tr
from welding.qualification.items import RangeItem
from welding.welders.codes.aws_d1_1_2020.rules.basics import table
from welding.welders.codes.aws_d1_1_2020.rules.ranges import range_items
from welding.welders.comparing import Answer, Compared, compared, of_set, of_span


def compare(items: Sequence[RangeItem], tested: WelderWeld, asked: WelderWeld) -> Iterator[Compared]:
    """Findings on a weld, in the printed column in which it is asked."""
    if tested.units != asked.units:
        items = range_items(replace(tested, units=asked.units))
    return _each(items, tested, asked)


def _each(items: Sequence[RangeItem], tested: WelderWeld, asked: WelderWeld) -> Iterator[Compared]:
    part = asked.parts[0]
    kind = _kind(asked)
    group = "fillet" if asked.weld == "fillet" else "groove"
    positions = False
    for item in items:
        answer: Answer | None = None
        if item.variable == "person":
            answer = of_set(item, asked.person)
        elif item.variable == "welder_process":
            answer = of_set(item, part.process)
        elif item.variable == "filler_group" and part.process == tested.parts[0].process:
            answer = of_set(item, part.filler_group)
        elif item.variable == "weld_type":
            answer = of_set(item, kind)
        elif item.variable == "welder_position" and item.weld == group and asked.groove != "plug":
            answer, positions = of_set(item, asked.position, all_of=positions_asked(asked)), True
        elif item.variable == "progression" and "V" in positions_asked(asked):
            unsaid = item.kind == "unknown" and asked.progression is None and asked.from_designation
            answer = None if unsaid else of_set(item, asked.progression)
        elif item.variable == "backing" and kind in ("cjp", "tyk"):
            answer = _backing(item, tested, asked)
        elif item.variable == "electrodes":
            answer = of_set(item, str(asked.electrodes or 1))
        else:
            answer = _size(item, asked, kind)
        if answer is not None:
            yield compared(item, answer, asked.units)
    if not positions and asked.groove != "plug":
        item = next(one for one in items if one.variable == "weld_type")
        shown = replace(item, variable="welder_position", values=(tr("none"),))
        yield compared(shown, Answer(verdict="violates", actual=asked.position, why=item.reason), asked.units)


def _kind(weld: WelderWeld) -> str:
    return "fillet" if weld.weld == "fillet" else weld.groove or "cjp"


def _size(item: RangeItem, asked: WelderWeld, kind: str) -> Answer | None:
    if item.variable == "material_mm" and (kind != "fillet" or asked.person == "tack-welder"):
        # Two short forms without a thickness do not differ in it.
        unsaid = asked.thickness_mm is None and item.tested is None and item.kind == "unknown"
        return None if unsaid and asked.from_designation else of_span(item, asked.thickness_mm)
    if item.variable == "fillet_material_mm" and kind == "fillet" and asked.thickness_mm is not None:
        return of_span(item, asked.thickness_mm)
    if item.variable == "dihedral_deg" and kind == "fillet" and asked.dihedral_deg is not None:
        if item.how == "edge-open" and asked.dihedral_deg == item.min:
            why = tr("Whether this angle itself is in differs between the notes as recalled.")
            return Answer(verdict="undecided", actual=f"{asked.dihedral_deg:g}°", why=why)
        return of_span(item, asked.dihedral_deg)
    if item.variable == "outside_diameter_mm" and asked.product == "pipe":
        return _pipe(item, asked) if kind != "fillet" else _fillet_on_pipe(item, asked)
    return None


def _pipe(item: RangeItem, asked: WelderWeld) -> Answer:
    if item.how == "from-plate" and asked.backing not in ("backing", "backgouged"):
        stated = asked.backing is not None
        return Answer(
            verdict="violates" if stated else "undecided",
            actual=asked.backing or "",
            why=item.reason,
        )
    return of_span(item, asked.diameter_mm)


def _fillet_on_pipe(item: RangeItem, asked: WelderWeld) -> Answer | None:
    """Fillet welds on pipe by a plate test: from the diameter of groove welds; below it is not recalled."""
    if item.how != "from-plate":
        return None
    found = of_span(item, asked.diameter_mm)
    if found.verdict != "violates":
        return found
    why = tr("Whether plates cover fillet welds on smaller pipe is not known here.")
    return Answer(verdict="undecided", value=asked.diameter_mm, why=why)


def _backing(item: RangeItem, tested: WelderWeld, asked: WelderWeld) -> Answer | None:
    if asked.backing is None and tested.backing is None:
        return None
    if asked.backing is None and set(item.values) == {row["row"] for row in table("backing").rows}:
        return None
    return of_set(item, asked.backing)


def positions_asked(asked: WelderWeld) -> tuple[str, ...]:
    """Positions that a weld asks for: of a fixed pipe, all that its circumference passes through."""
    return tuple(table("asked_positions").row(asked.position)["needs"])
