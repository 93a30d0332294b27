"""Designations of ISO 9606, read and written by the grammar that its parts share."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from welding.documents.codec import WELDER_WELD
from welding.documents.welder_weld import ProcessPart, WelderWeld
from welding.errors import DocumentError, UnreadableError
from welding.language import tr, tr_noop

_NUMBER = r"\d+(?:\.\d+)?"
_BACKINGS = ("ss nb", "ss mb", "ss gb", "ss fb", "ci", "bs")
_DETAILS = {"ss", "nb", "mb", "gb", "fb", "ci", "bs", "gg", "sl", "ml", "lw", "rw"}
_PIPE_POSITIONS = ("PH", "PJ", "H-L045", "J-L045")
_NOT_OF_BUTTS = ("PB", "PD")
_TRANSFERS = {
    "dip": "dip",
    "short circuit": "dip",
    "short-circuit": "dip",
    "globular": "globular",
    "spray": "spray",
    "pulsed": "pulsed",
    "pulse": "pulsed",
}
PARTS = (
    tr_noop("process"),
    tr_noop("product (P or T)"),
    tr_noop("weld type (BW or FW)"),
    tr_noop("filler group"),
    tr_noop("filler type"),
    tr_noop("thickness"),
    tr_noop("outside diameter (D)"),
    tr_noop("welding position"),
    tr_noop("weld details"),
)
"""Parts of a designation in their order, as errors call them."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Grammar:
    """What differs between the parts of the standard.

    Attributes:
        code: Id of the edition.
        short: What a designation begins with.
        types: Filler types of each process; ``nm`` for none.
        group: Pattern of a filler group or of a group of the base metal.
        group_is_metal: Whether that group is of the base metal.
        deposited: Whether a butt weld is designated by the deposited thickness ``s``; else by ``t``.
        pipe_positions: Positions of a test on a pipe, beside those of a turning pipe and of an upright one.
        two_positions_from_mm: Diameter [mm] from which one pipe may be welded in two positions: ``PH/PC``.
    """

    code: str
    short: str
    types: Callable[[], Mapping[str, tuple[str, ...]]]
    group: str
    group_is_metal: bool = False
    deposited: bool = True
    pipe_positions: tuple[str, ...] = _PIPE_POSITIONS
    two_positions_from_mm: Callable[[], float] | None = None


class _Words:
    """The words of a designation, taken one after the other."""

    def __init__(self, text: str) -> None:
        self.text = text
        self._left = text.split()

    def take(self, pattern: str, what: str) -> str:
        """The next word, which has to be this part."""
        if not self._left:
            raise self.wrong(tr("The {part} is missing.", part=tr(what)))
        if not re.fullmatch(pattern, self._left[0]):
            raise self.wrong(tr("{word!r} is no {part}.", word=self._left[0], part=tr(what)))
        return self._left.pop(0)

    def take_if(self, pattern: str) -> str | None:
        """The next word, if it is this part."""
        return self._left.pop(0) if self._left and re.fullmatch(pattern, self._left[0]) else None

    def rest(self) -> list[str]:
        """What is left."""
        return self._left

    def wrong(self, reason: str) -> UnreadableError:
        """The refusal."""
        return UnreadableError(self.text, reason)


def read(text: str, grammar: Grammar) -> WelderWeld:
    """A designation without its prefix as a weld.

    Raises:
        UnreadableError: With the part that is missing, unknown or contradicts another.
    """
    main, beside = _split(text)
    words = _Words(main)
    processes = words.take(r"\d+(?:/\d+)?", PARTS[0]).split("/")
    known = grammar.types()
    for one in processes:
        if one not in known:
            raise words.wrong(
                tr(
                    "{process} is no process of {code}; {known} are.",
                    process=one,
                    code=grammar.short,
                    known=", ".join(known),
                )
            )
    product = {"P": "plate", "T": "pipe"}[words.take("[PT]", PARTS[1])]
    weld = {"BW": "butt", "FW": "fillet"}[words.take("BW|FW", PARTS[2])]
    if len(processes) == 2 and weld == "fillet":
        raise words.wrong(tr("Two processes are designated for a butt weld only."))
    groups = _filler_groups(words, grammar)
    types = _each(
        words.take(r"(?:[A-Za-z]+|\d\d)(?:/(?:[A-Za-z]+|\d\d))?", PARTS[4]), processes, PARTS[4], words
    )
    for process, kind in zip(processes, types, strict=True):
        if kind not in known[process]:
            raise words.wrong(
                tr(
                    "Process {process} has no filler type {kind}; it has {known}.",
                    process=process,
                    kind=kind,
                    known=", ".join(known[process]),
                )
            )
    letter = "s" if weld == "butt" and grammar.deposited else "t"
    thickness, deposits = _thickness(words, letter, processes)
    diameter = _diameter(words, product)
    position = _position(words, grammar, product, weld, diameter)
    details = _details(words, weld, processes)
    parts = []
    for at, process in enumerate(processes):
        bare = types[at] == "nm"
        group = None if bare or grammar.group_is_metal else _group_at(groups, at)
        if group is None and not bare and not grammar.group_is_metal:
            raise words.wrong(tr("The {part} is missing.", part=tr(PARTS[3])))
        parts.append(
            ProcessPart(process=process, filler_group=group, filler_type=types[at], deposited_mm=deposits[at])
        )
    if grammar.group_is_metal and not groups:
        raise words.wrong(tr("The group of the base metal is missing."))
    found = WelderWeld(
        code=grammar.code,
        parts=tuple(parts),
        product=product,  # type: ignore[arg-type]
        weld=weld,  # type: ignore[arg-type]
        position=position,
        thickness_mm=thickness,
        diameter_mm=diameter,
        metal_group=groups[0] if grammar.group_is_metal else None,
        from_designation=True,
        **details,
    )
    for one in beside:
        found = _said_beside(found, one, words)
    return _checked(found, words)


def _checked(found: WelderWeld, words: _Words) -> WelderWeld:
    """The weld, if its sizes are ones that a document takes."""
    try:
        return WELDER_WELD.take(WELDER_WELD.plain(found))
    except DocumentError as error:
        raise words.wrong(str(error)) from None


def _split(text: str) -> tuple[str, list[str]]:
    """The designation itself, and what is said beside it after commas or in brackets."""
    text = re.sub(r"(?<=\d),(?=\d)", ".", text)
    beside = re.findall(r"(?<=\s)\(([^)]*)\)", text)
    text = re.sub(r"\s\([^)]*\)", " ", text)
    main, *more = (one.strip() for one in text.split(","))
    main = re.sub(r"\b([stD]) (?=\d)", r"\1", main)
    return main, [one.strip() for one in (*beside, *more) if one.strip()]


def _filler_groups(words: _Words, grammar: Grammar) -> list[str]:
    found = words.take_if(f"{grammar.group}(?:/{grammar.group})?")
    return found.split("/") if found else []


def _group_at(groups: list[str], at: int) -> str | None:
    return groups[min(at, len(groups) - 1)] if groups else None


def _each(word: str, processes: list[str], what: str, words: _Words) -> list[str]:
    """One value for each process: said once for all, or one by one."""
    found = word.split("/")
    if len(found) == 1:
        return found * len(processes)
    if len(found) != len(processes):
        raise words.wrong(tr("The {part} is said for two processes, and there is one.", part=tr(what)))
    return found


def _thickness(words: _Words, letter: str, processes: list[str]) -> tuple[float | None, list[float | None]]:
    other = "t" if letter == "s" else "s"
    if words.take_if(rf"{other}{_NUMBER}.*"):
        raise words.wrong(
            tr("A butt weld has a deposited thickness s here, and no t.")
            if letter == "s"
            else tr("The thickness is that of the material here: t, and no s.")
        )
    said = words.take(rf"{letter}{_NUMBER}(?:\({_NUMBER}/{_NUMBER}\))?", PARTS[5])
    numbers = [float(one) for one in re.findall(_NUMBER, said)]
    if letter == "t":
        return numbers[0], [None] * len(processes)
    if len(processes) == 1:
        if len(numbers) > 1:
            raise words.wrong(tr("The thickness is said for two processes, and there is one."))
        return None, [numbers[0]]
    if len(numbers) != 3:
        raise words.wrong(tr("Two processes need the thickness that each deposits, such as s12(4/8)."))
    if abs(numbers[1] + numbers[2] - numbers[0]) > 0.05:
        raise words.wrong(
            tr(
                "{first:g} and {second:g} mm do not sum to {whole:g} mm.",
                first=numbers[1],
                second=numbers[2],
                whole=numbers[0],
            )
        )
    return None, [numbers[1], numbers[2]]


def _diameter(words: _Words, product: str) -> float | None:
    if product == "pipe":
        return float(words.take(rf"D{_NUMBER}", PARTS[6])[1:])
    if words.take_if(rf"D{_NUMBER}"):
        raise words.wrong(tr("A plate (P) has no outside diameter: T is a pipe."))
    return None


def _position(words: _Words, grammar: Grammar, product: str, weld: str, diameter: float | None) -> str:
    found = words.take(r"P[A-HJ]|[HJ]-L045|P[HJ]/PC", PARTS[7])
    if "/" in found:
        least = grammar.two_positions_from_mm() if grammar.two_positions_from_mm else None
        if weld == "fillet" or least is None or diameter is None or diameter < least:
            raise words.wrong(
                tr(
                    "One pipe is welded in two positions from {least:g} mm, as a butt weld.",
                    least=least or 150,
                )
            )
    if found[:2] in ("PH", "PJ", "H-", "J-") and product == "plate":
        raise words.wrong(tr("{position} is a position of fixed pipes (T).", position=found))
    if product == "pipe" and found in ("PE", "PF", "PG") and found not in grammar.pipe_positions:
        raise words.wrong(
            tr(
                "{position} is a position of plates; a fixed pipe with its axis horizontal is in PH or PJ.",
                position=found,
            )
        )
    if weld == "butt" and found in _NOT_OF_BUTTS:
        raise words.wrong(tr("{position} is a position of fillet welds.", position=found))
    return found


def _details(words: _Words, weld: str, processes: list[str]) -> dict[str, Any]:
    left = [one for word in words.rest() for one in word.split("/")]
    unknown = [one for one in left if one not in _DETAILS]
    if unknown:
        raise words.wrong(tr("{word!r} is no {part}.", word=unknown[0], part=tr(PARTS[8])))
    backing = next((one for one in _BACKINGS if set(one.split()) <= set(left)), None)
    layers = next((one for one in ("sl", "ml") if one in left), None)
    direction = next((one for one in ("lw", "rw") if one in left), None)
    if weld == "butt" and backing is None:
        raise words.wrong(tr("A butt weld needs its detail: {known}.", known=", ".join(sorted(_BACKINGS))))
    if weld == "butt" and ({"ss", "bs"} <= set(left) or len({"nb", "mb", "gb", "fb", "ci"} & set(left)) > 1):
        raise words.wrong(tr("The weld details contradict each other."))
    if weld == "fillet":
        if layers is None:
            raise words.wrong(tr("A fillet weld needs its layers: sl or ml."))
        if backing is not None:
            raise words.wrong(tr("{backing} is a detail of butt welds.", backing=backing))
    if {"sl", "ml"} <= set(left) or {"lw", "rw"} <= set(left):
        raise words.wrong(tr("The weld details contradict each other."))
    if "311" in processes and direction is None:
        raise words.wrong(tr("Process 311 needs its direction of welding: lw or rw."))
    if "311" not in processes and direction is not None:
        raise words.wrong(tr("{direction} is a detail of process 311.", direction=direction))
    return {"backing": backing, "layers": layers, "direction": direction}


def _said_beside(weld: WelderWeld, text: str, words: _Words) -> WelderWeld:
    """The weld with one more fact that no designation has a place for."""
    said = text.lower().strip(" .")
    said = re.sub(r"^(?:welded |made )?(?:with |in )?", "", said)
    transfer = re.fullmatch(rf"({'|'.join(_TRANSFERS)})(?: transfer| arc)?", said)
    if transfer:
        mode: Any = _TRANSFERS[transfer[1]]
        return replace(weld, parts=tuple(replace(one, transfer=mode) for one in weld.parts))
    layers = re.fullmatch(r"(\d{1,3}) layers?(?: or more)?", said)
    if layers:
        return replace(weld, layer_count=int(layers[1]))
    if said in ("turning", "rotating", "fixed"):
        if weld.product != "pipe":
            raise words.wrong(tr("Only a pipe (T) turns or is fixed."))
        return replace(weld, turning=said != "fixed")
    branch = re.fullmatch(rf"branch ({_NUMBER}) ?(?:°|deg|degrees)?", said)
    if branch:
        return replace(weld, branch_deg=float(branch[1]))
    if said in ("mechanized", "mechanised"):
        return replace(weld, mechanized=True)
    if said in ("manual", "manual torch"):
        return weld
    fillet = re.fullmatch(rf"(?:supplementary )?fillet(?: (\d+) ([a-z]+))? t ?({_NUMBER})(?: mm)?", said)
    if fillet:
        own = weld.parts[0]
        part = own if not fillet[1] else replace(own, process=fillet[1], filler_type=fillet[2].upper())
        return replace(weld, fillet_too=part, fillet_too_mm=float(fillet[3]))
    raise words.wrong(
        tr(
            "{text!r} is not understood. Beside a designation may stand: dip, globular, spray or pulsed "
            "transfer; 3 layers; turning; fixed; branch 60; mechanized; fillet t12.",
            text=text,
        )
    )


def write(weld: WelderWeld, grammar: Grammar) -> str:
    """The designation of a weld; ``read`` gives back every fact of it."""
    pieces = [
        grammar.short,
        "/".join(one.process for one in weld.parts),
        "P" if weld.product == "plate" else "T",
    ]
    pieces.append("BW" if weld.weld == "butt" else "FW")
    if grammar.group_is_metal:
        pieces.append(weld.metal_group or "")
    else:
        pieces.append("/".join(dict.fromkeys(one.filler_group or "" for one in weld.parts)).strip("/"))
    pieces.append("/".join(_once([one.filler_type or "nm" for one in weld.parts])))
    pieces.append(_written_thickness(weld, grammar))
    if weld.diameter_mm is not None:
        pieces.append(f"D{weld.diameter_mm:g}")
    pieces += [weld.position, weld.backing or "", weld.layers or "", weld.direction or ""]
    return ", ".join([" ".join(one for one in pieces if one), *_beside(weld)])


def _once(values: list[str]) -> list[str]:
    return values[:1] if len(set(values)) == 1 else values


def _written_thickness(weld: WelderWeld, grammar: Grammar) -> str:
    if weld.weld == "fillet" or not grammar.deposited:
        return f"t{weld.thickness_mm:g}"
    each = [one.deposited_mm or 0 for one in weld.parts]
    if len(each) == 1:
        return f"s{each[0]:g}"
    return f"s{round(sum(each), 3):g}({each[0]:g}/{each[1]:g})"


def _beside(weld: WelderWeld) -> list[str]:
    found = []
    transfer = weld.parts[0].transfer
    if transfer:
        found.append(f"{transfer} transfer")
    if weld.layer_count is not None:
        found.append(f"{weld.layer_count} layers")
    if weld.turning is not None:
        found.append("turning" if weld.turning else "fixed")
    if weld.branch_deg is not None:
        found.append(f"branch {weld.branch_deg:g}")
    if weld.mechanized:
        found.append("mechanized")
    if weld.fillet_too is not None:
        own = weld.fillet_too == weld.parts[0]
        of = "" if own else f" {weld.fillet_too.process} {weld.fillet_too.filler_type}"
        found.append(f"fillet{of} t{weld.fillet_too_mm:g}")
    return found
