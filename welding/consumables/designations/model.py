"""What a designation says."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from welding.citation import Citation
from welding.codebook.table import Table

Shielding = Literal["gas", "self", "either", "none"]
Runs = Literal["single", "multi"]


@dataclass(frozen=True, slots=True)
class Token:
    """One part of a designation and what it means."""

    text: str
    meaning: str


@dataclass(frozen=True, slots=True)
class Sources:
    """Citations of the tables read, and the ids of those that nobody has compared with the printed text."""

    citations: tuple[Citation, ...] = ()
    unchecked: tuple[str, ...] = ()


NO_SOURCES = Sources()


@dataclass(frozen=True, slots=True, kw_only=True)
class Decoded:
    """A designation, understood or refused.

    Attributes:
        valid: Whether it is a class of its system, as far as known here.
        designation: The normalised spelling.
        reason: Why it was refused; empty where it is valid.
        suggestions: What may have been meant.
        system: Document, such as ``AWS A5.20``.
        product: covered electrode, solid wire, flux-cored wire …
        process: ISO 4063 number it is mostly used with.
        processes: Every process it is meant for.
        meaning: Its parts, in order.
        polarities: DCEP, DCEN, AC; empty where the standard names none.
        gases: Gases it was classified with, ISO 14175 groups or what the standard says.
        shielding: gas, self, either, or none (covered electrodes).
        positions: all, flat-horizontal, all-but-vertical-down, …; empty where the standard names none.
        runs: single where the class is for single-run welds only.
        tensile_mpa: Least tensile strength; ``None`` where there is none or it is not known here.
        tensile_ksi: The same as AWS prints it beside the MPa, in fives of ksi; ``None`` for ISO names.
        yield_mpa: Least yield strength, likewise.
        impact_j: Impact energy, likewise.
        impact_c: Its temperature.
        hydrogen_ml_100g: Greatest diffusible hydrogen, where the mark stands.
        low_hydrogen: Whether the covering is a low-hydrogen one; ``None`` for other products.
        thickness_max_mm: Thickness up to which the class is meant, where it has such a limit.
        notes: What else to know.
        same_as: The AWS class that an ISO symbol equals, where the two name one alloy; else empty.
        sources: The tables read.
    """

    valid: bool
    designation: str
    reason: str = ""
    suggestions: tuple[str, ...] = ()
    system: str = ""
    product: str = ""
    process: str = ""
    processes: tuple[str, ...] = ()
    meaning: tuple[Token, ...] = ()
    polarities: tuple[str, ...] = ()
    gases: tuple[str, ...] = ()
    shielding: Shielding = "none"
    positions: str = ""
    runs: Runs = "multi"
    tensile_mpa: float | None = None
    tensile_ksi: float | None = None
    yield_mpa: float | None = None
    impact_j: float | None = None
    impact_c: float | None = None
    hydrogen_ml_100g: float | None = None
    low_hydrogen: bool | None = None
    thickness_max_mm: float | None = None
    notes: tuple[str, ...] = ()
    same_as: str = ""
    sources: Sources = NO_SOURCES

    @property
    def classed(self) -> str:
        """The name that rules of alloys go by: the AWS class where an ISO symbol equals one."""
        return self.same_as or self.designation


class RefusedError(Exception):
    """The shape is known, and it is no class of it; ``near`` are spellings to look around."""

    def __init__(self, reason: str, near: tuple[str, ...] = ()) -> None:
        super().__init__(reason)
        self.reason = reason
        self.near = near


def read_from(*tables: Table) -> Sources:
    """Citations and unchecked ids of the tables that an answer was read from."""
    return Sources(
        tuple(table.citation for table in tables), tuple(key for table in tables for key in table.unchecked)
    )
