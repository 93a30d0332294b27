"""In which positions the crew is qualified, process by process."""

from __future__ import annotations

from datetime import date

from api.people import person
from api.text import Day
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema

from apps.accounts.permissions import Action, require
from apps.crew.models import CrewMember
from apps.crew.queries import at_work_on, standing_crew
from welding.language import tr
from welding.welders.catalogue import welder_edition
from welding.welders.positions_held import PositionsHeld, positions_held

router = Router(tags=["crew"])


class HeldOut(Schema):
    """Positions of one process and kind of weld: of valid certificates, and of lapsed ones alone."""

    code: str
    process: str
    weld: str
    valid: list[str]
    lapsed: list[str]


class MemberPositionsOut(Schema):
    """A person with the positions of each process."""

    id: int
    name: str
    mark: str
    held: list[HeldOut]


class CrewPositionsOut(Schema):
    """The crew on a day."""

    on: date
    people: list[MemberPositionsOut]


def _weld(held: PositionsHeld) -> str:
    """The kind of weld in the words of its code."""
    if held.weld == "butt":
        return tr("groove") if welder_edition(held.code).usage == "aws" else tr("butt")
    return tr("fillet") if held.weld else ""


@router.get("/crew/positions", response=CrewPositionsOut)
def positions(request: HttpRequest, on: Day | None = None) -> CrewPositionsOut:
    """Positions of everybody who is there on a day, by process and kind of weld."""
    require(person(request), Action.VIEW)
    day = on or timezone.localdate()
    members = at_work_on(CrewMember.objects.order_by("name"), day)
    return CrewPositionsOut(
        on=day,
        people=[
            MemberPositionsOut(
                id=one.member.pk,
                name=one.member.name,
                mark=one.member.mark,
                held=[
                    HeldOut(
                        code=welder_edition(each.code).short,
                        process=each.process,
                        weld=_weld(each),
                        valid=list(each.valid),
                        lapsed=list(each.lapsed),
                    )
                    for each in positions_held([test for _, test in one.sound])
                ],
            )
            for one in standing_crew(members, day)
        ],
    )
