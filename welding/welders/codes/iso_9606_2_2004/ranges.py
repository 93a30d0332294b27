"""Range of qualification for aluminium, variable by variable; what is not recalled is undecided."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.documents.welder_weld import WelderWeld
from welding.editions.toolkit import EditionTables
from welding.language import tr
from welding.qualification.items import RangeItem
from welding.ranges import Range

PACKAGE = "welding.welders.codes.iso_9606_2_2004"
_TABLES = EditionTables(PACKAGE)
table = _TABLES.table
item = _TABLES.item
UPWARD, DOWNWARD = ("PF", "H-L045"), ("PG", "J-L045")
POSITIONS = ("PA", "PB", "PC", "PD", "PE", "PF", "PG", "H-L045", "J-L045")


def range_items(weld: WelderWeld) -> tuple[RangeItem, ...]:
    """Everything that a test piece covers."""
    return (*_of_process(weld), *_of_product(weld), *_of_sizes(weld), *_of_details(weld))


def _of_process(weld: WelderWeld) -> Iterator[RangeItem]:
    part = weld.parts[0]
    processes = table("processes")
    row = processes.row(part.process)
    yield item(
        processes,
        row,
        "welder_process",
        "set",
        tr("{process} covers itself alone.", process=part.process),
        columns=("covers",),
        values=tuple(row["covers"]),
        tested=(part.process,),
    )
    bare = part.filler_type == "nm"
    reason = (
        tr("Welded without filler: welding with filler is not covered.")
        if bare
        else tr("Welding with filler covers welding without.")
    )
    values = ("nm",) if bare else ("S", "nm")
    yield item(processes, row, "filler_type", "set", reason, values=values, tested=(str(part.filler_type),))
    groups = table("metal_groups")
    group = groups.row(str(weld.metal_group))
    yield item(
        groups,
        group,
        "metal_group",
        "set",
        tr("{group} covers {others}.", group=weld.metal_group, others=", ".join(group["covers"])),
        values=tuple(group["covers"]),
        tested=(str(weld.metal_group),),
    )


def _of_product(weld: WelderWeld) -> Iterator[RangeItem]:
    products = table("products")
    butt = weld.weld == "butt"
    doubt = products.row("fillet_from_butt")
    reason = (
        tr("Butt welds cover butt welds; whether they cover fillet welds is not known here.")
        if butt
        else tr("Fillet welds do not cover butt welds.")
    )
    yield item(
        products,
        doubt,
        "weld_type",
        "set",
        reason,
        values=("BW",) if butt else ("FW",),
        doubtful=("FW",) if butt else (),
        tested=("BW" if butt else "FW",),
    )
    pipe = weld.product == "pipe"
    edge = products.row("plate_from_pipe")["above_mm"]
    both = not pipe or (weld.diameter_mm or 0.0) > edge
    yield item(
        products,
        products.row("plate_from_pipe"),
        "product",
        "set",
        tr("Pipes above {edge:g} mm cover plates.", edge=edge),
        values=("P", "T") if both else ("T",),
        tested=("T" if pipe else "P",),
    )
    if not pipe:
        for key in ("pipe_from_plate", "other_pipe_from_plate"):
            row = products.row(key)
            yield item(
                products, row, "outside_diameter_mm", "span", _pipe_words(row), min=row["from_mm"], how=key
            )
    elif butt:
        row = products.row("branch")
        yield item(
            products,
            row,
            "branch_deg",
            "span",
            tr("Butt welds on pipes cover branches from {deg:g}°.", deg=row["from_deg"]),
            min=row["from_deg"],
        )


def _pipe_words(row: Mapping[str, Any]) -> str:
    positions = row.get("positions")
    if not positions:
        return tr("Plates cover pipes in every position from {edge:g} mm.", edge=row["from_mm"])
    return tr(
        "Plates cover pipes from {edge:g} mm in {positions}.",
        edge=row["from_mm"],
        positions=", ".join(positions),
    )


def _of_sizes(weld: WelderWeld) -> Iterator[RangeItem]:
    sizes = table("sizes")
    t = weld.thickness_mm or 0.0
    tested = Range(t, t)
    if weld.weld == "fillet":
        thin, thick = sizes.row("fillet.thin"), sizes.row("fillet.thick")
        if t < thin["below_mm"]:
            reason = tr(
                "Below {edge:g} mm: from the tested thickness to {most:g} mm.",
                edge=thin["below_mm"],
                most=thin["greatest_mm"],
            )
            yield item(
                sizes,
                thin,
                "fillet_material_mm",
                "span",
                reason,
                min=t,
                max=thin["greatest_mm"],
                tested=tested,
            )
        else:
            reason = tr("From {least:g} mm: {least:g} mm and over.", least=thick["least_mm"])
            yield item(
                sizes, thick, "fillet_material_mm", "span", reason, min=thick["least_mm"], tested=tested
            )
    else:
        thin, thick = sizes.row("butt.thin"), sizes.row("butt.thick")
        if t <= thin["up_to_mm"]:
            reason = tr(
                "Up to {edge:g} mm: from {share:g} to {factor:g} times the tested thickness.",
                edge=thin["up_to_mm"],
                share=thin["share"],
                factor=thin["factor"],
            )
            yield item(
                sizes,
                thin,
                "material_mm",
                "span",
                reason,
                min=thin["share"] * t,
                max=thin["factor"] * t,
                tested=tested,
            )
        else:
            reason = tr("Above {least:g} mm: {least:g} mm and over.", least=thick["least_mm"])
            yield item(sizes, thick, "material_mm", "span", reason, min=thick["least_mm"], tested=tested)
    if weld.product == "pipe":
        yield _diameter(weld.diameter_mm or 0.0)


def _diameter(d: float) -> RangeItem:
    sizes = table("sizes")
    small, large = sizes.row("diameter.small"), sizes.row("diameter.large")
    tested = Range(d, d)
    if d <= small["up_to_mm"]:
        reason = tr(
            "Up to {edge:g} mm: from D to {factor:g} D.", edge=small["up_to_mm"], factor=small["factor"]
        )
        return item(
            sizes, small, "outside_diameter_mm", "span", reason, min=d, max=small["factor"] * d, tested=tested
        )
    least = max(large["share"] * d, large["least_mm"])
    reason = tr(
        "Above {edge:g} mm: from {share:g} D, at least {least:g} mm; no upper limit.",
        edge=small["up_to_mm"],
        share=large["share"],
        least=large["least_mm"],
    )
    return item(sizes, large, "outside_diameter_mm", "span", reason, min=least, tested=tested)


def _of_details(weld: WelderWeld) -> Iterator[RangeItem]:
    positions, details = table("positions"), table("details")
    never = DOWNWARD if weld.position in UPWARD else UPWARD if weld.position in DOWNWARD else ()
    yield item(
        positions,
        positions.row("own"),
        "welder_position",
        "set",
        tr("Its own position is covered; what else it covers is not known here."),
        values=(weld.position,),
        doubtful=tuple(one for one in POSITIONS if one != weld.position and one not in never),
        tested=(weld.position,),
    )
    known = {row["row"] for row in details.rows}
    for variable, tested in (
        ("backing", weld.backing),
        ("layers", weld.layers if weld.weld == "fillet" else None),
    ):
        if tested is None:
            continue
        row = details.row(tested if tested in known else "ss mb")
        yield item(
            details,
            row,
            variable,
            "set" if tested in known else "unknown",
            tr("{detail} covers {others}.", detail=tested, others=", ".join(row["covers"]))
            if tested in known
            else tr("What {detail} covers is not known here.", detail=tested),
            columns=("covers",),
            values=tuple(row["covers"]) if tested in known else (),
            tested=(tested,),
        )
