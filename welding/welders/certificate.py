"""A certificate as it was signed: what it must say, how it stands on a day, and what work speaks for it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from welding.documents.procedure import Procedure
from welding.documents.welder_certificate import CertificateStatement, RenewingTest, WelderCertificate
from welding.documents.welder_weld import WelderWeld
from welding.errors import Problem, UnreadableError
from welding.language import tr
from welding.welders.catalogue import read_designation, welder_edition
from welding.welders.covers import welder_covers
from welding.welders.renewal import Renewal, against_test
from welding.welders.validity import (
    MAY_CONFIRM,
    Confirmation,
    Employment,
    ExaminedWeld,
    Held,
    Prolongation,
    Validity,
    add_months,
    validity,
)

WAYS = ("a", "b", "c")


def ways_of(code: str) -> tuple[str, ...]:
    """Ways of revalidation that a code has; none where only the use of the process counts.

    Raises:
        UnknownEntryError: The code is not known here.
    """
    return tuple(row["row"] for row in welder_edition(code).table("validity").rows if row["row"] in WAYS)


def counts_use(code: str) -> bool:
    """Whether a code counts the days on which the process was used, and no signatures."""
    return not ways_of(code)


def problems_of(certificate: WelderCertificate, today: date) -> tuple[Problem, ...]:
    """What is wrong with a certificate before it is signed, each with the field that it is about.

    Args:
        certificate: The certificate.
        today: Nothing was welded after it.
    """
    found: list[Problem] = []
    try:
        read = read_designation(certificate.designation)
    except UnreadableError as error:
        found.append(Problem("designation", str(error), certificate.designation))
    else:
        if read != certificate.tested:
            said = tr("The designation says something else than the test piece.")
            found.append(Problem("designation", said, certificate.designation))
    welded = date.fromisoformat(certificate.welded_on)
    if welded > today:
        said = tr("The test piece cannot have been welded on a day that is yet to come.")
        found.append(Problem("welded_on", said, certificate.welded_on))
    ways = ways_of(certificate.tested.code)
    if ways and certificate.way is None:
        said = tr("State the way of revalidation that stands on it: {ways}.", ways=", ".join(ways))
        found.append(Problem("way", said, ""))
    elif certificate.way is not None and certificate.way not in ways:
        short = welder_edition(certificate.tested.code).short
        said = tr("{code} has no way {option}) of revalidation.", code=short, option=certificate.way)
        found.append(Problem("way", said, certificate.way))
    if not certificate.examiner and not (certificate.from_paper and certificate.not_stated):
        found.append(Problem("examiner", tr("Say who examined it, or that the paper does not state it."), ""))
    return tuple(found)


def statement_problems(
    certificate: WelderCertificate,
    statements: Sequence[CertificateStatement],
    new: CertificateStatement,
    uses: Sequence[date] = (),
) -> tuple[Problem, ...]:
    """What stands against signing a statement: one that would not count is not signed.

    Args:
        certificate: The certificate.
        statements: What was signed about it before.
        new: What is to be signed.
        uses: Days on which its process was used, where its code counts those.
    """
    code, on = certificate.tested.code, date.fromisoformat(new.on)
    welded = date.fromisoformat(certificate.welded_on)
    if on < welded:
        said = tr("This day is before the test piece was welded, on {day}.", day=certificate.welded_on)
        return (Problem("on", said, new.on),)
    if new.kind == "revocation":
        if not new.reason.strip():
            return (Problem("reason", tr("State why it is revoked."), ""),)
        if any(one.kind == "revocation" for one in statements):
            return (Problem("reason", tr("It is revoked already."), ""),)
        return ()
    if new.kind == "renewal":
        return _renewal_problems(certificate, statements, new, uses)
    if counts_use(code):
        said = tr("{code} counts the use of the process: nothing is signed.", code=welder_edition(code).short)
        return (Problem("works", said, ""),)
    before = standing_on(certificate, statements, on)
    if not before.valid:
        return tuple(Problem("on", why, new.on) for why in before.reasons)
    if new.kind == "confirmation" and not any(one.within for one in new.works) and not new.from_paper:
        said = tr(
            "No weld that is listed was within the range of qualification: there is nothing to confirm."
        )
        return (Problem("works", said, ""),)
    after = standing_on(certificate, (*statements, new), on)
    return tuple(Problem("works", why, "") for why in after.reasons if why not in before.reasons)


def _renewal_problems(
    certificate: WelderCertificate,
    statements: Sequence[CertificateStatement],
    new: CertificateStatement,
    uses: Sequence[date],
) -> tuple[Problem, ...]:
    on, by = date.fromisoformat(new.on), new.renewed_by
    if by is None:
        return (Problem("renewed_by", tr("Choose the test that renews it."), ""),)
    before = standing_on(certificate, statements, on, uses)
    against: tuple[str, ...] = against_test(certificate.tested, by.tested)
    if any(one.kind == "revocation" for one in statements):
        against = (tr("It is revoked: no test renews it."),)
    elif before.standing != "lapsed" or before.last_valid_day is None:
        against = (tr("It has not lapsed: there is nothing to renew."),)
    elif date.fromisoformat(by.welded_on) <= before.last_valid_day:
        against = (tr("The test piece was welded before it lapsed."),)
    elif not against:
        after = standing_on(certificate, (*statements, new), on, uses)
        against = () if after.valid else after.reasons
    return tuple(Problem("renewed_by", why, by.certificate) for why in against)


def standing_on(
    certificate: WelderCertificate,
    statements: Sequence[CertificateStatement],
    on: date,
    uses: Sequence[date] = (),
    revoked: Mapping[str, date] | None = None,
) -> Validity:
    """How a certificate stands on a day.

    Args:
        certificate: The certificate.
        statements: What was signed about it, in any order.
        on: The day.
        uses: Days on which its process was used, where its code counts those.
        revoked: Other certificates of the person that were revoked, by digest, with the day.
    """
    return validity(held_of(certificate, statements, uses, revoked), on)


def held_of(
    certificate: WelderCertificate,
    statements: Sequence[CertificateStatement],
    uses: Sequence[date] = (),
    revoked: Mapping[str, date] | None = None,
) -> Held:
    """The facts of a certificate that its validity rests on."""
    tested, under = certificate.tested, certificate.employed_under
    own = [date.fromisoformat(one.on) for one in statements if one.kind == "revocation"]
    return Held(
        package=welder_edition(tested.code).package,
        processes=tuple(part.process for part in tested.parts),
        welded_on=date.fromisoformat(certificate.welded_on),
        option=certificate.way or "a",
        confirmations=tuple(_confirmation(one) for one in statements if one.kind == "confirmation"),
        prolongations=tuple(_prolongation(one) for one in statements if one.kind == "prolongation"),
        employment=Employment(same_employer=under.same_employer, system=under.system, records=under.records)
        if under is not None
        else Employment(),
        revoked_on=min(own, default=None),
        uses=tuple(uses),
        tacks=tested.person == "tack-welder",
        tested=tested,
        renewals=tuple(
            _renewal(one, one.renewed_by, revoked or {})
            for one in statements
            if one.kind == "renewal" and one.renewed_by is not None
        ),
    )


def _confirmation(one: CertificateStatement) -> Confirmation:
    # On paper the signature itself states that the work was within the range.
    within = any(work.within for work in one.works) or (one.from_paper and not one.works)
    return Confirmation(on=date.fromisoformat(one.on), signer=one.signer, within_range=within)


def _prolongation(one: CertificateStatement) -> Prolongation:
    welds = tuple(
        ExaminedWeld(welded_on=date.fromisoformat(work.on), method=work.method, accepted=bool(work.accepted))
        for work in one.works
        if work.method is not None and work.within
    )
    return Prolongation(
        on=date.fromisoformat(one.on), signer=one.signer, welds=welds, on_paper=one.from_paper
    )


def _renewal(one: CertificateStatement, by: RenewingTest, revoked: Mapping[str, date]) -> Renewal:
    return Renewal(
        on=date.fromisoformat(one.on),
        certificate=by.certificate,
        tested=by.tested,
        welded_on=date.fromisoformat(by.welded_on),
        responsible=one.signer in MAY_CONFIRM,
        withdrawn_on=revoked.get(by.certificate_sha256),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class WithinRange:
    """Whether work was within the range of a test.

    Attributes:
        within: Whether it was; ``None`` where a fact is missing.
        processes: Processes that were used, by the names of the code.
        against: What was outside or is not known.
    """

    within: bool | None
    processes: tuple[str, ...]
    against: tuple[str, ...]


def within_range(tested: WelderWeld, welded: Procedure) -> WithinRange:
    """Whether a weld made to a procedure was within the range of a test, all that it asks for.

    Args:
        tested: The test piece.
        welded: The procedure, written for the joint that was welded.
    """
    edition = welder_edition(tested.code)
    if edition.asked_of is None:
        return WithinRange(
            within=None, processes=(), against=(tr("Not known here for {code}.", code=edition.short),)
        )
    asked = edition.asked_of(welded)
    processes = tuple(dict.fromkeys(part.process for weld in asked.welds for part in weld.parts))
    if not asked.welds:
        return WithinRange(within=None, processes=processes, against=asked.open)
    found = [welder_covers([tested], weld) for weld in asked.welds]
    against = tuple(
        dict.fromkeys(
            one.message for each in found for one in each.findings if one.verdict in ("violates", "undecided")
        )
    )
    if any(one.verdict == "blocked" for one in found):
        return WithinRange(within=False, processes=processes, against=against)
    if asked.open or any(one.verdict == "open" for one in found):
        return WithinRange(within=None, processes=processes, against=(*against, *asked.open))
    return WithinRange(within=True, processes=processes, against=())


def evidence_from(certificate: WelderCertificate, on: date) -> date:
    """First day of the work that a signature on a day may rest on: as far as the code looks back."""
    rows = welder_edition(certificate.tested.code).table("validity").rows
    months = max((row.get("months") or 0 for row in rows), default=0)
    return max(add_months(on, -months), date.fromisoformat(certificate.welded_on))
