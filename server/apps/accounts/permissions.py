"""Who may do what: one table, asked by every service."""

from __future__ import annotations

from enum import StrEnum

from api.errors import NotAllowedError

from apps.accounts.models import Role, User
from welding.glossary.values import in_words
from welding.language import tr, tr_noop


class Action(StrEnum):
    """Something that a person may or may not do; the value completes "You may not …"."""

    VIEW = tr_noop("look at this")
    CREATE_JOB = tr_noop("create a job")
    WRITE_PROCEDURE = tr_noop("write procedures")
    START_COUPON = tr_noop("start a coupon")
    LOG_PASS = tr_noop("log passes")
    EDIT_PIECE = tr_noop("change the coupon's fit-up")
    CLOSE_LOG = tr_noop("close a coupon's log or open it again")
    IMPORT = tr_noop("import documents")
    KEEP_LIBRARY = tr_noop("change the library")
    LOG_TRIAL = tr_noop("log trials")
    LEAD_TRAINING = tr_noop("see how others stand in the training")
    ENTER_TESTS = tr_noop("enter tests")
    ENTER_OLD_RECORD = tr_noop("enter an existing PQR or WPQR")
    SIGN_RECORD = tr_noop("sign a record")
    WITNESS = tr_noop("sign as a witness")
    RELEASE = tr_noop("release or withdraw procedures")
    LOG_WELD = tr_noop("log production welds")
    INSPECT_WELD = tr_noop("enter what was found on production welds")
    RELEASE_WELD = tr_noop("release production welds")
    KEEP_CREW = tr_noop("change the crew and its certificates")
    SIGN_CERTIFICATE = tr_noop("sign for the qualification of a person")
    CORRECT_BOOK = tr_noop("correct the code book")
    KEEP_PEOPLE = tr_noop("manage people and access")


SIGNING = frozenset(
    {Action.SIGN_RECORD, Action.WITNESS, Action.RELEASE, Action.SIGN_CERTIFICATE, Action.CORRECT_BOOK}
)
"""What is done under one's name, with the password entered again."""

ALLOWED: dict[Role, frozenset[Action]] = {
    Role.ADMINISTRATOR: frozenset(Action),
    Role.ENGINEER: frozenset(Action) - {Action.KEEP_PEOPLE},
    Role.INSPECTOR: frozenset(
        {
            Action.VIEW,
            Action.START_COUPON,
            Action.LOG_PASS,
            Action.EDIT_PIECE,
            Action.CLOSE_LOG,
            Action.LOG_TRIAL,
            Action.ENTER_TESTS,
            Action.ENTER_OLD_RECORD,
            Action.WITNESS,
            Action.LOG_WELD,
            Action.INSPECT_WELD,
            Action.RELEASE_WELD,
        }
    ),
    # From outside: reads, signs what was witnessed, and for the persons who were examined.
    Role.EXAMINER: frozenset({Action.VIEW, Action.WITNESS, Action.SIGN_CERTIFICATE}),
    # Alone at the booth the welder records what is at the booth, too; closing the log is for the witness.
    Role.WELDER: frozenset(
        {Action.VIEW, Action.LOG_PASS, Action.EDIT_PIECE, Action.LOG_TRIAL, Action.LOG_WELD}
    ),
    Role.VIEWER: frozenset({Action.VIEW}),
}


def may(user: User, action: Action) -> bool:
    """Whether this person may do it."""
    return user.is_active and action in ALLOWED[Role(user.role)]


def require(user: User, action: Action) -> None:
    """Refuse with a sentence if this person may not do it.

    Raises:
        NotAllowedError: The role does not allow it.
    """
    if not may(user, action):
        said = tr_noop("As a {role} you may not {action}.")
        if user.role[0] in "aeiou":
            said = tr_noop("As an {role} you may not {action}.")
        raise NotAllowedError(tr(said, role=in_words(user.role, "person"), action=tr(action.value)))
