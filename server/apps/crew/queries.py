"""How the crew stands on a day: certificates with what was signed about them, and who may weld what."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from api.errors import DamagedError
from api.kept import Kept
from django.db.models import Q, QuerySet

from apps.crew.evidence import days_of
from apps.crew.models import Certificate, CrewMember, Statement
from apps.procedures.models import Revision
from welding.codebook.book import by_book
from welding.documents.procedure import Procedure
from welding.documents.welder_certificate import WelderCertificate
from welding.language import tr
from welding.welders.asked import Asked
from welding.welders.catalogue import welder_edition
from welding.welders.certificate import counts_use, standing_on
from welding.welders.crew_matrix import crew_matrix
from welding.welders.renewal import against_test, renews_by_test
from welding.welders.validity import Validity
from welding.welders.who import ORDER, HeldTest, MayWeld, WhoMay, asked_by, may_weld

Uses = dict[tuple[str, str, str], list[date]]
CODES_KNOWN, MOST_KNOWN = 16, 50_000
"""Codes, and procedures of each, whose processes are kept in mind."""
MOST_TOLD = 100
"""So many people who are not qualified for something are told why not."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CertificateStanding:
    """A certificate on a day; without a document its bytes are not those that were signed."""

    row: Certificate
    statements: tuple[Statement, ...]
    document: WelderCertificate | None
    validity: Validity | None


@dataclass(frozen=True, slots=True, kw_only=True)
class MemberStanding:
    """A person on a day, the certificates in the order of their entry."""

    member: CrewMember
    certificates: tuple[CertificateStanding, ...]

    @property
    def sound(self) -> list[tuple[CertificateStanding, HeldTest]]:
        """Certificates that can be read, as tests."""
        return [
            (one, HeldTest(weld=one.document.tested, validity=one.validity))
            for one in self.certificates
            if one.document is not None and one.validity is not None
        ]

    @property
    def first_due(self) -> date | None:
        """Day by which the first of the valid certificates needs something."""
        days = [
            one.validity.due[1]
            for one in self.certificates
            if one.validity is not None and one.validity.valid and one.validity.due
        ]
        return min(days, default=None)


def scans_named(member: CrewMember) -> set[str]:
    """Digests of the scans of a person that certificates or statements name, whole or damaged."""
    signed = [
        *Certificate.objects.filter(member=member).values_list("body", flat=True),
        *Statement.objects.filter(certificate__member=member).values_list("body", flat=True),
    ]
    return {
        one for one in member.scans.values_list("sha256", flat=True) if any(one in body for body in signed)
    }


def at_work_on(members: QuerySet[CrewMember], on: date) -> QuerySet[CrewMember]:
    """People who had not left by a day."""
    return members.filter(Q(left_on__isnull=True) | Q(left_on__gt=on))


def standing_crew(members: QuerySet[CrewMember], on: date) -> list[MemberStanding]:
    """How people stand on a day, their certificates and statements read in two more queries."""
    rows = list(members)
    certificates: dict[int, list[Certificate]] = {one.pk: [] for one in rows}
    people = {one.pk: one for one in rows}
    for certificate in Certificate.objects.filter(member__in=list(people)).order_by("id"):
        certificate.member = people[certificate.member_id]
        certificates[certificate.member_id].append(certificate)
    said = _statements([one for held in certificates.values() for one in held])
    counted = [one for held in certificates.values() for one in held if counts_use(one.code_id)]
    uses = _uses({one.member.name for one in counted}, {one.code_id for one in counted})
    revoked = _revoked([one for held in certificates.values() for one in held], said)
    return [
        MemberStanding(
            member=member,
            certificates=tuple(
                _standing(one, said.get(one.pk, []), member.name, on, (uses, revoked))
                for one in certificates[member.pk]
            ),
        )
        for member in rows
    ]


def _revoked(rows: Sequence[Certificate], said: Mapping[int, Sequence[Statement]]) -> dict[str, date]:
    """Days on which certificates were revoked, by digest; from the first day where that cannot be read."""
    found: dict[str, date] = {}
    for row in rows:
        for one in said.get(row.pk, ()):
            if one.kind != "revocation":
                continue
            try:
                day = date.fromisoformat(one.document().on)
            except DamagedError:
                day = date.min
            found[row.content_hash] = min(day, found.get(row.content_hash, day))
    return found


def uses_of(row: Certificate, document: WelderCertificate) -> list[date]:
    """Days on which the processes of a certificate were used, as its code names them."""
    uses = _uses({row.member.name}, {row.code_id})
    return _days(row, document, row.member.name, uses)


def renewing(certificates: Sequence[CertificateStanding], lapsed: CertificateStanding) -> list[Certificate]:
    """Valid certificates of the same person whose test renews one that lapsed, as far as that can be told."""
    held, how = lapsed.document, lapsed.validity
    if held is None or how is None or how.standing != "lapsed" or not renews_by_test(lapsed.row.code_id):
        return []
    last = how.last_valid_day.isoformat() if how.last_valid_day else ""
    return [
        one.row
        for one in certificates
        if one.document is not None
        and one.validity is not None
        and one.validity.valid
        and one.document.welded_on > last
        and not against_test(held.tested, one.document.tested)
    ]


def _statements(certificates: Sequence[Certificate]) -> dict[int, list[Statement]]:
    by_id = {one.pk: one for one in certificates}
    found: dict[int, list[Statement]] = {}
    for statement in Statement.objects.filter(certificate__in=list(by_id)).order_by("id"):
        statement.certificate = by_id[statement.certificate_id]
        found.setdefault(statement.certificate_id, []).append(statement)
    return found


def _standing(
    row: Certificate,
    said: Sequence[Statement],
    name: str,
    on: date,
    known: tuple[Uses, Mapping[str, date]],
) -> CertificateStanding:
    try:
        document = row.document()
        statements = [one.document() for one in said]
    except DamagedError:
        return CertificateStanding(row=row, statements=tuple(said), document=None, validity=None)
    uses, revoked = known
    return CertificateStanding(
        row=row,
        statements=tuple(said),
        document=document,
        validity=standing_on(document, statements, on, _days(row, document, name, uses), revoked),
    )


def _days(row: Certificate, document: WelderCertificate, name: str, uses: Uses) -> list[date]:
    return [day for part in document.tested.parts for day in uses.get((row.code_id, name, part.process), ())]


def _uses(names: Collection[str], codes: Collection[str]) -> Uses:
    """Days on which people used processes, by code, name and process in the words of the code."""
    days = days_of(names)
    processes = _processes_of(codes, {one.revision_id for one in days})
    found: Uses = {}
    for day in days:
        for code in codes:
            for process in processes.get((code, day.revision_id), ()):
                found.setdefault((code, day.name, process), []).append(day.on)
    return found


def _processes_of(
    codes: Collection[str], revisions: Collection[int]
) -> dict[tuple[str, int], tuple[str, ...]]:
    """Processes of revisions by code and id; none of one whose bytes are not those of its hash."""
    found: dict[tuple[str, int], tuple[str, ...]] = {}
    wanted = Revision.objects.filter(pk__in=revisions).select_related("procedure").defer("document")
    for revision in wanted.iterator():
        try:
            for code in codes:
                found[code, revision.pk] = _kept_or_read(code, revision)
        except DamagedError:
            continue
    return found


def _kept_or_read(code: str, revision: Revision) -> tuple[str, ...]:
    if not revision.body:  # of before the bytes were kept
        return _processes(code, revision.contents())
    # Asked each time: what is kept by a hash says nothing of a row whose bytes have another one.
    revision.intact()
    known = _known_processes(code)
    return known.answer(revision.content_hash, lambda: _processes(code, revision.contents()))


@by_book(CODES_KNOWN)
def _known_processes(code: str) -> Kept[tuple[str, ...]]:
    """What procedures are in the words of a code, by the digest of their contents; filled when asked."""
    return Kept(MOST_KNOWN)


def _processes(code: str, procedure: Procedure) -> tuple[str, ...]:
    asked_of = welder_edition(code).asked_of
    asked = asked_of(procedure) if asked_of is not None else None
    return tuple({part.process for weld in asked.welds for part in weld.parts}) if asked else ()


@dataclass(frozen=True, slots=True, kw_only=True)
class MemberMay:
    """Whether a person may weld it, and by which certificates; ``told`` says whether why not is told."""

    member: CrewMember
    answer: WhoMay
    by: tuple[CertificateStanding, ...]
    told: bool = True

    @property
    def away(self) -> int:
        """How many variables of the nearest certificate block it."""
        return sum(one.verdict == "violates" for one in self.answer.findings)

    @property
    def until(self) -> date | None:
        """Last day on which all certificates hold by which the person may weld it, as they stand."""
        days = [
            one.validity.last_valid_day for one in self.by if one.validity and one.validity.last_valid_day
        ]
        return min(days, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class CrewMay:
    """Who of the crew may weld something on a day.

    Attributes:
        code: Code for persons that counts; ``None`` where none is known for the code of the procedure.
        asked: What is asked.
        people: Everybody, whoever may weld it first.
    """

    code: str | None
    asked: Asked | None
    people: tuple[MemberMay, ...]


def crew_may(procedure: Procedure, on: date, names: Sequence[str] | None = None) -> CrewMay:
    """Who may weld what a procedure asks.

    Args:
        procedure: The WPS, written for the joint where one is meant.
        on: The day of welding.
        names: Only these people, also those who left; ``None`` for everybody who is there on that day.
    """
    found = asked_by(procedure)
    if found is None:
        return CrewMay(code=None, asked=None, people=())
    code, asked = found
    members = CrewMember.objects.all()
    members = at_work_on(members, on) if names is None else members.filter(name__in=names)
    people = standing_crew(members.order_by("name"), on)
    rows = crew_matrix([[test for _, test in one.sound] for one in people], [asked])
    told: list[MemberMay] = []
    blocked = 0
    for one, (standing,) in zip(people, rows, strict=True):
        blocked += standing == "blocked"
        told.append(_may(one, asked, standing, tell=standing != "blocked" or blocked <= MOST_TOLD))
    told.sort(key=lambda one: (ORDER.index(one.answer.standing), not one.told, one.away, one.member.name))
    return CrewMay(code=code, asked=asked, people=tuple(told))


def _may(standing: MemberStanding, asked: Asked, said: MayWeld, *, tell: bool) -> MemberMay:
    if not tell:
        answer = WhoMay(standing=said, by=(), findings=(), reasons=())
        return MemberMay(member=standing.member, answer=answer, by=(), told=False)
    sound = standing.sound
    answer = may_weld([test for _, test in sound], asked)
    return MemberMay(member=standing.member, answer=answer, by=tuple(sound[at][0] for at in answer.by))


NamedStanding = MayWeld | Literal["unknown"]


@dataclass(frozen=True, slots=True, kw_only=True)
class NamedWelder:
    """A name in a log, and how whoever bears it stands.

    Attributes:
        name: The name as it was typed.
        standing: That of ``WhoMay``; ``unknown`` where the crew list has nobody of this name or no code for
            persons is known for the procedure.
        reasons: Sentences.
    """

    name: str
    standing: NamedStanding
    reasons: tuple[str, ...]


def named_welders(procedure: Procedure, on: date, names: Sequence[str]) -> list[NamedWelder]:
    """How the people that a log names stand to what they weld."""
    wanted = list(dict.fromkeys(one.strip() for one in names if one.strip()))
    found = crew_may(procedure, on, wanted)
    if found.code is None:
        said = tr("No code for the qualification of welders is known here for this procedure.")
        return [NamedWelder(name=one, standing="unknown", reasons=(said,)) for one in wanted]
    by_name = {one.member.name: one for one in found.people}
    return [_named(one, by_name.get(one), on) for one in wanted]


def _named(name: str, found: MemberMay | None, on: date) -> NamedWelder:
    if found is None:
        said = tr("{name} is not in the crew list: no certificate is known.", name=name)
        return NamedWelder(name=name, standing="unknown", reasons=(said,))
    answer, left = found.answer, found.member.left_on
    if left is not None and left <= on:
        said = tr("{name} left on {day}.", name=name, day=left.isoformat())
        return NamedWelder(name=name, standing="blocked", reasons=(said, *reasons_of(answer)))
    return NamedWelder(name=name, standing=answer.standing, reasons=reasons_of(answer))


def reasons_of(answer: WhoMay) -> tuple[str, ...]:
    """Why somebody may not weld it, or what is open, in sentences."""
    return tuple(dict.fromkeys((*(one.message for one in answer.findings), *answer.reasons)))
