"""Range of qualification: each variable of clause 5, by its table."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from welding.documents.welder_weld import ProcessPart, WelderWeld
from welding.language import tr
from welding.qualification.items import RangeItem, also_read
from welding.ranges import Range
from welding.welders.codes.iso_9606_1_2017.rules.basics import item, table

GAS_WELDING = "311"


def range_items(weld: WelderWeld) -> tuple[RangeItem, ...]:
    """Everything that a test piece covers, variable by variable.

    For a piece of two processes each has its own items; the deposited thickness of both in the same order
    stands as an item ``together``.
    """
    return (*_of_processes(weld), *_of_piece(weld), *_fillets_too(weld))


def _of_processes(weld: WelderWeld) -> Iterator[RangeItem]:
    several = len(weld.parts) > 1
    for at, part in enumerate(weld.parts):
        for one in _of_part(weld, part, root=at == 0):
            yield replace(one, process=part.process) if several else one
        if weld.weld == "butt":
            yield from _backing(weld, part, second=at > 0)
    if several and all(one.deposited_mm for one in weld.parts):
        whole = sum(one.deposited_mm or 0 for one in weld.parts)
        row = table("processes_together").row("together")
        found = _thickness(weld, replace(weld.parts[-1], deposited_mm=whole))
        reason = tr(
            "Both processes in the same order: their deposited thicknesses count together. {why}",
            why=found.reason,
        )
        yield also_read(replace(found, how="together", reason=reason), table("processes_together"), row)


def _of_part(weld: WelderWeld, part: ProcessPart, root: bool) -> Iterator[RangeItem]:
    yield _process(part)
    yield from _transfer(part)
    yield from _filler(weld, part, root)
    if weld.weld == "butt" and part.deposited_mm is not None:
        yield _thickness(weld, part)


def _process(part: ProcessPart) -> RangeItem:
    processes = table("processes")
    row = processes.row(part.process)
    others = [one for one in row["covers"] if one != part.process]
    reason = (
        tr("{process} also covers {others}.", process=part.process, others=", ".join(others))
        if others
        else tr("{process} covers itself alone.", process=part.process)
    )
    return item(
        processes,
        row,
        "welder_process",
        "set",
        reason,
        columns=("covers",),
        values=tuple(row["covers"]),
        tested=(part.process,),
    )


def _transfer(part: ProcessPart) -> Iterator[RangeItem]:
    if not table("processes").row(part.process).get("transfer"):
        return
    modes = table("transfer_modes")
    if part.transfer is None:
        row = modes.row("spray")
        yield item(
            modes,
            row,
            "transfer_mode",
            "set",
            tr("The transfer mode of the test is not stated: whether dip transfer is covered is open."),
            values=tuple(row["covers"]),
            doubtful=("dip",),
        )
        return
    row = modes.row(part.transfer)
    reason = (
        tr("Dip transfer covers every other mode.")
        if part.transfer == "dip"
        else tr("A test in another mode does not cover dip transfer.")
    )
    yield item(
        modes, row, "transfer_mode", "set", reason, values=tuple(row["covers"]), tested=(part.transfer,)
    )


def _filler(weld: WelderWeld, part: ProcessPart, root: bool) -> Iterator[RangeItem]:
    if part.filler_type == "nm":
        row = table("processes").row(part.process)
        yield item(
            table("processes"),
            row,
            "filler_type",
            "set",
            tr("Welded without filler: welding with filler is not covered."),
            columns=("filler_types",),
            values=("nm",),
            tested=("nm",),
        )
        known = weld.metal_group is not None
        yield item(
            table("processes"),
            row,
            "metal_group",
            "set" if known else "unknown",
            tr("Without filler the group of the base metal takes the place of the filler group.")
            if known
            else tr("Without filler the group of the base metal counts; that of the test is not stated."),
            columns=("filler_types",),
            values=(str(weld.metal_group),) if known else (),
            tested=(str(weld.metal_group),) if known else None,
        )
        return
    groups = table("filler_groups")
    row = groups.row(str(part.filler_group))
    yield item(
        groups,
        row,
        "filler_group",
        "set",
        tr("{group} covers {others}.", group=part.filler_group, others=", ".join(row["covers"])),
        columns=("covers",),
        values=tuple(row["covers"]),
        tested=(str(part.filler_group),),
    )
    yield _filler_type(weld, part, root)


def _filler_type(weld: WelderWeld, part: ProcessPart, root: bool) -> RangeItem:
    types = table("filler_types")
    kind = "electrode" if part.process == "111" else "wire"
    row = types.row(f"{kind} {family(part.process, part.filler_type)}")
    covers = tuple(row["covers"])
    processes = table("processes")
    bare = any("nm" in processes.row(one)["filler_types"] for one in processes.row(part.process)["covers"])
    reason = tr("Type {type} covers {others}.", type=part.filler_type, others=", ".join(covers))
    if bare:
        reason = tr(
            "Type {type} covers {others}, and welding without filler.",
            type=part.filler_type,
            others=", ".join(covers),
        )
    found = item(
        types,
        row,
        "filler_type",
        "set",
        reason,
        columns=("covers",),
        values=(*covers, "nm") if bare else covers,
        tested=(str(part.filler_type),),
    )
    limit = types.row("root")
    open_root = root and weld.weld == "butt" and weld.backing == limit["only_tested_at"]
    if not open_root or part.filler_type in ("S", "M"):
        return found
    also = tr("In a root run without backing only the type that was tested: {type}.", type=part.filler_type)
    return also_read(replace(found, also=also, how="root-as-tested"), types, limit)


def _thickness(weld: WelderWeld, part: ProcessPart) -> RangeItem:
    s = part.deposited_mm or 0.0
    kind = "gas" if part.process == GAS_WELDING else "butt"
    return _sized(weld, s, kind, "deposited_mm", part)


def _sized(weld: WelderWeld, size: float, kind: str, variable: str, part: ProcessPart) -> RangeItem:
    sizes = table("sizes")
    tested = Range(size, size)
    thin = sizes.row(f"{kind}.thin")
    medium = sizes.row("fillet.thick" if kind == "fillet" else f"{kind}.medium")
    if size < thin["below_mm"]:
        most = max(thin["factor"] * size, thin.get("greatest_at_least_mm", 0.0))
        return item(
            sizes,
            thin,
            variable,
            "span",
            tr(
                "Below {edge:g} mm: from the tested thickness to {most:g} mm.",
                edge=thin["below_mm"],
                most=most,
            ),
            min=size,
            max=most,
            tested=tested,
        )
    if kind == "fillet":
        return item(
            sizes,
            medium,
            variable,
            "span",
            tr("From {least:g} mm: {least:g} mm and over.", least=medium["least_mm"]),
            min=medium["least_mm"],
            tested=tested,
        )
    if size < medium["below_mm"]:
        return item(
            sizes,
            medium,
            variable,
            "span",
            tr(
                "Below {edge:g} mm: from {least:g} mm to {factor:g} times the tested thickness.",
                least=medium["least_mm"],
                edge=medium["below_mm"],
                factor=medium["factor"],
            ),
            min=medium["least_mm"],
            max=medium["factor"] * size,
            tested=tested,
        )
    return _thick(weld, kind, variable, tested)


def _thick(weld: WelderWeld, kind: str, variable: str, tested: Range) -> RangeItem:
    sizes = table("sizes")
    row = sizes.row("butt.thick")
    if kind == "gas":
        return item(
            sizes,
            sizes.row("gas.medium"),
            variable,
            "unknown",
            tr("What oxy-acetylene welding of 12 mm and over covers is not known here."),
            tested=tested,
        )
    if weld.layer_count is not None and weld.layer_count < row["layers"]:
        return item(
            sizes,
            row,
            variable,
            "unknown",
            tr(
                "From {edge:g} mm the piece is welded in at least {layers} layers; this one has {count}.",
                edge=sizes.row("butt.medium")["below_mm"],
                layers=row["layers"],
                count=weld.layer_count,
            ),
            tested=tested,
        )
    also = (
        tr("The certificate stands for a piece of at least {layers} layers.", layers=row["layers"])
        if weld.layer_count is None
        else ""
    )
    return item(
        sizes,
        row,
        variable,
        "span",
        tr(
            "Welded in at least {layers} layers: {least:g} mm and over.",
            layers=row["layers"],
            least=row["least_mm"],
        ),
        min=row["least_mm"],
        tested=tested,
        also=also,
    )


# --- the piece --------------------------------------------------------------------------------------


def _of_piece(weld: WelderWeld) -> Iterator[RangeItem]:
    yield _weld(weld)
    yield from _product(weld)
    if weld.weld == "fillet" and weld.thickness_mm is not None:
        yield _sized(weld, weld.thickness_mm, "fillet", "fillet_material_mm", weld.parts[0])
    yield _position(weld)
    details = table("details")
    if weld.layers is not None and weld.weld == "fillet":
        row = details.row(weld.layers)
        reason = (
            tr("Several layers cover a single layer.")
            if weld.layers == "ml"
            else tr("A single layer does not cover several.")
        )
        yield _detail("layers", reason, row, weld.layers)
    if weld.direction is not None:
        row = details.row(weld.direction)
        yield _detail(
            "welding_direction", tr("A change between lw and rw needs a new test."), row, weld.direction
        )


def _detail(variable: str, reason: str, row: Any, tested: str) -> RangeItem:
    details = table("details")
    return item(
        details,
        row,
        variable,
        "set",
        reason,
        columns=("covers",),
        values=tuple(row["covers"]),
        tested=(tested,),
    )


def _weld(weld: WelderWeld) -> RangeItem:
    products = table("products")
    row = products.row("branch")
    if weld.weld == "fillet":
        return item(
            products,
            row,
            "weld_type",
            "set",
            tr("Fillet welds do not cover butt welds."),
            values=("FW",),
            tested=("FW",),
        )
    return item(
        products,
        row,
        "weld_type",
        "set",
        tr("Butt welds in every joint but branches below {deg:g}°; no fillet welds.", deg=row["from_deg"]),
        values=("BW",),
        tested=("BW",),
    )


def _product(weld: WelderWeld) -> Iterator[RangeItem]:
    products, sizes = table("products"), table("sizes")
    if weld.product == "plate":
        fixed, turning = products.row("fixed_pipe_from_plate"), products.row("turning_pipe_from_plate")
        yield item(
            products,
            fixed,
            "product",
            "set",
            tr("Plates, and pipes of a large diameter."),
            values=("P", "T"),
            tested=("P",),
        )
        yield item(
            products,
            fixed,
            "outside_diameter_mm",
            "span",
            tr("Plates cover fixed pipes from {edge:g} mm.", edge=fixed["from_mm"]),
            min=fixed["from_mm"],
            how="fixed",
        )
        yield item(
            products,
            turning,
            "outside_diameter_mm",
            "span",
            tr(
                "Plates cover turning pipes from {edge:g} mm, in {positions}.",
                edge=turning["from_mm"],
                positions=", ".join(turning["positions"]),
            ),
            min=turning["from_mm"],
            how="turning",
        )
        return
    d = weld.diameter_mm or 0.0
    plate = products.row("plate_from_pipe")
    covers = d > plate["above_mm"]
    reason = (
        tr("Pipes above {edge:g} mm cover plates.", edge=plate["above_mm"])
        if covers
        else tr("Pipes up to {edge:g} mm do not cover plates.", edge=plate["above_mm"])
    )
    yield item(
        products, plate, "product", "set", reason, values=("T", "P") if covers else ("T",), tested=("T",)
    )
    small, large = sizes.row("diameter.small"), sizes.row("diameter.large")
    if d <= small["up_to_mm"]:
        yield item(
            sizes,
            small,
            "outside_diameter_mm",
            "span",
            tr("Up to {edge:g} mm: from D to {factor:g} D.", edge=small["up_to_mm"], factor=small["factor"]),
            min=d,
            max=small["factor"] * d,
            tested=Range(d, d),
        )
    else:
        yield item(
            sizes,
            large,
            "outside_diameter_mm",
            "span",
            tr(
                "Above {edge:g} mm: from {share:g} D, at least {least:g} mm; no upper limit.",
                edge=small["up_to_mm"],
                share=large["share"],
                least=large["least_mm"],
            ),
            min=max(large["share"] * d, large["least_mm"]),
            tested=Range(d, d),
        )
    if weld.weld == "butt":
        branch = products.row("branch")
        yield item(
            products,
            branch,
            "branch_deg",
            "span",
            tr(
                "Butt welds on pipes cover branches from {deg:g}°; their diameter is that of the branch.",
                deg=branch["from_deg"],
            ),
            min=branch["from_deg"],
        )


def _position(weld: WelderWeld) -> RangeItem:
    positions = table("positions")
    kind = "BW" if weld.weld == "butt" else "FW"
    key = f"{kind} {inclined(weld.position)}"
    if key not in {one["row"] for one in positions.rows}:
        row = positions.row("BW H-L045")
        reason = tr("What fillet welds on an inclined pipe cover is not known here.")
        return item(positions, row, "welder_position", "unknown", reason, tested=(weld.position,))
    row = positions.row(key)
    return item(
        positions,
        row,
        "welder_position",
        "set",
        tr(
            "{weld} in {position} cover {others}.",
            weld=_plural(kind),
            position=weld.position,
            others=", ".join(row["covers"]),
        ),
        columns=("covers",),
        values=tuple(row["covers"]),
        tested=(weld.position,),
    )


def inclined(position: str) -> str:
    """The position that a pipe welded in two positions stands for; any other as it is."""
    rows = table("pipe_positions").rows
    return next(
        (one["row"].split()[1] for one in rows if "/".join(one.get("together", ())) == position), position
    )


def family(process: str, filler_type: str | None) -> str | None:
    """The letter of a covering that ISO 2560-B gives a number; any other type as it is."""
    if process != "111" or filler_type is None or not filler_type.isdigit():
        return filler_type
    return str(table("filler_types").row(f"electrode {filler_type}")["stands_for"])


def _plural(kind: str) -> str:
    return tr("Butt welds") if kind == "BW" else tr("Fillet welds")


def _backing(weld: WelderWeld, part: ProcessPart, second: bool) -> Iterator[RangeItem]:
    details = table("details")
    if second:
        together = table("processes_together")
        row = together.row("second")
        own = details.row(row["backing"])
        found = _detail(
            "backing",
            tr("The second process made no open root: it counts as welded with backing."),
            own,
            row["backing"],
        )
        yield also_read(replace(found, process=part.process), together, row)
        return
    if weld.backing is None:
        return
    row = details.row(weld.backing)
    found = _detail(
        "backing",
        tr("{detail} covers {others}.", detail=weld.backing, others=", ".join(row["covers"])),
        row,
        weld.backing,
    )
    yield replace(found, process=part.process) if len(weld.parts) > 1 else found


def _fillets_too(weld: WelderWeld) -> Iterator[RangeItem]:
    """Fillet welds, by the supplementary piece of a test of butt welds."""
    too = weld.fillet_too
    if weld.weld != "butt" or too is None:
        return
    products = table("products")
    row = products.row("supplementary_fillet")
    least = min(row["from_mm"], weld.parts[0].deposited_mm or row["from_mm"])
    same = too.process == weld.parts[0].process and too.filler_type == weld.parts[0].filler_type
    enough = (weld.fillet_too_mm or 0.0) >= least
    if same and enough and len(weld.parts) == 1:
        reason = tr(
            "With the supplementary fillet weld piece, fillet welds follow the variables of the butt weld."
        )
        yield item(
            products, row, "weld_type", "set", reason, values=("FW",), tested=("FW",), how="fillets-too"
        )
        yield _sized(weld, weld.fillet_too_mm or 0.0, "fillet", "fillet_material_mm", too)
