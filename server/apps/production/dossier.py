"""The final documentation of a job: what is still open in it, and its open files with their hashes."""

from __future__ import annotations

import hashlib
import io
import json
import zipfile
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from django.db.models import Exists, OuterRef, Q, QuerySet

from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from apps.production.dossier_welders import certificate_files, certificates_of, not_qualified
from apps.production.files import log_file
from apps.production.models import State, Weld
from apps.production.queries import with_inspections
from apps.qualification.models import QualificationRecord, Signature
from apps.weldlist.models import Assignment
from apps.weldlist.queries import document_of, standing_list, weld_list_of
from apps.weldlist.services.files import list_file
from apps.weldlist.wps import applied_table, assigned_of, released_wps
from welding.documents.codec import PROCEDURE, WELD_LIST
from welding.language import in_source_language, tr

MOST_SAID = 40
"""Marks that an open point names; the rest is counted."""
_SAME_DAY = (1980, 1, 1, 0, 0, 0)
"""Date of every file of the archive, so that equal contents give equal bytes."""


@dataclass(frozen=True, slots=True, kw_only=True)
class OpenPoint:
    """Something that the documentation still lacks: the sentence, how many, and the first marks."""

    said: str
    count: int
    marks: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Dossier:
    """How far the documentation of a job is.

    Attributes:
        expected: Welds of the list.
        made: Welds logged, without repairs.
        released: Joints welds that are released, by themselves or by their repair.
        open: What is lacking; empty where the documentation is whole.
    """

    expected: int
    made: int
    released: int
    open: tuple[OpenPoint, ...]


def dossier_of(job: Job) -> Dossier:
    """How far the documentation of a job is, and what it lacks."""
    welds = list(
        Weld.objects.filter(job=job)
        .exclude(state=State.STRUCK)
        .order_by("mark", "item", "id")
        .values_list("mark", "item", "state", "fit", "qualified")
    )
    listed = weld_list_of(job)
    expected: Counter[str] = Counter()
    points: list[OpenPoint] = []
    if listed is not None:
        standing = standing_list(listed)
        unread = [row.cells.get("mark", "") for row in standing.rows if row.read.joint is None]
        for row in standing.rows:
            expected[row.cells.get("mark", "")] += row.read.joint.count if row.read.joint is not None else 1
        wps = released_wps(job)
        holding = {
            one.kind.key
            for one in assigned_of(listed, standing, wps, applied_table(standing, wps))
            if one.kind is not None and not one.against
        }
        bare = [mark for kind in standing.types if kind.key not in holding for mark in kind.marks]
        points += [_point(tr("Rows of the weld list that are no joints yet"), unread)]
        points += [_point(tr("Joints without a WPS that covers them"), bare)]
    made = {(mark, item) for mark, item, *_ in welds}
    missing = [
        f"{mark} / {item}"
        for mark, count in expected.items()
        for item in range(1, count + 1)
        if (mark, item) not in made
    ]
    named: dict[str, list[str]] = {state: [] for state in State.values}
    strange, uncovered = [], []
    for mark, item, state, fit, _ in welds:
        named[state].append(f"{mark} / {item}")
        if listed is not None and item > expected.get(mark, 0):
            strange.append(f"{mark} / {item}")
        if fit != "covered" and state != State.REPAIRED:
            uncovered.append(f"{mark} / {item}")
    counting = [(f"{mark} / {item}", who) for mark, item, state, _, who in welds if state != State.REPAIRED]
    against, unknown = not_qualified(counting)
    points += [
        _point(tr("Welds that are not logged"), missing),
        _point(tr("Welds that are not inspected"), named[State.WELDED]),
        _point(tr("Welds that are rejected and not repaired"), named[State.REJECTED]),
        _point(tr("Welds that are accepted and not released"), named[State.ACCEPTED]),
        _point(tr("Welds whose WPS does not cover them, or is not the one assigned"), uncovered),
        _point(tr("Welds of welders who were not qualified for them when they were logged"), against),
        _point(tr("Welds of welders whose qualification is not known here"), unknown),
        _point(tr("Welds of joints that the weld list no longer has"), strange),
    ]
    return Dossier(
        expected=sum(expected.values()),
        made=len(made),
        released=len({(mark, item) for mark, item, state, *_ in welds if state == State.RELEASED}),
        open=(*_nothing_listed(expected), *(one for one in points if one.count)),
    )


def _nothing_listed(expected: Counter[str]) -> tuple[OpenPoint, ...]:
    """Without a list nobody can say that nothing is open."""
    if expected.total():
        return ()
    said = tr("The job has no weld list: what has to be welded is not known.")
    return (OpenPoint(said=said, count=0, marks=()),)


def _point(said: str, marks: Sequence[str]) -> OpenPoint:
    return OpenPoint(said=said, count=len(marks), marks=tuple(marks[:MOST_SAID]))


def used_revisions(job: Job) -> list[Revision]:
    """Revisions that welds were made to or that joints are assigned to, in order of their names."""
    used = Q(Exists(Weld.objects.filter(revision=OuterRef("pk"))))
    used |= Q(Exists(Assignment.objects.filter(revision=OuterRef("pk")))) | Q(stage=Stage.RELEASED)
    found = Revision.objects.filter(used, procedure__job=job).defer("document")
    return sorted(found.select_related("procedure"), key=str)


def used_records(revisions: Sequence[Revision]) -> list[QualificationRecord]:
    """Records that support these revisions, in order of their numbers."""
    found = QualificationRecord.objects.filter(supports__revision__in=revisions).distinct()
    return sorted(found.prefetch_related("signatures"), key=lambda one: one.number)


def job_welds(job: Job) -> QuerySet[Weld]:
    """All entries of the log with their results, struck ones too, in the order of entry."""
    return with_inspections(Weld.objects.filter(job=job).order_by("id"))


@in_source_language
def dossier_files(job: Job) -> dict[str, bytes]:
    """Files of the documentation by their names; signed ones are the bytes that were signed.

    Raises:
        DamagedError: A procedure or record does not match what was signed.
    """
    files: dict[str, bytes] = {}
    listed = weld_list_of(job)
    if listed is not None:
        standing = standing_list(listed)
        files["weld-list.json"] = WELD_LIST.write(document_of(listed, standing))
        files["weld-list.csv"] = list_file(standing, "csv")
    revisions = used_revisions(job)
    for one in revisions:
        document = one.contents()  # refuses bytes that are not those of the hash
        files[f"procedures/{one.procedure.number}-{one.letter}.procedure.json"] = (
            one.body.encode() or PROCEDURE.write(document)
        )
    records = used_records(revisions)
    for record in records:
        record.document()
        # An amended record and the one that it amends have one number.
        name = f"{record.number}-{record.content_hash[:8]}"
        files[f"records/{name}.qualification-record.json"] = record.body.encode()
    welds = job_welds(job)
    files |= certificate_files(certificates_of(job, revisions))
    files["welds.csv"] = log_file(welds, "csv")
    files["welds.json"] = _json([_weld(one) for one in welds])
    signed = Signature.objects.filter(revision__in=revisions) | Signature.objects.filter(record__in=records)
    signed = signed.order_by("id").select_related("revision__procedure", "record")
    files["signatures.json"] = _json([_signature(one) for one in signed])
    files["contents.json"] = _json(
        {
            "format": "grounded-bead/dossier",
            "version": 1,
            "job": {
                "number": job.number,
                "title": job.title,
                "customer": job.customer,
                "coordinator": job.coordinator,
            },
            "files": [
                {"name": name, "bytes": len(data), "sha256": hashlib.sha256(data).hexdigest()}
                for name, data in sorted(files.items())
            ],
        }
    )
    return files


def zip_of(files: Mapping[str, bytes]) -> bytes:
    """An archive of files; equal files give equal bytes."""
    sink = io.BytesIO()
    with zipfile.ZipFile(sink, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in sorted(files.items()):
            info = zipfile.ZipInfo(name, date_time=_SAME_DAY)
            info.compress_type = zipfile.ZIP_DEFLATED
            info.external_attr = 0o644 << 16
            archive.writestr(info, data)
    return sink.getvalue()


def _json(plain: Any) -> bytes:
    return (json.dumps(plain, ensure_ascii=False, indent=1, sort_keys=True) + "\n").encode()


def _weld(one: Weld) -> dict[str, Any]:
    return {
        "id": one.pk,
        "mark": one.mark,
        "item": one.item,
        "joint": one.joint,
        "wps": one.wps,
        "welders": one.welders,
        "qualified": one.qualified,
        "filler_batches": one.batches,
        "heats": one.heats,
        "welded_on": one.welded_on.isoformat(),
        "passes": one.values,
        "covered": one.fit,
        "against": one.against,
        "state": one.state,
        "repair_of": one.repair_of_id,
        "remarks": one.remarks,
        "entered_by": one.entered_name,
        "entered_at": one.entered_at.isoformat(),
        "released_by": one.released_name,
        "released_at": one.released_at.isoformat() if one.released_at else None,
        "struck_because": one.struck_reason,
        "results": [
            {
                "method": result.method,
                "accepted": result.accepted,
                "report": result.report,
                "inspector": result.inspector,
                "inspected_on": result.inspected_on.isoformat(),
                "found": result.found,
                "entered_by": result.entered_name,
                "entered_at": result.entered_at.isoformat(),
                "struck_because": result.struck_reason,
            }
            for result in one.inspections.all()
        ],
    }


def _signature(one: Signature) -> dict[str, Any]:
    return {
        "of": str(one.revision or one.record),
        "purpose": one.purpose,
        "sha256": one.content_hash,
        "name": one.name,
        "role": one.role,
        "at": one.at.isoformat(),
        "reason": one.reason,
    }
