"""What a test of clause 6 part C covers, variable by variable."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.documents.welder_weld import WelderWeld
from welding.errors import WeldingError
from welding.language import tr
from welding.qualification.items import RangeItem
from welding.ranges import Range
from welding.welders.codes.aws_d1_1_2020.rules.basics import column, item, table

_NEAR_MM = 0.5
"""How near a pipe's size is to a nominal one."""


def range_items(weld: WelderWeld) -> tuple[RangeItem, ...]:
    """Everything that a test covers.

    Raises:
        WeldingError: It is a weld in a position of the code, and no test.
    """
    if weld.position in ("F", "H", "V", "OH"):
        raise WeldingError(
            tr(
                "{position} is the position of a weld: a test is in 1G to 6GR or 1F to 4F.",
                position=weld.position,
            )
        )
    if weld.product == "pipe" and weld.position in ("3G", "4G"):
        raise WeldingError(tr("A {position} test is on plate.", position=weld.position))
    return (
        *_person(weld),
        *_process(weld),
        *_weld_type(weld),
        *_positions(weld),
        *_sizes(weld),
        *_backing(weld),
        *_electrodes(weld),
    )


def _person(weld: WelderWeld) -> Iterator[RangeItem]:
    persons = table("persons")
    row = persons.row(weld.person)
    covers = tuple(row["covers"])
    doubtful = tuple(row.get("after_training", ()))
    if weld.trained:
        covers, doubtful = (*covers, *doubtful), ()
    yield item(
        persons,
        row,
        "person",
        "set",
        tr("A welder may run a machine of that process after training, when shown to be able.")
        if weld.person == "welder"
        else tr("Who was tested as this is qualified as this."),
        values=covers,
        doubtful=doubtful,
        tested=(weld.person,),
    )


def _process(weld: WelderWeld) -> Iterator[RangeItem]:
    part = weld.parts[0]
    processes = table("processes")
    row = processes.row(part.process)
    yield item(
        processes,
        row,
        "welder_process",
        "set",
        tr("A change of process asks for a new test; GMAW-S is a process of its own."),
        columns=("covers",),
        values=tuple(row["covers"]),
        tested=(part.process,),
    )
    if row.get("f_numbers") and part.filler_group and weld.person != "operator":
        groups = table("f_numbers")
        group = groups.row(part.filler_group)
        yield item(
            groups,
            group,
            "filler_group",
            "set",
            tr("An F-number covers itself and the lower ones."),
            columns=("covers",),
            values=tuple(group["covers"]),
            tested=(part.filler_group,),
        )


def _weld_type(weld: WelderWeld) -> Iterator[RangeItem]:
    positions = table("positions")
    row = positions.row(_test(weld))
    if weld.groove == "plug":
        values, reason = ("plug",), tr("The plug weld test covers plug and slot welds.")
    elif weld.weld == "fillet":
        values, reason = ("fillet",), tr("A fillet weld test covers no groove weld.")
    else:
        values = ("cjp", "pjp", "fillet", *(("tyk",) if row.get("tyk") else ()))
        reason = tr("A groove weld test covers CJP and PJP groove welds and fillet welds.")
    yield item(positions, row, "weld_type", "set", reason, values=values, tested=(_kind(weld),))


def _kind(weld: WelderWeld) -> str:
    return "fillet" if weld.weld == "fillet" else weld.groove or "cjp"


def _test(weld: WelderWeld) -> str:
    """The row of the table of positions that a test stands in."""
    key = f"{weld.product} {weld.position}"
    known = {row["row"] for row in table("positions").rows}
    return key if key in known else f"plate {weld.position}"


def _positions(weld: WelderWeld) -> Iterator[RangeItem]:
    positions = table("positions")
    row = positions.row(_test(weld))
    if weld.groove == "plug":
        return
    for name, group in (("groove", "groove"), ("fillet", "fillet")):
        if row[name]:
            yield item(
                positions,
                row,
                "welder_position",
                "set",
                _reason(weld),
                columns=(name,),
                values=tuple(row[name]),
                tested=(weld.position,),
                weld=group,
            )
    vertical = {"V", "OH"} & {*row["groove"], *row["fillet"]}
    if "V" in vertical and weld.person == "welder":
        progressions = (weld.progression,) if weld.progression else ()
        yield item(
            positions,
            row,
            "progression",
            "set" if progressions else "unknown",
            tr("A change of the vertical progression asks for a new test.")
            if progressions
            else tr("The vertical progression of the test is not stated."),
            values=progressions,
            tested=progressions,
        )


def _reason(weld: WelderWeld) -> str:
    product = tr("pipe") if weld.product == "pipe" else tr("plate")
    return tr("A {position} test on {product} covers these.", position=weld.position, product=product)


def _sizes(weld: WelderWeld) -> Iterator[RangeItem]:
    sizes = table("sizes")
    if weld.person == "tack-welder":
        row = sizes.row("tack")
        yield _from_least(weld, row, "material_mm", tr("Tack welds on this thickness and over."))
        return
    fillet = sizes.row("fillet")
    yield _from_least(weld, fillet, "fillet_material_mm", tr("Fillet welds on this thickness and over."))
    angle = sizes.row("dihedral.fillet" if weld.weld == "fillet" else "dihedral.groove")
    yield item(
        sizes,
        angle,
        "dihedral_deg",
        "span",
        tr("Fillet welds with a dihedral angle of {deg:g}° and over.", deg=angle["least_deg"]),
        min=angle["least_deg"],
        how="edge-open" if weld.weld == "fillet" else "",
    )
    if weld.product == "plate" and weld.groove != "plug":
        yield _pipe_by_plate(weld)
    if weld.weld == "fillet" or weld.groove == "plug":
        return
    yield from _pipe_sizes(weld) if weld.product == "pipe" else _plate_sizes(weld)


def _from_least(weld: WelderWeld, row: Mapping[str, Any], variable: str, reason: str) -> RangeItem:
    return item(table("sizes"), row, variable, "span", reason, min=column(row, "least", weld.units))


def _pipe_by_plate(weld: WelderWeld) -> RangeItem:
    sizes = table("sizes")
    row = sizes.row("pipe_from_plate")
    return item(
        sizes,
        row,
        "outside_diameter_mm",
        "span",
        tr("Plates cover groove welds in pipe from this diameter, with backing, backgouging or both."),
        min=column(row, "least_diameter", weld.units),
        how="from-plate",
    )


def _plate_sizes(weld: WelderWeld) -> Iterator[RangeItem]:
    sizes = table("sizes")
    standard, between, unlimited = (sizes.row(f"plate.{one}") for one in ("standard", "between", "unlimited"))
    t = weld.thickness_mm
    if t is None:
        yield item(
            sizes, standard, "material_mm", "unknown", tr("The thickness of the test plate is not stated.")
        )
        return
    tested = Range(t, t)
    # The test plate is 3/8 in or 10 mm, by the printed column; what lies between is taken as it.
    least_mm, most_mm = (column(standard, "tested", one) or 0.0 for one in ("us", "si"))
    if t < least_mm - 1e-6:
        reason = tr("What a test plate below 3/8 in (10 mm) covers is not known here.")
        yield item(sizes, standard, "material_mm", "unknown", reason, tested=tested)
    elif t <= most_mm + 1e-6:
        reason = tr("A test plate of 3/8 in (10 mm) covers 1/8 in to 3/4 in (3 mm to 20 mm).")
        yield item(
            sizes,
            standard,
            "material_mm",
            "span",
            reason,
            min=column(standard, "least", weld.units),
            max=column(standard, "greatest", weld.units),
            tested=tested,
        )
    elif t < float(unlimited["tested_mm"]) - 1e-6:
        yield item(
            sizes,
            between,
            "material_mm",
            "span",
            tr("Over 3/8 in (10 mm) and under 1 in (25 mm): from 1/8 in (3 mm) to twice the thickness."),
            min=column(between, "least", weld.units),
            max=between["factor"] * t,
            tested=tested,
        )
    else:
        yield item(
            sizes,
            unlimited,
            "material_mm",
            "span",
            tr("From 1 in (25 mm): 1/8 in (3 mm) and over."),
            min=column(unlimited, "least", weld.units),
            tested=tested,
        )


def _pipe_sizes(weld: WelderWeld) -> Iterator[RangeItem]:
    sizes = table("sizes")
    d, t = weld.diameter_mm or 0.0, weld.thickness_mm
    row = next(
        (
            one
            for one in sizes.rows
            if one["row"].startswith("pipe.")
            and abs(one["diameter_mm"] - d) < _NEAR_MM
            and (t is None or abs(one["tested_mm"] - t) < _NEAR_MM)
        ),
        None,
    )
    if row is None:
        reason = tr("What a test on this size of pipe covers is not known here.")
        for variable in ("material_mm", "outside_diameter_mm"):
            yield item(sizes, sizes.row("pipe.small.2"), variable, "unknown", reason)
        return
    small = row["row"].startswith("pipe.small")
    reason = (
        tr("A test on 2 in Schedule 80 or 3 in Schedule 40 pipe covers small pipe.")
        if small
        else tr("A test on 6 in Schedule 120 or 8 in Schedule 80 pipe covers large pipe.")
    )
    for variable, ends in (
        ("material_mm", ("least", "greatest")),
        ("outside_diameter_mm", ("least_diameter", "greatest_diameter")),
    ):
        yield item(
            sizes,
            row,
            variable,
            "span",
            reason,
            min=column(row, ends[0], weld.units),
            max=column(row, ends[1], weld.units),
        )


def _backing(weld: WelderWeld) -> Iterator[RangeItem]:
    if weld.weld == "fillet" or weld.person == "tack-welder" or weld.groove == "plug":
        return
    rows = table("backing")
    row = rows.row(weld.backing or "backing")
    yield item(
        rows,
        row,
        "backing",
        "set",
        tr("Leaving out the backing of the test asks for a new test; backgouging stands for backing."),
        columns=("covers",),
        values=tuple(row["covers"]),
        tested=(weld.backing,) if weld.backing else (),
    )


def _electrodes(weld: WelderWeld) -> Iterator[RangeItem]:
    if weld.person != "operator":
        return
    rows = table("electrodes")
    row = rows.row("several" if (weld.electrodes or 1) > 1 else "single")
    yield item(
        rows,
        row,
        "electrodes",
        "set",
        tr("From a single electrode to several asks for a new test."),
        values=tuple(str(one) for one in row["covers"]),
        tested=(str(weld.electrodes or 1),),
    )
