"""The edge, before Django: whose address it is, how large and how slow a body may be, and the body itself.

A body is read whole before anything else is done, so that whoever sends slowly holds no database
connection. Small ones stay in memory, large ones go to a temporary file.
"""

from __future__ import annotations

import contextlib
import io
import ipaddress
import json
import os
import re
import socket
import tempfile
import threading
import time
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from http import HTTPStatus
from typing import IO, Any
from urllib.parse import unquote_to_bytes

Environ = dict[str, Any]
StartResponse = Callable[..., Any]
Application = Callable[[Environ, StartResponse], Iterable[bytes]]

MEGABYTE = 1_000_000
PART_BYTES = 1 << 16
IN_MEMORY_BYTES = 4 * MEGABYTE
IDLE_S = 15
SLOWEST_BYTES_S = 8_000
PATIENCE_S = 20
DRAIN_BYTES = 64 * MEGABYTE
DRAIN_S = 10
LONGEST_QUERY = 8_000


@dataclass(frozen=True, slots=True)
class Limit:
    """What a kind of address takes: bytes at most, and whether only who is signed in may send so much."""

    path: re.Pattern[str]
    most_bytes: int
    types: tuple[str, ...]
    signed_in: bool = False


JSON = ("application/json",)
LIMITS = (
    Limit(re.compile(r"^/api/coupons/\d+/recordings$"), 2_000 * MEGABYTE, (), signed_in=True),
    Limit(re.compile(r"^/api/passes/\d+/photos$"), 15 * MEGABYTE + PART_BYTES, (), signed_in=True),
    Limit(re.compile(r"^/api/crew/\d+/scans$"), 15 * MEGABYTE + PART_BYTES, (), signed_in=True),
    Limit(re.compile(r"^/api/coupons/\d+/table$"), 2_500_000, ()),
    Limit(re.compile(r"^/api/recorder/"), 2_500_000, ()),
    Limit(re.compile(r"^/api/"), 2_500_000, JSON),
    Limit(re.compile(r"^/admin/"), 2_500_000, ()),
    Limit(re.compile(r""), 0, ()),
)
_FORMS = ("multipart/form-data", "application/x-www-form-urlencoded")
_ODD_IN_QUERY = re.compile(rb"[\x00-\x1f\x7f]")


class Refused(Exception):
    """A request that goes no further."""

    def __init__(self, status: int, kind: str, detail: str, *, drain: bool = False) -> None:
        super().__init__(detail)
        self.status, self.kind, self.detail, self.drain = status, kind, detail, drain


class Edge:
    """Wraps the application.

    Args:
        application: What is called with the body at hand.
        trusted_proxies: Addresses and networks whose X-Forwarded headers are believed.
        bodies_at_a_time: How many bodies may be on their way in one process.
        signed_in: Asked of a request before a large body is taken.
    """

    def __init__(
        self,
        application: Application,
        *,
        trusted_proxies: Iterable[str] = (),
        bodies_at_a_time: int = 12,
        signed_in: Callable[[Environ], bool] = lambda _: True,
    ) -> None:
        self._application = application
        self._trusted = [ipaddress.ip_network(one.strip(), strict=False) for one in trusted_proxies]
        self._slots = threading.BoundedSemaphore(bodies_at_a_time)
        self._signed_in = signed_in

    def __call__(self, environ: Environ, start_response: StartResponse) -> Iterable[bytes]:
        """Answer a request."""
        self._tell_address(environ)
        body: IO[bytes] | None = None
        try:
            _check_query(environ)
            body = self._body(environ)
        except Refused as refused:
            if refused.drain:
                _drain(environ)
            return _problem(refused, start_response)
        environ["wsgi.input"] = body
        try:
            return self._application(environ, start_response)
        finally:
            body.close()

    # --- who -------------------------------------------------------------------------------------

    def _tell_address(self, environ: Environ) -> None:
        """The address of the client: the nearest one that is no proxy of ours; others may say anything."""
        forwarded = environ.pop("HTTP_X_FORWARDED_FOR", "")
        if not self._is_trusted(environ.get("REMOTE_ADDR", "")):
            for name in ("HTTP_X_FORWARDED_PROTO", "HTTP_X_FORWARDED_HOST", "HTTP_X_FORWARDED_PORT"):
                environ.pop(name, None)
            return
        for one in reversed([part.strip() for part in forwarded.split(",") if part.strip()]):
            if not _is_address(one):
                return
            environ["REMOTE_ADDR"] = one
            if not self._is_trusted(one):
                return

    def _is_trusted(self, address: str) -> bool:
        try:
            found = ipaddress.ip_address(address)
        except ValueError:
            return False
        return any(found in network for network in self._trusted)

    # --- what ------------------------------------------------------------------------------------

    def _body(self, environ: Environ) -> IO[bytes]:
        length = environ.get("CONTENT_LENGTH") or ""
        if environ.get("HTTP_TRANSFER_ENCODING"):
            raise Refused(411, "length", "Say how long the body is: Content-Length is needed.")
        if not length:
            return io.BytesIO()
        if not length.isascii() or not length.isdigit() or len(length) > 15:
            raise Refused(400, "odd", "The request could not be read.")
        declared = int(length)
        if declared == 0:
            return io.BytesIO()
        limit = next(one for one in LIMITS if one.path.search(environ.get("PATH_INFO", "")))
        _check_type(environ, limit)
        if declared > limit.most_bytes:
            most = "no body" if not limit.most_bytes else f"at most {_megabytes(limit.most_bytes)} MB"
            raise Refused(413, "too-big", f"Too big: {most} is taken here.", drain=True)
        if limit.signed_in and not self._signed_in(environ):
            raise Refused(401, "signed-out", "Sign in again; what you typed stays on the screen.", drain=True)
        if not self._slots.acquire(timeout=2):
            raise Refused(503, "busy", "Too many uploads at once. Try again in a moment.")
        try:
            return _read(environ, declared)
        finally:
            self._slots.release()


class Watch:
    """Stops the reading of bodies whose time is up.

    The server's reader waits for all bytes that it was asked for, so that a sender of one byte a second
    would never let it look at the clock. One thread in a process looks for all.
    """

    def __init__(self, every_s: float = 1.0) -> None:
        self._every_s = every_s
        self._ends: dict[socket.socket, float] = {}
        self._lock = threading.Lock()
        self._process = 0

    def begin(self, peer: socket.socket, end: float) -> None:
        """Watch a connection until ``end`` on the monotonic clock."""
        with self._lock:
            self._ends[peer] = end
            if self._process != os.getpid():  # threads do not live on in a forked worker
                self._process = os.getpid()
                threading.Thread(target=self._look, name="body-watch", daemon=True).start()

    def end(self, peer: socket.socket) -> None:
        """The body is here, or given up."""
        with self._lock:
            self._ends.pop(peer, None)

    def _look(self) -> None:
        while True:
            time.sleep(self._every_s)
            with self._lock:
                late = [peer for peer, end in self._ends.items() if time.monotonic() > end]
                for peer in late:
                    del self._ends[peer]
            for peer in late:
                with contextlib.suppress(OSError):
                    peer.shutdown(socket.SHUT_RD)


WATCH = Watch()


def _check_query(environ: Environ) -> None:
    query = environ.get("QUERY_STRING", "")
    if len(query) > LONGEST_QUERY:
        raise Refused(414, "too-long", "The address is too long.")
    raw = unquote_to_bytes(query.replace("+", " "))
    path = environ.get("PATH_INFO", "").encode("latin-1", "replace")
    if _ODD_IN_QUERY.search(raw) or _ODD_IN_QUERY.search(path):
        raise Refused(422, "odd", "The address holds control characters.")
    try:
        raw.decode()
        path.decode()
    except UnicodeDecodeError:
        raise Refused(422, "odd", "The address is not UTF-8.") from None


def _check_type(environ: Environ, limit: Limit) -> None:
    told = environ.get("CONTENT_TYPE", "").partition(";")[0].strip().lower()
    if limit.types and told not in limit.types:
        raise Refused(415, "not-json", "Send JSON.", drain=True)
    if told in _FORMS and not environ.get("PATH_INFO", "").startswith("/admin/"):
        raise Refused(415, "not-json", "Send the file itself as the body, no form.", drain=True)


def _read(environ: Environ, declared: int) -> IO[bytes]:
    """The whole body, within a time that its length allows."""
    source, peer = environ["wsgi.input"], environ.get("gunicorn.socket")
    end = time.monotonic() + PATIENCE_S + declared / SLOWEST_BYTES_S
    sink: IO[bytes] = tempfile.SpooledTemporaryFile(IN_MEMORY_BYTES)  # noqa: SIM115 - closed by the caller
    before = peer.gettimeout() if isinstance(peer, socket.socket) else None
    left = declared
    try:
        if isinstance(peer, socket.socket):
            peer.settimeout(IDLE_S)
            WATCH.begin(peer, end)
        while left:
            part = source.read(min(left, PART_BYTES))
            if not part and time.monotonic() > end:
                raise Refused(408, "too-slow", "The body came too slowly: send it again.")
            if not part:
                raise Refused(400, "cut-off", f"Only {declared - left:,} of {declared:,} bytes arrived.")
            sink.write(part)
            left -= len(part)
            if left and time.monotonic() > end:
                raise Refused(408, "too-slow", "The body came too slowly: send it again.")
    except TimeoutError:
        sink.close()
        raise Refused(408, "too-slow", "The body came too slowly: send it again.") from None
    except OSError:
        sink.close()
        raise Refused(400, "cut-off", "The connection broke before the body was whole.") from None
    except Refused:
        sink.close()
        raise
    finally:
        if isinstance(peer, socket.socket):
            WATCH.end(peer)
            peer.settimeout(before)
    sink.seek(0)
    return sink


def _drain(environ: Environ) -> None:
    """Read the rest away, within reason, so that the sender hears the answer and not a broken pipe."""
    source, end, left = environ["wsgi.input"], time.monotonic() + DRAIN_S, DRAIN_BYTES
    peer = environ.get("gunicorn.socket")
    try:
        if isinstance(peer, socket.socket):
            peer.settimeout(2)
        while left > 0 and time.monotonic() < end and (part := source.read(PART_BYTES)):
            left -= len(part)
    except OSError:
        return


def _problem(refused: Refused, start_response: StartResponse) -> Iterable[bytes]:
    phrase = HTTPStatus(refused.status).phrase
    body = json.dumps(
        {
            "type": f"/problems/{refused.kind}",
            "title": phrase,
            "status": refused.status,
            "detail": refused.detail,
            "errors": [],
            "current": None,
        }
    ).encode()
    headers = [
        ("Content-Type", "application/problem+json"),
        ("Content-Length", str(len(body))),
        ("Cache-Control", "no-store"),
        ("Connection", "close"),
    ]
    if refused.status in (503, 408):
        headers.append(("Retry-After", "3"))
    start_response(f"{refused.status} {phrase}", headers)
    return [body]


def _is_address(text: str) -> bool:
    try:
        ipaddress.ip_address(text)
    except ValueError:
        return False
    return True


def _megabytes(count: int) -> str:
    return f"{count / MEGABYTE:.0f}" if count >= 10 * MEGABYTE else f"{count / MEGABYTE:.1f}"
