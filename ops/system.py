"""What the machine must have: Node, and a few Debian packages that are installed if missing."""

from __future__ import annotations

import importlib.util
import os
import re
import shutil
import subprocess
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from ops.places import ROOT
from ops.say import DISK, MISSING, NETWORK, Step, Stop

NODE_NEEDED = (20, 19)
ROOM_NEEDED = 2_500_000_000


def postgres_bin(major: str | None = None) -> Path | None:
    """Folder of PostgreSQL's server programs, the newest or the one of this major version."""
    found = sorted(
        (path.parent for path in Path("/usr/lib/postgresql").glob("*/bin/postgres")),
        key=lambda path: int(path.parent.name),
    )
    if major:
        found = [path for path in found if path.parent.name == major]
    return found[-1] if found else None


def chromium() -> str | None:
    """Debian's Chromium, for the browser tests."""
    return shutil.which("chromium")


def nginx() -> str | None:
    """Debian's nginx, which the tests put in front of the web server."""
    return shutil.which("nginx") or shutil.which("nginx", path="/usr/sbin")


def _library(name: str) -> bool:
    ldconfig = shutil.which("ldconfig") or "/sbin/ldconfig"
    listing = subprocess.run([ldconfig, "-p"], capture_output=True, text=True, check=False).stdout
    return name in listing


_NEEDED: list[tuple[str, Callable[[], bool]]] = [
    ("python3-venv", lambda: importlib.util.find_spec("ensurepip") is not None),
    ("postgresql", lambda: postgres_bin() is not None),
    ("libpango-1.0-0", lambda: _library("libpango-1.0.so.0")),
    ("libpangoft2-1.0-0", lambda: _library("libpangoft2-1.0.so.0")),
    ("libharfbuzz-subset0", lambda: _library("libharfbuzz-subset.so.0")),
    ("fonts-dejavu-core", lambda: Path("/usr/share/fonts/truetype/dejavu").is_dir()),
]
_FOR_BACKUPS: list[tuple[str, Callable[[], bool]]] = [
    ("borgbackup", lambda: shutil.which("borg") is not None),
]
_FOR_TESTS: list[tuple[str, Callable[[], bool]]] = [
    ("chromium", lambda: chromium() is not None),
    ("nginx", lambda: nginx() is not None),
    ("openssl", lambda: shutil.which("openssl") is not None),
]


def check_node() -> None:
    """Stop with a sentence if Node or npm is missing or too old."""
    wanted = ".".join(map(str, NODE_NEEDED))
    advice = f"Install Node {wanted} or newer with npm (any source you trust), then run this again."
    node, npm = shutil.which("node"), shutil.which("npm")
    if node is None or npm is None:
        raise Stop(f"{'Node' if node is None else 'npm'} is not on this machine. {advice}", MISSING)
    said = subprocess.run([node, "--version"], capture_output=True, text=True, check=False).stdout.strip()
    match = re.match(r"v(\d+)\.(\d+)", said)
    if not match or (int(match[1]), int(match[2])) < NODE_NEEDED:
        raise Stop(f"Node {said or '(unknown version)'} is too old. {advice}", MISSING)


def check_room() -> None:
    """Stop with a sentence if the disk is nearly full."""
    free = shutil.disk_usage(ROOT).free
    if free < ROOM_NEEDED:
        raise Stop(
            f"Only {free / 1e9:.1f} GB are free where the project lies; installing needs "
            f"{ROOM_NEEDED / 1e9:.1f} GB. Make room and run this again.",
            DISK,
        )


@contextmanager
def _no_services() -> Iterator[None]:
    """Keep the packages from starting servers of their own: only their programs are wanted."""
    policy = Path("/usr/sbin/policy-rc.d")
    if policy.exists():
        yield
        return
    policy.write_text("#!/bin/sh\nexit 101\n")
    policy.chmod(0o755)
    try:
        yield
    finally:
        policy.unlink(missing_ok=True)


def install_packages(*, for_tests: bool, for_backups: bool = False) -> None:
    """Install missing Debian packages as root; for others, stop with the exact line."""
    needed = _NEEDED + (_FOR_TESTS if for_tests else []) + (_FOR_BACKUPS if for_tests or for_backups else [])
    missing = [name for name, present in needed if not present()]
    if not missing:
        return
    line = "apt-get install -y --no-install-recommends " + " ".join(missing)
    if os.geteuid() != 0:
        raise Stop(
            "Some system packages are missing. Run this once, then start again:\n"
            f"  sudo sh -c 'apt-get update && {line}'",
            MISSING,
        )
    if shutil.which("apt-get") is None:
        raise Stop(f"This is no Debian system; install the equivalents of: {' '.join(missing)}", MISSING)
    with Step(f"installing {', '.join(missing)}"), _no_services():
        environment = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
        for command in ("apt-get update", line):
            done = subprocess.run(
                command.split(),
                env=environment,
                capture_output=True,
                text=True,
                check=False,
                stdin=subprocess.DEVNULL,
            )
            if done.returncode:
                raise Stop(
                    f"'{command}' failed:\n{done.stderr.strip()[-800:]}\n"
                    "Is there a network, and is another apt running?",
                    NETWORK,
                )
    still = [name for name, present in needed if not present()]
    if still:
        raise Stop(f"After installing, still missing: {', '.join(still)}.", MISSING)
