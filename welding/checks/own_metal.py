"""An own record of a metal as the checks see a grade."""

from __future__ import annotations

from welding.citation import Citation
from welding.documents.library import OwnMetal
from welding.language import tr
from welding.metals.catalogue import MAGNETIC, Metal
from welding.metals.grouping import group_of


def as_metal(own: OwnMetal) -> Metal:
    """The grade that an own record describes; its group is computed, and listed as its owner states."""
    chemistry = {element: (limits.min, limits.max) for element, limits in (own.chemistry or {}).items()}
    steps = tuple((step.up_to_mm, step.yield_mpa) for step in own.yield_steps)
    grouped = group_of(
        family=own.family,
        condition=own.condition or "",
        yield_mpa=steps[0][1] if steps else None,
        chemistry=chemistry,
    )
    return Metal(
        name=own.name,
        also=own.also,
        standard=own.standard or tr("own record"),
        family=own.family,
        condition=own.condition or "",
        yield_steps_mpa=steps,
        tensile_mpa=own.tensile_mpa,
        chemistry=chemistry,
        iso_15608=own.iso_15608 or grouped.group or "",
        grouped=grouped,
        aws_d1_1=None,
        aws_d1_1_thick=None,
        magnetic=own.family in MAGNETIC,
        citation=Citation(document=own.source or "own record", provenance="practice", confidence="medium"),
        unchecked=(),
        own=True,
    )
