"""Planted faults: a sound draft, one wrong change, and what has to be said of it (from memory, common practice)."""

import copy
import json
import re

import pytest

from welding.documents.codec import INTENT, PROCEDURE
from welding.errors import DocumentError
from welding.evaluate.procedure import evaluate
from welding.planning.propose import propose

BUTT, T = {"kind": "butt", "weld": "cjp-groove"}, {"kind": "t", "weld": "fillet"}
AWS = {"id": "aws-d1.1:2020", "units": "si", "route": "prequalified"}
LEAST_SHARE = 0.95
pipe, TS = {"outside_diameter_mm": 219.1}, {"fill_process": "111"}


def base(m, t, proc, joint=BUTT, pos="1G", **k):
    m = [m] if isinstance(m, str) else m
    t = t if isinstance(t, list) else [t]
    d = {
        "format": "grounded-bead/intent",
        "version": 1,
        "metals": m,
        "thickness_mm": t,
        "joint": joint,
        "position": pos,
        "process": proc,
        **k,
    }
    return json.loads(PROCEDURE.write(propose(INTENT.take(d)).procedure))


def setall(path, val, pick=lambda p: True):
    def f(d):
        for p in d["passes"]:
            if not pick(p):
                continue
            o = p
            ks = path.split(".")
            for k in ks[:-1]:
                o = o.setdefault(k, {})
            if val is None:
                o.pop(ks[-1], None)
            elif callable(val):
                o[ks[-1]] = val(o.get(ks[-1]))
            else:
                o[ks[-1]] = copy.deepcopy(val)

    return f


def th(k, v):
    def f(d):
        if v is None:
            d["thermal"].pop(k, None)
        else:
            d["thermal"][k] = v

    return f


def rng(a, b=None):
    return {"min": a * 0.97, "max": (b or a) * 1.03}


def filler(x, d=None, pick=lambda p: True):
    def f(doc):
        for p in doc["passes"]:
            if pick(p):
                p["filler"] = {"designation": x, "diameter_mm": d or p["filler"].get("diameter_mm")}

    return f


def gas(**c):
    return setall("gas.components_percent", c)


def joint(**k):
    def f(d):
        d["joint"].update(k)

    return f


def prep(**k):
    def f(d):
        d["joint"].setdefault("preparation", {}).update(k)

    return f


def multi(*fs):
    def f(d):
        for g in fs:
            g(d)

    return f


def heat(kj, k=1):
    """travel so that arc energy is kj"""

    def f(d):
        for p in d["passes"]:
            a = (p["current_a"]["min"] + p["current_a"]["max"]) / 2
            v = (p["voltage_v"]["min"] + p["voltage_v"]["max"]) / 2
            t = a * v * 0.06 / kj
            p["travel_mm_min"] = {"min": t * 0.95, "max": t * 1.05}
            p.pop("run_out_mm", None)
        d["thermal"].pop("heat_input_kj_mm", None)

    return f


def onepass(d):
    d["passes"] = d["passes"][:1]


FAULTS = [
    (
        lambda: base("S355J2", 40, "136", joint={**BUTT, "backing": "ceramic"}),
        th("preheat_min_c", 10),
        "preheat",
    ),
    (lambda: base("A572 Gr 50", 40, "111", code=AWS), th("preheat_min_c", 20), "preheat"),
    (lambda: base("A36", 70, "111", code=AWS), th("preheat_min_c", 65), "preheat"),
    (
        lambda: base("A36", 25, "111", joint=T, pos="2F", code=AWS),
        multi(filler("E6013"), th("preheat_min_c", 10)),
        "preheat|hydrogen",
    ),
    (lambda: base("AISI 1045", 25, "111", joint=T, pos="2F"), th("preheat_min_c", 20), "preheat"),
    (lambda: base("AISI 4140", 40, "111"), th("preheat_min_c", 100), "preheat"),
    (lambda: base("A335 P22", 11, "141", pos="6G", **pipe), th("preheat_min_c", 80), "preheat"),
    (lambda: base("A335 P91", 18, "141", pos="6G", **TS, **pipe), th("preheat_min_c", 100), "preheat"),
    (
        lambda: base("A335 P91", 18, "141", pos="6G", **TS, **pipe),
        th("interpass_max_c", 420),
        "interpass|between passes",
    ),
    (
        lambda: base("A335 P91", 18, "141", pos="6G", **TS, **pipe),
        lambda d: d["thermal"]["pwht"].update(hold_c={"min": 680, "max": 700}),
        "pwht|heat treat|temper",
    ),
    (
        lambda: base("A335 P91", 18, "141", pos="6G", **TS, **pipe),
        lambda d: d["thermal"].pop("pwht"),
        "pwht is missing",
    ),
    (lambda: base("A335 P91", 18, "141", pos="6G", **TS, **pipe), setall("purge", None), "purge|behind"),
    (lambda: base("A335 P22", 11, "141", pos="6G", **pipe), filler("ER70S-6"), "filler|chrom"),
    (lambda: base("S690QL", 20, "135"), th("interpass_max_c", 300), "interpass|between passes"),
    (lambda: base("S690QL", 10, "135"), heat(3.2), "heat input|t8/5"),
    (lambda: base("S690QL", 20, "135"), setall("travel_mm_min", rng(1500)), "travel|heat input"),
    (lambda: base("S690QL", 20, "135"), filler("ER70S-6"), "weaker"),
    (lambda: base("S960QL", 8, "135"), heat(2.0), "heat input|t8/5"),
    (lambda: base("S960QL", 20, "135"), th("preheat_min_c", 20), "preheat"),
    (
        lambda: base("S690QL", 25, "135"),
        lambda d: d["thermal"].update(
            pwht={"kind": "stress-relief", "hold_c": {"min": 640, "max": 660}, "hold_min": 120}
        ),
        "heat treat|temper",
    ),
    (
        lambda: base("A514", 12, "111", joint=T, pos="2F"),
        multi(setall("bead", "weave"), setall("weave_max_mm", 20)),
        "weav|wide",
    ),
    (lambda: base("A553 Type I", 10, "111", pos="3G"), filler("E7018"), "filler|nickel"),
    (lambda: base("A553 Type I", 10, "111", pos="3G"), filler("E308L-16"), "filler|nickel"),
    (lambda: base("A553 Type I", 25, "111"), th("interpass_max_c", 250), "interpass|between passes"),
    (lambda: base("A203 Gr E", 20, "111"), filler("E7018"), "filler|nickel"),
    (
        lambda: base("A36", 10, "135", joint=T, pos="2F", code=AWS),
        multi(setall("transfer", "short-circuit")),
        "short",
    ),
    (
        lambda: base(
            "A36", 12, "111", pos="3G", code=AWS, progression="up", joint={**BUTT, "backing": "metal"}
        ),
        setall("progression", "down"),
        "down",
    ),
    (
        lambda: base(
            "A36", 12, "111", pos="3G", code=AWS, progression="up", joint={**BUTT, "backing": "metal"}
        ),
        setall("filler.diameter_mm", 5.0),
        "diameter|electrode|larg",
    ),
    (
        lambda: base("A36", 12, "111", joint={**T, "leg1_mm": 8}, pos="2F", code=AWS),
        multi(joint(leg1_mm=10), onepass),
        "single|leg|fillet",
    ),
    (
        lambda: base("A36", 12, "135", joint={**T, "leg1_mm": 5}, pos="2F", code=AWS),
        joint(leg1_mm=3),
        "leg|fillet|size|minimum",
    ),
    (
        lambda: base("A36", 25, "135", joint={**T, "leg1_mm": 8}, pos="2F", code=AWS),
        joint(leg1_mm=5),
        "leg|fillet|size|minimum",
    ),
    (
        lambda: base(
            "A36", 10, "135", joint={"kind": "lap", "weld": "fillet", "leg1_mm": 8}, pos="2F", code=AWS
        ),
        joint(leg1_mm=10, leg2_mm=10),
        "edge|leg",
    ),
    (
        lambda: base("A36", 10, "136", joint=T, pos="2F", code=AWS),
        lambda d: d.update(site={"place": "outdoors", "wind_m_s": 5.6}),
        "wind",
    ),
    (
        lambda: base("A36", 8, "111", joint=T, pos="2F"),
        multi(filler("E7018", 4.0), setall("current_a", rng(95))),
        "A |amp|current",
    ),
    (
        lambda: base(
            "A106 Gr B",
            11,
            "111",
            pos="6G",
            outside_diameter_mm=168.3,
            filler={"designation": "E6010"},
            **{"fill_process": "111", "fill_filler": {"designation": "E7018"}},
        ),
        setall("current_a", rng(160), lambda p: p["role"] == "root"),
        "A |amp|current",
    ),
    (
        lambda: base("A36", 8, "111", joint=T, pos="2F", filler={"designation": "E7018"}),
        setall("polarity", "DCEN"),
        "polarity|DCE",
    ),
    (
        lambda: base(
            "S355J2", 12, "136", filler={"designation": "E71T-1C"}, joint={**BUTT, "backing": "ceramic"}
        ),
        setall("polarity", "DCEN"),
        "polarity|DCE",
    ),
    (
        lambda: base("A36", 12, "114", pos="3G", joint={**BUTT, "backing": "metal"}),
        setall("polarity", "DCEP"),
        "polarity|DCE",
    ),
    (
        lambda: base(
            "A36",
            25,
            "114",
            filler={"designation": "E70T-6", "diameter_mm": 2.4},
            joint={**BUTT, "backing": "metal"},
        ),
        setall("polarity", "DCEN"),
        "polarity|DCE",
    ),
    (
        lambda: base("304L", 3, "141"),
        multi(setall("polarity", "DCEP"), setall("current_a", rng(120))),
        "polarity|DCE",
    ),
    (
        lambda: base("6061", 3, "141"),
        multi(setall("polarity", "DCEN"), setall("ac", None)),
        "polarity|DCE|AC",
    ),
    (lambda: base("6061", 3, "131"), setall("polarity", "DCEN"), "polarity|DCE"),
    (lambda: base("C12200", 6, "141"), setall("polarity", "AC"), "polarity|DCE|AC"),
    (
        lambda: base("S355J2", 6, "135", joint=T, pos="2F", transfer="spray"),
        setall("voltage_v", rng(18)),
        "V ",
    ),
    (lambda: base("S355J2", 3, "135", transfer="short-circuit"), setall("voltage_v", rng(28)), "V "),
    (
        lambda: base("S355J2", 6, "135", joint=T, pos="2F", transfer="spray"),
        setall("wire_feed_m_min", rng(3)),
        "feed|m/min",
    ),
    (
        lambda: base("S355J2", 8, "136", joint=T, pos="2F"),
        multi(setall("wire_feed_m_min", rng(15)), setall("current_a", rng(210))),
        "feed|m/min",
    ),
    (lambda: base("S355J2", 6, "135", joint=T, pos="2F", transfer="spray"), gas(CO2=100), "spray"),
    (lambda: base("S355J2", 6, "135", joint=T, pos="2F", transfer="pulsed"), gas(Ar=70, CO2=30), "puls|CO2"),
    (lambda: base("304L", 6, "135", joint=T, pos="2F"), gas(Ar=82, CO2=18), "CO2|carbon"),
    (lambda: base("304L", 3, "141"), gas(CO2=100), "inert|tungsten|CO2"),
    (lambda: base("S32205", 3, "141"), gas(Ar=95, H2=5), "hydrogen|H2"),
    (lambda: base("430", 2, "141"), gas(Ar=95, H2=5), "hydrogen|H2"),
    (lambda: base("410", 12, "141"), gas(Ar=95, H2=5), "hydrogen|H2"),
    (lambda: base("6061", 6, "131"), gas(Ar=82, CO2=18), "inert|CO2|alumin"),
    (lambda: base("6082", 6, "131"), gas(Ar=98, CO2=2), "inert|CO2|alumin"),
    (lambda: base("C276", 6, "141"), gas(Ar=82, CO2=18), "inert|CO2"),
    (
        lambda: base("S355J2", 8, "136", joint=T, pos="2F", filler={"designation": "E71T-1M"}),
        gas(CO2=100),
        "classified|gas",
    ),
    (lambda: base("S355J2", 6, "135", joint=T, pos="2F"), setall("gas.flow_l_min", rng(45)), "flow|l/min"),
    (
        lambda: base("304L", 3.91, "141", pos="6G", outside_diameter_mm=60.3),
        setall("purge", None),
        "purge|behind",
    ),
    (
        lambda: base("316L", 7, "141", pos="6G", outside_diameter_mm=168.3, **TS),
        th("interpass_max_c", 300),
        "interpass|between passes",
    ),
    (lambda: base("S32205", 12, "141", **TS), th("interpass_max_c", 250), "interpass|between passes"),
    (lambda: base("S32750", 12, "141", **TS), th("interpass_max_c", 200), "interpass|between passes"),
    (lambda: base("S32750", 12, "141", **TS), heat(2.5), "heat input"),
    (lambda: base("S32205", 3, "141"), setall("filler", None), "without filler|filler"),
    (
        lambda: base("S32205", 7, "141", pos="6G", outside_diameter_mm=168.3),
        filler("ER316L"),
        "filler|phase|duplex",
    ),
    (lambda: base("S32750", 6, "141", pos="6G", outside_diameter_mm=114.3), filler("ER2209"), "filler|2594"),
    (lambda: base(["304", "S355J2"], 10, "135", joint=T, pos="2F"), filler("ER308LSi"), "filler|dilut|309"),
    (lambda: base(["304", "S355J2"], 10, "135", joint=T, pos="2F"), filler("ER70S-6"), "filler|309"),
    (lambda: base(["A335 P91", "304H"], 12, "111"), filler("E309L-16"), "nickel|creep|hot"),
    (lambda: base("304H", 12.7, "111"), filler("E308L-16"), "carbon|308H|creep"),
    (lambda: base("321", 25, "111"), filler("E308L-16"), "stabili|347"),
    (lambda: base("316L", 20, "111"), filler("E308L-16"), "molyb"),
    (lambda: base("310S", 6, "141"), th("interpass_max_c", 250), "interpass|between passes"),
    (lambda: base("904L", 8, "141"), heat(2.5), "heat input"),
    (lambda: base("410", 12, "111"), th("preheat_min_c", 20), "preheat"),
    (lambda: base("430", 2, "141"), heat(1.5), "heat input"),
    (lambda: base("5083", 6, "131"), filler("ER4043"), "Mg2Si|filler"),
    (lambda: base("6061", 3, "141"), setall("filler", None), "filler"),
    (lambda: base("6061-T6", 25, "131"), th("preheat_min_c", 300), "preheat|soften|age"),
    (lambda: base("6061", 6, "141"), setall("current_a", rng(80)), "A |amp|current"),
    (
        lambda: base("304L", 3, "141"),
        multi(setall("tungsten.diameter_mm", 1.0), setall("current_a", rng(100))),
        "tungsten",
    ),
    (
        lambda: base("C12200", 6, "141"),
        multi(th("preheat_min_c", 20), gas(Ar=100), setall("current_a", rng(180))),
        "preheat|helium",
    ),
    (lambda: base("C12200", 12, "131"), th("preheat_min_c", 20), "preheat"),
    (lambda: base("C61400", 8, "141"), filler("ERCuSn-A"), "filler|bronze"),
    (lambda: base(["C12200", "S355J2"], 8, "141", joint=T, pos="2F"), filler("ER70S-6"), "filler|copper"),
    (
        lambda: base(
            "API 5L X52",
            9.5,
            "111",
            pos="5G",
            progression="down",
            outside_diameter_mm=323.9,
            filler={"designation": "E7010-P1"},
        ),
        filler("E7018", 3.2),
        "downwards",
    ),
    (
        lambda: base("S355J2", 25, "135"),
        multi(
            setall("transfer", "short-circuit"),
            setall("current_a", rng(130)),
            setall("voltage_v", rng(18)),
            setall("wire_feed_m_min", rng(3.3)),
        ),
        "short",
    ),
    (lambda: base("S355J2", 16, "121"), setall("current_a", rng(300)), "A |amp|current"),
    (
        lambda: base("S355J2", 12, "136", pos="3G", joint={**BUTT, "backing": "ceramic"}),
        prep(root_gap_mm=14),
        "gap",
    ),
    (
        lambda: base("S355J2", 6, "135", joint={**T, "leg1_mm": 5}, pos="2F"),
        joint(preparation={"form": "square", "root_gap_mm": 5}),
        "gap",
    ),
    (
        lambda: base("S355J2", 25, "135", joint={**BUTT, "sides": "both", "back_gouge": True}),
        joint(back_gouge=False),
        "gouge|fused|penetrat",
    ),
    (
        lambda: base("S355J2", 16, "136", joint={**BUTT, "sides": "both", "back_gouge": True}),
        multi(
            joint(back_gouge=False, sides="one"),
            prep(root_face_mm=4),
            lambda d: d.update(passes=[p for p in d["passes"] if p["side"] == 1]),
        ),
        "root face|land|penetrat|gouge",
    ),
    (
        lambda: base("S355J2", 8, "135", joint={**T, "leg1_mm": 6}, pos="2F"),
        setall("travel_mm_min", rng(1200)),
        "lay down|travel|fill",
    ),
    (
        lambda: base("S355J2", 12, "136", joint={**T, "leg1_mm": 8}, pos="2F"),
        multi(setall("wire_feed_m_min", rng(5)), setall("travel_mm_min", rng(500))),
        "lay down|travel|fill",
    ),
    (lambda: base("A36", 12, "111", pos="3G", progression="up"), onepass, "lay down|fill|pass"),
    (lambda: base("S355J2", 10, "135", joint=T, pos="2F"), setall("travel_mm_min", rng(24000)), "travel"),
    (
        lambda: base("A335 P91", 18, "141", pos="6G", **TS, **pipe),
        multi(
            setall("process", "135", lambda p: p["role"] == "root"),
            setall("transfer", "short-circuit", lambda p: p["role"] == "root"),
        ),
        "short",
    ),
    (lambda: base("C276", 12, "141"), heat(2.5), "heat input"),
    (
        lambda: base("wear plate 450 HB", 30, "135", joint=T, pos="2F"),
        filler("ER120S-G"),
        "strong|filler|hydrogen",
    ),
    (lambda: base("S355J2W", 12, "136", joint={**BUTT, "backing": "ceramic"}), filler("E71T-1M"), "weather"),
    (
        lambda: base("A516 Gr 70", 38, "111"),
        lambda d: d["thermal"].update(
            pwht={"kind": "stress-relief", "hold_c": {"min": 590, "max": 610}, "hold_min": 10}
        ),
        "hold|short|min",
    ),
    (lambda: base("S355J2", 30, "135", joint={**T, "leg1_mm": 10}, pos="2F"), joint(leg1_mm=25), "leg|over"),
    (
        lambda: base("S460N", 30, "111", filler={"designation": "E 50 6 Mn1Ni B 4 2 H5"}),
        filler("E 50 6 Mn1Ni B 4 2 H15"),
        "hydrogen|preheat",
    ),
]


def told(case):
    """Findings that the change brings, or the refusal of what cannot be; whether one of them says it."""
    make, change, words = case
    plain = make()
    before = {(f.rule, f.path) for f in evaluate(PROCEDURE.take(plain)).findings if f.verdict == "violates"}
    change(plain)
    try:
        after = evaluate(PROCEDURE.take(plain)).findings
    except DocumentError:
        return True
    new = [f for f in after if f.verdict == "violates" and (f.rule, f.path) not in before]
    return any(re.search(words, f"{f.title} {f.message}", re.IGNORECASE) for f in new)


SILENT: set[int] = set()


@pytest.mark.parametrize("index", range(len(FAULTS)))
def test_a_planted_fault_is_told(index):
    assert told(FAULTS[index]) != (index in SILENT)


def test_nearly_every_planted_fault_is_told():
    assert len(FAULTS) >= 100 and 1 - len(SILENT) / len(FAULTS) >= LEAST_SHARE
