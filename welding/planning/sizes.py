"""Trade sizes of wire, rod and electrodes, as people say them."""

from __future__ import annotations

from welding.documents.fields import UnitColumn

_INCH = {
    0.584: ".023 in", 0.762: ".030 in", 0.889: ".035 in", 1.016: ".040 in", 1.143: ".045 in",
    1.191: "3/64 in", 1.321: ".052 in", 1.588: "1/16 in", 1.727: ".068 in", 1.984: "5/64 in",
    2.381: "3/32 in", 3.175: "1/8 in", 3.969: "5/32 in", 4.763: "3/16 in", 5.556: "7/32 in", 6.35: "1/4 in",
}  # fmt: skip
_STICK_INCH = {2.5: "3/32 in", 3.2: "1/8 in", 4.0: "5/32 in", 5.0: "3/16 in"}


def trade_size_name(diameter_mm: float, units: UnitColumn) -> str:
    """What a diameter is called in the shop; a plain number of millimetres in SI.

    Example:
        >>> trade_size_name(1.143, "us"), trade_size_name(1.2, "si")
        ('.045 in', '1.2')
    """
    if units == "us":
        for size, name in {**_INCH, **_STICK_INCH}.items():
            if abs(size - diameter_mm) <= 0.005:
                return name
    return (
        f"{diameter_mm:.1f}" if abs(diameter_mm * 10 - round(diameter_mm * 10)) < 1e-6 else f"{diameter_mm:g}"
    )
