"""Whether a filler is what was tested: by what its class says, not by how it is written."""

from __future__ import annotations

from welding.consumables.designations.decode import decode
from welding.consumables.designations.model import Decoded
from welding.finding import Verdict


def filler_verdict(how: str, tested: tuple[str, ...], name: str) -> Verdict:
    """Whether a filler's class is within what was tested.

    Args:
        how: ``class``, ``class-or-weaker``, ``strength-not-up`` or ``equal-class``.
        tested: Classes tested.
        name: Class asked.

    Example:
        >>> filler_verdict("strength-not-up", ("E7018",), "E6010")
        'violates'
    """
    asked = decode(name)
    key = asked.designation if asked.valid else _plain(name)
    known = [decode(one) for one in tested]
    if key in {
        one.designation if one.valid else _plain(text) for one, text in zip(known, tested, strict=True)
    }:
        return "complies"
    if how == "class":
        return "violates"
    valid = [one for one in known if one.valid]
    if not asked.valid or not valid:
        return "undecided"
    judge = {"class-or-weaker": _weaker, "strength-not-up": _not_stronger, "equal-class": _equal}[how]
    found = [judge(one, asked) for one in valid]
    if any(one is True for one in found):
        return "complies"
    return "undecided" if any(one is None for one in found) else "violates"


def _plain(text: str) -> str:
    return "".join(text.upper().split())


def _weaker(tested: Decoded, asked: Decoded) -> bool | None:
    """The same class but for a lower strength: the same document, product, and marks after the strength."""
    if tested.tensile_mpa is None or asked.tensile_mpa is None:
        return None
    return (
        tested.system == asked.system
        and tested.product == asked.product
        and asked.tensile_mpa < tested.tensile_mpa
        and _after_strength(tested.designation) == _after_strength(asked.designation)
    )


def _after_strength(designation: str) -> str:
    """What follows the strength in a class.

    Example:
        >>> _after_strength("ER70S-6"), _after_strength("E81T1-Ni1C")
        ('S-6', 'T1-NI1C')
    """
    letters = designation.upper().lstrip("ER").lstrip("0123456789")
    return letters


_LOW_SMAW = ("AWS A5.1", "AWS A5.5")


def _not_stronger(tested: Decoded, asked: Decoded) -> bool | None:
    if asked.system not in _LOW_SMAW:
        return False
    if tested.tensile_mpa is None or asked.tensile_mpa is None:
        return None
    if asked.tensile_mpa > tested.tensile_mpa:
        return False
    return not (tested.low_hydrogen and asked.low_hydrogen is False)


def _equal(tested: Decoded, asked: Decoded) -> bool | None:
    """The same strength, product and composition, whichever document names it."""
    if tested.product != asked.product or tested.process != asked.process:
        return False
    if tested.system == asked.system:
        return _without_hydrogen(tested) == _without_hydrogen(asked)
    # Classes of two documents are alike only where a table of equivalents says so, and there is none here.
    return None


def _without_hydrogen(one: Decoded) -> str:
    text = one.designation
    for mark in ("H4", "H5", "H8", "H10", "H15", "H16"):
        text = text.removesuffix(mark).rstrip(" -")
    return text
