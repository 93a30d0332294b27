"""Imperfections against the limits of ISO 5817:2014, table 1, by thickness and weld; from memory."""

import pytest

from tests.welding.records import put, record, taken, thickness
from tests.welding.test_ranges import _change
from welding.coverage.record import judge


def visual(code_mm, **measured):
    plain = thickness(record("iso"), code_mm)
    put(plain, "tests.0", {"kind": "visual", "specimen": "V", "outcome": "accepted", **measured})
    return next(one for one in judge(taken(plain)).specimens if one.specimen == "V").verdict


@pytest.mark.parametrize(
    "mm, measured, verdict",
    [
        (3, {"misalignment_mm": 0.5}, "accepted"), (3, {"misalignment_mm": 0.51}, "rejected"),
        (10, {"misalignment_mm": 1.0}, "accepted"), (10, {"misalignment_mm": 1.1}, "rejected"),
        (3, {"undercut_mm": 0.1}, "rejected"), (10, {"undercut_mm": 0.5}, "accepted"), (10, {"undercut_mm": 0.6}, "rejected"),
        (2, {"root_concavity_mm": 0.05}, "rejected"), (10, {"root_concavity_mm": 0.5}, "accepted"),
        (2, {"penetration_mm": 1.6, "penetration_width_mm": 2}, "accepted"), (2, {"penetration_mm": 1.7, "penetration_width_mm": 2}, "rejected"),
        (10, {"penetration_mm": 2.2, "penetration_width_mm": 2}, "accepted"),
        (3, {"underfill_mm": 0.05}, "rejected"), (3, {"underfill_mm": 0}, "accepted"),
        (8, {"underfill_mm": 0.4}, "accepted"), (8, {"underfill_mm": 0.45}, "rejected"), (20, {"underfill_mm": 0.6}, "rejected"),
    ],
)  # fmt: skip
def test_thin_metal_has_limits_of_its_own(mm, measured, verdict):
    assert visual(mm, **measured) == verdict


def fillet_macro(**more):
    plain = record("iso")
    _change(plain, "fillet", None)
    macro = {
        "kind": "macro",
        "specimen": "M1",
        "cracks": False,
        "complete_fusion": True,
        "throat_mm": 5,
        **more,
    }
    plain["tests"] = [macro]
    return judge(taken(plain)).specimens[0].verdict


@pytest.mark.parametrize(
    "more, verdict",
    [
        ({}, "accepted"),
        ({"pore_mm": 1.0}, "accepted"),
        ({"pore_mm": 1.1}, "rejected"),
        ({"fused_to_root": True}, "accepted"),
        ({"fused_to_root": False}, "rejected"),
    ],
)
def test_a_fillet_is_judged_by_its_own_size(more, verdict):
    """ISO 5817:2014, 2011: level B, 0.2 of the nominal throat, here of 5 mm on 20 mm plate."""
    assert fillet_macro(**more) == verdict
