"""The cheapest coupons for what the records of a job leave open, and drafts of their procedures."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from threading import Lock

from api.errors import ConflictError, InvalidError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.services.create_procedure import create_procedure
from apps.weldlist.models import WeldList
from apps.weldlist.queries import PRICES, SHOP, StandingList, counting_records, covered_types, standing_list
from welding.documents.procedure import Code
from welding.documents.weld_list import Prices, Shop
from welding.documents.weld_list import WeldList as Document
from welding.language import tr
from welding.weldlist.coupons import FewestCoupons, fewest_coupons
from welding.weldlist.joint_types import joint_types
from welding.weldlist.standing import types_covered

LONGEST_S = 30.0
MOST_OPEN = 100
"""Joint types without cover that one request plans coupons for: more take minutes, and the command line."""
SEARCHING = Lock()
"""One search at a time in a process: it takes a core, and everybody else waits for theirs."""


def shop_of(listed: WeldList) -> Shop:
    """What the shop may weld coupons of."""
    return SHOP.take(listed.shop or {})


def prices_of(listed: WeldList) -> Prices:
    """What a coupon costs here."""
    return PRICES.take(listed.prices or {})


def document_of(listed: WeldList, standing: StandingList) -> Document:
    """The list as the open document that the core takes: joints that are understood, records that count."""
    return Document(
        job=f"{listed.job.number} {listed.job.title}"[:200],
        code=standing.code,
        joints=tuple(row.read.joint for row in standing.rows if row.read.joint is not None),
        records=tuple(counting_records(listed.job)),
        shop=shop_of(listed),
        prices=prices_of(listed),
    )


def plan_coupons(
    listed: WeldList, *, keep: Sequence[str] = (), without: Sequence[str] = (), code: Code | None = None
) -> FewestCoupons:
    """The cheapest set; some coupons kept or left out to see what that costs.

    Args:
        listed: The list.
        keep: Coupons to keep, by name.
        without: Coupons to do without.
        code: Another code to judge the same joints and records under; the list's own where it is ``None``.

    Raises:
        InvalidError: The list leaves more types open than one request plans for.
        ConflictError: Another search is running.
    """
    standing = standing_list(listed)
    document = document_of(listed, standing)
    if code is None:
        _, types = covered_types(listed.job, standing)
    else:
        joints = tuple(replace(one, joint=replace(one.joint, code=None)) for one in document.joints)
        document = replace(document, code=code, joints=joints)
        types = types_covered(joint_types(joints, code), document.records, code)
    gaps = sum(one.verdict != "covered" for one in types)
    if gaps > MOST_OPEN:
        raise InvalidError(
            tr(
                "{count} joint types lack cover: coupons for so many are planned by the command line.",
                count=gaps,
            )
        )
    shop = replace(
        document.shop,
        keep=tuple(dict.fromkeys((*document.shop.keep, *keep))),
        without=tuple(dict.fromkeys((*document.shop.without, *without))),
    )
    if not SEARCHING.acquire(blocking=False):
        raise ConflictError(tr("Another search for coupons is running: try again in a minute."))
    try:
        return fewest_coupons(replace(document, shop=shop), LONGEST_S)
    finally:
        SEARCHING.release()


@transaction.atomic
def draft_procedures(user: User, job: Job, plan: FewestCoupons, names: Sequence[str]) -> list[Revision]:
    """A procedure of the job for each of these coupons, ready to start a coupon from.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The plan no longer has one of them.
    """
    require(user, Action.WRITE_PROCEDURE)
    chosen = {one.name: one for one in plan.coupons}
    lost = [name for name in names if name not in chosen]
    if lost:
        raise ConflictError(tr("The list changed: {names} is no longer planned.", names=", ".join(lost)))
    return [
        create_procedure(
            user,
            job,
            replace(chosen[name].record.procedure, number=None, revision=None, title=f"Coupon {name}"[:200]),
        )
        for name in names
    ]
