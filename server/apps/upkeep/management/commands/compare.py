"""Compare the database with the manifest of a backup: every table's rows, and every file's name and size."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.core.files.storage import default_storage
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from apps.upkeep.contents import Table, files, migrations, tables
from apps.upkeep.management.commands.dump import FORMAT


class Command(BaseCommand):
    """``manage.py compare FOLDER [--files]``."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """The folder with the manifest."""
        parser.add_argument("folder", type=Path)
        parser.add_argument("--files", action="store_true", help="the files on the disk too")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it; fails with every difference named."""
        folder: Path = options["folder"]
        told = json.loads((folder / "manifest.json").read_text())
        if told["format"] != FORMAT:
            raise CommandError(f"The backup is of the format {told['format']!r}, not {FORMAT!r}.")
        with transaction.atomic():
            wanted = {name: Table(**one) for name, one in told["tables"].items()}
            faults = list(_differences(wanted, tables()))
            if sorted(told["migrations"]) != migrations():
                faults.append("the migrations are not those of the backup")
            lines = [json.loads(one) for one in (folder / "files.jsonl").read_text().splitlines()]
            named = {one.name for one in files()}
        faults += [
            f"file {one['name']} is in the backup and no row names it"
            for one in lines
            if one["name"] not in named
        ]
        if options["files"]:
            faults += [fault for one in lines if (fault := _file(one))]
        if faults:
            raise CommandError("\n".join(faults[:50]))
        rows = sum(one.rows for one in wanted.values())
        self.stdout.write(f"{len(wanted)} tables with {rows} rows and {len(lines)} files are as they were")


def _differences(wanted: dict[str, Table], found: dict[str, Table]) -> Any:
    for name in sorted(wanted.keys() | found.keys()):
        before, after = wanted.get(name), found.get(name)
        if before is None or after is None:
            yield f"table {name} is {'not in the backup' if before is None else 'missing'}"
        elif before.rows != after.rows:
            yield f"table {name} has {after.rows} rows; the backup was made of {before.rows}"
        elif before.digest != after.digest:
            yield f"table {name} has other contents than the backup was made of"


def _file(line: dict[str, Any]) -> str:
    try:
        size = default_storage.size(line["name"])
    except OSError:
        return f"file {line['name']} is missing"
    return "" if size == line["bytes"] else f"file {line['name']} has {size} bytes, not {line['bytes']}"
