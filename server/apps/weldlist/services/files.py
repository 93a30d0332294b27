"""A list as a file: read from CSV or XLSX, and written again."""

from __future__ import annotations

from api.errors import InvalidError
from api.sheets import Rows, is_workbook, rows_of_csv, rows_of_xlsx, written

from apps.weldlist.queries import StandingList
from welding.documents.weld_list import MOST_JOINTS
from welding.language import tr
from welding.weldlist.columns import COLUMNS, column_title
from welding.weldlist.grid import MOST_COLUMNS, MOST_HEADINGS, known_headings

LARGEST_BYTES = 20_000_000
LARGEST_UNPACKED = 100_000_000


def grid_of(data: bytes) -> Rows:
    """Cells of a file.

    Raises:
        InvalidError: It is no list of ours, or longer than a list may be.
    """
    if not data:
        raise InvalidError(tr("The file is empty."))
    if len(data) > LARGEST_BYTES:
        raise InvalidError(tr("A weld list has at most {most} MB.", most=LARGEST_BYTES // 1_000_000))
    most = MOST_JOINTS + MOST_HEADINGS
    if is_workbook(data):
        rows = rows_of_xlsx(
            data, most_rows=most + 1, most_unpacked=LARGEST_UNPACKED, most_columns=MOST_COLUMNS
        )
    else:
        rows = rows_of_csv(data, known_headings)
    if len(rows) > most:
        raise InvalidError(tr("A weld list has at most {most} joints: part it.", most=MOST_JOINTS))
    return rows


def list_file(standing: StandingList, kind: str) -> bytes:
    """The list with all of its columns, as it was written, and what is wrong in words."""
    rows = [[*(column_title(name) for name in COLUMNS), tr("Problems")]]
    for row in standing.rows:
        problems = "; ".join(f"{one.column}: {one.message}" for one in row.read.problems)
        rows.append([*(row.cells.get(name, "") for name in COLUMNS), problems])
    return written(rows, kind, tr("Weld list"))
