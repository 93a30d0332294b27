"""An intent with its names looked up: metals, position, process; or every reason why it cannot be planned."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

from welding.checks.own_metal import as_metal
from welding.codebook.catalogue import edition_of
from welding.codebook.edition import Edition
from welding.codebook.table import load_table
from welding.documents.fields import Transfer, UnitColumn
from welding.documents.intent import Intent
from welding.documents.library import Product
from welding.documents.machine import Machine
from welding.errors import DocumentError, Problem
from welding.heat.energy import thermal_efficiency
from welding.joints.positions import position_is_for
from welding.language import tr
from welding.metals.catalogue import Metal, find, name_key, search
from welding.metals.kinds import KIND_OF_FAMILY, Kind, takes_nickel_filler

Attitude = Literal["flat", "horizontal", "vertical-up", "vertical-down", "overhead"]
PLANNED = ("111", "114", "121", "131", "135", "136", "138", "141")
_FOR_KIND: dict[Kind, tuple[str, ...]] = {
    "steel": ("111", "114", "121", "135", "136", "138", "141"),
    "stainless": ("111", "121", "135", "136", "141"),
    "aluminium": ("131", "141"),
    "copper": ("111", "131", "141"),
    "nickel": ("111", "131", "136", "141"),
}
_FOR_NICKEL_STEEL = ("111", "121", "131", "136", "141")
"""Processes for steel that takes nickel filler."""
THIN_MM, THICK_MM = 0.5, 150.0
"""Outside these the relations say nothing."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Facts:
    """What is planned with.

    Attributes:
        intent: The intent.
        metals: Both metals, the second like the first where only one is named.
        names: What they were called.
        kind: Kind of metal that process, gas and filler go by.
        thicknesses: Of both members [mm].
        attitude: How the weld lies; the hardest place of a fixed pipe.
        progression: Up or down, where the question arises.
        process: ISO 4063 number.
        units: Trade sizes and gases of which system.
    """

    intent: Intent
    metals: tuple[Metal, Metal]
    names: tuple[str, str]
    kind: Kind
    thicknesses: tuple[float, float]
    attitude: Attitude
    progression: Literal["up", "down"] | None
    process: str
    units: UnitColumn

    @property
    def thin(self) -> float:
        """Thickness that settings go by: the thinner member's [mm]."""
        return min(self.thicknesses)

    @property
    def thick(self) -> float:
        """Thickness that preheat goes by: the thicker member's [mm]."""
        return max(self.thicknesses)

    @property
    def fillet(self) -> bool:
        """Whether the weld is a fillet."""
        return self.intent.joint.weld == "fillet"

    @property
    def pipe(self) -> bool:
        """Whether it is pipe."""
        return self.intent.outside_diameter_mm is not None

    @property
    def edition(self) -> Edition | None:
        """The code in force."""
        return edition_of(self.intent.code.id) if self.intent.code else None

    @property
    def aws(self) -> bool:
        """Whether a code with AWS usage is in force: steel backing is usual then."""
        return self.edition is not None and self.edition.usage == "aws"

    @property
    def iso(self) -> bool:
        """Whether a code with ISO usage is in force: its names of fillers are used then."""
        return self.edition is not None and self.edition.usage == "iso"

    @property
    def code_has_preheat(self) -> bool:
        """Whether the code in force has a preheat method of its own."""
        return self.edition is not None and bool(self.edition.preheat_methods)

    @property
    def heat_measure(self) -> float:
        """Heat input as the code in force counts it over heat input with k: 1/k where it counts without."""
        counts_k = self.edition is None or self.edition.heat_basis == "heat-input"
        return 1.0 if counts_k else 1.0 / thermal_efficiency(self.process).k

    @property
    def prequalified(self) -> bool:
        """Whether the prequalified route is claimed."""
        code = self.intent.code
        return bool(self.edition and self.edition.prequalified and code and code.route == "prequalified")

    @property
    def strength(self) -> float:
        """Least yield of the weaker metal at its thickness [MPa]; zero where none is known."""
        known = [m.yield_at(t) for m, t in zip(self.metals, self.thicknesses, strict=True)]
        return min((value for value in known if value is not None), default=0.0)

    @property
    def heat_shy(self) -> bool:
        """Whether a hot pool softens a metal: quenched and tempered, duplex (ISO/TR 15608 groups 3, 10)."""
        return any(metal.iso_15608.split(".")[0] in ("3", "10") for metal in self.metals)

    @property
    def families(self) -> set[str]:
        """Families of both metals."""
        return {metal.family for metal in self.metals}

    @property
    def machine(self) -> Machine | None:
        """The machine that is wished, where its record came along."""
        library = self.intent.shelf
        return next((m for m in library.machines if m.name == self.intent.machine), None) if library else None

    @property
    def product(self) -> Product | None:
        """The filler as bought that is wished, where its record came along."""
        library, wished = self.intent.shelf, self.intent.filler
        if library is None or wished is None:
            return None
        return next((p for p in library.products if p.name == wished.make), None)


def facts_of(intent: Intent) -> Facts:
    """Look everything up.

    Raises:
        DocumentError: Metals that are not known, a position that the weld cannot have, a process that
            is not planned or not for the metal, a thickness out of all reason; every one with its path.
    """
    metals = [_metal(intent, name) for name in intent.metals]
    problems = list(_problems(intent, metals))
    if problems:
        raise DocumentError(tuple(problems))
    known = [metal for metal in metals if metal is not None]
    pair = (known[0], known[-1])
    thickness = (intent.thickness_mm[0], intent.thickness_mm[-1])
    row = _position(intent)
    attitude, progression = _attitude(row["attitude"], row["progression"], intent.progression)
    return Facts(
        intent=intent,
        metals=pair,
        names=(intent.metals[0], intent.metals[-1]),
        kind=_kind(pair, intent.process),
        thicknesses=thickness,
        attitude=attitude,
        progression=progression,
        process=intent.process,
        units=intent.code.units if intent.code else "si",
    )


def for_fill(facts: Facts) -> Facts:
    """The same joint as the passes after the root are welded; the facts themselves where all are alike."""
    intent = facts.intent
    if intent.fill_process is None:
        return facts
    return replace(
        facts,
        process=intent.fill_process,
        intent=replace(
            intent,
            process=intent.fill_process,
            transfer=intent.fill_transfer,
            filler=intent.fill_filler,
            gas=intent.fill_gas,
            fill_process=None,
        ),
    )


def _metal(intent: Intent, name: str) -> Metal | None:
    if intent.shelf:
        wanted = name_key(name)
        for own in intent.shelf.metals:
            if wanted in {name_key(text) for text in (own.name, *own.also)}:
                return as_metal(own)
    return find(name)


def _kind(metals: Sequence[Metal], process: str) -> Kind:
    kinds = {KIND_OF_FAMILY[metal.family] for metal in metals}
    if process == "131" and kinds == {"steel"}:
        return "nickel"  # steel that takes nickel filler is welded with inert gas as nickel is
    if kinds == {"steel", "stainless"}:
        return "stainless"  # the joint is welded with 309L, like stainless
    if "nickel" in kinds:
        return "nickel"
    if "copper" in kinds:
        return "copper"
    return next(iter(kinds))


def _position(intent: Intent) -> dict[str, Any]:
    rows = load_table("welding.joints", "positions").rows
    return dict(next(row for row in rows if row["position"] == intent.position))


def _attitude(
    attitude: str, progression: str, stated: str | None
) -> tuple[Attitude, Literal["up", "down"] | None]:
    if attitude not in ("vertical", "several"):
        return attitude, None  # type: ignore[return-value]
    way = progression if progression in ("up", "down") else (stated or "up")
    return ("vertical-down", "down") if way == "down" else ("vertical-up", "up")


def _problems(intent: Intent, metals: list[Metal | None]) -> Iterator[Problem]:
    for index, (name, metal) in enumerate(zip(intent.metals, metals, strict=True)):
        if metal is None:
            near = ", ".join(found.name for found in search(name, 3))
            yield Problem(
                f"metals.{index}",
                tr("{name!r} is not known; it may be entered in the library", name=name)
                + (tr(". Like it: {near}", near=near) if near else ""),
                name,
            )
    for index, value in enumerate(intent.thickness_mm):
        if not THIN_MM <= value <= THICK_MM or not math.isfinite(value):
            yield Problem(
                f"thickness_mm.{index}",
                tr(
                    "{value:g} mm is outside what is planned here, {thin_mm:g} to {thick_mm:g} mm",
                    value=value,
                    thin_mm=THIN_MM,
                    thick_mm=THICK_MM,
                ),
                f"{value:g}",
            )
    row = _position(intent)
    weld = "fillet" if intent.joint.weld == "fillet" else "groove"
    if not position_is_for(row, intent.joint):
        yield Problem(
            "position",
            tr(
                "{position} ({row}) is a position of {row2} welds; this is a {weld} weld",
                position=intent.position,
                row=tr(row["words"]),
                row2=tr(" and ").join(row["welds"]),
                weld=weld,
            ),
            intent.position,
        )
    if intent.joint.weld not in ("fillet", "cjp-groove", "pjp-groove"):
        yield Problem(
            "joint.weld", tr("a {weld} weld is not planned here", weld=intent.joint.weld), intent.joint.weld
        )
    if intent.joint.kind == "lap" and intent.joint.weld != "fillet":
        yield Problem("joint.weld", tr("a lap joint takes a fillet, not a groove"), intent.joint.weld)
    stated = {"process": intent.process}
    if intent.fill_process is not None:
        stated["fill_process"] = intent.fill_process
    for path, process in stated.items():
        if process not in PLANNED:
            yield Problem(
                path,
                tr(
                    "starting settings of process {process} are not known here; those of {planned} "
                    "and, with no filler, 142 are",
                    process=process,
                    planned=", ".join(PLANNED),
                ),
                process,
            )
            return
        if process == "121" and row["attitude"] not in ("flat", "horizontal"):
            yield Problem(
                path,
                tr(
                    "submerged arc is welded flat or horizontal; {position} is {row}",
                    position=intent.position,
                    row=tr(row["words"]),
                ),
                process,
            )
    if intent.fill_process is not None and intent.joint.weld == "fillet":
        yield Problem("fill_process", tr("a fillet is planned with one process"), intent.fill_process)
    known = [metal for metal in metals if metal]
    kinds = {KIND_OF_FAMILY[metal.family] for metal in known}
    if len(known) == len(metals) and not _joinable(kinds):
        yield Problem(
            "metals", tr("{metals} are not fused to one another", metals=tr(" and ").join(intent.metals)), ""
        )
        return
    nickel_filler = any(takes_nickel_filler(metal) for metal in known)
    for kind in kinds:
        planned = _FOR_NICKEL_STEEL if nickel_filler and kind == "steel" else _FOR_KIND[kind]
        for path, process in stated.items():
            if nickel_filler and process == "135":
                yield Problem(
                    path,
                    tr("steel of 5 or 9 % nickel takes nickel filler, in inert gas: process 131, not 135"),
                    process,
                )
            elif process not in planned:
                yield Problem(
                    path,
                    tr(
                        "process {process} is not planned for {kind}; {planned} are",
                        process=process,
                        kind=kind,
                        planned=", ".join(planned),
                    ),
                    process,
                )


def _joinable(kinds: set[Kind]) -> bool:
    return len(kinds) <= 1 or kinds in ({"steel", "stainless"}, {"steel", "nickel"}, {"stainless", "nickel"},
        {"steel", "copper"}, {"stainless", "copper"}, {"nickel", "copper"},
    )  # fmt: skip


def transfer_group(facts: Facts, transfer: Transfer | None) -> str:
    """Row of travel and bead shape that a pass goes by."""
    if facts.process == "135":
        if transfer in ("short-circuit", "controlled-short-circuit"):
            return "short"
        return "pulsed" if transfer == "pulsed" else "spray"
    if facts.process == "131":
        if facts.kind == "copper":
            return "pulsed" if transfer == "pulsed" else "copper"
        return "pulsed" if facts.kind == "nickel" else "aluminium"
    if facts.process == "141":
        return "tig-aluminium" if facts.kind == "aluminium" else "tig"
    return {"111": "stick", "136": "cored-gas", "138": "cored-metal", "114": "cored-self", "121": "saw"}[
        facts.process
    ]
