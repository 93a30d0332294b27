"""Records and procedures from a few words, so that a table of cases reads like a table.

``welded`` is the record of what the words say; ``own_procedure`` is the procedure that was welded there. A case is a record, and the own procedure of the same words with one of them changed.
"""

from copy import deepcopy
from typing import Any

from tests.welding.records import hardness, put, record
from tests.welding.samples import a_pass
from welding.coverage.record import plan_of
from welding.documents.codec import PROCEDURE, RECORD
from welding.documents.procedure import Procedure
from welding.documents.record import QualificationRecord

M21, CO2, ARGON = {"Ar": 82, "CO2": 18}, {"CO2": 100}, {"Ar": 100}
# Process, filler, diameter mm, polarity, output, transfer, gas, A, V, feed m/min, travel mm/min.
PROCESSES: dict[str, tuple[Any, ...]] = {
    "SMAW": ("111", "E7018", 3.2, "DCEP", "CC", None, None, 120, 24, None, 150),
    "FCAW-G": ("136", "E71T-1C", 1.6, "DCEP", "CV", None, CO2, 250, 26, 7, 400),
    "FCAW-S": ("114", "E71T-8", 2.0, "DCEN", "CV", None, None, 250, 20, 5, 300),
    "GMAW": ("135", "ER70S-6", 1.2, "DCEP", "CV", "spray", M21, 300, 28, 10, 400),
    "GMAW-S": ("135", "ER70S-6", 1.0, "DCEP", "CV", "short-circuit", M21, 130, 19, 5, 300),
    "GTAW": ("141", "ER70S-2", 2.4, "DCEN", "CC", None, ARGON, 150, 12, None, 100),
    "SAW": ("121", "F7A2-EM12K", 3.2, "DCEP", "CV", None, None, 500, 30, 1.5, 500),
    "111": ("111", "E 42 4 B 32 H5", 3.2, "DCEP", "CC", None, None, 120, 24, None, 150),
    "136": ("136", "T 46 4 P M21 1 H5", 1.2, "DCEP", "CV", None, M21, 220, 26, 8, 300),
    "135": ("135", "G 46 4 M21 3Si1", 1.2, "DCEP", "CV", "spray", M21, 240, 25, 8, 240),
    "141": ("141", "W 42 5 3Si1", 2.4, "DCEN", "CC", None, ARGON, 150, 12, None, 100),
    "121": ("121", "S 46 3 AB S2", 3.2, "DCEP", "CV", None, None, 500, 30, 1.5, 500),
}  # fmt: skip
JOINTS: dict[str, dict[str, Any]] = {
    "v-backing": {
        "kind": "butt", "weld": "cjp-groove", "backing": "metal",
        "preparation": {"form": "single-v", "included_angle_deg": 45, "root_gap_mm": 6, "root_face_mm": 0},
    },
    "v-open": {
        "kind": "butt", "weld": "cjp-groove",
        "preparation": {"form": "single-v", "included_angle_deg": 60, "root_gap_mm": 3, "root_face_mm": 2},
    },
    "v-gouged": {
        "kind": "butt", "weld": "cjp-groove", "sides": "both", "back_gouge": True,
        "preparation": {"form": "single-v", "included_angle_deg": 60, "root_gap_mm": 3, "root_face_mm": 2},
    },
    "v-both": {
        "kind": "butt", "weld": "cjp-groove", "sides": "both",
        "preparation": {"form": "single-v", "included_angle_deg": 60, "root_gap_mm": 3, "root_face_mm": 2},
    },
    "double-v-gouged": {
        "kind": "butt", "weld": "cjp-groove", "sides": "both", "back_gouge": True,
        "preparation": {"form": "double-v", "root_gap_mm": 3, "root_face_mm": 3,
                        "sides": [{"angle_deg": 60, "depth_mm": 8.5}, {"angle_deg": 60, "depth_mm": 8.5}]},
    },
    "double-v": {
        "kind": "butt", "weld": "cjp-groove", "sides": "both",
        "preparation": {"form": "double-v", "root_gap_mm": 3, "root_face_mm": 3,
                        "sides": [{"angle_deg": 60, "depth_mm": 8.5}, {"angle_deg": 60, "depth_mm": 8.5}]},
    },
    "bevel-backing": {
        "kind": "butt", "weld": "cjp-groove", "backing": "metal",
        "preparation": {"form": "single-bevel", "included_angle_deg": 45, "root_gap_mm": 6, "root_face_mm": 0},
    },
    "square-both": {"kind": "butt", "weld": "cjp-groove", "sides": "both",
                    "preparation": {"form": "square", "root_gap_mm": 0}},
    "square-gouged": {"kind": "butt", "weld": "cjp-groove", "sides": "both", "back_gouge": True,
                      "preparation": {"form": "square", "root_gap_mm": 2}},
    "pjp-v": {"kind": "butt", "weld": "pjp-groove", "throat_mm": 2,
              "preparation": {"form": "single-v", "included_angle_deg": 60, "root_gap_mm": 0, "root_face_mm": 4}},
    "pjp-own": {"kind": "butt", "weld": "pjp-groove", "throat_mm": 6,
                "preparation": {"form": "single-v", "included_angle_deg": 40, "root_gap_mm": 0,
                                "root_face_mm": 12}},
    "pjp-bevel": {"kind": "butt", "weld": "pjp-groove", "throat_mm": 6,
                  "preparation": {"form": "single-bevel", "included_angle_deg": 40, "root_gap_mm": 0,
                                  "root_face_mm": 12}},
    "fillet": {"kind": "t", "weld": "fillet", "leg1_mm": 8},
    "lap": {"kind": "lap", "weld": "fillet", "leg1_mm": 8},
    "t-butt": {"kind": "t", "weld": "cjp-groove",
               "preparation": {"form": "single-bevel", "included_angle_deg": 50, "root_gap_mm": 3,
                               "root_face_mm": 2}},
    "branch": {"kind": "branch", "weld": "cjp-groove", "branch_angle_deg": 90,
               "preparation": {"form": "single-bevel", "included_angle_deg": 50, "root_gap_mm": 3,
                               "root_face_mm": 2}},
}  # fmt: skip
_ROLES = {1: ("root",), 2: ("root", "cap"), 3: ("root", "fill", "cap")}


def gas(text: str) -> dict[str, float] | None:
    """``Ar-80 CO2-20``: components with their shares; ``none`` is no gas."""
    if text == "none":
        return None
    return {name: float(share) for name, share in (one.split("-") for one in text.split())}


def _electrodes(words: dict[str, Any] | None) -> dict[str, Any] | None:
    """Electrodes; ``each = "tandem"`` are a leading one and one that leans, both DCEP."""
    if words is None or words.get("each") != "tandem":
        return words
    one = {"polarity": "DCEP", "across_deg": 0}
    lead = {**one, "current_a": {"min": 110, "max": 110}, "angle_deg": 0}
    return {**words, "each": [lead, {**one, "current_a": {"min": 90, "max": 90}, "angle_deg": 10}]}


def _passes(words: dict[str, Any]) -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    planned, logged = [], []
    names = words.get("processes") or [words["process"]]
    count = words.get("runs", 3)
    each = words.get("sides", 1)
    roles = (
        _ROLES[count]
        if len(names) == 1 and each == 1
        else ("root", *["fill"] * (count * each * len(names) - 1))
    )
    for index, role in enumerate(roles):
        name = names[min(index // (len(roles) // len(names)), len(names) - 1)]
        process, filler, size, polarity, output, transfer, mixture, amps, volts, feed, travel = PROCESSES[
            name
        ]
        filler = words.get("filler", filler)
        filler = filler if isinstance(filler, str) else filler[name]
        mixture = gas(words["gas"]) if "gas" in words else mixture
        side = 1 if each == 1 or index < len(roles) // 2 else 2
        plan = a_pass(
            index + 1, role, process=process, output=words.get("output", output), side=side,
            transfer=words.get("transfer", transfer), polarity=words.get("polarity", polarity),
            filler={"designation": filler, "diameter_mm": words.get("diameter", size),
                    "make": words.get("make", "A")},
            flux=words.get("flux", {"designation": "S A AB 1 67 AC H5", "make": "A"})
            if process in ("121", "124") else None,
            electrodes=_electrodes(words.get("electrodes")),
            gas={"components_percent": mixture, "flow_l_min": None} if mixture else None,
            progression=words.get("progression"), mechanisation=words.get("mechanisation", "partly"),
            bead=words.get("bead", "stringer"),
        )  # fmt: skip
        log = {
            "number": index + 1, "process": process, "side": side,
            "current_a": words.get("amps", amps), "voltage_v": words.get("volts", volts),
            "wire_feed_m_min": words.get("feed", feed), "travel_mm_min": words.get("travel", travel),
            "gas": {"components_percent": mixture, "flow_l_min": words.get("flow", 15)} if mixture else None,
            "before_c": words.get("interpass", 150) if index else words.get("preheat", 120),
            "bead": words.get("bead", "stringer"),
        }  # fmt: skip
        if "heat" in words:  # kJ/mm, as the code counts it: with k 0.8 or 1.0
            k = words.get("k", 1.0)
            log["travel_mm_min"] = k * log["current_a"] * log["voltage_v"] * 60 / 1000 / words["heat"]
        if "deposits" in words:
            log["deposit_mm"] = words["deposits"][name] * len(names) / len(roles)
        elif words.get("deposit"):
            log["deposit_mm"] = words["deposit"]
        for path, value in words.items():
            if path.startswith("pass."):
                put(plan, path.removeprefix("pass."), value)
        planned.append({key: value for key, value in plan.items() if value is not None})
        logged.append({key: value for key, value in log.items() if value is not None})
    return planned, logged


def plain_record(code: str, words: dict[str, Any]) -> dict[str, Any]:
    """A record of what the words say, as plain values. Words that are not known are an error."""
    aws = code == "aws"
    words = {
        "process": "SMAW" if aws else "135",
        "t": 20.0,
        "joint": "v-backing" if aws else "v-open",
        **words,
    }
    unknown = (
        set(words)
        - KNOWN
        - {one for one in words if one.startswith(("pass.", "joint.", "metal.", "coupon."))}
    )
    if unknown:
        raise KeyError(f"no such words: {sorted(unknown)}")
    plain = record(code)
    sheet, piece = plain["procedure"], plain["coupon"]
    if not aws:
        sheet["code"] = {**sheet["code"], "level": words.get("level", 2)}
    else:
        sheet["code"] = {**sheet["code"], "units": words.get("units", "si")}
    names = words.get("metals", ["A572 Gr 50"] if aws else ["S355J2+N"])
    sizes = [words["t"], words.get("t2", words["t"])]
    sheet["base_metals"] = [
        {
            "designation": name,
            "elongation_percent": 22,
            "thickness_mm": t,
            **({"outside_diameter_mm": words["od"]} if "od" in words else {}),
        }
        for name, t in zip(names * 2 if len(names) == 1 else names, sizes, strict=True)
    ]
    for metal in sheet["base_metals"]:
        if metal["designation"].startswith("group "):  # a metal of a group, nothing else said
            group = metal.pop("designation").removeprefix("group ")
            metal["groups"] = {"iso_15608": group}
            metal["designation"] = f"own steel {group}"
            metal |= {"tensile_mpa": 500, "yield_mpa": _YIELD.get(group, 300), "elongation_percent": 22}
    sheet["joint"] = deepcopy(JOINTS[words["joint"]])
    position = words.get("position", "1G" if aws else "PA")
    sheet["positions"] = [position]
    sheet["passes"], piece["passes"] = _passes(words)
    piece.update(
        thickness_mm=sizes, position=position, product="pipe" if "od" in words else "plate",
        preheat_c=words.get("preheat", 120),
    )  # fmt: skip
    piece.pop("progression", None)
    if "progression" in words:
        piece["progression"] = words["progression"]
    if "od" in words:
        piece["outside_diameter_mm"] = words["od"]
    sheet["thermal"] = {
        "preheat_min_c": words.get("preheat", 120), "interpass_max_c": words.get("interpass", 150)
    }  # fmt: skip
    if "pwht" in words:
        hold, minutes = words["pwht"]
        treated = {"kind": "stress-relief", "hold_c": {"min": hold, "max": hold}, "hold_min": minutes}
        sheet["thermal"]["pwht"] = treated
        piece["pwht"] = treated
    if "post_heat" in words:
        hold, minutes = words["post_heat"]
        sheet["thermal"]["post_heat"] = {"temperature_c": hold, "hold_min": minutes}
        piece["post_heat"] = dict(sheet["thermal"]["post_heat"])
    asked: dict[str, Any] = {"hardness": words.get("hardness", False)}
    impact = words.get("impact", False)
    asked["impact"] = {"temperature_c": impact, "average_j": 27} if impact is not False else False
    if not aws:
        asked["hardness_limit"] = {"max_hv10": 400, "agreed_with": "the owner", "agreed_on": "2026-01-10"}
    sheet["requirements"] = asked
    for path, value in words.items():
        if path.startswith("joint."):
            put(sheet, path, value)
        elif path.startswith("metal."):
            put(sheet, path.replace("metal.", "base_metals.*."), value)
        elif path.startswith("coupon."):
            put(plain, path, value)
    if words["joint"] in ("fillet", "lap") and "preparation" in sheet["joint"]:
        del sheet["joint"]["preparation"]
    bought = {
        (one["filler"]["make"], one["filler"]["designation"])
        for one in sheet["passes"]
        if one["process"] == "111"
    }
    sheet["shelf"] = {"products": [
        {"format": "grounded-bead/product", "version": 1, "name": make, "designation": designation,
         "ranges": [{"diameter_mm": size, "current_a": {"min": low, "max": high}} for size, low, high in SHEET]}
        for make, designation in sorted(bought)
    ]}  # fmt: skip
    plain["tests"] = _tests(plain) + [
        {"kind": "macro", "specimen": f"section-{n}", **_GOOD["macro"], "weld_size_mm": size}
        for n, size in enumerate(words.get("sections", ()))
    ]  # fmt: skip
    return plain


_YIELD = {"1.1": 235, "1.2": 355, "2.1": 420, "3.1": 690}
# Amperes that the maker of a covered electrode gives, by size.
SHEET = ((2.4, 60, 100), (3.2, 90, 150), (4.0, 110, 200), (4.8, 170, 260))
KNOWN = {
    "process", "processes", "t", "t2", "od", "joint", "position", "progression", "metals", "level", "units", "runs",
    "sides", "filler", "diameter", "make", "gas", "flow", "amps", "volts", "feed", "travel", "polarity", "output",
    "transfer", "bead", "preheat", "interpass", "pwht", "post_heat", "impact", "hardness", "heat", "k", "deposit",
    "deposits", "mechanisation", "sections", "flux", "electrodes",
}  # fmt: skip


_GOOD: dict[str, dict[str, Any]] = {
    "visual": {"outcome": "accepted"}, "radiographic": {"outcome": "accepted"},
    "ultrasonic": {"outcome": "accepted"}, "magnetic-particle": {"outcome": "accepted"},
    "penetrant": {"outcome": "accepted"},
    "transverse-tensile": {"tensile_mpa": 1200, "fracture": "parent"},
    "all-weld-tensile": {"tensile_mpa": 1200, "yield_mpa": 1000, "elongation_percent": 25},
    "macro": {"cracks": False, "complete_fusion": True, "fused_to_root": True, "undercut_mm": 0,
              "legs_mm": [8, 8], "throat_mm": 5.7, "weld_size_mm": 80},
    "fillet-break": {"broke": False, "flaws_mm": [], "length_mm": 150},
    "hardness-hv10": {k: v for k, v in hardness(("cap", "root", "middle")).items() if k not in ("kind", "specimen")},
}  # fmt: skip
_BEND = {"thickness_mm": 10, "width_mm": 20, "former_mm": 15, "angle_deg": 180, "openings_mm": []}


def _tests(plain: dict[str, Any]) -> list[dict[str, Any]]:
    """Accepted specimens for everything that the plan of this coupon asks."""
    plan = plan_of(RECORD.take({**plain, "tests": []}))
    asked = plain["procedure"]["requirements"]["impact"]
    t = min(plain["coupon"]["thickness_mm"])
    found: list[dict[str, Any]] = []
    for item in plan.asked:
        for number in range(item.count):
            one = {"kind": item.kind, "specimen": f"{item.kind}-{len(found)}"}
            if item.kind == "impact":
                places = item.locations or ("VWT", "VHT")
                temperature = asked["temperature_c"] if isinstance(asked, dict) else -20
                one |= {"location": places[number % len(places)], "temperature_c": temperature,
                        "values_j": [90, 85, 80], "width_mm": 10}  # fmt: skip
                if item.notches and item.notches[number].process:
                    one["process"] = item.notches[number].process
            else:
                one |= deepcopy(_GOOD.get(item.kind) or _BEND)
                if item.kind == "side-bend" and t > 50:
                    one["thickness_mm"] = 20
                if item.kind in ("root-bend", "face-bend"):
                    one |= {"thickness_mm": t, "former_mm": min(15, 3 * t)}
                leg = plain["procedure"]["joint"].get("leg1_mm")
                throat = plain["procedure"]["joint"].get("throat_mm")
                if item.kind == "macro" and throat:
                    one |= {"legs_mm": [1.42 * throat] * 2, "throat_mm": throat}
                if item.kind == "macro" and leg:
                    one |= {"legs_mm": [leg, leg], "throat_mm": 0.71 * leg}
            found.append(one)
    return found


def welded(code: str, words: dict[str, Any]) -> QualificationRecord:
    """The record of what the words say."""
    return RECORD.take(plain_record(code, words))


def own_procedure(code: str, words: dict[str, Any]) -> Procedure:
    """The procedure that was welded there, each value as welded."""
    plain = plain_record(code, words)
    sheet = plain["procedure"]
    for plan, log in zip(sheet["passes"], plain["coupon"]["passes"], strict=True):
        for name in ("current_a", "voltage_v", "wire_feed_m_min", "travel_mm_min"):
            plan.pop(name, None)
            if name in log:
                plan[name] = {"min": log[name], "max": log[name]}
        if "gas" in plan:
            flow = log["gas"]["flow_l_min"]
            plan["gas"]["flow_l_min"] = {"min": flow, "max": flow}
        if "deposit_mm" in log:
            plan["deposit_mm"] = log["deposit_mm"]
    return PROCEDURE.take(sheet)
