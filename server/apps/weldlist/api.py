"""The weld list of a job: the list, files, what covers its joints, the fewest coupons."""

from __future__ import annotations

from typing import Literal

from api.downloads import attachment
from api.errors import ConflictError, InvalidError, ProblemOut
from api.people import person
from api.sheets import TYPES
from django.http import HttpRequest, HttpResponse
from ninja import Router

from apps.accounts.permissions import Action, require
from apps.weldlist.listed import REFUSALS, job_of, listed_of
from apps.weldlist.models import WeldList
from apps.weldlist.queries import (
    CODE,
    MAPPING,
    PRICES,
    SHOP,
    USUAL_CODE,
    ListedRow,
    counting_records,
    covered_types,
    document_of,
    prices_of,
    shop_of,
    standing_list,
    weld_list_of,
)
from apps.weldlist.schemas import (
    ChangedJointOut,
    ColumnOut,
    EditRowsIn,
    JointTypeOut,
    ListCoverageOut,
    ListRowOut,
    ListSettingsIn,
    LookOut,
    TypeCellOut,
    WeldListOut,
    WhyOut,
)
from apps.weldlist.services.edit_rows import RowChange, edit_rows
from apps.weldlist.services.files import grid_of, list_file
from apps.weldlist.services.save_settings import save_settings
from apps.weldlist.services.take_list import look_at, take_list
from welding.coverage.matrix import Cell
from welding.documents.codec import WELD_LIST, parse_json
from welding.documents.procedure import Code
from welding.documents.weld_list import Prices, Shop
from welding.language import tr
from welding.qualification.variables import VARIABLES
from welding.quantities.writing import System
from welding.weldlist.columns import COLUMNS, OWN, column_title
from welding.weldlist.grid import ListMapping
from welding.weldlist.joint_types import type_words
from welding.weldlist.standing import why

router = Router(tags=["weld list"])
LONGEST_HEAD = 500_000
"""Bytes in front of a file that say how it is read."""
SHOWN_ROWS = 40
"""Rows of a file that are shown before it is taken; those with problems first."""


def _columns() -> list[ColumnOut]:
    return [ColumnOut(name=name, title=column_title(name), own=name in OWN) for name in COLUMNS]


def _row(row: ListedRow) -> ListRowOut:
    return ListRowOut(
        id=row.id, version=row.version, cells=row.cells, type=row.type, problems=list(row.read.problems)
    )


@router.get("/jobs/{int:job_id}/weld-list", response={200: WeldListOut, **REFUSALS})
def read_list(request: HttpRequest, job_id: int) -> WeldListOut:
    """The whole list, every row with its joint type or what is wrong with it."""
    require(person(request), Action.VIEW)
    listed = weld_list_of(job_of(job_id))
    if listed is None:
        return WeldListOut(
            version=0, code=CODE.take(USUAL_CODE), columns=_columns(), rows=[], questions=[], answers={},
            shop=Shop(), prices=Prices(),
        )  # fmt: skip
    standing = standing_list(listed)
    return WeldListOut(
        version=standing.version,
        code=standing.code,
        columns=_columns(),
        rows=[_row(row) for row in standing.rows],
        questions=list(standing.questions),
        answers=listed.answers,
        shop=shop_of(listed),
        prices=prices_of(listed),
    )


@router.post("/jobs/{int:job_id}/weld-list/rows", response={200: WeldListOut, **REFUSALS})
def change_rows(request: HttpRequest, job_id: int, payload: EditRowsIn) -> WeldListOut:
    """Change, add and remove rows; all of them or none."""
    changes = [RowChange(id=one.id, version=one.version, cells=_known(one.cells)) for one in payload.changes]
    edit_rows(person(request), job_of(job_id), payload.code, changes)
    return read_list(request, job_id)


def _known(cells: dict[str, str] | None) -> dict[str, str] | None:
    unknown = sorted(set(cells or {}) - set(COLUMNS))
    if unknown:
        raise InvalidError(tr("A weld list has no column {names}.", names=", ".join(unknown)))
    return cells


@router.put("/jobs/{int:job_id}/weld-list", response={200: WeldListOut, **REFUSALS})
def change_settings(request: HttpRequest, job_id: int, payload: ListSettingsIn) -> WeldListOut:
    """Change the code, the answers for all rows, what the shop welds, prices."""
    save_settings(
        person(request),
        job_of(job_id),
        payload.version,
        code=CODE.plain(payload.code),
        answers=payload.answers,
        shop=SHOP.plain(payload.shop),
        prices=PRICES.plain(payload.prices),
    )
    return read_list(request, job_id)


@router.post("/jobs/{int:job_id}/weld-list/look", response={200: LookOut, 413: ProblemOut, **REFUSALS})
def look_at_file(request: HttpRequest, job_id: int, head: int = 0, code: str = "") -> LookOut:
    """Read a CSV or XLSX file without taking it.

    The body is the file; ``head`` bytes in front of it, if any, are how it is read, as JSON.
    """
    require(person(request), Action.IMPORT)
    job = job_of(job_id)
    listed = weld_list_of(job)
    how, data = _parted(request.body, head)
    incoming = look_at(job, _code(listed, code), grid_of(data), _mapping(how))
    read = incoming.read
    rows = [
        ListRowOut(id=row.number, version=0, cells=row.cells, type="", problems=list(one.problems))
        for row, one in read.rows
    ]
    # What has to be corrected comes first, then what an answer mends.
    shown = sorted(rows, key=lambda row: (all(one.asks for one in row.problems), not row.problems))[
        :SHOWN_ROWS
    ]
    changed = incoming.changes.changed
    return LookOut(
        version=listed.version if listed else 0,
        columns=_columns(),
        headings=list(read.headings),
        first_row=read.mapping.first_row,
        mapping=read.mapping.headings,
        units=read.mapping.units,
        questions=list(read.questions),
        rows=shown,
        joints=len(rows),
        with_problems=sum(bool(one.problems) for one in rows),
        added=len(incoming.changes.added),
        changed=[ChangedJointOut(mark=one.mark, cells=list(one.cells)) for one in changed[:SHOWN_ROWS]],
        changed_count=len(changed),
        same=incoming.changes.same,
        gone=[incoming.before[at].mark for at in incoming.changes.gone],
    )


def _code(listed: WeldList | None, code: str) -> Code:
    if listed is not None:
        return CODE.take(listed.code)
    return CODE.read(code) if code else CODE.take(USUAL_CODE)


def _parted(body: bytes, head: int) -> tuple[bytes, bytes]:
    if not 0 <= head <= min(LONGEST_HEAD, len(body)):
        raise InvalidError(tr("Say how the file is read."))
    return body[:head], body[head:]


def _mapping(how: bytes) -> ListMapping | None:
    if not how:
        return None
    mapping = MAPPING.take(parse_json(how))
    unknown = sorted(set(mapping.headings) - set(COLUMNS))
    if unknown:
        raise InvalidError(tr("A weld list has no column {names}.", names=", ".join(unknown)))
    return mapping


@router.post("/jobs/{int:job_id}/weld-list/take", response={200: WeldListOut, 413: ProblemOut, **REFUSALS})
def take_file(
    request: HttpRequest, job_id: int, head: int, version: int, code: str = "", remove_gone: bool = False
) -> WeldListOut:
    """Take a CSV or XLSX file that was looked at into the list.

    The first ``head`` bytes of the body are how it is read, as JSON; the rest is the file.
    """
    job = job_of(job_id)
    how, data = _parted(request.body, head)
    mapping = _mapping(how)
    if mapping is None:
        raise InvalidError(tr("Say how the file is read."))
    take_list(
        person(request), job, _code(weld_list_of(job), code), grid_of(data), mapping, version,
        remove_gone=remove_gone,
    )  # fmt: skip
    return read_list(request, job_id)


@router.get("/jobs/{int:job_id}/weld-list/file", response={404: ProblemOut, 409: ProblemOut})
def download(
    request: HttpRequest, job_id: int, kind: Literal["csv", "xlsx", "json"] = "xlsx"
) -> HttpResponse:
    """The list as a sheet, with what is wrong in words; or as the document that the command line takes."""
    require(person(request), Action.VIEW)
    job, listed, standing = listed_of(job_id)
    if kind == "json":
        data = WELD_LIST.write(document_of(listed, standing))
        return attachment(data, "application/json", f"{job.number}.weld-list.json")
    return attachment(list_file(standing, kind), TYPES[kind], f"{job.number} weld list.{kind}")


@router.get("/jobs/{int:job_id}/weld-list/coverage", response={200: ListCoverageOut, **REFUSALS})
def coverage(request: HttpRequest, job_id: int, units: System = "si") -> ListCoverageOut:
    """Every joint type against the signed records of the job."""
    require(person(request), Action.VIEW)
    job, _, standing = listed_of(job_id)
    records, types = covered_types(job, standing)
    return ListCoverageOut(
        version=standing.version,
        code=standing.code,
        records=records,
        types=[
            JointTypeOut(
                key=one.type.key,
                words=type_words(one.type.joint, units),
                marks=list(one.type.marks),
                welds=one.type.count,
                length_mm=one.type.length_mm,
                verdict=one.verdict,
                by=list(one.by),
                cells=[_cell(cell) for cell in one.cells],
            )
            for one in types
        ],
        joints=len(standing.rows),
        unread=sum(row.read.joint is None for row in standing.rows),
    )


def _cell(cell: Cell) -> TypeCellOut:
    names = [VARIABLES[name].title if name in VARIABLES else name for name in cell.variables]
    return TypeCellOut(verdict=cell.verdict, variables=list(cell.variables), names=names)


@router.get("/jobs/{int:job_id}/weld-list/types/{key}/why", response={200: list[WhyOut], **REFUSALS})
def why_not(request: HttpRequest, job_id: int, key: str) -> list[WhyOut]:
    """What each record says to a joint type: what blocks, and by how much."""
    require(person(request), Action.VIEW)
    job, _, standing = listed_of(job_id)
    kind = next((one for one in standing.types if one.key == key), None)
    if kind is None:
        raise ConflictError(tr("The list has no joint type {key} any more.", key=key))
    return [
        WhyOut(
            record=one.record,
            verdict=one.verdict,
            reasons=[f.message for f in one.findings if f.verdict in ("violates", "undecided")],
        )
        for one in why(kind, counting_records(job), standing.code)
    ]
