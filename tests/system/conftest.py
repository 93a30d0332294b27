"""The whole from outside: ./bead as a person starts it, in a state folder of its own."""

import http.cookiejar
import json
import os
import shutil
import signal
import subprocess
import time
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from ops.cluster import Cluster, free_port
from ops.places import ROOT


def _as_from_a_terminal() -> None:
    """Whoever runs the tests in the background ignores these, and so would all that he starts."""
    for sign in (signal.SIGINT, signal.SIGHUP):
        signal.signal(sign, signal.SIG_DFL)


class Shop:
    """One ./bead with its state: started, killed, looked into."""

    def __init__(self, home: Path) -> None:
        self.home = home
        self.port = free_port()
        keep = {k: v for k, v in os.environ.items() if not k.startswith(("BEAD_", "DJANGO_", "PYTHON"))}
        self.env = {**keep, "BEAD_HOME": str(home)}

    def bead(self, *arguments: str) -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [str(ROOT / "bead"), *arguments],
            env=self.env,
            capture_output=True,
            text=True,
            timeout=300,
            check=False,
            stdin=subprocess.DEVNULL,
        )

    def start(self) -> str:
        done = self.bead("demo", "--detach", "--port", str(self.port))
        assert done.returncode == 0, done.stdout + done.stderr
        assert f"http://127.0.0.1:{self.port}/" in done.stdout
        return done.stdout

    def begin(self) -> subprocess.Popen[bytes]:
        """Begin a start that somebody is going to kill."""
        return subprocess.Popen(
            [str(ROOT / "bead"), "demo", "--port", str(self.port)],
            env=self.env,
            stdin=subprocess.DEVNULL,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            preexec_fn=_as_from_a_terminal,
        )

    def kill_server(self) -> None:
        """kill -9 of the web server and its workers."""
        os.killpg(json.loads((self.home / "web.json").read_text())["pid"], signal.SIGKILL)

    def kill_database(self) -> None:
        """kill -9 of PostgreSQL's first process; the others notice."""
        os.environ["BEAD_HOME"], before = str(self.home), os.environ.get("BEAD_HOME")
        try:
            data = Cluster().data
        finally:
            os.environ.pop("BEAD_HOME")
            if before is not None:
                os.environ["BEAD_HOME"] = before
        os.kill(int((data / "postmaster.pid").read_text().split()[0]), signal.SIGKILL)


class Person:
    """Someone with a browser's cookies and nothing else."""

    def __init__(self, port: int) -> None:
        self.base = f"http://127.0.0.1:{port}/api"
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))

    def __call__(self, method: str, path: str, body: object = None) -> tuple[int, dict]:
        token = next((c.value for c in self.jar if c.name == "csrftoken"), "")
        request = urllib.request.Request(
            self.base + path,
            method=method,
            data=None if body is None else json.dumps(body).encode(),
            headers={"Content-Type": "application/json", "X-CSRFToken": token or ""},
        )
        try:
            with self.opener.open(request, timeout=20) as answer:
                return answer.status, json.loads(answer.read() or b"null")
        except urllib.error.HTTPError as error:
            return error.code, json.loads(error.read() or b"null")

    def sign_in(self) -> "Person":
        self("GET", "/session")
        status, _ = self("POST", "/session/demo", {"username": "demo-engineer"})
        assert status == 200
        return self

    def wait_for(self, path: str, wanted: int, patience_s: float = 30, in_a_row: int = 1) -> dict:
        """Ask until the status is the wanted one; a server that is away counts as asked.

        Each web worker finds a database that came back in its own time: ``in_a_row`` answers of the
        wanted kind say that all of them have.
        """
        end = time.monotonic() + patience_s
        status, body, row = 0, {}, 0
        while time.monotonic() < end:
            try:
                status, body = self("GET", path)
            except OSError:
                status = 0
            row = row + 1 if status == wanted else 0
            if row >= in_a_row:
                return body
            time.sleep(0.2)
        raise AssertionError(f"{path}: {status}, not {wanted}: {body}")


@pytest.fixture(scope="module")
def shop():
    home = Path(os.environ.get("BEAD_HOME") or ROOT / ".bead" / "test") / "crash"
    one = Shop(home)
    if home.exists():
        one.bead("stop")
        one.bead("reset-demo")
        one.bead("stop")
        shutil.rmtree(home)
    yield one
    one.bead("stop")
