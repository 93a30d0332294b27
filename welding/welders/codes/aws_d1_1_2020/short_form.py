"""The short form in which this program writes a test or a weld of AWS D1.1; the code has none of its own.

``AWS D1.1 SMAW F4 3G uphill plate T3/8in backing``: the person where it is no welder (``operator``,
``tack-welder``), the process, the F-number of SMAW, the position (of a test, or F, H, V, OH of a weld), the
vertical progression, plate or pipe, the weld where the position does not say it (``groove``, ``CJP``,
``PJP``, ``fillet``, ``plug``, ``TYK``), thickness ``T`` and diameter ``D`` in mm or inches, and ``backing``,
``backgouged`` or ``open-root``. Beside it: ``electrodes=2``, ``dihedral=45``, ``trained``.
"""

from __future__ import annotations

import re
from fractions import Fraction
from typing import Any

from welding.documents.codec import WELDER_WELD
from welding.documents.welder_weld import ProcessPart, WelderWeld
from welding.errors import DocumentError, UnreadableError
from welding.language import tr
from welding.welders.codes.aws_d1_1_2020.rules.basics import MM_PER_IN, table

SHORT = "AWS D1.1"
CODE = "aws-d1.1-welders:2020"
_SIZE = re.compile(r"([TD])(\d+(?:\.\d+)?|(?:\d+-)?\d+/\d+)(mm|in)")
_TEST = re.compile(r"[1-4][GF]|5G|6GR?")
_POSITIONS = ("F", "H", "V", "OH")
_GROOVES = {"groove": None, "cjp": "cjp", "pjp": "pjp", "plug": "plug", "slot": "plug", "tyk": "tyk"}
_BACKINGS = {"backing": "backing", "backgouged": "backgouged", "open-root": "open root"}


def read(text: str) -> WelderWeld:
    """The short form without its prefix as a weld.

    Raises:
        UnreadableError: A word is unknown, stands twice or contradicts another; or the process, the
            position or the F-number of SMAW is missing.
    """
    found: dict[str, Any] = {}
    said = re.sub(r"\bopen root\b", "open-root", text)
    for word in said.replace(",", " ").split():
        for name, value in _fact(text, word).items():
            if name in found and not (name == "units" and value == found[name]):
                raise UnreadableError(text, tr("{word!r} is said twice, or in two units.", word=word))
            found[name] = value
    return _weld(text, found)


def _fact(text: str, word: str) -> dict[str, Any]:
    lower = word.lower()
    size = _SIZE.fullmatch(word)
    if size:
        value = sum(float(Fraction(one)) for one in size[2].split("-"))
        name = "thickness_mm" if size[1] == "T" else "diameter_mm"
        return {
            name: round(value * (MM_PER_IN if size[3] == "in" else 1), 4),
            "units": "us" if size[3] == "in" else "si",
        }
    if word.upper() in {row["row"] for row in table("processes").rows}:
        return {"process": word.upper()}
    if re.fullmatch(r"F[1-4]", word):
        return {"filler_group": word}
    if _TEST.fullmatch(word) or word in _POSITIONS:
        return {"position": word}
    if lower in ("uphill", "downhill"):
        return {"progression": lower}
    if lower in ("plate", "pipe"):
        return {"product": lower}
    if lower in _GROOVES:
        return {"weld": "butt", "groove": _GROOVES[lower]}
    if lower == "fillet":
        return {"weld": "fillet"}
    if lower in _BACKINGS:
        return {"backing": _BACKINGS[lower]}
    if lower in ("welder", "operator", "tack-welder"):
        return {"person": lower}
    if lower == "trained":
        return {"trained": True}
    number = re.fullmatch(r"(electrodes|dihedral)=(\d+(?:\.\d+)?)", lower)
    if number:
        return (
            {"electrodes": int(float(number[2]))}
            if number[1] == "electrodes"
            else {"dihedral_deg": float(number[2])}
        )
    raise UnreadableError(
        text,
        tr(
            "{word!r} is not understood. A short form is such as: {example}",
            word=word,
            example="AWS D1.1 SMAW F4 3G uphill plate T3/8in backing",
        ),
    )


def _weld(text: str, found: dict[str, Any]) -> WelderWeld:
    process, position = found.pop("process", None), found.pop("position", None)
    if process is None:
        raise UnreadableError(text, tr("The process is missing."))
    if position is None:
        raise UnreadableError(text, tr("The position is missing."))
    group = found.pop("filler_group", None)
    needs_group = table("processes").row(process).get("f_numbers") and found.get("person") != "operator"
    if needs_group and group is None:
        raise UnreadableError(text, tr("SMAW needs the F-number of its electrode: F1 to F4."))
    if group is not None and not needs_group:
        raise UnreadableError(text, tr("F-numbers count for SMAW alone."))
    by_position = {"G": "butt", "F": "fillet"}.get(position[1:2]) if position not in _POSITIONS else None
    weld = found.pop("weld", None)
    if by_position and weld and weld != by_position and found.get("groove") != "plug":
        raise UnreadableError(text, tr("{position} is no position of that weld.", position=position))
    weld = weld or by_position
    if weld is None:
        raise UnreadableError(text, tr("Whether it is a groove weld or a fillet weld is missing."))
    of_pipe = position in ("5G", "6G", "6GR")
    product = found.pop("product", "pipe" if of_pipe or "diameter_mm" in found else "plate")
    if of_pipe and product == "plate":
        raise UnreadableError(text, tr("{position} is a position of pipe.", position=position))
    if product == "plate" and "diameter_mm" in found:
        raise UnreadableError(text, tr("A plate has no diameter."))
    kind: Any = weld
    made = WelderWeld(
        code=CODE,
        parts=(ProcessPart(process=process, filler_group=group),),
        product=product,
        weld=kind,
        position=position,
        from_designation=True,
        **found,
    )
    try:
        return WELDER_WELD.take(WELDER_WELD.plain(made))
    except DocumentError as error:
        raise UnreadableError(text, str(error)) from None


def write(weld: WelderWeld) -> str:
    """The short form of a weld; ``read`` gives back every fact of it."""
    part = weld.parts[0]
    words = [SHORT]
    if weld.person != "welder":
        words.append(weld.person)
    words += [part.process, part.filler_group or "", weld.position, weld.progression or "", weld.product]
    words.append(_weld_word(weld))
    for letter, value in (("D", weld.diameter_mm), ("T", weld.thickness_mm)):
        if value is not None:
            words.append(f"{letter}{_length(value, weld.units)}")
    words.append({"open root": "open-root"}.get(weld.backing or "", weld.backing or ""))
    if weld.electrodes is not None:
        words.append(f"electrodes={weld.electrodes}")
    if weld.dihedral_deg is not None:
        words.append(f"dihedral={weld.dihedral_deg:g}")
    if weld.trained:
        words.append("trained")
    return " ".join(one for one in words if one)


def _weld_word(weld: WelderWeld) -> str:
    if weld.weld == "fillet":
        return "" if weld.position.endswith("F") and len(weld.position) == 2 else "fillet"
    if weld.groove is not None:
        return {"tyk": "TYK", "plug": "plug"}.get(weld.groove, weld.groove.upper())
    return "" if _TEST.fullmatch(weld.position) else "groove"


def _length(value_mm: float, units: str) -> str:
    if units == "si":
        return f"{value_mm:g}mm"
    sixteenths = Fraction(round(value_mm / MM_PER_IN * 16), 16)
    if abs(float(sixteenths) * MM_PER_IN - value_mm) < 0.01:
        whole, rest = divmod(sixteenths, 1)
        if not rest:
            return f"{whole}in"
        return f"{whole}-{rest}in" if whole else f"{rest}in"
    return f"{value_mm / MM_PER_IN:.4f}".rstrip("0") + "in"
