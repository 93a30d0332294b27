"""A coupon's log as CSV or XLSX, its empty template, and a hand-written log read from either."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal
from uuid import uuid4

from api.errors import InvalidError
from api.sheets import is_workbook, rows_of_csv, rows_of_xlsx, written
from django.db import transaction

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
    return written(rows, kind, coupon.number)


def template_file(coupon: Coupon, kind: Kind) -> bytes:
    """An empty log with the passes that are still to weld."""
    log = evaluate_coupon(coupon_document(coupon))
    return written(
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
    if is_workbook(data):
        rows = rows_of_xlsx(data, most_rows=1000, most_unpacked=LARGEST_UNPACKED)
    else:
        rows = rows_of_csv(data, lambda rows: known_columns(rows[0]))
        # Semicolons and tabs part columns where the comma is the decimal sign.
        rows = [rows[0], *([_point(cell) for cell in row] for row in rows[1:])]
    records = read_table(rows)
    standing = {row.number: row for row in coupon.passes.filter(struck=False)}
    taken = []
    for record in records:
        there = standing.get(record.number)
        same = there is not None and replace(to_record(there), flags=()) == record
        taken.append(there if there and same else log_pass(user, coupon, uuid4(), record))
    return taken


def _rounded(value: float | None) -> float | None:
    return None if value is None else round(value, 4)


def _point(cell: str) -> str:
    """A decimal comma as a point; words keep their commas."""
    plain = cell.strip()
    number = plain.replace(",", ".", 1)
    try:
        float(number)
    except ValueError:
        return plain
    return number
