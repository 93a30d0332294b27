"""Where the database's own log of changes is kept, and how PostgreSQL is told to keep it there."""

from __future__ import annotations

import os
import shlex
from pathlib import Path

from ops.places import home
from ops.say import USAGE, Stop

VARIABLE = "BEAD_LOG_ARCHIVE"


def place() -> Path | None:
    """The folder, if there is one.

    Raises:
        Stop: It lies where the data lies.
    """
    told = os.environ.get(VARIABLE, "")
    if not told:
        return None
    path = Path(told).resolve()
    if path.is_relative_to(home()):
        raise Stop(f"{VARIABLE}: {path} lies in the state folder and would be lost with it.", USAGE)
    return path


def log_folder(path: Path) -> Path:
    """Where in it the files of the log lie."""
    return path / "log"


def archiving(path: Path) -> list[str]:
    """Lines of the configuration. A file is there whole or not at all, and none is written over."""
    command = archive_command(path)
    return ["archive_mode = on", f"archive_command = {quoted(command)}", "archive_timeout = 60"]


def archive_command(path: Path) -> str:
    """What keeps one file (``%p``) of the log under its name (``%f``).

    After a crash PostgreSQL may hand over a file that is kept already: the same one is well, another one of
    the same name is a failure. Were the same one refused, nothing would be kept from then on.
    """
    folder = shlex.quote(str(log_folder(path)))
    new, kept = f"{folder}/%f.new", f"{folder}/%f"
    keep = f"cp %p {new} && sync {new} && mv {new} {kept} && sync {folder}"
    return f"if test -f {kept}; then cmp -s %p {kept}; else {keep}; fi"


def fetching(path: Path, moment: str) -> list[str]:
    """Lines that let PostgreSQL play the log up to a moment and then go on from there."""
    command = f"cp {shlex.quote(f'{log_folder(path)}/%f')} %p"
    return [
        f"restore_command = {quoted(command)}",
        f"recovery_target_time = {quoted(moment)}",
        "recovery_target_action = 'promote'",
    ]


def quoted(text: str) -> str:
    """As a value in PostgreSQL's configuration."""
    doubled = text.replace("'", "''")
    return f"'{doubled}'"
