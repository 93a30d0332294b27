"""As whom the web server runs: never as root where that can be had."""

from __future__ import annotations

import os
import pwd
import subprocess
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ops.places import PYTHON, SERVER, home

NAME = "grounded-bead"


@dataclass(frozen=True, slots=True)
class WebUser:
    """A system user without a password, a shell or a home."""

    name: str
    uid: int
    gid: int

    def options(self) -> dict[str, Any]:
        """For ``subprocess``: run as this user, in its group and no other."""
        return {"user": self.uid, "group": self.gid, "extra_groups": []}


def web_user() -> WebUser | None:
    """The user for the web server, made if needed; none where we are no root or it cannot read the code."""
    if os.geteuid() != 0:
        return None
    try:
        found = pwd.getpwnam(NAME)
    except KeyError:
        made = subprocess.run(
            ["useradd", "--system", "--no-create-home", "--shell", "/usr/sbin/nologin", NAME],
            capture_output=True,
            check=False,
        )
        if made.returncode:
            return None
        found = pwd.getpwnam(NAME)
    user = WebUser(NAME, found.pw_uid, found.pw_gid)
    return user if _can_run(user) else None


def _can_run(user: WebUser) -> bool:
    try:
        done = subprocess.run(
            [str(PYTHON), "-c", "import django; open('manage.py').close()"],
            cwd=SERVER,
            capture_output=True,
            check=False,
            **user.options(),
        )
    except OSError:
        return False
    return done.returncode == 0


def own_folders(user: WebUser | None) -> None:
    """Make the folders that the web server writes to, and give them to its user."""
    for name in ("files", "static", "print-fonts"):
        folder = home() / name
        folder.mkdir(parents=True, exist_ok=True)
        if user is not None:
            _give(folder, user)


def _give(folder: Path, user: WebUser) -> None:
    for path in (folder, *folder.rglob("*")):
        if path.stat().st_uid != user.uid and not path.is_symlink():
            os.chown(path, user.uid, user.gid)
