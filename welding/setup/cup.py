"""TIG cups: the number counts sixteenths of an inch of bore."""

from __future__ import annotations

import re
from dataclasses import dataclass

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.errors import UnreadableError
from welding.language import tr
from welding.ranges import Range

MM_PER_SIXTEENTH = 25.4 / 16


@dataclass(frozen=True, slots=True, kw_only=True)
class CupReading:
    """A cup that was understood; ``hint`` says how a bore in mm was taken."""

    number: int
    bore_mm: float
    hint: str


@dataclass(frozen=True, slots=True, kw_only=True)
class CupAdvice:
    """What goes with a cup: argon flow in still air [L/min] and tungsten diameters [mm]."""

    flow_l_min: Range | None
    tungsten_mm: Range
    citation: Citation


def bore_mm(number: int) -> float:
    """Bore of a cup [mm].

    Example:
        >>> bore_mm(8)
        12.7
    """
    return number * MM_PER_SIXTEENTH


def read_cup(text: str) -> CupReading:
    """Read a cup: ``8``, ``#8``, ``no. 8``, ``12.7 mm``, ``1/2 in``.

    Raises:
        UnreadableError: Not a cup, or none of that size (2 to 30 sixteenths).

    Example:
        >>> read_cup("12 mm").number
        8
    """
    clean = re.sub(r"\s+", " ", text.strip().lower().replace(",", "."))
    numbered = re.fullmatch(r"(?:#|no\.?|number|cup)?\s*#?\s*(\d{1,3})", clean)
    if numbered:
        number = int(numbered[1])
        if not 2 <= number <= 30:
            as_mm = (
                tr(
                    "; {number} mm would be no. {number2}",
                    number=number,
                    number2=round(number / MM_PER_SIXTEENTH),
                )
                if number <= 48
                else ""
            )
            raise UnreadableError(
                text,
                tr(
                    "no cup has the number {number}: it counts sixteenths of an inch of bore{as_mm}",
                    number=number,
                    as_mm=as_mm,
                ),
            )
        return CupReading(number=number, bore_mm=bore_mm(number), hint="")
    metric = re.fullmatch(r"(\d{1,3}(?:\.\d+)?)\s*mm", clean)
    inch = re.fullmatch(r"(\d{1,2})/(\d{1,2})\s*(?:in|inch|\")?", clean)
    if metric:
        bore = float(metric[1])
    elif inch and int(inch[2]):
        bore = int(inch[1]) / int(inch[2]) * 25.4
    else:
        raise UnreadableError(
            text, tr("{strip!r} is no cup: write its number, such as 8, or its bore", strip=text.strip())
        )
    number = round(bore / MM_PER_SIXTEENTH)
    if not 2 <= number <= 30:
        raise UnreadableError(text, tr("no cup has a bore of {bore:g} mm", bore=bore))
    return CupReading(
        number=number,
        bore_mm=bore_mm(number),
        hint=tr("no. {number} has a bore of {bore_mm:.1f} mm", number=number, bore_mm=bore_mm(number)),
    )


def cup_advice(number: int, *, lens: bool) -> CupAdvice | None:
    """What goes with a cup (common practice); ``None`` for numbers that the table does not have."""
    table = load_table("welding.setup", "cups")
    row = next((one for one in table.rows if one["number"] == number), None)
    if row is None:
        return None
    flow = row.get("flow_lens_l_min" if lens else "flow_plain_l_min")
    return CupAdvice(
        flow_l_min=Range(float(flow[0]), float(flow[1])) if flow else None,
        tungsten_mm=Range(float(row["tungsten_mm"][0]), float(row["tungsten_mm"][1])),
        citation=table.citation_of(row),
    )
