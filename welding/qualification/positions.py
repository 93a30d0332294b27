"""Positions in both systems: one table, from the symbol and the progression."""

from __future__ import annotations

from welding.documents.fields import Progression

_TO_AWS: dict[str, tuple[str | None, str | None]] = {
    "PA": ("1G", "1F"), "PB": (None, "2F"), "PC": ("2G", "2F"), "PD": (None, "4F"), "PE": ("4G", "4F"),
    "PF": ("3G", "3F"), "PG": ("3G", "3F"), "PH": ("5G", "5F"), "PJ": ("5G", "5F"), "PK": ("5G", "5F"),
    "H-L045": ("6G", "5F"), "J-L045": ("6G", "5F"),
}  # fmt: skip
_TO_ISO: dict[str, tuple[str, str]] = {
    "1G": ("PA", "PA"), "2G": ("PC", "PC"), "3G": ("PF", "PG"), "4G": ("PE", "PE"), "5G": ("PH", "PJ"),
    "6G": ("H-L045", "J-L045"), "6GR": ("H-L045", "J-L045"), "1F": ("PA", "PA"), "2F": ("PB", "PB"),
    "3F": ("PF", "PG"), "4F": ("PD", "PD"), "5F": ("PH", "PJ"),
}  # fmt: skip
_DOWN = ("PG", "PJ", "J-L045")
_UP = ("PF", "PH", "H-L045")


def aws_position(position: str, weld: str) -> str | None:
    """AWS symbol of a position for a ``groove`` or a ``fillet``; ``None`` where the weld has none there.

    Example:
        >>> aws_position("PF", "groove"), aws_position("PB", "groove"), aws_position("PB", "fillet")
        ('3G', None, '2F')
    """
    if position in _TO_AWS:
        return _TO_AWS[position][0 if weld == "groove" else 1]
    fits = position.endswith("F") == (weld == "fillet")
    return position if fits else None


def iso_positions(position: str, progression: Progression | str | None) -> tuple[str, ...]:
    """ISO 6947 symbols that a position may be: two where it needs a progression and none is stated.

    Example:
        >>> iso_positions("3G", "up"), iso_positions("3G", None), iso_positions("2F", None)
        (('PF',), ('PF', 'PG'), ('PB',))
    """
    if position not in _TO_ISO:
        return (position,)
    up, down = _TO_ISO[position]
    if up == down:
        return (up,)
    if progression is None:
        return (up, down)
    return (up,) if progression == "up" else (down,)


def is_of_pipe(position: str) -> bool:
    """Whether a position is one of a fixed pipe, which plate has not.

    Example:
        >>> is_of_pipe("PH"), is_of_pipe("6G"), is_of_pipe("3G")
        (True, True, False)
    """
    return position in ("PH", "PJ", "PK", "H-L045", "J-L045", "5G", "5F", "6G", "6GR")


def progression_of(position: str, stated: str | None) -> str | None:
    """The progression that the symbol itself or the document states."""
    if position in _DOWN:
        return "down"
    return "up" if position in _UP else stated


def has_progression(position: str) -> bool:
    """Whether welding in this position runs up or down somewhere."""
    return position in (*_DOWN, *_UP, "PK", "3G", "3F", "5G", "5F", "6G", "6GR")
