"""The set-up of a pass in words, for the heading of its group on a sheet."""

from __future__ import annotations

from apps.printing.said import in_both
from apps.printing.sheets import BLANK, Writer
from welding.consumables.gas import gas_text
from welding.documents.procedure import Pass
from welding.glossary.values import in_words
from welding.language import number, tr
from welding.ranges import Range


def set_up_in_both(one: Pass, write: Writer) -> tuple[str, str, str]:
    """Process, filler, and the rest in both languages of the sheet."""
    process, filler, _ = set_up_words(one, write)
    return process, filler, in_both(lambda: set_up_words(one, write)[2])


def set_up_words(one: Pass, write: Writer) -> tuple[str, str, str]:
    """Process, filler, and the rest of the set-up in words."""
    parts = [
        one.polarity or "",
        in_words(one.transfer) if one.transfer else "",
        _flux(one),
        _electrodes(one, write),
        _gas(one, write),
        _purge(one, write),
        tr("tip to work {main}", main=write.range(one.extension_mm, "gap").main) if one.extension_mm else "",
        _tungsten(one, write),
        _cup(one),
        _ac(one),
        _pulse(one),
        _begin_and_end(one),
        _feeder(one, write),
        tr("machine {machine}", machine=one.machine) if one.machine else "",
    ]
    return one.process, _filler(one, write), " · ".join(part for part in parts if part)


def _filler(one: Pass, write: Writer) -> str:
    if one.filler is None:
        return tr("no filler stated")
    parts = [one.filler.designation or BLANK]
    if one.filler.make:
        parts.append(one.filler.make)
    if one.filler.diameter_mm:
        size = write.value(one.filler.diameter_mm, "wire_diameter")
        parts.append(f"{size.main} ({size.other})")
    return ", ".join(parts)


def _gas(one: Pass, write: Writer) -> str:
    if one.gas is None:
        return ""
    times = one.gas_times
    before = (
        tr("{time_s:g} s before", time_s=times.pre_flow_s) if times and times.pre_flow_s is not None else ""
    )
    after = (
        tr("{time_s:g} s after", time_s=times.post_flow_s) if times and times.post_flow_s is not None else ""
    )
    words = [gas_text(one.gas.components_percent) + _flow(one.gas.flow_l_min, write), before, after]
    return ", ".join(part for part in words if part)


def _flux(one: Pass) -> str:
    if one.flux is None:
        return ""
    parts = ("flux", one.flux.designation or BLANK, f"({one.flux.make})" if one.flux.make else "")
    return " ".join(part for part in parts if part)


def _electrodes(one: Pass, write: Writer) -> str:
    wires = one.electrodes
    if wires is None or wires.count == 1:
        return ""
    parts = [tr("{count} electrodes", count=wires.count)]
    for value, where in ((wires.spacing_mm, "along"), (wires.offset_mm, "across")):
        if value is not None:
            parts.append(tr("{main} apart {where}", main=write.value(value, "gap").main, where=where))
    for place, each in enumerate(wires.each[: wires.count], 1):
        words = (
            f"{write.range(each.current_a, 'current').main}" if each.current_a else "",
            each.polarity or "",
            tr("{angle}° along", angle=_signed(each.angle_deg)) if each.angle_deg is not None else "",
            tr("{angle}° across", angle=_signed(each.across_deg)) if each.across_deg is not None else "",
        )
        if any(words):
            parts.append(
                tr(
                    "electrode {number}: {join}",
                    number=place,
                    join=" ".join(word for word in words if word),
                )
            )
    return ", ".join(parts)


def _signed(value: float) -> str:
    return f"{value:+g}" if value else "0"


def _purge(one: Pass, write: Writer) -> str:
    if one.purge is None:
        return ""
    oxygen = (
        ""
        if one.purge.oxygen_ppm is None
        else tr(", below {oxygen_ppm:g} ppm oxygen", oxygen_ppm=one.purge.oxygen_ppm)
    )
    return tr(
        "purge {gas_text}{flow}{oxygen}",
        gas_text=gas_text(one.purge.components_percent),
        flow=_flow(one.purge.flow_l_min, write),
        oxygen=oxygen,
    )


def _flow(flow: Range | None, write: Writer) -> str:
    text = write.range(flow, "flow")
    return f", {text.main} ({text.other})" if flow else ""


def _tungsten(one: Pass, write: Writer) -> str:
    tungsten = one.tungsten
    if tungsten is None:
        return ""
    size = write.value(tungsten.diameter_mm, "wire_diameter").main if tungsten.diameter_mm else ""
    angle = f"{number(tungsten.angle_deg)}°" if tungsten.angle_deg is not None else ""
    return " ".join(part for part in ("tungsten", tungsten.type or "", size, angle) if part)


def _cup(one: Pass) -> str:
    if one.cup is None:
        return ""
    return tr(
        "cup no. {number}{value}", number=one.cup.number, value=tr(" with lens") if one.cup.lens else ""
    )


def _ac(one: Pass) -> str:
    ac = one.ac
    if ac is None:
        return ""
    parts = [
        f"{number(ac.frequency_hz)} Hz" if ac.frequency_hz else "",
        tr("{share:.0f} % negative", share=100 * ac.en_share) if ac.en_share else "",
        in_words(ac.waveform, "waveform") if ac.waveform else "",
    ]
    return ", ".join(part for part in parts if part)


def _pulse(one: Pass) -> str:
    pulse = one.pulse
    if pulse is None:
        return ""
    parts = [
        tr(
            "pulse {peak_a:g} A over {background_a:g} A", peak_a=pulse.peak_a, background_a=pulse.background_a
        ),
        tr("{value:.0f} % at peak", value=100 * pulse.peak_share) if pulse.peak_share else "",
        f"{number(pulse.frequency_hz)} Hz" if pulse.frequency_hz else "",
    ]
    return ", ".join(part for part in parts if part)


def _begin_and_end(one: Pass) -> str:
    slopes = one.slopes
    parts = [
        tr("{replace} start", replace=in_words(one.start)) if one.start else "",
        tr("from {start_a:g} A", start_a=slopes.start_a) if slopes and slopes.start_a else "",
        tr("up in {up_s:g} s", up_s=slopes.up_s) if slopes and slopes.up_s is not None else "",
        tr("down in {down_s:g} s", down_s=slopes.down_s) if slopes and slopes.down_s is not None else "",
        tr("to {finish_a:g} A", finish_a=slopes.finish_a) if slopes and slopes.finish_a else "",
        tr("pedal to {pedal_max_a:g} A", pedal_max_a=one.pedal_max_a) if one.pedal_max_a else "",
    ]
    return ", ".join(part for part in parts if part)


def _feeder(one: Pass, write: Writer) -> str:
    feeder = one.feeder
    if feeder is None:
        return ""
    rolls = {"v": "V rolls", "u": "U rolls", "knurled": tr("knurled rolls")}
    parts = [
        rolls.get(feeder.rolls or "", ""),
        tr("{liner} liner", liner=feeder.liner) if feeder.liner else "",
        tr("tip {main}", main=write.value(feeder.contact_tip_mm, "wire_diameter").main)
        if feeder.contact_tip_mm
        else "",
        tr("inductance {inductance_percent:g} %", inductance_percent=feeder.inductance_percent)
        if feeder.inductance_percent is not None
        else "",
    ]
    return ", ".join(part for part in parts if part)
