"""Where the notch of an impact specimen lies."""

from __future__ import annotations

import re
from typing import Literal

NotchPlace = Literal["weld", "haz"]
WORDS: dict[NotchPlace, str] = {"weld": "weld metal", "haz": "heat-affected zone"}
_SYMBOL = re.compile(r"^V([WH])[STX]?\b", re.IGNORECASE)
_HAZ = re.compile(r"\b(haz|heat[- ]affected|fusion|fl|coarse)\b|\bfl ?\+", re.IGNORECASE)
_WELD = re.compile(r"\b(weld|wm|centre|center|cap|root)\b", re.IGNORECASE)


def notch_place(location: str | None) -> NotchPlace | None:
    """Weld metal or heat-affected zone, from the symbol of ISO 9016 or from words; ``None`` where neither.

    Example:
        >>> [notch_place(one) for one in ("VHT 2/1", "weld centre line", "FL + 2 mm", "A")]
        ['haz', 'weld', 'haz', None]
    """
    text = (location or "").strip()
    symbol = _SYMBOL.match(text)
    if symbol:
        return "weld" if symbol[1].upper() == "W" else "haz"
    if _HAZ.search(text):
        return "haz"
    return "weld" if _WELD.search(text) else None
