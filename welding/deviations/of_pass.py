"""One pass as welded against the same pass as planned: process, filler, gas, bead, travel, deposit."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from welding.citation import COMMON_PRACTICE
from welding.consumables.gas import gas_text
from welding.deviations.saying import against_plan, allowed, differs, tolerances
from welding.documents.coupon import PassRecord
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.heat.energy import travel_mm_min
from welding.language import tr, tr_noop
from welding.quantities.writing import System, quantity_text

_ALIKE = (
    ("process", tr_noop("Other process")),
    ("polarity", tr_noop("Other polarity")),
    ("transfer", tr_noop("Other transfer")),
    ("bead", tr_noop("Other bead technique")),
    ("layer", tr_noop("Other layer")),
)
_SIDES = {1: tr_noop("the first side"), 2: tr_noop("the second side")}


def pass_deviations(planned: Pass, record: PassRecord, system: System = "si") -> Iterator[Finding]:
    """Everything in which a pass differs from its plan, but for readings that have a range of their own.

    Args:
        planned: The pass of the procedure.
        record: The pass as welded; what it does not state was as planned.
        system: Unit system of the sentences.
    """
    for name, source in _ALIKE:
        title = tr(source)
        used, wanted = getattr(record, name), getattr(planned, name)
        if used is not None and wanted is not None and used != wanted:
            yield against_plan(
                f"{name}.planned",
                name,
                tr("{title} than planned", title=title),
                tr("{used} was used; {wanted} is planned.", used=used, wanted=wanted),
                actual=str(used),
                limit=str(wanted),
            )
    if record.side != planned.side:
        yield against_plan(
            "side.planned",
            "side",
            tr("Welded from another side than planned"),
            tr(
                "The pass was laid from {sides}; {sides2} is planned.",
                sides=tr(_SIDES[record.side]),
                sides2=tr(_SIDES[planned.side]),
            ),
            actual=tr(_SIDES[record.side]),
            limit=tr(_SIDES[planned.side]),
        )
    yield from _filler(planned, record, system)
    yield from _gas(planned, record)
    yield from _deposit(planned, record, system)


def record_contradictions(record: PassRecord, system: System = "si") -> Iterator[Finding]:
    """Entries of one pass that cannot all be right: travel typed and measured, times, lengths."""
    total = sum(one.time_s for one in record.segments)
    if record.segments and record.time_s and differs("travel", record.time_s, total):
        yield _contradiction(
            "time.agrees",
            "segments",
            tr("Arc times do not agree"),
            tr(
                "The segments add up to {total:g} s; {time_s:g} s is entered for the pass.",
                total=total,
                time_s=record.time_s,
            ),
        )
    time_s = total or record.time_s
    parts = [one.length_mm for one in record.segments if one.length_mm is not None]
    whole = bool(parts) and len(parts) == len(record.segments)
    length = sum(parts) if whole else record.length_mm
    if whole and record.length_mm and differs("travel", record.length_mm, sum(parts)):
        yield _contradiction(
            "length.agrees",
            "segments",
            tr("Lengths do not agree"),
            tr(
                "The segments add up to {quantity_text}; {quantity_text2} is entered for the pass.",
                quantity_text=quantity_text(sum(parts), "length", system),
                quantity_text2=quantity_text(record.length_mm, "length", system),
            ),
        )
    if record.elapsed_s and time_s and time_s > record.elapsed_s + allowed("elapsed", record.elapsed_s):
        yield _contradiction(
            "time.agrees",
            "elapsed_s",
            tr("Arc time is longer than the pass took"),
            tr(
                "The arc burned {time_s:g} s; first start to last stop took {elapsed_s:g} s.",
                time_s=time_s,
                elapsed_s=record.elapsed_s,
            ),
        )
    if record.travel_mm_min and length and time_s:
        measured = travel_mm_min(length_mm=length, time_s=time_s)
        if differs("travel", measured, record.travel_mm_min):
            typed = quantity_text(record.travel_mm_min, "travel", system)
            found = quantity_text(measured, "travel", system)
            yield _contradiction(
                "travel.agrees",
                "travel_mm_min",
                tr("Travel does not agree with length and time"),
                tr(
                    "Typed is {typed}; {quantity_text} in {time_s:g} s are {found}, which is what "
                    "the heat input is reckoned with.",
                    typed=typed,
                    quantity_text=quantity_text(length, "length", system),
                    time_s=time_s,
                    found=found,
                ),
            )


def _contradiction(rule: str, path: str, title: str, message: str) -> Finding:
    return against_plan(
        rule,
        path,
        title,
        message,
        remedy=tr("Correct the one that was misread; leave out what was not measured."),
        citations=(COMMON_PRACTICE,),
    )


def _filler(planned: Pass, record: PassRecord, system: System) -> Iterator[Finding]:
    used, wanted = record.filler, planned.filler
    if used is None or wanted is None:
        return
    if used.designation and wanted.designation and _plain(used.designation) != _plain(wanted.designation):
        yield against_plan(
            "filler.planned",
            "filler.designation",
            tr("Other filler than planned"),
            tr(
                "{designation} was used; {designation2} is planned.",
                designation=used.designation,
                designation2=wanted.designation,
            ),
            actual=used.designation,
            limit=wanted.designation,
        )
    if used.make and wanted.make and _plain(used.make) != _plain(wanted.make):
        yield against_plan(
            "filler.make.planned",
            "filler.make",
            tr("Filler of another trade name than planned"),
            tr("{make} was used; {make2} is planned.", make=used.make, make2=wanted.make),
            actual=used.make,
            limit=wanted.make,
            obligation="recommendation",
        )
    if (
        used.diameter_mm
        and wanted.diameter_mm
        and differs("filler_diameter", wanted.diameter_mm, used.diameter_mm)
    ):
        found = quantity_text(used.diameter_mm, "wire_diameter", system)
        limit = quantity_text(wanted.diameter_mm, "wire_diameter", system)
        yield against_plan(
            "filler.diameter.planned",
            "filler.diameter_mm",
            tr("Other filler diameter than planned"),
            tr("{found} was used; {limit} is planned.", found=found, limit=limit),
            actual=found,
            limit=limit,
        )


def _plain(text: str) -> str:
    return "".join(text.split()).casefold()


def _gas(planned: Pass, record: PassRecord) -> Iterator[Finding]:
    if record.gas is None or planned.gas is None:
        return
    used, wanted = record.gas.components_percent, planned.gas.components_percent
    off = gas_difference(wanted, used)
    if not off:
        return
    found, limit = gas_text(used), gas_text(wanted)
    yield against_plan(
        "gas.planned",
        "gas.components_percent",
        tr("Other shielding gas than planned"),
        tr(
            "{found} was used; {limit} is planned. {off} differs by more than gases are mixed to.",
            found=found,
            limit=limit,
            off=off,
        ),
        actual=found,
        limit=limit,
        citations=(tolerances().citation,),
    )


def gas_difference(planned: Mapping[Any, float], used: Mapping[Any, float]) -> str:
    """The component that differs most beyond the mixing tolerance; empty where none does.

    Example:
        >>> gas_difference({"Ar": 82, "CO2": 18}, {"Ar": 80, "CO2": 20})
        'CO2'
        >>> gas_difference({"Ar": 82, "CO2": 18}, {"Ar": 81, "CO2": 19})
        ''
    """
    # The balance gas differs by what the others do.
    balance = max(planned, key=lambda name: planned[name], default="")
    names = [name for name in (*planned, *used) if name != balance or len(planned) == 1]
    over = {}
    for name in names:
        share = planned.get(name, 0.0)
        kind = "gas" if share >= 1 else "gas-trace"
        over[name] = abs(used.get(name, 0.0) - share) - allowed(kind, share)
    worst = str(max(over, key=lambda name: over[name], default=""))
    return worst if worst and over[worst] > 1e-9 else ""


def _deposit(planned: Pass, record: PassRecord, system: System) -> Iterator[Finding]:
    if record.deposit_mm is None or planned.deposit_mm is None:
        return
    if differs("deposit", planned.deposit_mm, record.deposit_mm):
        found = quantity_text(record.deposit_mm, "gap", system)
        limit = quantity_text(planned.deposit_mm, "gap", system)
        yield against_plan(
            "deposit.planned",
            "deposit_mm",
            tr("Deposit differs from the plan"),
            tr("{found} was deposited; {limit} is planned.", found=found, limit=limit),
            actual=found,
            limit=limit,
        )
