"""Prequalified, or in need of a test, and because of which clauses (AWS D1.1:2020, clause 5)."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.codebook.table import load_table
from welding.consumables.gas import gas_text
from welding.documents.procedure import Pass
from welding.editions.aws_d1_1_2020.rules.clauses import (
    PACKAGE,
    SAW,
    SMAW,
    WIRE,
    Answer,
    attitudes,
    from_clause,
    path_of,
    units_of,
)
from welding.editions.aws_d1_1_2020.rules.joint_details import detail_answers
from welding.editions.aws_d1_1_2020.rules.matching import (
    STEEL_FILLERS,
    group_of,
    matching_findings,
    may_be_listed,
)
from welding.editions.aws_d1_1_2020.rules.pass_limits import pass_answers
from welding.editions.aws_d1_1_2020.rules.preheat import code_preheat
from welding.editions.aws_d1_1_2020.rules.scope import scope_answers
from welding.editions.aws_d1_1_2020.rules.stated import stated_answers
from welding.editions.aws_d1_1_2020.rules.weld_sizes import size_answers
from welding.finding import Finding

PROCESSES = (*SMAW, *SAW, *WIRE)
MATCHING = "filler.matching"
SHORT = ("short-circuit", "controlled-short-circuit")
_GENERAL = "clause 5, prequalified processes"
_METALS = from_clause("table 5.3")


def prequalified_findings(draft: Draft) -> Iterator[Finding]:
    """Findings of the prequalified route.

    Where the procedure claims the route, every clause answers for itself and a broken one is a breach.
    Where it goes by test, one finding says whether a test is needed, and because of what.
    """
    code = draft.procedure.code
    answers = list(_answers(draft))
    if code is not None and code.route == "prequalified":
        # The matching of fillers speaks for itself on either route.
        yield from (answer.finding() for answer in answers if answer.rule != MATCHING)
    yield _verdict(draft, answers)


def _answers(draft: Draft) -> Iterator[Answer]:
    for one in draft.procedure.passes:
        yield _process(one)
        yield from _transfer(one)
        yield from _output(one)
        yield from _uphill(draft, one)
        yield from _gas(draft, one)
    yield from _metals(draft)
    yield from _fillers(draft)
    yield from _preheat(draft)
    yield from size_answers(draft)
    yield from detail_answers(draft)
    yield from pass_answers(draft)
    yield from scope_answers(draft)
    yield from stated_answers(draft)


def _verdict(draft: Draft, answers: list[Answer]) -> Finding:
    claimed = bool(draft.procedure.code and draft.procedure.code.route == "prequalified")
    broken = [answer for answer in answers if answer.verdict == "violates"]
    open_ones = [answer for answer in answers if answer.verdict == "undecided"]
    unchecked = tuple(dict.fromkeys(key for answer in answers for key in answer.unchecked))
    citation = from_clause("clause 5, prequalification")
    if broken:
        because = "; ".join(
            dict.fromkeys(
                f"{_lower(answer.message.rstrip('.'))} ({answer.citation.clause})" for answer in broken
            )
        )
        return Finding(
            rule="prequalified.verdict",
            verdict="violates" if claimed else "not_applicable",
            path=broken[0].path,
            title="Not prequalified: needs a test" if claimed else "Needs a test",
            message=f"Needs a test because {because}.",
            actual="needs a test",
            limit="prequalified" if claimed else "",
            remedy="Correct what is named, or take the route by testing." if claimed else "",
            citations=(citation,),
            unchecked=unchecked,
        )
    if open_ones or not draft.procedure.passes or draft.procedure.joint is None:
        lacking = "; ".join(dict.fromkeys(answer.message.rstrip(".") for answer in open_ones))
        return Finding(
            rule="prequalified.verdict",
            verdict="undecided",
            obligation="requirement" if claimed else "recommendation",
            path=open_ones[0].path if open_ones else "passes",
            title="Prequalified or not: still open",
            message=f"Still open: {lacking or 'joint and passes'}.",
            actual="open",
            limit="prequalified",
            remedy="State what is missing.",
            citations=(citation,),
            unchecked=unchecked,
        )
    return Finding(
        rule="prequalified.verdict",
        verdict="complies",
        path="code.route",
        title="Prequalified",
        message=f"All {len(answers)} clauses that were asked hold."
        + (
            ""
            if _has_sheets(draft)
            else " Amperage is the manufacturer's range: enter the sheet to judge it too."
        ),
        actual="prequalified",
        limit="prequalified",
        citations=(citation,),
        unchecked=unchecked,
    )


def _lower(text: str) -> str:
    """The sentence as a part of another one; names in capitals stay."""
    return text if text[:2].isupper() else text[:1].lower() + text[1:]


def _has_sheets(draft: Draft) -> bool:
    return all(draft.maker_range(one) is not None for one in draft.procedure.passes)


def _process(one: Pass) -> Answer:
    fits = one.process in PROCESSES
    return Answer(
        rule="prequalified.process",
        path=path_of(one, "process"),
        verdict="complies" if fits else "violates",
        title=f"Process {'is' if fits else 'is not'} prequalified, pass {one.number}",
        message=f"Process {one.process} {'may be used' if fits else 'is not among those that may be used'} "
        "without a test.",
        actual=one.process,
        limit="covered electrodes, submerged arc, solid and cored wire",
        remedy="Qualify it by testing.",
        citation=from_clause(_GENERAL),
    )


def _transfer(one: Pass) -> Iterator[Answer]:
    if one.process not in ("131", "135", "138", "133"):
        return
    if one.transfer is None:
        yield Answer(
            rule="prequalified.transfer",
            path=path_of(one, "transfer"),
            verdict="undecided",
            title=f"Transfer mode is not stated, pass {one.number}",
            message=f"the transfer mode of pass {one.number} is not stated",
            remedy="State it: short circuit is not prequalified.",
            citation=from_clause(_GENERAL),
        )
        return
    short = one.transfer in SHORT
    yield Answer(
        rule="prequalified.transfer",
        path=path_of(one, "transfer"),
        verdict="violates" if short else "complies",
        title=f"Transfer {'is not' if short else 'is'} prequalified, pass {one.number}",
        message=f"Transfer is {one.transfer.replace('-', ' ')}"
        + ("; short circuit needs a test." if short else ", which is prequalified."),
        actual=one.transfer.replace("-", " "),
        limit="spray, globular or pulsed",
        remedy="Choose another transfer, or qualify it by testing.",
        citation=from_clause(_GENERAL),
    )


def _output(one: Pass) -> Iterator[Answer]:
    if one.process not in WIRE:
        return
    wrong = one.output == "CC"
    yield Answer(
        rule="prequalified.output",
        path=path_of(one, "output"),
        verdict="undecided" if one.output is None else "violates" if wrong else "complies",
        title=f"Kind of output, pass {one.number}",
        message=f"the source's output of pass {one.number} is not stated"
        if one.output is None
        else f"The source gives constant {'current' if wrong else 'voltage'}; wire is prequalified with "
        "constant voltage.",
        actual=one.output or "",
        limit="CV",
        remedy="Use a constant-voltage source.",
        citation=from_clause("clause 5, constant voltage for wire"),
    )


def _uphill(draft: Draft, one: Pass) -> Iterator[Answer]:
    if "vertical" not in attitudes(draft):
        return
    down = one.progression == "down"
    yield Answer(
        rule="prequalified.progression",
        path=path_of(one, "progression"),
        verdict="undecided" if one.progression is None else "violates" if down else "complies",
        title=f"Vertical progression, pass {one.number}",
        message=f"whether pass {one.number} runs up or down is not stated"
        if one.progression is None
        else f"The pass runs {one.progression}; vertical passes run upward.",
        actual=one.progression or "",
        limit="up",
        remedy="Weld uphill.",
        citation=from_clause("clause 5, vertical-up progression"),
    )


def _gas(draft: Draft, one: Pass) -> Iterator[Answer]:
    if one.process not in WIRE or one.process == "114":
        return
    if one.gas is None:
        yield Answer(
            rule="prequalified.gas",
            path=path_of(one, "gas"),
            verdict="undecided",
            title=f"Gas is not stated, pass {one.number}",
            message=f"the shielding gas of pass {one.number} is not stated",
            citation=load_table(PACKAGE, "prequalified_gases").citation,
        )
        return
    shares = one.gas.components_percent
    filler = decoded_of(one)
    table = load_table(PACKAGE, "prequalified_gases")
    if filler is not None and filler.gases:
        fits = _classified_with(filler.gases, shares)
        limit = "the gas that the filler was classified with"
    else:
        fits = any(
            row["co2_min"] <= shares.get("CO2", 0.0) <= row["co2_max"]
            and row["o2_min"] <= shares.get("O2", 0.0) <= row["o2_max"]
            and not any(shares.get(other) for other in ("He", "H2", "N2"))
            for row in table.rows
        )
        limit = "argon with 10 to 25 % CO2 or 2 to 5 % O2, or CO2"
    text = gas_text(shares)
    yield Answer(
        rule="prequalified.gas",
        path=path_of(one, "gas"),
        verdict="complies" if fits else "violates",
        title=f"Gas {'is' if fits else 'is not'} prequalified, pass {one.number}",
        message=f"{text} {'is' if fits else 'is not'} a prequalified gas for this filler: {limit}.",
        actual=text,
        limit=limit,
        remedy="Change the gas, or have the manufacturer's tests with this gas at hand.",
        citation=table.citation,
        unchecked=table.unchecked,
    )


def _classified_with(gases: tuple[str, ...], shares: object) -> bool:
    share = dict(shares) if isinstance(shares, dict) else {}
    carbon = share.get("CO2", 0.0)
    for gas in gases:
        if gas in ("CO2", "C1") and carbon >= 99.9:
            return True
        if gas == "Ar+20-25CO2" and 20 - 1e-9 <= carbon <= 25 + 1e-9 and not share.get("O2"):
            return True
        if gas.startswith("M2") and 15 <= carbon <= 25:
            return True
    return False


def _metals(draft: Draft) -> Iterator[Answer]:
    for index, metal in enumerate(draft.procedure.base_metals):
        path = f"base_metals.{index}.designation"
        if not metal.designation:
            yield Answer(
                rule="prequalified.metal",
                path=path,
                verdict="undecided",
                title=f"Metal {index + 1} is not stated",
                message=f"metal {index + 1} is not stated",
                citation=_METALS,
            )
            continue
        group = group_of(draft, metal, units_of(draft))
        if group is None and may_be_listed(draft, metal):
            yield Answer(
                rule="prequalified.metal",
                path=path,
                verdict="undecided",
                title=f"Metal {index + 1} is not found",
                message=f"{metal.designation} is not found among the steels that are entered here",
                remedy="Look it up in table 5.3 and state its group.",
                citation=_METALS,
            )
            continue
        yield Answer(
            rule="prequalified.metal",
            path=path,
            verdict="complies" if group else "violates",
            title=f"Metal {index + 1} {'is' if group else 'is not'} a prequalified one",
            message=f"{metal.designation} is in group {group}."
            if group
            else f"{metal.designation} is in none of groups I to IV.",
            actual=f"group {group}" if group else "no group",
            limit="groups I to IV",
            remedy="Qualify it by testing.",
            citation=_METALS,
        )


def _fillers(draft: Draft) -> Iterator[Answer]:
    for found in matching_findings(draft):
        yield Answer(
            rule=MATCHING,
            path=found.path,
            verdict=found.verdict,
            title=found.title,
            message=found.message,
            actual=found.actual,
            limit=found.limit,
            remedy=found.remedy,
            citation=found.citations[0],
            unchecked=found.unchecked,
        )
    table = load_table(PACKAGE, "matching_filler")
    for one in draft.procedure.passes:
        filler = decoded_of(one)
        stated = one.filler.designation if one.filler else None
        if stated and filler is not None and filler.system in STEEL_FILLERS:
            continue
        yield Answer(
            rule="prequalified.filler",
            path=path_of(one, "filler.designation"),
            verdict="violates" if stated and filler is not None else "undecided",
            title=f"Filler, pass {one.number}",
            message=f"{stated} is of no specification that the table names."
            if stated and filler is not None
            else f"the filler of pass {one.number} is not {'understood' if stated else 'stated'}",
            actual=stated or "",
            limit="a matching filler of table 5.4",
            remedy="Choose a class that the table lists.",
            citation=table.citation,
            unchecked=table.unchecked,
        )


def _preheat(draft: Draft) -> Iterator[Answer]:
    asked = code_preheat(draft)
    stated = draft.procedure.thermal.preheat_min_c if draft.procedure.thermal else None
    table = load_table(PACKAGE, "preheat")
    if asked is None or asked.preheat_c is None or stated is None:
        what = "the preheat is not stated" if stated is None else "the preheat category is not known here"
        yield Answer(
            rule="prequalified.preheat",
            path="thermal.preheat_min_c",
            verdict="undecided",
            title="Preheat",
            message=what,
            remedy="State the minimum preheat." if stated is None else "Look it up in table 5.8.",
            citation=table.citation,
            unchecked=table.unchecked,
        )
        return
    # A printed °F figure is a whole number; its conversion is met within half a degree.
    low = stated < asked.preheat_c - (0.6 if units_of(draft) == "us" else 1e-6)
    found, least = draft.write(stated, "temperature"), draft.write(asked.preheat_c, "temperature")
    yield Answer(
        rule="prequalified.preheat",
        path="thermal.preheat_min_c",
        verdict="violates" if low else "complies",
        title="Preheat is below the table" if low else "Preheat meets the table",
        message=f"Preheat is {found}; the table asks for {least} at this thickness.",
        actual=found,
        limit=least,
        remedy=f"Preheat to {least} at least.",
        citation=asked.citation,
        unchecked=asked.unchecked,
    )
