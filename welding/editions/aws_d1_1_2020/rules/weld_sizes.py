"""Sizes of welds: the least fillet and partial groove, the largest fillet along an edge (AWS D1.1:2020)."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.documents.procedure import Pass
from welding.editions.aws_d1_1_2020.rules.clauses import Answer, from_clause, units_of
from welding.editions.aws_d1_1_2020.rules.sizes import least_fillet_mm, least_partial_mm, sizes_table
from welding.language import in_sentence, tr

_HAIR = 1 - 1e-6
_EDGE = from_clause("clause 4.4.2.9, largest fillet along an edge")
_EDGE_FROM_MM = {"si": 6.0, "us": 6.35}
_EDGE_LESS_MM = {"si": 2.0, "us": 1.588}


def size_answers(draft: Draft) -> Iterator[Answer]:
    """Answers on the size of the weld."""
    yield from _least_size(draft)
    yield from _along_an_edge(draft)


def _along_an_edge(draft: Draft) -> Iterator[Answer]:
    """A lap's fillet along the edge of metal of 6 mm [1/4 in] and more stays 2 mm [1/16 in] below it."""
    joint, units = draft.procedure.joint, units_of(draft)
    metals = draft.procedure.base_metals
    edge = metals[-1].thickness_mm if metals else None
    if joint is None or joint.kind != "lap" or joint.weld != "fillet" or not edge:
        return
    leg = joint.leg2_mm or joint.leg1_mm
    if leg is None:
        return
    most = edge if edge < _EDGE_FROM_MM[units] * _HAIR else edge - _EDGE_LESS_MM[units]
    over = leg > most / _HAIR
    found, limit = draft.write(leg, "thickness"), draft.write(most, "thickness")
    yield Answer(
        rule="prequalified.edge",
        path="joint.leg2_mm" if joint.leg2_mm else "joint.leg1_mm",
        verdict="violates" if over else "complies",
        title=tr("Fillet is too large for the edge") if over else tr("Fillet leaves the edge standing"),
        message=tr(
            "The leg along the edge is {found}; up to {limit} the edge stays, unless the "
            "drawing asks for the full thickness.",
            found=found,
            limit=limit,
        ),
        actual=found,
        limit=limit,
        remedy=tr("Make it {limit} at most, or have it built out as the drawing says.", limit=limit),
        citation=_EDGE,
    )


def _low_hydrogen(one: Pass) -> bool:
    """Whether a pass brings little hydrogen; a covered electrode that cannot be read is not taken for one."""
    filler = decoded_of(one)
    return one.process != "111" if filler is None else filler.low_hydrogen is not False


def _least_size(draft: Draft) -> Iterator[Answer]:
    joint, units = draft.procedure.joint, units_of(draft)
    known = [metal.thickness_mm for metal in draft.procedure.base_metals if metal.thickness_mm]
    if joint is None or not known:
        return
    table = sizes_table()
    if joint.weld == "fillet":
        legs = [leg for leg in (joint.leg1_mm, joint.leg2_mm) if leg]
        throat = joint.throat_mm * 2**0.5 if joint.throat_mm else None
        size = min(legs) if legs else throat
        low_hydrogen = all(_low_hydrogen(one) for one in draft.procedure.passes)
        thickness = min(known) if low_hydrogen else max(known)
        least, what, path = least_fillet_mm(thickness, units), tr("Fillet size"), "joint.leg1_mm"
        least = min(least, min(known))
    elif joint.weld == "pjp-groove":
        size, path, what = joint.throat_mm, "joint.throat_mm", tr("Weld size")
        least = least_partial_mm(max(known), units)
    else:
        return
    if size is None:
        yield Answer(
            rule="prequalified.least-size",
            path=path,
            verdict="undecided",
            title=tr("{what} is not stated", what=what),
            message=tr("the {lower} is not stated", lower=in_sentence(what)),
            citation=table.citation,
            unchecked=table.unchecked,
        )
        return
    small = size < least * _HAIR
    found, limit = draft.write(size, "thickness"), draft.write(least, "thickness")
    yield Answer(
        rule="prequalified.least-size",
        path=path,
        verdict="violates" if small else "complies",
        title=tr(
            "{what} is {value}", what=what, value=tr("below the least") if small else tr("large enough")
        ),
        message=tr(
            "{what} is {found}; at this thickness {limit} is the least.", what=what, found=found, limit=limit
        ),
        actual=found,
        limit=limit,
        remedy=tr("Make it {limit} at least.", limit=limit),
        citation=table.citation,
        unchecked=table.unchecked,
    )
