"""The cutting drawing: where each specimen lies on the coupon, the discarded ends, the marks to stick on."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from welding.documents.record import BENDS
from welding.joints.shapes import Drawing, Label, Line, Point, Polygon, Shape
from welding.language import tr
from welding.qualification.items import RuleRef
from welding.testing.plan import PlanItem, TestPlan

_LETTERS = {
    "visual": "V",
    "radiographic": "RT",
    "ultrasonic": "UT",
    "magnetic-particle": "MT",
    "penetrant": "PT",
    "transverse-tensile": "T",
    "all-weld-tensile": "W",
    "root-bend": "R",
    "face-bend": "F",
    "side-bend": "S",
    "longitudinal-root-bend": "LR",
    "longitudinal-face-bend": "LF",
    "macro": "M",
    "fillet-break": "K",
    "hardness-hv10": "H",
    "impact": "I",
}
_WHOLE = ("V", "RT", "UT", "MT", "PT")
_ON_A_MACRO = "hardness-hv10"


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedSpecimen:
    """A specimen of the plan with the mark to stick on it."""

    mark: str
    kind: str
    location: str = ""
    processes: tuple[str, ...] = ()
    option: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Layout:
    """How a code lays specimens out.

    Attributes:
        discard_mm: Length discarded at each end of a plate.
        each_side_mm: Width of the piece on each side of the weld.
        length_mm: Least length of the piece, where the code names one.
        order: Kinds from the start of the weld to its end; ``bend`` stands for any bend.
        widths_mm: Width of a specimen's strip by kind.
        angles_deg: Places on a pipe, clockwise from the top.
        rule: Where it stands.
        unchecked: Rows read that nobody has compared with the printed text.
    """

    discard_mm: float
    each_side_mm: float
    length_mm: float | None
    order: tuple[str, ...]
    widths_mm: Mapping[str, float]
    angles_deg: tuple[float, ...]
    rule: RuleRef
    unchecked: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Strip:
    """A specimen on the piece: from where to where along the weld [mm], or at which angle on a pipe [deg]."""

    mark: str
    kind: str
    start_mm: float = 0.0
    width_mm: float = 0.0
    angle_deg: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class CuttingPlan:
    """Strips, what they need of the weld, and the drawing."""

    strips: tuple[Strip, ...]
    discard_mm: float
    needed_mm: float
    drawing: Drawing
    notes: tuple[str, ...]
    rule: RuleRef
    unchecked: tuple[str, ...]


def specimens_of(plan: TestPlan) -> tuple[PlannedSpecimen, ...]:
    """Every specimen that is asked first, with its mark."""
    found: list[PlannedSpecimen] = []
    for item in plan.asked:
        letter = _LETTERS[item.kind]
        for number in range(1, item.count + 1):
            mark = letter if letter in _WHOLE else f"{letter}{number}"
            found.append(
                PlannedSpecimen(
                    mark=mark,
                    kind=item.kind,
                    location=item.locations[number - 1] if number <= len(item.locations) else "",
                    processes=_processes(item, number),
                )
            )
    return tuple(found)


def _processes(item: PlanItem, number: int) -> tuple[str, ...]:
    process = item.notches[number - 1].process if number <= len(item.notches) else None
    return (process,) if process else ()


def cutting_plan(plan: TestPlan, layout: Layout, *, product: str, diameter_mm: float | None) -> CuttingPlan:
    """Lay the specimens out.

    Args:
        plan: The test plan.
        layout: How the code lays them out.
        product: plate or pipe.
        diameter_mm: Outside diameter of a pipe [mm].
    """
    cut = [one for one in specimens_of(plan) if _LETTERS[one.kind] not in _WHOLE and one.kind != _ON_A_MACRO]
    ordered = _in_order(cut, layout.order)
    notes = [tr("Mark the start of welding, and every specimen before it is cut.")]
    if any(one.kind == _ON_A_MACRO for one in specimens_of(plan)):
        notes.append(tr("Hardness is read on a macro section."))
    if product == "pipe" and diameter_mm:
        strips = _around(ordered, layout)
        needed = 0.0
        drawing = _pipe(strips, diameter_mm)
        notes.append(tr("Mark the top of a fixed pipe; angles run clockwise from there."))
    else:
        strips = _along(ordered, layout)
        needed = layout.discard_mm * 2 + sum(one.width_mm for one in strips)
        if layout.length_mm and needed < layout.length_mm:
            notes.append(
                tr("The code's piece is at least {length_mm:g} mm long.", length_mm=layout.length_mm)
            )
        drawing = _plate(strips, layout, max(needed, layout.length_mm or 0.0))
    return CuttingPlan(
        strips=strips,
        discard_mm=layout.discard_mm,
        needed_mm=needed,
        drawing=drawing,
        notes=tuple(notes),
        rule=layout.rule,
        unchecked=layout.unchecked,
    )


def _in_order(cut: list[PlannedSpecimen], order: tuple[str, ...]) -> list[PlannedSpecimen]:
    """By the code's order; a kind named fewer times than it has specimens shares them out."""
    slots = [_wanted(name, order.count(name), cut) for name in order]
    taken: list[PlannedSpecimen] = []
    pools = {name: [one for one in cut if _is(one, name)] for name in dict.fromkeys(order)}
    seen: dict[str, int] = {}
    for name, share in zip(order, slots, strict=True):
        index = seen.get(name, 0)
        seen[name] = index + 1
        pool = pools[name]
        start = sum(share[:index])
        taken += [one for one in pool[start : start + share[index]] if one not in taken]
    return taken + [one for one in cut if one not in taken]


def _is(one: PlannedSpecimen, name: str) -> bool:
    return one.kind == name or (name == "bend" and one.kind in BENDS)


def _wanted(name: str, times: int, cut: list[PlannedSpecimen]) -> list[int]:
    """How many specimens of a kind each of its places takes."""
    count = sum(_is(one, name) for one in cut)
    each, rest = divmod(count, times)
    return [each + (1 if index < rest else 0) for index in range(times)]


def _along(ordered: list[PlannedSpecimen], layout: Layout) -> tuple[Strip, ...]:
    at, strips = layout.discard_mm, []
    for one in ordered:
        width = layout.widths_mm.get(one.kind, layout.widths_mm.get("bend", 30.0))
        strips.append(Strip(mark=one.mark, kind=one.kind, start_mm=at, width_mm=width))
        at += width
    return tuple(strips)


def _around(ordered: list[PlannedSpecimen], layout: Layout) -> tuple[Strip, ...]:
    """On a pipe: the code's places in turn, several specimens of a place side by side."""
    angles = layout.angles_deg or (0.0,)
    step = 360.0 / max(len(ordered), 1)
    strips = []
    for index, one in enumerate(ordered):
        angle = angles[index] if len(ordered) <= len(angles) else index * step
        strips.append(Strip(mark=one.mark, kind=one.kind, angle_deg=angle))
    return tuple(strips)


def _plate(strips: tuple[Strip, ...], layout: Layout, length: float) -> Drawing:
    # Along the weld to scale; across it the piece is drawn narrower, so that the marks can be read.
    half = min(layout.each_side_mm, length * 0.24)
    text = length / 27
    shapes: list[Shape] = []
    discard = layout.discard_mm
    end = max(length - discard, strips[-1].start_mm + strips[-1].width_mm if strips else discard)
    total = end + discard
    for start, width in ((0.0, discard), (end, discard)):
        shapes.append(_box("discard", start, -half, width, 2 * half))
        shapes.append(Label(at=(start + width / 2, text * 0.3), anchor="middle", text="×"))
    last = strips[-1].start_mm + strips[-1].width_mm if strips else discard
    if end > last + 1e-6:
        shapes.append(_box("spare", last, -half, end - last, 2 * half))
    marks: list[Shape] = []
    for index, one in enumerate(strips):
        shapes.append(_box("strip", one.start_mm, -half, one.width_mm, 2 * half))
        middle = one.start_mm + one.width_mm / 2
        # Narrow strips side by side: their marks stand in three rows.
        row = half * (-0.72, -0.4, -0.08)[index % 3]
        marks.append(Label(at=(middle, row), anchor="middle", text=one.mark))
    shapes.append(Line(points=((0.0, 0.0), (total, 0.0))))
    shapes += marks
    shapes += _dimension(total, half, text)
    return Drawing(
        x=-text,
        y=-half - text,
        width=total + 2 * text,
        height=2 * half + 4.6 * text,
        text_mm=text,
        shapes=tuple(shapes),
        caption=tr(
            "Cutting plan of a plate, {count} specimens along {total:.0f} mm of weld",
            count=len(strips),
            total=total,
        ),
    )


def _dimension(total: float, half: float, text: float) -> Iterator[Shape]:
    y = half + 1.6 * text
    yield Line(points=((0.0, y), (total, y)), ticks=True)
    yield Label(at=(total / 2, y + 1.4 * text), anchor="middle", value=total, value_kind="length")


def _box(role: str, x: float, y: float, width: float, height: float) -> Polygon:
    points = ((x, y), (x + width, y), (x + width, y + height), (x, y + height))
    return Polygon(role=role, points=points)  # type: ignore[arg-type]


def _pipe(strips: tuple[Strip, ...], diameter: float) -> Drawing:
    radius = diameter / 2
    text = diameter / 14

    def at(angle: float, r: float) -> Point:
        turned = math.radians(angle)
        return r * math.sin(turned), -r * math.cos(turned)

    ring = tuple(at(angle, radius) for angle in range(0, 360, 3))
    inner = tuple(at(angle, radius * 0.82) for angle in range(0, 360, 3))
    shapes: list[Shape] = [Polygon(role="strip", points=ring), Polygon(role="spare", points=inner)]
    for one in strips:
        angle = one.angle_deg or 0.0
        shapes.append(Line(points=(at(angle, radius * 0.82), at(angle, radius)), ticks=False))
        x, y = at(angle, radius + 1.3 * text)
        shapes.append(Label(at=(x, y + 0.35 * text), anchor="middle", text=one.mark))
    shapes.append(Label(at=(0.0, -radius * 0.6), anchor="middle", text="top"))
    edge = radius + 3 * text
    return Drawing(
        x=-edge,
        y=-edge,
        width=2 * edge,
        height=2 * edge,
        text_mm=text,
        shapes=tuple(shapes),
        caption=tr(
            "Cutting plan of a pipe, {count} specimens around {diameter:g} mm",
            count=len(strips),
            diameter=diameter,
        ),
    )
