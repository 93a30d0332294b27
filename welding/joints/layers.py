"""How many beads lie in each layer, chosen so that beads have a natural shape.

A layer never mixes root, hot, fill and cap passes.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from functools import cache

NATURAL_ASPECT = 1.9
"""Width over height that beads tend to (common practice; it only arranges the drawing)."""

MOST_IN_LAYER = 8


def layers_of(
    roles: Sequence[str],
    shape: Callable[[float, float], tuple[float, float]],
    ends: Sequence[float] | None = None,
) -> list[int]:
    """Split passes into layers.

    Args:
        roles: Role of each pass in welding order.
        shape: Mean width and height of the layer between two shares of the section (0 to 1).
        ends: Share of the section that is filled after each pass; equal steps where not given.

    Returns:
        Number of beads in each layer, first layer first; they sum to the number of passes.

    Example:
        >>> layers_of(["root", "fill", "fill"], lambda a, b: (20.0, 10.0 * (b - a)))
        [1, 2]
    """
    total = len(roles)
    done = [0.0, *(ends or [(i + 1) / total for i in range(total)])]

    def cost(start: int, count: int) -> float:
        width, height = shape(done[start], done[start + count])
        if width <= 0 or height <= 0:
            return 100.0
        return abs(math.log(width / count / height / NATURAL_ASPECT))

    @cache
    def best(start: int) -> tuple[float, tuple[int, ...]]:
        if start == total:
            return 0.0, ()
        options = []
        for count in range(1, min(MOST_IN_LAYER, total - start) + 1):
            if len(set(roles[start : start + count])) > 1:
                break
            rest_cost, rest = best(start + count)
            options.append((count * cost(start, count) + rest_cost, (count, *rest)))
        return min(options)

    return list(best(0)[1])
