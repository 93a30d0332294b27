"""A small piece warms through: heat of a pass spread over the whole piece, then lost from its faces."""

from __future__ import annotations

import math
from dataclasses import dataclass

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.errors import OutOfRangeError
from welding.heat.cooling import FACE_LOSS_W_M2_K
from welding.language import tr
from welding.ranges import positive

LUMPED = Citation(
    document="heat transfer textbooks",
    edition="",
    clause="lumped heat capacity: exponential cooling of a body of one temperature",
    provenance="published",
    confidence="medium",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class WarmPiece:
    """How a small piece warms and cools, as a body of one temperature.

    Attributes:
        piece_c: Temperature of the whole piece once the heat of the pass has spread [°C].
        wait_s: Seconds until it has cooled to the temperature asked; 0 where it does not get warmer.
        biot: How unevenly it cools through its thickness; the model holds below 0.1.
        citation: Of the model.
        unchecked: Rows read that nobody has compared with their source.
    """

    piece_c: float
    wait_s: float
    biot: float
    citation: Citation
    unchecked: tuple[str, ...]


def lumped_c(start_c: float, ambient_c: float, time_s: float, tau_s: float) -> float:
    """Temperature of a body of one temperature after a time, Ta + (T1 - Ta) exp(-t / tau) [°C]."""
    return ambient_c + (start_c - ambient_c) * math.exp(-time_s / tau_s)


def lumped_wait_s(start_c: float, to_c: float, ambient_c: float, tau_s: float) -> float:
    """Time until it is at ``to_c``, tau ln((T1 - Ta) / (T2 - Ta)) [s]."""
    return tau_s * math.log((start_c - ambient_c) / (to_c - ambient_c))


def biot(loss_w_m2_k: float, length_m: float, conductivity_w_m_k: float) -> float:
    """How unevenly a body cools, h Lc / k; below 0.1 it may be taken to have one temperature."""
    return loss_w_m2_k * length_m / conductivity_w_m_k


def warm_piece(
    *,
    heat_j: float,
    length_mm: float,
    width_mm: float,
    thickness_mm: float,
    before_c: float,
    to_c: float,
    ambient_c: float,
    metal: str = "steel",
) -> WarmPiece:
    """Warming of a plate by one pass, and the wait until it is at ``to_c``.

    ΔT = Q / (ρc·V); t = τ · ln((T - T0) / (to - T0)) with τ = ρc·V / (h·A), A both faces and the edges.

    Args:
        heat_j: Heat of the pass, with k [J].
        length_mm: Of the piece along the weld [mm].
        width_mm: Of the piece across the weld, both members [mm].
        thickness_mm: Of the piece [mm].
        before_c: Temperature of the piece before the pass [°C].
        to_c: Temperature to fall to [°C], above ``ambient_c``.
        ambient_c: Of the air [°C].
        metal: Row of the conduction table.

    Raises:
        OutOfRangeError: A size or the heat is not above zero, or the air is as warm as ``to_c``.

    Example:
        >>> found = warm_piece(heat_j=300e3, length_mm=300, width_mm=300, thickness_mm=12, before_c=100,
        ...                    to_c=150, ambient_c=20)
        >>> round(found.piece_c), round(found.wait_s)
        (162, 86)
    """
    for name, value in (("heat_j", heat_j), ("length_mm", length_mm), ("width_mm", width_mm)):
        positive("mm" if name.endswith("mm") else "J").require(name, value)
    positive("mm").require("thickness_mm", thickness_mm)
    if to_c - ambient_c < 1:
        raise OutOfRangeError(
            "ambient_c", ambient_c, tr("below the temperature to fall to, {to_c:g} °C", to_c=to_c)
        )
    table = load_table("welding.heat", "conduction")
    row = next((row for row in table.rows if row["metal"] == metal), table.rows[0])
    capacity_j_c = row["heat_j_cm3_k"] / 1000 * length_mm * width_mm * thickness_mm
    area_mm2 = 2 * (length_mm * width_mm + (length_mm + width_mm) * thickness_mm)
    tau_s = capacity_j_c / (FACE_LOSS_W_M2_K * 1e-6 * area_mm2)
    piece_c = before_c + heat_j / capacity_j_c
    wait_s = lumped_wait_s(piece_c, to_c, ambient_c, tau_s) if piece_c > to_c else 0.0
    return WarmPiece(
        piece_c=piece_c,
        wait_s=wait_s,
        biot=biot(FACE_LOSS_W_M2_K, thickness_mm / 2000, row["conductivity_w_m_k"]),
        citation=LUMPED,
        unchecked=table.unchecked,
    )
