"""The cheapest set that covers everything, with its proof: a set cover solved by HiGHS through SciPy."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import lil_array

from welding.errors import WeldingError
from welding.language import tr

PROVEN_WITHIN = 1e-6


@dataclass(frozen=True, slots=True, kw_only=True)
class CheapestSet:
    """A solution.

    Attributes:
        chosen: Numbers of the columns chosen, in order.
        cost: What they cost.
        bound: What any solution costs at least.
        optimal: Whether that proves that none is cheaper.
    """

    chosen: tuple[int, ...]
    cost: float
    bound: float
    optimal: bool


def cheapest_set(
    rows: int,
    columns: Sequence[Collection[int]],
    costs: Sequence[float],
    *,
    pairs: Mapping[tuple[int, int], Collection[int]] | None = None,
    forced: Collection[int] = (),
    seconds: float = 60.0,
) -> CheapestSet:
    """Choose columns of least cost so that every row is covered.

    Args:
        rows: How many rows there are; each is covered by some column or pair.
        columns: Rows that each column covers.
        costs: Cost of each column, none below zero.
        pairs: Rows that two columns cover together and neither alone.
        forced: Columns that have to be chosen.
        seconds: After so long the best that was found is given, with its bound.

    Raises:
        WeldingError: A row has nothing that covers it, or nothing was found in time.

    Example:
        >>> found = cheapest_set(3, [{0, 1}, {1, 2}, {0, 1, 2}], [2.0, 2.0, 3.0])
        >>> found.chosen, found.cost, found.optimal
        ((2,), 3.0, True)
    """
    together = list((pairs or {}).items())
    count = len(columns) + len(together)
    if rows == 0 and not forced:
        return CheapestSet(chosen=(), cost=0.0, bound=0.0, optimal=True)
    covering = lil_array((rows, count))
    for number, covered in enumerate(columns):
        for row in covered:
            covering[row, number] = 1
    linked = lil_array((2 * len(together), count))
    for number, ((one, two), covered) in enumerate(together):
        for row in covered:
            covering[row, len(columns) + number] = 1
        for side, column in enumerate((one, two)):
            # A pair counts only where both of its columns are chosen.
            linked[2 * number + side, column] = 1
            linked[2 * number + side, len(columns) + number] = -1
    bare = [row for row in range(rows) if covering[[row], :].sum() == 0]
    if bare:
        raise WeldingError(tr("Nothing covers row {row}.", row=bare[0]))
    least = np.zeros(count)
    least[list(forced)] = 1
    constraints = [LinearConstraint(covering.tocsr(), lb=1)] if rows else []
    if together:
        constraints.append(LinearConstraint(linked.tocsr(), lb=0))
    found = milp(
        c=np.array([*costs, *[0.0] * len(together)]),
        constraints=constraints,
        bounds=Bounds(least, np.ones(count)),
        integrality=np.ones(count),
        options={"time_limit": seconds, "mip_rel_gap": 0.0},
    )
    if found.x is None:
        raise WeldingError(tr("No set was found in {seconds:g} s.", seconds=seconds))
    chosen = tuple(int(one) for one in np.flatnonzero(found.x[: len(columns)] > 0.5))
    cost = float(sum(costs[one] for one in chosen))
    bound = cost if found.mip_dual_bound is None else float(found.mip_dual_bound)
    return CheapestSet(
        chosen=chosen,
        cost=cost,
        bound=min(bound, cost),
        optimal=cost - bound <= PROVEN_WITHIN * max(cost, 1.0),
    )
