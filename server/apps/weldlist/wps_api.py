"""Which released WPS covers which joint type, and which of them is assigned."""

from __future__ import annotations

from typing import Annotated, Literal

from api.people import person
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.weldlist.listed import REFUSALS, job_of, listed_of
from apps.weldlist.schemas import CellText, ListVersion
from apps.weldlist.services.assign_wps import assign_wps, drop_assignment
from apps.weldlist.wps import Assigned, applied_table, assigned_of, hash_of, released_wps, suggestions
from welding.documents.procedure import Code
from welding.quantities.writing import System
from welding.weldlist.applying import Applied
from welding.weldlist.joint_types import type_words

router = Router(tags=["weld list"])


class WpsOut(Schema):
    """A released WPS of the job; ``types`` counts the joint types that it covers."""

    revision_id: int
    name: str
    title: str
    types: int
    welds: int


class WpsCellOut(Schema):
    """How one WPS stands to a joint type, what blocks or is open, the records that cover it."""

    verdict: Literal["covered", "open", "blocked"]
    names: list[str]
    reasons: list[str]
    records: list[str]


class TypeWpsOut(Schema):
    """A joint type against the released WPSs."""

    key: str
    words: str
    marks: list[str]
    welds: int
    cells: list[WpsCellOut]
    assigned: int | None
    against: list[str]
    suggested: int | None
    reason: str


class LostAssignmentOut(Schema):
    """An assignment whose joints are gone from the list, or changed."""

    id: int
    words: str
    wps: str


class ListWpsOut(Schema):
    """Joint types against the released WPSs of the job, and what is assigned."""

    version: int
    code: Code
    procedures: list[WpsOut]
    types: list[TypeWpsOut]
    lost: list[LostAssignmentOut]


class AssignIn(Schema):
    """WPSs by joint type, ``None`` takes an assignment back; ``before`` is what was seen assigned."""

    version: ListVersion
    assign: Annotated[dict[CellText, int | None], Field(min_length=1, max_length=5000)]
    before: Annotated[dict[CellText, int | None], Field(max_length=5000)] = {}


@router.get("/jobs/{int:job_id}/weld-list/procedures", response={200: ListWpsOut, **REFUSALS})
def procedures(request: HttpRequest, job_id: int, units: System = "si") -> ListWpsOut:
    """Every joint type against the released WPSs of the job."""
    require(person(request), Action.VIEW)
    job, listed, standing = listed_of(job_id)
    wps = released_wps(job)
    table = applied_table(standing, wps)
    assigned = assigned_of(listed, standing, wps, table)
    suggested = suggestions(wps, table, assigned)
    by_hash: dict[str, Assigned] = {one.assignment.facts_hash: one for one in assigned}
    covering = [
        [number for number, row in enumerate(table) if row[at].verdict == "covered"] for at in range(len(wps))
    ]
    types = []
    for number, (kind, row) in enumerate(zip(standing.types, table, strict=True)):
        has = by_hash.get(hash_of(kind))
        offered = suggested.get(number)
        types.append(
            TypeWpsOut(
                key=kind.key,
                words=type_words(kind.joint, units),
                marks=list(kind.marks),
                welds=kind.count,
                cells=[_cell(one) for one in row],
                assigned=has.assignment.revision_id if has else None,
                against=list(has.against) if has else [],
                suggested=wps[offered.procedure].revision.pk if offered else None,
                reason=offered.reason if offered else "",
            )
        )
    return ListWpsOut(
        version=standing.version,
        code=standing.code,
        procedures=[
            WpsOut(
                revision_id=one.revision.pk,
                name=one.name,
                title=one.revision.title,
                types=len(covered),
                welds=sum(standing.types[number].count for number in covered),
            )
            for one, covered in zip(wps, covering, strict=True)
        ],
        types=types,
        lost=[
            LostAssignmentOut(
                id=one.assignment.pk, words=type_words(one.joint, units), wps=str(one.assignment.revision)
            )
            for one in assigned
            if one.kind is None
        ],
    )


def _cell(one: Applied) -> WpsCellOut:
    return WpsCellOut(
        verdict=one.verdict,
        names=list(dict.fromkeys(f.title for f in one.findings)),
        reasons=[f.message for f in one.findings],
        records=list(one.records),
    )


@router.put("/jobs/{int:job_id}/weld-list/assignments", response={200: ListWpsOut, **REFUSALS})
def assign(request: HttpRequest, job_id: int, payload: AssignIn, units: System = "si") -> ListWpsOut:
    """Assign released WPSs to joint types; all of them or none."""
    assign_wps(person(request), job_of(job_id), payload.version, payload.assign, payload.before)
    return procedures(request, job_id, units)


@router.delete(
    "/jobs/{int:job_id}/weld-list/assignments/{int:assignment_id}", response={200: ListWpsOut, **REFUSALS}
)
def drop(request: HttpRequest, job_id: int, assignment_id: int, units: System = "si") -> ListWpsOut:
    """Take back an assignment whose joints are gone from the list."""
    drop_assignment(person(request), job_of(job_id), assignment_id)
    return procedures(request, job_id, units)
