"""Dump the database and link every file that it names into a folder: one moment, while people work."""

from __future__ import annotations

import json
import os
import shutil
import subprocess
from dataclasses import asdict
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.files.storage import default_storage
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection, transaction

from apps.upkeep.contents import files, migrations, missing, tables

FORMAT = "grounded-bead-backup/1"


class Command(BaseCommand):
    """``manage.py dump FOLDER --pg-dump PROGRAM``."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to, and PostgreSQL's own program for it."""
        parser.add_argument("folder", type=Path)
        parser.add_argument("--pg-dump", required=True)

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it; what the database names and the disk lacks is printed, a line each."""
        folder: Path = options["folder"]
        with transaction.atomic():
            with connection.cursor() as cursor:
                cursor.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY")
                cursor.execute("SELECT pg_export_snapshot(), current_setting('server_version')")
                snapshot, version = cursor.fetchone()
            # Files first: a scan that is removed while the dump runs must still be in the backup.
            named = {one.name: one.sha256 for one in files()}
            kept = [name for name in named if _link(name, folder / "files")]
            told = {
                "format": FORMAT,
                "at": datetime.now(UTC).isoformat(timespec="seconds"),
                "database": settings.DATABASES["default"]["NAME"],
                "postgresql": version,
                "migrations": migrations(),
                "tables": {name: asdict(one) for name, one in tables().items()},
            }
            _pg_dump(options["pg_dump"], snapshot, folder / "database")
        gone = sorted(set(named) - set(kept))
        # Whoever removed a scan between the snapshot and now did so by right.
        still = {one.name for one in files()} if gone else set()
        lost = missing([name for name in gone if name in still])
        with (folder / "files.jsonl").open("w") as stream:
            for name in sorted(kept):
                path = folder / "files" / name
                line = {"name": name, "bytes": path.stat().st_size, "sha256": named[name]}
                stream.write(json.dumps(line) + "\n")
        (folder / "manifest.json").write_text(json.dumps({**told, "lost": lost}, indent=1) + "\n")
        heads = settings.HOME / f"audit-heads-{told['database']}.jsonl"
        if heads.exists():
            shutil.copyfile(heads, folder / "audit-heads.jsonl")
        for name in lost:
            self.stdout.write(name)


def _link(name: str, folder: Path) -> bool:
    """A second name for the file, so that it stays; a copy where the folder lies on another disk."""
    source, place = Path(default_storage.path(name)), folder / name
    place.parent.mkdir(parents=True, exist_ok=True)
    try:
        os.link(source, place)
    except FileExistsError:
        return True
    except FileNotFoundError:
        return False
    except OSError:
        try:
            shutil.copy2(source, place)
        except FileNotFoundError:
            return False
    return True


def _pg_dump(program: str, snapshot: str, place: Path) -> None:
    """In the folder format, not compressed: what did not change since the last backup is then found again."""
    told = settings.DATABASES["default"]
    done = subprocess.run(  # noqa: S603 - the program that ./bead found
        [program, "-Fd", "-Z0", "--no-owner", "--no-privileges", f"--snapshot={snapshot}", "-f", str(place)],
        env={**os.environ, **connection_variables(told)},
        capture_output=True,
        text=True,
        check=False,
        stdin=subprocess.DEVNULL,
    )
    if done.returncode:
        raise CommandError(f"pg_dump failed:\n{done.stderr[-1500:]}")


def connection_variables(told: dict[str, Any]) -> dict[str, str]:
    """What PostgreSQL's programs read from the environment: a command line would show the password."""
    ssl = {f"PG{name.upper()}": told["OPTIONS"].get(name) for name in ("sslmode", "sslrootcert")}
    found = {
        "PGHOST": told["HOST"],
        "PGPORT": told["PORT"],
        "PGUSER": told["USER"],
        "PGPASSWORD": told["PASSWORD"],
        "PGDATABASE": told["NAME"],
        **ssl,
    }
    return {name: str(value) for name, value in found.items() if value}
