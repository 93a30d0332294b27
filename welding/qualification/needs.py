"""Whether impact toughness and hardness are required: asked for, or triggered by the code."""

from __future__ import annotations

import re
from dataclasses import dataclass

from welding.checks.context import Draft
from welding.documents.procedure import BaseMetal, ImpactRequirement, Requirements

_WITH_IMPACT = re.compile(
    r"^S\d{3}(?:(?:JR|J0|J2|K2)(?:W|WP|H|C)?|N|NL|M|ML|Q|QL|QL1|NH|NLH|MH|MLH)(?:\+\w+)?$"
)
"""Structural grades of EN 10025, EN 10210 and EN 10219 whose name promises an impact energy (from memory)."""


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


def has_specified_impact(metal: BaseMetal) -> bool | None:
    """Whether a metal's standard specifies an impact energy; ``None`` where nobody said.

    Example:
        >>> has_specified_impact(BaseMetal(designation="S355J2+N")), has_specified_impact(BaseMetal())
        (True, None)
    """
    if metal.impact is not None:
        return True
    name = re.sub(r"\s", "", metal.designation or "").upper()
    return True if _WITH_IMPACT.match(name) else None
