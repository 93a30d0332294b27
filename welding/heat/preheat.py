"""Preheat by EN 1011-2 method B (from memory): hydrogen cracking of unalloyed and low-alloy steel."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from welding.citation import Citation
from welding.language import tr
from welding.ranges import Limits

EN_1011_2_METHOD_B = Citation(
    document="EN 1011-2", edition="2001", clause="annex C.3, method B", provenance="memory", confidence="high"
)
CET_VALID = Limits(0.2, 0.5, "%")
THICKNESS_VALID = Limits(10.0, 90.0, "mm")
HYDROGEN_VALID = Limits(1.0, 20.0, "ml/100 g")
HEAT_INPUT_VALID = Limits(0.5, 4.0, "kJ/mm")
WELD_METAL_MARGIN = 0.03
SINGLE_RUN_FILLET_LESS_C = 60.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Preheat:
    """A preheat temperature by one method.

    Attributes:
        method: Id of the method, such as ``en-1011-2-b``.
        method_name: What the method is called, in words.
        by_code: Whether it is the code's own method, not a standard beside it.
        preheat_c: As computed, or as printed in the SI column [°C]; ``None`` outside the method's
            validity, and for method A.
        none_needed: The method asks for none at normal shop temperature.
        governing_thickness_mm: The thickness that was taken.
        assumptions: What was assumed, in words.
        outside: What lies outside the validity, in words; empty where all is inside.
        citation: Where it stands.
        unchecked: Tables that nobody has compared.
    """

    method: str
    method_name: str
    by_code: bool = False
    preheat_c: float | None
    none_needed: bool = False
    governing_thickness_mm: float | None = None
    assumptions: tuple[str, ...] = ()
    outside: tuple[str, ...] = ()
    citation: Citation
    unchecked: tuple[str, ...] = ()

    @property
    def valid(self) -> bool:
        """Whether the facts lie within the method's validity."""
        return not self.outside

    @property
    def advised_c(self) -> float | None:
        """Rounded up to 5 °C, for a procedure."""
        return None if self.preheat_c is None else math.ceil(self.preheat_c / 5 - 1e-9) * 5.0


def method_b_c(cet: float, thickness_mm: float, hydrogen_ml_100g: float, heat_input_kj_mm: float) -> float:
    """Tp = 697·CET + 160·tanh(d/35) + 62·HD^0.35 + (53·CET − 32)·Q − 328 [°C].

    Args:
        cet: Carbon equivalent CET [%], 0.2 to 0.5.
        thickness_mm: Plate thickness d [mm], 10 to 90.
        hydrogen_ml_100g: Diffusible hydrogen HD [ml/100 g], 1 to 20.
        heat_input_kj_mm: Heat input Q with k [kJ/mm], 0.5 to 4.0.

    Raises:
        OutOfRangeError: An argument lies outside the validity; no temperature is given there.

    Example:
        >>> round(method_b_c(0.321, 20, 5, 1.0))
        72
    """
    CET_VALID.require("cet", cet)
    THICKNESS_VALID.require("thickness_mm", thickness_mm)
    HYDROGEN_VALID.require("hydrogen_ml_100g", hydrogen_ml_100g)
    HEAT_INPUT_VALID.require("heat_input_kj_mm", heat_input_kj_mm)
    return (
        697 * cet
        + 160 * math.tanh(thickness_mm / 35)
        + 62 * math.pow(hydrogen_ml_100g, 0.35)
        + (53 * cet - 32) * heat_input_kj_mm
        - 328
    )


def method_b_at_its_ends(
    *, cet: float, thickness_mm: float, hydrogen_ml_100g: float, heat_input_kj_mm: float
) -> Preheat:
    """Method B with what lies outside its validity taken at the nearest end, and told so.

    Thickness no longer counts above 90 mm; below 10 mm the relation is drawn on. A CET above 0.5 or
    hydrogen above 20 ml/100 g asks for more than the figure: it says so, and never falls to none.
    """
    given = {
        "CET": (cet, CET_VALID, tr("more is wanted than this figure")),
        "thickness": (thickness_mm, THICKNESS_VALID, ""),
        "hydrogen": (hydrogen_ml_100g, HYDROGEN_VALID, tr("more is wanted than this figure")),
        "heat input": (heat_input_kj_mm, HEAT_INPUT_VALID, ""),
    }
    taken, said = {}, []
    for words, (value, limits, more) in given.items():
        taken[words] = min(max(value, limits.low), limits.high)
        if not limits.allows(value):
            beyond = f"; {more}" if more and value > limits.high else ""
            said.append(
                tr("{value:g} mm is thinner than the method is for", value=value)
                if words == "thickness" and value < limits.low
                else tr(
                    "{words} {value:.3g} taken as {taken:g}, where the method ends{beyond}",
                    words=words,
                    value=value,
                    taken=taken[words],
                    beyond=beyond,
                )
            )
    found = method_b(
        cet=taken["CET"],
        thickness_mm=taken["thickness"],
        hydrogen_ml_100g=taken["hydrogen"],
        heat_input_kj_mm=taken["heat input"],
    )
    if 0 < thickness_mm < THICKNESS_VALID.low and found.preheat_c is not None:
        less = 160 * (math.tanh(THICKNESS_VALID.low / 35) - math.tanh(thickness_mm / 35))
        value = found.preheat_c - less
        found = replace(found, preheat_c=value, none_needed=value <= 20)
    return replace(found, governing_thickness_mm=thickness_mm, assumptions=(*said, *found.assumptions))


def method_b(
    *,
    cet: float,
    thickness_mm: float,
    hydrogen_ml_100g: float,
    heat_input_kj_mm: float,
    weld_metal_cet: float | None = None,
    single_run_fillet: bool = False,
) -> Preheat:
    """Preheat by method B with what it assumed; outside its validity it says so and gives none.

    Args:
        cet: CET of the parent metal [%].
        thickness_mm: Thicker member's thickness [mm].
        hydrogen_ml_100g: Diffusible hydrogen [ml/100 g].
        heat_input_kj_mm: With k [kJ/mm].
        weld_metal_cet: CET of the weld metal, where known; it governs unless the parent's is 0.03 above it.
        single_run_fillet: About 60 °C less is admissible for it.
    """
    governing, assumptions = cet, []
    if weld_metal_cet is not None and cet < weld_metal_cet + WELD_METAL_MARGIN:
        governing = weld_metal_cet + WELD_METAL_MARGIN
        assumptions.append(
            tr(
                "the weld metal governs: its CET {weld_metal_cet:g} + {weld_metal_margin:g}",
                weld_metal_cet=weld_metal_cet,
                weld_metal_margin=WELD_METAL_MARGIN,
            )
        )
    outside = [
        tr("{words} {value:g} is outside {text}", words=words, value=value, text=limits.text)
        for words, value, limits in (
            ("CET", governing, CET_VALID),
            ("thickness", thickness_mm, THICKNESS_VALID),
            ("hydrogen", hydrogen_ml_100g, HYDROGEN_VALID),
            (tr("heat input"), heat_input_kj_mm, HEAT_INPUT_VALID),
        )
        if not limits.allows(value)
    ]
    value = None
    if not outside:
        value = method_b_c(governing, thickness_mm, hydrogen_ml_100g, heat_input_kj_mm)
        if single_run_fillet:
            value -= SINGLE_RUN_FILLET_LESS_C
            assumptions.append(
                tr(
                    "single-run fillet: {single_run_fillet_less_c:g} °C less",
                    single_run_fillet_less_c=SINGLE_RUN_FILLET_LESS_C,
                )
            )
        assumptions.append(tr("the plate never falls below the preheat between passes"))
    return Preheat(
        method="en-1011-2-b",
        method_name=tr("EN 1011-2, method B"),
        preheat_c=value,
        none_needed=value is not None and value <= 20,
        governing_thickness_mm=thickness_mm,
        assumptions=tuple(assumptions),
        outside=tuple(outside),
        citation=EN_1011_2_METHOD_B,
    )
