"""How many failed sign-ins are borne, by address and by name, counted in the database for all workers."""

from __future__ import annotations

import hashlib
import time
from collections.abc import Sequence
from typing import Any

from django.db import DatabaseError, connection
from limits import RateLimitItem, parse
from limits.storage import Storage
from limits.strategies import FixedWindowRateLimiter

PAIR = parse("8 per 15 minutes")
"""Failures of one name from one address: the person mistypes."""
ADDRESS = parse("30 per 15 minutes")
"""Failures of all names from one address: somebody tries names."""
NAME = parse("60 per 1 hour")
"""Failures of one name from all addresses: somebody tries passwords from many. Known devices are let in."""
DEVICE = parse("10 per 1 hour")
"""Failures from a device that this person signed in on before."""
CALLS = parse("120 per 1 minute")
"""Sign-ins of any outcome from one address: each costs a third of a second of reckoning."""


class DatabaseStorage(Storage):
    """Counters of fixed windows as rows; one statement counts, whichever worker asks."""

    STORAGE_SCHEME = ["bead-database"]

    @property
    def base_exceptions(self) -> type[Exception]:
        """What the database raises."""
        return DatabaseError

    def incr(self, key: str, expiry: float, amount: int = 1) -> int:
        """Count, and begin a new window where the last one has ended; the count of this window."""
        now = time.time()
        with connection.cursor() as cursor:
            cursor.execute(
                """
                INSERT INTO accounts_budget AS b (key, count, ends_at)
                VALUES (%(key)s, greatest(%(n)s, 0), %(end)s)
                ON CONFLICT (key) DO UPDATE SET
                    count = greatest(%(n)s + CASE WHEN b.ends_at <= %(now)s THEN 0 ELSE b.count END, 0),
                    ends_at = CASE WHEN b.ends_at <= %(now)s THEN %(end)s ELSE b.ends_at END
                RETURNING count
                """,
                {"key": _short(key), "n": amount, "end": now + expiry, "now": now},
            )
            return int(cursor.fetchone()[0])

    def get(self, key: str) -> int:
        """The count of the running window."""
        found = self._row(key)
        return found[0] if found else 0

    def get_expiry(self, key: str) -> float:
        """When the running window ends, seconds since 1970."""
        found = self._row(key)
        return found[1] if found else time.time()

    def check(self) -> bool:
        """The database answers or raises."""
        return True

    def reset(self) -> int | None:
        """Forget everything."""
        with connection.cursor() as cursor:
            cursor.execute("DELETE FROM accounts_budget")
            return int(cursor.rowcount)

    def clear(self, key: str) -> None:
        """Forget one counter."""
        with connection.cursor() as cursor:
            cursor.execute("DELETE FROM accounts_budget WHERE key = %s", [_short(key)])

    def _row(self, key: str) -> tuple[int, float] | None:
        with connection.cursor() as cursor:
            cursor.execute(
                "SELECT count, ends_at FROM accounts_budget WHERE key = %s AND ends_at > %s",
                [_short(key), time.time()],
            )
            found: tuple[int, float] | None = cursor.fetchone()
            return found


def _short(key: str) -> str:
    """Names may be of any length; what is kept of them tells nobody who tried."""
    return hashlib.sha256(key.encode("utf-8", "surrogatepass")).hexdigest()


LIMITER = FixedWindowRateLimiter(DatabaseStorage())


def spent(item: RateLimitItem, *names: str) -> bool:
    """Whether a budget is used up; asking costs nothing of it."""
    return not LIMITER.test(item, *names)


def spent_of(item: RateLimitItem, kind: str, names: Sequence[str]) -> set[str]:
    """Those of the names whose budget of a kind is used up, asked at once."""
    keys = {_short(item.key_for(kind, name)): name for name in names}
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT key FROM accounts_budget WHERE key = ANY(%s) AND ends_at > %s AND count >= %s",
            [list(keys), time.time(), item.amount],
        )
        return {keys[key] for (key,) in cursor.fetchall()}


def spend(item: RateLimitItem, *names: str) -> bool:
    """Take one of a budget; false where it was the one too many."""
    return LIMITER.hit(item, *names)


def give_back(item: RateLimitItem, *names: str) -> None:
    """Put one back that was taken for an attempt that did not fail."""
    LIMITER.hit(item, *names, cost=-1)


def forget(item: RateLimitItem, *names: str) -> None:
    """Begin a budget anew."""
    LIMITER.clear(item, *names)


def sweep(before_s: float | None = None) -> Any:
    """Remove windows that have ended."""
    with connection.cursor() as cursor:
        cursor.execute(
            "DELETE FROM accounts_budget WHERE ends_at < %s", [time.time() if before_s is None else before_s]
        )
        return cursor.rowcount
