"""Who of the crew may weld which joint types of a job, and which tests would close the gaps."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from api.people import person
from api.text import Day
from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router, Schema
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.production.job_crew import AskedType, asked_types, job_crew, planned_tests
from apps.weldlist.listed import REFUSALS, listed_of
from welding.quantities.writing import System
from welding.welders.catalogue import designation_of
from welding.welders.who import MayWeld
from welding.weldlist.joint_types import type_words

router = Router(tags=["production"])
LETTERS: dict[MayWeld, str] = {"may": "m", "open": "o", "lapsed": "l", "blocked": "b", "untested": "u"}
"""A standing as one letter: a table has very many of them."""
MOST_NEEDED = 20


class AskedTypeOut(Schema):
    """A joint type and what it asks of a person; ``mark`` is its first joint, ``may`` says how many may."""

    key: str
    words: str
    mark: str
    welds: int
    wps: str
    revision_id: int | None
    code: str
    asked: list[str]
    open: list[str]
    may: int


class TypeWithoutOut(Schema):
    """A joint type of which it is not known what it asks."""

    key: str
    words: str
    welds: int
    why: str


class MemberRowOut(Schema):
    """A person; ``cells`` has one letter for each joint type: m may weld it, o open, l lapsed, b not covered,
    u no certificate of the code."""

    id: int
    name: str
    mark: str
    cells: str


class JobCrewOut(Schema):
    """The crew against the joint types of a weld list."""

    on: date
    types: list[AskedTypeOut]
    people: list[MemberRowOut]
    without: list[TypeWithoutOut]


class PlannedTestOut(Schema):
    """A test that somebody should take, and the joint types that it is for."""

    member_id: int
    name: str
    designation: str
    types: list[str]


class LackingOut(Schema):
    """A joint type that stays short of people, and how many there are now."""

    key: str
    words: str
    held: int


class WelderPlanOut(Schema):
    """The fewest tests; ``proven`` says that no fewer do, among the pieces that were compared."""

    needed: int
    tests: list[PlannedTestOut]
    short: int
    lacking: list[LackingOut]
    open: list[str]
    proven: bool
    tried: int


class PlanQuery(Schema):
    """How many people each joint type needs, and who could take tests; nobody named means everybody."""

    needed: Annotated[int, Field(ge=1, le=MOST_NEEDED)] = 1
    members: Annotated[list[Annotated[int, Field(ge=1, le=2_000_000_000)]], Field(max_length=500)] = []
    on: Day | None = None


@router.get("/jobs/{int:job_id}/crew", response={200: JobCrewOut, **REFUSALS})
def crew_of_job(request: HttpRequest, job_id: int, units: System = "si", on: Day | None = None) -> JobCrewOut:
    """Everybody against every joint type of the job, on a day."""
    require(person(request), Action.VIEW)
    day = on or timezone.localdate()
    found = job_crew(*listed_of(job_id), day)
    may = [sum(row[at] == "may" for row in found.standings) for at in range(len(found.types))]
    return JobCrewOut(
        on=day,
        types=[_type(one, count, units) for one, count in zip(found.types, may, strict=True)],
        people=[
            MemberRowOut(
                id=one.member.pk,
                name=one.member.name,
                mark=one.member.mark,
                cells="".join(LETTERS[standing] for standing in row),
            )
            for one, row in zip(found.people, found.standings, strict=True)
        ],
        without=[
            TypeWithoutOut(
                key=one.kind.key,
                words=type_words(one.kind.joint, units),
                welds=one.kind.count,
                why=one.why,
            )
            for one in found.without
        ],
    )


def _type(one: AskedType, may: int, units: System) -> AskedTypeOut:
    welds, open_ = (one.asked.welds, one.asked.open) if one.asked else ((), ())
    return AskedTypeOut(
        key=one.kind.key,
        words=type_words(one.kind.joint, units),
        mark=one.kind.marks[0],
        welds=one.kind.count,
        wps=one.wps.name if one.wps else "",
        revision_id=one.wps.revision.pk if one.wps else None,
        code=one.code,
        asked=list(dict.fromkeys(designation_of(weld) for weld in welds)),
        open=list(open_),
        may=may,
    )


@router.get("/jobs/{int:job_id}/welder-tests", response={200: WelderPlanOut, **REFUSALS})
def plan_of_tests(
    request: HttpRequest, job_id: int, asked: Query[PlanQuery], units: System = "si"
) -> WelderPlanOut:
    """The fewest tests after which so many people may weld each joint type of the job."""
    require(person(request), Action.VIEW)
    types = [one for one in asked_types(*listed_of(job_id)) if one.asked is not None]
    day = asked.on or timezone.localdate()
    people, found = planned_tests(types, day, asked.needed, set(asked.members) or None)
    return WelderPlanOut(
        needed=asked.needed,
        tests=[
            PlannedTestOut(
                member_id=people[one.person].member.pk,
                name=people[one.person].member.name,
                designation=designation_of(one.piece),
                types=[types[at].kind.key for at in one.for_asked],
            )
            for one in found.tests
        ],
        short=sum(held < asked.needed for at, held in enumerate(found.held) if at not in found.open),
        lacking=[
            LackingOut(
                key=types[at].kind.key,
                words=type_words(types[at].kind.joint, units),
                held=found.held[at],
            )
            for at in found.lacking
        ],
        open=[types[at].kind.key for at in found.open],
        proven=found.optimal,
        tried=found.tried,
    )
