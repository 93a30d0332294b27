"""How the server stands, for its administrator: backups, proofs, disk, long work, recorders."""

from __future__ import annotations

import json
import shutil
import tomllib
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import lru_cache
from typing import Any, Literal

from django.conf import settings
from django.db import connection
from django.utils import timezone

from apps.accounts.models import SeenSession
from apps.background.models import Work
from apps.printing.models import PrintRun
from apps.recordings.models import Recorder
from apps.weldlist.models import CouponSearch
from welding.language import tr

Mark = Literal["holds", "caution", "breach", "unknown"]
DAY = timedelta(days=1)
BACKUP_DUE, BACKUP_LATE = timedelta(hours=36), timedelta(days=7)
PROOF_DUE = timedelta(days=9)
SILENT = timedelta(days=1)
LITTLE_ROOM, NO_ROOM = 0.10, 0.02
LOG_LATE = timedelta(minutes=15)


@dataclass(frozen=True, slots=True)
class Fact:
    """One thing that is known of the server, and whether somebody has to do something about it."""

    what: str
    said: str
    mark: Mark
    todo: str = ""


@lru_cache(maxsize=1)
def version() -> str:
    """Of the program."""
    return str(tomllib.loads((settings.ROOT / "pyproject.toml").read_text())["project"]["version"])


def facts(now: datetime) -> list[Fact]:
    """Everything, what has to be done first."""
    found = [
        *_backups(now),
        _audit(now),
        _log_archive(now),
        _disk(),
        *_work(now),
        *_recorders(now),
        _people(now),
        _program(),
    ]
    order: list[Mark] = ["breach", "caution", "unknown", "holds"]
    return sorted(found, key=lambda one: order.index(one.mark))


def _note(what: str, *keys: str) -> dict[str, Any] | None:
    """What ./bead left word of about this database; nothing where it is missing or cannot be read."""
    path = settings.HOME / f"last-{what}-{settings.DATABASES['default']['NAME']}.json"
    try:
        told = json.loads(path.read_text())
        at = datetime.fromisoformat(told["at"])
        return None if at.tzinfo is None else {**{key: told[key] for key in keys}, "at": at}
    except (OSError, ValueError, KeyError, TypeError):
        return None


def _when(at: datetime) -> str:
    return timezone.localtime(at).strftime("%Y-%m-%d %H:%M")


def _backups(now: datetime) -> Iterator[Fact]:
    told, what = _note("backup", "rows", "files", "place", "lost"), tr("Backup")
    take = tr("Take one with ./bead backup, and let a timer do it nightly (docs/operations.md).")
    if told is None:
        yield Fact(what, tr("None has been taken."), "breach", take)
        return
    age = now - told["at"]
    said = tr(
        "{at}: {rows} rows, {files} files, in {place}",
        at=_when(told["at"]),
        rows=told["rows"],
        files=told["files"],
        place=told["place"],
    )
    mark: Mark = "holds" if age < BACKUP_DUE else "caution" if age < BACKUP_LATE else "breach"
    yield Fact(what, said, mark, "" if mark == "holds" else take)
    if told["lost"]:
        lost = tr("{count} files that the database names are not on the disk.", count=told["lost"])
        yield Fact(what, lost, "breach", tr("./bead audit verify names them; older backups may have them."))
    yield _proof(now)


def _proof(now: datetime) -> Fact:
    told, what = _note("proof", "backup", "held"), tr("Proof of the backup")
    take = tr("./bead verify brings the newest one back beside the data of today, and compares.")
    if told is None:
        return Fact(what, tr("No backup has been brought back yet."), "caution", take)
    if told["held"] is not True:
        said = tr(
            "{at}: {backup} did not come back as it was kept.", at=_when(told["at"]), backup=told["backup"]
        )
        return Fact(what, said, "breach", take)
    fresh = now - told["at"] < PROOF_DUE
    said = tr("{at}: {backup} brought back and compared", at=_when(told["at"]), backup=told["backup"])
    return Fact(what, said, "holds" if fresh else "caution", "" if fresh else take)


def _audit(now: datetime) -> Fact:
    what, take = tr("Audit trail"), tr("./bead audit verify proves it and everything signed.")
    notes = settings.HOME / f"audit-heads-{settings.DATABASES['default']['NAME']}.jsonl"
    try:
        at = datetime.fromisoformat(json.loads(notes.read_text().splitlines()[-1])["at"])
    except (OSError, ValueError, KeyError, IndexError):
        return Fact(what, tr("It has not been proved yet."), "caution", take)
    fresh = now - at < PROOF_DUE
    said = tr("proved {at}", at=_when(at))
    return Fact(what, said, "holds" if fresh else "caution", "" if fresh else take)


def _log_archive(now: datetime) -> Fact:
    what = tr("Log of changes")
    with connection.cursor() as cursor:
        cursor.execute("SELECT current_setting('archive_mode') <> 'off'")
        (kept,) = cursor.fetchone()
        cursor.execute("SELECT last_archived_time, last_failed_time FROM pg_stat_archiver")
        last, failed = cursor.fetchone()
    if not kept:
        return Fact(what, tr("Not kept: the newest state to go back to is the last backup."), "unknown")
    if failed is not None and (last is None or failed > last):
        todo = tr("Look at the folder of BEAD_LOG_ARCHIVE: is its disk there, and not full?")
        return Fact(what, tr("It could not be kept at {at}.", at=_when(failed)), "breach", todo)
    said = tr("kept until {at}", at=_when(last)) if last else tr("kept from now on")
    late = last is not None and now - last > LOG_LATE
    return Fact(what, said, "unknown" if late else "holds")


def _disk() -> Fact:
    room = shutil.disk_usage(settings.HOME)
    share = room.free / room.total
    mark: Mark = "holds" if share > LITTLE_ROOM else "caution" if share > NO_ROOM else "breach"
    said = tr(
        "{free} GB of {total} GB are free",
        free=format(room.free / 1e9, ".1f"),
        total=format(room.total / 1e9, ".0f"),
    )
    todo = "" if mark == "holds" else tr("Make room: nothing is saved on a full disk.")
    return Fact(tr("Disk"), said, mark, todo)


def _work(now: datetime) -> Iterator[Fact]:
    kinds: tuple[tuple[str, type[Work]], ...] = (
        (tr("Searches for coupons"), CouponSearch),
        (tr("Print runs"), PrintRun),
    )
    for what, kind in kinds:
        rows = kind._default_manager.filter(asked_at__gt=now - DAY)
        waiting, running, failed = (
            rows.filter(state=state).count()
            for state in (Work.State.WAITING, Work.State.RUNNING, Work.State.FAILED)
        )
        said = tr(
            "{waiting} waiting, {running} running, {failed} failed in 24 hours",
            waiting=waiting,
            running=running,
            failed=failed,
        )
        yield Fact(what, said, "caution" if failed else "holds")


def _recorders(now: datetime) -> Iterator[Fact]:
    for one in Recorder.objects.filter(retired=False):
        what = tr("Recorder {name}", name=one.name)
        if one.heard_at is None:
            yield Fact(what, tr("It has never been heard."), "unknown")
        elif now - one.heard_at > SILENT:
            yield Fact(what, tr("silent since {at}", at=_when(one.heard_at)), "unknown")
        else:
            yield Fact(what, tr("heard {at}", at=_when(one.heard_at)), "holds")


def _people(now: datetime) -> Fact:
    used = SeenSession.objects.filter(last_at__gt=now - timedelta(hours=settings.IDLE_HOURS))
    count = used.values("person").distinct().count()
    return Fact(tr("People"), tr("{count} signed in", count=count), "holds")


def _program() -> Fact:
    with connection.cursor() as cursor:
        cursor.execute("SELECT current_setting('server_version'), pg_database_size(current_database())")
        postgres, size = cursor.fetchone()
    said = tr(
        "version {version}; PostgreSQL {postgres}, {size} MB",
        version=version(),
        postgres=str(postgres).partition(" ")[0],
        size=format(size / 1e6, ".0f"),
    )
    return Fact(tr("Program and database"), said, "holds")
