"""Scans of certificates on paper: kept as they came, and removed where nothing signed names them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any

from api.errors import ProblemOut
from api.people import person
from api.uploads import file_of
from django.http import FileResponse, HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.crew.models import CrewMember, Scan
from apps.crew.queries import scans_named
from apps.crew.schemas import ScanOut
from apps.crew.services.add_scan import LARGEST_BYTES, add_scan
from apps.crew.services.remove_scan import remove_scan
from welding.documents.welder_certificate import CertificateScan

router = Router(tags=["crew"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


@router.post("/crew/{int:member_id}/scans", response={201: ScanOut, 413: ProblemOut, **REFUSALS})
def take_scan(
    request: HttpRequest, member_id: int, name: Annotated[str, Field(max_length=200)] = ""
) -> Status[ScanOut]:
    """Keep a scan of a certificate; the body is the file, at most 15 MB."""
    one = get_object_or_404(CrewMember, pk=member_id)
    data = file_of(request, LARGEST_BYTES)
    return Status(201, _scan(add_scan(person(request), one, name, data)))


@router.get("/scans/{int:scan_id}", response={200: None, 404: ProblemOut})
def scan(request: HttpRequest, scan_id: int) -> FileResponse:
    """A scan as it came."""
    require(person(request), Action.VIEW)
    one = get_object_or_404(Scan, pk=scan_id)
    return FileResponse(one.file.open("rb"), content_type=one.content_type)


@router.delete("/scans/{int:scan_id}", response={204: None, **REFUSALS})
def drop_scan(request: HttpRequest, scan_id: int) -> Status[None]:
    """Remove a scan that nothing signed names."""
    user = person(request)
    get_object_or_404(Scan, pk=scan_id)
    remove_scan(user, scan_id)
    return Status(204, None)


def unnamed_scans(member: CrewMember) -> list[ScanOut]:
    """Scans of a person that nothing signed names."""
    named = scans_named(member)
    return [_scan(one) for one in member.scans.all() if one.sha256 not in named]


def scans_of(named: Sequence[CertificateScan], kept: Mapping[str, Scan]) -> list[ScanOut]:
    """The scans that a document names, as far as they are kept."""
    return [_scan(kept[one.sha256]) for one in named if one.sha256 in kept]


def _scan(one: Scan) -> ScanOut:
    return ScanOut(id=one.pk, name=one.name, content_type=one.content_type, sha256=one.sha256)
