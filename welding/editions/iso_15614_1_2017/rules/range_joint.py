"""Ranges of ISO 15614-1:2017 that hold for the joint: position, weld details."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from welding.editions.iso_15614_1_2017.rules.basics import item, table_of, variable_row
from welding.editions.toolkit import row_of
from welding.glossary.values import in_words
from welding.language import tr
from welding.qualification.coupon import TestCoupon
from welding.qualification.items import RangeItem, also_read
from welding.qualification.needs import Needs
from welding.qualification.positions import iso_positions

POSITIONS = ("PA", "PB", "PC", "PD", "PE", "PF", "PG", "PH", "PJ", "PK", "H-L045", "J-L045")


# --- position -----------------------------------------------------------------------------------


def position_items(coupon: TestCoupon, level: int, needs: Needs) -> Iterator[RangeItem]:
    """Positions for grooves and for fillets."""
    table, rows = table_of("heat_positions"), table_of("variables")
    rule = variable_row("positions", level)
    if coupon.position is None:
        yield item(rows, rule, "positions", "unknown", tr("The position is not stated."))
        return
    symbols = iso_positions(coupon.position, coupon.progression)
    if len(symbols) > 1:
        yield item(
            rows,
            rule,
            "positions",
            "unknown",
            tr("{position}: whether it ran up or down is not recorded.", position=coupon.position),
            tested=(coupon.position,),
        )
        return
    symbol = symbols[0]
    own = row_of(table, "own-test")["positions"]
    everywhere, reason = _everywhere(coupon, symbol, level, needs)
    fillet_only = coupon.weld == "fillet"
    for weld in ("groove", "fillet"):
        if fillet_only and weld == "groove":
            continue
        values = tuple(p for p in POSITIONS if p not in own) if everywhere else (symbol,)
        found = item(
            table,
            row_of(table, "own-test") if everywhere else row_of(table, "highest"),
            "positions",
            "set",
            reason,
            values=values,
            tested=(coupon.position,),
            weld=weld,
        )
        yield also_read(found, rows, rule)
    down = symbol in own
    yield item(
        table,
        row_of(table, "own-test"),
        "progression",
        "exact",
        tr("Downhill needs a test of its own."),
        values=("down",) if down else ("up",),
        tested=("down",) if down else ("up",),
    )


def _everywhere(coupon: TestCoupon, symbol: str, level: int, needs: Needs) -> tuple[bool, str]:
    table = table_of("heat_positions")
    if symbol in row_of(table, "own-test")["positions"]:
        return False, tr("{symbol} runs downhill: it covers only itself.", symbol=symbol)
    if level == 1 or not (needs.impact or needs.hardness):
        return True, tr("Any position covers all but downhill.")
    product = coupon.product
    both = symbol in row_of(table, "both-in-one").get(product, ())
    high = both or symbol in row_of(table, "highest")[product]
    low = both or symbol in row_of(table, "lowest")[product]
    if (high or not needs.impact) and (low or not needs.hardness):
        return True, tr(
            "{symbol} has the heat input that the required tests ask for: all but downhill.", symbol=symbol
        )
    asked = tr(" and ").join(
        words
        for words, need, has in (
            (tr("impact toughness from the position of highest heat input"), needs.impact, high),
            (tr("hardness from that of the lowest"), needs.hardness, low),
        )
        if need and not has
    )
    return False, tr(
        "{symbol} covers itself; for all positions the code asks {asked}.", symbol=symbol, asked=asked
    )


# --- weld and its details -----------------------------------------------------------------------


def weld_items(coupon: TestCoupon, level: int) -> Iterator[RangeItem]:
    """Kinds of weld, sides, backing, gouging, runs a side."""
    table = table_of("weld_kinds")
    key = "fillet"
    if coupon.weld != "fillet":
        key = {"t": "t-butt", "corner": "t-butt", "branch": "branch"}.get(coupon.kind, "butt")
        if key == "butt" and coupon.product == "pipe":
            key = "butt-pipe"
    row = row_of(table, key)
    partial = coupon.weld == "pjp-groove"
    values = tuple(v for v in row["covers"] if not (partial and "cjp" in v))
    known = coupon.weld in ("cjp-groove", "pjp-groove", "fillet")
    found = item(
        table,
        row,
        "weld_kinds",
        "set" if known else "unknown",
        tr(
            "Tested: {weld}; qualified: {values}.",
            weld=in_words(f"{coupon.kind} {coupon.weld}"),
            values="; ".join(in_words(one) for one in values),
        )
        if known
        else tr("What a {weld} qualifies is not known here: look it up.", weld=in_words(str(coupon.weld))),
        values=values if known else (),
        tested=(f"{coupon.kind} {coupon.weld}",),
        how="joint-and-weld",
    )
    yield also_read(found, table_of("variables"), variable_row("weld_kinds", level))
    if coupon.weld != "fillet":
        yield from _details(coupon, level)
    yield from _runs(coupon, level)


def _details(coupon: TestCoupon, level: int) -> Iterator[RangeItem]:
    rows, joint = table_of("variables"), coupon.joint
    if joint is None:
        return
    free = {name: variable_row(name, level)["rule"] == "free" for name in ("sides", "backing", "back_gouge")}
    both, gouged = joint.sides == "both" or joint.back_gouge, joint.back_gouge
    backed = joint.backing not in ("none", "gas")

    def one(variable: str, bound: bool, values: tuple[str, ...], said: str, **more: Any) -> RangeItem:
        loose = free[variable] or not bound
        return item(
            rows,
            variable_row(variable, level),
            variable,
            "any" if loose else "set",
            (tr("Free at this level.") if free[variable] else "Any.") if loose else said,
            values=() if loose else values,
            weld="groove",
            **more,
        )

    yield one(
        "sides",
        both,
        ("both",),
        tr("Welded from both sides; one side needs a test of its own."),
        tested=("both" if both else "one",),
    )
    yield one(
        "backing",
        backed and not both,
        ("metal", "ceramic", "weld", "flux"),
        tr("Welded from one side with backing; one side without backing needs a test of its own."),
        tested=(joint.backing,),
        unless=("both-sides",),
    )
    yield one(
        "back_gouge",
        both and gouged,
        ("back-gouged",),
        tr("Gouged from the back; both sides without gouging is not covered."),
        tested=("back-gouged" if gouged else "not gouged",),
    )


def _runs(coupon: TestCoupon, level: int) -> Iterator[RangeItem]:
    rows, row = table_of("variables"), variable_row("runs_per_side", level)
    bound = row["rule"] == "as-tested" or (
        row["rule"] == "as-tested-with-impact" and (coupon.impact_tested or bool(coupon.impact_asked))
    )
    for process in coupon.processes:
        kind = runs_kind(coupon, process)
        yield item(
            rows,
            row,
            "runs_per_side",
            "exact" if bound else "any",
            tr(
                "{value} a side; the other needs its own test.",
                value=tr("Several runs") if kind == "multi" else tr("A single run"),
            )
            if bound
            else tr("The number of runs is free at this level."),
            values=(kind,) if bound else (),
            tested=(kind,),
            process=process,
        )


def runs_kind(coupon: TestCoupon, process: str) -> str:
    """single or multi, by the sides of its runs; one of several processes counts as several runs."""
    if len(coupon.processes) > 1:
        return "multi"
    return coupon.run_kind
