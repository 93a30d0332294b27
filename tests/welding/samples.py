"""Documents that tests start from: invented, complete, and easy to change."""

from copy import deepcopy
from typing import Any

SINGLE_V = {
    "kind": "butt",
    "weld": "cjp-groove",
    "preparation": {"form": "single-v", "included_angle_deg": 60, "root_gap_mm": 3, "root_face_mm": 2},
}
SQUARE = {"kind": "butt", "weld": "cjp-groove", "preparation": {"form": "square", "root_gap_mm": 2}}
T_GROOVE = {
    "kind": "t", "weld": "cjp-groove",
    "preparation": {"form": "single-bevel", "included_angle_deg": 45, "root_gap_mm": 3, "root_face_mm": 1},
}  # fmt: skip
T_FILLET = {"kind": "t", "weld": "fillet", "leg1_mm": 8}


def a_pass(number: int, role: str = "fill", **more: Any) -> dict[str, Any]:
    return {
        "number": number,
        "role": role,
        "process": "135",
        "mechanisation": "partly",
        "transfer": "spray",
        "filler": {"designation": "ER70S-6", "diameter_mm": 1.2},
        "gas": {"components_percent": {"Ar": 82, "CO2": 18}, "flow_l_min": {"min": 14, "max": 18}},
        "polarity": "DCEP",
        "progression": "up",
        "current_a": {"min": 220, "max": 260},
        "voltage_v": {"min": 24, "max": 28},
        "wire_feed_m_min": {"min": 7, "max": 9},
        "travel_mm_min": {"min": 200, "max": 300},
        **more,
    }


def procedure(**more: Any) -> dict[str, Any]:
    return deepcopy(
        {
            "format": "grounded-bead/procedure",
            "version": 1,
            "number": "FB-27-P03",
            "revision": "A",
            "title": "Girder butt, vertical",
            "code": {"id": "iso-15614-1:2017", "level": 2},
            "base_metals": [
                {"designation": "S355J2+N", "thickness_mm": 20},
                {"designation": "S355J2+N", "thickness_mm": 20},
            ],
            "joint": SINGLE_V,
            "positions": ["PF"],
            "thermal": {"preheat_min_c": 75, "interpass_max_c": 250},
            "passes": [a_pass(1, "root"), a_pass(2), a_pass(3, "cap")],
            **more,
        }
    )


def coupon(passes: list[dict[str, Any]] | None = None, **more: Any) -> dict[str, Any]:
    return {
        "format": "grounded-bead/coupon",
        "version": 1,
        "number": "FB-27-C05",
        "procedure": procedure(**more),
        "coupon": {"product": "plate", "thickness_mm": [20, 20], "position": "PF", "passes": passes or []},
    }
