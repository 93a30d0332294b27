"""What a value of a document is called: ``cjp-groove`` is a CJP groove weld in AWS terms."""

from __future__ import annotations

import re

from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.language import tr, usage

_GROUP = re.compile(r"\bgroup (?=[IVX]+\b)")


@by_book(1)
def _words() -> dict[tuple[str, str], tuple[str, str]]:
    rows = load_table("welding.glossary", "values").rows
    return {(row["of"], row["value"]): (row["aws"], row["iso"]) for row in rows}


def in_words(value: str, of: str = "") -> str:
    """A value in words, in the language and the terms of the context; names and symbols stay as they are.

    Args:
        value: As it stands in a document, or a joint and its weld such as ``t fillet``.
        of: The kind of value where one word stands for several: ``backing``, ``joint``, ``test``.

    Example:
        >>> in_words("t cjp-groove"), in_words("none", "backing"), in_words("S355J2")
        ('full penetration butt weld, T joint', 'no backing', 'S355J2')
    """
    words = _words()
    found = words.get((of, value)) or words.get(("", value))
    if found:
        return tr(found[usage() == "iso"])
    joint, _, weld = value.partition(" ")
    if ("joint", joint) in words and ("", weld) in words:
        return f"{in_words(weld)}, {in_words(joint, 'joint')}"
    return _GROUP.sub(tr("group") + " ", value)
