"""What is signed about the qualification of a person: certificates, and what keeps or ends them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.welder_weld import WelderWeld

RevalidationWay = Literal["a", "b", "c"]
SignerIs = Literal["responsible", "examiner", "examining-body", "welder", "other"]
StatementKind = Literal["confirmation", "prolongation", "renewal", "revocation"]
Digest = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


@dataclass(frozen=True, slots=True, kw_only=True)
class EmployedUnder:
    """What revalidation without an end rests on; ``None`` where it is not stated.

    Attributes:
        same_employer: Whether the person works for the manufacturer of the test.
        system: The quality system that was verified there, such as ``ISO 3834-2``.
        records: Whether records of good welds within the range are kept.
    """

    same_employer: bool | None = None
    system: f.Name | None = None
    records: bool | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class CertificateScan:
    """A scan of a certificate on paper.

    Attributes:
        name: Name of the file.
        sha256: Digest of its bytes.
    """

    name: f.Line
    sha256: Digest


@dataclass(frozen=True, slots=True, kw_only=True)
class WelderCertificate:
    """A certificate of the qualification of a welder, a welding operator or a tack welder.

    Attributes:
        number: Its number.
        person: Name of whom it qualifies.
        mark: Mark that the person puts on welds.
        designation: As it is printed.
        tested: The test piece: the designation, and what a certificate says beside it.
        welded_on: Day on which the test piece was welded.
        way: Way of revalidation that stands on it; ``None`` where its code has none.
        employed_under: For the way that rests on the employment.
        wps: WPS that the piece was welded to.
        examiner: Who examined it.
        body: Examining body.
        place: Where it was welded.
        tests: Tests that were accepted, in words.
        training: Further training or practice before the test, where an earlier one had failed.
        coupon: Number of the coupon that served as the test piece.
        from_paper: Whether it was entered from paper.
        not_stated: What the paper does not say.
        scans: Its scans.
    """

    number: f.Name
    person: Annotated[f.Name, Field(max_length=80)]
    mark: f.Line = ""
    designation: f.Line
    tested: WelderWeld
    welded_on: f.Day
    way: RevalidationWay | None = None
    employed_under: EmployedUnder | None = None
    wps: f.Line = ""
    examiner: f.Line = ""
    body: f.Line = ""
    place: f.Line = ""
    tests: tuple[f.Line, ...] = ()
    training: f.Line = ""
    coupon: f.Line = ""
    from_paper: bool = False
    not_stated: tuple[f.Line, ...] = ()
    scans: Annotated[tuple[CertificateScan, ...], Field(max_length=20)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkDone:
    """A weld that a statement rests on.

    Attributes:
        on: Day of welding.
        what: What was welded, to which WPS.
        within: Whether it was within the range of qualification; ``None`` where that is not known.
        method: How it was tested, where it was: ``RT``, ``UT``, ``destructive``.
        accepted: Whether it met the levels of the code for persons.
        report: Number of the report.
    """

    on: f.Day
    what: f.Line
    within: bool | None = None
    method: f.Name | None = None
    accepted: bool | None = None
    report: f.Line = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class RenewingTest:
    """A later test of the same person that renews a qualification which had lapsed.

    Attributes:
        certificate: Number of its certificate.
        certificate_sha256: Digest of the signed bytes of that.
        designation: As it is printed there.
        tested: The test piece.
        welded_on: Day on which it was welded.
    """

    certificate: f.Name
    certificate_sha256: Digest
    designation: f.Line
    tested: WelderWeld
    welded_on: f.Day


@dataclass(frozen=True, slots=True, kw_only=True)
class CertificateStatement:
    """What somebody signs about a certificate after it was issued.

    Attributes:
        kind: Confirmation of work within the range, prolongation for another period, renewal by a test
            after it had lapsed, or revocation.
        certificate: Number of the certificate.
        certificate_sha256: Digest of its signed bytes.
        person: Whom it qualifies.
        on: Day of the signature; of one on paper the day that stands there.
        signer: What the one who signs is.
        signed_by: Name of the one who signs; of one on paper the name that stands there.
        from_paper: Whether it was entered from paper.
        works: Welds that it rests on.
        renewed_by: The test that a renewal rests on.
        reason: Why a certificate is revoked; else remarks.
        scans: Scans of what was signed on paper.
    """

    kind: StatementKind
    certificate: f.Name
    certificate_sha256: Digest
    person: f.Name
    on: f.Day
    signer: SignerIs
    signed_by: Annotated[str, Field(min_length=1, max_length=310)]
    from_paper: bool = False
    works: Annotated[tuple[WorkDone, ...], Field(max_length=500)] = ()
    renewed_by: RenewingTest | None = None
    reason: f.Note = ""
    scans: Annotated[tuple[CertificateScan, ...], Field(max_length=20)] = ()
