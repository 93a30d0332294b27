"""``settings.env`` in the state folder: what stands there holds for every call, unless the environment says
otherwise."""

from __future__ import annotations

import os
import re

from ops.places import home
from ops.say import USAGE, Stop, say

FILE = "settings.env"
_LINE = re.compile(r"(?:export\s+)?(BEAD_[A-Z_]+)=(.*)")


def load_settings() -> None:
    """Read it, where there is one. Lines read ``BEAD_NAME=value``; a # begins a comment line.

    Raises:
        Stop: A line reads otherwise, or sets the state folder itself.
    """
    path = home() / FILE
    if not path.is_file():
        return
    if path.stat().st_mode & 0o077 and "DATABASE" in path.read_text():
        say(f"Caution: {path} holds passwords and others can read it: chmod 600 {path}")
    for number, text in enumerate(path.read_text().splitlines(), 1):
        line = text.strip()
        if not line or line.startswith("#"):
            continue
        found = _LINE.fullmatch(line)
        if found is None or found[1] == "BEAD_HOME":
            raise Stop(
                f"Line {number} of {path} does not read like BEAD_PUBLIC_URL=https://bead.example", USAGE
            )
        value = found[2].strip()
        if len(value) > 1 and value[0] == value[-1] and value[0] in "'\"":
            value = value[1:-1]
        os.environ.setdefault(found[1], value)
