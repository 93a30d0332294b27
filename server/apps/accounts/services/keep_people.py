"""Keep the list of people who sign in: invite, change, disable, let set a new password."""

from __future__ import annotations

import hashlib
import json
from dataclasses import dataclass

from api.errors import ConflictError, InvalidError
from django.apps import apps
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError
from django.db import IntegrityError, connection, transaction

from apps.accounts.invitations import invitation_for, invited
from apps.accounts.models import Role, User
from apps.accounts.permissions import Action, require
from welding.language import tr

LONGEST_NAME = 80
"""As in the logs, which name people in words."""
LONGEST_USERNAME = 60
_ONE_AT_A_TIME = 0x9E09
"""Lock of the database for whoever changes who may sign in: the last administrator stays."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PersonEntry:
    """What is said of a person.

    Attributes:
        name: Full name, as signatures show it.
        role: What the person is here for.
        active: Whether the person may sign in.
        only_jobs: Ids of the jobs that somebody from outside sees; all of the shop without them.
    """

    name: str
    role: Role
    active: bool = True
    only_jobs: tuple[int, ...] | None = None


@transaction.atomic
def invite_person(user: User, username: str, entry: PersonEntry) -> tuple[User, str]:
    """Add a person without a password, and the token with which the person sets one.

    Args:
        user: Who invites.
        username: Name to sign in with; it is not changed later.
        entry: The rest.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: A name is missing or is no name.
        ConflictError: A name is borne by somebody else already.
    """
    require(user, Action.KEEP_PEOPLE)
    _alone()
    username = User.normalize_username(username.strip())
    if not username or len(username) > LONGEST_USERNAME:
        raise _at(
            "username",
            tr("Give a name to sign in with, of {most} characters at most.", most=LONGEST_USERNAME),
        )
    try:
        UnicodeUsernameValidator()(username)
    except ValidationError:
        raise _at("username", tr("Letters, digits and @ . + - _ only."), username) from None
    if User.objects.filter(username__iexact=username).exists():
        raise _taken("username", username)
    made = User(username=username, role=entry.role, is_active=entry.active)
    _name(made, entry.name)
    made.only_jobs = _jobs(entry)
    made.set_unusable_password()
    try:
        with transaction.atomic():
            made.save()
    except IntegrityError:
        raise _taken("username", username) from None
    return made, invitation_for(made)


@transaction.atomic
def change_person(user: User, person_id: int, seen: str, entry: PersonEntry) -> User:
    """Change name, role or access of a person; whoever is disabled is signed out at once.

    Args:
        user: Who changes it.
        person_id: Whom.
        seen: ``state_of`` the person as it was looked at.
        entry: What is to stand.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: The name is missing; it is the own access; nobody would be left who may do this.
        ConflictError: Somebody else changed the person meanwhile, or the name is borne by another.
        User.DoesNotExist: There is nobody with this id.
    """
    require(user, Action.KEEP_PEOPLE)
    _alone()
    found = User.objects.select_for_update().get(pk=person_id)
    if state_of(found) != seen:
        said = tr("Somebody changed this person meanwhile. Look again, then change what is still wrong.")
        raise ConflictError(said, errors=[{"path": "name", "message": said, "value": entry.name}])
    if found.pk == user.pk and (entry.role != found.role or not entry.active):
        raise _at("role", tr("Another administrator changes your own role or access."), entry.role)
    _name(found, entry.name)
    found.role, found.is_active, found.only_jobs = entry.role, entry.active, _jobs(entry)
    if not entry.active or entry.role != Role.ADMINISTRATOR:
        found.is_staff = found.is_superuser = False
    found.save(
        update_fields=[
            "first_name",
            "last_name",
            "role",
            "is_active",
            "only_jobs",
            "is_staff",
            "is_superuser",
        ]
    )
    if not User.objects.filter(role=Role.ADMINISTRATOR, is_active=True).exists():
        raise _at("role", tr("Nobody would be left who manages people and access."), entry.role)
    return found


@transaction.atomic
def reset_password(user: User, person_id: int) -> tuple[User, str]:
    """Take a person's password away and give a token for a new one; all sessions of the person end.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: It is the own password, or the person is disabled.
        User.DoesNotExist: There is nobody with this id.
    """
    require(user, Action.KEEP_PEOPLE)
    found = User.objects.select_for_update().get(pk=person_id)
    if found.pk == user.pk:
        raise _at("person", tr("You change your own password from the menu under your name."))
    if not found.is_active:
        raise _at("person", tr("{name} is disabled.", name=found.shown_name))
    found.set_unusable_password()
    found.password_own = False
    found.save(update_fields=["password", "password_own", "password_set_at"])
    return found, invitation_for(found)


@transaction.atomic
def accept_invitation(token: str, password: str) -> User:
    """Set the password of the person who was invited.

    Raises:
        InvalidError: The invitation is void, or the password is too weak.
    """
    found = invited(token)
    if found is not None:
        # Of two who open the link at once the second finds it used.
        User.objects.select_for_update().get(pk=found.pk)
        found = invited(token)
    if found is None:
        raise _at("token", tr("This link is used, replaced or too old. Ask an administrator for a new one."))
    try:
        validate_password(password, found)
    except ValidationError as error:
        raise _at("password", " ".join(error.messages)) from None
    found.set_own_password(password)
    found.save(update_fields=["password", "password_own", "password_set_at"])
    return found


def state_of(user: User) -> str:
    """A mark of what the list says of a person: another one once somebody has changed it."""
    told = [user.first_name, user.last_name, user.role, user.is_active, user.only_jobs]
    return hashlib.sha256(json.dumps(told).encode()).hexdigest()[:16]


def _jobs(entry: PersonEntry) -> list[int] | None:
    """The jobs, each of which is there: an id of a job to come would open that one, too."""
    if entry.only_jobs is None:
        return None
    if entry.role == Role.ADMINISTRATOR:
        raise _at("only_jobs", tr("An administrator sees all jobs."))
    wanted = sorted(set(entry.only_jobs))
    # By name: jobs are a layer above people.
    there = apps.get_model("jobs", "Job").objects.filter(pk__in=wanted).count()
    if not wanted or there != len(wanted):
        raise _at("only_jobs", tr("Name at least one job."))
    return wanted


def _name(user: User, name: str) -> None:
    """Set the full name, which no other person who signs may bear."""
    words = name.split()
    full = " ".join(words)
    if not words or len(full) > LONGEST_NAME:
        raise _at("name", tr("Give the full name, of {most} characters at most.", most=LONGEST_NAME), name)
    others = User.objects.exclude(pk=user.pk).only("first_name", "last_name", "username")
    if any(one.shown_name.casefold() == full.casefold() for one in others):
        raise _taken("name", full)
    user.first_name, user.last_name = words[0], " ".join(words[1:])


def _alone() -> None:
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(%s)", [_ONE_AT_A_TIME])


def _taken(path: str, value: str) -> ConflictError:
    said = tr("Somebody else has this name: signatures could not be told apart.")
    return ConflictError(said, errors=[{"path": path, "message": said, "value": value}])


def _at(path: str, message: str, value: str = "") -> InvalidError:
    return InvalidError(message, errors=[{"path": path, "message": message, "value": value}])
