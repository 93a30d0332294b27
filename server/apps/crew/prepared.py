"""What a signature can rest on: the welds that the logs have of a person, each held against the range."""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass
from datetime import date

from apps.crew.evidence import Work, works_of
from welding.documents.welder_certificate import WelderCertificate, WorkDone
from welding.language import tr
from welding.welders.certificate import WithinRange, evidence_from, within_range

MOST_WORKS = 200
"""Welds that a statement lists."""


@dataclass(frozen=True, slots=True, kw_only=True)
class JudgedWork:
    """A weld, and whether it was within the range of a certificate."""

    work: Work
    found: WithinRange

    @property
    def rejected(self) -> bool:
        """Whether a test rejected it."""
        return any(not one.accepted for one in self.work.tested)

    def done(self, *, meets: bool) -> WorkDone:
        """As a statement lists it.

        Args:
            meets: Whether the signer states that it meets the levels of the code for persons.
        """
        tested = next((one for one in self.work.tested if one.method in ("RT", "UT", "destructive")), None)
        return WorkDone(
            on=self.work.on.isoformat(),
            what=self.work.what,
            within=self.found.within,
            method=tested.method if tested else None,
            accepted=meets if tested else None,
            report=tested.report if tested else "",
        )


def work_for(name: str, certificate: WelderCertificate, on: date) -> list[JudgedWork]:
    """Welds that a signature on a day may rest on, the latest first.

    Args:
        name: Whom the logs name.
        certificate: The certificate.
        on: Day of the signature.
    """
    known: dict[Hashable, WithinRange] = {}
    judged = []
    for work in works_of(name, evidence_from(certificate, on), on):
        if work.coupon and work.coupon == certificate.coupon:
            continue  # the test piece itself is no work since
        found = known.get(work.same)
        if found is None:
            found = known[work.same] = _judged(certificate, work)
        judged.append(JudgedWork(work=work, found=found))
    return judged


def _judged(certificate: WelderCertificate, work: Work) -> WithinRange:
    if work.procedure is None:
        said = tr("The weld list has no such joint any more: its position and sizes are not known.")
        return WithinRange(within=None, processes=(), against=(said,))
    return within_range(certificate.tested, work.procedure)
