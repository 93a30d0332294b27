"""Two documents field by field."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True, slots=True, kw_only=True)
class Difference:
    """A field that differs; a side without it is ``None``."""

    path: str
    before: Any
    after: Any


def differences(before: Any, after: Any, path: str = "") -> Iterator[Difference]:
    """Fields that differ between two plain JSON values, in the order of the first.

    Example:
        >>> list(differences({"a": [1, 2]}, {"a": [1, 3], "b": 4}))
        [Difference(path='a.1', before=2, after=3), Difference(path='b', before=None, after=4)]
    """
    if isinstance(before, dict) and isinstance(after, dict):
        for key in dict.fromkeys((*before, *after)):
            yield from differences(before.get(key), after.get(key), f"{path}.{key}" if path else key)
    elif isinstance(before, list) and isinstance(after, list):
        for index in range(max(len(before), len(after))):
            yield from differences(
                before[index] if index < len(before) else None,
                after[index] if index < len(after) else None,
                f"{path}.{index}" if path else str(index),
            )
    elif before != after:
        yield Difference(path=path, before=before, after=after)
