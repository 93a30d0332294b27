"""TIG pulse as people set it: the two schools, and a background typed in A or as a share of the peak."""

from __future__ import annotations

import re
from dataclasses import dataclass

from welding.citation import Citation
from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.errors import UnreadableError
from welding.language import tr
from welding.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class PulseSchool:
    """One way to set a pulse; shares run from 0 to 1, the background's is of the peak."""

    school: str
    words: str
    use: str
    frequency_hz: Range
    peak_share: Range
    background_share: Range
    citation: Citation


@by_book(8)
def pulse_schools() -> tuple[PulseSchool, ...]:
    """Both schools (common practice)."""
    table = load_table("welding.setup", "pulse_schools")
    return tuple(
        PulseSchool(
            school=row["school"],
            words=tr(row["words"]),
            use=tr(row["use"]),
            frequency_hz=Range.between(row["frequency_min_hz"], row["frequency_max_hz"]),
            peak_share=Range.between(row["peak_share_min"], row["peak_share_max"]),
            background_share=Range.between(row["background_share_min"], row["background_share_max"]),
            citation=table.citation_of(row),
        )
        for row in table.rows
    )


def read_background(text: str, *, peak_a: float) -> float:
    """Background current [A] from ``5 A``, ``5`` or ``5 %`` of the peak.

    Raises:
        UnreadableError: No number, not above zero, or above the peak.

    Example:
        >>> read_background("5 %", peak_a=100)
        5.0
    """
    match = re.fullmatch(r"\s*(\d+(?:[.,]\d+)?|[.,]\d+)\s*(%|a|amps?)?\s*", text.lower())
    if not match:
        raise UnreadableError(
            text, tr("{strip!r} is no background: write it as 12 A or 10 %", strip=text.strip())
        )
    number = float(match[1].replace(",", "."))
    current = number * peak_a / 100 if match[2] == "%" else number
    if not 0 < current <= peak_a:
        raise UnreadableError(
            text,
            tr("{current:g} A is no background below a peak of {peak_a:g} A", current=current, peak_a=peak_a),
        )
    return current
