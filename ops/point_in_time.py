"""Back to a moment: from a copy of the data folder, PostgreSQL plays its log of changes up to then.

For the cluster of our own. pg_basebackup, archive_command and pg_archivecleanup do the work.
"""

from __future__ import annotations

import argparse
import os
import re
import shutil
import tarfile
import time
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from ops import log_archive
from ops.cluster import Cluster
from ops.database import SERVED, database
from ops.places import only_one, secret
from ops.roles import PASSWORDS, ROLE
from ops.say import BACKUP, DATABASE, USAGE, Step, Stop, say
from ops.web import WebServer

KEPT_COPIES = 2
"""So many copies are kept, and the log from the older one on."""
PATIENCE_S = 3600
_LOG_FILE = re.compile(r"[0-9A-F]{24}")
_COPY = re.compile(r"copy-(\d{8}T\d{6})Z")


def _own() -> tuple[Cluster, Path]:
    place = log_archive.place()
    if place is None:
        raise Stop(f"{log_archive.VARIABLE} does not say where the log of changes is kept.", USAGE)
    base = database()
    if not isinstance(base, Cluster):
        raise Stop("The database is kept by others (BEAD_DATABASE_URL), and so is its log.", USAGE)
    return base, place


def hand_over_log(base: Cluster) -> None:
    """End the running file of the log, after a last change of its own, and wait until it is kept.

    Raises:
        Stop: It is not kept within two minutes.
    """
    base.sql("select txid_current()")
    last = base.sql("select pg_walfile_name(pg_switch_wal())").stdout.strip()
    for _ in range(240 if _LOG_FILE.fullmatch(last) else 0):
        kept = base.sql("select coalesce(max(last_archived_wal), '') from pg_stat_archiver")
        if kept.returncode == 0 and kept.stdout.strip() >= last:
            return
        time.sleep(0.5)
    raise Stop("The log of changes is not kept; see the database's log. Nothing was changed.", DATABASE)


def copies(place: Path) -> list[tuple[datetime, Path]]:
    """Copies of the data folder with the moment each was begun, the oldest first."""
    found = [
        (datetime.strptime(match[1], "%Y%m%dT%H%M%S").replace(tzinfo=UTC), path)
        for path in place.iterdir()
        if (match := _COPY.fullmatch(path.name))
    ]
    return sorted(found)


def copy(_: argparse.Namespace) -> int:
    """Copy the data folder, and drop what no copy needs any more."""
    base, place = _own()
    with only_one():
        base.start()
        if base.sql("show archive_mode").stdout.strip() != "on":
            raise Stop(
                "The database runs without its log being kept: ./bead stop, then start it anew.", USAGE
            )
        name = f"copy-{datetime.now(UTC):%Y%m%dT%H%M%S}Z"
        new = place / f"{name}.new"
        with Step("copying the database"):
            done = base.call(
                "pg_basebackup",
                *base.reached_as(ROLE),
                *("-D", str(new), "-Ft", "-z", "-X", "none", "-c", "fast", "--no-password"),
                env={"PGPASSWORD": secret(PASSWORDS[ROLE])},
            )
            if done.returncode:
                shutil.rmtree(new, ignore_errors=True)
                raise Stop(f"The database cannot be copied:\n{done.stdout[-1500:]}", DATABASE)
            new.rename(place / name)
        there = [path for _, path in copies(place)]
        for path in there[:-KEPT_COPIES]:
            shutil.rmtree(path)
        oldest = first_log_of(there[-KEPT_COPIES:][0])
        base.call("pg_archivecleanup", str(log_archive.log_folder(place)), oldest)
    say(f"{name} lies in {place}; with the log beside it the database can go back to any moment from now on.")
    return 0


def first_log_of(path: Path) -> str:
    """Name of the first file of the log that a copy needs.

    Raises:
        Stop: The copy is not whole.
    """
    with tarfile.open(path / "base.tar.gz") as whole:
        label = whole.extractfile("backup_label")
        found = re.search(rb"START WAL LOCATION: \S+ \(file ([0-9A-F]{24})\)", label.read() if label else b"")
    if found is None:
        raise Stop(f"{path} is no whole copy of the data.", BACKUP)
    return found[1].decode()


def rewind(options: argparse.Namespace) -> int:
    """Bring the database to a moment; the data of now is set aside."""
    base, place = _own()
    moment: datetime = options.to
    if moment > datetime.now(UTC):
        raise Stop(f"{moment.isoformat()} has not come yet.", USAGE)
    fitting = [path for at, path in copies(place) if at <= moment] if place.is_dir() else []
    if not fitting:
        raise Stop(f"No copy of the data in {place} is as old as {moment.isoformat()}.", USAGE)
    with only_one():
        WebServer().stop()
        if base.data.exists():
            # What was changed last is still in the running log: it is handed over first.
            base.start()
            hand_over_log(base)
            base.stop()
        with Step(f"bringing the database to {moment.isoformat()}"):
            aside = _begin_from(base, fitting[-1], place, moment)
    if aside:
        say(f"The data of before lies in {aside}.")
    say("Files are as they are now; ./bead audit verify names those that a row of that moment misses.")
    say("./bead serve starts it. Take a new copy soon: ./bead copy-data")
    return 0


def _begin_from(base: Cluster, copied: Path, place: Path, moment: datetime) -> Path | None:
    new = base.folder / "data.new"
    shutil.rmtree(new, ignore_errors=True)
    new.mkdir(mode=0o700, parents=True)
    with tarfile.open(copied / "base.tar.gz") as whole:
        whole.extractall(new, filter="tar")
    (new / "pg_wal").mkdir(exist_ok=True)
    (new / "recovery.signal").write_text("")
    if os.geteuid() == 0:
        for path in (new, *new.rglob("*")):
            shutil.chown(path, "postgres", "postgres")
    aside = None
    if base.data.exists():
        aside = base.data.with_name(f"data.before_{datetime.now(UTC):%Y%m%dT%H%M%S}")
        base.data.rename(aside)
    new.rename(base.data)
    try:
        base.start(*log_archive.fetching(place, moment.isoformat(sep=" ")))
        _wait_until_there(base)
    except Stop:
        base.stop()
        if aside is not None:
            shutil.rmtree(base.folder / "data.failed", ignore_errors=True)  # of an earlier try
            base.data.rename(base.folder / "data.failed")
            aside.rename(base.data)
        raise
    return aside


def _wait_until_there(base: Cluster) -> None:
    end = time.monotonic() + PATIENCE_S
    while time.monotonic() < end:
        state = base.sql("select pg_is_in_recovery()")
        if state.returncode == 0 and state.stdout.strip() == "f":
            return
        if state.returncode and not base.running():
            tail = (base.folder / "server.log").read_text(errors="replace")[-1500:]
            raise Stop(
                f"The log does not lead to that moment; nothing was changed. It ends:\n{tail}", DATABASE
            )
        time.sleep(0.2)
    raise Stop("The log was not played to its end within an hour.", DATABASE)


def moment_of(text: str) -> datetime:
    """A moment with its offset from UTC, as ``2026-11-28T10:00:00+01:00``."""
    try:
        found = datetime.fromisoformat(text)
    except ValueError:
        raise argparse.ArgumentTypeError(f"{text} does not read like 2026-11-28T10:00:00+01:00") from None
    if found.tzinfo is None:
        raise argparse.ArgumentTypeError(f"{text} names no offset from UTC: add Z or +01:00")
    return found.astimezone(UTC)


def add_commands(add: Any) -> None:
    """Put the commands into the parser."""
    add("copy-data", copy, "copy the database, as the start for going back to a moment")
    back = add("rewind", rewind, f"bring the database {SERVED} back to a moment")
    back.add_argument(
        "--to", type=moment_of, required=True, metavar="TIME", help="as 2026-11-28T10:00:00+01:00"
    )
