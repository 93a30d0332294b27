"""Start a coupon from a revision; the revision is frozen by it."""

from __future__ import annotations

import re
from typing import Any

from api.errors import InvalidError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon
from apps.coupons.queries import standing_document
from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from welding.documents.codec import PROCEDURE
from welding.documents.procedure import Procedure as Document
from welding.language import tr


def next_number(job: Job) -> str:
    """The next free coupon number of a job, such as ``FB-27-C06``."""
    pattern = re.compile(rf"^{re.escape(job.number)}-C(\d+)$")
    numbers = job.coupons.values_list("number", flat=True)
    used = [int(match[1]) for number in numbers if (match := pattern.match(number))]
    return f"{job.number}-C{max(used, default=0) + 1:02d}"


def piece_of(document: Document) -> dict[str, Any]:
    """What the test piece is before anything was measured on it, from its procedure."""
    metals = document.base_metals
    diameter = next((metal.outside_diameter_mm for metal in metals if metal.outside_diameter_mm), None)
    piece: dict[str, Any] = {
        "product": "pipe" if diameter else "plate",
        "thickness_mm": [metal.thickness_mm for metal in metals if metal.thickness_mm],
        "outside_diameter_mm": diameter,
        "weld": document.joint.weld if document.joint else None,
        "position": document.positions[0] if document.positions else None,
        "progression": next((one.progression for one in document.passes if one.progression), None),
    }
    return {key: value for key, value in piece.items() if value not in (None, [])}


@transaction.atomic
def start_coupon(user: User, revision: Revision, welder: str = "") -> Coupon:
    """Start a coupon and freeze the revision it is welded from.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: The procedure has no pass to weld.
        DocumentError: The welder's name cannot be kept.
    """
    require(user, Action.START_COUPON)
    locked = Revision.objects.select_for_update().select_related("procedure__job").get(pk=revision.pk)
    document = locked.contents()
    if not document.passes:
        raise InvalidError(
            tr("The procedure has no pass yet: add one, then start the coupon."),
            errors=[{"path": "passes", "message": tr("add at least one pass"), "value": ""}],
        )
    if locked.stage == Stage.DRAFT:
        locked.stage, locked.frozen_at = Stage.TRIAL, timezone.now()
        locked.save(update_fields=["stage", "frozen_at"])
    job = Job.objects.select_for_update().get(pk=locked.procedure.job_id)  # one number at a time
    people = [{"role": "welder", "name": welder.strip()}] if welder.strip() else []
    coupon = Coupon.objects.create(
        job=job,
        revision=locked,
        number=next_number(job),
        procedure_document=PROCEDURE.plain(document),
        piece={**piece_of(document), "welded_on": timezone.localdate().isoformat()},
        people=people,
        created_by=user,
    )
    standing_document(coupon)  # what could not be read again is not kept
    return coupon
