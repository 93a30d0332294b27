"""Work on many things alike, on as many processors as it is given."""

from __future__ import annotations

import multiprocessing
from collections.abc import Callable, Iterator
from contextvars import Context, copy_context
from typing import Any, TypeVar

R = TypeVar("R")
Watch = Callable[[str, int, int], None]
"""Told how far a search is: what it does, how much of it is done, and of how much. What it raises ends it."""

_WORK: list[tuple[Context, Callable[[int], Any]]] = []
"""What a worker does; it is there because a worker starts as a copy of this process."""


def spread(work: Callable[[int], R], count: int, workers: int, doing: str, watch: Watch) -> Iterator[R]:
    """Results for 0, 1, 2 and so on, in this order.

    Args:
        work: The work on one of them. On several processors it works on a copy of all that this process
            knows, and only what it returns comes back.
        count: How many there are.
        workers: Processors to use; with one, all is done in this process. More than one only in a process
            without other threads.
        doing: What the watch is told.
        watch: Told how far it is, and ends the work by raising.
    """
    if workers < 2 or count < 2:
        for number in range(count):
            watch(doing, number, count)
            yield work(number)
        return
    _WORK.append((copy_context(), work))
    try:
        with multiprocessing.get_context("fork").Pool(min(workers, count)) as pool:
            for number, found in enumerate(pool.imap(_one, range(count), chunksize=1)):
                watch(doing, number + 1, count)
                yield found
    finally:
        _WORK.pop()


def _one(number: int) -> Any:
    context, work = _WORK[-1]
    return context.run(work, number)
