"""Exercises of reading: designations, filler and gas, three errors, bends, coverage, the colour of a root."""

from __future__ import annotations

from dataclasses import replace
from functools import cache
from pathlib import Path
from random import Random
from typing import Any

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.consumables.gas import gas_text
from welding.coverage.record import in_force, judge, range_of
from welding.documents.codec import PROCEDURE, RECORD, parse_json
from welding.documents.procedure import Procedure
from welding.documents.record import BendTest, QualificationRecord
from welding.evaluate.procedure import evaluate
from welding.finding import Finding
from welding.language import tr, tr_noop
from welding.quantities.writing import System, quantity_text
from welding.testing.overall import cite
from welding.trainer.exercise import Exercise, Fact, Option, Solution, Stage, shuffled

PACKAGE = "welding.trainer"
MATERIAL = Path(__file__).parent / "material"
DESIGNATIONS = (
    "E7018-H4R",
    "E6010",
    "E6013",
    "E71T-1C",
    "ER70S-6",
    "E308L-16",
    "E8018-B2",
    "G 42 4 M21 3Si1",
    "E 46 6 Mn1Ni B 32 H5",
    "T 46 4 P M21 1 H5",
    "E 42 0 RR 12",
)
NOTHING_SAID = 3
"""A part with no more letters than this in its meaning teaches nothing."""


@cache
def _material(name: str) -> bytes:
    return (MATERIAL / name).read_bytes()


def _procedure() -> dict[str, Any]:
    plain: dict[str, Any] = parse_json(_material("plate.procedure.json"))
    del plain["thermal"]["heat_input_kj_mm"]
    return plain


def _record(code: str) -> QualificationRecord:
    return RECORD.take(parse_json(_material(f"{code}.qualification-record.json")))


def designation(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """One part of a designation: what it says."""
    found = decode(lot.choice(DESIGNATIONS))
    parts = [one for one in found.meaning if len(one.meaning) > NOTHING_SAID]
    asked = lot.choice(parts[1:] or parts)
    others = {
        one.meaning
        for name in DESIGNATIONS
        for one in decode(name).meaning
        if one.meaning not in {part.meaning for part in parts} and len(one.meaning) > NOTHING_SAID
    }
    options, keys = shuffled(lot, [asked.meaning], lot.sample(sorted(others), 3))
    return Exercise(
        kind="designation",
        stage=stage,
        seed=seed,
        question=tr("What does {part} say in {name}?", part=asked.text, name=found.designation),
        given=(Fact(tr("Product"), f"{found.product}, {found.system}"),),
        options=options,
        solution=Solution(
            keys=keys,
            words=asked.meaning,
            because=tuple(f"{one.text}: {one.meaning}" for one in found.meaning),
            sources=found.sources.citations,
        ),
    )


def filler_and_gas(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """A metal and a process: which filler and gas go with them."""
    table = load_table(PACKAGE, "filler_and_gas")
    row = lot.choice(table.rows)
    said = {_pair(one) for one in table.rows} - {_pair(row)}
    fits = {
        _pair(one) for one in table.rows if one["metal"] == row["metal"] and one["process"] == row["process"]
    }
    options, keys = shuffled(lot, [_pair(row)], lot.sample(sorted(said - fits), 3))
    return Exercise(
        kind="filler-and-gas",
        stage=stage,
        seed=seed,
        question=tr("Which filler and gas go with this metal and process?"),
        given=(
            Fact(tr("Metal"), f"{row['metal']}, {row['standard']}"),
            Fact(tr("Process"), row["process"]),
        ),
        options=options,
        solution=Solution(
            keys=keys, words=_pair(row), because=(tr(row["why"]),), sources=(table.citation_of(row),)
        ),
    )


def _pair(row: Any) -> str:
    return tr("{filler} in {gas}", filler=row["filler"], gas=gas_text(row["gas"]))


# --- three errors -----------------------------------------------------------------------------

PLANTS: dict[str, tuple[str, str, Any]] = {
    # rule that tells it: (what it is called, where it stands, what is planted)
    "polarity.class": (tr_noop("Polarity"), "passes.*.polarity", "DCEN"),
    "gas.process": (tr_noop("Shielding gas"), "passes.*.gas.components_percent", {"Ar": 100}),
    "filler.metal": (tr_noop("Filler"), "passes.*.filler.designation", "ER5356"),
    "temperature.order": (tr_noop("Interpass temperature, most"), "thermal.interpass_max_c", 50),
    "preheat.typical": (tr_noop("Preheat, least"), "thermal.preheat_min_c", 0),
    "joint.penetration": (tr_noop("Root face"), "joint.preparation.root_face_mm", 6),
    "gas.flow": (tr_noop("Gas flow"), "passes.*.gas.flow_l_min", {"min": 3, "max": 5}),
}
PLAIN: dict[str, tuple[str, str]] = {
    "transfer": (tr_noop("Transfer"), "passes.*.transfer"),
    "diameter": (tr_noop("Wire diameter"), "passes.*.filler.diameter_mm"),
    "angle": (tr_noop("Included angle"), "joint.preparation.included_angle_deg"),
    "gap": (tr_noop("Root gap"), "joint.preparation.root_gap_mm"),
}
NEVER_TOGETHER = ({"temperature.order", "preheat.typical"},)
"""Two that would hide each other: with a preheat of 0 °C an interpass limit of 50 °C is in order."""
KINDS = {
    "interpass_max_c": "temperature",
    "preheat_min_c": "temperature",
    "root_face_mm": "gap",
    "root_gap_mm": "gap",
    "diameter_mm": "diameter",
    "included_angle_deg": "angle",
}


def three_errors(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """A procedure with three planted errors, each told by the program's own checks."""
    rules = lot.sample(sorted(PLANTS), 3)
    while any(pair <= set(rules) for pair in NEVER_TOGETHER):
        rules = lot.sample(sorted(PLANTS), 3)
    plain = _procedure()
    for rule in rules:
        _, where, value = PLANTS[rule]
        _put(plain, where, value)
    procedure = PROCEDURE.take(plain)
    told = {one.rule: one for one in evaluate(procedure, system).findings if one.verdict == "violates"}
    words = {key: f"{tr(name)}: {_shown(plain, where, system)}" for key, (name, where, _) in PLANTS.items()}
    words |= {key: f"{tr(name)}: {_shown(plain, where, system)}" for key, (name, where) in PLAIN.items()}
    options, keys = shuffled(
        lot, [words[rule] for rule in rules], [said for key, said in words.items() if key not in rules]
    )
    findings = [told[rule] for rule in rules if rule in told]
    return Exercise(
        kind="three-errors",
        stage=stage,
        seed=seed,
        question=tr("Three things in this procedure are wrong. Which?"),
        given=_head(procedure, system),
        options=options,
        choose=3,
        solution=Solution(
            keys=keys,
            words="; ".join(words[rule] for rule in rules),
            because=tuple(f"{one.title}. {one.message}" for one in findings),
            sources=_sources(findings),
        ),
    )


def _head(procedure: Procedure, system: System) -> tuple[Fact, ...]:
    metal = procedure.base_metals[0]
    processes = dict.fromkeys(one.process for one in procedure.passes)
    thick = quantity_text(metal.thickness_mm or 0, "thickness", system)
    return (
        Fact(tr("Metal"), f"{metal.designation}, {thick}"),
        Fact(tr("Joint"), tr("butt, single V, from one side, no backing")),
        Fact(tr("Process and position"), ", ".join([*processes, *procedure.positions])),
    )


def _put(plain: Any, where: str, value: Any) -> None:
    first, *rest = where.split(".")
    if not rest:
        plain[first] = value
    elif rest[0] == "*":
        for one in plain[first]:
            _put(one, ".".join(rest[1:]), value)
    else:
        _put(plain[first], ".".join(rest), value)


def _shown(plain: Any, where: str, system: System) -> str:
    value = plain
    for name in where.split("."):
        value = value[0] if name == "*" else value[name]
    last = where.rsplit(".", 1)[-1]
    if last == "components_percent":
        return gas_text(value)
    if last == "flow_l_min":
        low, high = (quantity_text(value[end], "flow", system) for end in ("min", "max"))
        return tr("{low} to {high}", low=low, high=high)
    return quantity_text(value, KINDS[last], system) if last in KINDS else str(value)


def _sources(findings: list[Finding]) -> tuple[Citation, ...]:
    return tuple({one.text: one for finding in findings for one in finding.citations}.values())


# --- codes ------------------------------------------------------------------------------------


def bend(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """Openings of a bent specimen: whether the code accepts it."""
    code = lot.choice(("iso", "aws"))
    record = _record(code)
    asked = in_force(record.procedure.code)
    openings = tuple(
        lot.choice(
            (
                (),
                (2.5,),
                (3.2,),
                (1.5, 2.0, 2.5),
                (2.8, 2.9, 2.7, 2.9),
                (0.8, 0.8, 0.9, 2.0),
                (3.0,),
                (4.5,),
                (2.0, 2.0),
            )
        )
    )
    thick = 10.0
    test = BendTest(
        kind="side-bend",
        specimen="S1",
        thickness_mm=thick,
        width_mm=38.0,
        former_mm=38.0,
        angle_deg=180.0,
        openings_mm=openings,
    )
    judged = judge(replace(record, tests=(test,))).specimens[0]
    ok = judged.verdict == "accepted"
    points = [one for one in judged.points if "opening" in one.rule.id or one.ok is False] or list(
        judged.points
    )
    accept, reject = tr("accepted"), tr("not accepted")
    return Exercise(
        kind="bend",
        stage=stage,
        seed=seed,
        question=tr("Does {code} accept the openings of this side bend?", code=asked.short),
        given=(
            Fact(tr("Openings on the convex face"), _listed(openings, system)),
            Fact(tr("Corner cracks"), tr("none")),
        ),
        options=(Option("yes", accept), Option("no", reject)),
        solution=Solution(
            keys=frozenset({"yes" if ok else "no"}),
            words=accept if ok else reject,
            because=tuple(one.criterion + (f": {one.actual}" if one.actual else "") for one in points),
            sources=tuple({one.rule.id: cite(one.rule) for one in points}.values()),
        ),
    )


def _listed(openings_mm: tuple[float, ...], system: System) -> str:
    return ", ".join(quantity_text(one, "length", system) for one in openings_mm) or tr("none")


def covers_thickness(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """A coupon of one thickness: which thicknesses it qualifies."""
    record = _record("iso")
    thick = float(lot.choice((8, 10, 12, 16, 20, 25)))
    piece = replace(record.coupon, thickness_mm=(thick, thick))
    changed = replace(record, coupon=piece)
    asked = in_force(changed.procedure.code)
    item = range_of(changed, asked.code.id, asked.level).of("parent_thickness_mm")[0]
    low, high = item.min or 0.0, item.max if item.max is not None else 1e9
    sizes = sorted({3.0, 4.0, 5.0, 8.0, thick * 2, thick * 2 + 5, thick + 3, thick / 2, thick * 3})
    inside = [one for one in sizes if low <= one <= high]
    outside = [one for one in sizes if not low <= one <= high]
    right = lot.sample(inside, min(2, len(inside)))
    wrong = lot.sample(outside, min(3, len(outside)))

    def say(value: float) -> str:
        return quantity_text(value, "thickness", system)

    options, keys = shuffled(lot, [say(one) for one in right], [say(one) for one in wrong])
    return Exercise(
        kind="covers-thickness",
        stage=stage,
        seed=seed,
        question=tr("Which parent metal thicknesses does this test piece qualify?"),
        given=(
            Fact(tr("Code"), asked.short),
            Fact(tr("Test piece"), tr("butt weld on plate, {thickness}, several runs", thickness=say(thick))),
        ),
        options=options,
        choose=len(right),
        solution=Solution(
            keys=keys,
            words=", ".join(say(one) for one in sorted(right)),
            because=(item.reason,),
            sources=(cite(item.rule),),
        ),
    )


def purge_colour(lot: Random, stage: Stage, seed: int, system: System) -> Exercise:
    """The colour of a stainless root: about how much oxygen stood behind it."""
    table = load_table("welding.bead", "purge_tint")
    row = lot.choice([one for one in table.rows if one["level"] not in {"2", "10"}])
    others = [one for one in table.rows if one["colour"] != row["colour"]]
    wrong = sorted({f"{one['oxygen_ppm']:g} ppm" for one in lot.sample(others, 3)})
    options, keys = shuffled(lot, [f"{row['oxygen_ppm']:g} ppm"], wrong)
    return Exercise(
        kind="purge-colour",
        stage=stage,
        seed=seed,
        question=tr("About how much oxygen was in the purge?"),
        given=(
            Fact(tr("Root"), tr("austenitic stainless tube, argon behind the root")),
            Fact(tr("Colour"), tr(row["colour"])),
        ),
        options=options,
        solution=Solution(
            keys=keys,
            words=f"{row['oxygen_ppm']:g} ppm",
            because=(
                tr("Level {level} of the colour chart.", level=row["level"]),
                tr("The contract says which level is accepted; dull and grey roots are never."),
            ),
            sources=(table.citation_of(row),),
        ),
    )
