"""A coupon's log as CSV or XLSX, its empty template, and a hand-written log read from either."""

from __future__ import annotations

import csv
import io
import lzma
import struct
import zipfile
import zlib
from collections.abc import Sequence
from dataclasses import replace
from typing import Any, Literal
from uuid import uuid4

from api.downloads import harmless
from api.errors import InvalidError
from django.db import transaction
from openpyxl import Workbook, load_workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter
from openpyxl.utils.exceptions import InvalidFileException

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon, PassLog
from apps.coupons.queries import coupon_document, passes_by_number
from apps.coupons.rows import to_record
from apps.coupons.services.log_pass import log_pass
from welding.documents.log_table import COLUMNS, RECKONED, cells_of, known_columns, read_table
from welding.evaluate.coupon import evaluate_coupon
from welding.language import tr

Kind = Literal["csv", "xlsx"]
TYPES: dict[str, str] = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}
LARGEST_BYTES = 2_000_000
LARGEST_UNPACKED = 20_000_000
Rows = list[list[Any]]


def log_file(coupon: Coupon, kind: Kind) -> bytes:
    """The log with what each pass gave; struck passes are left out."""
    document = coupon_document(coupon)
    results = {one.pass_number: one for one in evaluate_coupon(document).passes}
    rows: Rows = [[*(column.title for column in COLUMNS), *RECKONED]]
    records = passes_by_number(document)
    for row in coupon.passes.filter(struck=False, number__in=records).order_by("number"):
        record, result = records[row.number], results[row.number]
        flags = "; ".join(
            one.title + (f" ({one.explanation})" if one.explanation else "") for one in record.flags
        )
        ended = row.ended_at or row.logged_at
        rows.append(
            [
                *cells_of(record),
                _rounded(result.heat_input_kj_mm),
                _rounded(result.arc_energy_kj_mm),
                result.k,
                result.method,
                flags or None,
                row.logged_name,
                ended.isoformat(timespec="seconds"),
            ]
        )
    return _written(rows, kind, coupon.number)


def template_file(coupon: Coupon, kind: Kind) -> bytes:
    """An empty log with the passes that are still to weld."""
    log = evaluate_coupon(coupon_document(coupon))
    return _written(
        [[column.title for column in COLUMNS], *([number] for number in log.to_weld)], kind, coupon.number
    )


@transaction.atomic
def take_log(user: User, coupon: Coupon, data: bytes) -> list[PassLog]:
    """Log every row of a table; all of them or none. The same file again changes nothing.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: The file is no CSV and no XLSX, or too large.
        DocumentError: Rows cannot be read; every mistake has its line.
        ConflictError: A pass is in the log already, or the log is closed.
    """
    require(user, Action.LOG_PASS)
    if len(data) > LARGEST_BYTES:
        raise InvalidError(tr("A log has at most 2 MB."))
    if data.startswith(b"\xd0\xcf\x11\xe0"):
        raise InvalidError(
            tr("The workbook is encrypted or of an old kind: save it as XLSX without a password.")
        )
    records = read_table(_from_xlsx(data) if data.startswith(b"PK") else _from_csv(data))
    standing = {row.number: row for row in coupon.passes.filter(struck=False)}
    taken = []
    for record in records:
        there = standing.get(record.number)
        same = there is not None and replace(to_record(there), flags=()) == record
        taken.append(there if there and same else log_pass(user, coupon, uuid4(), record))
    return taken


def _rounded(value: float | None) -> float | None:
    return None if value is None else round(value, 4)


def _written(rows: Rows, kind: Kind, title: str) -> bytes:
    if kind == "csv":
        text = io.StringIO()
        csv.writer(text).writerows([[harmless(cell) for cell in row] for row in rows])
        return text.getvalue().encode("utf-8-sig")
    book = Workbook()
    sheet = book.worksheets[0]
    sheet.title = "".join(one for one in title if one not in "[]:*?/\\")[:31] or "log"
    for number, row in enumerate(rows, 1):
        for column, value in enumerate(row, 1):
            cell = sheet.cell(number, column)
            cell.value = value
            if isinstance(value, str):
                cell.data_type = "s"  # a text that begins with = is a text
            if number == 1:
                cell.font = Font(bold=True)
                sheet.column_dimensions[get_column_letter(column)].width = max(9, len(str(value)) + 2)
    sheet.freeze_panes = "B2"
    sink = io.BytesIO()
    book.save(sink)
    return sink.getvalue()


def _from_csv(data: bytes) -> Sequence[Sequence[Any]]:
    try:
        text = data.decode("utf-16" if data[:2] in (b"\xff\xfe", b"\xfe\xff") else "utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    if "\x00" in text:
        raise InvalidError(tr("This is neither CSV nor XLSX."))
    # Some programs end a line with a lone carriage return.
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    head = text.split("\n", 1)[0]
    try:
        # Names hold commas ("current, A"): the right delimiter is the one that gives names we know.
        delimiter = max(
            (",", ";", "\t"), key=lambda one: known_columns(next(csv.reader([head], delimiter=one), []))
        )
        rows = [list(row) for row in csv.reader(io.StringIO(text), delimiter=delimiter)]
    except csv.Error as error:
        raise InvalidError(tr("The file cannot be parted into columns: {error}.", error=error)) from error
    if not rows:
        raise InvalidError(tr("The file is empty."))
    if delimiter == ",":
        return [[_unharmed(cell) for cell in row] for row in rows]
    return [rows[0], *([_point(cell) for cell in row] for row in rows[1:])]


def _unharmed(cell: str) -> str:
    """Without the apostrophe that keeps a sheet from taking the text for a formula."""
    return cell[1:] if cell[:1] == "'" and harmless(cell[1:]) == cell else cell


def _point(cell: str) -> str:
    """A decimal comma as a point; words keep their commas."""
    plain = _unharmed(cell.strip())
    number = plain.replace(",", ".", 1)
    try:
        float(number)
    except ValueError:
        return plain
    return number


# What a workbook that is cut off, encrypted or put together by hand makes its reader raise.
_UNREADABLE = (
    zipfile.BadZipFile, InvalidFileException, LookupError, ValueError, TypeError, AttributeError,
    ArithmeticError, EOFError, OSError, RuntimeError, SyntaxError, AssertionError, struct.error, zlib.error,
    lzma.LZMAError,
)  # fmt: skip


def _from_xlsx(data: bytes) -> Sequence[Sequence[Any]]:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as parts:
            if sum(part.file_size for part in parts.infolist()) > LARGEST_UNPACKED:
                raise InvalidError(tr("The workbook unpacks to more than 20 MB: no log is that long."))
            if any(part.flag_bits & 1 for part in parts.infolist()):
                raise InvalidError(tr("The workbook is encrypted: save it without a password."))
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        sheet = book.worksheets[0]
        return [list(row) for row in sheet.iter_rows(values_only=True, max_row=1000, max_col=100)]
    except _UNREADABLE as error:
        raise InvalidError(tr("The workbook cannot be read: is it an XLSX that opens elsewhere?")) from error
