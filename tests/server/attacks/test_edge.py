"""The edge before Django: addresses behind proxies, sizes, kinds and slowness of bodies."""

import io
import json
import socket
import threading

import pytest
from config import edge
from config.edge import Edge


def answer(environ, **options):
    told = {}

    def application(env, start_response):
        told["address"] = env["REMOTE_ADDR"]
        told["body"] = env["wsgi.input"].read()
        told["proto"] = env.get("HTTP_X_FORWARDED_PROTO")
        start_response("200 OK", [])
        return [b"ok"]

    def start_response(status, headers):
        told["status"] = int(status.split()[0])
        told["headers"] = dict(headers)

    body = environ.pop("body", b"")
    base = {
        "REQUEST_METHOD": "POST",
        "PATH_INFO": "/api/evaluate",
        "QUERY_STRING": "",
        "REMOTE_ADDR": "127.0.0.1",
        "CONTENT_TYPE": "application/json",
        "CONTENT_LENGTH": str(len(body)),
        "wsgi.input": io.BytesIO(body),
    }
    said = b"".join(Edge(application, **options)({**base, **environ}, start_response))
    if told["status"] != 200:
        told["problem"] = json.loads(said)
    return told


PROXY = {"trusted_proxies": ["127.0.0.1", "10.0.0.0/8"]}


@pytest.mark.parametrize(
    "peer, forwarded, options, address",
    [
        ("127.0.0.1", "203.0.113.7", PROXY, "203.0.113.7"),
        ("127.0.0.1", "6.6.6.6, 203.0.113.7", PROXY, "203.0.113.7"),  # what the client added itself
        ("127.0.0.1", "203.0.113.7, 10.1.2.3", PROXY, "203.0.113.7"),  # two proxies of ours
        ("127.0.0.1", "6.6.6.6", {}, "127.0.0.1"),  # nobody is trusted
        ("192.0.2.1", "6.6.6.6", PROXY, "192.0.2.1"),  # not one of ours
        ("127.0.0.1", "not an address", PROXY, "127.0.0.1"),
        ("127.0.0.1", "2001:db8::1", PROXY, "2001:db8::1"),
        ("127.0.0.1", "", PROXY, "127.0.0.1"),
    ],
)
def test_whose_address_it_is(peer, forwarded, options, address):
    told = answer({"REMOTE_ADDR": peer, "HTTP_X_FORWARDED_FOR": forwarded}, **options)
    assert told["address"] == address


def test_only_a_proxy_says_that_it_was_https():
    told = answer({"REMOTE_ADDR": "192.0.2.1", "HTTP_X_FORWARDED_PROTO": "https"}, **PROXY)
    assert told["proto"] is None
    assert answer({"HTTP_X_FORWARDED_PROTO": "https"}, **PROXY)["proto"] == "https"


@pytest.mark.parametrize(
    "change, status, word",
    [
        ({"CONTENT_LENGTH": "2500001"}, 413, "2.5 MB"),
        ({"CONTENT_LENGTH": "99999999999999999999"}, 400, "read"),
        ({"CONTENT_LENGTH": "-1"}, 400, "read"),
        ({"CONTENT_LENGTH": "٣"}, 400, "read"),
        ({"HTTP_TRANSFER_ENCODING": "chunked"}, 411, "Content-Length"),
        ({"body": b"a=1", "CONTENT_TYPE": "application/x-www-form-urlencoded"}, 415, "JSON"),
        ({"body": b"x", "CONTENT_TYPE": "multipart/form-data; boundary=x"}, 415, "JSON"),
        (
            {"body": b"x", "CONTENT_TYPE": "multipart/form-data", "PATH_INFO": "/api/passes/1/photos"},
            415,
            "form",
        ),
        ({"body": b"x", "PATH_INFO": "/procedures/1"}, 413, "no body"),
        ({"QUERY_STRING": "name=%00"}, 422, "control"),
        ({"QUERY_STRING": "name=%1b[2J"}, 422, "control"),
        ({"QUERY_STRING": "name=%ff"}, 422, "UTF-8"),
        ({"QUERY_STRING": "a" * 9000}, 414, "long"),
        ({"CONTENT_LENGTH": "10", "wsgi.input": io.BytesIO(b"123")}, 400, "3 of 10"),
    ],
)
def test_what_goes_no_further(change, status, word):
    told = answer(change)
    assert told["status"] == status and word in told["problem"]["detail"], told
    assert told["headers"]["Cache-Control"] == "no-store"


@pytest.mark.parametrize("path", ["/api/passes/1/photos", "/api/crew/1/scans"])
def test_a_file_of_the_booth_or_of_the_office_goes_through(path):
    told = answer(
        {"PATH_INFO": path, "body": b"x" * 3_000_000, "CONTENT_TYPE": "application/octet-stream"},
        signed_in=lambda environ: True,
    )
    assert told["status"] == 200


def test_a_body_comes_whole():
    assert answer({"body": b'{"a": 1}'})["body"] == b'{"a": 1}'


def test_a_stranger_sends_no_large_file():
    ask = {"PATH_INFO": "/api/coupons/1/recordings", "CONTENT_TYPE": "text/csv", "body": b"x" * 100}
    told = answer(dict(ask), signed_in=lambda _: False)
    assert told["status"] == 401 and "body" not in told
    assert answer(dict(ask), signed_in=lambda _: True)["body"] == b"x" * 100


class Slow:
    """A body that comes a byte at a time; each read moves the clock on."""

    def __init__(self, clock, step_s):
        self.clock, self.step_s = clock, step_s

    def read(self, _=-1):
        self.clock[0] += self.step_s
        return b"x"


def test_a_body_that_drips_is_given_up(monkeypatch):
    clock = [0.0]
    monkeypatch.setattr(edge.time, "monotonic", lambda: clock[0])
    told = answer({"CONTENT_LENGTH": "2000", "wsgi.input": Slow(clock, 1.0)})
    assert told["status"] == 408
    assert clock[0] < edge.PATIENCE_S + 3
    told = answer({"CONTENT_LENGTH": "20", "wsgi.input": Slow(clock, 0.1)})
    assert told["status"] == 200


def test_a_sender_who_falls_silent_is_given_up(monkeypatch):
    monkeypatch.setattr(edge, "IDLE_S", 0.2)
    ours, theirs = socket.socketpair()
    theirs.sendall(b"half")
    told = answer(
        {"CONTENT_LENGTH": "8", "wsgi.input": ours.makefile("rb", buffering=0), "gunicorn.socket": ours}
    )
    assert told["status"] == 408
    ours.close()
    theirs.close()


def test_a_reader_that_waits_for_every_byte_is_stopped_when_the_time_is_up(monkeypatch):
    """The server's own reader waits until all bytes are there: nobody looked at the clock meanwhile."""
    monkeypatch.setattr(edge, "PATIENCE_S", 0.5)
    monkeypatch.setattr(edge, "SLOWEST_BYTES_S", 10**9)
    monkeypatch.setattr(edge, "WATCH", edge.Watch(every_s=0.1))
    ours, theirs = socket.socketpair()
    stop = threading.Event()

    def drip():
        while not stop.wait(0.05):
            theirs.sendall(b"x")

    dripping = threading.Thread(target=drip, daemon=True)
    dripping.start()
    told = answer({"CONTENT_LENGTH": "100000", "wsgi.input": ours.makefile("rb"), "gunicorn.socket": ours})
    stop.set()
    dripping.join(5)
    assert told["status"] == 408
    ours.close()
    theirs.close()


def test_slow_bodies_take_a_few_places_and_leave_the_rest():
    gate, inside = threading.Event(), threading.Semaphore(0)

    class Waiting:
        def read(self, _=-1):
            inside.release()
            gate.wait(20)
            return b"x"

    def application(env, start_response):
        start_response("200 OK", [])
        return [b""]

    wrapped = Edge(application, bodies_at_a_time=2)
    base = {"PATH_INFO": "/api/evaluate", "REMOTE_ADDR": "127.0.0.1", "CONTENT_TYPE": "application/json"}
    statuses = []

    def send(body, length):
        env = {**base, "QUERY_STRING": "", "CONTENT_LENGTH": length, "wsgi.input": body}
        list(wrapped(env, lambda status, _: statuses.append(int(status.split()[0]))))

    slow = [threading.Thread(target=send, args=(Waiting(), "1")) for _ in range(2)]
    for one in slow:
        one.start()
        inside.acquire(timeout=5)
    send(io.BytesIO(b"1"), "1")
    assert statuses == [503], "a third body is told to come back"
    send(io.BytesIO(), "")
    assert statuses == [503, 200], "whoever sends no body is answered"
    gate.set()
    for one in slow:
        one.join(5)
    assert statuses == [503, 200, 200, 200]


def test_the_api_and_the_admin_pages_are_kept_in_no_cache(api, draft):
    client = api["viewer"].client
    for path in ("/api/jobs", f"/api/revisions/{draft.pk}/print", "/api/nonsense", "/admin/login/"):
        assert client.get(path).headers["Cache-Control"] == "no-store", path
