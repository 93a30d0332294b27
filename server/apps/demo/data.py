"""The invented shop of the demo: people, one job, procedures in several processes, coupons with logs.

All names and numbers are made up. Settings are invented to be plausible, and are no advice.
"""

from __future__ import annotations

from typing import Any

PASSWORD = "footbridge-27"  # noqa: S105 - printed on the demo's sign-in page
PEOPLE = [
    ("demo-engineer", "Imra", "Vance", "engineer"),
    ("demo-inspector", "Tobiah", "Lind", "inspector"),
    ("demo-welder", "Rell", "Okafor", "welder"),
    ("demo-viewer", "Sunniva", "Marsh", "viewer"),
    ("demo-admin", "Odile", "Brandt", "administrator"),
]
JOB = ("FB-27", "Tarn Hollow footbridge", "Fernhollow Fabrication")

S355 = {
    "designation": "S355J2+N",
    "standard": "EN 10025-2",
    "condition": "N",
    "groups": {"iso_15608": "1.2"},
    "yield_mpa": 345,
    "tensile_mpa": 470,
    "identified_by": "certificate",
}
A572 = {
    "designation": "A572 Gr 50",
    "standard": "ASTM A572",
    "groups": {"aws_d1_1": "II"},
    "yield_mpa": 345,
    "tensile_mpa": 450,
    "identified_by": "certificate",
}
M304L = {"designation": "1.4307 / 304L", "standard": "EN 10088-2", "groups": {"iso_15608": "8.1"}}
ISO2 = {"id": "iso-15614-1:2017", "level": 2}
ISO1 = {"id": "iso-15614-1:2017", "level": 1}
AWS = {"id": "aws-d1.1:2020", "units": "us"}
M21 = {"Ar": 82, "CO2": 18}
C25 = {"Ar": 75, "CO2": 25}


def span(low: float, high: float) -> dict[str, float]:
    """A range of the document."""
    return {"min": low, "max": high}


def _metals(metal: dict[str, Any], first: float, second: float | None = None) -> list[dict[str, Any]]:
    return [{**metal, "thickness_mm": first}, {**metal, "thickness_mm": second or first}]


def _v(angle: float, gap: float, land: float, **more: Any) -> dict[str, Any]:
    return {
        "kind": "butt",
        "weld": "cjp-groove",
        "preparation": {
            "form": "single-v",
            "included_angle_deg": angle,
            "root_gap_mm": gap,
            "root_face_mm": land,
        },
        **more,
    }


def _wire(
    role: str,
    process: str,
    filler: str,
    size: float,
    gas: dict[str, Any],
    flow: Any,
    amps: Any,
    volts: Any,
    feed: Any,
    travel: Any,
    **more: Any,
) -> dict[str, Any]:
    return {
        "role": role,
        "process": process,
        "mechanisation": "partly",
        "filler": {"designation": filler, "diameter_mm": size},
        "gas": {"components_percent": gas, "flow_l_min": span(*flow)},
        "polarity": "DCEP",
        "output": "CV",
        "current_a": span(*amps),
        "voltage_v": span(*volts),
        "wire_feed_m_min": span(*feed),
        "travel_mm_min": span(*travel),
        "sources": {"current_a": "own-trial", "voltage_v": "own-trial", "travel_mm_min": "estimate"},
        **more,
    }


def _stick(role: str, size: float, amps: Any, volts: Any, travel: Any, **more: Any) -> dict[str, Any]:
    return {
        "role": role,
        "process": "111",
        "mechanisation": "manual",
        "filler": {"designation": "E7018-H4R", "diameter_mm": size},
        "polarity": "DCEP",
        "output": "CC",
        "current_a": span(*amps),
        "voltage_v": span(*volts),
        "travel_mm_min": span(*travel),
        "sources": {"current_a": "maker", "voltage_v": "handbook"},
        **more,
    }


def _tig(
    role: str, filler: str, size: float, amps: Any, volts: Any, travel: Any, **more: Any
) -> dict[str, Any]:
    return {
        "role": role,
        "process": "141",
        "mechanisation": "manual",
        "filler": {"designation": filler, "diameter_mm": size},
        "gas": {"components_percent": {"Ar": 100}, "flow_l_min": span(8, 12)},
        "polarity": "DCEN",
        "output": "CC",
        "current_a": span(*amps),
        "voltage_v": span(*volts),
        "travel_mm_min": span(*travel),
        "tungsten": {"type": "WCe20", "diameter_mm": 2.4},
        "sources": {"current_a": "practice"},
        **more,
    }


def _procedure(
    number: str, title: str, code: Any, passes: list[dict[str, Any]], **more: Any
) -> dict[str, Any]:
    return {
        "format": "grounded-bead/procedure",
        "version": 1,
        "number": f"FB-27-{number}",
        "revision": "A",
        "title": title,
        "code": code,
        "passes": [{"number": index + 1, **one} for index, one in enumerate(passes)],
        **more,
    }


def _girder_passes() -> list[dict[str, Any]]:
    root = _wire(
        "root",
        "135",
        "G 42 4 M21 3Si1",
        1.0,
        M21,
        (12, 16),
        (95, 115),
        (16.8, 18.2),
        (3.0, 3.8),
        (100, 130),
        transfer="short-circuit",
        progression="up",
        bead="weave",
        extension_mm=span(10, 14),
    )
    hot = _wire(
        "hot",
        "135",
        "G 42 4 M21 3Si1",
        1.0,
        M21,
        (12, 16),
        (120, 140),
        (18.0, 19.5),
        (4.0, 4.8),
        (110, 140),
        transfer="short-circuit",
        progression="up",
        bead="weave",
        extension_mm=span(10, 14),
    )

    def fill(role: str, amps: Any, volts: Any, travel: Any) -> dict[str, Any]:
        return _wire(
            role,
            "136",
            "T 46 4 P M21 1 H5",
            1.2,
            M21,
            (16, 20),
            amps,
            volts,
            (6.6, 8.0),
            travel,
            progression="up",
            bead="weave",
            weave_max_mm=12,
            extension_mm=span(18, 20),
        )

    return [
        root,
        hot,
        fill("fill", (165, 195), (24.0, 25.5), (140, 170)),
        fill("fill", (170, 200), (24.5, 26.0), (150, 185)),
        fill("fill", (170, 200), (24.5, 26.0), (150, 185)),
        fill("cap", (165, 200), (24.5, 26.5), (120, 150)),
        fill("cap", (165, 195), (24.5, 26.0), (130, 160)),
    ]


def procedures() -> list[dict[str, Any]]:
    """The demo's procedures."""
    flat_wire = {"transfer": "spray", "bead": "stringer", "extension_mm": span(15, 20)}
    return [
        _procedure(
            "P01",
            "Web stiffener fillet, horizontal",
            AWS,
            [
                _wire(
                    "root",
                    "136",
                    "E71T-1M",
                    1.143,
                    C25,
                    (16, 21),
                    (180, 215),
                    (24.5, 26.5),
                    (6.4, 7.6),
                    (280, 340),
                    bead="stringer",
                    extension_mm=span(15, 22),
                ),
                _wire(
                    "fill",
                    "136",
                    "E71T-1M",
                    1.143,
                    C25,
                    (16, 21),
                    (190, 225),
                    (25.0, 27.0),
                    (6.6, 7.9),
                    (300, 380),
                    bead="stringer",
                    extension_mm=span(15, 22),
                ),
                _wire(
                    "fill",
                    "136",
                    "E71T-1M",
                    1.143,
                    C25,
                    (16, 21),
                    (190, 225),
                    (25.0, 27.0),
                    (6.6, 7.9),
                    (300, 380),
                    bead="stringer",
                    extension_mm=span(15, 22),
                ),
            ],
            base_metals=_metals(A572, 19.05, 12.7),
            positions=["2F"],
            joint={"kind": "t", "weld": "fillet", "leg1_mm": 9.525, "sides": "one"},
            thermal={"preheat_min_c": 10, "interpass_max_c": 260},
        ),
        _procedure(
            "P02",
            "Flange splice, flat",
            ISO2,
            [
                _wire(
                    "root",
                    "135",
                    "G 42 4 M21 3Si1",
                    1.2,
                    M21,
                    (14, 18),
                    (120, 150),
                    (17.5, 19.5),
                    (3.4, 4.4),
                    (160, 220),
                    transfer="short-circuit",
                    bead="weave",
                ),
                *[
                    _wire(
                        "fill",
                        "135",
                        "G 42 4 M21 3Si1",
                        1.2,
                        M21,
                        (15, 19),
                        (240, 280),
                        (27.0, 30.0),
                        (8.0, 9.6),
                        (300, 420),
                        **flat_wire,
                    )
                    for _ in range(4)
                ],
                *[
                    _wire(
                        "cap",
                        "135",
                        "G 42 4 M21 3Si1",
                        1.2,
                        M21,
                        (15, 19),
                        (230, 270),
                        (27.0, 29.5),
                        (7.6, 9.2),
                        (320, 440),
                        **flat_wire,
                    )
                    for _ in range(2)
                ],
            ],
            base_metals=_metals(S355, 16),
            positions=["PA"],
            joint=_v(60, 3, 2),
            thermal={
                "preheat_min_c": 20,
                "interpass_max_c": 250,
                "heat_input_kj_mm": span(0.5, 1.6),
                "hydrogen_ml_100g": 5,
            },
        ),
        _procedure(
            "P03",
            "Girder butt, vertical",
            ISO2,
            _girder_passes(),
            base_metals=_metals(S355, 20),
            positions=["PF"],
            joint=_v(60, 3, 2),
            requirements={"impact": {"temperature_c": -20, "average_j": 27}, "hardness": True},
            thermal={
                "preheat_min_c": 75,
                "interpass_max_c": 250,
                "heat_input_kj_mm": span(0.7, 2.0),
                "hydrogen_ml_100g": 5,
            },
        ),
        _procedure(
            "P04",
            "Deck plate butt, site, stick",
            ISO1,
            [
                _stick("root", 2.5, (70, 95), (21, 24), (70, 110), progression="up", bead="weave"),
                _stick("fill", 3.2, (105, 130), (22, 25), (90, 140), progression="up", bead="weave"),
                _stick("fill", 3.2, (105, 130), (22, 25), (90, 140), progression="up", bead="weave"),
                _stick("cap", 3.2, (100, 125), (22, 25), (85, 130), progression="up", bead="weave"),
            ],
            base_metals=_metals(S355, 12),
            positions=["PF"],
            joint=_v(60, 3, 1.5),
            thermal={"preheat_min_c": 20, "interpass_max_c": 250},
        ),
        _procedure(
            "P05",
            "Handrail sheet butt, stainless",
            ISO2,
            [
                _tig(
                    "root",
                    "W 19 9 L Si",
                    1.6,
                    (55, 75),
                    (10, 12),
                    (70, 110),
                    purge={"components_percent": {"Ar": 100}, "flow_l_min": span(4, 6), "oxygen_ppm": 50},
                )
            ],
            base_metals=_metals(M304L, 2),
            positions=["PA"],
            joint={
                "kind": "butt",
                "weld": "cjp-groove",
                "backing": "gas",
                "preparation": {"form": "square", "root_gap_mm": 1},
            },
            thermal={"interpass_max_c": 150},
        ),
        _procedure(
            "P06",
            "Hanger lug butt, TIG root and stick fill",
            AWS,
            [
                _tig("root", "ER70S-2", 2.381, (90, 120), (10, 13), (50, 80), progression="up"),
                _stick("fill", 3.175, (105, 135), (21, 24), (90, 140), progression="up", bead="weave"),
                _stick("fill", 3.175, (105, 135), (21, 24), (90, 140), progression="up", bead="weave"),
                _stick("cap", 3.175, (100, 130), (21, 24), (85, 130), progression="up", bead="weave"),
            ],
            base_metals=_metals(A572, 12.7),
            positions=["3G"],
            joint=_v(60, 3.175, 1.588),
            thermal={"preheat_min_c": 10, "interpass_max_c": 260},
        ),
        _procedure(
            "P07",
            "Bearing plate fillet, both sides",
            ISO2,
            [
                _wire(
                    "root",
                    "135",
                    "G 42 4 M21 3Si1",
                    1.2,
                    M21,
                    (15, 19),
                    (240, 280),
                    (27.5, 30.0),
                    (8.0, 9.6),
                    (380, 480),
                    **flat_wire,
                ),
                _wire(
                    "root",
                    "135",
                    "G 42 4 M21 3Si1",
                    1.2,
                    M21,
                    (15, 19),
                    (240, 280),
                    (27.5, 30.0),
                    (8.0, 9.6),
                    (380, 480),
                    side=2,
                    **flat_wire,
                ),
            ],
            base_metals=_metals(S355, 25, 15),
            positions=["PB"],
            joint={"kind": "t", "weld": "fillet", "throat_mm": 5, "sides": "both"},
            thermal={"preheat_min_c": 20, "interpass_max_c": 250},
        ),
        _procedure(
            "P08",
            "Kerb angle fillet, to be drafted",
            ISO2,
            [],
            base_metals=_metals(S355, 8, 10),
            positions=["PB"],
            joint={"kind": "t", "weld": "fillet", "throat_mm": 4},
        ),
    ]


def _entry(
    number: int,
    amps: Any,
    volts: Any,
    time_s: float,
    before_c: float | None,
    length_mm: float = 300,
    **more: Any,
) -> dict[str, Any]:
    return {
        "number": number,
        "current_a": amps,
        "voltage_v": volts,
        "length_mm": length_mm,
        "time_s": time_s,
        **({} if before_c is None else {"before_c": before_c}),
        **more,
    }


COUPONS: list[dict[str, Any]] = [
    {
        "procedure": "FB-27-P02",
        "welder": "Rell Okafor",
        "piece": {
            "ambient_c": 18,
            "preheat_c": 24,
            "fit_up": {"gap_before_tack_mm": 3.2, "gap_after_tack_mm": 2.9, "root_face_mm": 2.0},
        },
        "passes": [
            _entry(1, {"mean": 134, "min": 128, "max": 139}, 18.4, 96, 24),
            _entry(2, 258, 28.4, 52, 96),
            _entry(3, 262, 28.6, 50, 148),
            _entry(4, 266, 28.8, 49, 187),
            _entry(5, 259, 28.5, 51, 204),
            _entry(6, 251, 28.1, 47, 221, remarks="Restart at 180 mm, ground before the cap."),
            _entry(7, 250, 28.0, 46, 216),
        ],
    },
    {
        "procedure": "FB-27-P04",
        "welder": "Rell Okafor",
        "piece": {
            "ambient_c": 11,
            "preheat_c": 35,
            "fit_up": {"gap_before_tack_mm": 3.0, "gap_after_tack_mm": 2.6, "root_face_mm": 1.5},
        },
        "passes": [
            _entry(1, 84, 22.4, 205, 35),
            _entry(2, 118, 23.4, 158, 120),
            _entry(3, 136, 24.1, 168, 262, remarks="No thermometer at hand for a while."),
        ],
    },
    {
        "procedure": "FB-27-P01",
        "welder": "Rell Okafor",
        "piece": {"ambient_c": 19, "preheat_c": 21},
        "passes": [_entry(1, 201, 25.4, 58, 21), _entry(2, 209, 26.0, 54, 118)],
    },
]
