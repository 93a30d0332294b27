"""Whether what a test covers takes in a weld that is asked, variable by variable."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from welding.documents.welder_weld import ProcessPart, WelderWeld
from welding.language import tr
from welding.qualification.items import RangeItem
from welding.welders.codes.iso_9606_1_2017.rules.basics import table
from welding.welders.codes.iso_9606_1_2017.rules.ranges import family, inclined
from welding.welders.comparing import Answer, Compared, compared, of_set, of_span
from welding.welders.variables import value_words

OPERATORS = "ISO 14732"


def compare(items: Sequence[RangeItem], tested: WelderWeld, asked: WelderWeld) -> Iterator[Compared]:
    """Findings on a weld of one process, or of two where the test was made with two.

    A joint of two processes against a test of one is asked process by process by whoever calls.
    """
    yield from _mechanization(items, asked)
    for at, part in enumerate(asked.parts):
        own = [one for one in items if one.process in (None, _tested_process(tested, asked, at))]
        yield from _of_part(own, asked, part, at)
    if len(asked.parts) > 1:
        yield from _together(items, asked)
    own = [one for one in items if one.process is None]
    yield from _of_piece(own, tested, asked)


def _tested_process(tested: WelderWeld, asked: WelderWeld, at: int) -> str | None:
    """The process of the test that a process which is asked is held against."""
    if len(tested.parts) == 1:
        return None
    if len(asked.parts) == len(tested.parts):
        return tested.parts[at].process
    processes = table("processes")
    wanted = asked.parts[0].process
    for one in tested.parts:
        if one.process == wanted or wanted in processes.row(one.process)["covers"]:
            return one.process
    return tested.parts[0].process


def _mechanization(items: Sequence[RangeItem], asked: WelderWeld) -> Iterator[Compared]:
    if asked.mechanized:
        item = next(one for one in items if one.variable == "welder_process")
        shown = replace(
            item,
            variable="mechanization",
            kind="set",
            values=(tr("manual"), tr("partly mechanized")),
            process=None,
        )
        why = tr("A mechanized torch asks for an operator who is qualified to {code}.", code=OPERATORS)
        yield compared(shown, Answer(verdict="violates", actual=tr("mechanized"), why=why))


def _of_part(items: Sequence[RangeItem], asked: WelderWeld, part: ProcessPart, at: int) -> Iterator[Compared]:
    no_filler = part.filler_type == "nm"
    # Of a joint of two processes only the sum counts.
    single = asked.weld == "butt" and len(asked.parts) == 1
    for item in items:
        if item.variable == "welder_process":
            yield compared(item, of_set(item, part.process))
        elif item.variable == "transfer_mode":
            yield from _transfer(item, asked, part)
        elif item.variable == "filler_group" and not no_filler:
            yield compared(item, of_set(item, part.filler_group))
        elif item.variable == "metal_group" and not (asked.from_designation and asked.metal_group is None):
            yield compared(item, of_set(item, asked.metal_group))
        elif item.variable == "filler_type":
            yield compared(item, _filler_type(item, asked, part, at))
        elif item.variable == "backing" and asked.weld == "butt":
            yield compared(item, of_set(item, _backing_of(asked, at)))
        elif item.variable == "deposited_mm" and item.how != "together" and single:
            yield compared(item, of_span(item, part.deposited_mm))


def _backing_of(asked: WelderWeld, at: int) -> str | None:
    """Detail of a part: the second process of a joint welds onto the first."""
    return asked.backing if at == 0 else str(table("processes_together").row("second")["backing"])


def _transfer(item: RangeItem, asked: WelderWeld, part: ProcessPart) -> Iterator[Compared]:
    own = next((row for row in table("processes").rows if row["row"] == part.process), None)
    if own is None or not own.get("transfer"):
        return
    if part.transfer is None and asked.from_designation:
        return
    if part.transfer is None and {"dip", "globular", "spray", "pulsed"} <= set(item.values):
        return
    yield compared(item, of_set(item, part.transfer))


def _filler_type(item: RangeItem, asked: WelderWeld, part: ProcessPart, at: int) -> Answer:
    root = at == 0 and asked.weld == "butt" and asked.backing == "ss nb"
    kind = family(part.process, part.filler_type)
    before = item.tested if isinstance(item.tested, tuple) else ()
    tested = {family(part.process, one) for one in before}
    if item.how == "root-as-tested" and root and kind not in tested and kind != "nm":
        return Answer(verdict="violates", actual=part.filler_type or "", why=item.also)
    return replace(of_set(item, kind), actual=value_words(part.filler_type or ""))


def _together(items: Sequence[RangeItem], asked: WelderWeld) -> Iterator[Compared]:
    whole = [one.deposited_mm for one in asked.parts]
    for item in items:
        if item.how == "together":
            total = asked.thickness_mm if None in whole else sum(one or 0 for one in whole)
            yield compared(replace(item, process=None), of_span(item, total))


def _of_piece(items: Sequence[RangeItem], tested: WelderWeld, asked: WelderWeld) -> Iterator[Compared]:
    kind = "BW" if asked.weld == "butt" else "FW"
    welds = [one for one in items if one.variable == "weld_type"]
    holding = next((one for one in welds if kind in one.values), welds[0])
    yield compared(holding, of_set(holding, kind))
    for item in items:
        if item.variable == "product":
            yield compared(item, of_set(item, "P" if asked.product == "plate" else "T"))
        elif item.variable == "branch_deg" and asked.branch_deg is not None:
            yield compared(item, of_span(item, asked.branch_deg))
        elif item.variable == "fillet_material_mm" and asked.weld == "fillet":
            yield compared(item, of_span(item, asked.thickness_mm))
        elif item.variable == "layers" and asked.weld == "fillet":
            yield compared(item, of_set(item, asked.layers))
        elif item.variable == "welding_direction" and asked.direction is not None:
            yield compared(item, of_set(item, asked.direction))
        elif item.variable == "welder_position":
            too = any(one.how == "fillets-too" for one in items)
            yield compared(item, _position(item, tested, asked, too))
    yield from _branch_of_plate(items, asked)
    if asked.product == "pipe":
        yield from _diameter(items, asked)


def _branch_of_plate(items: Sequence[RangeItem], asked: WelderWeld) -> Iterator[Compared]:
    if asked.branch_deg is None or any(one.variable == "branch_deg" for one in items):
        return
    item = next(one for one in items if one.variable == "weld_type")
    why = tr("Branches are covered by butt welds on pipes.")
    shown = replace(item, variable="branch_deg", kind="set", values=(tr("none"),))
    yield compared(shown, Answer(verdict="violates", actual=f"{asked.branch_deg:g}°", why=why))


def positions_asked(asked: WelderWeld) -> tuple[str, ...]:
    """Every position that a weld asks for: of a fixed pipe, all that its circumference passes through."""
    kind = "BW" if asked.weld == "butt" else "FW"
    rows = {one["row"]: one for one in table("pipe_positions").rows}
    row = rows.get(f"{kind} {inclined(asked.position)}")
    return tuple(row["needs"]) if row else (asked.position,)


def together(asked: WelderWeld) -> tuple[str, ...]:
    """Positions of two test pieces of one diameter that stand for the position that is asked."""
    rows = {one["row"]: one for one in table("pipe_positions").rows}
    row = rows.get(f"BW {inclined(asked.position)}") if asked.weld == "butt" else None
    return tuple(row.get("together", ())) if row else ()


def _position(item: RangeItem, tested: WelderWeld, asked: WelderWeld, fillets_too: bool) -> Answer:
    if asked.position == tested.position and asked.weld == tested.weld:
        return of_set(replace(item, kind="set", values=(asked.position,)), asked.position)
    if fillets_too and asked.weld == "fillet":
        return _fillets_by_butt(tested, asked)
    if asked.weld == "fillet" and asked.position in ("H-L045", "J-L045"):
        return Answer(verdict="undecided", actual=asked.position, why=item.reason)
    if asked.weld != tested.weld:
        return Answer(verdict="violates", actual=asked.position, why=item.reason)
    return of_set(item, asked.position, all_of=positions_asked(asked))


def _fillets_by_butt(tested: WelderWeld, asked: WelderWeld) -> Answer:
    """Fillet welds follow the position of the butt weld where a supplementary piece was made."""
    positions = {one["row"]: one for one in table("positions").rows}
    row = positions.get(f"FW {tested.position}")
    if row is None:
        why = tr("What fillet welds on an inclined pipe cover is not known here.")
        return Answer(verdict="undecided", actual=asked.position, why=why)
    piece = positions[f"FW {table('products').row('supplementary_fillet')['position']}"]
    held = {*row["covers"], *piece["covers"]}
    missing = [one for one in positions_asked(asked) if one not in held]
    if not missing:
        return Answer(verdict="complies", actual=asked.position)
    why = tr("{asked} asks for {missing} as well.", asked=asked.position, missing=", ".join(missing))
    return Answer(verdict="violates", actual=asked.position, why=why)


def _diameter(items: Sequence[RangeItem], asked: WelderWeld) -> Iterator[Compared]:
    spans = [one for one in items if one.variable == "outside_diameter_mm"]
    fixed = next((one for one in spans if one.how == "fixed"), None)
    if fixed is None:
        for item in spans:
            yield compared(item, of_span(item, asked.diameter_mm))
        return
    turning = next(one for one in spans if one.how == "turning")
    as_fixed = of_span(fixed, asked.diameter_mm)
    if as_fixed.verdict != "violates" or _turns(asked) is False:
        yield compared(fixed, as_fixed)
        return
    row = table("products").row("turning_pipe_from_plate")
    as_turning = of_span(turning, asked.diameter_mm)
    if asked.position not in row["positions"]:
        as_turning = Answer(verdict="violates", value=as_turning.value, why=turning.reason)
    if as_turning.verdict == "complies" and _turns(asked) is None:
        why = tr(
            "Whether the pipe turns is not stated; fixed pipes are covered from {edge:g} mm.", edge=fixed.min
        )
        as_turning = Answer(verdict="undecided", value=as_turning.value, why=why)
    yield compared(turning, as_turning)


def _turns(asked: WelderWeld) -> bool | None:
    """Whether a pipe turns; a butt weld on a pipe in PA, and what a code of fixed pipes says, tell it."""
    if asked.turning is not None:
        return asked.turning
    if asked.weld == "butt" and asked.position == "PA":
        return True
    return False if asked.position in ("PH", "PJ", "H-L045", "J-L045") else None
