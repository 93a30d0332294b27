"""kill -9 at bad moments. Whatever was acknowledged is there at the next start."""

import json
import os
import re
import signal
import socket
import sys
import threading
import time
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from tests.system.conftest import Person


class Saver(threading.Thread):
    """Saves one draft over and over, and remembers what was acknowledged."""

    def __init__(self, port, revision_id):
        super().__init__(daemon=True)
        self.person = Person(port).sign_in()
        self.path = f"/revisions/{revision_id}"
        _, one = self.person("GET", self.path)
        self.version, self.document = one["version"], one["document"]
        self.acknowledged = 0
        self.refused = []
        self.halt = False

    def run(self):
        count = 0
        while not self.halt:
            count += 1
            body = {"version": self.version, "document": {**self.document, "title": f"save {count}"}}
            try:
                status, answer = self.person("PUT", self.path, body)
            except OSError:
                return  # the server is gone in the middle of this save
            if status != 200:
                self.refused.append((status, answer["type"]))
                return
            self.version, self.acknowledged = answer["version"], count

    def until(self, count):
        end = time.monotonic() + 30
        while self.acknowledged < count and time.monotonic() < end:
            time.sleep(0.01)
        assert self.acknowledged >= count
        return self


def draft_of(person):
    _, jobs = person("GET", "/jobs")
    _, lines = person("GET", f"/jobs/{jobs[0]['id']}/procedures")
    return next(one["id"] for one in lines if one["stage"] == "draft")


def assert_kept(port, saver):
    _, one = Person(port).sign_in()("GET", saver.path)
    kept = int(re.fullmatch(r"save (\d+)", one["document"]["title"])[1])
    # The save that was under way may have reached the database; nothing before it may be missing.
    assert kept in (saver.acknowledged, saver.acknowledged + 1)
    assert one["version"] in (saver.version, saver.version + 1)


@pytest.mark.parametrize("moment_s", [0.3, 1.5, 3, 5, 8])
def test_the_start_itself_is_killed(shop, moment_s):
    begun = shop.begin()
    time.sleep(moment_s)
    begun.send_signal(signal.SIGKILL)
    begun.wait()


def test_after_all_those_killed_starts_the_demo_is_whole(shop):
    shop.start()
    person = Person(shop.port).sign_in()
    _, jobs = person("GET", "/jobs")
    assert [job["number"] for job in jobs] == ["FB-27"]
    _, procedures = person("GET", f"/jobs/{jobs[0]['id']}/procedures")
    _, coupons = person("GET", f"/jobs/{jobs[0]['id']}/coupons")
    assert (len(procedures), len(coupons)) == (10, 3)


def test_the_server_is_killed_in_the_middle_of_saving(shop):
    saver = Saver(shop.port, draft_of(Person(shop.port).sign_in()))
    saver.start()
    saver.until(5)
    shop.kill_server()
    saver.join(30)
    shop.start()
    assert_kept(shop.port, saver)


def test_the_database_is_killed_in_the_middle_of_saving(shop):
    saver = Saver(shop.port, draft_of(Person(shop.port).sign_in()))
    saver.start()
    saver.until(5)
    shop.kill_database()
    saver.join(60)
    # Said plainly while it is away, and never as an error of ours.
    assert saver.refused == [(503, "/problems/database")]
    body = saver.person.wait_for("/session", 503)
    assert body["detail"] == "The database does not answer."
    with saver.person.opener.open(saver.person.base.removesuffix("/api")) as page:
        assert b'<div id="root">' in page.read()  # the page itself opens, says so, and asks again
    assert health(shop, "live") == 200 and health(shop, "ready") == 503
    shop.start()
    # The same web server finds the database again by itself.
    saver.person.wait_for(saver.path, 200, patience_s=90, in_a_row=20)
    assert health(shop, "ready") == 200
    assert_kept(shop.port, saver)


def health(shop, what):
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{shop.port}/health/{what}", timeout=20) as answer:
            return answer.status
    except urllib.error.HTTPError as error:
        return error.code


def test_a_sheet_is_set_beside_the_server_and_nothing_is_left_of_it(shop):
    """A process beside each worker sets the sheets; it ends with its worker, even when that is killed."""
    person = Person(shop.port).sign_in()
    with person.opener.open(f"{person.base}/revisions/{draft_of(person)}/print") as answer:
        assert answer.read(5) == b"%PDF-"
    setters = children_of(json.loads((shop.home / "web.json").read_text())["pid"])
    assert setters
    shop.kill_server()
    assert gone_soon(setters)
    shop.start()


def test_coupons_are_searched_for_beside_the_server(shop):
    """By a process of its own, which ends with the server; what is stopped stays without an answer."""
    person = Person(shop.port).sign_in()
    job = next(one["id"] for one in person("GET", "/jobs")[1] if one["number"] == "FB-27")
    path = f"/jobs/{job}/weld-list/coupons"
    status, search = person("POST", path, {})
    assert (status, search["state"]) == (200, "waiting"), search
    end = time.monotonic() + 90
    while search["state"] in ("waiting", "running") and time.monotonic() < end:
        time.sleep(0.3)
        _, search = person("GET", f"{path}/{search['id']}")
    assert search["state"] == "done" and search["plan"]["optimal"], search
    _, other = person("POST", path, {"without": [search["plan"]["coupons"][0]["name"]]})
    _, other = person("POST", f"{path}/{other['id']}/stop")
    assert (other["state"], other["plan"]) == ("stopped", None)
    group = json.loads((shop.home / "web.json").read_text())["pid"]
    searchers = children_of(group, b"search_coupons")
    assert searchers, "it waits for another search"
    shop.kill_server()
    assert gone_soon(searchers)
    shop.start()


def test_cards_of_a_long_list_are_set_beside_the_server(shop):
    person = Person(shop.port).sign_in()
    job = next(one["id"] for one in person("GET", "/jobs")[1] if one["number"] == "FB-27")
    path = f"/jobs/{job}/joints/print-runs"
    status, run = person("POST", path, {"what": "cards"})
    assert (status, run["state"]) == (200, "waiting"), run
    end = time.monotonic() + 90
    while run["state"] in ("waiting", "running") and time.monotonic() < end:
        time.sleep(0.3)
        _, run = person("GET", f"{path}/{run['id']}")
    assert run["state"] == "done", run
    with person.opener.open(f"{person.base}{path}/{run['id']}/file") as answer:
        assert answer.read(5) == b"%PDF-"
    group = json.loads((shop.home / "web.json").read_text())["pid"]
    printers = children_of(group, b"set_prints")
    assert printers, "it waits for another print"
    shop.kill_server()
    assert gone_soon(printers)
    shop.start()


def gone_soon(pids):
    end = time.monotonic() + 10
    while any(os.path.exists(f"/proc/{pid}") for pid in pids) and time.monotonic() < end:
        time.sleep(0.1)
    return not any(os.path.exists(f"/proc/{pid}") for pid in pids)


def children_of(group, what=b"spawn_main"):
    """Processes of a session that only set sheets, or that search."""
    found = []
    for entry in os.listdir("/proc"):
        try:
            words = Path(f"/proc/{entry}/cmdline").read_bytes() if entry.isdigit() else b""
            session = (
                int(Path(f"/proc/{entry}/stat").read_text().rsplit(")", 1)[1].split()[3]) if words else 0
            )
        except OSError:
            continue
        if session == group and what in words:
            found.append(int(entry))
    return found


def test_a_second_start_changes_nothing(shop):
    before = (shop.home / "web.json").read_text()
    shop.start()
    assert (shop.home / "web.json").read_text() == before


@pytest.fixture
def elsewhere(shop):
    """A second installation's state, with nothing in it."""
    other = type(shop)(shop.home.parent / "crash-other")
    yield other
    other.bead("stop")


def test_a_taken_port_is_said_and_ends_with_a_code(elsewhere):
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", elsewhere.port))
        listener.listen()
        done = elsewhere.bead("demo", "--detach", "--port", str(elsewhere.port))
    assert done.returncode == 4
    assert f"Port {elsewhere.port} is taken by another program" in done.stdout
    assert "Traceback" not in done.stdout + done.stderr


@pytest.mark.parametrize(
    "version, words",
    [
        ("v18.17.0", "Node v18.17.0 is too old. Install Node 20.19 or newer with npm"),
        (None, "Node is not on this machine. Install Node 20.19 or newer with npm"),
    ],
)
def test_an_old_node_is_said_and_ends_with_a_code(elsewhere, tmp_path, version, words):
    # A machine where only Python, npm and perhaps an old Node are to be found.
    (tmp_path / "python3").symlink_to(os.path.realpath(sys.executable))
    for name in ("npm", "node") if version else ("npm",):
        (tmp_path / name).write_text(f"#!/bin/sh\necho {version}\n")
        (tmp_path / name).chmod(0o755)
    elsewhere.env["PATH"] = str(tmp_path)
    done = elsewhere.bead("demo", "--detach")
    assert (done.returncode, done.stderr) == (3, "")
    assert words in done.stdout


def test_no_network_is_said_and_ends_with_a_code():
    from ops.environment import run
    from ops.say import NETWORK, Stop

    with pytest.raises(Stop) as stopped:
        run(["sh", "-c", "echo could not resolve host; exit 1"], "npm ci", NETWORK)
    assert stopped.value.code == NETWORK
    assert "Is there a network? Nothing is lost: run this again." in str(stopped.value)


def test_a_full_disk_is_said_and_ends_with_a_code(monkeypatch):
    from ops import system
    from ops.environment import run
    from ops.say import BUILD, DISK, Stop

    with pytest.raises(Stop) as stopped:
        run(["sh", "-c", "echo 'write: No space left on device'; exit 1"], "building", BUILD)
    assert (stopped.value.code, str(stopped.value)) == (
        DISK,
        "The disk is full (building). Make room and run this again.",
    )
    monkeypatch.setattr(system, "ROOM_NEEDED", 10**18)
    with pytest.raises(Stop, match="Make room and run this again") as stopped:
        system.check_room()
    assert stopped.value.code == DISK


def test_missing_packages_are_said_with_the_line_that_installs_them(monkeypatch):
    from ops import system
    from ops.say import MISSING, Stop

    monkeypatch.setattr(system, "_NEEDED", [("some-library", lambda: False), ("other", lambda: True)])
    monkeypatch.setattr("os.geteuid", lambda: 1000)
    with pytest.raises(Stop) as stopped:
        system.install_packages(for_tests=False)
    assert stopped.value.code == MISSING
    line = "sudo sh -c 'apt-get update && apt-get install -y --no-install-recommends some-library'"
    assert line in str(stopped.value)


def test_stop_and_status(shop):
    assert shop.bead("status").returncode == 0
    assert "Stopped." in shop.bead("stop").stdout
    assert shop.bead("status").returncode == 1
    assert "Nothing was running." in shop.bead("stop").stdout


@pytest.mark.parametrize("sign", [signal.SIGTERM, signal.SIGHUP, signal.SIGINT])
def test_a_demo_in_the_foreground_that_is_ended_leaves_nothing_running(shop, sign):
    begun = shop.begin()
    Person(shop.port).wait_for("/session", 200, 240)
    time.sleep(2)  # it only waits now
    begun.send_signal(sign)
    assert begun.wait(timeout=60) == 0
    with pytest.raises(OSError, match="refused"):
        Person(shop.port)("GET", "/session")
    assert shop.bead("status").returncode == 1
    assert "Nothing was running." in shop.bead("stop").stdout
