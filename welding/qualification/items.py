"""A range of qualification: its items, each with what was tested, what that qualifies, and by which rule."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Literal

from welding.citation import Confidence, Provenance
from welding.codebook.table import Table
from welding.finding import Finding
from welding.ranges import Range

ItemKind = Literal["span", "set", "exact", "any", "unknown"]
WeldGroup = Literal["groove", "fillet", "cjp-groove", "pjp-groove"]


@dataclass(frozen=True, slots=True, kw_only=True)
class RuleRef:
    """Where an item's rule stands.

    Attributes:
        id: Id of the table's row, by which the code book finds it.
        document: The code.
        edition: Its year.
        clause: Clause or table.
        earlier: The number of the same table in an earlier edition, where it is known.
        provenance: How the numbers came here.
        confidence: How sure they are.
    """

    id: str
    document: str
    edition: str
    clause: str
    provenance: Provenance
    confidence: Confidence
    earlier: str = ""


def rule_of(table: Table, row: Mapping[str, Any], *columns: str, earlier: str = "") -> RuleRef:
    """The reference to a row of a table."""
    key = ("rule", row[table.key], columns, earlier)
    found: RuleRef | None = table.memo.get(key)
    if found is None:
        found = table.memo[key] = _rule(table, row, columns, earlier)
    return found


def _rule(table: Table, row: Mapping[str, Any], columns: tuple[str, ...], earlier: str) -> RuleRef:
    citation = table.citation_of(row, *columns)
    return RuleRef(
        id=f"{table.id}/{row[table.key]}",
        document=citation.document,
        edition=citation.edition,
        clause=citation.clause,
        provenance=citation.provenance,
        confidence=citation.confidence,
        earlier=earlier,
    )


def also_read(item: RangeItem, table: Table, *rows: Mapping[str, Any]) -> RangeItem:
    """An item that further rows were read for: what nobody has compared in them stands with it."""
    more = tuple(key for row in rows for key in table.unchecked_of(row))
    return replace(item, unchecked=tuple(dict.fromkeys((*item.unchecked, *more))))


@dataclass(frozen=True, slots=True, kw_only=True)
class MetalSide:
    """One member of a qualified pair: groups (whole, with sub-groups), grades, or a limit of yield."""

    groups: tuple[str, ...] = ()
    names: tuple[str, ...] = ()
    max_yield_mpa: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class MetalPair:
    """A qualified pair of base metals, in either order."""

    text: str
    first: MetalSide
    second: MetalSide


@dataclass(frozen=True, slots=True, kw_only=True)
class RangeItem:
    """One variable of a range, or its part for one process, size, role, member or weld.

    Attributes:
        variable: Name of the variable.
        kind: ``span`` (min and max, ``None`` without a limit), ``set`` (values), ``exact`` (one value),
            ``any``, or ``unknown``, with the reason.
        min: Least, in the unit of the variable's name.
        max: Greatest.
        min_open: Whether the least itself is left out.
        values: Values of a set.
        words: What values of a set are called, in the terms of the code; by the value.
        doubtful: Values on which the clause is not known to decide either way: undecided.
        open_beyond: Whether nothing is decided of what lies outside: undecided, not outside.
        pairs: Pairs of base metals behind the values.
        how: How a value is compared, where membership is not plain equality.
        tested: What was tested.
        rule: Where the rule stands.
        reason: One sentence: how the range follows from the test.
        also: A second condition that holds as well.
        unless: What lets a value outside pass: ``backing``, ``back-gouge``, ``both-sides``.
        process: Process that it holds for; ``None`` for all.
        processes: Other numbers of the same process under the code.
        filler_diameter_mm: Electrode size that was tested.
        role: Role of the passes that were tested.
        tested_passes: Numbers of the passes that were tested, where it is about some of them.
        member: Member that it holds for, 1 or 2.
        weld: Weld that it holds for: grooves, fillets, or one kind of groove.
        electrode: Which of several electrodes it holds for, the leading one being 1.
        unchecked: Rows read that nobody has compared with the printed text.
    """

    variable: str
    kind: ItemKind
    rule: RuleRef
    reason: str
    min: float | None = None
    max: float | None = None
    min_open: bool = False
    values: tuple[str, ...] = ()
    numbers: tuple[float, ...] = ()
    doubtful: tuple[str, ...] = ()
    open_beyond: bool = False
    pairs: tuple[MetalPair, ...] = ()
    how: str = ""
    tested: Range | tuple[str, ...] | None = None
    also: str = ""
    unless: tuple[str, ...] = ()
    process: str | None = None
    processes: tuple[str, ...] = ()
    filler_diameter_mm: float | None = None
    role: Literal["root", "other"] | None = None
    tested_passes: tuple[int, ...] = ()
    member: int | None = None
    weld: WeldGroup | None = None
    electrode: int | None = None
    unchecked: tuple[str, ...] = ()
    words: Mapping[str, str] = field(default_factory=dict, compare=False)

    def holds(self, value: float) -> bool:
        """Whether a number lies in the span; a relative slack of 1e-9 keeps converted ends inside."""
        slack = 1e-9 * max(1.0, abs(value))
        if self.min is not None and (
            value < self.min - slack or (self.min_open and value <= self.min + slack)
        ):
            return False
        return self.max is None or value <= self.max + slack

    def is_for(self, process: str) -> bool:
        """Whether it holds for this process."""
        return self.process is None or process == self.process or process in self.processes


@dataclass(frozen=True, slots=True, kw_only=True)
class Alternative:
    """Another line of the code that the same test meets: its items replace those of the same variable."""

    title: str
    items: tuple[RangeItem, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class QualifiedRange:
    """What one record qualifies under one code and level.

    Attributes:
        code: Code id.
        level: Level, where the code has levels.
        valid: Whether the tests are accepted; without that the range is only what it would be.
        items: The variables.
        alternatives: Other lines that the same test meets.
        findings: Why it is not valid, and what else to know.
        impact: Whether it holds where impact toughness is required.
        hardness: Whether it holds where hardness is required.
    """

    code: str
    level: int | None
    valid: bool
    items: tuple[RangeItem, ...]
    findings: tuple[Finding, ...]
    alternatives: tuple[Alternative, ...] = ()
    impact: bool = False
    hardness: bool = False
    number: str = ""

    def of(self, variable: str) -> tuple[RangeItem, ...]:
        """Items of a variable."""
        return tuple(item for item in self.items if item.variable == variable)

    def lines(self) -> Iterable[tuple[str, tuple[RangeItem, ...]]]:
        """The range's own items, then those of each alternative in its place."""
        yield "", self.items
        for other in self.alternatives:
            changed = {(item.variable, item.weld) for item in other.items}
            kept = tuple(item for item in self.items if (item.variable, item.weld) not in changed)
            yield other.title, (*kept, *other.items)
