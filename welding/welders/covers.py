"""What a person's tests cover: the range of one test, and whether tests cover a weld that is asked."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from welding.codebook.book import by_book
from welding.documents.welder_weld import WelderWeld
from welding.errors import WeldingError
from welding.finding import Finding
from welding.language import terms_of, tr
from welding.qualification.items import QualifiedRange, RangeItem
from welding.welders.catalogue import welder_edition
from welding.welders.comparing import Compared
from welding.welders.edition import WelderEdition

WelderVerdict = Literal["covered", "blocked", "open"]
POSITION = "welder_position"


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
        found = _covers(edition, tuple(tested), asked)
        return WelderCoverage(
            covered=found.covered,
            verdict=found.verdict,
            by=found.by,
            combination=found.combination,
            findings=tuple(one.finding for one in found.answers),
        )


def verdict_of(tested: Sequence[WelderWeld], asked: WelderWeld) -> WelderVerdict:
    """The verdict of ``welder_covers`` without its sentences; all tests are to the code of the weld."""
    return _covers(welder_edition(asked.code), tuple(tested), asked).verdict


def compared_with(tested: WelderWeld, asked: WelderWeld) -> Iterator[Compared]:
    """Answers on a weld, given one test by itself, of the same code."""
    return welder_edition(asked.code).compare(_items(tested), tested, asked)


def each_process(asked: WelderWeld) -> tuple[WelderWeld, ...]:
    """A joint of two processes as what each of them does by itself: the second welds onto the first."""
    return tuple(
        replace(asked, parts=(part,), backing="ss mb" if at and asked.weld == "butt" else asked.backing)
        for at, part in enumerate(asked.parts)
    )


@by_book(4000)
def _items(tested: WelderWeld) -> tuple[RangeItem, ...]:
    return welder_edition(tested.code).range_items(tested)


@dataclass(frozen=True, slots=True)
class _Found:
    """A coverage whose sentences are not written yet."""

    verdict: WelderVerdict
    by: tuple[int, ...]
    answers: tuple[Compared, ...]
    combination: str = ""

    @property
    def covered(self) -> bool:
        return self.verdict == "covered"

    @property
    def weight(self) -> tuple[int, int]:
        """How far it is from covered."""
        return (
            sum(one.verdict == "violates" for one in self.answers),
            sum(one.verdict == "undecided" for one in self.answers),
        )


def _covers(edition: WelderEdition, tested: tuple[WelderWeld, ...], asked: WelderWeld) -> _Found:
    best: _Found | None = None
    for at, one in enumerate(tested):
        if len(asked.parts) > len(one.parts):
            continue
        found = _by_one(edition, one, asked, at)
        if found.covered:
            return found
        best = found if best is None or found.weight < best.weight else best
    several: list[_Found | None] = [_by_positions(edition, tested, asked)]
    if len(asked.parts) > 1:
        several.insert(0, _by_process(edition, tested, asked))
    ways = [one for one in (best, *several) if one is not None]
    if not ways:
        return _Found("blocked", (), ())
    return next((one for one in ways if one.covered), None) or min(ways, key=lambda one: one.weight)


def _by_one(edition: WelderEdition, tested: WelderWeld, asked: WelderWeld, at: int) -> _Found:
    answers = tuple(edition.compare(_items(tested), tested, asked))
    verdict = _verdict(answers)
    return _Found(verdict, (at,) if verdict == "covered" else (), answers)


def _verdict(answers: Sequence[Compared]) -> WelderVerdict:
    verdicts = {one.verdict for one in answers}
    if "violates" in verdicts:
        return "blocked"
    return "open" if "undecided" in verdicts or not answers else "covered"


def _by_process(edition: WelderEdition, tested: tuple[WelderWeld, ...], asked: WelderWeld) -> _Found | None:
    """A joint of two processes by tests of each: what each process does is asked by itself."""
    if not tested:
        return None
    each = [_covers(edition, tested, one) for one in each_process(asked)]
    worst = max(each, key=lambda one: one.weight)
    if not all(one.covered for one in each):
        return worst
    return _Found(
        "covered",
        tuple(dict.fromkeys(at for one in each for at in one.by)),
        tuple(one for found in each for one in found.answers),
        tr("One test for each process."),
    )


@dataclass(frozen=True, slots=True)
class _Fitting:
    """A test that covers everything of a weld but perhaps its position, or leaves something of it open."""

    at: int
    tested: WelderWeld
    positions: frozenset[str]
    answers: tuple[Compared, ...]

    @property
    def sure(self) -> bool:
        """Whether nothing of it is open."""
        return all(one.verdict != "undecided" for one in self.answers)


def _by_positions(edition: WelderEdition, tested: tuple[WelderWeld, ...], asked: WelderWeld) -> _Found | None:
    """Tests that cover everything but the position, and every position between them."""
    if not may_stand_together(tested, asked):
        return None
    fitting = [
        found for at, one in enumerate(tested) if (found := _fitting(edition, one, asked, at)) is not None
    ]
    sure = [one for one in fitting if one.sure]
    return _joined(edition, sure, asked) or _joined(edition, fitting, asked)


def asks_for_several(asked: WelderWeld) -> bool:
    """Whether a weld asks for more than one position, which tests may hold between them."""
    return len(welder_edition(asked.code).positions_asked(asked)) > 1


def may_stand_together(tested: Sequence[WelderWeld], asked: WelderWeld) -> bool:
    """Whether tests hold every position of a weld between them, whatever else of it they cover."""
    edition = welder_edition(asked.code)
    needed = set(edition.positions_asked(asked))
    if len(needed) < 2:
        return False
    pair = edition.together(asked)
    if pair:
        return set(pair) <= {one.position for one in tested}
    return needed <= set().union(*(_positions_held(one, asked) for one in tested))


def _positions_held(tested: WelderWeld, asked: WelderWeld) -> frozenset[str]:
    group = "fillet" if asked.weld == "fillet" else "groove"
    held = (one for one in _items(tested) if one.variable == POSITION and one.weld in (None, group))
    return frozenset(value for one in held for value in one.values)


def _joined(edition: WelderEdition, fitting: Sequence[_Fitting], asked: WelderWeld) -> _Found | None:
    needed = set(edition.positions_asked(asked))
    pair = edition.together(asked)
    if pair:
        return _by_pair(fitting, pair)
    if not needed <= set().union(*(one.positions for one in fitting)):
        return None
    used = [one for one in fitting if one.positions & needed]
    said = tr("Together they hold every position of it: {positions}.", positions=", ".join(sorted(needed)))
    return _stands(used, said)


def _stands(used: Sequence[_Fitting], said: str) -> _Found:
    """Tests that stand together: the weld is covered, or open where one of them leaves something open."""
    doubtful = next((one for one in used if not one.sure), None)
    if doubtful is not None:
        return _Found("open", (), doubtful.answers)
    return _Found("covered", tuple(one.at for one in used), used[0].answers, said)


def _fitting(edition: WelderEdition, tested: WelderWeld, asked: WelderWeld, at: int) -> _Fitting | None:
    if len(tested.parts) != len(asked.parts) or tested.weld != asked.weld:
        return None
    found = edition.compare(_items(tested), tested, asked)
    answers = tuple(one for one in found if one.item.variable != POSITION)
    if any(one.verdict == "violates" for one in answers):
        return None
    return _Fitting(at, tested, _positions_held(tested, asked), answers)


def _by_pair(fitting: Sequence[_Fitting], pair: tuple[str, ...]) -> _Found | None:
    """Two pipes of one diameter, each in one of the positions."""
    for one in fitting:
        for other in fitting:
            alike = one.tested.diameter_mm == other.tested.diameter_mm
            if alike and (one.tested.position, other.tested.position) == pair:
                said = tr(
                    "{first} and {second} on pipes of one diameter stand for it.",
                    first=pair[0],
                    second=pair[1],
                )
                return _stands((one, other), said)
    return None
