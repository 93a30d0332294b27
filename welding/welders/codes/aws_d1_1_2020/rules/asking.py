"""What a procedure asks of its welder or operator in the terms of AWS D1.1, clause 6 part C."""

from __future__ import annotations

from itertools import product as each_of

from welding.consumables.designations.decode import decode
from welding.documents.procedure import Joint, Pass, Procedure
from welding.documents.welder_weld import ProcessPart, WelderWeld
from welding.language import tr
from welding.qualification.positions import progression_of
from welding.welders.asked import (
    Asked,
    by_machine,
    class_digits,
    diameter_of,
    fillers_of,
    passes_with,
    processes_of,
    thicknesses_of,
)
from welding.welders.codes.aws_d1_1_2020.rules.basics import table

CODE = "aws-d1.1-welders:2020"
_LETTERS = {
    "111": "SMAW", "121": "SAW", "122": "SAW", "124": "SAW", "125": "SAW", "126": "SAW", "114": "FCAW-S",
    "136": "FCAW-G", "141": "GTAW", "142": "GTAW", "143": "GTAW", "72": "ESW", "73": "EGW",
}  # fmt: skip
_GAS_METAL = ("135", "138")
_SHORT = ("short-circuit", "controlled-short-circuit")
_POSITIONS = {
    "PA": "F", "PB": "H", "PC": "H", "PD": "OH", "PE": "OH", "PF": "V", "PG": "V", "PH": "5G", "PJ": "5G",
    "H-L045": "6G", "J-L045": "6G", "5F": "5G",
}  # fmt: skip


def asked_of(procedure: Procedure) -> Asked:
    """The welds that a procedure asks for: one for each process, position and thickness of it."""
    joint = procedure.joint
    processes = processes_of(procedure)
    if joint is None or not processes:
        return Asked(welds=(), open=(tr("The procedure has no joint or no passes."),))
    if joint.weld == "build-up":
        return Asked(welds=(), open=(tr("What this weld asks of a welder is not known here."),))
    open_: list[str] = []
    parts: list[ProcessPart] = []
    for process in processes:
        found, not_known = _parts(procedure, process)
        parts += found
        open_ += not_known
    sizes = thicknesses_of(procedure, joint)
    if not sizes:
        open_.append(tr("The thickness is not stated."))
    if not procedure.positions:
        open_.append(tr("The position is not stated."))
    progressions = {one.progression for one in procedure.passes if one.progression}
    stated = progressions.pop() if len(progressions) == 1 else None
    fillet = joint.weld == "fillet"
    diameter = diameter_of(procedure)
    units = procedure.code.units if procedure.code else "us"
    welds = [
        WelderWeld(
            code=CODE,
            person="operator" if by_machine(procedure) else "welder",
            parts=(part,),
            product="pipe" if diameter is not None else "plate",
            weld="fillet" if fillet else "butt",
            position=_POSITIONS.get(position, position),
            progression=_progression(position, stated),  # type: ignore[arg-type]
            groove=_groove(joint, diameter),  # type: ignore[arg-type]
            thickness_mm=size,
            diameter_mm=diameter,
            backing=None if fillet else _backing(joint),
            dihedral_deg=joint.dihedral_deg if fillet else None,
            electrodes=max(_electrodes(one) for one in procedure.passes),
            units=units,
        )
        for part, position, size in each_of(parts, procedure.positions, sizes)
    ]
    return Asked(welds=tuple(dict.fromkeys(welds)), open=tuple(dict.fromkeys(open_)))


def _parts(procedure: Procedure, process: str) -> tuple[list[ProcessPart], list[str]]:
    open_: list[str] = []
    if process in _GAS_METAL:
        passes = passes_with(procedure, process)
        names = list(dict.fromkeys("GMAW-S" if one.transfer in _SHORT else "GMAW" for one in passes))
        if any(one.transfer is None for one in passes):
            open_.append(tr("The transfer mode is not stated: GMAW-S is a process of its own."))
        return [ProcessPart(process=one) for one in names], open_
    letters = _LETTERS.get(process)
    if letters is None:
        return [], [tr("{process} is no process of this clause.", process=process)]
    if letters != "SMAW":
        return [ProcessPart(process=letters)], open_
    groups = []
    for designation in fillers_of(procedure, process):
        group = f_number(designation)
        if group is None:
            open_.append(tr("The F-number of {filler} is not known here.", filler=designation or "?"))
        groups.append(group)
    if not groups:
        open_.append(tr("The electrode is not stated."))
    return [ProcessPart(process="SMAW", filler_group=one) for one in dict.fromkeys(groups) if one], open_


def f_number(designation: str) -> str | None:
    """Electrode group of an SMAW electrode by the last two digits of its class; ``None`` where not known.

    Example:
        >>> f_number("E7018"), f_number("E8018-C3"), f_number("E6010"), f_number("E316L-17")
        ('F4', 'F4', 'F3', None)
    """
    found = decode(designation) if designation else None
    if found is None or not found.valid or found.system not in ("AWS A5.1", "AWS A5.5"):
        return None
    digits = class_digits(found.designation)
    rows = table("f_numbers").rows
    return next((str(row["row"]) for row in rows if f"EXX{digits}" in row["electrodes"]), None)


def _progression(position: str, stated: str | None) -> str | None:
    found = progression_of(position, stated)
    return {"up": "uphill", "down": "downhill"}.get(found or "")


def _groove(joint: Joint, diameter: float | None) -> str | None:
    if joint.weld in ("plug", "slot"):
        return "plug"
    if joint.weld == "pjp-groove":
        return "pjp"
    if joint.weld != "cjp-groove":
        return None
    return "tyk" if joint.kind == "branch" and diameter is not None else "cjp"


def _backing(joint: Joint) -> str:
    if joint.back_gouge:
        return "backgouged"
    return "open root" if joint.backing in ("none", "gas") else "backing"


def _electrodes(one: Pass) -> int:
    return one.electrodes.count if one.electrodes is not None else 1
