"""What a person's tests cover: the range of one test, and whether tests cover a weld that is asked."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from welding.documents.welder_weld import WelderWeld
from welding.errors import WeldingError
from welding.finding import Finding
from welding.language import terms_of, tr
from welding.qualification.items import QualifiedRange
from welding.welders.catalogue import welder_edition
from welding.welders.edition import WelderEdition

WelderVerdict = Literal["covered", "blocked", "open"]
POSITION = "welder.welder_position"


@dataclass(frozen=True, slots=True, kw_only=True)
class WelderCoverage:
    """Whether tests of one person cover a weld.

    Attributes:
        covered: Whether they do.
        verdict: covered; blocked by a variable; open while a fact or a rule is missing.
        by: Places of the tests that cover it, in the order given.
        combination: Why several stand together; empty for one.
        findings: Every variable, of the test that is nearest.
    """

    covered: bool
    verdict: WelderVerdict
    by: tuple[int, ...]
    combination: str
    findings: tuple[Finding, ...]


def welder_range(tested: WelderWeld) -> QualifiedRange:
    """What a test piece covers, once its tests are accepted.

    Raises:
        UnknownEntryError: Its code is not known here.
    """
    edition = welder_edition(tested.code)
    with terms_of(edition.usage):
        return QualifiedRange(
            code=edition.id, level=None, valid=True, items=edition.range_items(tested), findings=()
        )


def welder_covers(tested: Sequence[WelderWeld], asked: WelderWeld) -> WelderCoverage:
    """Whether a person's tests cover a weld: one of them, or those that the code lets stand together.

    Args:
        tested: The tests, all to the code of the weld.
        asked: The weld.

    Raises:
        UnknownEntryError: The code is not known here.
        WeldingError: A test is to another code: codes for persons do not stand for one another.
    """
    edition = welder_edition(asked.code)
    for one in tested:
        if one.code != asked.code:
            raise WeldingError(
                tr("A test to {tested} says nothing under {asked}.", tested=one.code, asked=asked.code)
            )
    with terms_of(edition.usage):
        return _covers(edition, tuple(tested), asked)


def _covers(edition: WelderEdition, tested: tuple[WelderWeld, ...], asked: WelderWeld) -> WelderCoverage:
    best: WelderCoverage | None = None
    for at, one in enumerate(tested):
        if len(asked.parts) > len(one.parts):
            continue
        found = _by_one(edition, one, asked, at)
        if found.covered:
            return found
        best = found if best is None or _weight(found) < _weight(best) else best
    if len(asked.parts) > 1:
        separate = _by_process(edition, tested, asked)
        if separate is not None and (best is None or separate.covered or _weight(separate) < _weight(best)):
            return separate
    together = _by_positions(edition, tested, asked)
    if together is not None:
        return together
    return best or WelderCoverage(covered=False, verdict="blocked", by=(), combination="", findings=())


def _by_one(edition: WelderEdition, tested: WelderWeld, asked: WelderWeld, at: int) -> WelderCoverage:
    findings = edition.compare(edition.range_items(tested), tested, asked)
    verdict = _verdict(findings)
    covered = verdict == "covered"
    return WelderCoverage(
        covered=covered, verdict=verdict, by=(at,) if covered else (), combination="", findings=findings
    )


def _verdict(findings: Sequence[Finding]) -> WelderVerdict:
    verdicts = {one.verdict for one in findings}
    if "violates" in verdicts:
        return "blocked"
    return "open" if "undecided" in verdicts or not findings else "covered"


def _weight(found: WelderCoverage) -> tuple[int, int]:
    return (
        sum(one.verdict == "violates" for one in found.findings),
        sum(one.verdict == "undecided" for one in found.findings),
    )


def _by_process(
    edition: WelderEdition, tested: tuple[WelderWeld, ...], asked: WelderWeld
) -> WelderCoverage | None:
    """A joint of two processes by tests of each: what each process does is asked by itself."""
    each = []
    for at, part in enumerate(asked.parts):
        backing = "ss mb" if at and asked.weld == "butt" else asked.backing
        each.append(_covers(edition, tested, replace(asked, parts=(part,), backing=backing)))
    if not tested:
        return None
    worst = max(each, key=_weight)
    if not all(one.covered for one in each):
        return worst
    return WelderCoverage(
        covered=True,
        verdict="covered",
        by=tuple(dict.fromkeys(at for one in each for at in one.by)),
        combination=tr("One test for each process."),
        findings=tuple(one for found in each for one in found.findings),
    )


def _by_positions(
    edition: WelderEdition, tested: tuple[WelderWeld, ...], asked: WelderWeld
) -> WelderCoverage | None:
    """Tests that cover everything but the position, and every position between them."""
    needed = set(edition.positions_asked(asked))
    if len(needed) < 2:
        return None
    fitting = []
    for at, one in enumerate(tested):
        if len(one.parts) != len(asked.parts) or one.weld != asked.weld:
            continue
        items = edition.range_items(one)
        findings = edition.compare(items, one, asked)
        if all(f.verdict not in ("violates", "undecided") for f in findings if f.rule != POSITION):
            held = {value for item in items if item.variable == "welder_position" for value in item.values}
            fitting.append((at, one, held, findings))
    pair = edition.together(asked)
    if pair:
        return _by_pair(fitting, pair)
    if not fitting or not needed <= set().union(*(held for _, _, held, _ in fitting)):
        return None
    used = [one for one in fitting if one[2] & needed]
    return WelderCoverage(
        covered=True,
        verdict="covered",
        by=tuple(at for at, *_ in used),
        combination=tr(
            "Together they hold every position of it: {positions}.", positions=", ".join(sorted(needed))
        ),
        findings=tuple(f for f in used[0][3] if f.rule != POSITION),
    )


def _by_pair(
    fitting: Sequence[tuple[int, WelderWeld, set[str], tuple[Finding, ...]]], pair: tuple[str, ...]
) -> WelderCoverage | None:
    """Two pipes of one diameter, each in one of the positions."""
    for at, first, _, findings in fitting:
        for other, second, _, _ in fitting:
            if (first.position, second.position) == pair and first.diameter_mm == second.diameter_mm:
                return WelderCoverage(
                    covered=True,
                    verdict="covered",
                    by=(at, other),
                    combination=tr(
                        "{first} and {second} on pipes of one diameter stand for it.",
                        first=pair[0],
                        second=pair[1],
                    ),
                    findings=tuple(f for f in findings if f.rule != POSITION),
                )
    return None
