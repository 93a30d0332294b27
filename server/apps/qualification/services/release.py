"""A revision on its way into production: prequalified or qualified, released, withdrawn."""

from __future__ import annotations

from collections.abc import Sequence

from api.errors import ConflictError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.procedures.models import Revision, Stage
from apps.qualification.models import NOT_COUNTING, Purpose, QualificationRecord, Signature, Support
from apps.qualification.services.signing import sign_revision
from welding.coverage.covers import Coverage, covers
from welding.evaluate.procedure import evaluate
from welding.finding import Finding
from welding.language import tr

BEFORE_QUALIFIED = (Stage.DRAFT, Stage.TRIAL, Stage.TESTED)


def supporting_records(revision: Revision) -> list[QualificationRecord]:
    """The signed records that were declared to support a revision, whether they still count or not."""
    supports = revision.supports.select_related(
        "record__coupon__job", "record__coupon__revision__procedure"
    ).prefetch_related("record__signatures")
    return [one.record for one in supports]


def coverage_of(revision: Revision, records: Sequence[QualificationRecord]) -> Coverage:
    """What the signed records that count say of a revision, under the book as it stands now."""
    counting = [one.document() for one in records if one.counts]
    return covers(counting, revision.contents())


def _locked(revision: Revision) -> Revision:
    revisions = Revision.objects.select_for_update(of=("self",)).select_related("procedure__job")
    return revisions.get(pk=revision.pk)


def _breaches(revision: Revision) -> list[Finding]:
    document = revision.contents()
    found = evaluate(document, document.code.units if document.code else "si").findings
    return [one for one in found if one.obligation == "requirement" and one.verdict == "violates"]


def _problems(findings: Sequence[Finding]) -> list[dict[str, str]]:
    return [
        {"path": one.path, "message": f"{one.title}: {one.message}", "value": one.actual}
        for one in findings[:20]
    ]


def _freeze(revision: Revision, stage: str) -> None:
    revision.stage = stage
    revision.frozen_at = revision.frozen_at or timezone.now()
    revision.save(update_fields=["stage", "frozen_at"])


@transaction.atomic
def qualify_revision(
    user: User, revision: Revision, records: Sequence[QualificationRecord], reason: str = ""
) -> Revision:
    """Declare that signed records cover a revision; the revision is frozen with its supports.

    A qualified or released revision may be declared anew, such as on an amended record; its stage stays.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: Not at this stage, or the records do not cover it; what blocks is listed.
    """
    require(user, Action.RELEASE)
    locked = _locked(revision)
    if locked.stage not in (*BEFORE_QUALIFIED, Stage.QUALIFIED, Stage.RELEASED):
        raise ConflictError(tr("Revision {letter} is {stage}.", letter=locked.letter, stage=locked.stage))
    for one in records:
        if not one.counts:
            raise ConflictError(
                tr("Record {number} {not_counting}.", number=one.number, not_counting=NOT_COUNTING[one.state])
            )
    found = coverage_of(locked, records)
    if not found.covered:
        raise ConflictError(
            tr(
                "The records do not cover revision {letter}: {count} findings against it.",
                letter=locked.letter,
                count=len(found.findings),
            ),
            errors=_problems(found.findings),
        )
    breaches = _breaches(locked)
    if breaches:
        raise ConflictError(
            tr(
                "Revision {letter} does not meet {count} requirements of its own code.",
                letter=locked.letter,
                count=len(breaches),
            ),
            errors=_problems(breaches),
        )
    _freeze(locked, locked.stage if locked.stage == Stage.RELEASED else Stage.QUALIFIED)
    for one in records:
        if one.number in found.by:
            Support.objects.get_or_create(revision=locked, record=one)
    sign_revision(user, locked, Purpose.QUALIFIED, reason)
    return locked


@transaction.atomic
def prequalify_revision(user: User, revision: Revision, reason: str = "") -> Revision:
    """Declare that every prequalified rule holds.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: Not a draft on the prequalified route, or a requirement is broken or open.
    """
    require(user, Action.RELEASE)
    locked = _locked(revision)
    document = locked.contents()
    if document.code is None or document.code.route != "prequalified":
        raise ConflictError(tr("The procedure does not go by the prequalified route."))
    if locked.stage not in BEFORE_QUALIFIED:
        raise ConflictError(tr("Revision {letter} is {stage}.", letter=locked.letter, stage=locked.stage))
    evaluation = evaluate(document, document.code.units)
    against = [
        one
        for one in evaluation.findings
        if one.obligation == "requirement" and one.verdict in ("violates", "undecided")
    ]
    if against or evaluation.missing:
        raise ConflictError(
            tr("{count} requirements are broken or open.", count=len(against) + len(evaluation.missing)),
            errors=_problems(against)
            + [
                {"path": p.path, "message": tr("not stated: {message}", message=p.message), "value": ""}
                for p in evaluation.missing[:20]
            ],
        )
    _freeze(locked, Stage.PREQUALIFIED)
    sign_revision(user, locked, Purpose.PREQUALIFIED, reason)
    return locked


@transaction.atomic
def release_revision(user: User, revision: Revision, reason: str = "") -> Revision:
    """Release for production; the released revision before it is superseded.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: Not qualified or prequalified, no longer covered under the book as it stands, or the
            job asks for the signature of a second person.
    """
    require(user, Action.RELEASE)
    locked = _locked(revision)
    if locked.stage not in (Stage.QUALIFIED, Stage.PREQUALIFIED):
        raise ConflictError(
            tr(
                "Revision {letter} is {stage}: it is released once qualified or prequalified.",
                letter=locked.letter,
                stage=locked.stage,
            )
        )
    _second_person(user, locked)
    if locked.stage == Stage.QUALIFIED:
        found = coverage_of(locked, supporting_records(locked))
        if not found.covered:
            raise ConflictError(
                tr("Revision {letter} is no longer covered by its records.", letter=locked.letter),
                errors=_problems(found.findings),
            )
    Revision.objects.filter(procedure=locked.procedure, stage=Stage.RELEASED).update(stage=Stage.SUPERSEDED)
    _freeze(locked, Stage.RELEASED)
    sign_revision(user, locked, Purpose.RELEASE, reason)
    return locked


def _second_person(user: User, revision: Revision) -> None:
    """Where the job asks for two signatures, whoever releases has not declared the qualification."""
    if not revision.procedure.job.two_signatures:
        return
    declared = Signature.objects.filter(
        revision=revision, purpose__in=(Purpose.QUALIFIED, Purpose.PREQUALIFIED)
    ).order_by("-id")
    first = declared.first()
    if first is not None and first.by_id == user.pk:
        raise ConflictError(
            tr("This job asks for two signatures: whoever declared it qualified does not release it as well.")
        )


@transaction.atomic
def withdraw_revision(user: User, revision: Revision, reason: str) -> Revision:
    """Take a released revision out of production.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It is not released, or no reason is given.
    """
    require(user, Action.RELEASE)
    locked = _locked(revision)
    if locked.stage not in (Stage.RELEASED, Stage.QUALIFIED, Stage.PREQUALIFIED):
        raise ConflictError(
            tr(
                "Revision {letter} is {stage}: there is nothing to withdraw.",
                letter=locked.letter,
                stage=locked.stage,
            )
        )
    if not reason.strip():
        raise ConflictError(
            tr("State why it is withdrawn."),
            errors=[{"path": "reason", "message": tr("state the reason"), "value": ""}],
        )
    _freeze(locked, Stage.WITHDRAWN)
    sign_revision(user, locked, Purpose.WITHDRAW, reason)
    return locked
