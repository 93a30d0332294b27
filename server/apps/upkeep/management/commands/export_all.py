"""Write everything as open files: tables as CSV, documents and signed bytes as JSON, files as they came."""

from __future__ import annotations

import hashlib
import json
import re
import shutil
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.core.files.storage import default_storage
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection, transaction
from psycopg import sql

from apps.coupons.models import Coupon
from apps.crew.models import Certificate, Statement
from apps.library.models import Record
from apps.procedures.models import Revision
from apps.qualification.models import QualificationRecord
from apps.trials.models import TrialEntry
from apps.upkeep.contents import FIXED, files

ACCESS = {"django_session", "accounts_budget", "accounts_seensession"}
"""Tables that only let people in; they are of no use to anybody else."""
SECRET = {"password", "token_hash", "secret", "codes"}
PIECE_BYTES = 1 << 20
README = """Everything that Grounded Bead kept, written {at} from one moment of the database.

tables/       one CSV file (UTF-8, the first line names the columns) for each table; all are in COLUMNS.csv
procedures/   each revision of a WPS: JOB/NUMBER-LETTER.json
records/      each signed qualification record, byte for byte as it was signed
certificates/ welders' certificates and the statements on them, byte for byte as they were signed
coupons/      each test coupon: the WPS it was welded to and what was said of the piece; passes are in
              tables/coupons_passlog.csv
library/      materials, fillers, gases, machines and the other records of the shop
trials/       test welds
files/        recordings (original/ as the recorder sent them; samples/ as Parquet; levels/ as NumPy, of use
              for drawing only), photos, scans
SHA256SUMS    sha256sum -c SHA256SUMS proves all of it

The schemas of the JSON documents are in docs/schemas of the program. Passwords, sessions and the keys of
recorders are left out. {rows} rows, {documents} documents, {files} files.
"""


class Command(BaseCommand):
    """``manage.py export_all FOLDER``."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to."""
        parser.add_argument("folder", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it."""
        folder: Path = options["folder"]
        if any(folder.iterdir()):
            raise CommandError(f"{folder} is not empty.")
        with transaction.atomic():
            with connection.cursor() as cursor:
                cursor.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY")
            rows = _tables(folder / "tables")
            documents = 0
            for name, text in _documents():
                _write(folder / name, text)
                documents += 1
            count = sum(_copy(one.name, folder / "files") for one in files())
        at = datetime.now(UTC).isoformat(timespec="seconds")
        _write(folder / "README.txt", README.format(at=at, rows=rows, documents=documents, files=count))
        _sums(folder)
        self.stdout.write(f"{rows} rows, {documents} documents and {count} files")


def _tables(folder: Path) -> int:
    folder.mkdir()
    with connection.cursor() as cursor:
        for statement in FIXED:
            cursor.execute(statement)
        cursor.execute(
            "SELECT c.table_name, c.column_name, c.data_type, c.is_nullable "
            "FROM information_schema.columns c "
            "JOIN information_schema.tables t USING (table_schema, table_name) "
            "WHERE c.table_schema = current_schema() AND t.table_type = 'BASE TABLE' "
            "ORDER BY c.table_name, c.ordinal_position"
        )
        columns = [one for one in cursor.fetchall() if one[0] not in ACCESS and one[1] not in SECRET]
        lines = ["table,column,type,may be empty", *(",".join(map(str, one)) for one in columns)]
        _write(folder / "COLUMNS.csv", "\n".join(lines) + "\n")
        rows = 0
        for table in sorted({one[0] for one in columns}):
            shown = sql.SQL(", ").join(sql.Identifier(one[1]) for one in columns if one[0] == table)
            query = sql.SQL("COPY (SELECT {shown} FROM {table} ORDER BY 1) TO STDOUT (FORMAT csv, HEADER)")
            with (
                (folder / f"{table}.csv").open("wb") as stream,
                cursor.copy(query.format(shown=shown, table=sql.Identifier(table))) as copied,
            ):
                for piece in copied:
                    stream.write(piece)
            cursor.execute(sql.SQL("SELECT count(*) FROM {table}").format(table=sql.Identifier(table)))
            rows += cursor.fetchone()[0]
    return rows


def _documents() -> Iterator[tuple[str, str]]:
    """Names and texts. What was signed or frozen is written from its bytes."""
    for one in Revision.objects.select_related("procedure__job").order_by("pk").iterator():
        number = _safe(one.procedure.number)
        name = f"procedures/{_safe(one.procedure.job.number)}/{number}-{one.letter}.json"
        yield name, one.body or _json(one.document)
    for record in QualificationRecord.objects.order_by("pk").iterator():
        yield f"records/{_safe(record.number)}.json", record.body
    for certificate in Certificate.objects.order_by("pk").iterator():
        yield f"certificates/{_safe(certificate.number)}.json", certificate.body
    for statement in Statement.objects.select_related("certificate").order_by("pk").iterator():
        number = _safe(statement.certificate.number)
        yield f"certificates/{number}-{statement.pk}-{_safe(statement.kind)}.json", statement.body
    for coupon in Coupon.objects.select_related("job").order_by("pk").iterator():
        told = {"number": coupon.number, "procedure": coupon.procedure_document, "piece": coupon.piece}
        yield f"coupons/{_safe(coupon.job.number)}/{_safe(coupon.number)}.json", _json(told)
    for kept in Record.objects.order_by("pk").iterator():
        yield f"library/{kept.kind}-{kept.pk}.json", _json(kept.document)
    for trial in TrialEntry.objects.order_by("pk").iterator():
        yield f"trials/{trial.pk}.json", _json(trial.document)


def _json(document: object) -> str:
    return json.dumps(document, ensure_ascii=False, indent=1) + "\n"


def _safe(name: str) -> str:
    """As a file's name on any system; a name that had to be changed carries the hash of what it was."""
    plain = re.sub(r"[^A-Za-z0-9._-]", "_", name).strip(".")
    return plain if plain == name else f"{plain}~{hashlib.sha256(name.encode()).hexdigest()[:8]}"


def _write(path: Path, text: str) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    with path.open("x", encoding="utf-8", newline="") as stream:  # two of one name would be a lost one
        stream.write(text)


def _copy(name: str, folder: Path) -> bool:
    place = folder / name
    place.parent.mkdir(parents=True, exist_ok=True)
    try:
        with default_storage.open(name) as source, place.open("xb") as stream:
            shutil.copyfileobj(source, stream, PIECE_BYTES)
    except FileNotFoundError:
        raise CommandError(f"The database names {name}, which is not there. See audit verify.") from None
    return True


def _sums(folder: Path) -> None:
    lines = []
    for path in sorted(folder.rglob("*")):
        if path.is_file():
            with path.open("rb") as stream:
                digest = hashlib.file_digest(stream, "sha256").hexdigest()
            lines.append(f"{digest}  {path.relative_to(folder)}\n")
    (folder / "SHA256SUMS").write_text("".join(lines))
