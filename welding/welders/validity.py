"""Until when a person's qualification holds: by what was signed, and by the days on which work was done."""

from __future__ import annotations

import calendar
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from welding.citation import Citation
from welding.codebook.table import Table, load_table
from welding.documents.welder_weld import WelderWeld
from welding.errors import WeldingError
from welding.language import tr
from welding.welders.renewal import Renewal, against_renewal, renewed_words

Option = Literal["a", "b", "c"]
Signer = Literal["responsible", "examiner", "examining-body", "welder", "other"]
MAY_CONFIRM: tuple[Signer, ...] = ("responsible", "examiner", "examining-body")
MAY_PROLONG: tuple[Signer, ...] = ("examiner", "examining-body")
Standing = Literal["valid", "lapsed", "unknown", "not_yet"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Confirmation:
    """A signature that somebody has worked within the range.

    Attributes:
        on: Day of the signature.
        signer: What the one who signed is.
        processes: Processes that it speaks of; empty for those of the certificate.
        within_range: Whether the work that it rests on was within the range of qualification.
    """

    on: date
    signer: Signer = "responsible"
    processes: tuple[str, ...] = ()
    within_range: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class ExaminedWeld:
    """A production weld that was tested, as evidence.

    Attributes:
        welded_on: Day of welding.
        method: ``RT``, ``UT``, ``destructive``; any other word is no such test.
        accepted: Whether it met the levels of the welder code, not those of the product.
    """

    welded_on: date
    method: str
    accepted: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Prolongation:
    """An examiner's signature that the certificate holds for another period.

    Attributes:
        on: Day of the signature.
        signer: What the one who signed is.
        welds: The tested welds that it rests on.
        on_paper: Whether the signature stands on paper: the welds that it rested on are not listed here.
    """

    on: date
    signer: Signer = "examiner"
    welds: tuple[ExaminedWeld, ...] = ()
    on_paper: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Employment:
    """What the third way of revalidation rests on; ``None`` where it is not stated.

    Attributes:
        same_employer: Whether the person works for the manufacturer of the test.
        system: The quality system that was verified there, such as ``ISO 3834-2``.
        records: Whether records of good welds within the range are kept.
    """

    same_employer: bool | None = None
    system: str | None = None
    records: bool | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Held:
    """A certificate as its validity is asked.

    Attributes:
        package: Folder of its edition, whose table ``validity`` holds the periods.
        processes: Its processes.
        welded_on: Day on which the piece was welded that passed.
        option: The way of revalidation that stands on it.
        confirmations: What was signed, in any order.
        prolongations: Likewise.
        employment: For the third way.
        revoked_on: Day on which it was revoked for reasoned doubt.
        uses: Days on which the process was used, where the code counts those and no signatures.
        tacks: Whether it is a tack welder's, which no rest of the process ends.
        tested: Its test piece, for the renewals.
        renewals: Later tests by which it was renewed after the process had rested.
    """

    package: str
    processes: tuple[str, ...]
    welded_on: date
    option: Option
    confirmations: tuple[Confirmation, ...] = ()
    prolongations: tuple[Prolongation, ...] = ()
    employment: Employment = Employment()
    revoked_on: date | None = None
    uses: tuple[date, ...] = ()
    tacks: bool = False
    tested: WelderWeld | None = None
    renewals: tuple[Renewal, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Validity:
    """How a certificate stands on a day.

    Attributes:
        standing: valid, lapsed, unknown (a fact is missing), or not yet.
        last_valid_day: Last day on which it holds, as far as it is signed; ``None`` where nothing limits it
            or where that is not known.
        due: What is next, and by when: ``confirmation`` or ``prolongation`` signed, ``use`` of the process.
        reasons: Sentences: why it lapsed, what was signed and does not count.
        citation: Clause that decides.
    """

    standing: Standing
    last_valid_day: date | None
    due: tuple[str, date] | None
    reasons: tuple[str, ...]
    citation: Citation

    @property
    def valid(self) -> bool:
        """Whether it holds on that day."""
        return self.standing == "valid"


def add_months(day: date, months: int) -> date:
    """The same day so many months on; the last day of that month where it is shorter.

    Example:
        >>> add_months(date(2023, 8, 31), 6)
        datetime.date(2024, 2, 29)
    """
    whole = day.year * 12 + day.month - 1 + months
    year, month = divmod(whole, 12)
    return date(year, month + 1, min(day.day, calendar.monthrange(year, month + 1)[1]))


def validity(held: Held, on: date) -> Validity:
    """How a certificate stands on a day, by what had been signed.

    Args:
        held: The certificate; what was signed after the day is left out.
        on: The day.

    Raises:
        WeldingError: Its code has no such way of revalidation.
    """
    table = load_table(held.package, "validity")
    if any(row["row"] == "continuity" for row in table.rows):
        period = _End(kind="use", last=None, reasons=(), citation=table.citation_of(table.row("continuity")))
        confirmed = _used_until(held, on, table)
    else:
        confirmed, period = _confirmed_until(held, on, table), _period(held, on, table)
    ends = [one for one in (confirmed, period) if one.last is not None]
    first = min(ends, key=lambda one: one.last or date.max, default=period)
    reasons = tuple(dict.fromkeys((*confirmed.reasons, *period.reasons)))
    if held.revoked_on is not None and held.revoked_on <= on:
        said = tr("Revoked on {day}: there was reason to doubt it.", day=held.revoked_on.isoformat())
        return Validity(
            standing="lapsed",
            last_valid_day=min(held.revoked_on - timedelta(days=1), first.last or date.max),
            due=None,
            reasons=(said, *reasons),
            citation=table.citation_of(table.row("doubt")),
        )
    if on < held.welded_on:
        said = tr("It begins on {day}, when the piece was welded.", day=held.welded_on.isoformat())
        return Validity(
            standing="not_yet", last_valid_day=None, due=None, reasons=(said,), citation=first.citation
        )
    if period.standing != "valid":
        return Validity(
            standing=period.standing,
            last_valid_day=period.last,
            due=None,
            reasons=reasons,
            citation=period.citation,
        )
    if first.last is not None and on > first.last:
        return Validity(
            standing="lapsed",
            last_valid_day=first.last,
            due=None,
            reasons=(_lapsed(first), *reasons),
            citation=first.citation,
        )
    due = (first.kind, first.last) if first.last is not None else None
    return Validity(
        standing="valid", last_valid_day=first.last, due=due, reasons=reasons, citation=first.citation
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class _End:
    kind: Literal["confirmation", "prolongation", "use"]
    last: date | None
    reasons: tuple[str, ...]
    citation: Citation
    standing: Standing = "valid"


def _lapsed(end: _End) -> str:
    day = end.last.isoformat() if end.last else ""
    if end.kind == "confirmation":
        return tr("It ran out on {day}: nobody confirmed it in time. A new test is needed.", day=day)
    if end.kind == "use":
        return tr("It lapsed after {day}: the process was not used for more than six months.", day=day)
    return tr("It ran out on {day}: the period ended. A new test is needed.", day=day)


def _used_until(held: Held, on: date, table: Table) -> _End:
    row = table.row("tack" if held.tacks else "continuity")
    months = row.get("months")
    if not months:
        return _End(kind="use", last=None, reasons=(), citation=table.citation_of(row))
    last = engaged_until(held.welded_on, held.uses, on, months)[0]
    said: list[str] = []
    for one in sorted(held.renewals, key=lambda renewal: (renewal.on, renewal.welded_on)):
        if one.on > on or held.tested is None:
            continue
        against = against_renewal(one, held.tested, on)
        if against:
            said.extend(against)
            continue
        said.append(renewed_words(one, table))
        # Work before the test of the renewal does not count on from it.
        since = [day for day in held.uses if day >= one.welded_on]
        last = max(last, engaged_until(one.welded_on, since, on, months)[0])
    return _End(kind="use", last=last, reasons=tuple(said), citation=table.citation_of(row))


def _confirmed_until(held: Held, on: date, table: Table) -> _End:
    row = table.row("confirmation")
    due = add_months(held.welded_on, row["months"])
    reasons = []
    for one in sorted(held.confirmations, key=lambda c: c.on):
        if one.on > on:
            break
        against = _against_confirmation(one, held, due)
        if against:
            reasons.append(against)
            if one.on > due:
                break
            continue
        due = add_months(one.on, row["months"])
    return _End(kind="confirmation", last=due, reasons=tuple(reasons), citation=table.citation_of(row))


def _against_confirmation(one: Confirmation, held: Held, due: date) -> str:
    day = one.on.isoformat()
    if one.on < held.welded_on:
        return tr("The confirmation of {day} is older than the test and does not count.", day=day)
    if one.signer not in MAY_CONFIRM:
        return tr(
            "The confirmation of {day} does not count: the person responsible for welding, the examiner or "
            "the examining body signs it.",
            day=day,
        )
    if one.processes and not set(held.processes) <= set(one.processes):
        return tr(
            "The confirmation of {day} speaks of {processes}, not of {own}.",
            day=day,
            processes=", ".join(one.processes),
            own=", ".join(held.processes),
        )
    if not one.within_range:
        return tr("The confirmation of {day} rests on work outside the range and does not count.", day=day)
    if one.on > due:
        return tr(
            "The confirmation of {day} came after {due}, when it had run out, and does not bring it back.",
            day=day,
            due=due.isoformat(),
        )
    return ""


def _period(held: Held, on: date, table: Table) -> _End:
    row = next((one for one in table.rows if one["row"] == held.option), None)
    if row is None:
        raise WeldingError(
            tr(
                "{code} has no way {option}) of revalidation.",
                code=table.citation.document,
                option=held.option,
            )
        )
    citation = table.citation_of(row)
    if held.option == "c":
        return _while_employed(held.employment, tuple(row["systems"]), citation)
    end = add_months(held.welded_on, 12 * row["years"])
    if held.option == "a":
        reasons = tuple(
            tr(
                "The prolongation of {day} does not count: this certificate is revalidated by a new test.",
                day=one.on.isoformat(),
            )
            for one in held.prolongations
            if one.on <= on
        )
        return _End(kind="prolongation", last=end, reasons=reasons, citation=citation)
    said: list[str] = []
    for prolongation in sorted(held.prolongations, key=lambda p: p.on):
        if prolongation.on > on:
            break
        against = _against_prolongation(prolongation, end, table)
        if against:
            said.append(against)
            continue
        end = add_months(end, 12 * row["years"])
    return _End(kind="prolongation", last=end, reasons=tuple(said), citation=citation)


def _against_prolongation(one: Prolongation, end: date, table: Table) -> str:
    row = table.row("b")
    day = one.on.isoformat()
    since = add_months(end, -row["months"])
    if one.signer not in MAY_PROLONG:
        return tr("The prolongation of {day} does not count: the examiner signs it.", day=day)
    if one.on > end:
        return tr(
            "The prolongation of {day} came after {end}, when the period had ended.",
            day=day,
            end=end.isoformat(),
        )
    if one.on_paper and not one.welds and one.on >= since:
        return ""
    good = [
        w for w in one.welds if w.accepted and w.method in row["methods"] and since <= w.welded_on <= one.on
    ]
    if len(good) >= row["welds"]:
        return ""
    return tr(
        "The prolongation of {day} does not count: it needs {count} welds from {since} on, tested by "
        "{methods} and accepted to the levels of the welder code; it has {good}.",
        day=day,
        count=row["welds"],
        since=since.isoformat(),
        methods=", ".join(row["methods"]),
        good=len(good),
    )


def _while_employed(employment: Employment, systems: tuple[str, ...], citation: Citation) -> _End:
    against = []
    if employment.same_employer is False:
        against.append(tr("The person no longer works for the manufacturer of the test."))
    if employment.system is not None and employment.system not in systems:
        against.append(
            tr(
                "{system} does not count: {known} does.",
                system=employment.system,
                known=tr(" or ").join(systems),
            )
        )
    if employment.records is False:
        against.append(tr("Records of good welds within the range are not kept."))
    open_ = [
        said
        for fact, said in (
            (employment.same_employer, tr("Whether the employer is the same is not stated.")),
            (employment.system, tr("The quality system is not stated.")),
            (employment.records, tr("Whether records of good welds are kept is not stated.")),
        )
        if fact is None
    ]
    standing: Standing = "lapsed" if against else "unknown" if open_ else "valid"
    return _End(
        kind="prolongation",
        last=None,
        reasons=tuple(against or open_),
        citation=citation,
        standing=standing,
    )


def engaged_until(start: date, uses: Sequence[date], on: date, months: int) -> tuple[date, bool]:
    """Continuity by use: the last day on which a qualification holds, and whether it does on a day.

    Args:
        start: Day of the test.
        uses: Days on which the process was used, in any order.
        on: The day that is asked.
        months: How long it may rest.
    """
    last = add_months(start, months)
    for day in sorted(uses):
        if day < start:
            continue
        if day > on or day > last:
            break
        last = add_months(day, months)
    return last, start <= on <= last
