"""Spellings: dashes, spaces, prefixes, hydrogen marks; and rows of tables by their key."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Mapping
from typing import Any

from welding.codebook.book import by_book
from welding.codebook.table import Table, load_table
from welding.consumables.designations.model import RefusedError
from welding.language import tr

PACKAGE = "welding.consumables.designations"
LONGEST = 80
_DASHES = re.compile(r"\s*[-‐‑‒–—−]\s*")
_PREFIX = re.compile(r"^(?:AWS|SFA|EN)\s+", re.IGNORECASE)
_AWS_NUMBER = re.compile(r"^A5\.\d{1,2}[A-Z]?(?:/A5\.\d{1,2}M?)?\s*[:-]?\s*", re.IGNORECASE)
_AWS_HYDROGEN = re.compile(r"(?:-|\s)?H(\d{1,2})(R)?$|(?<=\d)(R)$")


def table(name: str) -> Table:
    """One of the designations' tables."""
    return load_table(PACKAGE, name)


@by_book(512)
def rows(name: str) -> Mapping[str, Mapping[str, Any]]:
    """Rows of a table by their key in capitals: people type nI and SI as they like."""
    found = table(name)
    key = next(iter(found.rows[0]))
    return {str(row[key]).upper(): row for row in found.rows}


def normalised(text: str) -> str:
    """Capitals, one space between words, plain dashes, without the document's number in front."""
    plain = unicodedata.normalize("NFKC", text)
    clean = _DASHES.sub("-", re.sub(r"\s+", " ", plain.strip())).upper()
    clean = _PREFIX.sub("", clean)
    return _AWS_NUMBER.sub("", clean).strip()


def split_hydrogen(text: str) -> tuple[str, float | None, bool]:
    """Take AWS's hydrogen and moisture marks off: what is left, ml/100 g, whether R stands.

    Raises:
        RefusedError: The mark is one of ISO, or none at all.
    """
    match = _AWS_HYDROGEN.search(text)
    if not match:
        return text, None, False
    rest = text[: match.start()].rstrip("- ")
    if match[3]:
        return rest, None, True
    if match[1] not in ("2", "4", "8", "16"):
        iso = match[1] in ("5", "10", "15")
        raise RefusedError(
            tr(
                "H{match} is {value}; AWS has H4, H8 and H16",
                match=match[1],
                value=tr("a mark of ISO") if iso else tr("no mark"),
            ),
            (rest,),
        )
    return rest, float(match[1]), bool(match[2])


def options(values: list[str]) -> str:
    """``a, b and c``."""
    return (
        values[0]
        if len(values) == 1
        else tr("{values} and {values2}", values=", ".join(values[:-1]), values2=values[-1])
    )
