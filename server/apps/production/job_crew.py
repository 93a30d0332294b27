"""The crew against the joint types of a job, as their WPSs have them welded; and the tests that it lacks."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import date

from api.kept import Kept

from apps.crew.models import CrewMember
from apps.crew.queries import MemberStanding, at_work_on, standing_crew
from apps.jobs.models import Job
from apps.weldlist.models import WeldList
from apps.weldlist.queries import KEPT_LISTS, MOST_KEPT, StandingList, facts_of
from apps.weldlist.wps import ReleasedWps, holding_wps, released_wps
from welding.codebook.book import by_book
from welding.language import tr
from welding.welders.asked import Asked
from welding.welders.catalogue import welder_edition
from welding.welders.crew_matrix import crew_matrix
from welding.welders.fewest_tests import FewestTests, fewest_tests
from welding.welders.who import MayWeld, asked_by
from welding.weldlist.applying import written_for
from welding.weldlist.joint_types import JointType

SECONDS = 15.0
"""Time for the plan of tests: somebody waits for it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class AskedType:
    """A joint type, and what it asks of whoever welds it.

    Attributes:
        kind: The joint type.
        wps: Its WPS; ``None`` without one.
        code: Code for persons, in short; empty where none is known.
        asked: What is asked; ``None`` where nothing is known.
        why: Why nothing is known, in a sentence.
    """

    kind: JointType
    wps: ReleasedWps | None
    code: str
    asked: Asked | None
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class JobCrew:
    """People against the joint types of which it is known what they ask.

    Attributes:
        types: The joint types.
        people: Everybody who is there on the day.
        standings: For each person, in the order of the types.
        without: Joint types of which it is not known.
    """

    types: tuple[AskedType, ...]
    people: tuple[MemberStanding, ...]
    standings: list[list[MayWeld]]
    without: tuple[AskedType, ...]


def job_crew(job: Job, listed: WeldList, standing: StandingList, on: date) -> JobCrew:
    """How everybody stands to every joint type of a list on a day."""
    asked = asked_types(job, listed, standing)
    known = tuple(one for one in asked if one.asked is not None)
    people = _people(on)
    standings = crew_matrix(
        [[test for _, test in one.sound] for one in people], [one.asked for one in known if one.asked]
    )
    return JobCrew(
        types=known,
        people=tuple(people),
        standings=standings,
        without=tuple(one for one in asked if one.asked is None),
    )


def planned_tests(
    types: Sequence[AskedType], on: date, needed: int, members: Collection[int] | None
) -> tuple[list[MemberStanding], FewestTests]:
    """The fewest tests after which so many people may weld each joint type.

    Args:
        types: Joint types of which it is known what they ask.
        on: The day.
        needed: How many people.
        members: Who could take tests; ``None`` for everybody.

    Returns:
        The people in the order in which the plan numbers them, and the plan.
    """
    people = [one for one in _people(on) if members is None or one.member.pk in members]
    tests = [[test for _, test in one.sound] for one in people]
    return people, fewest_tests(tests, [one.asked for one in types if one.asked], needed, SECONDS)


def asked_types(job: Job, listed: WeldList, standing: StandingList) -> list[AskedType]:
    """Every joint type with what its WPS, written for it, asks of a person."""
    wps = holding_wps(listed, standing, released_wps(job))
    return [_asked(kind, wps.get(kind.key)) for kind in standing.types]


def _asked(kind: JointType, wps: ReleasedWps | None) -> AskedType:
    if wps is None:
        why = tr("No WPS is assigned to it that covers it.")
        return AskedType(kind=kind, wps=None, code="", asked=None, why=why)
    known = _kept(wps.key)
    found = known.answer(facts_of(kind), lambda: (asked_by(written_for(wps.document, kind.joint)),))[0]
    if found is None:
        why = tr("No code for the qualification of welders is known here for this procedure.")
        return AskedType(kind=kind, wps=wps, code="", asked=None, why=why)
    return AskedType(kind=kind, wps=wps, code=welder_edition(found[0]).short, asked=found[1], why="")


@by_book(KEPT_LISTS * 50)
def _kept(wps: str) -> Kept[tuple[tuple[str, Asked] | None]]:
    """What one WPS asks for joint types; filled as they are asked about."""
    return Kept(MOST_KEPT)


def _people(on: date) -> list[MemberStanding]:
    return standing_crew(at_work_on(CrewMember.objects.order_by("name"), on), on)
