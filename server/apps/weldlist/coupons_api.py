"""The cheapest coupons for a weld list: searches that are asked for and ended, and their drafts."""

from __future__ import annotations

from api.people import person
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from apps.accounts.permissions import Action, require
from apps.background.work import as_it_stands
from apps.weldlist.listed import REFUSALS, listed_of
from apps.weldlist.models import CouponSearch
from apps.weldlist.schemas import (
    DraftCouponsIn,
    DraftedOut,
    PlanIn,
    PlannedCouponOut,
    PlanOut,
    SearchOut,
    UncoveredOut,
)
from apps.weldlist.services.draft_procedures import draft_procedures
from apps.weldlist.services.search import ask, is_current, start_searcher, stop
from welding.documents.codec import JOINT
from welding.quantities.writing import System
from welding.weldlist.joint_types import type_words

router = Router(tags=["weld list"])


@router.post("/jobs/{int:job_id}/weld-list/coupons", response={200: SearchOut, **REFUSALS})
def search_coupons(request: HttpRequest, job_id: int, payload: PlanIn, units: System = "si") -> SearchOut:
    """Ask for the cheapest set of coupons for what the records leave open, with the proof."""
    _, listed, _ = listed_of(job_id)
    search = ask(person(request), listed, keep=payload.keep, without=payload.without, code=payload.code)
    return _out(search, units)


@router.get("/jobs/{int:job_id}/weld-list/coupons", response={200: SearchOut | None, **REFUSALS})
def last_search(request: HttpRequest, job_id: int, units: System = "si") -> SearchOut | None:
    """The last search under the list's own code, whoever asked for it; ``null`` if there is none."""
    require(person(request), Action.VIEW)
    _, listed, _ = listed_of(job_id)
    search = listed.searches.filter(asked__code=None).last()
    return None if search is None else _out(as_it_stands(search, start_searcher), units)


@router.get("/jobs/{int:job_id}/weld-list/coupons/{int:search_id}", response={200: SearchOut, **REFUSALS})
def search_as_it_stands(request: HttpRequest, job_id: int, search_id: int, units: System = "si") -> SearchOut:
    """How far a search is, and what it found."""
    require(person(request), Action.VIEW)
    return _out(as_it_stands(_search(job_id, search_id), start_searcher), units)


@router.post(
    "/jobs/{int:job_id}/weld-list/coupons/{int:search_id}/stop", response={200: SearchOut, **REFUSALS}
)
def stop_search(request: HttpRequest, job_id: int, search_id: int) -> SearchOut:
    """End a search."""
    return _out(stop(person(request), _search(job_id, search_id)), "si")


@router.post("/jobs/{int:job_id}/weld-list/drafts", response={201: list[DraftedOut], **REFUSALS})
def draft_coupons(request: HttpRequest, job_id: int, payload: DraftCouponsIn) -> Status[list[DraftedOut]]:
    """Draft a procedure for each of these coupons of the plan."""
    search = _search(job_id, payload.search)
    made = draft_procedures(person(request), search.weld_list.job, search, payload.names)
    return Status(
        201,
        [
            DraftedOut(revision_id=one.pk, number=one.procedure.number, coupon=name)
            for one, name in zip(made, payload.names, strict=True)
        ],
    )


def _search(job_id: int, search_id: int) -> CouponSearch:
    return get_object_or_404(
        CouponSearch.objects.select_related("weld_list__job"), pk=search_id, weld_list__job=job_id
    )


def _out(search: CouponSearch, units: System) -> SearchOut:
    return SearchOut(
        id=search.pk,
        state=search.state,  # type: ignore[arg-type]
        doing=search.doing,
        done=search.done,
        of=search.of,
        problem=search.problem,
        keep=search.asked["keep"],
        without=search.asked["without"],
        current=is_current(search),
        plan=_plan(search, units),
    )


def _plan(search: CouponSearch, units: System) -> PlanOut | None:
    plan = search.plan
    if plan is None:
        return None
    return PlanOut(
        code=plan["code"],
        types=plan["types"],
        gaps=plan["gaps"],
        coupons=[
            PlannedCouponOut(name=one["name"], cost=one["cost"], covers=one["covers"], only=one["only"])
            for one in plan["coupons"]
        ],
        cost=plan["cost"],
        bound=plan["bound"],
        optimal=plan["optimal"],
        tried=plan["tried"],
        currency=plan["currency"],
        uncovered=[
            UncoveredOut(
                key=one["key"], words=type_words(JOINT.take(one["joint"]), units), reasons=one["reasons"]
            )
            for one in plan["uncovered"]
        ],
    )
