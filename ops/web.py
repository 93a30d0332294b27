"""The web server: started detached, found again after a crash, stopped by its own process id."""

from __future__ import annotations

import ipaddress
import json
import os
import signal
import subprocess
import time
import urllib.error
import urllib.parse
import urllib.request
import zoneinfo
from pathlib import Path

from ops.cluster import listens
from ops.external import OWNS
from ops.places import PYTHON, ROOT, SERVER, home, lock_fds, secret, write_whole
from ops.say import BUILD, PORT, USAGE, Stop
from ops.user import own_folders, web_user

START_S = 60


def environment(database_url: str, *, demo: bool) -> dict[str, str]:
    """What Django's settings read. Whoever answers people is not told how the owner signs in."""
    return {
        **{name: value for name, value in os.environ.items() if name != OWNS},
        "BEAD_DATABASE_URL": database_url,
        "BEAD_SECRET_KEY": secret("django-secret"),
        "BEAD_DEMO": "1" if demo else "0",
        "BEAD_HOME": str(home()),
        "DJANGO_SETTINGS_MODULE": "config.settings",
        "PYTHONPATH": f"{ROOT}:{SERVER}",
        "PYTHONDONTWRITEBYTECODE": "1",
        # Threads share a few arenas: else the ceiling of a worker's memory is spent on empty ones.
        "MALLOC_ARENA_MAX": "4",
    }


def manage(database_url: str, *arguments: str, demo: bool = False) -> str:
    """Run one of Django's management commands, as the user of the web server."""
    user = web_user()
    own_folders(user)
    done = subprocess.run(
        [str(PYTHON), "manage.py", *arguments],
        cwd=SERVER,
        check=False,
        text=True,
        env=environment(database_url, demo=demo),
        capture_output=True,
        stdin=subprocess.DEVNULL,
        pass_fds=lock_fds(),
        **(user.options() if user else {}),
    )
    if done.returncode:
        raise Stop(f"manage.py {arguments[0]} failed:\n{(done.stdout + done.stderr)[-2500:]}", BUILD)
    return str(done.stdout)


def check_serving() -> None:
    """Stop with a sentence if what is set for serving does not fit together, before anything is started.

    Raises:
        Stop: With the variable and what is wrong with it.
    """
    public = os.environ.get("BEAD_PUBLIC_URL", "")
    parts = urllib.parse.urlsplit(public)
    if public and (parts.scheme not in ("http", "https") or not parts.hostname or parts.path.strip("/")):
        raise Stop(f"BEAD_PUBLIC_URL is {public!r}; it should read like https://bead.example", USAGE)
    hosts = _hosts()
    allowed = any(
        one in ("*", parts.hostname) or (one.startswith(".") and f".{parts.hostname}".endswith(one))
        for one in hosts
    )
    if parts.hostname and not allowed:
        raise Stop(
            f"BEAD_ALLOWED_HOSTS is {','.join(hosts)}, which leaves out {parts.hostname} of BEAD_PUBLIC_URL: "
            "people would be refused.",
            USAGE,
        )
    for one in filter(None, os.environ.get("BEAD_TRUSTED_PROXIES", "").split(",")):
        try:
            ipaddress.ip_network(one.strip(), strict=False)
        except ValueError:
            raise Stop(f"BEAD_TRUSTED_PROXIES holds {one.strip()!r}, which is no address.", USAGE) from None
    zone = os.environ.get("BEAD_TIME_ZONE", "UTC")
    try:
        zoneinfo.ZoneInfo(zone)
    except (zoneinfo.ZoneInfoNotFoundError, ValueError):
        raise Stop(f"BEAD_TIME_ZONE is {zone!r}; it should read like Europe/Berlin", USAGE) from None


def _hosts() -> list[str]:
    told = os.environ.get("BEAD_ALLOWED_HOSTS", "")
    public = urllib.parse.urlsplit(os.environ.get("BEAD_PUBLIC_URL", "")).hostname
    return [one.strip() for one in told.split(",") if one.strip()] or [public or "127.0.0.1"]


def _host_to_ask() -> str:
    """A name that the server answers to: it refuses all others, ourselves too."""
    first = _hosts()[0]
    return "127.0.0.1" if first == "*" else first.removeprefix(".")


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
        state = self._state()
        if state is None:
            return False
        return _answer(int(state["port"]), str(state.get("host", "127.0.0.1"))) == 200

    def code(self) -> str | None:
        """Digest of the code that the running server was started from."""
        state = self._state()
        return str(state.get("code", "")) if state else None

    def start(self, database_url: str, port: int, *, demo: bool, code: str = "") -> None:
        """Start it on this loopback port; whatever does not come up is taken down again.

        Raises:
            Stop: The port is taken, or it does not answer; with the end of its log.
        """
        require_free(port)
        user = web_user()
        own_folders(user)
        host = _host_to_ask()
        descriptor = os.open(home() / "web.log", os.O_WRONLY | os.O_CREAT | os.O_APPEND, 0o600)
        with os.fdopen(descriptor, "ab") as log:
            process = subprocess.Popen(
                [str(PYTHON), "-m", "gunicorn", "config.wsgi", "-c", str(ROOT / "ops" / "gunicorn_conf.py")],
                cwd=SERVER,
                env={**environment(database_url, demo=demo), "BEAD_PORT": str(port)},
                stdout=log,
                stderr=log,
                stdin=subprocess.DEVNULL,
                start_new_session=True,
                **(user.options() if user else {}),
            )
        state = {
            "pid": process.pid,
            "started": _started(process.pid),
            "port": port,
            "kind": "demo" if demo else "serve",
            "code": code,
            "host": host,
        }
        write_whole(self._note, json.dumps(state))
        end, status = time.monotonic() + START_S, 0
        while time.monotonic() < end and process.poll() is None:
            status = _answer(port, host)
            if status == 200:
                return
            if status in (400, 403):  # it is up and refuses us: waiting changes nothing
                break
            time.sleep(0.1)
        self.stop()
        tail = (home() / "web.log").read_text(errors="replace")[-1500:]
        said = f" It answers {status} to a request for {host}." if status else ""
        raise Stop(f"The web server does not start.{said} Its log ends:\n{tail}", BUILD)

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


def _answer(port: int, host: str) -> int:
    """Status of an answer, 0 for none."""
    request = urllib.request.Request(f"http://127.0.0.1:{port}/api/codes", headers={"Host": host})
    try:
        with urllib.request.urlopen(request, timeout=2) as answer:
            return int(answer.status)
    except urllib.error.HTTPError as error:
        return int(error.code)
    except (urllib.error.URLError, OSError):
        return 0
