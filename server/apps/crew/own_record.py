"""Everything that is kept of a person, as one document."""

from __future__ import annotations

from datetime import date
from typing import Any

import orjson
from django.utils import timezone

from apps.crew.evidence import works_of
from apps.crew.models import Certificate, CrewMember
from welding.language import SOURCE, speaking

FORMAT = "grounded-bead/person-record"
SINCE = date(1990, 1, 1)


def record_of(member: CrewMember) -> bytes:
    """Entry of the list, certificates and statements as they were signed, scans, welds of the logs."""
    with speaking(SOURCE):
        welds = works_of(member.name, SINCE, timezone.localdate())
    kept: dict[str, Any] = {
        "format": FORMAT,
        "version": 1,
        "name": member.name,
        "mark": member.mark,
        "employer": member.employer,
        "left_on": member.left_on,
        "added_at": member.added_at,
        "certificates": [_certificate(one) for one in member.certificates.order_by("id")],
        "scans": [
            {"name": one.name, "sha256": one.sha256, "added_at": one.added_at} for one in member.scans.all()
        ],
        "welds": [
            {
                "on": one.on,
                "what": one.what,
                "tests": [
                    {"method": t.method, "accepted": t.accepted, "report": t.report} for t in one.tested
                ],
            }
            for one in welds
        ],
    }
    return orjson.dumps(kept, option=orjson.OPT_INDENT_2)


def _certificate(one: Certificate) -> dict[str, Any]:
    return {
        "signed_by": one.signed_name,
        "signed_at": one.at,
        "sha256": one.content_hash,
        "document": orjson.loads(one.intact_body()),
        "statements": [
            {
                "entered_by": each.signed_name,
                "entered_at": each.at,
                "sha256": each.content_hash,
                "document": orjson.loads(each.intact_body()),
            }
            for each in one.statements.order_by("id")
        ],
    }
