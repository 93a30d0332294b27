"""Welds that show that a person has worked: the logs say them, each log by itself."""

from __future__ import annotations

from collections.abc import Callable, Collection, Hashable, Iterable
from dataclasses import dataclass
from datetime import date

from welding.documents.procedure import Procedure


@dataclass(frozen=True, slots=True, kw_only=True)
class Tested:
    """How a weld was tested.

    Attributes:
        method: ``VT``, ``PT``, ``MT``, ``RT``, ``UT``, ``destructive``.
        accepted: Whether it was accepted.
        report: Number of the report.
    """

    method: str
    accepted: bool
    report: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Work:
    """A weld that somebody made.

    Attributes:
        ref: What it is found again by, such as ``weld-17``.
        name: Whom the log names.
        on: Day of welding.
        what: What was welded, to which WPS.
        procedure: The WPS, written for the joint that was welded; ``None`` where the joint is not known.
        same: Welds with the same one were made to the same procedure for the same joint.
        tested: How it was tested.
        coupon: Number of the coupon, where it is one.
    """

    ref: str
    name: str
    on: date
    what: str
    procedure: Procedure | None
    same: Hashable
    tested: tuple[Tested, ...] = ()
    coupon: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class DayAtWork:
    """A day on which somebody welded to a procedure.

    Attributes:
        name: Whom the log names.
        on: The day.
        revision_id: The frozen revision that was welded to.
    """

    name: str
    on: date
    revision_id: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Log:
    """A log that names who welded.

    Attributes:
        works: Welds of a person between two days, both included.
        days: Days on which these people welded.
    """

    works: Callable[[str, date, date], Iterable[Work]]
    days: Callable[[Collection[str]], Iterable[DayAtWork]]


_LOGS: dict[str, Log] = {}


def register(name: str, log: Log) -> None:
    """Tell of a log; the app that keeps it does so once it is ready."""
    _LOGS[name] = log


def works_of(name: str, since: date, until: date) -> list[Work]:
    """Welds of a person between two days, the latest first."""
    found = [one for log in _LOGS.values() for one in log.works(name, since, until)]
    return sorted(found, key=lambda one: (one.on, one.ref), reverse=True)


def days_of(names: Collection[str]) -> list[DayAtWork]:
    """Days on which these people welded."""
    return [one for log in _LOGS.values() for one in log.days(names)] if names else []
