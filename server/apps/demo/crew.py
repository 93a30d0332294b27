"""The demo's crew: current, running out, lapsed, and one without a certificate. All of it is invented."""

from __future__ import annotations

import io
from dataclasses import dataclass
from datetime import timedelta

from django.utils import timezone
from PIL import Image, ImageDraw

from apps.accounts.models import User
from apps.crew.models import Certificate
from apps.crew.services.add_scan import add_scan
from apps.crew.services.keep_member import MemberEntry, add_member
from apps.crew.services.sign_certificate import (
    CertificateEntry,
    StatementEntry,
    sign_certificate,
    sign_statement,
)
from welding.documents.welder_certificate import EmployedUnder, RevalidationWay

EMPLOYER = "Fernhollow Fabrication"
BODY = "Northmere Examining Office"


@dataclass(frozen=True, slots=True, kw_only=True)
class Held:
    """A certificate of the demo: welded so many days ago, confirmed on paper so many days ago."""

    designation: str
    days_ago: int
    way: RevalidationWay | None = None
    confirmed_days_ago: tuple[int, ...] = ()
    not_stated: tuple[str, ...] = ()
    employed: bool = False


CREW: dict[tuple[str, str], tuple[Held, ...]] = {
    ("Rell Okafor", "RO"): (
        Held(
            designation="ISO 9606-1 135 P BW FM1 S s12 PF ss nb, dip transfer",
            days_ago=320,
            way="b",
            confirmed_days_ago=(170, 20),
        ),
        Held(designation="ISO 9606-1 111 P BW FM1 B s12 PF ss nb", days_ago=100, way="a"),
        Held(designation="AWS D1.1 FCAW-G 3G uphill plate CJP T25mm backing electrodes=1", days_ago=160),
    ),
    ("Signe Holm", "SH"): (
        Held(designation="ISO 9606-1 135 P BW FM1 S s16 PF ss nb, dip transfer", days_ago=166, way="b"),
    ),
    ("Danek Ruiz", "DR"): (Held(designation="ISO 9606-1 141 P BW FM5 S s2 PA ss gb", days_ago=420, way="a"),),
    ("Ambrose Teal", "AT"): (
        Held(
            designation="ISO 9606-1 135 P BW FM1 S s10 PC ss mb, spray transfer",
            days_ago=900,
            way="c",
            confirmed_days_ago=(740, 580, 420, 260, 110),
            employed=True,
        ),
        Held(designation="ISO 9606-1 136 P FW FM1 P t12 PB ml", days_ago=60, way="a"),
    ),
    ("Ilka Moreau", "IM"): (
        Held(
            designation="AWS D1.1 SMAW F4 3G uphill plate CJP T12mm open-root electrodes=1",
            days_ago=260,
            not_stated=("place", "number of the WPS"),
        ),
    ),
    ("Pim Castellan", "PC"): (
        Held(
            designation="ISO 14732 mechanized 135 PA direct-view tracking single-run backing functional-test",
            days_ago=140,
            way="a",
        ),
    ),
    ("Yara Lindqvist", "YL"): (
        Held(designation="ISO 9606-2 141 P BW 22 S t5 PA ss nb", days_ago=95, way="b"),
    ),
    ("Osric Boon", "OB"): (),
}


def take_on_the_crew(users: dict[str, User]) -> None:
    """Enter people and certificates through the services that people use."""
    engineer, examiner = users["engineer"], users["examiner"]
    today = timezone.localdate()
    for (name, mark), certificates in CREW.items():
        member = add_member(engineer, MemberEntry(name=name, mark=mark, employer=EMPLOYER))
        for held in certificates:
            number = f"FB-W{Certificate.objects.count() + 1:03d}"
            scan = add_scan(engineer, member, f"{number}.png", _paper(name, held.designation))
            entry = CertificateEntry(
                number=number,
                designation=held.designation,
                welded_on=today - timedelta(days=held.days_ago),
                way=held.way,
                employed_under=EmployedUnder(same_employer=True, system="ISO 3834-2", records=True)
                if held.employed
                else None,
                examiner=examiner.shown_name,
                body=BODY,
                place="" if "place" in held.not_stated else "Fernhollow",
                tests=("VT", "fracture test" if " FW " in held.designation else "RT"),
                from_paper=True,
                not_stated=held.not_stated,
                scans=(scan.pk,),
            )
            certificate = sign_certificate(engineer, member, entry)
            for days in held.confirmed_days_ago:
                statement = StatementEntry(
                    kind="confirmation",
                    on=today - timedelta(days=days),
                    signer="responsible",
                    signed_by=engineer.shown_name,
                    scans=(scan.pk,),
                )
                sign_statement(engineer, certificate, statement)


def _paper(name: str, designation: str) -> bytes:
    """A sheet that stands for the scan of a certificate."""
    sheet = Image.new("RGB", (620, 877), "white")
    pen = ImageDraw.Draw(sheet)
    pen.rectangle((30, 30, 590, 847), outline="black")
    for at, line in enumerate(("Certificate of qualification", name, designation, "invented, for the demo")):
        pen.text((60, 80 + 40 * at), line, fill="black")
    sink = io.BytesIO()
    sheet.save(sink, "PNG")
    return sink.getvalue()
