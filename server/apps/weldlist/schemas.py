"""What the API says of weld lists."""

from __future__ import annotations

from typing import Annotated, Literal

from api.documents import CodeIn, PricesIn, ShopIn
from ninja import Schema
from pydantic import Field, StringConstraints

from welding.documents.procedure import Code
from welding.documents.weld_list import Prices, Shop
from welding.weldlist.columns import LONGEST_CELL
from welding.weldlist.grid import ListQuestion
from welding.weldlist.revision import ChangedCell
from welding.weldlist.row_reader import CellProblem

CellText = Annotated[str, StringConstraints(max_length=LONGEST_CELL)]
ColumnName = Annotated[str, StringConstraints(max_length=40)]
Cells = Annotated[dict[ColumnName, CellText], Field(max_length=40)]
ListVersion = Annotated[int, Field(ge=0, le=2_000_000_000)]


class ColumnOut(Schema):
    """A column of the list; ``own`` where it says nothing about which procedure a joint needs."""

    name: str
    title: str
    own: bool


class ListRowOut(Schema):
    """A row: its cells as written, the key of its joint type, and what is wrong."""

    id: int
    version: int
    cells: dict[str, str]
    type: str
    problems: list[CellProblem]


class WeldListOut(Schema):
    """The list of a job; ``version`` 0 where it has none yet."""

    version: int
    code: Code
    columns: list[ColumnOut]
    rows: list[ListRowOut]
    questions: list[ListQuestion]
    answers: dict[str, str]
    shop: Shop
    prices: Prices


class TypeCellOut(Schema):
    """How one record stands to a joint type, and the variables that block or are open, in words."""

    verdict: Literal["covered", "open", "blocked"]
    variables: list[str]
    names: list[str]


class JointTypeOut(Schema):
    """Equal joints, and how the records stand to them."""

    key: str
    words: str
    marks: list[str]
    welds: int
    length_mm: float | None
    verdict: Literal["covered", "open", "blocked"]
    by: list[str]
    cells: list[TypeCellOut]


class ListCoverageOut(Schema):
    """Joint types against the signed records of the job."""

    version: int
    code: Code
    records: list[str]
    types: list[JointTypeOut]
    joints: int
    unread: int


class WhyOut(Schema):
    """What one record says to a joint type."""

    record: str
    verdict: Literal["covered", "open", "blocked"]
    reasons: list[str]


class LookOut(Schema):
    """A file as it was read, before it is taken."""

    version: int
    columns: list[ColumnOut]
    headings: list[str]
    first_row: int
    mapping: dict[str, str]
    units: dict[str, str]
    questions: list[ListQuestion]
    rows: list[ListRowOut]
    joints: int
    with_problems: int
    added: int
    changed: list[ChangedJointOut]
    changed_count: int
    same: int
    gone: list[str]


class ChangedJointOut(Schema):
    """A joint that a new file changes."""

    mark: str
    cells: list[ChangedCell]


class RowChangeIn(Schema):
    """What becomes of a row: new without ``id``, removed without ``cells``."""

    id: int | None = None
    version: ListVersion = 0
    cells: Cells | None = None


class EditRowsIn(Schema):
    """Rows to change together."""

    code: CodeIn
    changes: Annotated[list[RowChangeIn], Field(min_length=1, max_length=5000)]


class ListSettingsIn(Schema):
    """The code of a list, answers that hold for every row, what the shop can weld and what it costs."""

    version: ListVersion
    code: CodeIn
    answers: Annotated[dict[CellText, CellText], Field(max_length=500)]
    shop: ShopIn
    prices: PricesIn


class WhatIfIn(Schema):
    """Coupons to keep, or to do without, to see what that costs."""

    keep: Annotated[list[CellText], Field(max_length=100)] = []
    without: Annotated[list[CellText], Field(max_length=100)] = []


class PlanIn(WhatIfIn):
    """The same, under another code than the list's own where one is named."""

    code: CodeIn | None = None


class DraftCouponsIn(Schema):
    """Coupons to draft procedures for, of a search that planned them."""

    search: int
    names: Annotated[list[CellText], Field(min_length=1, max_length=100)]


class PlannedCouponOut(Schema):
    """A coupon of the cheapest set, and what only it covers."""

    name: str
    cost: float
    covers: list[str]
    only: list[str]


class UncoveredOut(Schema):
    """A joint type that no coupon of this shop covers."""

    key: str
    words: str
    reasons: list[str]


class PlanOut(Schema):
    """The cheapest set of coupons for what the records leave open; ``types`` counts all joint types."""

    code: Code
    types: int
    gaps: int
    coupons: list[PlannedCouponOut]
    cost: float
    bound: float
    optimal: bool
    tried: int
    currency: str
    uncovered: list[UncoveredOut]


class SearchOut(Schema):
    """A search for coupons: how far it is (``done`` of ``of`` of what it is ``doing``), and what it found.

    ``current`` says whether list, records and code book are what they were when it was asked for.
    """

    id: int
    state: Literal["waiting", "running", "done", "failed", "stopped"]
    doing: str
    done: int
    of: int
    problem: str
    keep: list[str]
    without: list[str]
    current: bool
    plan: PlanOut | None


class DraftedOut(Schema):
    """A procedure that was drafted for a coupon."""

    revision_id: int
    number: str
    coupon: str


LookOut.model_rebuild()
