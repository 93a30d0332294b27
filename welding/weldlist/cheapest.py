"""The cheapest set that covers everything, with its proof: a set cover solved by HiGHS through SciPy."""

from __future__ import annotations

from collections.abc import Collection, Hashable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import scipy

from welding.errors import WeldingError
from welding.language import tr

PROVEN_WITHIN = 1e-6
INFEASIBLE = 2
"""What SciPy calls a problem without a solution."""


class TooFewKindsError(WeldingError):
    """Columns of so few kinds do not cover all rows; ``least`` kinds do."""

    def __init__(self, least: int) -> None:
        super().__init__(f"at least {least} kinds")
        self.least = least


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
    kinds: Sequence[Hashable] = (),
    most_kinds: int | None = None,
    seconds: float = 60.0,
) -> CheapestSet:
    """Choose columns of least cost so that every row is covered.

    Args:
        rows: How many rows there are; each is covered by some column or pair.
        columns: Rows that each column covers.
        costs: Cost of each column, none below zero.
        pairs: Rows that two columns cover together and neither alone.
        forced: Columns that have to be chosen.
        kinds: Of which kind each column is; asked only together with ``most_kinds``.
        most_kinds: Of how many kinds columns may be chosen at most.
        seconds: After so long the best that was found is given, with its bound.

    Raises:
        TooFewKindsError: Columns of so few kinds do not cover all rows; with how many do.
        WeldingError: A row has nothing that covers it, or nothing was found in time.

    Example:
        >>> found = cheapest_set(3, [{0, 1}, {1, 2}, {0, 1, 2}], [2.0, 2.0, 3.0])
        >>> found.chosen, found.cost, found.optimal
        ((2,), 3.0, True)
    """
    together = list((pairs or {}).items())
    limited = list(dict.fromkeys(kinds)) if most_kinds is not None else []
    first_kind = len(columns) + len(together)
    count = first_kind + len(limited)
    if rows == 0 and not forced:
        return CheapestSet(chosen=(), cost=0.0, bound=0.0, optimal=True)
    covering = scipy.sparse.lil_array((rows, count))
    for number, covered in enumerate(columns):
        for row in covered:
            covering[row, number] = 1
    linked = scipy.sparse.lil_array((2 * len(together), count))
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
    constraints = [scipy.optimize.LinearConstraint(covering.tocsr(), lb=1)] if rows else []
    if together:
        constraints.append(scipy.optimize.LinearConstraint(linked.tocsr(), lb=0))
    of_kinds = np.zeros(count)
    of_kinds[first_kind:] = 1
    if limited:
        opened = scipy.sparse.lil_array((len(columns), count))
        for column, kind in enumerate(kinds):
            # A column counts only where its kind is among those that are chosen.
            opened[column, first_kind + limited.index(kind)] = 1
            opened[column, column] = -1
        constraints.append(scipy.optimize.LinearConstraint(opened.tocsr(), lb=0))
    within = [scipy.optimize.LinearConstraint(of_kinds[np.newaxis, :], ub=most_kinds)] if limited else []

    def solved(wanted: Any, also: list[scipy.optimize.LinearConstraint]) -> Any:
        return scipy.optimize.milp(
            c=wanted,
            constraints=[*constraints, *also],
            bounds=scipy.optimize.Bounds(least, np.ones(count)),
            integrality=np.ones(count),
            options={"time_limit": seconds, "mip_rel_gap": 0.0},
        )

    found = solved(np.array([*costs, *[0.0] * (count - len(costs))]), within)
    if found.status == INFEASIBLE and limited:
        raise TooFewKindsError(round(solved(of_kinds, []).fun))
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
