"""ISO system A: which family of designations a text belongs to."""

from __future__ import annotations

import re

from welding.consumables.designations.iso_flux import cored, covered, stainless_cored, stainless_covered
from welding.consumables.designations.iso_wire import rod, stainless_wire, wire
from welding.consumables.designations.iso_words import Words
from welding.consumables.designations.model import Decoded, RefusedError
from welding.consumables.designations.text import rows
from welding.language import tr

_DOCUMENTS = "14341|17632|2560|636|14343|17633|3581|16834|18275|18276|3580|21952"
_DOCUMENT = re.compile(rf"^ISO ({_DOCUMENTS})-A[- ]?")


def system_a(text: str) -> Decoded | None:
    """Decode a designation of ISO system A.

    Returns:
        What it says; ``None`` if it has another shape.

    Raises:
        RefusedError: It has the shape and is no class.
    """
    document = _DOCUMENT.match(text)
    body = text[document.end() :] if document else text
    first = re.match(r"^([GWTEPSBL]) (.+)$", body)
    if not first:
        if document:
            raise RefusedError(
                tr("behind {strip} stands G, T, E, W, P, S, B or L", strip=document[0].strip(" -"))
            )
        return None
    letter, rest = first.groups()
    if letter == "S" and rest.startswith("AL"):
        return None
    whole = rows("iso_14343").get(rest)
    if whole and letter in "GWPSBL":
        return stainless_wire(letter, whole)
    number = rest.split(" ")[0]
    if re.fullmatch(r"\d{3}\w*", number) and number in {**rows("a5_9"), **rows("a5_22")}:
        found = next(
            (row for row in rows("iso_14343").values() if str(row.get("aws", "")).upper() == f"ER{number}"),
            None,
        )
        near = (f"{letter} {found['symbol']}",) if found and letter != "T" else ()
        raise RefusedError(
            tr("{number} is a number of AWS and of system B; system A writes the composition", number=number),
            near,
        )
    words = Words(rest)
    if letter in "TE":
        alloy = _stainless_alloy(rest)
        if alloy:
            left = Words(rest[len(alloy) :].strip())
            return (stainless_cored if letter == "T" else stainless_covered)(alloy, left)
    decoded = {"G": wire, "W": rod, "T": cored, "E": covered}.get(letter)
    return decoded(words) if decoded else None


def _stainless_alloy(rest: str) -> str | None:
    """The longest stainless composition that the text begins with."""
    fits = [symbol for symbol in rows("iso_14343") if rest == symbol or rest.startswith(f"{symbol} ")]
    return max(fits, key=len, default=None)
