"""A coupon as its welder's test: what it says, and the certificate that its examiner signs."""

from __future__ import annotations

from datetime import date

from api.errors import InvalidError
from api.people import person
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status

from apps.accounts.permissions import Action, require
from apps.accounts.services.confirm_person import confirm_person
from apps.crew.api import entry_of
from apps.crew.models import CrewMember
from apps.crew.schemas import CertificateIn
from apps.crew.services.sign_certificate import certificate_document, sign_certificate
from apps.procedures.schemas import CreatedOut
from apps.qualification.api import REFUSALS, coupon_of
from apps.qualification.queries import record_document
from apps.qualification.retests import retest_words, welded_on
from welding.welders.from_coupon import against_certificate, welder_test

router = Router(tags=["qualification"])


class WelderTestOut(Schema):
    """What a coupon says about whoever welded it."""

    coupon: str
    welder: str
    member_id: int | None
    designation: str
    wps: str
    welded_on: date | None
    tests: list[str]
    missing: list[str]
    certificates: list[str]


class CertifyIn(CertificateIn):
    """The certificate of a test; whom it qualifies is the welder of the coupon."""

    from_paper: bool = False


@router.get("/coupons/{int:coupon_id}/welder-test", response={200: WelderTestOut, **REFUSALS})
def test_of_welder(request: HttpRequest, coupon_id: int) -> WelderTestOut:
    """The coupon as a test of its welder: the designation, and what is missing."""
    require(person(request), Action.VIEW)
    coupon = coupon_of(coupon_id)
    document = record_document(coupon)
    found = welder_test(document)
    member = CrewMember.objects.filter(name=found.welder).first() if found.welder else None
    return WelderTestOut(
        coupon=coupon.number,
        welder=found.welder,
        member_id=member.pk if member is not None else None,
        designation=found.designation,
        wps=document.procedure.number or "",
        welded_on=welded_on(coupon),
        tests=list(found.tests),
        missing=[*found.missing, *retest_words(coupon, document, found)],
        certificates=[
            one.number
            for one in (member.certificates.all() if member is not None else ())
            if one.document().coupon == coupon.number
        ],
    )


@router.post("/coupons/{int:coupon_id}/certify", response={201: CreatedOut, **REFUSALS})
def certify_welder(request: HttpRequest, coupon_id: int, payload: CertifyIn) -> Status[CreatedOut]:
    """Sign the certificate of the welder of a coupon, whose tests were accepted."""
    user = person(request)
    require(user, Action.SIGN_CERTIFICATE)
    coupon = coupon_of(coupon_id)
    document = record_document(coupon)
    welder = next((one.name for one in document.people if one.role == "welder"), "")
    member = get_object_or_404(CrewMember, name=welder)
    confirm_person(request, user, payload.password)
    entry = entry_of(payload)
    against = list(against_certificate(document, certificate_document(member, entry).tested, member.name))
    if against:
        raise InvalidError(
            " ".join(against), errors=[{"path": "tests", "message": one, "value": ""} for one in against]
        )
    return Status(201, CreatedOut(id=sign_certificate(user, member, entry, coupon.number).pk))
