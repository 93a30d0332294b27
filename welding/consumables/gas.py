"""Shielding gas as people write it: ``Ar+18CO2``, ``C25``, ``SG-AC-25``, ``trimix 90/7.5/2.5``."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from welding.errors import AmbiguousError, UnreadableError
from welding.language import tr

_NAMES = {
    "AR": "Ar",
    "ARGON": "Ar",
    "HE": "He",
    "HELIUM": "He",
    "CO2": "CO2",
    "O2": "O2",
    "OXYGEN": "O2",
    "H2": "H2",
    "HYDROGEN": "H2",
    "N2": "N2",
    "NITROGEN": "N2",
    "NO": "NO",
}
_LETTERS = {"AR": "Ar", "A": "Ar", "HE": "He", "C": "CO2", "O": "O2", "H": "H2", "N": "N2"}
_LEADING = re.compile(r"^(?:PURE|STRAIGHT|100\s*%?)\s+|\s+(?:100\s*%?|GAS)$")
# A group alone is no composition; with a mix behind it, the mix says all.
_GROUP = re.compile(
    r"^(?:ISO 14175\s*-?\s*)?(I[123]|M1[1-4]|M2[0-7]|M3[1-5]|C[12]|R[12]|N[1-5]|O1|Z|SG)(?:-(.+))?$"
)
_SINGLE = {"I1": "Ar", "I2": "He", "C1": "CO2", "N1": "N2", "O1": "O2"}
_MIX = re.compile(r"^((?:AR|HE|A|C|O|H|N)+)(?:-([\d./]+))?$")
_TRIMIX = re.compile(r"^(?:TRI-?\s?MIX|TRI)\s+([\d./]+)$")
_BARE = re.compile(r"^\d+(?:\.\d+)?(?:/\d+(?:\.\d+)?)+$")
_PART = re.compile(r"^(\d+(?:\.\d+)?)?\s*%?\s*([A-Z]+2?)\s*(\d+(?:\.\d+)?)?\s*%?$")
_NUMBERS = "(?P<numbers>\\d+(?:\\.\\d+)?(?: ?[/-] ?\\d+(?:\\.\\d+)?)+)"
_WORDS = "(?P<names>[A-Z]+2?(?:[ /+-]+[A-Z]+2?)+)"
_NUMBERS_FIRST = re.compile(rf"^{_NUMBERS} ?%? {_WORDS}$")
_NAMES_FIRST = re.compile(rf"^{_WORDS} {_NUMBERS} ?%?$")
"""Shares apart from their names, in one order: ``98/2 Ar CO2``, ``Ar/CO2 80/20``."""
_C_MIX = re.compile(r"^C\s?(\d{1,2})$")


def read_gas(text: str) -> dict[str, float]:
    """Read a gas; return % by volume by component, base gas first.

    A component without a number takes what the others leave.

    Args:
        text: What was typed, at most 80 characters.

    Returns:
        Shares that sum to 100.

    Raises:
        AmbiguousError: Numbers alone, such as ``75/25``; carries what they could mean.
        UnreadableError: Not understood, or the shares do not sum to 100 %.

    Example:
        >>> read_gas("Ar+18CO2")
        {'Ar': 82.0, 'CO2': 18.0}
    """
    if len(text) > 80:
        raise UnreadableError(text[:80], tr("{count} characters are too many for a gas", count=len(text)))
    clean = re.sub(r"\s+", " ", text.replace("₂", "2").replace(",", ".").upper()).strip()
    if not clean:
        raise UnreadableError(text, tr("nothing was typed"))
    mix = _C_MIX.match(clean)
    if mix and mix[1] not in ("1", "2"):  # C1 and C2 are groups of ISO 14175
        share = float(mix[1])
        return {"Ar": 100 - share, "CO2": share}
    group = _GROUP.match(clean)
    if group and clean != "N2":  # nitrogen, whatever the group of that name holds
        return _of_group(text, group[1], group[2])
    three = _TRIMIX.match(clean)
    if three:
        return _numbered(text, ("He", "Ar", "CO2"), three[1])
    if _BARE.match(clean.replace(" ", "")):
        raise AmbiguousError(
            text,
            tr("{strip} does not name its gases: say which of these is meant", strip=text.strip()),
            _candidates(text, clean.replace(" ", "")),
        )
    clean = _LEADING.sub("", clean)
    apart = _NUMBERS_FIRST.match(clean) or _NAMES_FIRST.match(clean)
    if apart:
        names = tuple(_NAMES.get(one, one) for one in re.split(r"[\s/+-]+", apart["names"].strip()))
        if all(name in _NAMES.values() for name in names) and len(set(names)) == len(names):
            return _numbered(text, names, apart["numbers"].replace(" ", ""))
    shares: dict[str, float | None] = {}
    for part in re.split(r"\s*[+/,;]\s*|(?<=[A-Z2%])\s+(?=\d)", clean):
        match = _PART.match(part)
        name = _NAMES.get(match[2]) if match else None
        if match is None or name is None:
            raise UnreadableError(
                text,
                tr("{lower!r} is no gas known here: Ar, He, CO2, O2, H2, N2 and NO are", lower=part.lower()),
            )
        if name in shares:
            raise UnreadableError(text, tr("{name} stands twice", name=name))
        number = match[1] or match[3]
        shares[name] = float(number) if number else None
    open_names = [name for name, share in shares.items() if share is None]
    known = sum(share for share in shares.values() if share is not None)
    if len(open_names) > 1:
        raise UnreadableError(
            text, tr("the shares of {open_names} are not said", open_names=tr(" and ").join(open_names))
        )
    if open_names:
        if known >= 100:
            raise UnreadableError(
                text, tr("{known:g} % leave nothing for {open_names}", known=known, open_names=open_names[0])
            )
        shares[open_names[0]] = 100 - known
    elif abs(known - 100) > 0.05:
        raise UnreadableError(text, tr("the shares sum to {known:g} %, not to 100 %", known=known))
    return {name: share for name, share in shares.items() if share}


def _of_group(text: str, group: str, mix: str | None) -> dict[str, float]:
    """Composition from a designation such as ``M21-ArC-18`` or ``SG-AC-25``."""
    if mix is None:
        if group in _SINGLE:
            return {_SINGLE[group]: 100.0}
        raise UnreadableError(
            text,
            tr("{group} is a group of gases and no composition: write the mix, as in Ar+18CO2", group=group),
        )
    match = _MIX.match(mix)
    if not match:
        raise UnreadableError(
            text,
            tr(
                "{lower!r} behind {group} is no mix: write it as in M21-ArC-18 or SG-AC-25",
                lower=mix.lower(),
                group=group,
            ),
        )
    names = [_LETTERS[letter] for letter in re.findall(r"AR|HE|A|C|O|H|N", match[1])]
    if match[2] is None:
        if len(names) == 1:
            return {names[0]: 100.0}
        raise UnreadableError(
            text, tr("the shares of {names} are not said", names=tr(" and ").join(names[1:]))
        )
    minor = _shares(match[2])
    if len(minor) != len(names) - 1 or len(set(names)) != len(names):
        raise UnreadableError(
            text,
            tr(
                "{count} gases and {count2} shares do not fit: the base gas has none",
                count=len(names),
                count2=len(minor),
            ),
        )
    base = 100 - sum(minor)
    if base <= 0:
        raise UnreadableError(text, tr("{sum:g} % leave nothing for {names}", sum=sum(minor), names=names[0]))
    return {names[0]: base, **dict(zip(names[1:], minor, strict=True))}


def _shares(numbers: str) -> list[float]:
    return [float(part) for part in re.split(r"[/-]", numbers) if part.strip(".")]


def _numbered(text: str, names: tuple[str, ...], numbers: str) -> dict[str, float]:
    shares = _shares(numbers)
    if len(shares) != len(names) or abs(sum(shares) - 100) > 0.05 or min(shares, default=0) <= 0:
        raise UnreadableError(
            text,
            tr(
                "{numbers} is not {count} shares that sum to 100 %, for {names}",
                numbers=numbers,
                count=len(names),
                names=", ".join(names),
            ),
        )
    return dict(zip(names, shares, strict=True))


def _candidates(text: str, numbers: str) -> tuple[str, ...]:
    """What bare numbers usually mean (common practice); only sums of 100 % mean anything."""
    shares = _shares(numbers)
    if abs(sum(shares) - 100) > 0.05 or min(shares) <= 0:
        raise UnreadableError(
            text,
            tr(
                "{strip} does not name its gases, and its shares sum to {sum:g} %",
                strip=text.strip(),
                sum=sum(shares),
            ),
        )
    if len(shares) == 2:
        pairs = [("Ar", "CO2"), ("Ar", "He"), ("He", "Ar")]
        if shares[1] <= 10:
            pairs.insert(1, ("Ar", "O2"))
            pairs.append(("Ar", "H2"))
        found = [dict(zip(pair, shares, strict=True)) for pair in pairs]
    elif len(shares) == 3:
        triples = (("He", "Ar", "CO2"), ("Ar", "He", "CO2"), ("Ar", "CO2", "O2"))
        found = [dict(zip(names, shares, strict=True)) for names in triples]
    else:
        found = []
    return tuple(dict.fromkeys(gas_text(one) for one in found))


def gas_text(components: Mapping[Any, float]) -> str:
    """Write a gas: its largest component, then the others by falling share.

    Example:
        >>> gas_text({"CO2": 18, "Ar": 82})
        'Ar+18CO2'
    """
    ordered = sorted(
        ((share, name) for name, share in components.items() if share > 0),
        key=lambda item: (-item[0], item[1]),
    )
    if not ordered:
        return ""
    return "+".join([ordered[0][1], *(f"{share:g}{name}" for share, name in ordered[1:])])
