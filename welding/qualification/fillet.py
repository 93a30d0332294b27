"""Size of a fillet from what a joint states of it."""

from __future__ import annotations

import math

from welding.documents.procedure import Joint


def throat_mm_of(joint: Joint | None) -> float | None:
    """Throat, mm: as stated, else from the legs at a right angle; ``None`` where that does not fix it."""
    if joint is None:
        return None
    if joint.throat_mm:
        return joint.throat_mm
    legs = [leg for leg in (joint.leg1_mm, joint.leg2_mm or joint.leg1_mm) if leg]
    if len(legs) != 2 or joint.dihedral_deg not in (None, 90):
        return None
    return legs[0] * legs[1] / math.hypot(*legs)


def leg_mm_of(joint: Joint | None) -> float | None:
    """Leg, mm: the smaller of two, else that of an equal-legged fillet of the stated throat."""
    legs = [leg for leg in (joint.leg1_mm, joint.leg2_mm) if leg] if joint else []
    if legs:
        return min(legs)
    return joint.throat_mm * math.sqrt(2) if joint and joint.throat_mm else None
