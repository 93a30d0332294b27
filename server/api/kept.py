"""Answers that are kept in mind, so many at most; one thread may empty it while another asks."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import Generic, TypeVar

T = TypeVar("T")


class Kept(Generic[T]):
    """Answers by their keys; emptied when it is full."""

    def __init__(self, most: int) -> None:
        """How many are kept at most."""
        self._most = most
        self._found: dict[Hashable, T] = {}

    def __len__(self) -> int:
        """How many are kept."""
        return len(self._found)

    def look(self, key: Hashable) -> T | None:
        """The answer, if it is kept."""
        return self._found.get(key)

    def keep(self, key: Hashable, answer: T) -> T:
        """Keep an answer, and give it back."""
        if len(self._found) >= self._most:
            self._found.clear()
        self._found[key] = answer
        return answer

    def answer(self, key: Hashable, make: Callable[[], T]) -> T:
        """The answer that is kept, or a new one that is kept from now on."""
        found = self.look(key)
        return self.keep(key, make()) if found is None else found
