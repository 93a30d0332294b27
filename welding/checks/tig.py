"""TIG set-up: tungsten against polarity and current, cup, pedal, slopes, AC on the metal that needs it."""

from __future__ import annotations

import math
from collections.abc import Iterator, Set

from welding.checks.context import Draft
from welding.checks.filler import TIG, polarities_of
from welding.checks.saying import advise, ask, of_pass
from welding.citation import COMMON_PRACTICE
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.heat.pulse import rectangular_pulse
from welding.language import number, tr
from welding.setup.tungsten import carried_current, tungsten_named

LARGEST_USUAL_CUP = 16
_MEAN_SLACK = 0.05
_HELIUM_FOR_DCEN = 50.0


def tig_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each TIG pass."""
    families = {metal.family for m in draft.procedure.base_metals if (metal := draft.metal(m))}
    for index, one in enumerate(draft.procedure.passes):
        if one.process not in TIG:
            continue
        path = f"passes.{index}"
        yield from _type(path, one)
        yield from _current(draft, path, one)
        yield from _cup(path, one)
        yield from _pedal(path, one)
        yield from _pulse_mean(path, one)
        yield from _polarity(path, one, families, bool(polarities_of(draft, one)))


def _type(path: str, one: Pass) -> Iterator[Finding]:
    if one.tungsten is None or not one.tungsten.type:
        return
    kind = tungsten_named(one.tungsten.type)
    if kind is None:
        yield ask(
            "tungsten.type",
            f"{path}.tungsten.type",
            of_pass(tr("Tungsten is not understood"), one),
            tr("{type_} is no tungsten known here.", type_=one.tungsten.type),
            tr("Write it as WLa20, EWLa-2 or 2 % lanthanated."),
        )
        return
    if one.polarity is None:
        return
    suits = kind.ac if one.polarity == "AC" else kind.dcen
    bad = suits in ("poor", "limited")
    yield advise(
        "tungsten.type",
        f"{path}.tungsten.type",
        trouble=tr(
            "{iso} ({addition}) does not suit {polarity} well.",
            iso=kind.iso,
            addition=kind.addition,
            polarity=one.polarity,
        )
        if bad
        else "",
        fine=tr(
            "{iso} ({addition}, tip {colour}) suits {polarity}.",
            iso=kind.iso,
            addition=kind.addition,
            colour=kind.colour,
            polarity=one.polarity,
        ),
        titles=(
            of_pass(tr("Tungsten does not suit the current"), one),
            of_pass(tr("Tungsten suits the current"), one),
        ),
        actual=kind.iso,
        limit=tr("a type for {polarity}", polarity=one.polarity),
        remedy=tr("Take a lanthanated or ceriated one."),
        citations=(kind.citation,),
        unchecked=kind.unchecked,
    )


def _heating_current(one: Pass) -> float | None:
    """What heats the tungsten [A]: the root mean square of a pulse, else the highest planned current."""
    pulse = one.pulse
    if pulse is not None and pulse.peak_share is not None:
        share = pulse.peak_share
        return math.sqrt(share * pulse.peak_a**2 + (1 - share) * pulse.background_a**2)
    return one.current_a.max if one.current_a else None


def _current(draft: Draft, path: str, one: Pass) -> Iterator[Finding]:
    tungsten, current = one.tungsten, _heating_current(one)
    if tungsten is None or tungsten.diameter_mm is None or current is None or one.polarity is None:
        return
    kind = tungsten_named(tungsten.type) if tungsten.type else None
    carried = carried_current(
        tungsten.diameter_mm,
        one.polarity,
        pure=kind is not None and kind.pure,
        en_share=one.ac.en_share if one.ac else None,
    )
    if carried is None:
        return
    usual = carried.widest
    size = draft.write(tungsten.diameter_mm, "wire_diameter")
    over = current > usual.max * (1 + 1e-9)
    yield advise(
        "tungsten.current",
        f"{path}.tungsten.diameter_mm",
        trouble=tr(
            "{current:.0f} A overloads a tungsten of {size} on {polarity}; it carries up to "
            "{max:g} A and would melt into the weld.",
            current=current,
            size=size,
            polarity=one.polarity,
            max=usual.max,
        )
        if over
        else "",
        fine=tr(
            "A tungsten of {size} carries up to {max:g} A on {polarity}; {current:.0f} A is planned.",
            size=size,
            max=usual.max,
            polarity=one.polarity,
            current=current,
        ),
        titles=(of_pass(tr("Tungsten is overloaded"), one), of_pass(tr("Tungsten carries the current"), one)),
        actual=f"{number(current, '.0f')} A",
        limit=f"{number(usual.max)} A",
        remedy=tr("Take the next larger tungsten, or less current."),
        citations=(carried.citation,),
        unchecked=carried.unchecked,
    )


def _cup(path: str, one: Pass) -> Iterator[Finding]:
    if one.cup is not None and one.cup.number > LARGEST_USUAL_CUP:
        number = one.cup.number
        near = round(number / (25.4 / 16))
        yield ask(
            "cup.number",
            f"{path}.cup.number",
            of_pass(tr("Is the cup's number meant in mm?"), one),
            tr(
                "Cup no. {number} has a bore of {number2:.1f} mm, since the number counts "
                "sixteenths of an inch; a bore of {number} mm is no. {near}.",
                number=number,
                number2=number * 25.4 / 16,
                near=near,
            ),
            tr("Set no. {near} if mm were meant.", near=near),
        )


def _pedal(path: str, one: Pass) -> Iterator[Finding]:
    if one.pedal_max_a is None or one.current_a is None:
        return
    short = one.current_a.max > one.pedal_max_a * (1 + 1e-9)
    share = 100 * one.current_a.middle / one.pedal_max_a
    yield Finding(
        rule="pedal.maximum",
        verdict="violates" if short else "complies",
        path=f"{path}.pedal_max_a",
        title=of_pass(
            tr("Pedal's maximum is below the current") if short else tr("Pedal reaches the current"), one
        ),
        message=tr(
            "The pedal reaches {pedal_max_a:g} A; {max:g} A is planned.",
            pedal_max_a=one.pedal_max_a,
            max=one.current_a.max,
        )
        if short
        else tr(
            "The weld runs at about {share:.0f} % of the pedal's {pedal_max_a:g} A.",
            share=share,
            pedal_max_a=one.pedal_max_a,
        ),
        actual=f"{number(one.pedal_max_a)} A",
        limit=f"{number(one.current_a.max)} A",
        remedy=tr("Raise the machine's setting.") if short else "",
        citations=(COMMON_PRACTICE,),
    )


def _pulse_mean(path: str, one: Pass) -> Iterator[Finding]:
    pulse, planned = one.pulse, one.current_a
    if pulse is None or pulse.peak_share is None or planned is None:
        return
    mean = rectangular_pulse(
        peak_a=pulse.peak_a, background_a=pulse.background_a, peak_share=pulse.peak_share
    ).mean_a
    fits = planned.min * (1 - _MEAN_SLACK) <= mean <= planned.max * (1 + _MEAN_SLACK)
    stated = tr("{min:g} to {max:g} A", min=planned.min, max=planned.max)
    yield advise(
        "pulse.mean",
        f"{path}.pulse.peak_a",
        trouble=""
        if fits
        else tr("This pulse has a mean of {mean:.0f} A; the pass states {stated}.", mean=mean, stated=stated),
        fine=tr(
            "This pulse has a mean of {mean:.0f} A, and the pass states {stated}.", mean=mean, stated=stated
        ),
        titles=(of_pass(tr("Pulse and current disagree"), one), of_pass(tr("Pulse and current agree"), one)),
        actual=f"{number(mean, '.0f')} A",
        limit=stated,
        remedy=tr("Correct the pulse, or the current."),
    )


def _polarity(path: str, one: Pass, families: Set[str], named: bool) -> Iterator[Finding]:
    if one.polarity is None or not families:
        return
    light = families <= {"aluminium", "aluminium-cast"}
    helium = one.gas.components_percent.get("He", 0.0) if one.gas else 0.0
    if light:
        bad = one.polarity == "DCEN" and helium < _HELIUM_FOR_DCEN
        trouble = tr("DCEN in argon leaves aluminium's oxide on the pool.") if bad else ""
        usual, remedy = tr("AC, or DCEN in helium"), tr("Set AC.")
    elif named or "aluminium" in families:
        return
    else:
        trouble = (
            tr("AC is for aluminium; on other metals it only heats the tungsten.")
            if one.polarity == "AC" and families - {"copper"}  # aluminium bronze wants AC
            else ""
        )
        usual, remedy = "DCEN", tr("Set DCEN.")
    yield advise(
        "polarity.metal",
        f"{path}.polarity",
        trouble=trouble,
        fine=tr("{polarity} is usual on this metal.", polarity=one.polarity),
        titles=(
            of_pass(tr("Polarity does not suit the metal"), one),
            of_pass(tr("Polarity suits the metal"), one),
        ),
        actual=one.polarity,
        limit=usual,
        remedy=remedy,
    )
