"""How far a production weld has come, from what was found on it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from welding.language import tr, tr_noop

WeldState = Literal["welded", "accepted", "rejected", "repaired", "released", "struck"]
Method = Literal["VT", "PT", "MT", "RT", "UT"]

METHODS: tuple[Method, ...] = ("VT", "PT", "MT", "RT", "UT")
_METHOD_WORDS: dict[str, str] = {
    "VT": tr_noop("Visual testing"),
    "PT": tr_noop("Penetrant testing"),
    "MT": tr_noop("Magnetic particle testing"),
    "RT": tr_noop("Radiographic testing"),
    "UT": tr_noop("Ultrasonic testing"),
}
_STATE_WORDS: dict[str, str] = {
    "welded": tr_noop("welded"),
    "accepted": tr_noop("accepted"),
    "rejected": tr_noop("rejected"),
    "repaired": tr_noop("repaired"),
    "released": tr_noop("released"),
    "struck": tr_noop("struck"),
}


def state_words(state: str) -> str:
    """How far a weld has come, in a word."""
    return tr(_STATE_WORDS[state])


def method_words(method: str) -> str:
    """What a method of testing is called (ISO 9712 and ASNT use the same letters)."""
    return tr(_METHOD_WORDS[method])


@dataclass(frozen=True, slots=True)
class Found:
    """One result on a weld: the method, and whether it was accepted."""

    method: str
    accepted: bool


def state_of(
    found: Sequence[Found], *, struck: bool = False, repaired: bool = False, released: bool = False
) -> WeldState:
    """How far a weld has come.

    Args:
        found: Results that count, in the order in which they were entered.
        struck: Whether the entry was struck.
        repaired: Whether a repair of it was welded.
        released: Whether it was released.

    Returns:
        ``accepted`` once visual testing and every other method used accepted it last. A rejected weld stays
        rejected until it is repaired, also where it was released before: nobody builds on it.
    """
    if struck:
        return "struck"
    if repaired:
        return "repaired"
    last = {one.method: one.accepted for one in found}
    if not all(last.values()):
        return "rejected"
    if released:
        return "released"
    return "accepted" if last.get("VT") else "welded"


def against_release(
    found: Sequence[Found], covered: bool, *, repaired: bool = False, released: bool = False
) -> str:
    """Why a weld cannot be released; empty where it can.

    Args:
        found: Results that count, in the order in which they were entered.
        covered: Whether its WPS covers the joint now.
        repaired: Whether a repair of it was welded.
        released: Whether it was released already.
    """
    if released:
        return tr("It is released already.")
    if repaired:
        return tr("It was repaired: the repair weld is released.")
    last = {one.method: one.accepted for one in found}
    rejected = [method for method, accepted in last.items() if not accepted]
    if rejected:
        return tr("{methods} rejected it.", methods=", ".join(rejected))
    if not last.get("VT"):
        return tr("It has not been accepted by visual testing yet.")
    if not covered:
        return tr("Its WPS does not cover the joint.")
    return ""
