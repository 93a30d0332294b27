"""decode(text): the one door to every designation."""

from __future__ import annotations

import difflib
import re
from collections.abc import Callable
from dataclasses import replace

from welding.codebook.book import by_book
from welding.consumables.designations import (
    aws_cored,
    aws_covered,
    aws_nickel,
    aws_open,
    aws_wire,
    iso_a,
    iso_nonferrous,
    submerged,
)
from welding.consumables.designations.model import Decoded, RefusedError
from welding.consumables.designations.text import LONGEST, normalised, rows
from welding.language import tr

_FAMILIES: tuple[Callable[[str], Decoded | None], ...] = (
    submerged.aws_submerged,
    submerged.flux_class,
    submerged.iso_submerged,
    aws_open.open_classification,
    aws_cored.cored_carbon,
    aws_cored.cored_stainless,
    aws_cored.cored_alloy,
    aws_wire.steel_wire,
    aws_covered.covered_stainless,
    aws_covered.covered,
    aws_wire.stainless_wire,
    aws_wire.aluminium_wire,
    aws_wire.copper_wire,
    aws_nickel.nickel,
    iso_nonferrous.iso_nonferrous,
    aws_wire.iso_aluminium,
    iso_a.system_a,
)
_SYSTEM_B = re.compile(r"^(?:G ?49A|G ?55A|T ?49\d|T ?55\d|E ?49\d{2}|E ?55\d{2}|W ?49A|SS ?3\d\d)")
MOST_SUGGESTIONS = 4
MPA_PER_KSI = 6.894757


@by_book(4096)
def decode(text: str) -> Decoded:
    """Decode a filler designation of AWS or ISO system A.

    Args:
        text: As it was typed or printed; older spellings are taken and explained.

    Returns:
        What it says; or ``valid=False`` with the reason and with what may have been meant. Never
        raises.

    Example:
        >>> decode("E71T-1C").polarities
        ('DCEP',)
        >>> decode("E70S-6").suggestions
        ('ER70S-6',)
    """
    shown = text.strip()[:LONGEST]
    if len(text.strip()) > LONGEST:
        return _refused(
            shown, tr("{count} characters are too many for a designation", count=len(text.strip())), ()
        )
    clean = normalised(text)
    if not clean:
        return _refused(shown, tr("nothing was typed"), ())
    try:
        for family in _FAMILIES:
            found = family(clean)
            if found:
                return _with_ksi(found)
    except RefusedError as refusal:
        return _refused(shown, refusal.reason, refusal.near)
    if _SYSTEM_B.match(clean):
        return _refused(shown, tr("this looks like ISO system B, which is not known here yet"), ())
    return _refused(shown, tr("{shown} is no designation known here", shown=shown), ())


def _with_ksi(found: Decoded) -> Decoded:
    """AWS prints whole fives of ksi beside rounded MPa, and neither is a conversion of the other."""
    if found.tensile_mpa is None or not found.system.startswith("AWS"):
        return found
    return replace(found, tensile_ksi=5.0 * round(found.tensile_mpa / MPA_PER_KSI / 5))


def _refused(text: str, reason: str, near: tuple[str, ...]) -> Decoded:
    wanted = [one for one in dict.fromkeys(near) if one != text]
    valid = [one for one in wanted if _is_valid(one)]
    found = valid or difflib.get_close_matches(normalised(text), _known(), n=3, cutoff=0.72)
    suggestions = tuple(dict.fromkeys(found))[:MOST_SUGGESTIONS]
    hint = (
        tr("; did you mean {suggestions}?", suggestions=tr(" or ").join(suggestions)) if suggestions else ""
    )
    return Decoded(valid=False, designation=text, reason=reason + hint, suggestions=suggestions)


def _is_valid(text: str) -> bool:
    clean = normalised(text)
    try:
        return any(family(clean) for family in _FAMILIES)
    except RefusedError:
        return False


@by_book(8)
def _known() -> tuple[str, ...]:
    """Usual spellings, to look for what may have been meant."""
    found = [str(row["class"]) for name in ("a5_1", "a5_18", "a5_28", "a5_7") for row in rows(name).values()]
    for use, row in rows("a5_20").items():
        for position in row["position_digits"]:
            letters = ("C", "M") if row["shielding"] == "gas" else ("",)
            found += [f"E7{position}T-{use}{letter}" for letter in letters]
    found += [str(row["class"]) for row in rows("a5_11_14").values()]
    found += [
        f"{prefix} {row['symbol']}"
        for row in rows("iso_nonferrous").values()
        for prefix, column in (("S", "wire"), ("E", "electrode"))
        if row.get(column)
    ]
    found += [f"ER{alloy}" for alloy in rows("a5_9")] + [f"E{alloy}-16" for alloy in rows("a5_4")]
    found += [f"ER{alloy}" for alloy in rows("aluminium_fillers")] + [
        f"G {symbol}" for symbol in rows("iso_14343")
    ]
    found += [
        f"E{s}{c}-{row['suffix']}"
        for row in rows("a5_5").values()
        for s in row["strengths"]
        for c in row["coverings"]
    ]
    return tuple(found)
