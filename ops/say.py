"""Talking to the person at the terminal, and stopping with one clear sentence."""

from __future__ import annotations

import sys
import time

USAGE, MISSING, PORT, DISK, NETWORK, DATABASE, BUILD, BACKUP = 2, 3, 4, 5, 6, 7, 8, 9


class Stop(Exception):
    """End with a sentence and an exit code."""

    def __init__(self, sentence: str, code: int) -> None:
        super().__init__(sentence)
        self.code = code


def say(text: str = "") -> None:
    """Print a line at once."""
    print(text, flush=True)


class Step:
    """Say what is being done, and how long it took if that was long."""

    def __init__(self, text: str) -> None:
        self._text = text

    def __enter__(self) -> None:
        self._start = time.monotonic()
        print(f"  {self._text} …", end="", flush=True)

    def __exit__(self, kind: object, *_: object) -> None:
        took = time.monotonic() - self._start
        print(" failed" if kind else f" {took:.0f} s" if took >= 1 else " done", flush=True)
        if kind:
            sys.stdout.flush()
