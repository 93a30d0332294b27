"""Make the procedure that a signed record supports, as a new draft."""

from __future__ import annotations

from dataclasses import dataclass, replace

from api.errors import ConflictError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.procedures.models import Revision, Stage
from apps.procedures.services.begin_revision import begin_revision
from apps.procedures.services.create_procedure import create_procedure
from apps.procedures.services.save_revision import save_revision
from apps.qualification.models import NOT_COUNTING, QualificationRecord
from welding.language import tr
from welding.planning.from_record import procedure_from


@dataclass(frozen=True, slots=True)
class Made:
    """The draft and what to know of its limits."""

    revision: Revision
    notes: tuple[str, ...]


@transaction.atomic
def make_procedure(user: User, record: QualificationRecord, *, as_new: bool = False) -> Made:
    """Write the widest useful procedure into a draft: the next revision of the coupon's own, or a new one.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The procedure has a draft already.
    """
    require(user, Action.WRITE_PROCEDURE)
    if not record.counts:
        raise ConflictError(
            tr(
                "Record {number} {not_counting}.",
                number=record.number,
                not_counting=NOT_COUNTING[record.state],
            )
        )
    made = procedure_from(record.document())
    own = record.coupon.revision
    if as_new:
        return Made(create_procedure(user, record.coupon.job, made.procedure), made.notes)
    if own.procedure.revisions.filter(stage=Stage.DRAFT).exists():
        raise ConflictError(
            tr(
                "{number} has a draft already: finish it, or make a new procedure.",
                number=own.procedure.number,
            )
        )
    draft = begin_revision(user, own.procedure)
    document = replace(made.procedure, title=made.procedure.title or own.title)
    return Made(save_revision(user, draft, draft.version, document), made.notes)
