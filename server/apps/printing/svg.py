"""The core's drawing as SVG for paper: lines only, beads numbered, dimensions in the sheet's own units."""

from __future__ import annotations

from html import escape

from welding.joints.shapes import Drawing, Label, Line, Polygon
from welding.language import number
from welding.quantities.writing import System, number_text

_FILL = {
    "member": "url(#hatch)",
    "bead": "#fff",
    "backing": "#e8e6df",
    "strip": "#fff",
    "discard": "url(#hatch)",
    "spare": "#f4f2ec",
}


TALL = 0.62
"""Height over width from which a drawing gets more room on paper."""


def drawing_svg(drawing: Drawing, system: System) -> str:
    """Render a drawing; stroke widths follow its text height, so that any size prints alike."""
    stroke = drawing.text_mm / 14
    # A joint drawn from both sides is taller: at the usual height its figures could not be read.
    tall = " tall" if drawing.height > TALL * drawing.width else ""
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{drawing.x:.3f} {drawing.y:.3f} '
        f'{drawing.width:.3f} {drawing.height:.3f}" class="section{tall}" role="img">',
        f"<title>{escape(drawing.caption)}</title>",
        f'<defs><pattern id="hatch" width="{stroke * 9:.3f}" height="{stroke * 9:.3f}" '
        'patternUnits="userSpaceOnUse" patternTransform="rotate(45)">'
        f'<line x1="0" y1="0" x2="0" y2="{stroke * 9:.3f}" stroke="#b5b1a4" '
        f'stroke-width="{stroke * 0.8:.3f}"/></pattern></defs>',
    ]
    for shape in drawing.shapes:
        if isinstance(shape, Polygon):
            points = " ".join(f"{x:.3f},{y:.3f}" for x, y in shape.points)
            parts.append(
                f'<polygon points="{points}" fill="{_FILL[shape.role]}" stroke="#000" '
                f'stroke-width="{stroke:.3f}" stroke-linejoin="round"/>'
            )
        elif isinstance(shape, Line):
            parts += _line(shape, stroke, drawing.text_mm)
        else:
            parts.append(_label(shape, drawing.text_mm, system))
    return "".join([*parts, "</svg>"])


def _line(line: Line, stroke: float, text_mm: float) -> list[str]:
    points = " ".join(f"{x:.3f},{y:.3f}" for x, y in line.points)
    parts = [f'<polyline points="{points}" fill="none" stroke="#000" stroke-width="{stroke * 0.6:.3f}"/>']
    if line.ticks:
        half = text_mm * 0.22
        for x, y in (line.points[0], line.points[-1]):
            parts.append(
                f'<line x1="{x - half:.3f}" y1="{y + half:.3f}" x2="{x + half:.3f}" '
                f'y2="{y - half:.3f}" stroke="#000" stroke-width="{stroke:.3f}"/>'
            )
    return parts


def _label(label: Label, text_mm: float, system: System) -> str:
    x, y = label.at
    text, size, weight = label.text, text_mm, "400"
    if label.pass_number is not None:
        y, size, weight = y + 0.34 * text_mm, text_mm * 0.95, "700"
    if label.value is not None:
        shown = (
            f"{number(label.value)}°"
            if label.value_kind == "angle"
            else number_text(label.value, "gap", system)
        )
        text = f"{text} {shown}".strip()
    return (
        f'<text x="{x:.3f}" y="{y:.3f}" text-anchor="{label.anchor}" font-size="{size:.3f}" '
        f'font-weight="{weight}" font-family="Inter">{escape(text)}</text>'
    )
