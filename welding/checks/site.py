"""Wind at the joint: it blows the gas away, so gas processes stay out of it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from welding.checks.context import Draft
from welding.checks.filler import TIG, WIRE
from welding.checks.saying import ask
from welding.citation import COMMON_PRACTICE, Citation
from welding.finding import Finding, Obligation
from welding.language import number, tr


@dataclass(frozen=True, slots=True, kw_only=True)
class WindLimit:
    """The wind that gas-shielded welding may see [m/s], and who says so."""

    m_s: float
    obligation: Obligation
    citation: Citation
    unchecked: tuple[str, ...] = ()


PRACTICE = WindLimit(m_s=2.0, obligation="recommendation", citation=COMMON_PRACTICE)
TIG_PRACTICE = WindLimit(m_s=1.5, obligation="recommendation", citation=COMMON_PRACTICE)
"""Draughts over 1 to 2 m/s defeat a TIG cup (common practice)."""


def site_findings(draft: Draft, of_code: WindLimit | None) -> Iterator[Finding]:
    """Findings on wind; a code's own limit replaces the habit's where it has one."""
    site = draft.procedure.site
    gas = [one.process for one in draft.procedure.passes if one.process in (*WIRE, *TIG)]
    if site is None or not gas:
        return
    if site.wind_m_s is None:
        if site.place == "outdoors":
            yield ask(
                "wind.gas",
                "site.wind_m_s",
                tr("Gas-shielded welding outdoors: how much wind?"),
                tr(
                    "Process {gas} needs shelter from wind, and the wind at the joint is not stated.",
                    gas=gas[0],
                ),
                tr("State the wind inside the shelter, or choose a process without gas."),
            )
        return
    limit = of_code or (TIG_PRACTICE if any(one in TIG for one in gas) else PRACTICE)
    over = site.wind_m_s > limit.m_s * (1 + 1e-9)
    yield Finding(
        rule="wind.gas",
        verdict="violates" if over else "complies",
        obligation=limit.obligation,
        path="site.wind_m_s",
        title=tr("Too much wind for gas-shielded welding") if over else tr("Wind is low enough for gas"),
        message=tr(
            "At {wind_m_s:g} m/s the gas of process {gas} is blown away; {m_s:.2g} m/s is the most.",
            wind_m_s=site.wind_m_s,
            gas=gas[0],
            m_s=limit.m_s,
        )
        if over
        else tr(
            "{wind_m_s:g} m/s at the joint; {m_s:.2g} m/s is the most.", wind_m_s=site.wind_m_s, m_s=limit.m_s
        ),
        actual=f"{number(site.wind_m_s)} m/s",
        limit=f"{number(limit.m_s, '.2g')} m/s",
        remedy=tr("Shelter the joint, or weld with covered electrodes or self-shielded wire.")
        if over
        else "",
        citations=(limit.citation,),
        unchecked=limit.unchecked,
    )
