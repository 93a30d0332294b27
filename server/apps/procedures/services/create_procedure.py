"""Create a procedure with its first draft."""

from __future__ import annotations

import re

from api.errors import ConflictError
from django.db import IntegrityError, transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.procedures.models import Procedure, Revision
from apps.procedures.services.columns import columns_of, named
from welding.documents.procedure import Procedure as Document
from welding.language import tr


def next_number(job: Job) -> str:
    """The next free procedure number of a job, such as ``FB-27-P04``."""
    pattern = re.compile(rf"^{re.escape(job.number)}-P(\d+)$")
    used = [
        int(match[1])
        for number in job.procedures.values_list("number", flat=True)
        if (match := pattern.match(number))
    ]
    return f"{job.number}-P{max(used, default=0) + 1:02d}"


@transaction.atomic
def create_procedure(user: User, job: Job, document: Document) -> Revision:
    """Create a procedure from a document; a document without a number gets the next one.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The number is taken in this job.
    """
    require(user, Action.WRITE_PROCEDURE)
    Job.objects.select_for_update(no_key=True).get(pk=job.pk)  # one number at a time
    number = (document.number or "").strip()[:60] or next_number(job)
    try:
        with transaction.atomic():
            procedure = Procedure.objects.create(job=job, number=number)
    except IntegrityError:
        raise ConflictError(
            tr("{number} stands in {number2} already.", number=number, number2=job.number),
            errors=[{"path": "number", "message": tr("taken in this job"), "value": number}],
        ) from None
    letter = document.revision or ""
    if not re.fullmatch(r"[A-Z]{1,3}", letter):
        letter = "A"
    return Revision.objects.create(
        procedure=procedure,
        letter=letter,
        created_by=user,
        saved_by=user,
        **columns_of(named(document, number, letter)),
    )
