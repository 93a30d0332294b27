"""Why a number of a proposal is what it is."""

from __future__ import annotations

from dataclasses import dataclass

from welding.citation import COMMON_PRACTICE, Citation
from welding.documents.fields import ValueSource


@dataclass(frozen=True, slots=True, kw_only=True)
class Reason:
    """One sentence about one field of the proposal.

    Attributes:
        path: Field of the procedure.
        text: What decided it, with its adjustments spelled out.
        source: Kind of source, as on the value itself.
        citation: Where the rule or the figures stand.
        unchecked: Tables that nobody has compared with the printed text.
    """

    path: str
    text: str
    source: ValueSource = "practice"
    citation: Citation = COMMON_PRACTICE
    unchecked: tuple[str, ...] = ()
