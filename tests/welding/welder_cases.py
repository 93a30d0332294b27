"""Cases of what a person's test covers: a test, and a weld that differs from it in some words.

A change is written ``old>new``, several with a semicolon between them, ``+ words`` for words that are added.
``=`` is the same weld.
"""

from __future__ import annotations

from welding.welders.catalogue import read_designation
from welding.welders.covers import WelderCoverage, welder_covers


def changed(designation: str, changes: str) -> str:
    """The designation with its words changed."""
    if changes == "=":
        return designation
    for change in changes.split(";"):
        old, _, new = change.strip().partition(">")
        if old.startswith("+"):
            designation += f", {old[1:].strip()}"
            continue
        words = designation.split(" ")
        assert old.split(" ")[0] in words, (designation, change)
        designation = f" {designation} ".replace(f" {old} ", f" {new} " if new else " ", 1).strip()
    return designation


def answer(tested: str, asked: str) -> WelderCoverage:
    """Whether tests, with `` + `` between them, cover a weld."""
    return welder_covers([read_designation(one) for one in tested.split(" + ")], read_designation(asked))


def blocking(found: WelderCoverage) -> set[str]:
    """Variables that do not comply."""
    return {one.rule.removeprefix("welder.") for one in found.findings if one.verdict != "complies"}
