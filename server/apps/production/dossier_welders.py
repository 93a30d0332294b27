"""Welders in the final documentation: the certificates of those who welded, as they were signed."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence

from api.damage import attempt

from apps.crew.models import Certificate, CrewMember
from apps.jobs.models import Job
from apps.procedures.models import Revision
from apps.production.models import State, Weld
from apps.production.welders import NOT_QUALIFIED
from welding.welders.catalogue import edition_for


def certificates_of(job: Job, revisions: Sequence[Revision]) -> list[Certificate]:
    """Certificates of those who are named in the log, to the codes that the WPSs go by, and no others.

    A WPS that is not what was signed names no code.
    """
    welds = Weld.objects.filter(job=job).exclude(state=State.STRUCK)
    names = {name for named in welds.values_list("welders", flat=True).distinct() for name in named}
    read = [attempt(one, one.contents)[0] for one in revisions]
    editions = [edition_for(one.code.id) for one in read if one is not None and one.code is not None]
    codes = {one.id for one in editions if one is not None}
    found = Certificate.objects.filter(member__name__in=names, code_id__in=codes)
    return list(found.select_related("member").prefetch_related("statements").order_by("number"))


def certificate_files(certificates: Sequence[Certificate]) -> dict[str, bytes]:
    """Certificates and what was signed about them, the bytes that were signed.

    Raises:
        DamagedError: One does not match what was signed.
    """
    files: dict[str, bytes] = {}
    for one in certificates:
        one.document()
        folder = f"welders/{_plain(one.member.name)}/{_plain(one.number)}-{one.content_hash[:8]}"
        files[f"{folder}.certificate.json"] = one.body.encode()
        for at, statement in enumerate(one.statements.order_by("id"), start=1):
            statement.document()
            files[f"{folder}.{at}-{statement.kind}.json"] = statement.body.encode()
    return files


def _plain(name: str) -> str:
    """A name that a file may have on every system."""
    return re.sub(r"[^\w .-]", "_", name).strip(". ") or "_"


def not_qualified(welds: Iterable[tuple[str, list[dict[str, str]]]]) -> tuple[list[str], list[str]]:
    """Welds of people who were not qualified for them, and of people of whom that is not known.

    Args:
        welds: For each weld its mark with its item, and what was kept of its welders.

    Returns:
        Both lists; the second is empty where no crew is kept here.
    """
    kept = CrewMember.objects.exists()
    against, unknown = [], []
    for mark, qualified in welds:
        standings = {one["standing"] for one in qualified}
        if standings & set(NOT_QUALIFIED):
            against.append(mark)
        elif kept and (standings - {"may"} or not qualified):
            unknown.append(mark)
    return against, unknown
