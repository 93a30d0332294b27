"""Sheets are set by a process beside each web worker: setting one takes a second of reckoning, during which
nobody who types should wait."""

from __future__ import annotations

import ctypes
import os
import signal
import threading
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing import get_context

from apps.printing.paper import set_sheet

_PR_SET_PDEATHSIG = 1
LONGEST_S = 180
_lock = threading.Lock()
_pool: tuple[int, ProcessPoolExecutor] | None = None


def _begin() -> None:
    """In the new process: give way to whoever types, and end with the worker however it ends."""
    os.nice(10)
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)


def _the_pool(anew: bool = False) -> ProcessPoolExecutor:
    global _pool  # one for each worker process, made when the first sheet is asked for
    with _lock:
        if _pool is None or _pool[0] != os.getpid() or anew:
            _pool = os.getpid(), ProcessPoolExecutor(1, mp_context=get_context("spawn"), initializer=_begin)
        return _pool[1]


def begin_early() -> None:
    """Start the process before anybody waits for it."""
    _the_pool().submit(set_sheet, "<p></p>")


def set_apart(html: str) -> bytes:
    """Set a sheet in the process beside this one; one that died is replaced once.

    Raises:
        BrokenProcessPool: It died twice over this sheet, such as of its memory.
        TimeoutError: It took longer than three minutes.
    """
    try:
        return _the_pool().submit(set_sheet, html).result(LONGEST_S)
    except BrokenProcessPool:
        return _the_pool(anew=True).submit(set_sheet, html).result(LONGEST_S)
