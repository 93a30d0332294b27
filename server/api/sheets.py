"""CSV and XLSX as rows of cells: read whatever wrote them, refused with a reason, and written."""

from __future__ import annotations

import csv
import io
import lzma
import struct
import zipfile
import zlib
from collections.abc import Callable, Sequence
from typing import Any

from openpyxl import Workbook, load_workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter
from openpyxl.utils.exceptions import InvalidFileException

from api.downloads import harmless
from api.errors import InvalidError
from welding.language import tr

Rows = list[list[Any]]
DELIMITERS = (",", ";", "\t")
HEAD_ROWS = 40
"""Rows by which the delimiter of a CSV file is told."""
NO_VALUE = "#FORMULA!"
"""Stands for a formula whose value the workbook does not keep."""


def is_workbook(data: bytes) -> bool:
    """Whether the bytes are those of a workbook.

    Raises:
        InvalidError: An old or encrypted one.
    """
    if data.startswith(b"\xd0\xcf\x11\xe0"):
        raise InvalidError(
            tr("The workbook is encrypted or of an old kind: save it as XLSX without a password.")
        )
    return data.startswith(b"PK")


def rows_of_csv(data: bytes, known: Callable[[list[list[str]]], int]) -> Rows:
    """Rows of a CSV file in any usual encoding.

    Args:
        data: The file.
        known: How many columns the first rows name that we know, by which the delimiter is told: names
            hold commas, too.

    Raises:
        InvalidError: It is no CSV, or empty.
    """
    try:
        text = data.decode("utf-16" if data[:2] in (b"\xff\xfe", b"\xfe\xff") else "utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    if "\x00" in text:
        raise InvalidError(tr("This is neither CSV nor XLSX."))
    # Some programs end a line with a lone carriage return.
    lines = text.replace("\r\n", "\n").replace("\r", "\n")
    head = "\n".join(lines.split("\n", HEAD_ROWS)[:HEAD_ROWS])
    try:
        delimiter = max(DELIMITERS, key=lambda one: known(_parted(head, one) or [[]]))
        rows = _parted(lines, delimiter)
    except csv.Error as error:
        raise InvalidError(tr("The file cannot be parted into columns: {error}.", error=error)) from error
    if not rows:
        raise InvalidError(tr("The file is empty."))
    return [[_unharmed(cell) for cell in row] for row in rows]


def _parted(text: str, delimiter: str) -> list[list[str]]:
    return list(csv.reader(io.StringIO(text), delimiter=delimiter))


def _unharmed(cell: str) -> str:
    """Without the apostrophe that keeps a sheet from taking the text for a formula."""
    return cell[1:] if cell[:1] == "'" and harmless(cell[1:]) == cell else cell


# What a workbook that is cut off, encrypted or put together by hand makes its reader raise.
_UNREADABLE = (
    zipfile.BadZipFile, InvalidFileException, LookupError, ValueError, TypeError, AttributeError,
    ArithmeticError, EOFError, OSError, RuntimeError, SyntaxError, AssertionError, struct.error, zlib.error,
    lzma.LZMAError,
)  # fmt: skip


def rows_of_xlsx(data: bytes, *, most_rows: int, most_unpacked: int, most_columns: int = 100) -> Rows:
    """Rows of a workbook's first sheet, values of formulas as the workbook keeps them.

    Raises:
        InvalidError: It cannot be read, is encrypted, or unpacks to more than ``most_unpacked`` bytes.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as parts:
            if sum(part.file_size for part in parts.infolist()) > most_unpacked:
                megabytes = round(most_unpacked / 1e6)
                raise InvalidError(
                    tr(
                        "The workbook unpacks to more than {most} MB: no such list is that long.",
                        most=megabytes,
                    )
                )
            if any(part.flag_bits & 1 for part in parts.infolist()):
                raise InvalidError(tr("The workbook is encrypted: save it without a password."))
            sheets = [name for name in parts.namelist() if name.startswith("xl/worksheets/")]
            has_formulas = any(b"<f" in parts.read(name) for name in sheets)
        reach = {"values_only": True, "max_row": most_rows, "max_col": most_columns}
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        rows = [_trimmed(row) for row in book.worksheets[0].iter_rows(**reach)]
        if has_formulas:
            written = load_workbook(io.BytesIO(data), read_only=True).worksheets[0].iter_rows(**reach)
            for row, formulas in zip(rows, written, strict=False):
                row += [None] * (len(formulas) - len(row))
                for at, formula in enumerate(formulas):
                    if row[at] is None and str(formula or "").startswith("="):
                        row[at] = NO_VALUE
            rows = [_trimmed(row) for row in rows]
    except _UNREADABLE as error:
        raise InvalidError(tr("The workbook cannot be read: is it an XLSX that opens elsewhere?")) from error
    return rows


def _trimmed(row: Sequence[Any]) -> list[Any]:
    """Without the empty cells behind the last one that is filled."""
    last = max((at for at, cell in enumerate(row, start=1) if cell is not None), default=0)
    return list(row[:last])


TYPES: dict[str, str] = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}


def written(rows: Sequence[Sequence[Any]], kind: str, title: str) -> bytes:
    """Rows as a file, the first of them as headings; no text in it becomes a formula.

    Args:
        rows: Cells; ``None`` and empty texts stay empty.
        kind: ``csv`` or ``xlsx``.
        title: Name of the sheet.
    """
    if kind == "csv":
        text = io.StringIO()
        csv.writer(text).writerows([[harmless(cell) for cell in row] for row in rows])
        return text.getvalue().encode("utf-8-sig")
    book = Workbook()
    sheet = book.worksheets[0]
    sheet.title = "".join(one for one in title if one not in "[]:*?/\\")[:31] or "log"
    for number, row in enumerate(rows, 1):
        for column, value in enumerate(row, 1):
            if value is None or value == "":
                continue
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


def workbook(sheets: Sequence[tuple[str, Sequence[str], Sequence[Sequence[Any]]]]) -> bytes:
    """Several tables as a workbook; no text in it becomes a formula.

    Args:
        sheets: Of each its title, its headings and its rows.
    """
    book = Workbook()
    book.remove(book.worksheets[0])
    for title, head, rows in sheets:
        sheet = book.create_sheet(title)
        sheet.append(list(head))
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        for row in rows:
            sheet.append([harmless(value) for value in row])
        for index, heading in enumerate(head, start=1):
            widest = max((len(str(row[index - 1])) for row in rows), default=0)
            width = min(max(widest, len(heading)) + 2, 60)
            sheet.column_dimensions[get_column_letter(index)].width = width
        sheet.freeze_panes = "A2"
    sink = io.BytesIO()
    book.save(sink)
    return sink.getvalue()
