"""Ranges of AWS D1.1:2020 for temperatures, heat treatment and, with impact toughness, heat input."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from welding.editions.aws_d1_1_2020.rules.basics import code_process, degrees, item, joint_row, table_of
from welding.editions.toolkit import row_of
from welding.glossary.values import in_words
from welding.language import number, tr, tr_noop
from welding.qualification.coupon import TestCoupon
from welding.qualification.impact_proof import impact_proof
from welding.qualification.items import RangeItem
from welding.qualification.positions import has_progression
from welding.quantities.writing import quantity_text, range_text
from welding.ranges import Range

PRODUCTION_PREHEAT = tr_noop(
    "Below the preheat of table 5.8 for the production thickness the engineer states "
    "why the tested one is enough, up to the thickness that was tested."
)


def heat_items(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    """Temperatures, treatments, heat input, and what impact toughness adds."""
    yield from _temperatures(coupon, impact)
    yield from _treatments(coupon, impact)
    yield from _heat_input(coupon, impact)
    yield from _beads(coupon, impact)
    yield from _impact(coupon, impact)


def _strictest(coupon: TestCoupon, variable: str) -> float | None:
    """Smallest allowance over the coupon's processes [°C]."""
    table = table_of("essential_variables")
    names = {name for p in coupon.processes if (name := code_process(p))}
    found = [degrees(row_of(table, f"{variable}.{name}"), "minus", coupon.units) for name in names]
    return min((value for value in found if value is not None), default=None)


def _temperatures(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    table = table_of("essential_variables")
    names = [name for p in coupon.processes if (name := code_process(p))]
    more = table_of("impact_variables")
    before = coupon.before_c
    tested: dict[str, Range | None] = {
        "preheat_c": Range(coupon.preheat_c, coupon.preheat_c) if coupon.preheat_c is not None else None,
        "interpass_c": before,
    }
    for variable, words in (("preheat_c", "Preheat"), ("interpass_c", tr("Lowest interpass temperature"))):
        row = row_of(table, f"{variable}.{names[0] if names else 'SMAW'}")
        allowance, seen = _strictest(coupon, variable), tested[variable]
        if seen is None or allowance is None:
            yield item(
                table,
                row,
                variable,
                "unknown",
                tr("{words} is not recorded.", words=words),
                also=tr(PRODUCTION_PREHEAT),
            )
            continue
        high, reason = (
            None,
            tr(
                "{words} of {c} less {difference}.",
                words=words,
                c=_c(coupon, seen.min),
                difference=_difference(coupon, allowance),
            ),
        )
        unchecked = table.unchecked_of(row)
        if impact:
            extra = row_of(more, "preheat" if variable == "preheat_c" else "interpass")
            rise = degrees(extra, "plus", coupon.units) or 0.0
            high = seen.max + rise
            reason += tr(
                " With impact toughness at most {c} and {difference} more.",
                c=_c(coupon, seen.max),
                difference=_difference(coupon, rise),
            )
            unchecked += more.unchecked_of(extra)
        found = item(
            table,
            row,
            variable,
            "span",
            reason,
            min=seen.min - allowance,
            max=high,
            tested=seen,
            how="production-preheat" if variable == "preheat_c" else "",
            also=tr(PRODUCTION_PREHEAT),
        )
        thickest = max((t for t in coupon.thicknesses_mm if t), default=None)
        numbers = (thickest,) if thickest is not None and found.how else ()
        yield replace(found, unchecked=unchecked, numbers=numbers)


def _c(coupon: TestCoupon, value: float) -> str:
    return quantity_text(value, "temperature", coupon.units)


def _difference(coupon: TestCoupon, value: float) -> str:
    return f"{number(value)} °C" if coupon.units == "si" else f"{number(value * 1.8)} °F"


def _treatments(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    table = table_of("essential_variables")
    row = joint_row(coupon, "pwht")
    done = "heat-treated after welding" if coupon.pwht else "not heat-treated"
    yield item(
        table,
        row,
        "pwht",
        "exact",
        tr(
            "The coupon had {done}; adding or leaving out heat treatment asks for a new test.",
            done=in_words(done),
        ),
        values=(done,),
        tested=(done,),
    )
    yield item(
        table,
        row,
        "post_heat",
        "any",
        tr("Hydrogen post-heat is no variable of table 6.5."),
        tested=("post-heated",) if coupon.post_heat else ("none",),
    )
    if not (impact and coupon.pwht):
        return
    more = table_of("impact_variables")
    rule = row_of(more, "pwht")
    hold, minutes = coupon.pwht_hold_c, coupon.pwht_hold_min
    if hold is None:
        yield item(more, rule, "pwht_hold_c", "unknown", tr("The holding temperature is not recorded."))
    else:
        yield item(
            more,
            rule,
            "pwht_hold_c",
            "span",
            tr(
                "Held at {range_text}; another range asks for a new test.",
                range_text=range_text(hold, "temperature", coupon.units),
            ),
            min=hold.min,
            max=hold.max,
            tested=hold,
        )
    if minutes is None:
        yield item(more, rule, "pwht_hold_min", "unknown", tr("The holding time is not recorded."))
    else:
        share = rule["least_share"]
        yield item(
            more,
            rule,
            "pwht_hold_min",
            "span",
            tr(
                "The coupon has at least {share:g} % of the time in production: {minutes:g} min "
                "allow {minutes2:g} min.",
                share=share * 100,
                minutes=minutes,
                minutes2=minutes / share,
            ),
            max=minutes / share,
            tested=Range(minutes, minutes),
        )


def _heat_input(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    table = table_of("impact_variables")
    row = row_of(table, "heat_input")
    if not impact:
        yield item(
            table,
            row,
            "heat_input_kj_mm",
            "any",
            tr("Without impact toughness heat input is limited only through volts, amps and travel."),
            tested=coupon.heat_kj_mm(coupon.runs, with_k=False),
        )
        return
    for process in coupon.processes:
        runs = coupon.of_process(process)
        heat = coupon.heat_kj_mm(runs, with_k=False)
        if heat is None or any(run.arc_energy_kj_mm is None for run in runs):
            yield item(
                table,
                row,
                "heat_input_kj_mm",
                "unknown",
                tr("Volts, amps and travel are not recorded for every pass."),
                process=process,
                tested=heat,
            )
            continue
        yield item(
            table,
            row,
            "heat_input_kj_mm",
            "span",
            tr(
                "Impact toughness: no higher than tested, {quantity_text} (arc energy, the code "
                "uses no efficiency).",
                quantity_text=quantity_text(heat.max, "heat_input", coupon.units),
            ),
            max=heat.max * (1 + row["plus_percent"] / 100),
            tested=heat,
            process=process,
        )


def _beads(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    table = table_of("impact_variables")
    row = row_of(table, "bead")
    beads = tuple(dict.fromkeys(run.bead for run in coupon.runs if run.bead))
    vertical = bool(coupon.position and has_progression(coupon.position))
    if impact and vertical and beads == ("stringer",):
        yield item(
            table,
            row,
            "bead",
            "exact",
            tr("Vertical stringer beads; weaving asks for a new test where impact toughness is specified."),
            values=("stringer",),
            tested=beads,
        )
    else:
        yield item(table, row, "bead", "any", tr("Stringer or weave is free here."), tested=beads or None)
    if coupon.weld == "fillet":
        return
    runs = row_of(table, "runs_per_side")
    bound = impact and coupon.run_kind == "multi"
    yield item(
        table,
        runs,
        "runs_per_side",
        "exact" if bound else "any",
        tr(
            "Several passes a side; a single pass a side asks for a new test where impact "
            "toughness is specified."
        )
        if bound
        else tr("The number of passes a side is free here."),
        values=("multi",) if bound else (),
        tested=(coupon.run_kind,),
    )
    if impact and "weave" in beads and any(r.mechanisation in ("fully", "automatic") for r in coupon.runs):
        yield item(
            table,
            row_of(table, "oscillation"),
            "oscillation",
            "unknown",
            tr("Mechanised weaving: width, frequency and dwell are limited to ±20 %, and are not recorded."),
        )


def _impact(coupon: TestCoupon, impact: bool) -> Iterator[RangeItem]:
    table = table_of("impact_tests")
    row = row_of(table, "places")
    default, unit = row_of(table, "default"), "ft_lbf" if coupon.units == "us" else "j"
    proof = impact_proof(coupon, default[f"single_{unit}"] / default[f"average_{unit}"])
    if not impact:
        yield item(
            table,
            row,
            "impact_temperature_c",
            "unknown",
            tr("No impact tests were asked: nothing is proved where toughness is required."),
            how="only-if-impact",
        )
    elif proof is None:
        yield item(table, row, "impact_temperature_c", "unknown", tr("No impact test with a temperature."))
    else:
        cold = proof.temperature_c
        yield item(
            table,
            row,
            "impact_temperature_c",
            "span",
            tr("Tested at {c}; proved at that temperature and above", c=_c(coupon, cold))
            + (tr(", up to {energy_j:.0f} J.", energy_j=proof.energy_j) if proof.energy_j else "."),
            min=cold,
            numbers=(proof.energy_j,) if proof.energy_j else (),
            tested=Range(cold, cold),
            how="only-if-impact",
        )
