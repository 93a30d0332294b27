"""Whether a filler is what was tested: by what its class says, not by how it is written."""

from __future__ import annotations

import re

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
    valid = [one for one in known if one.valid]
    if asked.valid and how != "strength-not-up":
        same = [_same_class(one, asked) for one in valid]
        if any(one is True for one in same):
            return "complies"
        if how == "class" and any(one is None for one in same):
            return "undecided"
    if how == "class":
        return "violates"
    if not asked.valid or not valid:
        return "undecided"
    judge = {"class-or-weaker": _weaker, "strength-not-up": _not_stronger, "equal-class": _equal}[how]
    found = [judge(one, asked) for one in valid]
    if any(one is True for one in found):
        return "complies"
    return "undecided" if any(one is None for one in found) else "violates"


_MARKS = re.compile(r"[ -]?H\d{1,2}R?$|(?<=\d)R$")
_TOUGHER = ("-1", "-J", "J")


def _class_of(one: Decoded) -> str:
    """The class without marks for hydrogen and moisture, which add to it and are no part of it."""
    return _MARKS.sub("", one.designation).rstrip(" -")


def _same_class(tested: Decoded, asked: Decoded) -> bool | None:
    """Whether two designations name one class; ``None`` where it cannot be told from them.

    A tougher variant of the class tested (E7018-1 after E7018, -J) is taken, the reverse is open. Of ISO
    system A the compulsory part counts: not efficiency, positions and hydrogen; a colder impact mark is
    taken.
    """
    mine, theirs = _class_of(tested), _class_of(asked)
    if mine == theirs:
        return True
    if tested.system != asked.system:
        near = _product(tested) == _product(asked) and tested.process == asked.process
        return None if near and tested.system[:3] != asked.system[:3] else False
    if theirs in tuple(mine + mark for mark in _TOUGHER):
        return True
    if mine in tuple(theirs + mark for mark in _TOUGHER):
        return None
    if not tested.system.startswith("ISO") or tested.impact_j is None or asked.impact_j is None:
        return False
    if _compulsory(tested) != _compulsory(asked) or tested.yield_mpa != asked.yield_mpa:
        return False
    if tested.impact_c is None or asked.impact_c is None:
        return None
    return True if asked.impact_c <= tested.impact_c else None


def _product(one: Decoded) -> str:
    return one.product.removesuffix(" or rod")


def _compulsory(one: Decoded) -> tuple[str, ...]:
    """Product, alloy, covering or core, gas, wire: what of a class is neither strength, impact nor optional.

    Example:
        >>> _compulsory(decode("E 42 4 B 32 H5")), _compulsory(decode("E 42 5 B"))
        (('E', 'B'), ('E', 'B'))
    """
    words = [token.text for token in one.meaning if not re.fullmatch(r"H\d{1,2}", token.text)]
    kept = [words[0], *words[3:]]
    while len(kept) > 1 and kept[-1].isdigit():
        kept.pop()
    return tuple(kept)


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
    if _product(tested) != _product(asked) or tested.process != asked.process:
        return False
    # Classes of two documents are alike only where a table of equivalents says so, and there is none here.
    return _same_class(tested, asked) if tested.system == asked.system else None
