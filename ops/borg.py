"""Borg, which keeps the backups: parts that did not change are kept once, all of it checked and encrypted."""

from __future__ import annotations

import json
import os
import re
import subprocess
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from ops.places import home, lock_fds, secret
from ops.say import BACKUP, USAGE, Stop

SECRET_FILE = "backup-passphrase"  # noqa: S105 - the name of the file
KEPT = {"daily": 14, "weekly": 8, "monthly": 24, "yearly": 10}
"""How many are kept of each kind when older ones are dropped."""
KEPT_DAYS = 2
"""Every backup of so many days is kept besides."""
_REMOTE = re.compile(r"^(ssh://|[\w.-]+@?[\w.-]*:)")


@dataclass(frozen=True, slots=True)
class Entry:
    """A file in a backup, read and hashed."""

    path: str
    size: int
    sha256: str


class Repository:
    """A folder, or a place on another machine (``ssh://…``), that holds backups."""

    def __init__(self, place: str, passphrase_file: Path | None = None) -> None:
        self.place = place if _REMOTE.match(place) else str(Path(place).resolve())
        self._passphrase_file = passphrase_file

    def _environment(self) -> dict[str, str]:
        own = home() / "borg"
        asked = self._passphrase_file or (home() / SECRET_FILE)
        if self._passphrase_file and not asked.is_file():
            raise Stop(f"{asked} is no file that could hold the passphrase.", USAGE)
        return {
            **os.environ,
            "BORG_BASE_DIR": str(own),
            "BORG_PASSPHRASE": asked.read_text().strip() if asked.is_file() else "",
            "BORG_RELOCATED_REPO_ACCESS_IS_OK": "yes",
            "BORG_UNKNOWN_UNENCRYPTED_REPO_ACCESS_IS_OK": "yes",
            "BORG_EXIT_CODES": "legacy",
            "LC_ALL": "C.UTF-8",
        }

    def _run(self, *arguments: str, cwd: Path | None = None) -> str:
        """Run it; a warning (exit code 1) is a failure too where nothing may change under it."""
        try:
            done = subprocess.run(
                ["borg", "--lock-wait", "600", *arguments],
                cwd=cwd or home(),
                env=self._environment(),
                capture_output=True,
                text=True,
                check=False,
                stdin=subprocess.DEVNULL,
                pass_fds=lock_fds(),
            )
        except FileNotFoundError:
            raise Stop("borg is not on this machine: apt-get install borgbackup", BACKUP) from None
        if done.returncode:
            raise Stop(_sentence(done.stderr, self.place), BACKUP)
        return done.stdout

    def exists(self) -> bool:
        """Whether backups lie there, ours or others'."""
        if _REMOTE.match(self.place):
            try:
                self._run("info", self.place)
            except Stop as stop:
                if "does not exist" in str(stop) or "is not a valid repository" in str(stop):
                    return False
                raise
            return True
        return (Path(self.place) / "config").is_file()

    def make(self, *, encrypted: bool) -> None:
        """Make the place; encrypted with a passphrase that is made for this installation."""
        if encrypted:
            secret(SECRET_FILE)
        kind = "repokey-blake2" if encrypted else "none"
        self._run("init", "--make-parent-dirs", f"--encryption={kind}", self.place)

    def encrypted(self) -> bool:
        """Whether its contents are."""
        return bool(json.loads(self._run("info", "--json", self.place))["encryption"]["mode"] != "none")

    def add(self, name: str, folder: Path) -> None:
        """Put a folder's contents in under this name."""
        self._run(
            "create",
            "--compression=zstd",
            "--files-cache=mtime,size",  # a file that got a second name has a new ctime, and the same bytes
            f"{self.place}::{name}",
            ".",
            cwd=folder,
        )

    def names(self) -> list[tuple[str, str]]:
        """Names and times of the backups, the oldest first."""
        told = json.loads(self._run("list", "--json", self.place))["archives"]
        return [(one["name"], one["time"]) for one in told]

    def newest(self, database: str) -> str:
        """Name of the newest of a database: others may keep theirs at the same place.

        Raises:
            Stop: There is none.
        """
        # Others' names may begin alike, and what was cut off in the middle is no backup.
        ours = re.compile(rf"{re.escape(database)}-\d{{8}}T\d{{6}}")
        names = [name for name, _ in self.names() if ours.fullmatch(name)]
        if not names:
            raise Stop(
                f"No backup of the database {database} lies in {self.place}. ./bead backups names those that "
                "do; choose one with --backup.",
                BACKUP,
            )
        return names[-1]

    def check(self) -> None:
        """Read everything and compare it with its hashes."""
        self._run("check", "--verify-data", self.place)

    def entries(self, name: str) -> Iterator[Entry]:
        """Every file of a backup, with the hash of its bytes as they would come back."""
        form = "{type} {size} {sha256} {path}{NL}"
        for line in self._run("list", "--format", form, f"{self.place}::{name}").splitlines():
            kind, size, digest, path = line.split(" ", 3)
            if kind == "-":
                yield Entry(path.removeprefix("./"), int(size), digest)

    def take_out(self, name: str, folder: Path, *paths: str) -> None:
        """Bring it back into a folder, all of it or these paths."""
        folder.mkdir(parents=True, exist_ok=True)
        self._run("extract", f"{self.place}::{name}", *paths, cwd=folder)

    def drop_old(self, database: str) -> None:
        """Keep as many of a database as ``KEPT`` says and give the room of the others back."""
        keep = (f"--keep-{kind}={count}" for kind, count in KEPT.items())
        own = f"--glob-archives={database}-????????T??????"
        self._run("prune", own, f"--keep-within={KEPT_DAYS}d", *keep, self.place)
        self._run("compact", self.place)


def _sentence(said: str, place: str) -> str:
    """What borg says, in a sentence where it is one of the usual troubles."""
    if "passphrase supplied" in said or "No key file" in said:
        return (
            f"The backups in {place} are encrypted and the passphrase does not open them. It was made in "
            f"{SECRET_FILE} of the installation that wrote them: give that file with --passphrase-file."
        )
    if "No space left" in said:
        return f"The disk that holds {place} is full. Make room and run this again."
    if "Failed to create/acquire the lock" in said:
        return f"Another program has worked on {place} for ten minutes. Nothing was changed; try again."
    return f"The backups in {place} cannot be worked with:\n{said.strip()[-1500:]}"
