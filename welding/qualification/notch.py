"""Where the notch of an impact specimen lies."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from welding.documents.record import ImpactTest
from welding.language import tr, tr_noop

NotchPlace = Literal["weld", "haz"]


@dataclass(frozen=True, slots=True)
class Notch:
    """Where a set has its notch, and in whose deposit.

    Attributes:
        place: Weld metal or heat-affected zone; ``None`` where it is not said.
        process: Process by ISO 4063, in a coupon of several; ``None`` where it is not said or there is one.
    """

    place: NotchPlace | None
    process: str | None = None


WORDS: dict[NotchPlace, str] = {"weld": tr_noop("weld metal"), "haz": tr_noop("heat-affected zone")}
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


def notches(test: ImpactTest, processes: Sequence[str]) -> tuple[Notch, ...]:
    """What a set stands for: one notch, or one for each process whose deposit its specimens hold.

    Args:
        test: The set.
        processes: Processes of the coupon; with one there is nothing to tell apart.
    """
    place = notch_place(test.location)
    said = test.processes or ((test.process,) if test.process else ())
    held = [one for one in dict.fromkeys(said) if one in processes] if len(processes) > 1 else []
    return tuple(Notch(place, one) for one in held) or (Notch(place),)


def wanted_notches(processes: Sequence[str]) -> tuple[Notch, ...]:
    """Weld metal and heat-affected zone, of each process where a coupon has several."""
    of: Sequence[str | None] = processes if len(processes) > 1 else (None,)
    return tuple(Notch(place, one) for one in of for place in WORDS)


def notch_words(notch: Notch) -> str:
    """In words.

    Example:
        >>> notch_words(Notch("haz", "141"))
        'heat-affected zone of process 141'
    """
    words = tr(WORDS[notch.place]) if notch.place else tr("weld metal or heat-affected zone")
    return tr("{words} of process {process}", words=words, process=notch.process) if notch.process else words
