"""Prequalified or not: rows of a second opinion, from memory, written down without a look at our rules.

AWS D1.1:2020, tables 5.1 to 5.8 and figures 5.1 and 5.2. Each draft is sound but for what its row says.
"""

from copy import deepcopy

import pytest

from tests.welding import samples
from tests.welding.test_aws_prequalified import CO2, PREQUALIFIED, groove, verdict

LAYERS = (1, 1, 2, 2, 2, 3, 3)
G = sum(LAYERS)
"""Beads by layer, so that no layer of a 25 mm groove is too thick or too wide."""
BACKED, GOUGED = {"backing": "metal"}, {"back_gouge": True, "sides": "both"}
MAKES = {
    "SMAW": ("111", "E7018", 4.0, "CC", None, None, (140, 180), None),
    "FCAW-G": ("136", "E71T-1C", 1.6, "CV", None, CO2, (240, 280), (6, 7)),
    "GMAW": ("135", "ER70S-6", 1.2, "CV", "spray", {"components_percent": {"Ar": 90, "CO2": 10}}, (260, 290), (9, 10)),
    "GTAW": ("141", "ER70S-2", 2.4, "CC", None, {"components_percent": {"Ar": 100}}, (140, 160), None),
    "SAW": ("121", "F7A2-EM12K", 4.0, "CV", None, None, (560, 600), (1.4, 1.5)),
}  # fmt: skip


def V(gap, angle, **more):
    return groove("single-v", gap, angle, more.pop("land", 0), **more)


def fillet(leg, **more):
    return {"kind": "t", "weld": "fillet", "leg1_mm": leg, **more}


def partial(form, angle, depth, size, **more):
    made = {**groove(form, 0, angle), "weld": "pjp-groove", "throat_mm": size, **more}
    made["preparation"] |= {"sides": [{"depth_mm": depth}]}
    return made


def draft(process, joint, position, t=25, metal="A992", preheat=10, passes=1, progression=None, **more):
    """A draft of as many passes; ``layer`` locks a fill layer's height through its beads' section."""
    number, filler, size, output, transfer, gas, amps, feed = MAKES[process]
    layers = [n + 1 for n, count in enumerate(LAYERS) for _ in range(count)] if passes == G else None
    passes = len(layers) if layers else passes
    roles = ("root", "cap") if passes == 2 else ("root", *["fill"] * (passes - 2), "cap")[:passes]
    both = joint.get("back_gouge") or joint.get("sides") == "both"
    made = []
    for index, role in enumerate(roles):
        one = samples.a_pass(
            index + 1, role, process=number, output=more.get("output", output), progression=progression,
            filler={"designation": more.get("filler", filler), "diameter_mm": more.get("size", size)},
            transfer=more.get("transfer", transfer), gas=more.get("gas", gas), side=1,
            current_a=dict(zip(("min", "max"), more.get("amps", amps), strict=True)),
            wire_feed_m_min=dict(zip(("min", "max"), feed, strict=True)) if feed else None,
            polarity="DCEN" if process == "GTAW" else "DCEP", travel_mm_min={"min": 240, "max": 260},
        )  # fmt: skip
        if layers:
            one["layer"] = layers[index]
        made.append({key: value for key, value in one.items() if value is not None})
    if both:
        back = {**deepcopy(made[-1]), "number": len(made) + 1, "role": "back", "side": 2, "layer": 1}
        made.append(back)
    return samples.procedure(
        code=PREQUALIFIED, joint=deepcopy(joint), base_metals=[{"designation": metal, "thickness_mm": t}] * 2,
        positions=[position], thermal={"preheat_min_c": preheat, "interpass_max_c": 250}, passes=made,
    )  # fmt: skip


ROWS = [
    # figure 5.1
    ("yes", draft("SMAW", V(6, 45, **BACKED), "1G", passes=G)),
    ("yes", draft("SMAW", V(10, 30, **BACKED), "1G", passes=G)),
    ("no", draft("SMAW", V(10, 30, **BACKED), "2G", passes=G)),
    ("yes", draft("SMAW", V(12, 20, **BACKED), "3G", passes=G, progression="up")),
    ("no", draft("SMAW", V(10, 20, **BACKED), "1G", passes=G)),
    ("no", draft("SMAW", V(6, 45, backing="ceramic"), "1G", passes=G)),
    ("yes", draft("SMAW", V(3, 60, land=3, **GOUGED), "1G", passes=G)),
    ("no", draft("SMAW", V(3, 60, land=3), "1G", passes=G)),
    ("no", draft("SMAW", V(3, 50, land=3, **GOUGED), "1G", passes=G)),
    ("no", draft("SMAW", groove("double-v", 3, 60, 3, sides="both"), "1G", passes=G)),
    ("yes", draft("SMAW", {**groove("single-bevel", 3, 45, 3, **GOUGED), "kind": "t"}, "1G", passes=G)),
    ("yes", draft("SMAW", groove("square", 6, **BACKED), "1G", t=6, size=3.2, amps=(100, 130), passes=3)),
    ("yes", draft("FCAW-G", V(5, 30, **BACKED), "1G", passes=G)),
    ("no", draft("FCAW-G", V(5, 30, **BACKED), "2G", passes=G)),
    # processes, table 5.1
    ("no", draft("GTAW", V(3, 60, land=3, **GOUGED), "1G", t=6, metal="A36")),
    ("no", draft("GMAW", fillet(5), "1F", t=6, metal="A36", transfer="short-circuit")),
    ("no", draft("GMAW", fillet(8), "1F", t=12, output="CC")),
    # progression
    ("yes", draft("SMAW", V(6, 45, **BACKED), "3G", passes=G, progression="up")),
    ("no", draft("SMAW", V(6, 45, **BACKED), "3G", passes=G, progression="down")),
    # tables 5.3 and 5.4
    ("yes", draft("SMAW", fillet(6), "1F", t=12, metal="A36", filler="E6010", size=3.2, amps=(90, 120))),
    ("no", draft("SMAW", fillet(6), "1F", t=12, filler="E6010", size=3.2, amps=(90, 120))),
    ("no", draft("SMAW", fillet(6), "1F", t=12, metal="A514", filler="E11018-M", size=3.2, amps=(100, 130))),
    ("no", draft("SMAW", fillet(6), "1F", t=12, metal="S355J2+N", size=3.2, amps=(100, 130))),
    ("no", draft("SMAW", V(6, 45, **BACKED), "1G", t=12, metal="A572 Gr 60", passes=6)),
    # table 5.8
    ("yes", draft("SMAW", fillet(10), "1F", t=20, preheat=0, passes=3)),
    ("no", draft("SMAW", fillet(10), "1F", t=25, preheat=5, passes=3)),
    ("yes", draft("SMAW", fillet(10), "1F", t=50, preheat=65, passes=3)),
    ("yes", draft("SMAW", fillet(10), "1F", t=75, preheat=110, passes=3)),
    ("no", draft("SMAW", fillet(10), "1F", t=75, preheat=100, passes=3)),
    ("no", draft("SMAW", fillet(10), "1F", t=12, metal="A572 Gr 60", filler="E8018-C3", preheat=0, passes=3)),
    # table 5.1, electrode diameter
    ("no", draft("SMAW", V(6, 45, **BACKED), "1G", t=20, size=6.4, amps=(280, 320), passes=5)),
    ("no", draft("SMAW", V(6, 45, **BACKED), "2G", t=20, size=6.4, amps=(280, 320), passes=5)),
    ("yes", draft("SMAW", V(6, 45, **BACKED), "3G", t=20, passes=G, progression="up")),
    ("no", draft("SMAW", V(6, 45, **BACKED), "3G", t=20, size=4.8, amps=(180, 220), passes=9, progression="up")),
    ("no", draft("FCAW-G", fillet(8), "1F", t=20, size=4.0, amps=(400, 440))),
    ("no", draft("FCAW-G", fillet(8), "3F", t=20, size=3.2, amps=(300, 330), progression="up")),
    # table 5.1, single-pass fillets
    ("yes", draft("SMAW", fillet(10), "1F", t=20, size=4.8, amps=(190, 230))),
    ("no", draft("SMAW", fillet(12), "1F", t=20, size=4.8, amps=(190, 230))),
    ("yes", draft("SMAW", fillet(8), "2F", t=20, size=4.8, amps=(190, 230))),
    ("yes", draft("FCAW-G", fillet(12), "1F", t=20)),
    ("no", draft("FCAW-G", fillet(12), "2F", t=20)),
    ("no", draft("FCAW-G", fillet(10), "4F", t=20)),
    ("yes", draft("SAW", fillet(8), "2F", t=20)),
    ("no", draft("SAW", fillet(10), "2F", t=20)),
    ("yes", draft("SAW", fillet(8), "1F", t=20, amps=(950, 1000))),
    ("no", draft("SAW", fillet(8), "1F", t=20, amps=(1000, 1050))),
    ("no", draft("SAW", fillet(8), "1F", t=20, filler="EM12K")),
    # gas
    ("yes", draft("GMAW", fillet(8), "1F", t=12, gas={"components_percent": {"Ar": 98, "O2": 2}})),
    ("no", draft("GMAW", fillet(8), "1F", t=12, gas={"components_percent": {"Ar": 50, "He": 50}})),
    ("no", draft("FCAW-G", fillet(8), "1F", t=20, gas={"components_percent": {"Ar": 75, "CO2": 25}})),
    # sizes
    ("yes", draft("SMAW", partial("single-v", 60, 6, 6), "1G", t=20, passes=3)),
    ("no", draft("SMAW", partial("single-v", 60, 6, 6), "1G", t=25, passes=3)),
    ("no", draft("SMAW", partial("single-bevel", 45, 11, 11), "1G", t=20, passes=4)),
    ("no", draft("SMAW", fillet(6), "1F")),
    ("yes", draft("SMAW", fillet(8, dihedral_deg=65), "1F", t=20)),
    ("no", draft("SMAW", fillet(8, dihedral_deg=25), "1F", t=20)),
]  # fmt: skip


@pytest.mark.parametrize("prequalified, procedure", ROWS, ids=range(len(ROWS)))
def test_prequalified(prequalified, procedure):
    found = verdict(procedure)
    assert (found.verdict == "complies") == (prequalified == "yes"), found.message
