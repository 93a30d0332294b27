"""Reading a weld list: its rows as the core understands them, its joint types, and what covers them."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass, field, replace

from api.damage import attempt

from apps.jobs.models import Job
from apps.qualification.queries import signed_records
from apps.weldlist.models import ListRow, WeldList
from welding.codebook.book import by_book
from welding.coverage.record import KeptRanges, keeping_ranges
from welding.documents.codec import JOINT, Codec
from welding.documents.procedure import Code
from welding.documents.record import QualificationRecord
from welding.documents.weld_list import Prices, Shop
from welding.documents.weld_list import WeldList as Document
from welding.weldlist.cells import ReadRow
from welding.weldlist.grid import GridRow, ListMapping, ListQuestion, questions_of, read_rows
from welding.weldlist.joint_types import JointType, joint_types
from welding.weldlist.standing import TypeCover, types_covered

CODE = Codec(Code)
MAPPING = Codec(ListMapping)
SHOP = Codec(Shop)
PRICES = Codec(Prices)
KEPT_LISTS = 8
MOST_KEPT = 20_000
"""Answers about joint types that are kept for one set of records."""
USUAL_CODE = {"id": "iso-15614-1:2017", "level": 2}
"""Code of a new list until somebody says another."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ListedRow:
    """A row with what it means; ``type`` is the key of its joint type, empty where it is no joint yet."""

    id: int
    version: int
    cells: dict[str, str]
    read: ReadRow
    type: str


@dataclass(frozen=True, slots=True, kw_only=True)
class StandingList:
    """A list as it stands at one version."""

    version: int
    code: Code
    rows: tuple[ListedRow, ...]
    types: tuple[JointType, ...]
    questions: tuple[ListQuestion, ...]


def weld_list_of(job: Job) -> WeldList | None:
    """The list of a job, where it has one."""
    return WeldList.objects.filter(job=job).select_related("saved_by").first()


def standing_list(listed: WeldList) -> StandingList:
    """The list as it is understood, read once for each of its versions."""
    return _read(listed.pk, listed.version)


@by_book(KEPT_LISTS)
def _read(list_id: int, version: int) -> StandingList:
    listed = WeldList.objects.get(pk=list_id)
    code = CODE.take(listed.code)
    rows = list(listed.rows.all())
    grid = [GridRow(number=at, cells=row.cells) for at, row in enumerate(rows, start=1)]
    read = read_rows(grid, code, listed.answers)
    types = joint_types([one.joint for one in read if one.joint is not None], code)
    type_of = {mark: kind.key for kind in types for mark in kind.marks}
    return StandingList(
        version=version,
        code=code,
        rows=tuple(
            ListedRow(
                id=row.pk,
                version=row.version,
                cells=row.cells,
                read=one,
                type=type_of.get(one.joint.mark, "") if one.joint is not None else "",
            )
            for row, one in zip(rows, read, strict=True)
        ),
        types=types,
        questions=questions_of(grid, read),
    )


def counting_records(job: Job) -> list[QualificationRecord]:
    """Records that count and are whole, from their signed bytes."""
    read = [attempt(one, one.document)[0] for one in signed_records(job)]
    return [one for one in read if one is not None]


def shop_of(listed: WeldList) -> Shop:
    """What the shop may weld coupons of."""
    return SHOP.take(listed.shop or {})


def prices_of(listed: WeldList) -> Prices:
    """What a coupon costs here."""
    return PRICES.take(listed.prices or {})


def document_of(listed: WeldList, standing: StandingList) -> Document:
    """The list as the open document that the core takes: joints that are understood, records that count."""
    return Document(
        job=f"{listed.job.number} {listed.job.title}"[:200],
        code=standing.code,
        joints=tuple(row.read.joint for row in standing.rows if row.read.joint is not None),
        records=tuple(counting_records(listed.job)),
        shop=shop_of(listed),
        prices=prices_of(listed),
    )


def covered_types(job: Job, standing: StandingList) -> tuple[list[str], tuple[TypeCover, ...]]:
    """Numbers of the records that count, and each joint type against them.

    What a type was told is kept by its facts and the hashes of the records: after one change of a list only
    the types that are new are asked about.
    """
    signed = [(one.content_hash, attempt(one, one.document)[0]) for one in signed_records(job)]
    whole = [(key, one) for key, one in signed if one is not None]
    asked = hashlib.sha256("".join(key for key, _ in whole).encode()).hexdigest()
    known = _kept_answers(asked)
    kept = known.answers
    # Ranges are kept by the record that they were computed of: always the same one.
    records = known.records.setdefault("whole", [one for _, one in whole])
    facts = [facts_of(one) for one in standing.types]
    fresh = [one for one, key in zip(standing.types, facts, strict=True) if key not in kept]
    if len(kept) > MOST_KEPT:
        kept.clear()
        fresh = list(standing.types)
    with keeping_ranges(known.ranges):
        for one in types_covered(fresh, records, standing.code):
            kept[facts_of(one.type)] = one
    found = tuple(replace(kept[key], type=one) for one, key in zip(standing.types, facts, strict=True))
    return [record.number or "" for record in records], found


@dataclass(frozen=True, slots=True)
class _KeptAnswers:
    """What joint types were told by the same records, and what was computed of these."""

    answers: dict[bytes, TypeCover] = field(default_factory=dict)
    records: dict[str, list[QualificationRecord]] = field(default_factory=dict)
    ranges: KeptRanges = field(default_factory=KeptRanges)


@by_book(KEPT_LISTS)
def _kept_answers(records: str) -> _KeptAnswers:
    """Answers about joint types by these records; filled as they are asked about."""
    return _KeptAnswers()


def facts_of(kind: JointType) -> bytes:
    """Facts of a joint type without its number, as canonical bytes."""
    return JOINT.write(replace(kind.joint, number=None))


def rows_by_id(listed: WeldList, ids: list[int]) -> dict[int, ListRow]:
    """Rows of the list under their ids, held until the transaction ends."""
    return {row.pk: row for row in listed.rows.select_for_update().filter(pk__in=ids)}
