"""How thick each process of a joint lays down: as stated pass by pass, else as its beads fill the joint."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from welding.deposit.laid import by_hand
from welding.documents.procedure import Pass, Procedure
from welding.joints.beads import bead_of
from welding.joints.section import section_of
from welding.language import tr

LITTLE_SLACK = 0.05
"""By how much stated deposits may fall short of the joint before they are no account of it (judgement)."""
MUCH_SLACK = 0.15
"""By how much they may exceed it: a cap is laid down too (judgement)."""
GOUGED_SLACK = 0.5
"""The same where the root is gouged out and welded again (judgement)."""
FILLED = (0.8, 1.25)
FILLED_BY_HAND = (0.6, 1.6)
"""Metal laid down over the section, within which the beads tell how thick each process is (judgement)."""
COUNTED = 0.8
"""Share of an estimated deposit that counts as tested, until it is stated or measured (judgement)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Deposit:
    """Thickness that a process lays down.

    Attributes:
        mm: The thickness [mm]; ``None`` where it is not known.
        estimated: Whether it follows from the beads and nobody stated or measured it.
        reason: How it was found, or why it is not known.
    """

    mm: float | None
    estimated: bool = False
    reason: str = ""


def deposits_of(
    procedure: Procedure, passes: Iterable[tuple[Pass, float | None]], depth_mm: float | None
) -> Mapping[str, Deposit]:
    """Deposited thickness by process of a joint that several processes weld.

    Args:
        procedure: The joint and its metals.
        passes: Each pass with its feed, travel and current, and the deposit stated for it [mm].
        depth_mm: Thickness that is welded in all [mm].

    Returns:
        A deposit for each process. Stated deposits count where every pass has one and they add up to the
        joint, scaled down to it where they exceed it; else the beads do, where they fill it.
    """
    laid = list(passes)
    processes = tuple(dict.fromkeys(one.process for one, _ in laid))
    stated = [mm for _, mm in laid]
    if any(mm is not None for mm in stated):
        return _as_stated(procedure, laid, processes, depth_mm)
    return _by_beads(procedure, [one for one, _ in laid], processes)


def _none(processes: Iterable[str], reason: str) -> dict[str, Deposit]:
    return {process: Deposit(mm=None, reason=reason) for process in processes}


def _as_stated(
    procedure: Procedure,
    laid: list[tuple[Pass, float | None]],
    processes: tuple[str, ...],
    depth_mm: float | None,
) -> Mapping[str, Deposit]:
    if any(mm is None for _, mm in laid):
        return _none(processes, tr("The deposited thickness is stated for some passes and not for all."))
    whole = sum(mm or 0.0 for _, mm in laid)
    gouged = bool(procedure.joint and procedure.joint.back_gouge)
    most = 1 + (GOUGED_SLACK if gouged else MUCH_SLACK)
    if depth_mm is not None and not depth_mm * (1 - LITTLE_SLACK) <= whole <= depth_mm * most:
        return _none(
            processes,
            tr(
                "The deposits stated add up to {whole:g} mm; the weld is {depth_mm:g} mm thick.",
                whole=whole,
                depth_mm=depth_mm,
            ),
        )
    share = min(1.0, depth_mm / whole) if depth_mm is not None else 1.0
    return {
        process: Deposit(
            mm=share * sum(mm or 0.0 for one, mm in laid if one.process == process),
            reason=tr("As stated pass by pass."),
        )
        for process in processes
    }


def _by_beads(procedure: Procedure, passes: list[Pass], processes: tuple[str, ...]) -> Mapping[str, Deposit]:
    sectioned = section_of(replace(procedure, passes=tuple(passes)))
    section = sectioned.section
    if section is None:
        return _none(
            processes, tr("State the deposited thickness of each pass: the joint's section is not known.")
        )
    areas = [bead.stated_mm2 or bead.laid_mm2 for bead in map(bead_of, passes)]
    known = [area for area in areas if area is not None]
    if len(known) < len(passes) or len(section.beads) < len(passes):
        return _none(
            processes, tr("State the deposited thickness of each pass: what the beads deposit is not known.")
        )
    share = sum(known) / sum(bead.area_mm2 for bead in section.beads)
    low, high = FILLED_BY_HAND if any(by_hand(one) for one in passes) else FILLED
    if not low <= share <= high:
        return _none(
            processes,
            tr(
                "State the deposited thickness of each pass: the beads as set up fill "
                "{share:.0f} % of the joint.",
                share=share * 100,
            ),
        )
    of_pass = {bead.pass_number: bead.layer_mm / bead.abreast for bead in section.beads}
    return {
        process: Deposit(
            mm=sum(of_pass[one.number] for one in passes if one.process == process),
            estimated=True,
            reason=tr("As the beads fill the joint; state or measure it to count it in full."),
        )
        for process in processes
    }
