"""Take up the searches for coupons that wait, one after the other: ``manage.py search_coupons``.

The web server starts it beside itself, with BEAD_ALONE=1. Where one is at work already, another one ends.
"""

from __future__ import annotations

import fcntl
import os
import time
from collections.abc import Iterator
from contextlib import contextmanager

from django.conf import settings
from django.core.management.base import BaseCommand
from django.db import connection

from apps.weldlist.services.search import give_up_orphans, next_waiting, take_up

MOST_WORKERS = 4
LINGERS_S = 60.0
"""How long it waits for another search: what-ifs follow each other, and starting takes seconds."""
LOOKS_EVERY_S = 0.3
PATIENCE_S = 3.0
"""How long it waits for one that is about to end, so that no search is left waiting between them."""


class Command(BaseCommand):
    """``manage.py search_coupons``."""

    help = __doc__ or ""
    # The web server made them; here they would load every page of it first.
    requires_system_checks = ()

    def handle(self, **_: object) -> None:
        """Search until nothing has waited for a while."""
        os.nice(10)  # people at the pages come first
        with only_one() as alone:
            until = time.monotonic() + LINGERS_S
            if alone:
                give_up_orphans()
            while alone and time.monotonic() < until:
                search = next_waiting()
                if search is None:
                    time.sleep(LOOKS_EVERY_S)
                    continue
                # Without a connection it may start copies of itself, which would share it.
                take_up(search, min(os.cpu_count() or 1, MOST_WORKERS), connection.close)
                until = time.monotonic() + LINGERS_S
        connection.close()


@contextmanager
def only_one() -> Iterator[bool]:
    """Whether no other process of this machine searches for this database."""
    path = settings.MEDIA_ROOT.parent / f"search-{settings.DATABASES['default']['NAME']}.lock"
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
