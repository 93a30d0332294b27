"""Columns of a weld list: what they are called, and what the words in them mean."""

from __future__ import annotations

import re

from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.language import tr, tr_noop

COLUMNS = (
    "mark", "drawing", "revision", "part", "joint", "weld", "metal", "metal2", "thickness", "thickness2",
    "size", "positions", "count", "length", "edge", "sides", "backing", "diameter", "process", "impact",
    "hardness", "pwht", "site", "ndt", "place", "remarks",
)  # fmt: skip
"""Columns of a list, in the order that they are shown in."""
_TITLES = {
    "mark": tr_noop("Mark"),
    "drawing": tr_noop("Drawing"),
    "revision": tr_noop("Rev."),
    "part": tr_noop("Part"),
    "place": tr_noop("Location"),
    "count": tr_noop("Qty"),
    "length": tr_noop("Weld length"),
    "joint": tr_noop("Joint type"),
    "weld": tr_noop("Weld type"),
    "size": tr_noop("Size (a, z)"),
    "edge": tr_noop("Edge preparation"),
    "sides": tr_noop("Sides"),
    "backing": tr_noop("Backing"),
    "metal": tr_noop("Base metal 1"),
    "metal2": tr_noop("Base metal 2"),
    "thickness": tr_noop("Thickness 1"),
    "thickness2": tr_noop("Thickness 2"),
    "diameter": tr_noop("Outside diameter"),
    "positions": tr_noop("Positions"),
    "process": tr_noop("Process"),
    "impact": tr_noop("Impact test"),
    "hardness": tr_noop("Hardness test"),
    "pwht": tr_noop("PWHT"),
    "site": tr_noop("Site or shop"),
    "ndt": tr_noop("NDT class"),
    "remarks": tr_noop("Remarks"),
}
OWN = frozenset({"mark", "drawing", "revision", "part", "place", "count", "length", "ndt", "remarks", "site"})
"""Columns that say nothing about which procedure a joint needs."""
QUANTITIES = {
    "length": "length", "thickness": "thickness", "thickness2": "thickness", "diameter": "diameter",
    "size": "gap",
}  # fmt: skip
"""Columns of lengths, with the kind of quantity that their cells are."""
LONGEST_CELL = 400


def column_title(column: str) -> str:
    """What a column is called."""
    return tr(_TITLES[column])


def word_key(text: str) -> str:
    """A word as the table of words is searched: case, points and doubled spaces do not count."""
    return re.sub(r"[\s_]+", " ", text).strip(" .:").casefold()


@by_book(1)
def _table_words() -> dict[str, dict[str, str]]:
    found: dict[str, dict[str, str]] = {}
    for row in load_table("welding.weldlist", "list_words").rows:
        of, _, means = row["means"].partition(".")
        own = {} if of == "column" else {means: means}
        found.setdefault(of, {}).update({word_key(one): means for one in row["words"]} | own)
    return found


def words(of: str) -> dict[str, str]:
    """What the words of a column mean; ``column`` gives the words of headings."""
    return _table_words()[of]
