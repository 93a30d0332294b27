"""Backups: taken while people work, proved by bringing them back, restored on an empty machine."""

from __future__ import annotations

import argparse
import json
import os
import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from ops.borg import KEPT, KEPT_DAYS, Repository
from ops.cluster import Cluster
from ops.database import DEMO, SERVED, Database, database, name_of
from ops.environment import make_venv
from ops.external import External
from ops.places import home, only_one, write_whole
from ops.roles import MIGRATES
from ops.say import USAGE, Step, Stop, say
from ops.system import install_packages
from ops.user import own_folders, web_user
from ops.web import WebServer, manage

STAGING, PROVING = "backup", "bead_proving"
HEADS = "audit-heads.jsonl"


def place_of(options: argparse.Namespace) -> Repository:
    """Where the backups lie.

    Raises:
        Stop: Nobody said it.
    """
    place = options.place or os.environ.get("BEAD_BACKUPS", "")
    if not place:
        raise Stop(
            "Say where the backups lie: a folder on another disk, or ssh://NAME@HOST/FOLDER, as --place or "
            "in BEAD_BACKUPS.",
            USAGE,
        )
    inside = Path(place).resolve()
    if "://" not in place and inside.is_relative_to(home()):
        raise Stop(f"{inside} lies in the state folder itself and would be lost with it.", USAGE)
    return Repository(place, options.passphrase_file)


def _ready() -> None:
    install_packages(for_tests=False, for_backups=True)
    make_venv(for_tests=False)


@contextmanager
def _folder(name: str) -> Iterator[Path]:
    """An empty folder in the state folder, for the web server's user, gone afterwards."""
    folder = home() / name
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(mode=0o700)
    user = web_user()
    if user is not None:
        os.chown(folder, user.uid, user.gid)
    try:
        yield folder
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def backup(options: argparse.Namespace) -> int:
    """Take one; exit 1 if files that the database names are not on the disk."""
    _ready()
    where = place_of(options)
    with only_one():
        base = database(demo=options.demo)
        base.start()
        name = name_of(base, demo=options.demo)
        if isinstance(base, Cluster) and not base.has(name):
            raise Stop("There is nothing to back up yet: no server was started on this state folder.", USAGE)
        if not where.exists():
            where.make(encrypted=options.encrypt)
        elif options.encrypt and not where.encrypted():
            raise Stop(f"The backups in {where.place} are not encrypted. Name another place.", USAGE)
        called = f"{name}-{datetime.now(UTC):%Y%m%dT%H%M%S}"
        with _folder(STAGING) as folder:
            with Step("dumping the database"):
                lost = _dump(base, name, folder, demo=options.demo)
            with Step("keeping it"):
                where.add(called, folder)
            told = json.loads((folder / "manifest.json").read_text())
            files = len((folder / "files.jsonl").read_text().splitlines())
        if not options.keep_all:
            with Step("dropping old ones"):
                where.drop_old(name)
    rows = sum(one["rows"] for one in told["tables"].values())
    _note("backup", name, backup=called, place=where.place, rows=rows, files=files, lost=len(lost))
    say(f"Backup {called}: {len(told['tables'])} tables, {rows} rows, {files} files, in {where.place}")
    if where.encrypted():
        say(f"It is encrypted: keep a copy of {home() / 'backup-passphrase'} apart from it.")
    if lost:
        raise Stop(
            f"{len(lost)} files that the database names are not on the disk and are in no backup of today:\n"
            + "\n".join(f"  {one}" for one in lost[:20]),
            1,
        )
    return 0


def _dump(base: Database, name: str, folder: Path, *, demo: bool) -> list[str]:
    program = str(base.programs / "pg_dump")
    said = manage(base.url(name, MIGRATES), "dump", str(folder), "--pg-dump", program, demo=demo)
    return [line for line in said.splitlines() if line.strip()]


def listed(options: argparse.Namespace) -> int:
    """Name the backups, the newest first."""
    _ready()
    where = place_of(options)
    for name, at in reversed(where.names()):
        say(f"{name}  {at[:19].replace('T', ' ')}")
    return 0


def _note(what: str, database_name: str, **told: object) -> None:
    """Leave word for the page of the administrator: what was done last with this database, and when."""
    at = datetime.now(UTC).isoformat(timespec="seconds")
    write_whole(home() / f"last-{what}-{database_name}.json", json.dumps({"at": at, **told}))


def verify(options: argparse.Namespace) -> int:
    """Read all of a backup, and bring it back beside the data of today."""
    _ready()
    where = place_of(options)
    of = name_of(database(demo=options.demo), demo=options.demo)
    name = options.backup or where.newest(of)
    try:
        said = _prove(name, where)
    except Stop as stop:
        _note("proof", of, backup=name, place=where.place, held=False, said=str(stop)[:500])
        raise
    _note("proof", of, backup=name, place=where.place, held=True)
    say(said)
    return 0


def _prove(name: str, where: Repository) -> str:
    with only_one(), _folder("proving") as folder:
        with Step("reading every byte of the backups"):
            where.check()
        with Step("comparing the files with their hashes"):
            where.take_out(name, folder, "manifest.json", "files.jsonl")
            count = _prove_files(where, name, folder)
        with Step("bringing the database back"):
            where.take_out(name, folder, "database", *_heads(where, name))
            cluster = Cluster()
            cluster.start()
            try:
                said = load_and_compare(cluster, PROVING, folder)
            finally:
                cluster.drop_database(PROVING)
        told = json.loads((folder / "manifest.json").read_text())
    held = f"{said.strip()}; {count} files have the bytes that were kept."
    return f"Backup {name} of {told['at']}: {held}"


def _chosen(options: argparse.Namespace, where: Repository) -> str:
    """The backup that was named, or the newest of the database that is served."""
    named: str | None = options.backup
    return named or where.newest(name_of(database(demo=options.demo), demo=options.demo))


def _heads(where: Repository, name: str) -> list[str]:
    return [HEADS] if any(one.path == HEADS for one in where.entries(name)) else []


def _prove_files(where: Repository, name: str, folder: Path) -> int:
    """Every file of the backup against its size, and the hash that its row keeps."""
    kept = {one.path: one for one in where.entries(name)}
    faults, count = [], 0
    for text in (folder / "files.jsonl").read_text().splitlines():
        line: dict[str, Any] = json.loads(text)
        found = kept.get(f"files/{line['name']}")
        if found is None:
            faults.append(f"{line['name']} is not in it")
        elif found.size != line["bytes"]:
            faults.append(f"{line['name']} has {found.size} bytes, not {line['bytes']}")
        elif line["sha256"] and found.sha256 != line["sha256"]:
            faults.append(f"{line['name']} has other bytes than its row keeps the hash of")
        count += 1
    if faults:
        raise Stop(f"Backup {name} is not whole:\n" + "\n".join(f"  {one}" for one in faults[:50]), 1)
    return count


def load_and_compare(cluster: Cluster, name: str, folder: Path) -> str:
    """Make the database, fill it from the dump and compare it with the manifest."""
    own = web_user()
    for path in (folder, folder / "manifest.json", folder / "files.jsonl"):
        if own is not None:
            os.chown(path, own.uid, own.gid)
    cluster.drop_database(name)
    cluster.make_database(name)
    cluster.make_roles(name)
    cluster.load(name, folder / "database")
    try:
        return manage(cluster.url(name, MIGRATES), "compare", str(folder))
    except Stop as stop:
        raise Stop(f"What came back is not what was kept:\n{stop}", 1) from None


def restore(options: argparse.Namespace) -> int:
    """Bring a backup back; what stands there now is set aside, never written over."""
    _ready()
    with only_one():
        said = bring_back(options, _chosen(options, place_of(options)), replace=options.replace)
    say(said)
    say(f"./bead {'demo' if options.demo else 'serve'} starts it; ./bead audit verify proves the trail.")
    return 0


def bring_back(options: argparse.Namespace, name: str, *, replace: bool) -> str:
    """Prove a backup beside what stands there, and only then let it take its place."""
    base = database(demo=options.demo)
    if isinstance(base, External):
        raise Stop(
            "The database is kept by others (BEAD_DATABASE_URL). ./bead take-out brings the dump and "
            "the files back; whoever keeps the server loads the dump with pg_restore.",
            USAGE,
        )
    where = place_of(options)
    database_name = DEMO if options.demo else SERVED
    with _folder("proving") as folder:
        web = WebServer()
        base.start()
        aside = _stands(base, database_name)
        if aside and not replace:
            raise Stop(
                f"There is data in this folder already ({', '.join(aside)}). With --replace it is set aside "
                "under another name, and the backup takes its place.",
                USAGE,
            )
        with Step("fetching the backup"):
            where.take_out(name, folder)
        with Step("loading the database"):
            said = load_and_compare(base, PROVING, folder)
        # Only now, with everything proved, does it take the place of what stands there.
        web.stop()
        _set_aside(base, database_name)
        base.rename_database(PROVING, database_name)
        place_files(folder, database_name)
        with Step("comparing the files"):
            manage(base.url(database_name, MIGRATES), "compare", str(folder), "--files", demo=options.demo)
    return f"Backup {name} is back: {said.strip()}."


def _stands(base: Cluster, name: str) -> list[str]:
    files = home() / "files" / name
    has_files = files.is_dir() and any(one.is_file() for one in files.rglob("*"))
    return [*(["database"] if base.has(name) else []), *(["files"] if has_files else [])]


def _set_aside(base: Cluster, name: str) -> None:
    """Rename what stands there, with the moment in its name."""
    mark = f"before_{datetime.now(UTC):%Y%m%dT%H%M%S}"
    if base.has(name):
        base.rename_database(name, f"{name}_{mark}")
        say(f"  The database of before is called {name}_{mark}.")
    for path in (home() / "files" / name, home() / f"audit-heads-{name}.jsonl"):
        if path.exists():
            path.rename(path.with_name(f"{path.name}.{mark}"))


def place_files(folder: Path, name: str) -> None:
    """Give the files their place, and to the user of the web server."""
    (home() / "files").mkdir(exist_ok=True)
    source = folder / "files"
    source.mkdir(exist_ok=True)
    for path in (source, *source.rglob("*")):
        path.chmod(0o700 if path.is_dir() else 0o600)
    source.rename(home() / "files" / name)
    heads = folder / HEADS
    if heads.exists():
        heads.rename(home() / f"audit-heads-{name}.jsonl")
        (home() / f"audit-heads-{name}.jsonl").chmod(0o600)
    own_folders(web_user())


def take_out(options: argparse.Namespace) -> int:
    """Bring a backup's dump and files into a folder, and leave everything else as it is."""
    _ready()
    where = place_of(options)
    folder = Path(options.folder).resolve()
    if folder.exists() and any(folder.iterdir()):
        raise Stop(f"{folder} is not empty.", USAGE)
    name = _chosen(options, where)
    where.take_out(name, folder)
    say(f"Backup {name} lies in {folder}: database/ (for pg_restore), files/, manifest.json")
    return 0


def add_place(command: argparse.ArgumentParser) -> None:
    """What every command on backups is told."""
    command.add_argument("--place", help="folder or ssh://… of the backups (default: of BEAD_BACKUPS)")
    command.add_argument("--passphrase-file", type=Path, help="of encrypted backups of another machine")
    command.add_argument("--demo", action="store_true", help="of the demo's data")


def export_all(options: argparse.Namespace) -> int:
    """Write everything as open files into an empty folder."""
    make_venv(for_tests=False)
    folder = Path(options.folder).resolve()
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    if any(folder.iterdir()):
        raise Stop(f"{folder} is not empty.", USAGE)
    with only_one(), _folder("export") as staging:
        base = database(demo=options.demo)
        base.start()
        name = name_of(base, demo=options.demo)
        with Step("writing everything"):
            said = manage(base.url(name, MIGRATES), "export_all", str(staging), demo=options.demo)
        for path in staging.iterdir():
            shutil.move(path, folder / path.name)
        for path in folder.rglob("*"):
            os.chown(path, os.geteuid(), os.getegid())
    say(f"{said.strip()} lie in {folder}; README.txt there says what is where.")
    return 0


def add_commands(add: Any) -> None:
    """Put the commands into the parser."""
    keeps = ", ".join(f"{count} {kind}" for kind, count in KEPT.items())
    text = f"take a backup while people work; all of {KEPT_DAYS} days are kept, then {keeps}"
    one = add("backup", backup, text)
    one.add_argument("--encrypt", action="store_true", help="where the place is new: encrypt what lies there")
    one.add_argument("--keep-all", action="store_true", help="drop no old ones")
    proved = add("verify", verify, "read a backup byte by byte and bring it back beside the data of today")
    back = add("restore", restore, "bring a backup back, on an empty machine or in place of what is there")
    back.add_argument("--replace", action="store_true", help="set aside what stands there")
    out = add("take-out", take_out, "bring a backup's dump and files into a folder")
    out.add_argument("folder")
    whole = add("export-all", export_all, "write everything as open files: CSV, JSON, recordings, photos")
    whole.add_argument("folder")
    whole.add_argument("--demo", action="store_true", help="of the demo's data")
    for command in (one, proved, back, out, add("backups", listed, "name the backups")):
        add_place(command)
    for command in (proved, back, out):
        command.add_argument("--backup", metavar="NAME", help="which one (default: the newest)")
