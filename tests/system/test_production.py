"""The production set-up by its manual: ./bead serve behind nginx with TLS, and strangers at its door."""

import http.client
import json
import os
import secrets
import socket
import ssl
import subprocess
import threading
import time
import urllib.parse
from pathlib import Path

import psycopg
import pytest

from ops.cluster import Cluster, free_port
from ops.places import ROOT
from ops.roles import MIGRATES, SERVES
from ops.system import nginx
from tests.system.conftest import Shop

HOST = "bead.example"
NAME = f"odile-{secrets.token_hex(4)}"
"""Anew in each run: the state of the last one may still be there."""
PASSWORD = "heather-and-tin-4"


class Served(Shop):
    """./bead serve with nginx in front, as docs/operations.md says."""

    def __init__(self, home: Path) -> None:
        super().__init__(home)
        self.env |= {"BEAD_PUBLIC_URL": f"https://{HOST}", "BEAD_TIME_ZONE": "Pacific/Auckland"}
        self.front = free_port()
        self.nginx: subprocess.Popen[bytes] | None = None

    def serve(self, **env: str) -> subprocess.CompletedProcess[str]:
        before, self.env = self.env, {**self.env, **env}
        try:
            return self.bead("serve", "--detach", "--port", str(self.port))
        finally:
            self.env = before

    def start_proxy(self, folder: Path) -> None:
        folder.chmod(0o755)
        call = ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", f"/CN={HOST}",
                "-keyout", "key.pem", "-out", "cert.pem"]  # fmt: skip
        subprocess.run(call, cwd=folder, check=True, capture_output=True)
        told = self.bead("proxy", "--port", str(self.port), "--listen", f"127.0.0.1:{self.front}",
                         "--certificate", str(folder / "cert.pem"), "--key", str(folder / "key.pem"))  # fmt: skip
        assert told.returncode == 0, told.stdout
        (folder / "bead.conf").write_text(told.stdout)
        user = "user root;\n" if os.geteuid() == 0 else ""
        (folder / "nginx.conf").write_text(
            f"{user}worker_processes 1;\ndaemon off;\npid {folder}/pid;\nerror_log {folder}/error.log;\n"
            f"events {{ worker_connections 512; }}\nhttp {{\naccess_log off;\nclient_body_temp_path {folder}/b;\n"
            f"proxy_temp_path {folder}/p;\nfastcgi_temp_path {folder}/f;\nuwsgi_temp_path {folder}/u;\n"
            f"scgi_temp_path {folder}/s;\ninclude {folder}/bead.conf;\n}}\n"
        )
        self.nginx = subprocess.Popen([str(nginx()), "-c", str(folder / "nginx.conf"), "-p", str(folder)])
        for _ in range(100):
            with socket.socket() as probe:
                if probe.connect_ex(("127.0.0.1", self.front)) == 0:
                    return
            time.sleep(0.1)
        raise AssertionError((folder / "error.log").read_text())

    def stop_all(self) -> None:
        if self.nginx is not None:
            self.nginx.terminate()
            self.nginx.wait(10)
        self.bead("stop")

    def database(self, role: str) -> psycopg.Connection:
        os.environ["BEAD_HOME"], before = str(self.home), os.environ.get("BEAD_HOME")
        try:
            return psycopg.connect(Cluster().url("bead", role), autocommit=True)
        finally:
            os.environ.pop("BEAD_HOME")
            if before is not None:
                os.environ["BEAD_HOME"] = before


class Browser:
    """A person behind the proxy, or a stranger."""

    def __init__(self, port: int) -> None:
        self.port = port
        self.cookies: dict[str, str] = {}
        self.context = ssl.create_default_context()
        self.context.check_hostname = False
        self.context.verify_mode = ssl.CERT_NONE

    def open(self) -> http.client.HTTPSConnection:
        return http.client.HTTPSConnection("127.0.0.1", self.port, timeout=90, context=self.context)

    def __call__(self, method: str, path: str, body: object = None, **headers: str) -> tuple[int, dict]:
        connection = self.open()
        sent = {
            "Host": HOST, "Content-Type": "application/json", "Referer": f"https://{HOST}/",
            "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""), **headers,
        }  # fmt: skip
        connection.request(method, path, None if body is None else json.dumps(body), sent)
        answer = connection.getresponse()
        for line in answer.headers.get_all("Set-Cookie") or []:
            name, _, rest = line.partition("=")
            self.cookies[name] = rest.partition(";")[0]
        raw = answer.read()
        connection.close()
        kind = answer.headers.get("Content-Type", "")
        return answer.status, json.loads(raw) if "json" in kind and raw else {"raw": raw[:300]}


@pytest.fixture(scope="module")
def served(tmp_path_factory):
    home = Path(os.environ.get("BEAD_HOME") or ROOT / ".bead" / "test") / "served"
    one = Served(home)
    done = one.serve()
    assert done.returncode == 0, done.stdout + done.stderr
    with one.database(SERVES) as database:  # failures of an earlier run would count still
        database.execute("DELETE FROM accounts_budget")
    one.start_proxy(tmp_path_factory.mktemp("nginx"))
    yield one
    one.stop_all()


@pytest.fixture(scope="module")
def administrator(served):
    told = served.bead("admin", NAME).stdout
    given = told.rpartition("signs in with ")[2].partition(". ")[0]
    person = Browser(served.front)
    assert person("GET", "/api/session")[0] == 200
    status, answer = person("POST", "/api/session", {"username": NAME, "password": given})
    assert status == 200 and answer["person"]["password_own"] is False, answer
    assert person("POST", "/api/session/password", {"current": given, "new": PASSWORD})[0] == 200
    return person


def test_the_manual_works_as_it_is_written(served, administrator):
    status, answer = administrator("GET", "/api/session")
    assert (status, answer["person"]["username"], answer["demo"]) == (200, NAME, [])
    assert administrator("POST", "/api/jobs", {"number": f"J-{NAME}", "title": "Weir"})[0] == 201
    assert served.bead("status").returncode == 0
    page = administrator.open()
    page.request("GET", "/", headers={"Host": HOST})
    answer = page.getresponse()
    assert answer.status == 200 and b'<div id="root">' in answer.read()
    assert "max-age" in answer.headers["Strict-Transport-Security"]
    assert (
        served.bead("audit", "verify").stdout.endswith("\n")
        and "links hold" in served.bead("audit", "verify").stdout
    )


def test_cookies_are_for_https_only(served):
    connection = Browser(served.front).open()
    connection.request("GET", "/api/session", headers={"Host": HOST})
    cookies = connection.getresponse().headers.get_all("Set-Cookie")
    assert cookies and all("Secure" in one for one in cookies)


def test_the_log_knows_the_client_and_not_what_it_says_of_itself(served):
    stranger = Browser(served.front)
    stranger("GET", "/api/session")
    body = {"username": "nobody-here", "password": "x"}
    assert stranger("POST", "/api/session", body, **{"X-Forwarded-For": "6.6.6.6"})[0] == 422
    log = (served.home / "web.log").read_text()
    assert "sign-in failed: 'nobody-here' from 127.0.0.1" in log and "6.6.6.6" not in log


def drip(port: int, stop: threading.Event, tls: ssl.SSLContext | None) -> None:
    """Send a large body a byte a second."""
    with socket.create_connection(("127.0.0.1", port)) as plain:
        wire = tls.wrap_socket(plain) if tls else plain
        head = (f"POST /api/session HTTP/1.1\r\nHost: {HOST}\r\nContent-Type: application/json\r\n"
                "Content-Length: 9000\r\n\r\n{")  # fmt: skip
        wire.sendall(head.encode())
        while not stop.wait(0.5):
            try:
                wire.sendall(b" ")
            except OSError:
                return


@pytest.mark.parametrize("through_proxy", [True, False])
def test_slow_senders_stop_nobody(served, administrator, through_proxy):
    """Twenty slow uploads held every connection to the database: all other requests were answered 503."""
    stop = threading.Event()
    tls = administrator.context if through_proxy else None
    port = served.front if through_proxy else served.port
    slow = [threading.Thread(target=drip, args=(port, stop, tls)) for _ in range(40)]
    for one in slow:
        one.start()
    time.sleep(2)
    try:
        answers = [administrator("GET", "/api/jobs")[0] for _ in range(40)]
        assert answers == [200] * 40
        if through_proxy:
            saved = [
                administrator("POST", "/api/read", {"text": "3/8", "kind": "thickness"})[0] for _ in range(20)
            ]
            assert saved == [200] * 20
    finally:
        stop.set()
        for one in slow:
            one.join(20)


def test_many_wrong_sign_ins_at_once_are_throttled_and_the_rest_is_answered(served, administrator):
    """Sixty at once were answered 503, and so was everybody else."""
    statuses: list[int] = []

    def knock(number: int) -> None:
        stranger = Browser(served.front)
        stranger("GET", "/api/session")
        statuses.append(stranger("POST", "/api/session", {"username": f"n{number}", "password": "x"})[0])

    threads = [threading.Thread(target=knock, args=(n,)) for n in range(60)]
    for one in threads:
        one.start()
    others = [administrator("GET", "/api/jobs")[0] for _ in range(30)]
    for one in threads:
        one.join(120)
    assert others == [200] * 30
    assert set(statuses) <= {422, 429} and 429 in statuses, statuses


def test_a_large_body_of_repeated_keys_is_refused_and_stops_nobody(served, administrator):
    body = "{" + ",".join('"username":"x"' for _ in range(20_000)) + "}"
    connection = http.client.HTTPConnection("127.0.0.1", served.port, timeout=30)
    head = {
        "Host": HOST,
        "Content-Type": "application/json",
        "Cookie": "csrftoken=" + "a" * 32,
        "X-CSRFToken": "a" * 32,
    }
    connection.request(
        "POST", "/api/session", body, {**head, "X-Forwarded-Proto": "https", "Referer": f"https://{HOST}/"}
    )
    answer = connection.getresponse()
    assert answer.status == 422 and b"stands twice" in answer.read()
    assert administrator("GET", "/api/jobs")[0] == 200


def test_the_serving_role_owns_nothing_and_can_only_add_to_the_trail(served, administrator):
    with served.database(SERVES) as database:
        role = database.execute(
            "SELECT rolsuper, rolcreatedb, rolcreaterole FROM pg_roles WHERE rolname = current_user"
        )
        assert role.fetchone() == (False, False, False)
        owned = database.execute(
            "SELECT count(*) FROM pg_class WHERE relowner = current_user::regrole"
        ).fetchone()
        assert owned == (0,)
        assert database.execute("SELECT count(*) FROM audit_link").fetchone()[0] > 0
        for statement in (
            "UPDATE jobs_jobevent SET title = 'x'",
            "DELETE FROM jobs_jobevent",
            "TRUNCATE jobs_jobevent",
            "TRUNCATE jobs_job CASCADE",
            "ALTER TABLE jobs_jobevent DISABLE TRIGGER ALL",
            "DROP TRIGGER audit_stays ON jobs_jobevent",
            "DELETE FROM audit_link",
            "INSERT INTO audit_link (table_name, row_id, columns, row_hash, previous, hash, at) VALUES ('x','1','{}','','','',now())",
            "SELECT audit_append('jobs_jobevent', '1', '{}', 'x')",
            "DELETE FROM qualification_signature",
            "UPDATE qualification_qualificationrecord SET body = ''",
            "CREATE TABLE mine (a int)",
            "CREATE FUNCTION audit_stays2() RETURNS int LANGUAGE sql AS 'SELECT 1'",
            "SET session_replication_role = replica",
            "DELETE FROM django_migrations",
        ):
            with pytest.raises(psycopg.Error):
                database.execute(statement)
    with served.database(MIGRATES) as database:
        assert database.execute("SELECT rolsuper FROM pg_roles WHERE rolname = current_user").fetchone() == (
            False,
        )


@pytest.mark.parametrize(
    "env, word",
    [
        ({"BEAD_ALLOWED_HOSTS": "other.example"}, "leaves out bead.example"),
        ({"BEAD_PUBLIC_URL": "bead.example"}, "should read like https://"),
        ({"BEAD_TRUSTED_PROXIES": "10.0.0.0/8,proxy"}, "'proxy', which is no address"),
        ({"BEAD_TIME_ZONE": "Mars/Olympus"}, "should read like Europe/Berlin"),
    ],
)
def test_what_does_not_fit_together_is_said_at_once(served, env, word):
    before = time.monotonic()
    done = served.serve(**env)
    assert done.returncode == 2 and word in done.stdout, done.stdout
    assert "Traceback" not in done.stdout + done.stderr
    assert time.monotonic() - before < 60
    assert served.bead("status").returncode == 0, "what runs is left alone"


@pytest.mark.parametrize(
    "env",
    [
        {"BEAD_ALLOWED_HOSTS": HOST},
        {"BEAD_ALLOWED_HOSTS": ".example", "BEAD_PUBLIC_URL": f"https://{HOST}"},
        {"BEAD_ALLOWED_HOSTS": "bead.internal", "BEAD_PUBLIC_URL": ""},
    ],
)
def test_it_starts_whatever_hosts_are_allowed(served, env):
    """The probe asked for 127.0.0.1, which is no allowed host: three minutes, and an orphan left behind."""
    served.bead("stop")
    done = served.serve(**env)
    assert done.returncode == 0, done.stdout
    assert served.bead("status").returncode == 0


def test_a_start_that_fails_leaves_nobody_behind(served):
    served.bead("stop")
    done = served.serve(BEAD_THREADS="none")
    assert (
        done.returncode == 8 and "The web server does not start" in done.stdout
    ) or "failed" in done.stdout
    listing = subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True, check=True).stdout
    assert not any("gunicorn" in one and str(served.port) in one for one in listing.splitlines())
    assert not (served.home / "web.json").exists() or served.bead("status").returncode == 1
    assert served.serve().returncode == 0


def test_files_are_for_the_server_alone(served):
    assert (served.home / "web.log").stat().st_mode & 0o077 == 0
    for path in (served.home / "files").rglob("*"):
        assert path.stat().st_mode & 0o077 == 0, path


def test_the_configuration_of_the_proxy_takes_no_odd_words(served):
    for odd in ("a; include /etc/passwd", "a\nb", "a{"):
        done = served.bead("proxy", "--host", odd, "--certificate", "/c", "--key", "/k")
        assert done.returncode == 2 and "cannot stand" in done.stdout
    parts = urllib.parse.urlsplit(f"https://{HOST}")
    assert parts.hostname == HOST
