"""What is required beyond strength."""

from __future__ import annotations

from welding.qualification.needs import NeedFacts, Needs


def needs_of(facts: NeedFacts, level: int) -> Needs:
    """What is required beyond strength: impact toughness is left to the contract; there are no levels."""
    return Needs(impact=bool(facts.impact_asked), hardness=bool(facts.hardness_asked))
