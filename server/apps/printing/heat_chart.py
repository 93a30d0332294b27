"""Heat input and the temperature before each pass, as bars and points on paper."""

from __future__ import annotations

from html import escape

from welding.documents.coupon import Coupon
from welding.evaluate.coupon import CouponEvaluation
from welding.quantities.writing import System, number_text, quantity_text

WIDTH, HEIGHT, LEFT, RIGHT, TOP, FOOT = 640, 150, 46, 56, 12, 22


def heat_chart_svg(document: Coupon, log: CouponEvaluation, system: System) -> str:
    """An SVG of the log; empty while no pass has a heat input."""
    heats = {one.pass_number: one.heat_input_kj_mm for one in log.passes if one.heat_input_kj_mm is not None}
    if not heats:
        return ""
    thermal = document.procedure.thermal
    wanted = thermal.heat_input_kj_mm if thermal else None
    limit = thermal.interpass_max_c if thermal else None
    read = {one.number: one.before_c for one in document.coupon.passes if one.before_c is not None}
    numbers = sorted({*heats, *read, *(one.number for one in document.procedure.passes)})
    tallest = 1.12 * max(*heats.values(), wanted.max if wanted else 0.0, 0.1)
    hottest = 1.12 * max(100.0, limit or 0.0, *read.values())
    step = (WIDTH - LEFT - RIGHT) / len(numbers)
    flagged = {one.pass_number for one in log.passes if one.out_of_range}

    def y(share: float) -> float:
        return TOP + (1 - share) * (HEIGHT - TOP - FOOT)

    def text(x: float, at: float, words: str, anchor: str = "middle") -> str:
        return f'<text x="{x:.1f}" y="{at:.1f}" text-anchor="{anchor}" font-size="10">{escape(words)}</text>'

    parts = [f'<line x1="{LEFT}" x2="{WIDTH - RIGHT}" y1="{y(0):.1f}" y2="{y(0):.1f}" stroke="#1B2126"/>']
    if wanted:
        top, bottom = y(wanted.max / tallest), y(wanted.min / tallest)
        parts.append(
            f'<rect x="{LEFT}" y="{top:.1f}" width="{WIDTH - LEFT - RIGHT}" height="{bottom - top:.1f}" '
            'fill="#0F5C63" opacity="0.12"/>'
        )
        parts += [
            text(LEFT - 4, y(end / tallest) + 3, number_text(end, "heat_input", system), "end")
            for end in (wanted.min, wanted.max)
        ]
    points = []
    for at, number in enumerate(numbers):
        middle = LEFT + step * (at + 0.5)
        heat, width = heats.get(number), min(step * 0.56, 40)
        if heat is not None:
            edge = ' stroke="#B3361E" stroke-width="2"' if number in flagged else ""
            parts.append(
                f'<rect x="{middle - width / 2:.1f}" y="{y(heat / tallest):.1f}" width="{width:.1f}" '
                f'height="{y(0) - y(heat / tallest):.1f}" fill="#C9C5B8"{edge}/>'
            )
            parts.append(text(middle, y(heat / tallest) - 3, number_text(heat, "heat_input", system)))
        if number in read:
            points.append((middle, y(read[number] / hottest)))
        parts.append(text(middle, HEIGHT - 8, str(number)))
    if limit is not None:
        level = y(limit / hottest)
        parts.append(
            f'<line x1="{LEFT}" x2="{WIDTH - RIGHT}" y1="{level:.1f}" y2="{level:.1f}" stroke="#B3361E" '
            'stroke-dasharray="5 4"/>'
        )
        parts.append(text(WIDTH - RIGHT + 4, level + 3, quantity_text(limit, "temperature", system), "start"))
    path = " ".join(f"{x:.1f},{at:.1f}" for x, at in points)
    parts.append(f'<polyline points="{path}" fill="none" stroke="#1B2126" stroke-dasharray="2 4"/>')
    parts += [f'<circle cx="{x:.1f}" cy="{at:.1f}" r="3" fill="#fff" stroke="#1B2126"/>' for x, at in points]
    return f'<svg viewBox="0 0 {WIDTH} {HEIGHT}" xmlns="http://www.w3.org/2000/svg">{"".join(parts)}</svg>'
