"""The test plan of a coupon: what to cut, how many of each, what may replace what."""

from __future__ import annotations

from dataclasses import dataclass

from welding.documents.record import BENDS
from welding.qualification.items import RuleRef
from welding.qualification.notch import Notch

NDT = ("radiographic", "ultrasonic", "magnetic-particle", "penetrant")
BEFORE_CUTTING = ("visual", *NDT)


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanItem:
    """One kind of test.

    Attributes:
        kind: Kind of the test.
        count: How many; sets of three for impact, whole welds for what is not destructive.
        note: Dimensions, places, conditions.
        rule: Where it stands.
        alternative_to: The kind that it may replace; empty for what is asked first.
        choice: Items of the same choice replace one another, option by option.
        option: Which option of the choice; 0 is asked first.
        locations: Where the sets or sections are taken.
        notches: The same of impact sets: weld metal or heat-affected zone, of which process.
        unchecked: Rows read that nobody has compared with the printed text.
    """

    kind: str
    count: int
    rule: RuleRef
    note: str = ""
    alternative_to: str = ""
    choice: str = ""
    option: int = 0
    locations: tuple[str, ...] = ()
    notches: tuple[Notch, ...] = ()
    unchecked: tuple[str, ...] = ()

    @property
    def clause(self) -> str:
        """Clause in words."""
        return self.rule.clause

    @property
    def before_cutting(self) -> bool:
        """Whether it is done on the whole piece."""
        return self.kind in BEFORE_CUTTING


@dataclass(frozen=True, slots=True, kw_only=True)
class TestPlan:
    """The plan, and what could not be decided.

    Attributes:
        code: Code id.
        level: Level, where the code has levels.
        items: What is asked, alternatives behind what they replace.
        notes: What to know before cutting.
        open: Facts that would have to be stated to finish the plan.
    """

    __test__ = False  # no test of ours, whatever its name says

    code: str
    level: int | None
    items: tuple[PlanItem, ...]
    notes: tuple[str, ...] = ()
    open: tuple[str, ...] = ()

    @property
    def asked(self) -> tuple[PlanItem, ...]:
        """Items that are asked first."""
        return tuple(item for item in self.items if item.option == 0)

    def kinds(self) -> frozenset[str]:
        """Every kind that counts for this coupon."""
        return frozenset(item.kind for item in self.items)


def is_bend(kind: str) -> bool:
    """Whether a kind is one of the bends."""
    return kind in BENDS
