"""Tensile tests: the section, the strength, and what it has to reach."""

from __future__ import annotations

import math

from welding.documents.record import TensileTest
from welding.glossary.values import in_words
from welding.language import tr
from welding.quantities.writing import System, quantity_text
from welding.testing.limits import Limit
from welding.testing.verdict import Judged, Point

MM_PER_INCH = 25.4
_AGREE = 0.02
"""How far a stated strength may be from load over section before it is asked (common practice: 2 %)."""


def section_mm2(test: TensileTest) -> float | None:
    """Section of a specimen [mm²]: flat, round or a whole tube; ``None`` while a dimension is missing.

    Example:
        >>> section_mm2(TensileTest(kind="transverse-tensile", specimen="T", width_mm=25, thickness_mm=20))
        500.0
    """
    if test.diameter_mm is not None:
        return math.pi * test.diameter_mm**2 / 4
    if test.outside_diameter_mm is not None and test.thickness_mm is not None:
        inside = test.outside_diameter_mm - 2 * test.thickness_mm
        return math.pi * (test.outside_diameter_mm**2 - max(inside, 0.0) ** 2) / 4
    if test.width_mm is not None and test.thickness_mm is not None:
        return float(test.width_mm * test.thickness_mm)
    return None


def strength_mpa(test: TensileTest) -> float | None:
    """Strength [MPa]: greatest load over section, else as stated."""
    area = section_mm2(test)
    if test.max_load_n is not None and area:
        return test.max_load_n / area
    return test.tensile_mpa


def judge_tensile(
    test: TensileTest,
    required: Limit,
    lacks: str,
    what: str,
    system: System,
    plate_mm: float | None,
) -> Judged:
    """Judge a tensile test.

    Args:
        test: The test.
        required: Least strength [MPa]; ``None`` while it is not known.
        lacks: What is missing then.
        what: Whose strength that is.
        system: Unit system of the words.
        plate_mm: Thickness of the piece, against which the specimen's is held.
    """
    strange = inches_for_mm(test.thickness_mm, plate_mm)
    if strange:
        return Judged(
            points=(
                Point(
                    None,
                    tr("specimen of the wall's thickness"),
                    f"{test.thickness_mm:g} mm",
                    required.rule,
                    (),
                    strange,
                ),
            )
        )
    found = strength_mpa(test)
    criterion = tr("tensile strength at least {what}", what=what)
    if required.value is not None:
        criterion = tr(
            "tensile strength at least {quantity_text}, {what}",
            quantity_text=quantity_text(required.value, "strength", system),
            what=what,
        )
    if found is None:
        need = tr("the strength, or width, thickness and maximum load")
        return Judged(points=(Point(None, criterion, "", required.rule, required.unchecked, need),))
    words = quantity_text(found, "strength", system)
    if test.fracture:
        words += tr(", broke in the {replace}", replace=in_words(test.fracture))
    if (
        test.tensile_mpa is not None
        and test.max_load_n is not None
        and section_mm2(test)
        and abs(found - test.tensile_mpa) > _AGREE * found
    ):
        twice = tr(
            "load over section gives {found:.0f} MPa and {tensile_mpa:g} MPa is stated: correct one",
            found=found,
            tensile_mpa=test.tensile_mpa,
        )
        return Judged(points=(Point(None, criterion, words, required.rule, required.unchecked, twice),))
    if required.value is None:
        return Judged(points=(Point(None, criterion, words, required.rule, required.unchecked, lacks),))
    # Half a unit of the last place shown: a strength computed in ksi may not fail by rounding alone.
    kept = found >= required.value - 1e-6 * required.value
    return Judged(points=(Point(kept, criterion, words, required.rule, required.unchecked),))


def inches_for_mm(value_mm: float | None, plate_mm: float | None) -> str:
    """Why a specimen's thickness looks like inches typed as millimetres; empty where it does not.

    Example:
        >>> inches_for_mm(0.375, 9.5)
        'a thickness of 0.375 mm on a piece of 9.5 mm is not plausible; 0.375 in would be 9.5 mm'
    """
    if value_mm is None or plate_mm is None or value_mm > plate_mm / 10:
        return ""
    as_inch = value_mm * MM_PER_INCH
    hint = (
        tr("; {value_mm:g} in would be {as_inch:.1f} mm", value_mm=value_mm, as_inch=as_inch)
        if as_inch <= plate_mm * 1.3
        else ""
    )
    return tr(
        "a thickness of {value_mm:g} mm on a piece of {plate_mm:g} mm is not plausible{hint}",
        value_mm=value_mm,
        plate_mm=plate_mm,
        hint=hint,
    )
