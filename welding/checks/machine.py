"""The chosen machine against the pass: what it delivers on its supply, for how long, and the dial."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from welding.checks.context import Draft
from welding.checks.saying import advise, ask, of_pass
from welding.citation import Citation
from welding.documents.machine import Envelope, Family, Machine
from welding.documents.procedure import Pass
from welding.errors import WeldingError
from welding.finding import Finding, Obligation, Verdict
from welding.language import number, tr
from welding.machines.dial import fit_dial
from welding.machines.duty import IEC_60974_1, WORKING_RULE, duty_at
from welding.ranges import Range

HAND_ARC_SHARE = 35.0
"""By hand the arc burns about a third of the time (common practice)."""
_WIRE = ("114", "131", "132", "133", "135", "136", "138")


def family_of(process: str) -> Family | None:
    """Which side of a machine a process uses; ``None`` for what these records do not cover."""
    if process in ("111", "112"):
        return "stick"
    if process in _WIRE:
        return "wire"
    return "tig" if process in ("141", "142", "143", "145", "146") else None


def machine_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass that names a machine."""
    for index, one in enumerate(draft.procedure.passes):
        if not one.machine:
            continue
        machine = draft.machine(one)
        path = f"passes.{index}"
        if machine is None:
            yield ask(
                "machine.known",
                f"{path}.machine",
                of_pass(tr("Machine is not on record"), one),
                tr("What {machine} delivers is not known here.", machine=one.machine),
                tr("Choose it from the library, or add it there."),
            )
            continue
        yield from _Check(draft, path, one, machine).findings()


@dataclass(frozen=True, slots=True)
class _Check:
    draft: Draft
    path: str
    one: Pass
    machine: Machine

    @property
    def _record(self) -> tuple[Citation, ...]:
        supply = self.machine.supply
        clause = tr("on {name}", name=supply.name) if supply else ""
        return (
            Citation(
                document=f"record of {self.machine.name}",
                clause=clause,
                provenance="practice",
                confidence="medium",
            ),
        )

    def findings(self) -> Iterator[Finding]:
        family, supply = family_of(self.one.process), self.machine.supply
        if family is None or supply is None or not supply.envelopes:
            return
        envelope = next((e for e in supply.envelopes if e.family == family), None)
        if envelope is None:
            words = {"stick": tr("covered electrodes"), "tig": "TIG", "wire": "wire"}[family]
            yield self._say(
                "machine.process",
                "violates",
                "machine",
                tr("Machine does not do this process"),
                tr(
                    "{name} on {name2} has no {words}.",
                    name=self.machine.name,
                    name2=supply.name,
                    words=words,
                ),
                limit=words,
                remedy=tr("Choose another machine or process."),
            )
            return
        planned = self._current()
        if planned is not None:
            yield self._within(
                "machine.current", "current_a", planned, envelope.current_a, "current", "current"
            )
        if self.one.voltage_v and envelope.voltage_v:
            yield self._within(
                "machine.voltage", "voltage_v", self.one.voltage_v, envelope.voltage_v, "voltage", "volts"
            )
        if self.one.wire_feed_m_min and envelope.wire_feed_m_min:
            yield self._within(
                "machine.feed",
                "wire_feed_m_min",
                self.one.wire_feed_m_min,
                envelope.wire_feed_m_min,
                "wire_feed",
                tr("wire feed"),
            )
        yield from self._duty(envelope)
        yield from self._dial()

    def _current(self) -> Range | None:
        """Lowest and highest current that the machine is asked for, peaks and pedal included."""
        one = self.one
        values = [value for r in (one.current_a,) if r for value in (r.min, r.max)]
        if one.pulse:
            values += [one.pulse.peak_a, one.pulse.background_a]
        if one.pedal_max_a:
            values.append(one.pedal_max_a)
        return Range(min(values), max(values)) if values else None

    def _say(
        self,
        rule: str,
        verdict: Verdict,
        field: str,
        title: str,
        message: str,
        *,
        actual: str = "",
        limit: str = "",
        remedy: str = "",
        obligation: Obligation = "requirement",
    ) -> Finding:
        return Finding(
            rule=rule,
            verdict=verdict,
            obligation=obligation,
            path=f"{self.path}.{field}",
            title=of_pass(title, self.one),
            message=message,
            actual=actual,
            limit=limit,
            remedy=remedy,
            citations=self._record,
        )

    def _within(
        self, rule: str, field: str, planned: Range, allowed: Range, kind: str, words: str
    ) -> Finding:
        fits = allowed.holds(planned.min) and allowed.holds(planned.max)
        found, limit = (self.draft.write_range(value, kind) for value in (planned, allowed))
        supply = self.machine.supply
        on = tr(" on {name}", name=supply.name) if supply and len(self.machine.supplies) > 1 else ""
        return self._say(
            rule,
            "complies" if fits else "violates",
            field,
            tr("Machine delivers the {words}", words=words)
            if fits
            else tr("Machine does not deliver the {words}", words=words),
            tr(
                "{name}{on} delivers {limit}; {found} is asked for.",
                name=self.machine.name,
                on=on,
                limit=limit,
                found=found,
            ),
            actual=found,
            limit=limit,
            remedy="" if fits else tr("Narrow the range, or choose another machine or supply."),
        )

    def _duty(self, envelope: Envelope) -> Iterator[Finding]:
        current = self.one.current_a
        share = duty_at(envelope, current.max) if current else None
        if current is None or share is None:
            return
        by_machine = self.one.mechanisation in ("fully", "automatic")
        needed = 100.0 if by_machine else HAND_ARC_SHARE
        short = share < needed * (1 - 1e-9)
        minutes = share / 10
        yield advise(
            "machine.duty",
            f"{self.path}.current_a",
            trouble=tr(
                "At {max:g} A {name} may weld {minutes:.1f} of ten minutes; ",
                max=current.max,
                name=self.machine.name,
                minutes=minutes,
            )
            + (
                tr("a mechanised weld runs through.")
                if by_machine
                else tr("by hand about a third of the time is used.")
            )
            if short
            else "",
            fine=tr("At {max:g} A {name} may weld ", max=current.max, name=self.machine.name)
            + (
                tr("without a pause.")
                if share >= 100
                else tr("{minutes:.1f} of ten minutes.", minutes=minutes)
            ),
            titles=(
                of_pass(tr("Machine gets too hot"), self.one),
                of_pass(tr("Duty cycle suffices"), self.one),
            ),
            actual=tr("{share:.0f} % at {max:g} A", share=share, max=current.max),
            limit=f"{number(needed)} %",
            remedy=tr("Less current, pauses, or a larger machine."),
            citations=(*self._record, IEC_60974_1, WORKING_RULE),
        )

    def _dial(self) -> Iterator[Finding]:
        feed, dial = self.one.wire_feed_m_min, self.machine.dial
        if feed is None or dial is None or not dial.points:
            return
        try:
            fit = fit_dial(dial)
            settings = fit.setting_for(feed.min), fit.setting_for(feed.max)
        except WeldingError as error:
            yield ask(
                "machine.dial",
                f"{self.path}.wire_feed_m_min",
                of_pass(tr("Dial setting is not known"), self.one),
                f"{self.machine.name}: {error}.",
                tr("Measure run-out at more settings."),
            )
            return
        wire = tr(" with {wire}", wire=dial.wire) if dial.wire else ""
        yield self._say(
            "machine.dial",
            "complies",
            "wire_feed_m_min",
            tr("Dial {settings:.1f} to {settings2:.1f}", settings=settings[0], settings2=settings[1]),
            tr(
                "{write_range} is dial {settings:.1f} to {settings2:.1f} on {name}{wire}, by "
                "run-out; scatter {scatter_m_min}.",
                write_range=self.draft.write_range(feed, "wire_feed"),
                settings=settings[0],
                settings2=settings[1],
                name=self.machine.name,
                wire=wire,
                scatter_m_min=self.draft.write(fit.scatter_m_min, "wire_feed"),
            ),
            obligation="recommendation",
        )
