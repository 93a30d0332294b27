"""Where a number or a rule comes from, as an object and never as prose."""

from dataclasses import dataclass
from typing import Literal

Provenance = Literal["memory", "published", "practice", "confirmed"]
"""``memory``: recalled, nobody here had the document open. ``published``: read in a document that
can be named. ``practice``: what the trade does, no document behind it. ``confirmed``: the owner of
a copy compared it."""

Confidence = Literal["high", "medium", "low"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Citation:
    """The printed place of a rule or a number.

    Attributes:
        document: Short name of the document, or "common practice".
        edition: Year of the edition, empty where there is none.
        clause: Clause, table or annex; empty where not known.
        provenance: How the figure reached this program.
        confidence: How sure the person who entered it was.
    """

    document: str
    edition: str = ""
    clause: str = ""
    provenance: Provenance = "memory"
    confidence: Confidence = "medium"

    @property
    def text(self) -> str:
        """One line for screens and paper.

        Example:
            >>> Citation(document="ISO/TR 17671-1", edition="2002", clause="table 1").text
            'ISO/TR 17671-1:2002, table 1'
        """
        name = f"{self.document}:{self.edition}" if self.edition else self.document
        return f"{name}, {self.clause}" if self.clause else name


COMMON_PRACTICE = Citation(document="common practice", provenance="practice", confidence="medium")
