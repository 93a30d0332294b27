"""The document *qualification record*: a coupon as welded, and what its specimens showed."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.coupon import Coupon, CouponPiece, Person
from welding.documents.procedure import Procedure
from welding.language import tr

Outcome = Literal["accepted", "rejected"]
SizeMm = Annotated[float, Field(gt=0, le=2000)]
FlawMm = Annotated[float, Field(ge=0, le=500)]
Openings = Annotated[tuple[FlawMm, ...], Field(max_length=60)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Discarded:
    """A specimen that does not count, and why."""

    reason: Annotated[f.Line, Field(min_length=1)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Specimen:
    """What every test has: its mark, when it was made, what it repeats, why it does not count.

    ``retest_of`` names the specimen that failed and that this one was cut to repeat. ``certified`` is the
    outcome that an old certificate states; it counts only where the record comes from one.
    """

    specimen: Annotated[f.Line, Field(min_length=1)]
    date: f.Day | None = None
    remarks: f.Note | None = None
    retest_of: f.Line | None = None
    discarded: Discarded | None = None
    process: f.Process | None = None
    side: Annotated[int, Field(ge=1, le=2)] | None = None
    certified: Outcome | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class VisualTest(Specimen):
    """Visual examination of the whole weld: the outcome, and what was measured."""

    kind: Literal["visual"]
    outcome: Outcome | None = None
    cracks: bool | None = None
    complete_fusion: bool | None = None
    craters_filled: bool | None = None
    reinforcement_mm: FlawMm | None = None
    width_mm: SizeMm | None = None
    undercut_mm: FlawMm | None = None
    root_concavity_mm: FlawMm | None = None
    underfill_mm: FlawMm | None = None
    penetration_mm: FlawMm | None = None
    penetration_width_mm: SizeMm | None = None
    misalignment_mm: FlawMm | None = None
    legs_mm: Annotated[tuple[SizeMm, ...], Field(max_length=2)] = ()
    throat_mm: SizeMm | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class NdtTest(Specimen):
    """A non-destructive test as reported by a qualified examiner."""

    kind: Literal["radiographic", "ultrasonic", "magnetic-particle", "penetrant"]
    outcome: Outcome | None = None
    report: f.Line | None = None
    hours_after_welding: Annotated[float, Field(ge=0, le=10_000)] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class TensileTest(Specimen):
    """A tensile test: the strength, or the section and the greatest load it follows from.

    A round specimen has ``diameter_mm``; a full section of tube ``outside_diameter_mm`` and ``thickness_mm``.
    """

    kind: Literal["transverse-tensile", "all-weld-tensile"]
    width_mm: SizeMm | None = None
    thickness_mm: SizeMm | None = None
    diameter_mm: SizeMm | None = None
    outside_diameter_mm: SizeMm | None = None
    max_load_n: Annotated[float, Field(gt=0, le=1e8)] | None = None
    tensile_mpa: f.PositiveFloat | None = None
    yield_mpa: f.PositiveFloat | None = None
    elongation_percent: f.Percent | None = None
    fracture: Literal["parent", "weld", "haz", "fusion-line"] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class CornerCrack:
    """A crack that starts at an edge of a bend specimen, and what it starts from."""

    mm: FlawMm
    cause: Literal["none-seen", "slag", "fusion", "penetration", "other-flaw"] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class BendTest(Specimen):
    """A guided bend: former, angle, openings on the convex face.

    ``openings_mm`` absent says that nobody looked; an empty list that nothing opened.
    """

    kind: Literal["root-bend", "face-bend", "side-bend", "longitudinal-root-bend", "longitudinal-face-bend"]
    thickness_mm: SizeMm | None = None
    width_mm: SizeMm | None = None
    former_mm: SizeMm | None = None
    angle_deg: Annotated[float, Field(ge=0, le=180)] | None = None
    openings_mm: Openings | None = None
    corner_cracks: Annotated[tuple[CornerCrack, ...], Field(max_length=20)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class MacroTest(Specimen):
    """An etched section. ``weld_size_mm`` is the size E of a partial groove weld."""

    kind: Literal["macro"]
    cracks: bool | None = None
    complete_fusion: bool | None = None
    fused_to_root: bool | None = None
    undercut_mm: FlawMm | None = None
    legs_mm: Annotated[tuple[SizeMm, ...], Field(max_length=2)] = ()
    throat_mm: SizeMm | None = None
    weld_size_mm: SizeMm | None = None
    reinforcement_mm: FlawMm | None = None
    width_mm: SizeMm | None = None
    penetration_mm: FlawMm | None = None
    penetration_width_mm: SizeMm | None = None
    misalignment_mm: FlawMm | None = None
    convexity_mm: FlawMm | None = None
    root_gap_mm: FlawMm | None = None
    pore_mm: FlawMm | None = None
    image: f.Line | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class FractureTest(Specimen):
    """A fillet break: whether it folded flat or broke, and the flaws in the broken face."""

    kind: Literal["fillet-break"]
    broke: bool | None = None
    length_mm: SizeMm | None = None
    flaws_mm: Openings | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class HardnessRow:
    """Indents of a row within one zone. ``values`` of unknown zone stay without one."""

    values: Annotated[
        tuple[Annotated[float, Field(gt=0, le=2000)] | None, ...], Field(min_length=1, max_length=60)
    ]
    line: f.Line | None = None
    zone: Literal["weld", "haz", "haz-1", "haz-2", "parent", "parent-1", "parent-2"] | None = None
    start_mm: Annotated[float, Field(ge=-500, le=500)] | None = None
    step_mm: Annotated[float, Field(gt=0, le=100)] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class HardnessTest(Specimen):
    """A hardness traverse: rows by zone, or flat ``values`` whose zone nobody noted."""

    kind: Literal["hardness-hv10"]
    rows: Annotated[tuple[HardnessRow, ...], Field(max_length=40)] = ()
    values: Annotated[tuple[Annotated[float, Field(gt=0, le=2000)] | None, ...], Field(max_length=200)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class ImpactTest(Specimen):
    """A Charpy-V set: where, at what temperature, how wide, each energy; a blank is one not yet broken.

    In a coupon of several processes ``processes`` are those whose deposit the specimens hold (ISO 4063);
    without them ``process`` stands for the one.
    """

    kind: Literal["impact"]
    location: f.Line | None = None
    processes: Annotated[tuple[f.Process, ...], Field(max_length=6)] = ()
    temperature_c: f.TemperatureC | None = None
    values_j: Annotated[tuple[Annotated[float, Field(ge=0, le=1000)] | None, ...], Field(max_length=6)] = ()
    width_mm: Annotated[float, Field(gt=0, le=10)] | None = None


Test = Annotated[
    VisualTest | NdtTest | TensileTest | BendTest | MacroTest | FractureTest | HardnessTest | ImpactTest,
    Field(discriminator="kind"),
]
BENDS = ("root-bend", "face-bend", "side-bend", "longitudinal-root-bend", "longitudinal-face-bend")
KINDS = (
    "visual",
    "radiographic",
    "ultrasonic",
    "magnetic-particle",
    "penetrant",
    "transverse-tensile",
    "all-weld-tensile",
    *BENDS,
    "macro",
    "fillet-break",
    "hardness-hv10",
    "impact",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class QualificationRecord:
    """A coupon with its tests.

    ``source`` is ``certificate`` where the values stand on the certificate of an old record and no run log is
    kept here; ``tested_to`` names the edition it was tested to, where that is not the procedure's code.
    """

    format: Literal["grounded-bead/qualification-record"] = "grounded-bead/qualification-record"
    version: Literal[1] = 1
    number: f.Line | None = None
    procedure: Procedure
    coupon: CouponPiece
    people: Annotated[tuple[Person, ...], Field(max_length=50)] = field(default=())
    tests: Annotated[tuple[Test, ...], Field(max_length=200)] = ()
    source: Literal["log", "certificate"] = "log"
    certificate: f.Line | None = None
    tested_to: f.Line | None = None
    tested_to_level: Annotated[int, Field(ge=1, le=2)] | None = None

    def __post_init__(self) -> None:
        seen: set[int] = set()
        for one in self.coupon.passes:
            if one.number in seen:
                raise ValueError(tr("pass {number} stands twice in the log", number=one.number))
            seen.add(one.number)
        marks: set[str] = set()
        for test in self.tests:
            if test.specimen in marks:
                raise ValueError(
                    tr("specimen {specimen} stands twice among the tests", specimen=test.specimen)
                )
            marks.add(test.specimen)
        for test in self.tests:
            if test.retest_of is not None and test.retest_of not in marks:
                raise ValueError(
                    tr(
                        "specimen {specimen} repeats {retest_of}, which is not among the tests",
                        specimen=test.specimen,
                        retest_of=test.retest_of,
                    )
                )

    @property
    def as_coupon(self) -> Coupon:
        """The same piece and log as a coupon document."""
        return Coupon(number=self.number, procedure=self.procedure, coupon=self.coupon, people=self.people)
