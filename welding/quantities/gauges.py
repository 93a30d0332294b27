"""Sheet gauges. The same number means another thickness in steel, galvanised, stainless, aluminium."""

from __future__ import annotations

import re

from fluids.piping import t_from_gauge

from welding.codebook.table import load_table
from welding.errors import UnreadableError
from welding.language import tr

_METALS = {
    "steel": "steel",
    "carbon": "steel",
    "carbon steel": "steel",
    "mild steel": "steel",
    "galvanised": "galvanised",
    "galvanized": "galvanised",
    "galv": "galvanised",
    "stainless": "stainless",
    "stainless steel": "stainless",
    "aluminium": "aluminium",
    "aluminum": "aluminium",
    "alu": "aluminium",
    "copper": "copper",
}
_GAUGE = re.compile(r"^(\d{1,2})\s*(?:ga|gauge|g\.a\.)\.?(?:\s+(.+))?$", re.IGNORECASE)


def read_gauge(text: str, metal: str | None) -> tuple[float, str] | None:
    """Read "11ga", "11 gauge steel"; return thickness in mm and what was understood.

    Returns ``None`` if the text is no gauge at all. The metal may stand in the text or be given.

    Raises:
        UnreadableError: No metal is known, or the gauge is not in that metal's table.
    """
    match = _GAUGE.match(text)
    if not match:
        return None
    number, said = int(match[1]), (match[2] or metal or "").strip().lower()
    if not said:
        raise UnreadableError(
            text,
            tr(
                "gauge {number} differs by metal: add steel, galvanised, stainless or aluminium",
                number=number,
            ),
        )
    family = _METALS.get(said)
    if family is None:
        raise UnreadableError(
            text,
            tr(
                "no gauge table for {said!r}: steel, galvanised, stainless, aluminium and copper have one",
                said=said,
            ),
        )
    if family in ("aluminium", "copper"):
        # Brown & Sharpe, as fluids computes it: d = 0.005 in x 92^((36-n)/39).
        if not 0 <= number <= 36:
            raise UnreadableError(
                text, tr("gauge {number} is outside 0 to 36 for {family}", number=number, family=family)
            )
        return t_from_gauge(number, SI=True, schedule="AWG") * 1000, tr(
            "{number} gauge {family}", number=number, family=family
        )
    for row in load_table("welding.quantities", "sheet_gauges").rows:
        if row["gauge"] == number and f"{family}_in" in row:
            return row[f"{family}_in"] * 25.4, tr("{number} gauge {family}", number=number, family=family)
    raise UnreadableError(
        text,
        tr(
            "gauge {number} is not in the table for {family}: give the thickness in mm or inches",
            number=number,
            family=family,
        ),
    )
