"""Cases of what a person's test covers: a test, and a weld that differs from it in some words.

A change is written ``old>new``, several with a semicolon between them, ``+ words`` for words that are added.
``=`` is the same weld.
"""

from __future__ import annotations

from hypothesis import strategies as st

from welding.welders.catalogue import read_designation
from welding.welders.covers import WelderCoverage, welder_covers

TYPES = {"111": ("A", "B", "C", "R", "RA", "RB", "RC", "RR", "13", "18"), "135": ("S",), "136": ("B", "P", "R"),
         "138": ("M",), "141": ("S",), "114": ("W", "Y"), "121": ("S",), "131": ("S",)}  # fmt: skip


@st.composite
def designations(draw):
    """Any designation of ISO 9606-1 that its grammar allows."""
    process = draw(st.sampled_from(sorted(TYPES)))
    product, weld = draw(st.sampled_from("PT")), draw(st.sampled_from(("BW", "FW")))
    size = draw(st.integers(10, 600)) / 10
    position = {
        ("P", "BW"): ("PA", "PC", "PE", "PF", "PG"),
        ("P", "FW"): ("PA", "PB", "PC", "PD", "PE", "PF", "PG"),
        ("T", "BW"): ("PA", "PC", "PH", "PJ", "H-L045", "J-L045"),
        ("T", "FW"): ("PA", "PB", "PD", "PH", "PJ"),
    }[product, weld]
    words = [
        "ISO 9606-1", process, product, weld, draw(st.sampled_from([f"FM{n}" for n in range(1, 7)])),
        draw(st.sampled_from(TYPES[process])), f"{'s' if weld == 'BW' else 't'}{size:g}",
    ]  # fmt: skip
    if product == "T":
        words.append(f"D{draw(st.integers(100, 9000)) / 10:g}")
    words.append(draw(st.sampled_from(position)))
    words.append(
        draw(
            st.sampled_from(
                ("ss nb", "ss mb", "bs", "ss gb", "ss fb", "ci") if weld == "BW" else ("sl", "ml")
            )
        )
    )
    beside = draw(
        st.sampled_from(("", ", dip transfer", ", 3 layers", ", spray transfer, 12 layers, mechanized"))
    )
    return " ".join(words) + beside


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
