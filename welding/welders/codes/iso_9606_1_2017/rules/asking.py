"""What a procedure asks of its welder in the terms of ISO 9606-1."""

from __future__ import annotations

from dataclasses import replace
from itertools import product as each_of

from welding.consumables.designations.decode import decode
from welding.consumables.designations.model import Decoded
from welding.documents.procedure import Joint, Procedure
from welding.documents.welder_weld import ProcessPart, WelderWeld
from welding.language import tr
from welding.welders.asked import (
    Asked,
    by_machine,
    class_digits,
    diameter_of,
    fillers_of,
    iso_positions_of,
    passes_with,
    processes_of,
    thicknesses_of,
)
from welding.welders.codes.iso_9606_1_2017.rules.basics import table

CODE = "iso-9606-1:2017"
_BACKINGS = {
    "none": "ss nb",
    "metal": "ss mb",
    "ceramic": "ss mb",
    "weld": "ss mb",
    "gas": "ss gb",
    "flux": "ss fb",
}
_TRANSFERS = {
    "short-circuit": "dip",
    "controlled-short-circuit": "dip",
    "globular": "globular",
    "spray": "spray",
    "pulsed": "pulsed",
}
_TUBULAR_AS_CLASSED = {"114": "Z", "136": "P"}
"""Any type of the row that holds every core but the basic one."""


def asked_of(procedure: Procedure) -> Asked:
    """The welds that a procedure asks for, one for each position, thickness and filler of it."""
    joint = procedure.joint
    processes = processes_of(procedure)
    if joint is None or not processes:
        return Asked(welds=(), open=(tr("The procedure has no joint or no passes."),))
    if joint.weld not in ("cjp-groove", "pjp-groove", "fillet"):
        return Asked(welds=(), open=(tr("What this weld asks of a welder is not known here."),))
    fillet = joint.weld == "fillet"
    positions, open_positions = iso_positions_of(procedure)
    open_ = list(open_positions)
    open_ += _unknown_processes(processes)
    choices = []
    for at, process in enumerate(processes[:2]):
        parts, not_known = _parts(procedure, process, joint, at, len(processes))
        open_ += not_known
        choices.append(parts)
    sizes = _sizes(procedure, joint)
    if not sizes:
        open_.append(tr("The thickness is not stated."))
    layers = _layers(procedure) if fillet else None
    if fillet and layers is None:
        open_.append(tr("Whether the fillet weld has one layer or several is not stated."))
    welds = [
        WelderWeld(
            code=CODE,
            parts=tuple(_sized(parts, size, fillet)),
            product="pipe" if diameter_of(procedure) is not None else "plate",
            weld="fillet" if fillet else "butt",
            position=position,
            thickness_mm=size if fillet or len(parts) > 1 else None,
            diameter_mm=diameter_of(procedure),
            backing=None if fillet else _backing(joint),
            layers=layers,  # type: ignore[arg-type]
            branch_deg=_branch(joint),
            mechanized=by_machine(procedure),
        )
        for position, size, parts in each_of(positions, sizes, each_of(*choices))
    ]
    return Asked(welds=tuple(dict.fromkeys(welds)), open=tuple(dict.fromkeys(open_)))


def _unknown_processes(processes: list[str]) -> list[str]:
    known = {row["row"] for row in table("processes").rows}
    said = [
        tr("{process} is no process of ISO 9606-1.", process=one) for one in processes if one not in known
    ]
    if len(processes) > 2:
        said.append(tr("What more than two processes ask of a welder is not known here."))
    return said


def _parts(
    procedure: Procedure, process: str, joint: Joint, at: int, of_all: int
) -> tuple[list[ProcessPart], list[str]]:
    """The process with each of its fillers and transfer modes, and what is not known of them."""
    passes = passes_with(procedure, process)
    # A pass that does not state its mode is asked about as well: it may be dip transfer.
    modes = list(dict.fromkeys(_TRANSFERS[one.transfer] if one.transfer else None for one in passes))
    deposits = [one.deposit_mm for one in passes if one.role != "tack"]
    deposited = (
        sum(one or 0.0 for one in deposits) if of_all > 1 and deposits and None not in deposits else None
    )
    fillers = fillers_of(procedure, process)
    if not fillers:
        return [
            ProcessPart(process=process, filler_type="nm", deposited_mm=deposited, transfer=mode)  # type: ignore[arg-type]
            for mode in modes
        ], []
    parts, open_ = [], []
    for designation in fillers:
        group, kind, why = filler_of(designation, process)
        if why:
            open_.append(why)
        parts += [
            ProcessPart(
                process=process,
                filler_group=group,
                filler_type=kind,
                deposited_mm=deposited,
                transfer=mode,  # type: ignore[arg-type]
            )
            for mode in modes
        ]
    return parts, open_


def filler_of(designation: str, process: str) -> tuple[str | None, str | None, str]:
    """Filler group and filler type of a designation, and what is not known of it."""
    found = decode(designation) if designation else None
    if found is None or not found.valid:
        return None, None, tr("The filler {filler} is not read.", filler=designation or "?")
    group = _group(found)
    kind = _type(found, process)
    why = ""
    if group is None:
        why = tr("The filler group of {filler} is not known here.", filler=found.designation)
    elif kind is None:
        why = tr("The filler type of {filler} is not known here.", filler=found.designation)
    return group, kind, why


def _group(found: Decoded) -> str | None:
    system = found.system.removesuffix("-A").removesuffix("-B")
    rows = {row["row"]: row for name in ("filler_standards", "aws_fillers") for row in table(name).rows}
    row = rows.get(system)
    group = row.get("group") if row and not row.get("by_chromium") else None
    return str(group) if group else None


def _type(found: Decoded, process: str) -> str | None:
    types = table("processes").row(process)["filler_types"] if _is_known(process) else ()
    if process == "111":
        return _covering(found)
    solid = [one for one in types if one in ("S", "M")]
    if len(solid) == 1 and process not in ("125", "143"):
        return str(solid[0])
    if process in _TUBULAR_AS_CLASSED:
        # The symbol of the core stands last: Z before it is one of impact or of composition.
        letters = [one.text for one in found.meaning if one.text in types]
        if letters:
            return letters[-1]
        basic = found.system in ("AWS A5.20", "AWS A5.29") and "T-5" in found.designation
        return "B" if basic else _TUBULAR_AS_CLASSED[process]
    return None


def _covering(found: Decoded) -> str | None:
    types = {row["row"].removeprefix("electrode ") for row in table("filler_types").rows}
    letters = [one.text for one in found.meaning if one.text in types and one.text.isalpha()]
    # The covering stands last: A before it is the symbol of impact at +20 °C.
    if letters and found.system.startswith("ISO"):
        return letters[-1]
    row = next((one for one in table("aws_fillers").rows if one["row"] == found.system), None)
    coverings = row.get("coverings") if row else None
    if coverings == "last two digits":
        digits = class_digits(found.designation)
        return digits if digits in types else None
    if coverings == "suffix":
        suffixes = {one["row"]: one["covering"] for one in table("aws_suffixes").rows}
        return suffixes.get(found.designation.rpartition("-")[2])
    return None


def _is_known(process: str) -> bool:
    return process in {row["row"] for row in table("processes").rows}


def _sizes(procedure: Procedure, joint: Joint) -> tuple[float, ...]:
    if joint.weld == "pjp-groove":
        sides = joint.preparation.sides if joint.preparation else ()
        depth = max((one.depth_mm or 0.0 for one in sides), default=0.0)
        size = joint.throat_mm or depth
        return (size,) if size else ()
    return thicknesses_of(procedure, joint)


def _sized(parts: tuple[ProcessPart, ...], size: float, fillet: bool) -> list[ProcessPart]:
    if fillet:
        return [replace(one, deposited_mm=None) for one in parts]
    if len(parts) == 1:
        return [replace(parts[0], deposited_mm=size)]
    return list(parts)


def _layers(procedure: Procedure) -> str | None:
    passes = [one for one in procedure.passes if one.role != "tack"]
    layers = {one.layer for one in passes}
    if len(passes) == 1 or (len(layers) == 1 and None not in layers):
        return "sl"
    return "ml" if len(passes) > 1 else None


def _backing(joint: Joint) -> str:
    return "bs" if joint.sides == "both" else _BACKINGS[joint.backing]


def _branch(joint: Joint) -> float | None:
    return (joint.branch_angle_deg or 90.0) if joint.kind == "branch" else None
