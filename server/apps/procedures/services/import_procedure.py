"""Import a procedure document: a new procedure, or nothing where the same one is there already."""

from __future__ import annotations

from dataclasses import dataclass, replace

from api.errors import ConflictError

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.procedures.services.columns import named
from apps.procedures.services.create_procedure import create_procedure
from welding.documents.identity import without_pass_ids
from welding.documents.procedure import Procedure as Document
from welding.language import tr


@dataclass(frozen=True, slots=True)
class Imported:
    """The revision that holds the document now; ``unchanged`` if it stood there before."""

    revision: Revision
    unchanged: bool


def import_procedure(user: User, job: Job, document: Document, as_number: str = "") -> Imported:
    """Take a document into a job.

    Args:
        user: Who imports.
        job: Where to.
        document: What.
        as_number: Another number to keep it under.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The number is taken by other contents.
    """
    require(user, Action.IMPORT)
    if as_number:
        document = replace(document, number=as_number)
    same = Revision.objects.filter(
        procedure__job=job, procedure__number=document.number or "", letter=document.revision or "A"
    )
    found = same.first()
    if found is None:
        return Imported(create_procedure(user, job, document), unchanged=False)
    given = named(document, found.procedure.number, found.letter)
    if without_pass_ids(given) == without_pass_ids(found.contents()):
        return Imported(found, unchanged=True)
    raise ConflictError(
        tr(
            "{number} revision {letter} stands in {number2} with other contents. Import it "
            "under another number.",
            number=found.procedure.number,
            letter=found.letter,
            number2=job.number,
        ),
        errors=[
            {"path": "number", "message": tr("taken by other contents"), "value": found.procedure.number}
        ],
    )
