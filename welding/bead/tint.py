"""Colour of stainless steel: of the face by its temperature when the gas leaves it, of the root by oxygen."""

from __future__ import annotations

from dataclasses import dataclass

from welding.bead.shielding import LAMINAR_BELOW, reynolds
from welding.bead.state import BeadState
from welding.citation import Citation
from welding.codebook.table import load_table
from welding.language import tr
from welding.setup.cup import bore_mm
from welding.setup.flow import flow_advice

COVER_WITH_LENS, COVER_BARE = 2.0, 1.3
"""How far behind the arc the gas keeps air away, in bores of the cup (common practice)."""
TRAILING_MM = 50.0
TINTS = ("austenitic", "ferritic", "martensitic", "ph-stainless", "duplex")


@dataclass(frozen=True, slots=True, kw_only=True)
class Tint:
    """A colour, what is thought of it, how it looks, why; ``left_c``: temperature where the gas leaves it."""

    colour: str
    view: str
    swatch: str
    accepted: bool
    why: str
    left_c: float | None
    citation: Citation


def can_tint(state: BeadState) -> bool:
    """Whether the metal shows the colours of the table."""
    return state.metal is not None and state.metal.family in TINTS


def cover_mm(state: BeadState) -> tuple[float, list[str]] | None:
    """How far behind the arc the gas covers, and what shortens it; ``None`` without a cup."""
    cup, one = state.settings.cup, state.settings
    if cup is None:
        return None
    bore = bore_mm(cup.number)
    cover = bore * (COVER_WITH_LENS if cup.lens else COVER_BARE)
    why = []
    if one.gas_flow_l_min is not None:
        advice = flow_advice("141", state.components, cup_number=cup.number, lens=cup.lens)
        if reynolds(one.gas_flow_l_min, bore) > LAMINAR_BELOW * (1.5 if cup.lens else 1.0):
            cover *= 0.6
            why.append(tr("so much gas is turbulent in this cup"))
        elif advice and one.gas_flow_l_min < advice.usual.min - 0.1:
            cover *= max(0.3, one.gas_flow_l_min / advice.usual.min)
            why.append(tr("less gas than this cup takes"))
    if one.trailing_shield:
        cover += TRAILING_MM
    return cover, why


def face_tint(state: BeadState) -> Tint | str:
    """Colour of the face; words where it cannot be told."""
    cover = cover_mm(state)
    if cover is None:
        return tr("The cup is needed.")
    reach, why = cover
    left_c = state.behind_c(reach)
    if left_c is None:
        return tr("Power and travel are needed.")
    table = load_table("welding.heat", "heat_tint")
    row = next((row for row in table.rows if left_c <= row["to_c"]), table.rows[-1])
    reason = tr(
        "The gas covers about {reach:.0f} mm behind the arc; there the bead is still at {left_c:.0f} °C.",
        reach=reach,
        left_c=left_c,
    )
    return Tint(
        colour=tr(row["colour"]),
        view=tr(row["view"]),
        swatch=row["swatch"],
        accepted=row["view"] in ("accept", "usually accepted"),
        why=" ".join([reason, *(f"{one[0].upper()}{one[1:]}." for one in why)]),
        left_c=left_c,
        citation=table.citation_of(row),
    )


def root_tint(state: BeadState) -> Tint | str:
    """Colour of the root by the oxygen of the purge; words where it cannot be told."""
    oxygen = state.settings.purge_oxygen_ppm
    if oxygen is None:
        return tr("No purge is stated: an open root of stainless steel oxidises to a sugared root in air.")
    table = load_table("welding.bead", "purge_tint")
    row = next((row for row in table.rows if oxygen <= row["oxygen_ppm"]), table.rows[-1])
    colours = load_table("welding.heat", "heat_tint")
    colour = colours.row(row["colour"])
    return Tint(
        colour=tr(row["colour"]),
        view=tr(
            "level {level} of ten; levels to 3 or 4 are usually accepted, the contract decides",
            level=row["level"],
        ),
        swatch=colour["swatch"],
        accepted=int(row["level"]) <= 4,
        why=tr("{oxygen:g} ppm oxygen behind the root.", oxygen=oxygen),
        left_c=None,
        citation=table.citation_of(row),
    )
