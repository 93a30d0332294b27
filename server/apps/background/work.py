"""Taking up what waits, telling how far it is, and ending it: for the web server and for the process."""

from __future__ import annotations

import logging
import os
import subprocess
import sys
import time
from collections.abc import Callable
from datetime import timedelta
from threading import Thread
from typing import Any, TypeVar

from django.conf import settings
from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from apps.background.models import Work
from apps.codebook.queries import current_book
from welding.codebook.book import using
from welding.errors import WeldingError
from welding.language import SOURCE, speaking, tr

log = logging.getLogger("background")
BEAT_S = 0.5
LOST_AFTER = timedelta(seconds=150)
"""Work that was not heard of for so long has lost its process: a solver alone may take a minute."""
WAITS_AT_MOST = timedelta(seconds=5)
State = Work.State
W = TypeVar("W", bound=Work)


class Stopped(Exception):
    """Somebody ended it."""


def answered(those: QuerySet[W], asked_hash: str) -> W | None:
    """What was asked already and is answered, or will be; ``None`` where it has to be asked.

    Args:
        those: Of what it is one, such as the searches of a list.
        asked_hash: Over all that the answer rests on.
    """
    live = (State.WAITING, State.RUNNING, State.DONE)
    known = those.filter(asked_hash=asked_hash, state__in=live).last()
    return None if known is None or is_lost(known) else known


def as_it_stands(work: W, start: Callable[[], None]) -> W:
    """Work as it stands: what has lost its process has failed, what waits too long is taken up.

    Args:
        work: The work.
        start: Starts the process that takes up what waits.
    """
    if is_lost(work):
        of(work, State.RUNNING).update(state=State.FAILED, problem=_gone())
    elif work.state == State.WAITING and timezone.now() - work.seen_at > WAITS_AT_MOST:
        of(work, State.WAITING).update(seen_at=timezone.now())
        if settings.WORK_APART:
            start()
    work.refresh_from_db()
    return work


def end(work: W) -> W:
    """End work that goes on; what has its answer keeps it."""
    of(work, State.WAITING, State.RUNNING).update(state=State.STOPPED)
    work.refresh_from_db()
    return work


def is_lost(work: Work) -> bool:
    """Whether its process is gone."""
    return work.state == State.RUNNING and timezone.now() - work.seen_at > LOST_AFTER


def of(work: Work, *states: State) -> Any:
    """The row of this work, while it is in one of these states."""
    return type(work)._default_manager.filter(pk=work.pk, state__in=states)


def start_process(command: str) -> None:
    """Start ``manage.py COMMAND``, which takes up what waits; where there is one already, it ends at once."""
    process = subprocess.Popen(  # noqa: S603 - our own program, a name of our own commands
        [sys.executable, "manage.py", command],
        cwd=settings.BASE,
        env={**os.environ, "BEAD_ALONE": "1"},
        stdin=subprocess.DEVNULL,
        stdout=subprocess.DEVNULL,
        stderr=None,
    )
    # Somebody has to take note of its end, or it stays in the table of processes.
    Thread(target=process.wait, daemon=True).start()


# --- the process that does it -----------------------------------------------------------------------


def give_up_orphans(model: type[Work]) -> None:
    """Work whose process is gone; asked by the only process for it, before it takes up any."""
    with speaking(SOURCE):
        model._default_manager.filter(state=State.RUNNING).update(state=State.FAILED, problem=_gone())


def next_waiting(model: type[W]) -> W | None:
    """What waits longest, marked as running."""
    with transaction.atomic():
        work = model._default_manager.select_for_update().filter(state=State.WAITING).first()
        if work is not None:
            work.state, work.seen_at = State.RUNNING, timezone.now()
            work.save(update_fields=["state", "seen_at"])
    return work


def carry_out(work: Work, do: Callable[[], dict[str, Any]], let_go: Callable[[], None]) -> None:
    """Do the work, and keep its answer or why there is none.

    Args:
        work: The work.
        do: Does it, under the code book in force and in the language of whoever asked; gives the fields of
            the answer.
        let_go: Gives the connection back.
    """
    try:
        with using(current_book()), speaking(work.language):
            answer = do()
    except Stopped:
        return
    except WeldingError as error:
        _ended(work, state=State.FAILED, problem=str(error))
    except Exception:
        log.exception("%s", work)
        _ended(work, state=State.FAILED, problem="It ended with an error; the server's log has it.")
    else:
        _ended(work, state=State.DONE, **answer)
    let_go()


def _ended(work: Work, **facts: object) -> None:
    of(work, State.WAITING, State.RUNNING).update(seen_at=timezone.now(), **facts)


def _gone() -> str:
    return tr("It ended without an answer: ask again.")


class Watch:
    """Writes down how far work is, and ends it when somebody asked for that.

    Args:
        work: The work.
        let_go: Gives the connection back, whenever the work goes on without it.
    """

    def __init__(self, work: Work, let_go: Callable[[], None]) -> None:
        self._work, self._let_go = work, let_go
        self._told, self._doing = 0.0, ""

    def __call__(self, doing: str, done: int, of_all: int) -> None:
        """Tell that of the step ``doing``, ``done`` of ``of_all`` are done.

        Raises:
            Stopped: Somebody ended it.
        """
        now = time.monotonic()
        if doing == self._doing and now - self._told < BEAT_S:
            return
        self._told, self._doing = now, doing
        facts = {"doing": doing, "done": done, "of": of_all, "seen_at": timezone.now()}
        going_on = of(self._work, State.WAITING, State.RUNNING).update(**facts)
        self._let_go()
        if not going_on:
            raise Stopped
