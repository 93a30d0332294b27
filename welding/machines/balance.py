"""AC balance dials: three conventions, one stored share of the period negative."""

from __future__ import annotations

from welding.documents.machine import BalanceDial
from welding.errors import OutOfRangeError
from welding.language import tr


def en_share_of(dial: BalanceDial, reading: float) -> float:
    """Share of the period with the electrode negative, from what the dial shows.

    Args:
        dial: The machine's convention.
        reading: What the dial shows: % for the two percent conventions, steps for the signed one.

    Raises:
        OutOfRangeError: The reading gives no share between 0 and 1.

    Example:
        >>> round(en_share_of(BalanceDial(convention="ep-percent"), 35), 3)
        0.65
    """
    if dial.convention == "signed":
        share = (dial.zero_en_share or 0.0) + (dial.step_en_share or 0.0) * reading
    else:
        share = reading / 100 if dial.convention == "en-percent" else 1 - reading / 100
    if not 0 < share < 1:
        allowed = _allowed(dial)
        raise OutOfRangeError("balance", reading, allowed)
    return share


def reading_of(dial: BalanceDial, en_share: float) -> float:
    """What the dial shows for a share negative; the inverse of ``en_share_of``.

    Example:
        >>> round(reading_of(BalanceDial(convention="ep-percent"), 0.65), 3)
        35.0
    """
    if dial.convention == "signed":
        return (en_share - (dial.zero_en_share or 0.0)) / (dial.step_en_share or 1.0)
    return 100 * en_share if dial.convention == "en-percent" else 100 * (1 - en_share)


def _allowed(dial: BalanceDial) -> str:
    if dial.convention != "signed":
        return tr("between 0 and 100 %")
    low, high = sorted((reading_of(dial, 0.0), reading_of(dial, 1.0)))
    return tr("between {low:g} and {high:g} steps", low=low, high=high)
