"""The production log: what was welded by whom, what was found on it, and how often it was rejected."""

from __future__ import annotations

from datetime import date
from itertools import islice
from typing import Annotated, Any, Literal, cast

from api.downloads import attachment
from api.errors import ProblemOut
from api.people import person, sender
from api.sheets import TYPES
from api.text import Day
from django.db.models import QuerySet
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router, Schema, Status
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.crew.api import who_may_out
from apps.crew.schemas import NamedWelderOut, WhoMayOut
from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from apps.production.files import log_file
from apps.production.models import Weld
from apps.production.queries import (
    JointToLog,
    RateBy,
    joint_to_log,
    joints_to_log,
    loggable_wps,
    recent_names,
    reject_rates,
    search,
    with_inspections,
)
from apps.production.schemas import (
    JointToLogOut,
    RateOut,
    ResultIn,
    ResultOut,
    StrikeEntryIn,
    WeldDetailOut,
    WeldIn,
    WeldOut,
    WeldsOut,
    WpsChoiceOut,
)
from apps.production.services.inspect_weld import Result, enter_result, release_weld, strike_result
from apps.production.services.log_weld import WeldEntry, log_weld, strike_weld
from apps.production.welders import kept, welders_of, written_procedure
from apps.weldlist.listed import REFUSALS, job_of
from welding.documents.codec import PASS_RECORD
from welding.evaluate.one_pass import evaluate_pass
from welding.language import tr
from welding.production.state import METHODS, Method, WeldState
from welding.quantities.writing import System
from welding.weldlist.joint_types import type_words

router = Router(tags=["production"])
PAGE = 50
MOST_COUNTED = 10_000
"""Welds that are counted; counting every one of very many takes longer than finding the latest."""


class WeldQuery(Schema):
    """Which welds are asked for; what is left out is not asked."""

    mark: Annotated[str, Field(max_length=400)] = ""
    welder: Annotated[str, Field(max_length=80)] = ""
    batch: Annotated[str, Field(max_length=80)] = ""
    heat: Annotated[str, Field(max_length=80)] = ""
    wps: Annotated[int | None, Field(ge=1, le=2_000_000_000)] = None
    state: WeldState | Literal[""] = ""
    method: Method | Literal[""] = ""
    accepted: bool | None = None
    since: date | None = None
    until: date | None = None


class JointQuery(Schema):
    """A joint of the list, and the WPS that it is welded to."""

    mark: Annotated[str, Field(min_length=1, max_length=400)]
    revision_id: Annotated[int, Field(ge=1, le=2_000_000_000)]
    on: Day | None = None


class NamedQuery(JointQuery):
    """Those who are to weld it."""

    names: Annotated[list[str], Field(max_length=20)] = []


def _weld(one: Weld) -> WeldOut:
    return WeldOut(
        id=one.pk,
        mark=one.mark,
        item=one.item,
        joint=one.joint,
        position=one.position,
        revision_id=one.revision_id,
        wps=one.wps,
        welders=one.welders,
        batches=one.batches,
        heats=one.heats,
        welded_on=one.welded_on,
        remarks=one.remarks,
        fit=cast(Any, one.fit),
        against=one.against,
        qualified=[NamedWelderOut(**each) for each in one.qualified],
        state=cast(Any, one.state),
        repair_of=one.repair_of_id,
        entered_name=one.entered_name,
        entered_at=one.entered_at,
        struck_reason=one.struck_reason,
        struck_name=one.struck_name,
        released_name=one.released_name,
        released_at=one.released_at,
        results=[ResultOut.from_orm(result) for result in one.inspections.all()],
    )


def _one(weld_id: int) -> Weld:
    return get_object_or_404(with_inspections(Weld.objects.select_related("revision__procedure")), pk=weld_id)


@router.get("/jobs/{int:job_id}/welds", response={200: WeldsOut, **REFUSALS})
def welds(
    request: HttpRequest,
    job_id: int,
    asked: Query[WeldQuery],
    before: Annotated[int | None, Field(ge=1, le=2_000_000_000)] = None,
) -> WeldsOut:
    """Production welds by any of their facts, the latest first."""
    require(person(request), Action.VIEW)
    found = search(job_of(job_id), asked.dict())
    page = found.filter(pk__lt=before) if before else found
    rows = list(with_inspections(page.order_by("-id"))[: PAGE + 1])
    all_of_it = before is None and len(rows) <= PAGE
    total = len(rows) if all_of_it else found.order_by()[: MOST_COUNTED + 1].count()
    return WeldsOut(
        total=min(total, MOST_COUNTED),
        more=total > MOST_COUNTED,
        welds=[_weld(one) for one in rows[:PAGE]],
        next=rows[PAGE - 1].pk if len(rows) > PAGE else None,
    )


@router.get("/jobs/{int:job_id}/welds/file", response={404: ProblemOut})
def download(
    request: HttpRequest, job_id: int, asked: Query[WeldQuery], kind: Literal["csv", "xlsx"] = "xlsx"
) -> HttpResponse:
    """The welds that are asked for, as a sheet."""
    require(person(request), Action.VIEW)
    job = job_of(job_id)
    found: QuerySet[Weld] = with_inspections(search(job, asked.dict()).order_by("id"))
    return attachment(log_file(found, kind), TYPES[kind], f"{job.number} welds.{kind}")


@router.get("/jobs/{int:job_id}/welds/rates", response={200: list[RateOut], **REFUSALS})
def rates(
    request: HttpRequest, job_id: int, by: RateBy = "welder", method: Method | Literal[""] = ""
) -> list[RateOut]:
    """Reject rates by welder, WPS, position or month, of one method of testing or of all."""
    require(person(request), Action.VIEW)
    methods = (method,) if method else METHODS
    return [RateOut(of=one.of, rate=one.rate) for one in reject_rates(job_of(job_id), by, methods)]


@router.get("/jobs/{int:job_id}/welds/joint", response={200: JointToLogOut, **REFUSALS})
def joint(
    request: HttpRequest, job_id: int, mark: Annotated[str, Field(max_length=400)], units: System = "si"
) -> JointToLogOut:
    """A joint of the list for whoever welds it: its WPS, and what of it is welded already."""
    require(person(request), Action.VIEW)
    job: Job = job_of(job_id)
    found = joint_to_log(job, mark)
    if found is None:
        return JointToLogOut(
            mark=mark, words="", drawing="", ndt="", count=0, left=[], problems=[], assigned=None, wps=[],
            welds=[], welders=[], batches=[], heats=[],
        )  # fmt: skip
    made = list(with_inspections(Weld.objects.filter(job=job, mark=mark).order_by("item", "id")))
    return _joint_out(found, made, _choices(job), recent_names(job), units)


class JointsOut(Schema):
    """Joints that are still to be welded; ``next`` continues where this part ends."""

    joints: list[JointToLogOut]
    next: int | None


@router.get("/jobs/{int:job_id}/welds/joints", response={200: JointsOut, **REFUSALS})
def joints(
    request: HttpRequest,
    job_id: int,
    start: Annotated[int, Field(ge=0, le=1_000_000)] = 0,
    units: System = "si",
) -> JointsOut:
    """Joints of which something is left to weld, in parts, for work without a network."""
    require(person(request), Action.VIEW)
    job = job_of(job_id)
    found = list(islice(joints_to_log(job), start, start + JOINTS_AT_ONCE + 1))
    marks = [one.row.cells["mark"] for one in found]
    made: dict[str, list[Weld]] = {}
    for weld in with_inspections(Weld.objects.filter(job=job, mark__in=marks).order_by("item", "id")):
        made.setdefault(weld.mark, []).append(weld)
    wps, names = _choices(job), recent_names(job)
    shown = (
        _joint_out(one, made.get(one.row.cells["mark"], []), wps, names, units)
        for one in found[:JOINTS_AT_ONCE]
    )
    more = len(found) > JOINTS_AT_ONCE
    return JointsOut(joints=[one for one in shown if one.left], next=start + JOINTS_AT_ONCE if more else None)


JOINTS_AT_ONCE = 200


def _choices(job: Job) -> list[WpsChoiceOut]:
    return [
        WpsChoiceOut(revision_id=one.pk, name=str(one), released=one.stage == Stage.RELEASED)
        for one in loggable_wps(job)
    ]


def _joint_out(
    found: JointToLog, made: list[Weld], wps: list[WpsChoiceOut], names: dict[str, list[str]], units: System
) -> JointToLogOut:
    there = {one.item for one in made if not one.struck_reason}
    cells = found.row.cells
    return JointToLogOut(
        mark=cells["mark"],
        words=type_words(found.kind.joint, units) if found.kind is not None else "",
        drawing=" ".join(one for one in (cells.get("drawing", ""), cells.get("revision", "")) if one),
        ndt=cells.get("ndt", ""),
        count=found.count,
        left=[at for at in range(1, found.count + 1) if at not in there],
        problems=[one.message for one in found.row.read.problems],
        assigned=found.assigned.pk if found.assigned is not None else None,
        wps=wps,
        welds=[_weld(one) for one in made],
        welders=names["welders"],
        batches=names["batches"],
        heats=names["heats"],
    )


@router.get("/jobs/{int:job_id}/welds/welders", response={200: list[NamedWelderOut], **REFUSALS})
def named(request: HttpRequest, job_id: int, asked: Query[NamedQuery]) -> list[NamedWelderOut]:
    """Whether those who are named are qualified for a joint, before they weld it."""
    require(person(request), Action.VIEW)
    joint, revision = _joint_and_wps(job_id, asked)
    found = welders_of(joint, revision, asked.on or timezone.localdate(), asked.names)
    return [NamedWelderOut(**each) for each in kept(found)]


@router.get("/jobs/{int:job_id}/welds/who-may", response={200: WhoMayOut, **REFUSALS})
def who_may_weld(request: HttpRequest, job_id: int, asked: Query[JointQuery]) -> WhoMayOut:
    """Who may weld a joint of the list to a WPS."""
    require(person(request), Action.VIEW)
    joint, revision = _joint_and_wps(job_id, asked)
    what = tr("{mark}, to {wps}", mark=asked.mark, wps=revision)
    found = who_may_out(what, written_procedure(joint, revision), asked.on or timezone.localdate())
    if joint.kind is None:
        found.open = [tr("The weld list does not say enough of this joint."), *found.open]
        for each in found.people:
            if each.standing == "may":
                each.standing, each.reasons = "open", [found.open[0]]
    return found


def _joint_and_wps(job_id: int, asked: JointQuery) -> tuple[JointToLog, Revision]:
    job = job_of(job_id)
    joint = joint_to_log(job, asked.mark)
    if joint is None:
        raise Http404
    found = Revision.objects.filter(procedure__job=job).select_related("procedure")
    return joint, get_object_or_404(found, pk=asked.revision_id)


@router.post("/jobs/{int:job_id}/welds", response={201: WeldOut, **REFUSALS})
def log(request: HttpRequest, job_id: int, payload: WeldIn) -> Status[WeldOut]:
    """Log a weld; the same ``client_id`` again gives the entry that is there."""
    entry = WeldEntry(
        mark=payload.mark,
        item=payload.item,
        revision_id=payload.revision_id,
        welders=payload.welders,
        batches=payload.batches,
        heats=payload.heats,
        welded_on=payload.welded_on,
        values=payload.passes,
        remarks=payload.remarks,
        repair_of=payload.repair_of,
    )
    user = sender(request, payload.person_id)
    weld = log_weld(user, job_of(job_id), payload.client_id, entry)
    return Status(201, _weld(_one(weld.pk)))


@router.get("/welds/{int:weld_id}", response={200: WeldDetailOut, **REFUSALS})
def weld(request: HttpRequest, weld_id: int, units: System = "si") -> WeldDetailOut:
    """A weld with its passes as welded, judged against the WPS that it was made to."""
    require(person(request), Action.VIEW)
    one = _one(weld_id)
    passes = [PASS_RECORD.take(plain) for plain in one.values]
    document = one.revision.contents() if passes else None
    repair = one.repairs.filter(struck_reason="").first()
    return WeldDetailOut(
        **_weld(one).dict(),
        passes=passes,
        judged=[evaluate_pass(document, record, units) for record in passes] if document is not None else [],
        repaired_by=repair.pk if repair is not None else None,
    )


@router.post("/welds/{int:weld_id}/results", response={201: WeldOut, **REFUSALS})
def enter(request: HttpRequest, weld_id: int, payload: ResultIn) -> Status[WeldOut]:
    """Enter what a method of testing found on a weld."""
    result = Result(**payload.dict(exclude={"client_id"}))
    get_object_or_404(Weld, pk=weld_id)
    enter_result(person(request), weld_id, payload.client_id, result)
    return Status(201, _weld(_one(weld_id)))


@router.post("/welds/results/{int:result_id}/strike", response={200: WeldOut, **REFUSALS})
def strike_found(request: HttpRequest, result_id: int, payload: StrikeEntryIn) -> WeldOut:
    """Strike a result that was entered wrongly."""
    get_object_or_404(Weld, inspections__pk=result_id)
    return _weld(_one(strike_result(person(request), result_id, payload.reason).weld_id))


@router.post("/welds/{int:weld_id}/release", response={200: WeldOut, **REFUSALS})
def release(request: HttpRequest, weld_id: int) -> WeldOut:
    """Release a weld that was accepted and that its WPS covers."""
    get_object_or_404(Weld, pk=weld_id)
    return _weld(_one(release_weld(person(request), weld_id).pk))


@router.post("/welds/{int:weld_id}/strike", response={200: WeldOut, **REFUSALS})
def strike(request: HttpRequest, weld_id: int, payload: StrikeEntryIn) -> WeldOut:
    """Strike an entry that was wrong."""
    get_object_or_404(Weld, pk=weld_id)
    return _weld(_one(strike_weld(person(request), weld_id, payload.reason).pk))
