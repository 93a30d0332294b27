"""Why a line of a chart does not hold for a pass: polarity, class, gas, position, thickness."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from welding.arc.groups import THINNER, attitude_of, volts_cases
from welding.arc.relations import active_percent, arc_volts
from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.consumables.gas import gas_text, read_gas
from welding.deposit.laid import weld_metal
from welding.documents.chart import QUANTITIES, ChartRow, SettingsChart, range_of
from welding.documents.procedure import Pass, Procedure
from welding.errors import UnknownEntryError, UnreadableError
from welding.glossary.values import in_words
from welding.language import tr
from welding.quantities.writing import System, quantity_text, range_text
from welding.ranges import Range

SAME_SIZE_SHARE = 0.06
"""0.045 in and 1.2 mm are sold as one size, and so are 0.035 in and 0.9 mm (common practice)."""
OTHER_ACTIVE_PERCENT = 4.0
OTHER_HELIUM_PERCENT = 10.0
"""Gases this close in what drives the volts are taken for one (common practice)."""
LEVEL = ("flat", "horizontal")

SHORT_TO_V, SPRAY_FROM_V = 22.0, 24.0
"""Solid wire short circuits up to about 22 V and sprays from about 24 V (common practice)."""

Subject = Literal[
    "polarity", "class", "gas", "transfer", "position", "thickness", "not-stated", "unexplained"
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Difference:
    """What a chart has otherwise than the pass.

    Attributes:
        subject: What it is about; ``not-stated`` where the chart is silent on what would decide.
        text: One sentence.
        wrong: Whether the chart contradicts what the filler's class says.
    """

    subject: Subject
    text: str
    wrong: bool = False


def rows_for(chart: SettingsChart, procedure: Procedure, one: Pass) -> tuple[ChartRow, ...]:
    """Lines of a chart for the process and the filler size of a pass; none for another process.

    Where some of them name the position, only those.
    """
    size = one.filler.diameter_mm if one.filler else None
    if chart.process != one.process or size is None:
        return ()
    of_size = [row for row in chart.rows if abs(row.diameter_mm - size) <= SAME_SIZE_SHARE * size]
    named = [row for row in of_size if set(procedure.positions[:1]) & set(row.positions)]
    return tuple(named or of_size)


def differences(
    chart: SettingsChart, row: ChartRow, procedure: Procedure, one: Pass, kind: str, system: System = "si"
) -> tuple[Difference, ...]:
    """What stands between a line of a chart and a pass.

    Args:
        chart: The chart.
        row: One of its lines, of the size of the pass.
        procedure: The procedure.
        one: The pass.
        kind: Kind of metal that the relations of the arc go by; empty where it is not known.
        system: Unit system of the sentences.

    Returns:
        The differences; where ranges lie apart and nothing explains it, that is the last.
    """
    found = [
        *_polarity(chart, one),
        *_class(chart, one),
        *_gas(chart, row, one, kind),
        *_transfer(row, one, kind),
        *_position(row, procedure, one),
        *_thickness(row, procedure, system),
    ]
    apart = apart_in(row, one)
    if apart and all(difference.subject == "not-stated" for difference in found):
        said = tr(" and ").join(
            tr(
                "{range_text} on the chart, {range_text2} here",
                range_text=range_text(theirs, quantity, system),
                range_text2=range_text(own, quantity, system),
            )
            for quantity, theirs, own in apart
        )
        found.append(
            Difference(
                subject="unexplained",
                text=tr(
                    "{said}: class, gas, position and size do not explain it; a trial weld decides "
                    "before either is followed.",
                    said=said,
                ),
            )
        )
    return tuple(found)


def apart_in(row: ChartRow, one: Pass) -> list[tuple[str, Range, Range]]:
    """Quantities whose ranges do not meet: kind of quantity, the chart's range, the pass's range."""
    found = []
    for field, quantity in QUANTITIES:
        printed, own = range_of(row, field), range_of(one, field)
        if printed and own and (printed.max < own.min or printed.min > own.max):
            found.append((quantity, printed, own))
    return found


def _polarity(chart: SettingsChart, one: Pass) -> Iterator[Difference]:
    name = chart.designation or (one.filler.designation if one.filler else None)
    runs_on = decode(name).polarities if name else ()
    if chart.polarity is None:
        if one.process != "111" and len(runs_on) != 1:
            yield Difference(
                subject="not-stated", text=tr("The chart does not say which polarity it is for.")
            )
        return
    if runs_on and chart.polarity not in runs_on:
        yield Difference(
            subject="polarity",
            text=tr(
                "The chart says {polarity}; {name} runs on {runs_on}.",
                polarity=chart.polarity,
                name=name,
                runs_on=tr(" or ").join(runs_on),
            ),
            wrong=True,
        )
    elif one.polarity and chart.polarity != one.polarity:
        yield Difference(
            subject="polarity",
            text=tr(
                "The chart is for {polarity}, the pass for {polarity2}.",
                polarity=chart.polarity,
                polarity2=one.polarity,
            ),
        )


def _class(chart: SettingsChart, one: Pass) -> Iterator[Difference]:
    own = one.filler.designation if one.filler else None
    if not chart.designation:
        yield Difference(subject="not-stated", text=tr("The chart does not name a filler class."))
        return
    if not own:
        yield Difference(subject="not-stated", text=tr("The pass names no filler class to compare."))
        return
    theirs, mine = decode(chart.designation), decode(own)
    if not theirs.valid or not mine.valid:
        if _bare(chart.designation) != _bare(own):
            yield Difference(
                subject="not-stated",
                text=tr(
                    "{designation} and {own}: whether they weld alike cannot be told from the names.",
                    designation=chart.designation,
                    own=own,
                ),
            )
        return
    same = (
        _form(theirs.product) == _form(mine.product)
        and theirs.shielding == mine.shielding
        and weld_metal(chart.designation) == weld_metal(own)
        and bool(
            set(theirs.polarities) & set(mine.polarities) or not theirs.polarities or not mine.polarities
        )
        and theirs.low_hydrogen == mine.low_hydrogen
    )
    if not same:
        yield Difference(
            subject="class",
            text=tr("The chart is for {designation}, not for {own}.", designation=chart.designation, own=own),
        )


def _form(product: str) -> str:
    """Solid, cored or covered: one system sells as wire or rod what another calls a wire."""
    return "solid" if product.startswith(("solid", "rod")) else product


def _bare(name: str) -> str:
    return name.replace(" ", "").upper()


def _gas(chart: SettingsChart, row: ChartRow, one: Pass, kind: str) -> Iterator[Difference]:
    own = one.gas.components_percent if one.gas else None
    if own is None:
        return
    if not chart.gas:
        yield Difference(subject="not-stated", text=tr("The chart does not say which gas it is for."))
        return
    try:
        theirs = read_gas(chart.gas)
    except UnreadableError:
        yield Difference(
            subject="not-stated", text=tr("The gas of the chart, {gas}, could not be read.", gas=chart.gas)
        )
        return
    active = abs(active_percent(theirs) - active_percent(own))
    helium = abs(theirs.get("He", 0.0) - own.get("He", 0.0))
    other = {name for name, share in theirs.items() if share > 0} ^ {n for n, s in own.items() if s > 0}
    if active <= OTHER_ACTIVE_PERCENT and helium <= OTHER_HELIUM_PERCENT and not other & {"H2", "N2"}:
        return
    yield Difference(
        subject="gas",
        text=tr(
            "The chart is for {gas_text}, the pass uses {gas_text2}{volts_between}.",
            gas_text=gas_text(theirs),
            gas_text2=gas_text(own),
            volts_between=_volts_between(theirs, own, row, one, kind),
        ),
    )


def _volts_between(
    theirs: Mapping[Any, float], own: Mapping[Any, float], row: ChartRow, one: Pass, kind: str
) -> str:
    """How many volts the arc of the pass takes more or less than that of the chart."""
    amps = one.current_a or row.current_a
    cases = volts_cases(one, kind) if kind else ()
    if amps is None or not cases:
        return ""
    try:
        there, here = (arc_volts(cases[0], amps.middle, gas)[0].value for gas in (theirs, own))
    except UnknownEntryError:
        return ""
    shift = here - there
    if abs(shift) < 0.3:
        return ""
    return tr(
        ": about {shift:.1f} V {value} at the same current",
        shift=abs(shift),
        value=tr("more") if shift > 0 else tr("less"),
    )


def _transfer(row: ChartRow, one: Pass, kind: str) -> Iterator[Difference]:
    """Whether a line for solid wire lies in the range of another metal transfer, by its volts."""
    if one.process != "135" or row.voltage_v is None or kind not in ("steel", "stainless"):
        return
    short = one.transfer in ("short-circuit", "controlled-short-circuit")
    if row.voltage_v.max <= SHORT_TO_V and one.transfer in ("spray", "pulsed"):
        transfer = "spray" if one.transfer == "spray" else tr("pulsed spray")
        yield Difference(
            subject="transfer",
            text=tr("The line is in the short-circuiting range, the pass is {transfer}.", transfer=transfer),
        )
    elif row.voltage_v.min >= SPRAY_FROM_V and short:
        yield Difference(
            subject="transfer", text=tr("The line is in the spray range, the pass short circuits.")
        )


def _position(row: ChartRow, procedure: Procedure, one: Pass) -> Iterator[Difference]:
    if not row.positions:
        yield Difference(subject="not-stated", text=tr("The chart does not say for which positions it is."))
        return
    if not procedure.positions or procedure.positions[0] in row.positions:
        return
    attitude = attitude_of(procedure, one)
    rows = {r["position"]: r for r in load_table("welding.joints", "positions").rows}
    theirs = {rows[name]["attitude"] for name in row.positions if name in rows}
    if attitude in theirs or (attitude.startswith("vertical") and "vertical" in theirs):
        return
    named = ", ".join(row.positions)
    share = THINNER.get(attitude)
    if share is not None and theirs <= set(LEVEL):
        text = tr(
            "The line is for {named}; {replace} is welded with the settings for metal about "
            "{value:.0f} % thinner: take the next thinner size.",
            named=named,
            replace=in_words(attitude),
            value=100 * (1 - share),
        )
    else:
        text = tr(
            "The line is for {named}, not for {positions}.", named=named, positions=procedure.positions[0]
        )
    yield Difference(subject="position", text=text)


def _thickness(row: ChartRow, procedure: Procedure, system: System) -> Iterator[Difference]:
    known = [metal.thickness_mm for metal in procedure.base_metals if metal.thickness_mm]
    if row.thickness_mm is None or not known:
        return
    thin = min(known)
    if not row.thickness_mm.min * 0.999 <= thin <= row.thickness_mm.max * 1.001:
        yield Difference(
            subject="thickness",
            text=tr(
                "The line is for {range_text}, the metal is {quantity_text}.",
                range_text=range_text(row.thickness_mm, "thickness", system),
                quantity_text=quantity_text(thin, "thickness", system),
            ),
        )
