"""What the rows of a document are known by, so that two people's changes meet in the same row."""

from __future__ import annotations

from dataclasses import replace
from itertools import count

from welding.documents.procedure import Procedure


def with_pass_ids(procedure: Procedure) -> Procedure:
    """The procedure with an id on every pass; the same document always gets the same ones.

    An id that is stated stays. Where two passes state the same one, the first keeps it.

    Args:
        procedure: As written; documents of before there were ids have none.

    Examples:
        >>> from welding.documents.procedure import Pass
        >>> one = Procedure(passes=(Pass(number=1, process="141"), Pass(number=2, process="111", id="p1")))
        >>> [run.id for run in with_pass_ids(one).passes]
        ['p2', 'p1']
    """
    stated = [run.id for run in procedure.passes]
    taken = set(stated)
    if None not in taken and len(taken) == len(stated):
        return procedure
    fresh = (name for name in (f"p{n}" for n in count(1)) if name not in taken)
    seen: set[str] = set()
    passes = []
    for run in procedure.passes:
        name = run.id if run.id is not None and run.id not in seen else next(fresh)
        seen.add(name)
        passes.append(run if run.id == name else replace(run, id=name))
    return replace(procedure, passes=tuple(passes))


def without_pass_ids(procedure: Procedure) -> Procedure:
    """The procedure as one that was written before there were ids, to compare contents by."""
    return replace(procedure, passes=tuple(replace(run, id=None) for run in procedure.passes))
