"""How one clause of the prequalified rules answers, and the position and pass it is asked of."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from welding.checks.context import Draft
from welding.citation import Citation
from welding.codebook.table import Table, load_table
from welding.documents.fields import UnitColumn
from welding.documents.procedure import Pass
from welding.finding import Finding, Verdict

PACKAGE = "welding.editions.aws_d1_1_2020"
MM_PER_INCH = 25.4
SMAW, FCAW, GMAW = ("111",), ("114", "132", "136"), ("131", "133", "135", "138")
WIRE = GMAW + FCAW
SAW = ("121", "122", "124", "125", "126")
Attitude = Literal["flat", "horizontal", "vertical", "overhead"]
LETTERS: dict[str, str] = {"flat": "F", "horizontal": "H", "vertical": "V", "overhead": "OH"}


def from_clause(clause: str, confidence: Any = "high") -> Citation:
    """A clause that is not a table."""
    return Citation(
        document="AWS D1.1", edition="2020", clause=clause, provenance="memory", confidence=confidence
    )


@dataclass(frozen=True, slots=True)
class Answer:
    """What a clause says of one fact; turned into a finding in one place."""

    rule: str
    path: str
    verdict: Verdict
    title: str
    message: str
    citation: Citation
    actual: str = ""
    limit: str = ""
    remedy: str = ""
    unchecked: tuple[str, ...] = ()

    def finding(self) -> Finding:
        """As a finding of the prequalified route."""
        return Finding(
            rule=self.rule,
            verdict=self.verdict,
            path=self.path,
            title=self.title,
            message=self.message,
            actual=self.actual,
            limit=self.limit,
            remedy=self.remedy if self.verdict != "complies" else "",
            citations=(self.citation,),
            unchecked=self.unchecked,
        )


def units_of(draft: Draft) -> UnitColumn:
    """Which printed column governs."""
    return draft.procedure.code.units if draft.procedure.code else "si"


def in_column(row: Mapping[str, Any], units: UnitColumn, si: str, us: str) -> float:
    """A printed figure of a row in mm, from the column that governs."""
    return float(row[si]) if units == "si" else float(row[us]) * MM_PER_INCH


def attitudes(draft: Draft) -> list[Attitude]:
    """Every attitude of the stated positions; a fixed pipe has flat, vertical and overhead."""
    rows = {row["position"]: row for row in load_table("welding.joints", "positions").rows}
    found: list[Attitude] = []
    for position in draft.procedure.positions:
        attitude = rows[position]["attitude"]
        several: tuple[Attitude, ...] = ("flat", "vertical", "overhead")
        found += several if attitude == "several" else (attitude,)
    return list(dict.fromkeys(found))


def limit_row(limit: str, process: str, attitude: str = "", weld: str = "") -> Mapping[str, Any] | None:
    """Row of table 5.2 for a limit, a process, an attitude, a kind of weld."""
    for row in limits_table().rows:
        if (
            row["limit"] == limit
            and process in row["processes"]
            and row["attitude"] in ("", attitude)
            and row["weld"] in ("", weld)
        ):
            return row
    return None


def limits_table() -> Table:
    """Table 5.2."""
    return load_table(PACKAGE, "prequalified_limits")


def is_root(draft: Draft, one: Pass) -> bool:
    """Whether a groove's pass is a root pass: named so, or the first from the first side, however named."""
    if one.role == "root":
        return True
    first = min((each.number for each in draft.procedure.passes if each.side == 1), default=None)
    return one.side == 1 and one.number == first


def path_of(one: Pass, field: str) -> str:
    """Path of a pass's field."""
    return f"passes.{one.number - 1}.{field}"
