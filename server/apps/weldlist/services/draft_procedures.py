"""Drafts of the procedures of coupons that were planned."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from api.errors import ConflictError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.services.create_procedure import create_procedure
from apps.weldlist.models import CouponSearch
from apps.weldlist.services.search import is_current
from welding.documents.codec import RECORD
from welding.language import tr


@transaction.atomic
def draft_procedures(user: User, job: Job, search: CouponSearch, names: Sequence[str]) -> list[Revision]:
    """A procedure of the job for each of these coupons, ready to start a coupon from.

    Args:
        user: Who drafts.
        job: The job of the list.
        search: The search that planned them; its answer has to be that of the list as it stands.
        names: The coupons by name.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The list changed since, or the plan has none of that name.
    """
    require(user, Action.WRITE_PROCEDURE)
    if search.plan is None or not is_current(search):
        raise ConflictError(tr("The list changed since: find the cheapest coupons again."))
    planned = {one["name"]: one["record"] for one in search.plan["coupons"]}
    lost = [name for name in names if name not in planned]
    if lost:
        raise ConflictError(tr("The list changed: {names} is no longer planned.", names=", ".join(lost)))
    made = []
    for name in names:
        procedure = RECORD.take(planned[name]).procedure
        title = f"Coupon {name}"[:200]
        made.append(create_procedure(user, job, replace(procedure, number=None, revision=None, title=title)))
    return made
