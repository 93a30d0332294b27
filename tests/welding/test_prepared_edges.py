"""How a draft prepares the edges: what a fabricator would cut for the thickness, the joint and the process."""

import pytest

from welding.documents.codec import INTENT
from welding.evaluate.procedure import evaluate
from welding.planning.propose import propose


def proposed(**wish):
    butt = {"joint": {"kind": "butt", "weld": "cjp-groove"}}
    return propose(INTENT.take({"format": "grounded-bead/intent", "version": 1, **butt, **wish}))


@pytest.mark.parametrize(
    "mm, more, form",
    [
        (20, {"outside_diameter_mm": 273}, "single-v"), (25, {"outside_diameter_mm": 273}, "single-u"),
        (40, {}, "double-v"), (40, {"joint": {"kind": "butt", "weld": "cjp-groove", "backing": "metal"}}, "single-v"),
    ],
)  # fmt: skip
def test_a_thick_wall_from_one_side_is_machined_to_a_u(mm, more, form):
    """Above about 22 mm (7/8 in) a U or a compound bevel takes the place of the V (common practice)."""
    found = proposed(metals=["S355J2+N"], thickness_mm=[mm], process="111", position="PA", **more)
    assert found.procedure.joint.preparation.form == form
    told = [one.text for one in found.reasons if one.path == "joint.preparation"]
    assert any(form.replace("-", " ").replace(" v", " V").replace(" u", " U") in text for text in told), told


@pytest.mark.parametrize("mm", [1.0, 1.5, 2.0, 3.0])
@pytest.mark.parametrize("metal", ["S235JR", "304L", "EN AW-5083"])
@pytest.mark.parametrize("kind, position", [("corner", "PA"), ("t", "PB")])
@pytest.mark.parametrize("sides, passes", [("one", 1), ("both", 2)])
def test_the_edges_of_sheet_stay_square(kind, position, metal, mm, sides, passes):
    """Sheet has no depth for a bevel: edges as cut, one TIG pass from each side (common practice)."""
    joint = {"kind": kind, "weld": "cjp-groove", "sides": sides}
    found = proposed(metals=[metal], thickness_mm=[mm], process="141", position=position, joint=joint)
    preparation = found.procedure.joint.preparation
    assert preparation.form == "square" and preparation.root_gap_mm <= mm
    assert len(found.procedure.passes) == passes and not found.collisions
    assert not [one for one in evaluate(found.procedure).findings if one.verdict == "violates"]


@pytest.mark.parametrize("metal, process", [("S355J2+N", "136"), ("S690QL", "138"), ("304L", "135")])
@pytest.mark.parametrize("kind", ["t", "corner"])
def test_a_groove_of_a_t_joint_in_the_position_of_its_fillet_is_no_fault(metal, process, kind):
    """PB and PD are for groove welds of T and corner joints too (ISO 6947, from memory)."""
    joint = {"kind": kind, "weld": "cjp-groove", "sides": "both", "back_gouge": True}
    found = proposed(metals=[metal], thickness_mm=[12], process=process, position="PB", joint=joint)
    assert not [one for one in evaluate(found.procedure).findings if one.verdict == "violates"]
