"""Add somebody to the crew list, or change what the list says of a person."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from api.errors import ConflictError, InvalidError
from django.db import IntegrityError, transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.crew.models import CrewMember
from welding.language import tr


@dataclass(frozen=True, slots=True, kw_only=True)
class MemberEntry:
    """What is entered of a person."""

    name: str
    mark: str = ""
    employer: str = ""
    left_on: date | None = None


def add_member(user: User, entry: MemberEntry) -> CrewMember:
    """Add a person.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: No name is given, or name or mark stand in the list already.
    """
    require(user, Action.KEEP_CREW)
    member = CrewMember(added_by=user)
    _take(member, entry)
    _save(member)
    return member


@transaction.atomic
def change_member(user: User, member_id: int, version: int, entry: MemberEntry) -> CrewMember:
    """Change mark, employer or the day of leaving; a name on a certificate stays as it was signed.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: Name or mark stand in the list already, or the name is on a certificate.
        ConflictError: Somebody changed it meanwhile.
    """
    require(user, Action.KEEP_CREW)
    member = CrewMember.objects.select_for_update().get(pk=member_id)
    if member.version != version:
        raise ConflictError(
            tr("Somebody changed {name} meanwhile: look at it again.", name=member.name),
            current={"version": member.version},
        )
    if entry.name.strip() != member.name and member.certificates.exists():
        said = tr("The name stands on signed certificates and in the logs: it stays.")
        raise _wrong("name", said, entry.name)
    _take(member, entry)
    member.version += 1
    _save(member)
    return member


def remove_member(user: User, member_id: int) -> None:
    """Remove somebody of whom nothing is signed and nothing is kept on file.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: Something is signed of the person.
    """
    require(user, Action.KEEP_CREW)
    with transaction.atomic():
        member = CrewMember.objects.select_for_update().get(pk=member_id)
        if member.certificates.exists() or member.scans.exists():
            raise ConflictError(
                tr(
                    "Certificates of {name} are signed or scanned: these have to be kept. Enter the day of "
                    "leaving instead.",
                    name=member.name,
                )
            )
        member.delete()


def _take(member: CrewMember, entry: MemberEntry) -> None:
    name = " ".join(entry.name.split())
    if not name:
        raise _wrong("name", tr("Give the name as it stands in the logs."))
    member.name, member.mark = name, entry.mark.strip()
    member.employer, member.left_on = entry.employer.strip(), entry.left_on


def _save(member: CrewMember) -> None:
    others = CrewMember.objects.exclude(pk=member.pk)
    if others.filter(name__iexact=member.name).exists():
        raise _wrong("name", tr("{name} is in the list already.", name=member.name), member.name)
    if member.mark and others.filter(mark__iexact=member.mark).exists():
        raise _wrong("mark", tr("Somebody else has this mark."), member.mark)
    try:
        with transaction.atomic():
            member.save()
    except IntegrityError:  # the same name came from somebody else at the same moment
        raise _wrong("name", tr("{name} is in the list already.", name=member.name), member.name) from None


def _wrong(path: str, message: str, value: str = "") -> InvalidError:
    return InvalidError(message, errors=[{"path": path, "message": message, "value": value}])
