"""The document *weld list*: the joints of a job, the records at hand, what a coupon costs in this shop."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import Code
from welding.documents.record import KINDS, QualificationRecord
from welding.language import tr

Price = Annotated[float, Field(ge=0, le=1e7)]
MOST_JOINTS = 30_000


@dataclass(frozen=True, slots=True, kw_only=True)
class ListedJoint:
    """A line of the list: a weld, or ``count`` equal ones; ``joint`` has what decides about its procedure."""

    mark: f.Line
    drawing: f.Line | None = None
    revision: f.Line | None = None
    part: f.Line | None = None
    place: f.Line | None = None
    count: Annotated[int, Field(ge=1, le=100_000)] = 1
    length_mm: f.LengthMm | None = None
    site: bool = False
    ndt_class: f.Line | None = None
    remarks: f.Note | None = None
    joint: JointToWeld


@dataclass(frozen=True, slots=True, kw_only=True)
class Prices:
    """What a coupon costs, in one currency. A kind of test that is not named costs what the table says."""

    currency: f.Line = "EUR"
    hour: Price = 60.0
    plate_kg: Price = 2.5
    weld_metal_kg: Price = 8.0
    coupon: Price = 150.0
    tests: dict[f.Line, Price] = field(default_factory=dict)

    def __post_init__(self) -> None:
        unknown = sorted(set(self.tests) - set(KINDS))
        if unknown:
            raise ValueError(tr("no kind of test: {kinds}", kinds=", ".join(unknown)))


@dataclass(frozen=True, slots=True, kw_only=True)
class Shop:
    """What coupons may be made of. ``keep`` and ``without`` name records or candidates by number.

    ``most_positions`` is in how many different positions coupons are welded at most.
    """

    processes: Annotated[tuple[f.Process, ...], Field(min_length=1, max_length=12)] = ("135",)
    positions: Annotated[tuple[f.Position, ...], Field(max_length=12)] = ()
    most_positions: Annotated[int, Field(ge=1, le=12)] | None = None
    thickest_mm: f.ThicknessMm | None = None
    keep: Annotated[tuple[f.Line, ...], Field(max_length=200)] = ()
    without: Annotated[tuple[f.Line, ...], Field(max_length=200)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class WeldList:
    """The joints of a job and what there is to prove them with, all under one code."""

    format: Literal["grounded-bead/weld-list"] = "grounded-bead/weld-list"
    version: Literal[1] = 1
    job: f.Line | None = None
    code: Code
    joints: Annotated[tuple[ListedJoint, ...], Field(max_length=MOST_JOINTS)] = ()
    records: Annotated[tuple[QualificationRecord, ...], Field(max_length=500)] = ()
    shop: Shop = Shop()
    prices: Prices = Prices()

    def __post_init__(self) -> None:
        seen: set[str] = set()
        for one in self.joints:
            if one.mark in seen:
                raise ValueError(tr("mark {mark} stands twice in the list", mark=one.mark))
            seen.add(one.mark)
            own = one.joint.code
            if own is not None and (own.id, own.level) != (self.code.id, self.code.level):
                raise ValueError(
                    tr("mark {mark} names another code; a list is judged under one", mark=one.mark)
                )
