"""Ranges of ISO 15614-1:2017 for temperatures and treatments, and what impact tests and hardness prove."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from welding.editions.iso_15614_1_2017.rules.basics import (
    condition,
    item,
    single_share,
    table_of,
    variable_row,
)
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.impact_proof import impact_proof
from welding.qualification.items import RangeItem
from welding.qualification.needs import Needs
from welding.qualification.notch import notch_words
from welding.quantities.writing import quantity_text, range_text
from welding.ranges import Range

_WITHOUT = ("t", "corner", "branch")
"""Joints whose extent of testing has no impact sets: their plan asks none (clause 7.1, from memory)."""


def heat_items(coupon: TestCoupon, level: int, needs: Needs) -> Iterator[RangeItem]:
    """Temperatures, treatments, and the tests that toughness and hardness rest on."""
    yield from _temperatures(coupon, level, needs)
    yield from _treatments(coupon, level)
    yield from _proofs(coupon, level, needs)


def _c(coupon: TestCoupon, value: float) -> str:
    return quantity_text(value, "temperature", coupon.units)


def _temperatures(coupon: TestCoupon, level: int, needs: Needs) -> Iterator[RangeItem]:
    rows, row = table_of("variables"), variable_row("preheat_c", level)
    preheat = coupon.preheat_c
    if preheat is None:
        yield item(rows, row, "preheat_c", "unknown", tr("The preheat is not recorded."))
    else:
        less = row["minus_c"]
        yield item(
            rows,
            row,
            "preheat_c",
            "span",
            tr("Preheated to {c}", c=_c(coupon, preheat))
            + (tr(", lower by no more than {less:g} °C.", less=less) if less else tr("; not lower.")),
            columns=("minus_c",),
            min=preheat - less,
            tested=Range(preheat, preheat),
        )
    row, before = variable_row("interpass_c", level), coupon.before_c
    if row["rule"] == "amount-with-impact" and not needs.impact:
        yield item(
            rows,
            row,
            "interpass_c",
            "any",
            tr("Interpass temperature counts at this level only with impact toughness."),
            tested=before,
        )
    elif before is None:
        yield item(rows, row, "interpass_c", "unknown", tr("No interpass temperature is recorded."))
    else:
        more = row["plus_c"]
        yield item(
            rows,
            row,
            "interpass_c",
            "span",
            tr("The highest reading was {c}", c=_c(coupon, before.max))
            + (tr(", higher by no more than {more:g} °C.", more=more) if more else tr("; not higher.")),
            columns=("plus_c",),
            max=before.max + more,
            tested=before,
        )


def _treatments(coupon: TestCoupon, level: int) -> Iterator[RangeItem]:
    rows, row = table_of("variables"), variable_row("post_heat", level)
    held = coupon.post_heat
    if held is None:
        yield item(
            rows,
            row,
            "post_heat",
            "any",
            tr("Without hydrogen post-heat; adding it is free."),
            tested=("none",),
        )
    else:
        said = tr("{c} for {held:g} min", c=_c(coupon, held[0]), held=held[1])
        yield item(
            rows,
            row,
            "post_heat",
            "set",
            tr("Hydrogen post-heat at {said}: not less and not left out.", said=said),
            values=(said,),
            numbers=held,
            how="post-heat",
            tested=(said,),
        )
    row = variable_row("pwht", level)
    done = "heat-treated after welding" if coupon.pwht else "not heat-treated"
    yield item(
        rows,
        row,
        "pwht",
        "exact",
        tr("The piece was {done}; adding or leaving it out needs a new test.", done=done),
        values=(done,),
        tested=(done,),
    )
    if not coupon.pwht:
        return
    hold: Any = coupon.pwht_hold_c
    plus = row.get("plus_c")
    if hold is None:
        yield item(rows, row, "pwht_hold_c", "unknown", tr("The holding temperature is not recorded."))
    elif plus is None:
        yield item(
            rows,
            row,
            "pwht_hold_c",
            "any",
            tr("The same kind of treatment; no limit of the temperature is known at this level."),
            tested=hold,
        )
    else:
        yield item(
            rows,
            row,
            "pwht_hold_c",
            "span",
            tr(
                "Held at {range_text}, ±{plus:g} °C.",
                range_text=range_text(hold, "temperature", coupon.units),
                plus=plus,
            ),
            columns=("plus_c",),
            min=hold.min - plus,
            max=hold.max + plus,
            tested=hold,
        )


def _proofs(coupon: TestCoupon, level: int, needs: Needs) -> Iterator[RangeItem]:
    table, row = table_of("test_conditions"), condition("impact_from")
    proof = impact_proof(coupon, single_share())
    lacking = [notch_words(one) for one in proof.lacking] if proof else []
    if proof is None or lacking:
        yield item(
            table,
            row,
            "impact_temperature_c",
            "unknown",
            tr("No impact tests: nothing is proved where toughness is required.")
            if proof is None
            else tr("No impact set with the notch in the {lacking}.", lacking=" and in the ".join(lacking)),
            how="not-of-this-joint"
            if coupon.kind in _WITHOUT and coupon.weld != "fillet"
            else "only-if-impact",
        )
    else:
        cold = proof.temperature_c
        yield item(
            table,
            row,
            "impact_temperature_c",
            "span",
            tr(
                "Weld metal and heat-affected zone tested at {c} or colder; proved at that "
                "temperature and above",
                c=_c(coupon, cold),
            )
            + (tr(", up to {energy_j:.0f} J.", energy_j=proof.energy_j) if proof.energy_j else "."),
            min=cold,
            numbers=(proof.energy_j,) if proof.energy_j else (),
            tested=Range(cold, cold),
            how="only-if-impact",
        )
    exempt = condition("hardness_exempt")
    tested = coupon.hardness_tested
    yield item(
        table,
        exempt,
        "hardness",
        "exact" if tested else "unknown",
        tr("A hardness traverse was made.")
        if tested
        else tr("No hardness traverse: nothing is proved where it is required."),
        values=("tested",) if tested else (),
        tested=("tested",) if tested else None,
        how="only-if-hardness",
    )
