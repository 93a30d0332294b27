"""Where things are. ``BEAD_HOME`` moves everything that is not source to another folder."""

from __future__ import annotations

import fcntl
import os
import secrets
import shutil
import tomllib
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ops.say import DISK, Stop, say

ROOT = Path(__file__).resolve().parent.parent
WEB = ROOT / "web"
SERVER = ROOT / "server"
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"


def version() -> str:
    """Of the program, as pyproject.toml says it."""
    return str(tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["version"])


def copy_of_tree(place: Path) -> None:
    """Copy what tests need into a folder, where it may be spoilt on purpose."""
    for part in ("server", "welding", "tests", "ops", "recorder", "docs", "pyproject.toml"):
        copy = shutil.copytree if (ROOT / part).is_dir() else shutil.copy2
        copy(ROOT / part, place / part)


def home() -> Path:
    """Folder of state: database, logs, stamps, secrets."""
    folder = Path(os.environ.get("BEAD_HOME") or ROOT / ".bead").resolve()
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise Stop(f"{folder} cannot be made: {error.strerror}.", DISK) from None
    return folder


def secret(name: str) -> str:
    """A secret of this installation, made once and readable by its owner only."""
    path = home() / name
    if not path.exists():
        write_whole(path, secrets.token_urlsafe(40), mode=0o600)
    return path.read_text().strip()


def write_whole(path: Path, text: str, mode: int = 0o644) -> None:
    """Write a file so that it is either the old one or the new one, whatever happens."""
    path.parent.mkdir(parents=True, exist_ok=True)
    new = path.with_name(f"{path.name}.{os.getpid()}.new")
    descriptor = os.open(new, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, mode)
    with os.fdopen(descriptor, "w") as stream:
        stream.write(text)
        stream.flush()
        os.fsync(stream.fileno())
    new.replace(path)


_held: list[int] = []


@contextmanager
def only_one() -> Iterator[None]:
    """Let only one ./bead work on this folder at a time; a second one says that it waits."""
    with (home() / "lock").open("w") as stream:
        try:
            fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            say("Waiting for another ./bead that works in this folder …")
            fcntl.flock(stream, fcntl.LOCK_EX)
        _held.append(stream.fileno())
        try:
            yield
        finally:
            _held.remove(stream.fileno())


def lock_fds() -> tuple[int, ...]:
    """What a helper program inherits, so that the lock lasts until it ends, even if ./bead is killed."""
    return tuple(_held)
