"""The cheapest coupons for what the records of a job leave open, and drafts of their procedures."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from api.errors import ConflictError, InvalidError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.services.create_procedure import create_procedure
from apps.weldlist.models import WeldList
from apps.weldlist.queries import PRICES, SHOP, StandingList, counting_records, standing_list
from welding.documents.weld_list import Prices, Shop
from welding.documents.weld_list import WeldList as Document
from welding.language import tr
from welding.weldlist.coupons import FewestCoupons, fewest_coupons

LONGEST_S = 30.0
MOST_OPEN = 300
"""Joint types without cover that one request plans coupons for."""


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


def plan_coupons(listed: WeldList, *, keep: Sequence[str] = (), without: Sequence[str] = ()) -> FewestCoupons:
    """The cheapest set; some coupons kept or left out to see what that costs.

    Raises:
        InvalidError: The list leaves more types open than one request plans for.
    """
    document = document_of(listed, standing_list(listed))
    kinds = {id(one.joint) for one in document.joints}
    if len(kinds) > 4 * MOST_OPEN:
        raise InvalidError(
            tr(
                "The list has {count} joint types: coupons for them are planned by the command line.",
                count=len(kinds),
            )
        )
    shop = replace(
        document.shop,
        keep=tuple(dict.fromkeys((*document.shop.keep, *keep))),
        without=tuple(dict.fromkeys((*document.shop.without, *without))),
    )
    return fewest_coupons(replace(document, shop=shop), LONGEST_S)


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
