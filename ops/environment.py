"""The virtual environment, the node packages and the built front end, each made once per content."""

from __future__ import annotations

import hashlib
import os
import subprocess
import sys
from collections.abc import Iterable
from pathlib import Path

from ops.places import PYTHON, ROOT, VENV, WEB, lock_fds, write_whole
from ops.say import BUILD, DISK, NETWORK, Step, Stop
from ops.system import check_node, check_room

LOCKS = ROOT / "requirements"
QUIET = {**os.environ, "PIP_DISABLE_PIP_VERSION_CHECK": "1", "NO_COLOR": "1", "CI": "1"}


def digest(paths: Iterable[Path]) -> str:
    """Hash over names and contents of files."""
    whole = hashlib.sha256()
    for path in sorted(paths):
        whole.update(str(path.relative_to(ROOT)).encode() + b"\0" + path.read_bytes() + b"\0")
    return whole.hexdigest()


def _stamped(stamp: Path, value: str) -> bool:
    return stamp.exists() and stamp.read_text().strip() == value


def run(command: list[str], what: str, code: int, cwd: Path = ROOT) -> None:
    """Run a quiet command; on failure stop with the end of what it said."""
    done = subprocess.run(
        command,
        cwd=cwd,
        env=QUIET,
        capture_output=True,
        text=True,
        check=False,
        stdin=subprocess.DEVNULL,
        pass_fds=lock_fds(),
    )
    if done.returncode == 0:
        return
    said = (done.stdout + "\n" + done.stderr).strip()
    if "No space left on device" in said or "ENOSPC" in said:
        raise Stop(f"The disk is full ({what}). Make room and run this again.", DISK)
    hint = " Is there a network? Nothing is lost: run this again." if code == NETWORK else ""
    raise Stop(f"{what} failed.{hint}\n{said[-2500:]}", code)


def make_venv(*, for_tests: bool) -> None:
    """Make the virtual environment from the hash-pinned lock."""
    lock = LOCKS / ("dev.txt" if for_tests else "app.txt")
    wanted = {name: digest([LOCKS / "tools.txt", LOCKS / name]) for name in ("app.txt", "dev.txt")}
    stamp = VENV / "ready"
    # The test lock holds everything of the other one.
    good = [wanted["dev.txt"]] if for_tests else list(wanted.values())
    if PYTHON.exists() and any(_stamped(stamp, value) for value in good):
        return
    check_room()
    with Step("making the Python environment"):
        fresh = not (VENV / "made").exists()
        if fresh:
            run([sys.executable, "-m", "venv", "--clear", str(VENV)], "python -m venv", BUILD)
            run(
                [
                    str(PYTHON),
                    "-m",
                    "pip",
                    "install",
                    "-q",
                    "--require-hashes",
                    "-r",
                    str(LOCKS / "tools.txt"),
                ],
                "installing Python packages",
                NETWORK,
            )
            write_whole(VENV / "made", "")
        stamp.unlink(missing_ok=True)
        run(
            [
                str(PYTHON),
                "-m",
                "uv",
                "pip",
                "install",
                "-q",
                # Once here; else every process that starts compiles some 2,400 files for itself.
                "--compile-bytecode",
                "--python",
                str(PYTHON),
                "--require-hashes",
                "-r",
                str(lock),
            ],
            "installing Python packages",
            NETWORK,
        )
        write_whole(stamp, wanted[lock.name])


def compile_code() -> None:
    """Compile our own code beside its source, once per content; a folder that cannot be written stays so."""
    own = [str(ROOT / name) for name in ("server", "welding", "recorder")]
    subprocess.run([str(PYTHON), "-m", "compileall", "-q", *own], capture_output=True, check=False)


def install_node_packages() -> None:
    """``npm ci`` from the lock."""
    check_node()
    wanted = digest([WEB / "package.json", WEB / "package-lock.json", WEB / ".npmrc"])
    stamp = WEB / "node_modules" / ".installed"
    if _stamped(stamp, wanted):
        return
    check_room()
    with Step("installing the front end's packages"):
        run(["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error"], "npm ci", NETWORK, WEB)
        write_whole(stamp, wanted)


def web_sources() -> list[Path]:
    """Every file that the built front end depends on."""
    top = [WEB / name for name in ("package-lock.json", "index.html", "vite.config.ts", "tsconfig.json")]
    return top + [
        path for folder in ("src", "public") for path in (WEB / folder).rglob("*") if path.is_file()
    ]


def code_files() -> list[Path]:
    """Every file that the running server has read."""
    python = [
        path
        for folder in ("server", "welding", "recorder")
        for path in (ROOT / folder).rglob("*")
        if path.suffix in (".py", ".toml", ".html", ".json", ".sql")
    ]
    return [*python, *web_sources(), LOCKS / "app.txt", ROOT / "ops" / "gunicorn_conf.py"]


def build_web() -> None:
    """Build the front end, unless this very source is built already."""
    wanted = digest(web_sources())
    stamp = WEB / ".built"
    if _stamped(stamp, wanted) and (WEB / "dist" / "index.html").exists():
        return
    install_node_packages()
    with Step("building the front end"):
        stamp.unlink(missing_ok=True)
        run(["npm", "run", "--silent", "build"], "building the front end", BUILD, WEB)
        run([str(PYTHON), "-m", "whitenoise.compress", "-q", "dist"], "compressing the front end", BUILD, WEB)
        write_whole(stamp, wanted)
