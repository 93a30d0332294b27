"""EN 1011-2 method A: what its diagrams are entered with. The diagrams themselves are not held here."""

from __future__ import annotations

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.heat.preheat import Preheat
from welding.language import tr

EN_1011_2_METHOD_A = Citation(
    document="EN 1011-2", edition="2001", clause="annex C.2, method A", provenance="memory", confidence="high"
)
THREE_WAYS = ("t", "branch", "lap")
"""Joints from which the heat flows into three plates."""


def combined_thickness_mm(kind: str, thicknesses_mm: tuple[float, float]) -> float:
    """Sum of the thicknesses into which the heat flows [mm]; the thicker member counts as the through one.

    Example:
        >>> combined_thickness_mm("butt", (20, 20)), combined_thickness_mm("t", (20, 12))
        (40.0, 52.0)
    """
    thin, thick = sorted(thicknesses_mm)
    return float(2 * thick + thin if kind in THREE_WAYS else thin + thick)


def hydrogen_scale(hydrogen_ml_100g: float) -> str:
    """Scale A to E of a diffusible hydrogen [ml/100 g].

    Example:
        >>> [hydrogen_scale(one) for one in (16, 12, 8, 5, 3)]
        ['A', 'B', 'C', 'D', 'E']
    """
    rows = load_table("welding.heat", "hydrogen_scales").rows
    return str(next((r["scale"] for r in rows if hydrogen_ml_100g > r["over_ml_100g"]), rows[-1]["scale"]))


def method_a(
    *, ce: float, kind: str, thicknesses_mm: tuple[float, float], hydrogen_ml_100g: float, heat_kj_mm: float
) -> Preheat:
    """What method A is entered with; its preheat stays unknown.

    Args:
        ce: Carbon equivalent by the IIW formula [%].
        kind: Kind of joint.
        thicknesses_mm: Thickness of both members [mm].
        hydrogen_ml_100g: Diffusible hydrogen [ml/100 g].
        heat_kj_mm: Heat input of the coldest pass, with k [kJ/mm].
    """
    scales = load_table("welding.heat", "hydrogen_scales")
    return Preheat(
        method="en-1011-2-a",
        method_name=tr("EN 1011-2, method A"),
        preheat_c=None,
        governing_thickness_mm=combined_thickness_mm(kind, thicknesses_mm),
        assumptions=(
            f"CE {ce:.2f}",
            tr("hydrogen scale {hydrogen_scale}", hydrogen_scale=hydrogen_scale(hydrogen_ml_100g)),
            tr(
                "combined thickness {combined_thickness_mm:g} mm",
                combined_thickness_mm=combined_thickness_mm(kind, thicknesses_mm),
            ),
            tr("heat input {heat_kj_mm:.2f} kJ/mm", heat_kj_mm=heat_kj_mm),
        ),
        outside=(tr("read the preheat in the diagrams of the standard, which are not held in this program"),),
        citation=EN_1011_2_METHOD_A,
        unchecked=scales.unchecked,
    )
