"""The process beside the web server: one of each kind, taking up what waits."""

from __future__ import annotations

import fcntl
import os
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import TypeVar

from django.conf import settings
from django.db import connection

from apps.background.models import Work
from apps.background.work import give_up_orphans, next_waiting

W = TypeVar("W", bound=Work)
MOST_WORKERS = 4
LINGERS_S = 60.0
"""How long it waits for more: what is asked for follows each other, and starting takes seconds."""
LOOKS_EVERY_S = 0.3
PATIENCE_S = 3.0
"""How long it waits for one that is about to end, so that nothing is left waiting between them."""


def serve(name: str, model: type[W], take_up: Callable[[W, int, Callable[[], None]], None]) -> None:
    """Do what is asked for until nothing has waited for a while.

    Args:
        name: Of the kind of work: where a process for it is there already, this one ends.
        model: What is asked for.
        take_up: Does one, with so many workers; gives the connection back by calling the last.
    """
    os.nice(10)  # people at the pages come first
    with only_one(name) as alone:
        until = time.monotonic() + LINGERS_S
        if alone:
            give_up_orphans(model)
        while alone and time.monotonic() < until:
            work = next_waiting(model)
            if work is None:
                time.sleep(LOOKS_EVERY_S)
                continue
            # Without a connection it may start copies of itself, which would share it.
            take_up(work, min(os.cpu_count() or 1, MOST_WORKERS), connection.close)
            until = time.monotonic() + LINGERS_S
    connection.close()


@contextmanager
def only_one(name: str) -> Iterator[bool]:
    """Whether no other process of this machine does this for this database."""
    path = settings.MEDIA_ROOT.parent / f"{name}-{settings.DATABASES['default']['NAME']}.lock"
    path.parent.mkdir(parents=True, exist_ok=True)
    with path.open("a") as held:
        until = time.monotonic() + PATIENCE_S
        while True:
            try:
                fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except OSError:
                if time.monotonic() > until:
                    yield False
                    return
                time.sleep(0.2)
            else:
                break
        yield True
