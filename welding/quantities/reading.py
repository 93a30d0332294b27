"""Read a quantity as people type it: ``3/32``, ``.045``, ``25 cfh``, ``11ga steel``, ``2in sch40``."""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from fractions import Fraction

from welding.codebook.table import load_table
from welding.errors import UnreadableError
from welding.language import tr
from welding.quantities import units
from welding.quantities.gauges import read_gauge
from welding.quantities.kinds import DEFAULT_KIND, KINDS, Kind, kind_named
from welding.quantities.pipes import read_pipe
from welding.ranges import Range

LONGEST = 80
"""Longest text that is looked at; no quantity needs more."""

_NUMBER = re.compile(
    r"""^(?P<sign>[-+]?)
    (?:(?P<whole>\d+)(?:\s+|-)(?P<mixed_top>\d+)/(?P<mixed_bottom>\d+)
      |(?P<top>\d+)/(?P<bottom>\d+)
      |(?P<decimal>\d+(?:[.,]\d+)?|[.,]\d+)
    )\s*(?P<unit>.*)$""",
    re.VERBOSE,
)
_FEET = re.compile(r"""^(?P<feet>\d+)\s*(?:'|ft\.?)\s*-?\s*(?P<inches>\d[\d\s./-]*?)\s*(?:"|in\.?|'')$""")
_RANGE = re.compile(r"^(?P<low>.*?\d[^\d\s]{0,8}?\.?)\s*(?:–|—|\.\.\.?|\bto\b|-)\s*(?P<high>[.\d].*)$")
_PLUS_MINUS = re.compile(r"^(?P<mid>.*?\d)\s*(?:±|\+/-)\s*(?P<half>[.\d].*)$")
_RUN_OUT = re.compile(
    r"^(?P<length>.*\d.*?)\s*(?:\bin\b|/|\bper\b)\s*(?P<time>\d+(?:[.,]\d+)?)\s*s(?:ec)?\.?$"
)
_VULGAR = re.compile(r"(\d?)([¼½¾⅐-⅞])")


@dataclass(frozen=True, slots=True, kw_only=True)
class QuantityReading:
    """A quantity that was understood.

    Attributes:
        value: Magnitude in ``unit``.
        unit: Unit of the kind, as in ``KINDS``.
        kind: Name of the kind.
        understood: What was read, in the trade's words, such as ``3/32 in``.
    """

    value: float
    unit: str
    kind: str
    understood: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PipeReading:
    """A pipe by nominal size and schedule; lengths in mm."""

    outside_diameter_mm: float
    wall_mm: float
    understood: str


def read_quantity(
    text: str, *, kind: str | None = None, shown_unit: str | None = None, metal: str | None = None
) -> QuantityReading:
    """Read one quantity.

    Args:
        text: What was typed. The unit typed wins; a fraction, an inch mark or a listed inch wire
            size is inch; any other bare number is in ``shown_unit``.
        kind: What is asked for (a name of ``KINDS``); without it the unit decides.
        shown_unit: Unit label of a bare number, such as ``mm`` or ``in``; without it and without
            ``kind`` a bare number is refused.
        metal: For a gauge number that does not name its metal.

    Returns:
        The value in the kind's unit.

    Raises:
        UnreadableError: Not understood, wrong dimension, or not plausible; the reason says why.
        UnknownEntryError: There is no such kind.

    Example:
        >>> read_quantity("3/32").value
        2.38125
        >>> read_quantity("250 ipm").value
        6350.0
    """
    clean = _clean(text)
    wanted = kind_named(kind) if kind else None
    if wanted is not None and wanted.dimension == "speed" and (run := _RUN_OUT.match(clean)):
        return _run_out(text, run["length"], run["time"], wanted, shown_unit)
    if wanted is None or wanted.dimension == "length":
        gauge = read_gauge(clean, metal)
        if gauge:
            thickness = wanted or KINDS["thickness"]
            return _checked(text, gauge[0], thickness, gauge[1])
        feet = _FEET.match(clean)
        if feet:
            inches = _magnitude(text, feet["inches"].strip())[0] + 12 * int(feet["feet"])
            return _checked(text, units.convert(inches, "inch", "mm"), wanted or KINDS["length"], clean)
    number, is_fraction, unit_text = _magnitude(text, clean)
    if unit_text:
        dimension, unit = _unit(text, unit_text, wanted)
        kind_ = wanted or _default_kind(text, dimension, unit_text)
        said = f"{_plain(clean, unit_text)} {unit_text}"
        return _checked(text, units.convert(number, unit, kind_.unit), kind_, said)
    is_length = wanted is None or wanted.dimension == "length"
    if is_length and (is_fraction or _is_wire_size(clean, number)):
        return _checked(text, units.convert(number, "inch", "mm"), wanted or KINDS["length"], f"{clean} in")
    if shown_unit is None and wanted is None:
        raise UnreadableError(text, tr("{clean} has no unit: add one, such as {clean} mm", clean=clean))
    value, kind_ = _in_shown_unit(text, number, shown_unit, wanted)
    return _checked(text, value, kind_, f"{clean} {shown_unit or kind_.unit}")


def read_range(text: str, *, kind: str, shown_unit: str | None = None, metal: str | None = None) -> Range:
    """Read a range: ``165-200 A``, ``24.5 to 26 V``, ``180 ± 10``, or one value for both ends.

    A unit on the right end holds for the left end too. Arguments and errors as in
    ``read_quantity``; an inverted range is refused.

    Example:
        >>> read_range("9-10 ipm", kind="travel")
        Range(min=228.6, max=254.0)
    """
    clean = _clean(text)

    def one(part: str) -> float:
        return read_quantity(part, kind=kind, shown_unit=shown_unit, metal=metal).value

    spread = _PLUS_MINUS.match(clean)
    if spread:
        half, _, unit_text = _magnitude(text, spread["half"])
        mid = _magnitude(text, spread["mid"])[0]
        low, high = (f"{_exact(end)} {unit_text}".strip() for end in (mid - half, mid + half))
        return _range(text, one(low), one(high), kind)
    match = _RANGE.match(clean)
    if not match:
        value = one(clean)
        return Range(value, value)
    low, high = match["low"].strip(), match["high"].strip()
    if re.fullmatch(r"\d+-\d+/\d+.*", clean) and "-" in clean and " " not in clean.split("/")[0]:
        raise UnreadableError(
            text, tr("{clean} could be one number or two: write 1 1/2 for one, 1 to 1/2 for two", clean=clean)
        )
    high_unit = _magnitude(text, high)[2]
    return _range(text, one(_with_unit(low, high_unit)), one(high), kind)


def read_any(
    text: str, *, kind: str | None = None, shown_unit: str | None = None, metal: str | None = None
) -> QuantityReading | PipeReading:
    """Read a quantity, or a pipe size where a length or nothing in particular is asked for."""
    if kind in (None, "length", "diameter", "thickness"):
        pipe = read_pipe(_clean(text))
        if pipe:
            return PipeReading(outside_diameter_mm=pipe[0], wall_mm=pipe[1], understood=pipe[2])
    return read_quantity(text, kind=kind, shown_unit=shown_unit, metal=metal)


def _clean(text: str) -> str:
    if len(text) > LONGEST:
        raise UnreadableError(
            text[:LONGEST], tr("{count} characters are too many for a quantity", count=len(text))
        )
    spaced = _VULGAR.sub(lambda m: f"{m[1]}{' ' if m[1] else ''}{unicodedata.normalize('NFKC', m[2])}", text)
    plain = spaced.replace("⁄", "/").replace("−", "-").replace("\u00a0", " ").replace("\u202f", " ")
    plain = re.sub(r"\s+", " ", plain).strip()
    if not plain:
        raise UnreadableError(text, tr("nothing was typed"))
    return plain


def _magnitude(text: str, clean: str) -> tuple[Fraction, bool, str]:
    """Number, whether it was a fraction, and the unit text behind it."""
    match = _NUMBER.match(clean)
    if not match:
        raise UnreadableError(text, tr("{clean!r} does not start with a number", clean=clean))
    unit = match["unit"].strip()
    if unit.startswith((".", ",")) or re.match(r"[\d/]", unit):
        raise UnreadableError(text, tr("{clean!r} is not one number", clean=clean))
    sign = -1 if match["sign"] == "-" else 1
    if match["decimal"]:
        digits = match["decimal"]
        if re.fullmatch(r"[1-9]\d{0,2},\d{3}", digits):
            raise UnreadableError(
                text,
                tr("{digits} could be thousands or a decimal: write it without the comma", digits=digits),
            )
        return sign * Fraction(digits.replace(",", ".")), False, unit
    top, bottom = (
        (match["mixed_top"], match["mixed_bottom"]) if match["whole"] else (match["top"], match["bottom"])
    )
    if int(bottom) == 0:
        raise UnreadableError(text, tr("{clean!r} divides by zero", clean=clean))
    return sign * (int(match["whole"] or 0) + Fraction(int(top), int(bottom))), True, unit


def _unit(text: str, unit_text: str, wanted: Kind | None) -> tuple[str, str]:
    spelled = re.sub(r"\s+", "", unit_text).lower()
    if wanted and spelled == "m" and wanted.dimension != "length":
        spelled = unit_text
    found = units.SPELLINGS.get(spelled)
    if found is None:
        asked = ""
        if wanted:
            in_units = " or ".join(dict.fromkeys((wanted.unit, wanted.us_unit)))
            asked = (
                tr(" for {words}, which is in {in_units}", words=tr(wanted.words), in_units=in_units)
                if in_units
                else tr(" for {words}", words=tr(wanted.words))
            )
        raise UnreadableError(
            text, tr("{unit_text!r} is no unit known here{asked}", unit_text=unit_text, asked=asked)
        )
    if wanted and found[0] != wanted.dimension:
        raise UnreadableError(
            text,
            tr(
                "{unit_text} measures {found}; {words} is asked for, in {unit}",
                unit_text=unit_text,
                found=found[0],
                words=tr(wanted.words),
                unit=wanted.unit,
            )
            + (tr(" or {us_unit}", us_unit=wanted.us_unit) if wanted.us_unit != wanted.unit else ""),
        )
    return found


def _default_kind(text: str, dimension: str, unit_text: str) -> Kind:
    if dimension not in DEFAULT_KIND:
        raise UnreadableError(
            text,
            tr(
                "{unit_text} measures {dimension}, which no field here asks for",
                unit_text=unit_text,
                dimension=dimension,
            ),
        )
    return KINDS[DEFAULT_KIND[dimension]]


def _in_shown_unit(
    text: str, number: Fraction, shown_unit: str | None, wanted: Kind | None
) -> tuple[float, Kind]:
    if not shown_unit:  # none is shown, or the kind has none
        assert wanted is not None  # noqa: S101 - the caller checked it
        return float(number), wanted
    dimension, unit = _unit(text, shown_unit, wanted)
    kind = wanted or _default_kind(text, dimension, shown_unit)
    return units.convert(number, unit, kind.unit), kind


def _run_out(text: str, length: str, time: str, wanted: Kind, shown_unit: str | None) -> QuantityReading:
    """A speed said as a length in some seconds, such as wire run out: ``640 mm in 6 s``."""
    seconds = float(time.replace(",", "."))
    if seconds <= 0:
        raise UnreadableError(text, tr("a length in 0 s is no speed"))
    inch = shown_unit is not None and shown_unit.startswith("in")
    read = read_quantity(length, kind="length", shown_unit="in" if inch else "mm")
    speed = units.convert(Fraction(read.value) / Fraction(seconds) * 60, "mm/min", wanted.unit)
    return _checked(
        text, speed, wanted, tr("{understood} in {seconds:g} s", understood=read.understood, seconds=seconds)
    )


def _checked(text: str, value: float, kind: Kind, understood: str) -> QuantityReading:
    if not kind.limits.allows(value):
        raise UnreadableError(
            text,
            tr(
                "{short} {unit} is not plausible for {words}: {text} is taken",
                short=_short(value),
                unit=kind.unit,
                words=tr(kind.words),
                text=kind.limits.text,
            ),
        )
    return QuantityReading(value=value, unit=kind.unit, kind=kind.name, understood=understood)


def _range(text: str, low: float, high: float, kind: str) -> Range:
    if low > high:
        unit = kind_named(kind).unit
        raise UnreadableError(
            text,
            tr(
                "the range runs backwards: {short} is above {short2} {unit}",
                short=_short(low),
                short2=_short(high),
                unit=unit,
            ),
        )
    kind_limits = kind_named(kind).limits
    if not kind_limits.allows(low):
        raise UnreadableError(text, tr("{short} is outside {text}", short=_short(low), text=kind_limits.text))
    return Range(low, high)


def _is_wire_size(clean: str, number: Fraction) -> bool:
    if not re.fullmatch(r"0?[.]\d{3,4}", clean):
        return False
    return any(row["size_in"] == float(number) for row in load_table("welding.quantities", "wire_sizes").rows)


def _with_unit(part: str, unit: str) -> str:
    has_own = bool(_magnitude(part, part)[2])
    return part if has_own or not unit else f"{part} {unit}"


def _plain(clean: str, unit_text: str) -> str:
    return clean[: len(clean) - len(unit_text)].strip()


def _exact(value: Fraction) -> str:
    return str(value) if value.denominator in (1, 2, 4, 8, 16, 32, 64) else repr(float(value))


def _short(value: float) -> str:
    return f"{value:.6g}"
