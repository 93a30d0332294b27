"""Qualification records that tests start from: invented, complete, changed by dotted paths."""

from copy import deepcopy
from typing import Any

from tests.welding.samples import SINGLE_V, a_pass
from welding.documents.codec import RECORD
from welding.documents.record import QualificationRecord

ISO = {"id": "iso-15614-1:2017", "level": 2, "units": "si", "route": "test"}
AWS = {"id": "aws-d1.1:2020", "units": "si", "route": "test"}
S355 = {"designation": "S355J2+N", "groups": {"iso_15608": "1.2"}, "thickness_mm": 20,
        "impact": {"temperature_c": -20, "energy_j": 27}}  # fmt: skip
A572 = {"designation": "A572 Gr 50", "thickness_mm": 20}


def pass_record(number: int, **more: Any) -> dict[str, Any]:
    """25 V x 200 A at 240 mm/min: arc energy 1.25 kJ/mm, with k 0.8 a heat input of 1.0 kJ/mm."""
    return {
        "number": number, "process": "135", "current_a": 200, "voltage_v": 25, "wire_feed_m_min": 8,
        "gas": {"components_percent": {"Ar": 82, "CO2": 18}, "flow_l_min": 15},
        "length_mm": 320, "time_s": 80, "before_c": 80, "bead": "stringer", **more,
    }  # fmt: skip


def bends(count: int = 4, kind: str = "side-bend", **more: Any) -> list[dict[str, Any]]:
    return [
        {"kind": kind, "specimen": f"B{n}", "thickness_mm": 10, "former_mm": 38, "angle_deg": 180,
         "openings_mm": [], **more}
        for n in range(1, count + 1)
    ]  # fmt: skip


def hardness(lines: tuple[str, ...] = ("cap", "root"), **more: Any) -> dict[str, Any]:
    rows = [
        {"line": line, "zone": zone, "values": values}
        for line in lines
        for zone, values in (
            ("parent-1", [160, 162, 161]), ("haz-1", [250, 262, 241]), ("weld", [210, 205, 208]),
            ("haz-2", [255, 266, 244]), ("parent-2", [159, 163, 160]),
        )
    ]  # fmt: skip
    return {"kind": "hardness-hv10", "specimen": "H1", "rows": rows, **more}


def specimens_of(code: dict[str, Any]) -> list[dict[str, Any]]:
    common = [
        {"kind": "visual", "specimen": "V", "outcome": "accepted"},
        {"kind": "radiographic", "specimen": "R", "outcome": "accepted"},
        {"kind": "transverse-tensile", "specimen": "T1", "tensile_mpa": 548, "fracture": "parent"},
        {"kind": "transverse-tensile", "specimen": "T2", "tensile_mpa": 551, "fracture": "parent"},
        *bends(),
    ]
    if code["id"].startswith("aws"):
        return common
    return [
        *common,
        {"kind": "magnetic-particle", "specimen": "MT", "outcome": "accepted"},
        {"kind": "macro", "specimen": "M1", "cracks": False, "complete_fusion": True, "undercut_mm": 0.2},
        hardness(),
        {"kind": "impact", "specimen": "I1", "location": "VWT", "temperature_c": -20, "values_j": [61, 58, 70], "width_mm": 10},
        {"kind": "impact", "specimen": "I2", "location": "VHT", "temperature_c": -20, "values_j": [49, 55, 62], "width_mm": 10},
    ]  # fmt: skip


def record(code: str = "iso", /, **changes: Any) -> dict[str, Any]:
    """A record of a 20 mm butt in PF, everything accepted. ``a__b__0`` changes the field ``a.b.0``."""
    used = ISO if code == "iso" else AWS
    metal = S355 if code == "iso" else A572
    passes = [
        a_pass(n, role, output="CV", progression="up", bead="stringer")
        for n, role in ((1, "root"), (2, "fill"), (3, "cap"))
    ]
    plain: dict[str, Any] = {
        "format": "grounded-bead/qualification-record", "version": 1, "number": "FB-27-Q02",
        "procedure": {
            "format": "grounded-bead/procedure", "version": 1, "number": "FB-27-P03", "code": used,
            "base_metals": [metal, metal], "joint": SINGLE_V, "positions": ["PF" if code == "iso" else "3G"],
            "thermal": {"preheat_min_c": 80, "interpass_max_c": 250}, "passes": passes,
        },
        "coupon": {
            "product": "plate", "thickness_mm": [20, 20], "position": "PF" if code == "iso" else "3G",
            "progression": "up", "preheat_c": 80, "welded_on": "2026-03-02",
            "passes": [pass_record(1), pass_record(2, before_c=120), pass_record(3, before_c=160)],
        },
        "tests": specimens_of(used),
    }  # fmt: skip
    plain = deepcopy(plain)
    for path, value in changes.items():
        put(plain, path.replace("__", "."), value)
    return plain


def put(plain: dict[str, Any], path: str, value: Any) -> None:
    """Set ``a.b.0.c``; ``*`` sets it in every element."""
    *parents, last = path.split(".")
    at: Any = plain
    for index, part in enumerate(parents):
        if part == "*":
            rest = ".".join([*parents[index + 1 :], last])
            for element in at:
                put(element, rest, value)
            return
        at = at[int(part)] if isinstance(at, list) else at.setdefault(part, {})
    if last == "*":
        at[:] = [deepcopy(value) for _ in at]
    elif isinstance(at, list):
        at[int(last)] = value
    elif value == "remove":
        at.pop(last, None)
    else:
        at[last] = deepcopy(value)


def thickness(plain: dict[str, Any], *mm: float) -> dict[str, Any]:
    """Set the thickness of both members, of the piece and as planned."""
    both = list(mm) if len(mm) == 2 else [mm[0], mm[0]]
    plain["coupon"]["thickness_mm"] = both
    for metal, t in zip(plain["procedure"]["base_metals"], both, strict=True):
        metal["thickness_mm"] = t
    return plain


def taken(plain: dict[str, Any]) -> QualificationRecord:
    return RECORD.take(plain)
