"""Whether impact toughness and hardness are required: asked for, or triggered by the code."""

from __future__ import annotations

import re
from dataclasses import dataclass

from welding.checks.context import Draft
from welding.codebook.table import load_table
from welding.documents.procedure import BaseMetal, ImpactRequirement, ImpactValue, Requirements

_STRUCTURAL = re.compile(r"^S\d{3}(JR|J0|J2|K2|NLH|NL|NH|N|MLH|ML|MH|M|QL1|QL|Q)(?:WP|W|H|C)?\d?(?:\+\w+)?$")


@dataclass(frozen=True, slots=True, kw_only=True)
class Needs:
    """What a procedure has to prove beyond strength.

    Attributes:
        impact: Impact toughness is required.
        hardness: Hardness is required.
        refused: Requirements that the procedure switches off although the code asks for them.
        open: Facts that would have to be stated to decide.
    """

    impact: bool = False
    hardness: bool = False
    refused: tuple[str, ...] = ()
    open: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class NeedFacts:
    """What decides it: metals, thickness at the joint, requirements as stated."""

    draft: Draft
    metals: tuple[BaseMetal, ...]
    thickness_mm: float | None
    requirements: Requirements | None
    weld: str | None

    @property
    def impact_asked(self) -> ImpactRequirement | bool | None:
        """As stated."""
        return self.requirements.impact if self.requirements else None

    @property
    def hardness_asked(self) -> bool | None:
        """As stated."""
        return self.requirements.hardness if self.requirements else None


def specified_impact(metal: BaseMetal) -> ImpactValue | None:
    """Impact energy that a metal's standard specifies: as stated, else by the quality symbol of its grade.

    Example:
        >>> specified_impact(BaseMetal(designation="S355J2+N"))
        ImpactValue(temperature_c=-20.0, energy_j=27.0)
    """
    if metal.impact is not None:
        return metal.impact
    found = _STRUCTURAL.match(re.sub(r"\s", "", metal.designation or "").upper())
    if found is None:
        return None
    symbol = found[1].removesuffix("H") or found[1]
    row = load_table("welding.metals", "impact_symbols").row(symbol)
    return ImpactValue(temperature_c=float(row["temperature_c"]), energy_j=float(row["energy_j"]))


def has_specified_impact(metal: BaseMetal) -> bool | None:
    """Whether a metal's standard specifies an impact energy; ``None`` where nobody said.

    Example:
        >>> has_specified_impact(BaseMetal(designation="S355J2+N")), has_specified_impact(BaseMetal())
        (True, None)
    """
    return True if specified_impact(metal) is not None else None
