"""Heat input against the wanted window, and temperatures against one another."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from welding.checks.context import Draft
from welding.citation import COMMON_PRACTICE, Citation
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.heat.energy import travel_for_energy_mm_min
from welding.heat.passes import PassHeat
from welding.language import tr
from welding.ranges import Range

WANTED = Citation(
    document="this procedure", clause="wanted heat input", provenance="practice", confidence="high"
)


def heat_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on heat input and on temperatures, under every code."""
    thermal = draft.procedure.thermal
    window = thermal.heat_input_kj_mm if thermal else None
    by_number = {one.number: one for one in draft.procedure.passes}
    for heat in draft.heat:
        one = by_number[heat.pass_number]
        if window:
            yield _window(draft, one, heat, window)
        if heat.method == "mean-estimate":
            yield Finding(
                rule="heat-input.estimate",
                verdict="undecided",
                obligation="recommendation",
                path=f"passes.{one.number - 1}.{_why_uneven(one)}",
                title=tr("Heat input is an estimate, pass {number}", number=one.number),
                message=tr(
                    "Mean volts times mean amps misjudges a pulsed, controlled or uneven AC arc, "
                    "typically by 5 to 20 %."
                ),
                limit=tr("measured energy or power"),
                remedy=tr("Measure energy or power at the coupon."),
                citations=heat.citations,
                unchecked=heat.unchecked,
            )
    if thermal and thermal.preheat_min_c is not None and thermal.interpass_max_c is not None:
        low, high = thermal.preheat_min_c, thermal.interpass_max_c
        fits = low <= high
        yield Finding(
            rule="temperature.order",
            verdict="complies" if fits else "violates",
            path="thermal.interpass_max_c",
            title=tr("Preheat is below interpass") if fits else tr("Preheat above interpass"),
            message=tr(
                "Preheat is {low} at least, interpass {high} at most.",
                low=draft.write(low, "temperature"),
                high=draft.write(high, "temperature"),
            ),
            actual=draft.write(high, "temperature"),
            limit=draft.write(low, "temperature"),
            remedy="" if fits else tr("Raise the interpass maximum or lower the preheat."),
            citations=(COMMON_PRACTICE,),
        )


def _window(draft: Draft, one: Pass, heat: PassHeat, window: Range) -> Finding:
    unit = "heat_input"
    actual = draft.write_range(Range(heat.min_kj_mm, heat.max_kj_mm), unit)
    limit = draft.write_range(window, unit)
    holds = Finding(
        rule="heat-input.window",
        verdict="complies",
        path=f"passes.{one.number - 1}.travel_mm_min",
        title=tr("Heat input holds, pass {number}", number=one.number),
        message=tr("{actual} lies within the wanted {limit}.", actual=actual, limit=limit),
        actual=actual,
        limit=limit,
        citations=(WANTED, *heat.citations),
        unchecked=heat.unchecked,
    )
    if heat.max_kj_mm > window.max * (1 + 1e-9):
        slowest = _corner_travel(one, heat.k, window.max, top=True)
        return replace(
            holds,
            verdict="violates",
            title=tr("Heat input too high, pass {number}", number=one.number),
            message=tr(
                "{max_kj_mm} at the slow, hot corner is above the wanted {max}.",
                max_kj_mm=draft.write(heat.max_kj_mm, unit),
                max=draft.write(window.max, unit),
            ),
            remedy=tr("Travel {slowest} or faster holds it.", slowest=draft.write(slowest, "travel", "up")),
        )
    if heat.min_kj_mm < window.min * (1 - 1e-9):
        fastest = _corner_travel(one, heat.k, window.min, top=False)
        return replace(
            holds,
            verdict="violates",
            title=tr("Heat input too low, pass {number}", number=one.number),
            message=tr(
                "{min_kj_mm} at the fast, cool corner is below the wanted {min}.",
                min_kj_mm=draft.write(heat.min_kj_mm, unit),
                min=draft.write(window.min, unit),
            ),
            remedy=tr("Travel {fastest} or slower holds it.", fastest=draft.write(fastest, "travel", "down")),
        )
    return holds


def _corner_travel(one: Pass, k: float, limit_kj_mm: float, *, top: bool) -> float:
    if one.voltage_v is None or one.current_a is None:
        raise ValueError(tr("a pass with a heat input has volts and amps"))
    return travel_for_energy_mm_min(
        voltage_v=one.voltage_v.max if top else one.voltage_v.min,
        current_a=one.current_a.max if top else one.current_a.min,
        energy_kj_mm=limit_kj_mm / k,
    )


def _why_uneven(one: Pass) -> str:
    """The field that makes the power uneven."""
    if one.pulse is not None:
        return "pulse"
    return "ac" if one.ac is not None else "transfer"
