"""Fillets: legs, throat, dihedral angle and face of a weld between two members' surfaces."""

from __future__ import annotations

import math
from dataclasses import dataclass

from welding.documents.procedure import Joint
from welding.errors import Problem
from welding.joints.shapes import segment_area
from welding.language import tr
from welding.ranges import positive


@dataclass(frozen=True, slots=True, kw_only=True)
class Fillet:
    """A fillet between two flat surfaces.

    Attributes:
        leg1_mm: Leg on the through plate.
        leg2_mm: Leg on the other member.
        dihedral_deg: Angle between both surfaces at the weld.
        rise_mm: Crown over the line from toe to toe; negative for a hollow face.
    """

    leg1_mm: float
    leg2_mm: float
    dihedral_deg: float = 90.0
    rise_mm: float = 0.0

    @property
    def flat_area_mm2(self) -> float:
        """Triangle of both legs [mm²]: leg · leg · sin(dihedral) / 2."""
        return self.leg1_mm * self.leg2_mm * math.sin(math.radians(self.dihedral_deg)) / 2

    @property
    def area_mm2(self) -> float:
        """Section with its crowned or hollow face [mm²]."""
        return self.flat_area_mm2 + math.copysign(segment_area(self.face_mm, abs(self.rise_mm)), self.rise_mm)

    @property
    def face_mm(self) -> float:
        """Toe to toe [mm], by the law of cosines."""
        cosine = math.cos(math.radians(self.dihedral_deg))
        return math.sqrt(self.leg1_mm**2 + self.leg2_mm**2 - 2 * self.leg1_mm * self.leg2_mm * cosine)

    @property
    def throat_mm(self) -> float:
        """Throat that counts [mm]: root square to the face, less what a hollow face lacks."""
        return 2 * self.flat_area_mm2 / self.face_mm + min(self.rise_mm, 0.0)


def equal_legs_mm(throat_mm: float, dihedral_deg: float = 90.0) -> float:
    """Leg of an equal-leg flat fillet with this throat: throat / cos(dihedral / 2) (plane geometry).

    Args:
        throat_mm: Theoretical throat [mm], above zero.
        dihedral_deg: Angle between the members, above 0 and below 180.

    Returns:
        Leg [mm]; at 90° that is throat · √2.

    Raises:
        OutOfRangeError: The throat is zero, negative or not finite.

    Example:
        >>> round(equal_legs_mm(5.0), 3)
        7.071
    """
    positive("mm").require("throat_mm", throat_mm)
    return throat_mm / math.cos(math.radians(dihedral_deg / 2))


def dihedral_of(joint: Joint) -> float:
    """Angle between the members at the weld: as stated, a branch's own angle, else square."""
    if joint.dihedral_deg is not None:
        return joint.dihedral_deg
    if joint.kind == "branch" and joint.branch_angle_deg is not None:
        return joint.branch_angle_deg
    return 90.0


def fillet_of(joint: Joint) -> tuple[Fillet | None, tuple[Problem, ...], tuple[Problem, ...]]:
    """The fillet of a joint, from whatever is named: two legs, one, or the throat.

    Returns:
        The fillet, what is missing for it, what cannot be.
    """
    dihedral = dihedral_of(joint)
    if not 20.0 <= dihedral <= 160.0:
        path = "joint.dihedral_deg" if joint.dihedral_deg is not None else "joint.branch_angle_deg"
        return (
            None,
            (),
            (
                Problem(
                    path,
                    tr("a fillet cannot be laid at {dihedral:g}°; 20° to 160° is taken", dihedral=dihedral),
                ),
            ),
        )
    face = joint.face or "flat"
    if face != "flat" and joint.face_height_mm is None:
        word = "crown" if face == "convex" else "hollow"
        return None, (Problem("joint.face_height_mm", tr("the height of the {word}", word=word)),), ()
    rise = 0.0 if face == "flat" else (joint.face_height_mm or 0.0)
    rise = -rise if face == "concave" else rise
    legs = _legs(joint, dihedral, min(rise, 0.0))
    if legs is None:
        return None, (Problem("joint.leg1_mm", tr("a leg or the throat of the fillet")),), ()
    weld = Fillet(leg1_mm=legs[0], leg2_mm=legs[1], dihedral_deg=dihedral, rise_mm=rise)
    flat_throat = 2 * weld.flat_area_mm2 / weld.face_mm
    if abs(rise) > 0.5 * flat_throat:
        return (
            None,
            (),
            (
                Problem(
                    "joint.face_height_mm",
                    tr(
                        "{rise:g} mm is more than half the throat, {flat_throat:.1f} mm",
                        rise=abs(rise),
                        flat_throat=flat_throat,
                    ),
                ),
            ),
        )
    return weld, (), ()


def _legs(joint: Joint, dihedral: float, hollow: float) -> tuple[float, float] | None:
    if joint.leg1_mm and joint.leg2_mm:
        return joint.leg1_mm, joint.leg2_mm
    one = joint.leg1_mm or joint.leg2_mm
    if one:
        return one, one
    if joint.throat_mm:
        leg = equal_legs_mm(joint.throat_mm - hollow, dihedral)
        return leg, leg
    return None
