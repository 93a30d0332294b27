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
from welding.editions.aws_d1_1_2020.rules.groups import group_of, may_be_listed
from welding.editions.aws_d1_1_2020.rules.joint_details import detail_answers
from welding.editions.aws_d1_1_2020.rules.matching import STEEL_FILLERS, matching_findings
from welding.editions.aws_d1_1_2020.rules.pass_limits import pass_answers
from welding.editions.aws_d1_1_2020.rules.preheat import code_preheat
from welding.editions.aws_d1_1_2020.rules.scope import scope_answers
from welding.editions.aws_d1_1_2020.rules.stated import stated_answers
from welding.editions.aws_d1_1_2020.rules.weld_sizes import size_answers
from welding.finding import Finding
from welding.glossary.values import in_words
from welding.language import in_sentence, tr

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
                f"{in_sentence(answer.message.rstrip('.'))} ({answer.citation.clause})" for answer in broken
            )
        )
        return Finding(
            rule="prequalified.verdict",
            verdict="violates" if claimed else "not_applicable",
            path=broken[0].path,
            title=tr("Not prequalified: needs a test") if claimed else tr("Needs a test"),
            message=tr("Needs a test because {because}.", because=because),
            actual=tr("needs a test"),
            limit=tr("prequalified") if claimed else "",
            remedy=tr("Correct what is named, or take the route by testing.") if claimed else "",
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
            title=tr("Prequalified or not: still open"),
            message=tr("Still open: {value}.", value=lacking or tr("joint and passes")),
            actual=tr("open"),
            limit=tr("prequalified"),
            remedy=tr("State what is missing."),
            citations=(citation,),
            unchecked=unchecked,
        )
    return Finding(
        rule="prequalified.verdict",
        verdict="complies",
        path="code.route",
        title="Prequalified",
        message=tr("All {count} clauses that were asked hold.", count=len(answers))
        + (
            ""
            if _has_sheets(draft)
            else tr(" Amperage is the manufacturer's range: enter the sheet to judge it too.")
        ),
        actual=tr("prequalified"),
        limit=tr("prequalified"),
        citations=(citation,),
        unchecked=unchecked,
    )


def _has_sheets(draft: Draft) -> bool:
    return all(draft.maker_range(one) is not None for one in draft.procedure.passes)


def _process(one: Pass) -> Answer:
    fits = one.process in PROCESSES
    return Answer(
        rule="prequalified.process",
        path=path_of(one, "process"),
        verdict="complies" if fits else "violates",
        title=tr(
            "Process {value} prequalified, pass {number}",
            value=tr("is") if fits else tr("is not"),
            number=one.number,
        ),
        message=tr(
            "Process {process} {value} without a test.",
            process=one.process,
            value=tr("may be used") if fits else tr("is not among those that may be used"),
        ),
        actual=one.process,
        limit=tr("covered electrodes, submerged arc, solid and cored wire"),
        remedy=tr("Qualify it by testing."),
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
            title=tr("Transfer mode is not stated, pass {number}", number=one.number),
            message=tr("the transfer mode of pass {number} is not stated", number=one.number),
            remedy=tr("State it: short circuit is not prequalified."),
            citation=from_clause(_GENERAL),
        )
        return
    short = one.transfer in SHORT
    yield Answer(
        rule="prequalified.transfer",
        path=path_of(one, "transfer"),
        verdict="violates" if short else "complies",
        title=tr(
            "Transfer {value} prequalified, pass {number}",
            value=tr("is not") if short else tr("is"),
            number=one.number,
        ),
        message=tr("Transfer is {replace}", replace=in_words(one.transfer))
        + (tr("; short circuit needs a test.") if short else tr(", which is prequalified.")),
        actual=in_words(one.transfer),
        limit=tr("spray, globular or pulsed"),
        remedy=tr("Choose another transfer, or qualify it by testing."),
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
        title=tr("Kind of output, pass {number}", number=one.number),
        message=tr("the source's output of pass {number} is not stated", number=one.number)
        if one.output is None
        else tr(
            "The source gives constant {value}; wire is prequalified with constant voltage.",
            value=tr("current") if wrong else tr("voltage"),
        ),
        actual=one.output or "",
        limit="CV",
        remedy=tr("Use a constant-voltage source."),
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
        title=tr("Vertical progression, pass {number}", number=one.number),
        message=tr("whether pass {number} runs up or down is not stated", number=one.number)
        if one.progression is None
        else tr("The pass runs {progression}; vertical passes run upward.", progression=one.progression),
        actual=one.progression or "",
        limit="up",
        remedy=tr("Weld uphill."),
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
            title=tr("Gas is not stated, pass {number}", number=one.number),
            message=tr("the shielding gas of pass {number} is not stated", number=one.number),
            citation=load_table(PACKAGE, "prequalified_gases").citation,
        )
        return
    shares = one.gas.components_percent
    filler = decoded_of(one)
    table = load_table(PACKAGE, "prequalified_gases")
    if filler is not None and filler.gases:
        fits = _classified_with(filler.gases, shares)
        limit = tr("the gas that the filler was classified with")
    else:
        fits = any(
            row["co2_min"] <= shares.get("CO2", 0.0) <= row["co2_max"]
            and row["o2_min"] <= shares.get("O2", 0.0) <= row["o2_max"]
            and not any(shares.get(other) for other in ("He", "H2", "N2"))
            for row in table.rows
        )
        limit = tr("argon with 10 to 25 % CO2 or 2 to 5 % O2, or CO2")
    text = gas_text(shares)
    yield Answer(
        rule="prequalified.gas",
        path=path_of(one, "gas"),
        verdict="complies" if fits else "violates",
        title=tr(
            "Gas {value} prequalified, pass {number}",
            value=tr("is") if fits else tr("is not"),
            number=one.number,
        ),
        message=tr(
            "{text} {value} a prequalified gas for this filler: {limit}.",
            text=text,
            value=tr("is") if fits else tr("is not"),
            limit=limit,
        ),
        actual=text,
        limit=limit,
        remedy=tr("Change the gas, or have the manufacturer's tests with this gas at hand."),
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
                title=tr("Metal {index} is not stated", index=index + 1),
                message=tr("metal {index} is not stated", index=index + 1),
                citation=_METALS,
            )
            continue
        group = group_of(draft, metal, units_of(draft))
        if group is None and may_be_listed(draft, metal):
            yield Answer(
                rule="prequalified.metal",
                path=path,
                verdict="undecided",
                title=tr("Metal {index} is not found", index=index + 1),
                message=tr(
                    "{designation} is not found among the steels that are entered here",
                    designation=metal.designation,
                ),
                remedy=tr("Look it up in table 5.3 and state its group."),
                citation=_METALS,
            )
            continue
        yield Answer(
            rule="prequalified.metal",
            path=path,
            verdict="complies" if group else "violates",
            title=tr(
                "Metal {index} {value} a prequalified one",
                index=index + 1,
                value=tr("is") if group else tr("is not"),
            ),
            message=tr("{designation} is in group {group}.", designation=metal.designation, group=group)
            if group
            else tr("{designation} is in none of groups I to IV.", designation=metal.designation),
            actual=tr("group {group}", group=group) if group else tr("no group"),
            limit=tr("groups I to IV"),
            remedy=tr("Qualify it by testing."),
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
            title=tr("Filler, pass {number}", number=one.number),
            message=tr("{stated} is of no specification that the table names.", stated=stated)
            if stated and filler is not None
            else tr(
                "the filler of pass {number} is not {value}",
                number=one.number,
                value=tr("understood") if stated else tr("stated"),
            ),
            actual=stated or "",
            limit=tr("a matching filler of table 5.4"),
            remedy=tr("Choose a class that the table lists."),
            citation=table.citation,
            unchecked=table.unchecked,
        )


def _preheat(draft: Draft) -> Iterator[Answer]:
    asked = code_preheat(draft)
    stated = draft.procedure.thermal.preheat_min_c if draft.procedure.thermal else None
    table = load_table(PACKAGE, "preheat")
    if asked is None or asked.preheat_c is None or stated is None:
        what = (
            tr("the preheat is not stated")
            if stated is None
            else tr("the preheat category is not known here")
        )
        yield Answer(
            rule="prequalified.preheat",
            path="thermal.preheat_min_c",
            verdict="undecided",
            title=tr("Preheat"),
            message=what,
            remedy=tr("State the minimum preheat.") if stated is None else tr("Look it up in table 5.8."),
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
        title=tr("Preheat is below the table") if low else tr("Preheat meets the table"),
        message=tr(
            "Preheat is {found}; the table asks for {least} at this thickness.", found=found, least=least
        ),
        actual=found,
        limit=least,
        remedy=tr("Preheat to {least} at least.", least=least),
        citation=asked.citation,
        unchecked=asked.unchecked,
    )
