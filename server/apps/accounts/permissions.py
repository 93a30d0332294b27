"""Who may do what: one table, asked by every service."""

from __future__ import annotations

from enum import StrEnum

from api.errors import NotAllowedError

from apps.accounts.models import Role, User


class Action(StrEnum):
    """Something that a person may or may not do; the value completes "You may not …"."""

    VIEW = "look at this"
    CREATE_JOB = "create a job"
    WRITE_PROCEDURE = "write procedures"
    START_COUPON = "start a coupon"
    LOG_PASS = "log passes"  # noqa: S105 - a welding pass
    EDIT_PIECE = "change the coupon's fit-up"
    CLOSE_LOG = "close a coupon's log or open it again"
    IMPORT = "import documents"
    KEEP_LIBRARY = "change the library"
    LOG_TRIAL = "log trials"
    ENTER_TESTS = "enter tests"
    ENTER_OLD_RECORD = "enter an existing PQR or WPQR"
    SIGN_RECORD = "sign a record"
    WITNESS = "sign as a witness"
    RELEASE = "release or withdraw procedures"
    CORRECT_BOOK = "correct the code book"


ALLOWED: dict[Role, frozenset[Action]] = {
    Role.ADMINISTRATOR: frozenset(Action),
    Role.ENGINEER: frozenset(Action),
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
        }
    ),
    # From outside: reads, and signs what was witnessed.
    Role.EXAMINER: frozenset({Action.VIEW, Action.WITNESS}),
    # Alone at the booth the welder records what is at the booth, too; closing the log is for the witness.
    Role.WELDER: frozenset({Action.VIEW, Action.LOG_PASS, Action.EDIT_PIECE, Action.LOG_TRIAL}),
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
        article = "an" if user.role[0] in "aeiou" else "a"
        raise NotAllowedError(f"As {article} {user.role} you may not {action}.")
