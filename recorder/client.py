"""A small client of the recorder interface, as any gateway could be written. See docs/formats.md.

It keeps what is not acknowledged and sends it again: a chunk has a number, the server takes each
number once, and says which it wants next.
"""

from __future__ import annotations

import contextlib
import json
import time
from collections import deque
from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any
from urllib.error import HTTPError, URLError
from urllib.parse import urlsplit
from urllib.request import Request, urlopen
from uuid import uuid4

PATIENCE_S = 10.0


class Refused(Exception):
    """The server said no, and would say so again."""


class Gateway:
    """One stream to one server."""

    def __init__(self, server: str, token: str, *, sleep: Callable[[float], None] = time.sleep) -> None:
        if urlsplit(server).scheme not in ("http", "https"):
            raise Refused(f"{server} is no http address")
        self._server = server.rstrip("/")
        self._token = token
        self._sleep = sleep
        self._waiting: deque[tuple[int, bytes]] = deque()
        self._next = 0
        self._stream = 0
        self.samples = 0
        self.tries_again = 0

    def open(self, columns: tuple[str, ...], coupon: str | None, name: str) -> int:
        """Open a stream; returns its number."""
        body = {
            "client_id": str(uuid4()),
            "coupon": coupon,
            "name": name,
            "columns": list(columns),
            "device_time": datetime.now(UTC).isoformat(),
        }
        self._stream = int(self._insist("POST", "/streams", body)["id"])
        return self._stream

    def put(self, rows: bytes) -> None:
        """Take rows of CSV to be sent; nothing is sent yet."""
        if rows:
            self._waiting.append((self._next, rows))
            self._next += 1
            self.samples += rows.count(b"\n")

    def flush(self, *, patient: bool = False) -> bool:
        """Send what waits; False if the network failed and something still waits."""
        while self._waiting:
            number, rows = self._waiting[0]
            path = f"/streams/{self._stream}/chunks/{number}"
            if patient:
                self._insist("PUT", path, rows)
            elif self._try("PUT", path, rows) is None:
                self.tries_again += 1
                return False
            self._waiting.popleft()
        return True

    def close(self) -> dict[str, Any]:
        """Send the rest and end the stream; the server checks that nothing is missing."""
        self.flush(patient=True)
        return self._insist(
            "POST", f"/streams/{self._stream}/close", {"chunks": self._next, "samples": self.samples}
        )

    def _insist(self, method: str, path: str, body: Any) -> dict[str, Any]:
        for pause in (0.2, 0.5, 1, 2, 4, 8, 8, 8, 8, 8):
            answer = self._try(method, path, body)
            if answer is not None:
                return answer
            self.tries_again += 1
            self._sleep(pause)
        raise Refused("the server does not answer")

    def _try(self, method: str, path: str, body: Any) -> dict[str, Any] | None:
        """One request; ``None`` where it may be tried again."""
        raw = body if isinstance(body, bytes) else json.dumps(body).encode()
        kind = "text/csv" if isinstance(body, bytes) else "application/json"
        request = Request(  # noqa: S310 - the scheme was looked at
            f"{self._server}/api/recorder{path}",
            raw,
            {"Authorization": f"Bearer {self._token}", "Content-Type": kind},
            method=method,
        )
        try:
            with urlopen(request, timeout=PATIENCE_S) as answer:  # noqa: S310
                parsed: dict[str, Any] = json.load(answer)
                return parsed
        except HTTPError as error:
            if error.code in (502, 503, 504):
                return None
            text = error.read().decode(errors="replace")
            with contextlib.suppress(ValueError, KeyError, TypeError):
                text = json.loads(text)["detail"]
            raise Refused(f"{error.code}: {text}") from error
        except (URLError, OSError, ValueError):
            return None
