"""What a certificate of a person says, line by line: for paper and for a workbook."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from apps.crew.models import Certificate, CrewMember
from apps.crew.queries import CertificateStanding, standing_crew
from welding.documents.welder_certificate import CertificateStatement, WelderCertificate
from welding.documents.welder_weld import WelderWeld
from welding.language import tr, tr_noop
from welding.qualification.items import RangeItem
from welding.quantities.writing import System
from welding.welders.catalogue import welder_edition
from welding.welders.comparing import limit_of
from welding.welders.covers import welder_range
from welding.welders.validity import Validity
from welding.welders.variables import VARIABLES

_KINDS = {
    "confirmation": tr_noop("Confirmed"),
    "prolongation": tr_noop("Prolonged"),
    "renewal": tr_noop("Renewed by a test"),
    "revocation": tr_noop("Revoked"),
}
_SIGNERS = {
    "responsible": tr_noop("person responsible for welding"),
    "examiner": tr_noop("examiner"),
    "examining-body": tr_noop("examining body"),
    "welder": tr_noop("welder"),
    "other": tr_noop("another person"),
}
_DUE = {
    "confirmation": tr_noop("confirmation"),
    "prolongation": tr_noop("prolongation or new test"),
    "use": tr_noop("use of the process"),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class RangeLine:
    """A variable of the range of qualification in words."""

    title: str
    scope: str
    limit: str
    reason: str
    clause: str
    confirmed: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class SignedLine:
    """What was signed about a certificate, in words."""

    kind: str
    on: str
    by: str
    signer: str
    rests_on: str
    from_paper: bool


def standing_of_certificate(row: Certificate, on: date) -> CertificateStanding:
    """A certificate as it stands on a day, with what was signed about it."""
    (member,) = standing_crew(CrewMember.objects.filter(pk=row.member_id), on)
    return next(one for one in member.certificates if one.row.pk == row.pk)


def kind_words(tested: WelderWeld) -> str:
    """What such a certificate is called, in the words of its code."""
    if welder_edition(tested.code).usage == "aws":
        words = {
            "operator": tr("Welding operator qualification test record"),
            "tack-welder": tr("Tack welder qualification test record"),
        }
        return words.get(tested.person, tr("Welder qualification test record"))
    if tested.person == "operator" or tested.operation is not None:
        return tr("Welding operator's qualification test certificate")
    return tr("Welder's qualification test certificate")


def facts(document: WelderCertificate) -> list[tuple[str, str]]:
    """What stands on it beside its range; what is not stated is left out."""
    examiner = ", ".join(one for one in (document.examiner, document.body) if one)
    found = [
        (tr("Designation"), document.designation),
        (tr("Name"), document.person),
        (tr("Mark"), document.mark),
        (tr("Test piece welded on"), document.welded_on),
        (tr("WPS"), document.wps),
        (tr("Coupon"), document.coupon),
        (tr("Tests accepted"), ", ".join(document.tests)),
        (tr("Examiner"), examiner),
        (tr("Place"), document.place),
        (tr("Further training before the test"), document.training),
        (tr("Way of revalidation"), f"{document.way})" if document.way else ""),
        (tr("Not stated on the paper"), ", ".join(document.not_stated)),
    ]
    return [(name, said) for name, said in found if said]


def system_of(tested: WelderWeld) -> System:
    """Units of the printed column that counts."""
    return "us" if tested.units == "us" else "si"


def range_lines(tested: WelderWeld) -> list[RangeLine]:
    """The range of qualification, variable by variable."""
    system = system_of(tested)
    return [_line(one, system) for one in welder_range(tested).items]


def _line(item: RangeItem, system: System) -> RangeLine:
    welds = {"groove": tr("groove welds"), "fillet": tr("fillet welds")}
    scope = [item.process or "", welds.get(item.weld or "", "")]
    return RangeLine(
        title=VARIABLES[item.variable].title,
        scope=", ".join(one for one in scope if one),
        limit=limit_of(item, system),
        reason=" ".join(one for one in (item.reason, item.also) if one),
        clause=item.rule.clause,
        confirmed=item.rule.provenance == "confirmed",
    )


def signed_lines(found: CertificateStanding) -> list[SignedLine]:
    """Confirmations, prolongations, renewals and revocations in the order of their days."""
    documents = sorted((one.document() for one in found.statements), key=lambda one: one.on)
    return [_signed(one) for one in documents]


def _signed(one: CertificateStatement) -> SignedLine:
    return SignedLine(
        kind=tr(_KINDS[one.kind]),
        on=one.on,
        by=one.signed_by,
        signer=tr(_SIGNERS[one.signer]),
        rests_on="; ".join(filter(None, [*(work.what for work in one.works), _renewed(one), one.reason])),
        from_paper=one.from_paper,
    )


def _renewed(one: CertificateStatement) -> str:
    by = one.renewed_by
    return f"{by.certificate}, {by.designation}, {by.welded_on}" if by else ""


def standing_words(how: Validity | None) -> str:
    """How it stands, in a sentence."""
    if how is None:
        return tr("What is kept is not what was signed: it does not count.")
    last = how.last_valid_day.isoformat() if how.last_valid_day else ""
    if how.standing == "valid" and how.due is not None:
        return tr("Valid until {day}: {what} is due.", day=how.due[1].isoformat(), what=tr(_DUE[how.due[0]]))
    if how.standing == "valid":
        return tr("Valid; nothing is due.")
    if how.standing == "lapsed":
        return tr("Lapsed after {day}.", day=last) if last else tr("Lapsed.")
    if how.standing == "not_yet":
        return tr("Not yet valid.")
    return tr("Whether it is valid is not known.")


def sheets_of(
    row: Certificate, document: WelderCertificate, found: CertificateStanding
) -> Sequence[tuple[str, list[str], list[list[str]]]]:
    """Sheets of its workbook: title, headings, rows."""
    signed = [tr("Signed by"), f"{row.signed_name}, {row.at:%Y-%m-%d}"]
    return (
        (
            tr("Certificate"),
            [tr("What"), tr("Stated")],
            [
                [tr("Number"), document.number],
                *([name, said] for name, said in facts(document)),
                signed,
                [tr("Standing"), " ".join([standing_words(found.validity), *_reasons(found.validity)])],
                ["SHA-256", row.content_hash],
            ],
        ),
        (
            tr("Range"),
            [tr("Variable"), tr("For"), tr("Qualified"), tr("Why"), tr("Clause"), tr("Source")],
            [
                [one.title, one.scope, one.limit, one.reason, one.clause, _source(one)]
                for one in range_lines(document.tested)
            ],
        ),
        (
            tr("Signatures"),
            [tr("What"), tr("Day"), tr("By"), tr("Who signs"), tr("Rests on")],
            [[one.kind, one.on, one.by, one.signer, one.rests_on] for one in signed_lines(found)],
        ),
    )


def _source(line: RangeLine) -> str:
    return tr("confirmed") if line.confirmed else tr("from memory, not confirmed")


def _reasons(how: Validity | None) -> tuple[str, ...]:
    return how.reasons if how is not None else ()
