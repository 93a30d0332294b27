"""The web server: started detached, found again after a crash, stopped by its own process id."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import time
import urllib.error
import urllib.request
from pathlib import Path

from ops.cluster import listens
from ops.places import PYTHON, ROOT, SERVER, home, lock_fds, secret, write_whole
from ops.say import BUILD, PORT, Stop


def environment(database_url: str, *, demo: bool) -> dict[str, str]:
    """What Django's settings read."""
    return {
        **os.environ,
        "BEAD_DATABASE_URL": database_url,
        "BEAD_SECRET_KEY": secret("django-secret"),
        "BEAD_DEMO": "1" if demo else "0",
        "BEAD_HOME": str(home()),
        "DJANGO_SETTINGS_MODULE": "config.settings",
        "PYTHONPATH": f"{ROOT}:{SERVER}",
    }


def manage(database_url: str, *arguments: str, demo: bool = False) -> str:
    """Run one of Django's management commands."""
    done = subprocess.run(
        [str(PYTHON), "manage.py", *arguments],
        cwd=SERVER,
        check=False,
        text=True,
        env=environment(database_url, demo=demo),
        capture_output=True,
        stdin=subprocess.DEVNULL,
        pass_fds=lock_fds(),
    )
    if done.returncode:
        raise Stop(f"manage.py {arguments[0]} failed:\n{(done.stdout + done.stderr)[-2500:]}", BUILD)
    return done.stdout


class WebServer:
    """The server under ``BEAD_HOME``."""

    def __init__(self) -> None:
        self._note = home() / "web.json"

    def _state(self) -> dict[str, int | str] | None:
        try:
            state = json.loads(self._note.read_text())
            return state if _started(int(state["pid"])) == state["started"] else None
        except (OSError, ValueError, KeyError):
            return None

    def port(self) -> int | None:
        """The port of the running server, or nothing."""
        state = self._state()
        return int(state["port"]) if state else None

    def kind(self) -> str | None:
        """``demo`` or ``serve``, of the running server."""
        state = self._state()
        return str(state["kind"]) if state else None

    def healthy(self) -> bool:
        """Whether it answers."""
        port = self.port()
        return port is not None and _answers(port)

    def code(self) -> str | None:
        """Digest of the code that the running server was started from."""
        state = self._state()
        return str(state.get("code", "")) if state else None

    def start(self, database_url: str, port: int, *, demo: bool, code: str = "") -> None:
        """Start it on this loopback port."""
        require_free(port)
        kind = "demo" if demo else "serve"
        log = (home() / "web.log").open("ab")
        process = subprocess.Popen(
            [
                str(PYTHON),
                "-m",
                "gunicorn",
                "config.wsgi",
                "-k",
                "gthread",
                "-w",
                "2",
                "--threads",
                "16",
                "--preload",
                "--bind",
                f"127.0.0.1:{port}",
                "--no-control-socket",
                "--graceful-timeout",
                "5",
                "--timeout",
                "60",
                "--max-requests",
                "20000",
                "--max-requests-jitter",
                "2000",
                "--log-level",
                "warning",
            ],
            cwd=SERVER,
            env=environment(database_url, demo=demo),
            stdout=log,
            stderr=log,
            stdin=subprocess.DEVNULL,
            start_new_session=True,
        )
        write_whole(
            self._note,
            json.dumps(
                {
                    "pid": process.pid,
                    "started": _started(process.pid),
                    "port": port,
                    "kind": kind,
                    "code": code,
                }
            ),
        )
        for _ in range(600):
            if _answers(port):
                return
            if process.poll() is not None:
                break
            time.sleep(0.1)
        tail = (home() / "web.log").read_text(errors="replace")[-1500:]
        raise Stop(f"The web server does not start. Its log ends:\n{tail}", BUILD)

    def stop(self) -> bool:
        """Stop it; returns whether there was anything to stop."""
        state = self._state()
        if state is None:
            return False
        pid = int(state["pid"])
        for sign, patience in ((signal.SIGTERM, 80), (signal.SIGKILL, 50)):
            try:
                os.killpg(pid, sign)
            except ProcessLookupError:
                break
            for _ in range(patience):
                if _started(pid) != state["started"]:
                    break
                time.sleep(0.1)
            else:
                continue
            break
        self._note.unlink(missing_ok=True)
        return True


def require_free(port: int) -> None:
    """Stop with a sentence if the port is taken."""
    for _ in range(50):  # after a crash our own orphans need a moment to let the port go
        if not listens(port):
            return
        time.sleep(0.1)
    raise Stop(f"Port {port} is taken by another program. Choose another: --port {port + 1}", PORT)


def _started(pid: int) -> str:
    """Start time of a live process, which tells it from a later one with the same number."""
    try:
        fields = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()
    except OSError:
        return ""
    return "" if fields[0] == "Z" else fields[19]


def _answers(port: int) -> bool:
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/codes", timeout=2) as answer:
            return bool(answer.status == 200)
    except (urllib.error.URLError, OSError):
        return False
