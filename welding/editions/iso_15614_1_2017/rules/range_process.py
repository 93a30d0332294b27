"""Ranges of ISO 15614-1:2017 that hold for a process: mechanisation, filler, gas, current, transfer, heat."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.consumables.gas import gas_text
from welding.consumables.gas_symbol import gas_symbol
from welding.editions.iso_15614_1_2017.rules.basics import item, single_share, table_of, variable_row
from welding.glossary.values import in_words
from welding.language import tr
from welding.qualification.coupon import Run, TestCoupon
from welding.qualification.electrodes import electrode_polarity, of_each_electrode
from welding.qualification.impact_proof import impact_proof
from welding.qualification.items import RangeItem
from welding.qualification.needs import Needs
from welding.quantities.writing import quantity_text, range_text
from welding.ranges import Range

TWELVE = ("121", "122", "124", "125", "126")
THIRTEEN = ("131", "132", "133", "135", "136", "138")
FOURTEEN = ("141", "142", "143", "145", "146")
TRANSFER_BOUND = ("131", "135", "138")
SHORT = ("short-circuit", "controlled-short-circuit")
FREE_ARCS = ("globular", "spray", "pulsed")
_FREE = ("voltage_v", "current_a", "wire_feed_m_min", "travel_mm_min", "gas_flow_l_min", "run_out_mm")


def process_items(coupon: TestCoupon, level: int, needs: Needs) -> Iterator[RangeItem]:
    """Every item that holds for a process, for each process of the coupon."""
    yield which_processes(coupon, level)
    for process in coupon.processes:
        yield from _of_process(coupon, process, level, needs)


def which_processes(coupon: TestCoupon, level: int) -> RangeItem:
    """The processes themselves, which a joint without passes may name, too."""
    rows = table_of("variables")
    if not coupon.runs:
        return item(
            rows,
            variable_row("processes", level),
            "processes",
            "unknown",
            tr("No pass is logged; nothing of the welding can be qualified."),
        )
    return item(
        rows,
        variable_row("processes", level),
        "processes",
        "set",
        tr("Each process needs its own test.")
        if len(coupon.processes) == 1
        else tr("The processes tested, each with its own deposited thickness, in the order of the test."),
        values=coupon.processes,
        how="in-order",
        tested=coupon.processes,
    )


def _of_process(coupon: TestCoupon, process: str, level: int, needs: Needs) -> Iterator[RangeItem]:
    runs = coupon.of_process(process)
    shared: dict[str, Any] = {"process": process}
    yield _simple("mechanisation", level, _said(runs, "mechanisation"), "Mechanisation", shared)
    yield from _filler(coupon, runs, process, level, needs, shared)
    yield from _gas(runs, process, level, shared)
    yield _current(runs, process, level, needs, shared)
    yield from _transfer(runs, process, level, shared)
    yield from _heat(coupon, runs, level, needs, shared)
    rows, row = table_of("variables"), variable_row("heat_input_kj_mm", level)
    for variable in _FREE:
        yield item(rows, row, variable, "any", tr("Not limited by itself: heat input is."), **shared)
    for variable, words in (
        ("bead", tr("Stringer or weave")),
        ("output", tr("The output of the power source")),
    ):
        yield item(
            rows, row, variable, "any", tr("{words} is no variable of this code.", words=words), **shared
        )
    kind = variable_row("current_kind", level)
    for one in of_each_electrode(runs):
        yield electrode_polarity(rows, kind, one, shared, item)
    counts = tuple(dict.fromkeys(str(run.electrodes.count) for run in runs))
    yield item(
        rows,
        variable_row("electrodes", level),
        "electrodes",
        "set",
        tr("{counts} wire or electrode, as tested.", counts=", ".join(counts))
        if counts == ("1",)
        else tr("{counts} wires or electrodes, as tested.", counts=", ".join(counts)),
        values=counts,
        tested=counts,
        **shared,
    )


def _said(runs: tuple[Run, ...], field: str) -> tuple[str, ...] | None:
    """What the runs say of a field; ``None`` where one of them does not."""
    found = [getattr(run, field) for run in runs]
    return None if any(one is None for one in found) else tuple(dict.fromkeys(found))


def _simple(
    variable: str, level: int, tested: tuple[str, ...] | None, words: str, shared: Mapping[str, Any]
) -> RangeItem:
    """A variable whose rule is free, as-tested or unknown."""
    rows, row = table_of("variables"), variable_row(variable, level)
    rule = row["rule"]
    if rule == "free":
        return item(
            rows,
            row,
            variable,
            "any",
            tr("{words} is free at this level.", words=words),
            tested=tested,
            **shared,
        )
    if rule == "unknown":
        return item(
            rows,
            row,
            variable,
            "unknown" if tested is None else "set",
            tr(
                "{words}: the rule of level {level} is not known here; look it up in {row} and "
                "enter it in the code book.",
                words=words,
                level=level,
                row=row["clause"],
            ),
            values=tested or (),
            open_beyond=True,
            tested=tested,
            **shared,
        )
    if tested is None:
        return item(
            rows,
            row,
            variable,
            "unknown",
            tr("{words} is not recorded for every pass.", words=words),
            **shared,
        )
    return item(
        rows,
        row,
        variable,
        "set",
        tr("{words} as tested: {tested}.", words=words, tested=", ".join(in_words(one) for one in tested)),
        values=tested,
        tested=tested,
        **shared,
    )


def _filler(
    coupon: TestCoupon, runs: tuple[Run, ...], process: str, level: int, needs: Needs, shared: dict[str, Any]
) -> Iterator[RangeItem]:
    rows = table_of("variables")
    row = variable_row("filler", level)
    tested = tuple(dict.fromkeys(run.designation for run in runs if run.designation))
    autogenous = process == "142"
    if tested:
        yield item(
            rows,
            row,
            "filler",
            "set",
            tr(
                "{tested}: the same strength, type of covering or core, and nominal composition.",
                tested=", ".join(tested),
            )
            if level == 2
            else tr("{tested}: the same nominal composition and strength class.", tested=", ".join(tested)),
            values=tested,
            how="equal-class",
            tested=tested,
            **shared,
        )
    else:
        yield item(
            rows,
            row,
            "filler",
            "any" if autogenous else "unknown",
            tr("Welded without filler.") if autogenous else tr("The filler is not recorded."),
            **shared,
        )
    yield _hydrogen(runs, level, shared)
    yield _make(coupon, runs, process, level, needs, shared)
    yield from _diameter(coupon, runs, process, level, shared)
    if process in TWELVE:
        yield _simple("flux", level, _said(runs, "flux"), tr("The flux"), shared)


def _hydrogen(runs: tuple[Run, ...], level: int, shared: dict[str, Any]) -> RangeItem:
    rows, row = table_of("variables"), variable_row("hydrogen_class", level)
    marks = [run.filler.hydrogen_ml_100g for run in runs if run.filler and run.filler.hydrogen_ml_100g]
    if not marks:
        return item(
            rows, row, "hydrogen_class", "any", tr("The tested filler has no hydrogen mark."), **shared
        )
    most = max(marks)
    return item(
        rows,
        row,
        "hydrogen_class",
        "span",
        tr("Tested with H{most:g}: the same or a lower mark.", most=most),
        max=most,
        tested=Range(min(marks), most),
        **shared,
    )


def _make(
    coupon: TestCoupon, runs: tuple[Run, ...], process: str, level: int, needs: Needs, shared: dict[str, Any]
) -> RangeItem:
    rows, row = table_of("variables"), variable_row("filler_make", level)
    makes = tuple(dict.fromkeys(run.make for run in runs if run.make))
    proof = impact_proof(coupon, single_share())
    cold = proof.temperature_c if proof else None
    bound = needs.impact and cold is not None and process in row["processes"]
    if not bound:
        return item(
            rows,
            row,
            "filler_make",
            "any",
            tr("The trade name is free for this filler and these tests."),
            tested=makes or None,
            **shared,
        )
    below = cold is not None and cold < row["below_c"]
    said = tr(
        "Impact tested {value} {row:g} °C",
        value=tr("below") if below else tr("no colder than"),
        row=row["below_c"],
    )
    if row["rule"] == "unknown-below" or not below:
        return item(
            rows,
            row,
            "filler_make",
            "set" if makes else "unknown",
            tr(
                "{said}: whether the trade name is bound {value} is not known here.",
                said=said,
                value=tr("at this level") if below else tr("then"),
            ),
            values=makes,
            open_beyond=True,
            tested=makes or None,
            **shared,
        )
    return item(
        rows,
        row,
        "filler_make",
        "set" if makes else "unknown",
        tr("{said}: the trade name is kept.", said=said)
        if makes
        else tr("{said}: the trade name is kept, and it is not recorded.", said=said),
        values=makes,
        tested=makes or None,
        **shared,
    )


_STICKS = (1.6, 2.0, 2.5, 3.2, 4.0, 5.0, 6.0, 8.0)
"""Diameters of covered electrodes in which a step is counted (ISO 544, from memory)."""


def _diameter(
    coupon: TestCoupon, runs: tuple[Run, ...], process: str, level: int, shared: dict[str, Any]
) -> Iterator[RangeItem]:
    rows, row = table_of("variables"), variable_row("filler_diameter_mm", level)
    if row["rule"] == "free" or process != "111":
        yield item(
            rows, row, "filler_diameter_mm", "any", tr("Free where heat input stays in its range."), **shared
        )
        return
    joint = coupon.joint
    open_root = bool(joint and joint.sides == "one" and joint.backing in ("none", "gas"))
    for role in ("root", "other"):
        sizes = [run.diameter_mm for run in runs if run.role == role]
        if not sizes:
            continue
        if any(size is None for size in sizes):
            yield item(
                rows,
                row,
                "filler_diameter_mm",
                "unknown",
                tr("The diameter is not recorded for every pass."),
                role=role,
                **shared,
            )
            continue
        known = [size for size in sizes if size is not None]
        fixed = role == "root" and open_root and coupon.weld != "fillet"
        steps = 0 if fixed else row["steps"]
        low, high = _stepped(min(known), -steps), _stepped(max(known), steps)
        yield item(
            rows,
            row,
            "filler_diameter_mm",
            "span",
            tr("Open root from one side: the diameter is kept.")
            if fixed
            else tr(
                "{join} mm, one size smaller or larger.",
                join=tr(" and ").join(f"{one:g}" for one in sorted(set(known))),
            ),
            min=low,
            max=high,
            tested=Range(min(known), max(known)),
            role=role,
            **shared,
        )


def _stepped(size: float, steps: int) -> float:
    at = min(range(len(_STICKS)), key=lambda index: abs(_STICKS[index] - size))
    if not steps:
        return size
    return _STICKS[min(max(at + steps, 0), len(_STICKS) - 1)]


def _gas(runs: tuple[Run, ...], process: str, level: int, shared: dict[str, Any]) -> Iterator[RangeItem]:
    rows, row = table_of("variables"), variable_row("gas", level)
    if process not in (*THIRTEEN, *FOURTEEN, "15"):
        return
    gases = [dict(run.gas) for run in runs if run.gas]
    names = tuple(dict.fromkeys(gas_text(gas) for gas in gases))
    if len(gases) < len(runs):
        yield item(
            rows, row, "gas", "unknown", tr("The shielding gas is not recorded for every pass."), **shared
        )
    else:
        symbols = tuple(dict.fromkeys(gas_symbol(gas).iso_14175 for gas in gases))
        dioxide = max(gas.get("CO2", 0.0) for gas in gases)
        thirteen = process in THIRTEEN
        most = dioxide * (1 + row["co2_plus_percent"] / 100) if thirteen else None
        off_standard = "Z" in symbols
        yield item(
            rows,
            row,
            "gas",
            "set",
            tr(
                "{names}: off the standard's groups, so the nominal composition is kept.",
                names=", ".join(names),
            )
            if off_standard
            else tr("{names}: symbol {symbols}", names=", ".join(names), symbols=", ".join(symbols))
            + (tr(", CO2 up to {most:g} %.", most=most) if most else "."),
            values=names if off_standard else symbols,
            how="composition" if off_standard else "symbol",
            numbers=(most,) if most else (),
            tested=names,
            **shared,
        )
    yield _purge(runs, process, level, shared)


def _purge(runs: tuple[Run, ...], process: str, level: int, shared: dict[str, Any]) -> RangeItem:
    rows, row = table_of("variables"), variable_row("purge", level)
    used = tuple(dict.fromkeys(gas_symbol(dict(run.purge)).iso_14175 for run in runs if run.purge))
    if row["rule"] == "unknown":
        return _simple("purge", level, used or ("none",), tr("Backing gas"), shared)
    if used:
        return item(
            rows,
            row,
            "purge",
            "set",
            tr("Backing gas of symbol {used} is kept.", used=", ".join(used)),
            values=used,
            how="symbol",
            tested=used,
            **shared,
        )
    return item(
        rows,
        row,
        "purge",
        "any",
        tr("Tested without backing gas: that covers welding with it.")
        if process in FOURTEEN
        else tr("Tested without backing gas."),
        tested=("none",),
        **shared,
    )


def _current(
    runs: tuple[Run, ...], process: str, level: int, needs: Needs, shared: dict[str, Any]
) -> RangeItem:
    rows, row = table_of("variables"), variable_row("current_kind", level)
    tested = _said(runs, "polarity")
    if row["rule"] == "as-tested-with-impact" and not needs.impact:
        return item(
            rows,
            row,
            "current_kind",
            "any",
            tr("Current and polarity count at this level only with impact toughness."),
            tested=tested,
            **shared,
        )
    if tested is None:
        return item(rows, row, "current_kind", "unknown", tr("The polarity is not recorded."), **shared)
    if process in FOURTEEN:
        kinds = tuple(dict.fromkeys(f"{run.polarity}{' pulsed' if run.pulsed else ''}" for run in runs))
        said = tr("{kinds} as tested; pulsed and plain current are tested apart.", kinds=", ".join(kinds))
        return item(
            rows, row, "current_kind", "set", said, values=kinds, tested=kinds, how="with-pulse", **shared
        )
    values, reason = tested, tr("{tested} as tested.", tested=", ".join(tested))
    if process == "111" and tested == ("AC",) and not needs.impact:
        values, reason = (
            ("AC", "DCEP", "DCEN"),
            tr("AC covers direct current of both polarities without impact."),
        )
    return item(rows, row, "current_kind", "set", reason, values=values, tested=tested, **shared)


def _transfer(runs: tuple[Run, ...], process: str, level: int, shared: dict[str, Any]) -> Iterator[RangeItem]:
    rows, row = table_of("variables"), variable_row("transfer_modes", level)
    if process not in TRANSFER_BOUND:
        yield item(
            rows,
            row,
            "transfer_modes",
            "any",
            tr("Not limited for process {process}.", process=process),
            **shared,
        )
        return
    for role in ("root", "other"):
        kept = tuple(run for run in runs if run.role == role)
        if not kept:
            continue
        tested = _said(kept, "transfer")
        if tested is None:
            yield item(
                rows,
                row,
                "transfer_modes",
                "unknown",
                tr("The transfer mode is not recorded for every pass."),
                role=role,
                **shared,
            )
            continue
        values: tuple[str, ...] = ()
        if any(mode in SHORT for mode in tested):
            values += SHORT
        if any(mode in FREE_ARCS for mode in tested):
            values += FREE_ARCS
        yield item(
            rows,
            row,
            "transfer_modes",
            "set",
            tr("Short arc covers short arc only; spray, pulsed and globular cover one another."),
            values=values,
            tested=tested,
            role=role,
            **shared,
        )


def _heat(
    coupon: TestCoupon, runs: tuple[Run, ...], level: int, needs: Needs, shared: dict[str, Any]
) -> Iterator[RangeItem]:
    rows, row = table_of("variables"), variable_row("heat_input_kj_mm", level)
    heat = coupon.heat_kj_mm(runs, with_k=True)
    if not (needs.impact or needs.hardness):
        yield item(
            rows,
            row,
            "heat_input_kj_mm",
            "any",
            tr("Neither impact toughness nor hardness is required: heat input is not limited."),
            tested=heat,
            **shared,
        )
        return
    if heat is None or any(run.arc_energy_kj_mm is None or run.k is None for run in runs):
        yield item(
            rows,
            row,
            "heat_input_kj_mm",
            "unknown",
            tr("Volts, amps and travel are not recorded for every pass, or the process's k is not known."),
            tested=heat,
            **shared,
        )
        return
    plus, minus = row.get("impact_plus_percent"), row.get("hardness_minus_percent")
    high = heat.max * (1 + plus / 100) if needs.impact and plus is not None else None
    low = heat.min * (1 - minus / 100) if needs.hardness and minus is not None else None
    methods = ", ".join(sorted({run.energy_method for run in runs}))
    said = [
        tr(
            "Tested {range_text} (k {k:g}, from {methods})",
            range_text=range_text(heat, "heat_input", coupon.units),
            k=runs[0].k,
            methods=methods,
        )
    ]
    if high is not None:
        said.append(
            tr(
                "impact toughness: at most {quantity_text}",
                quantity_text=quantity_text(high, "heat_input", coupon.units),
            )
        )
    if low is not None:
        said.append(
            tr(
                "hardness: at least {quantity_text}",
                quantity_text=quantity_text(low, "heat_input", coupon.units),
            )
        )
    unknown_low = needs.hardness and minus is None
    yield item(
        rows,
        row,
        "heat_input_kj_mm",
        "span" if high is not None or low is not None else "unknown",
        "; ".join(said) + ".",
        min=low,
        max=high,
        open_beyond=row["row"].endswith(".1"),
        tested=heat,
        also=tr("The lower limit with hardness is not known at this level: look it up.")
        if unknown_low
        else "",
        **shared,
    )
