"""Amps, volts, wire feed and travel against one another and against electrode, wire, metal and hand.

Each says a word outside a generous band about what is usual (common practice), with the number that would be
usual, whatever the process. Settings that somebody tried outrank every estimate.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from welding.arc.groups import attitude_of, law_case, pass_group, stick_kind, volts_cases, wire_kind
from welding.arc.relations import (
    arc_volts,
    current_for_thickness,
    travel_range,
    wire_feed_m_min,
    wire_range,
)
from welding.checks.context import Draft
from welding.checks.saying import advise, of_pass
from welding.documents.procedure import Pass
from welding.errors import OutOfRangeError, UnknownEntryError
from welding.finding import Finding
from welding.glossary.values import in_words
from welding.language import tr
from welding.metals.kinds import is_nine_chromium
from welding.ranges import Range

BEYOND_SIZE = 0.15
"""Currents this share beyond what a size of filler takes are still welded."""
BEYOND_VOLTS = {"141": 0.4}
BEYOND_VOLTS_ELSE = 0.22
BEYOND_FEED = 1.45
BEYOND_TRAVEL = (0.45, 1.8)
TIG_BAND = (0.5, 2.2)
"""Share of the usual amps for the thickness between which a hand still makes a weld."""
SHORT_ARC_TO_MM = 12.0
EXTENSION_MM = {"short": 8.5, "cored-gas": 16.0, "saw": 30.0}


@dataclass(frozen=True, slots=True)
class _Of:
    """A pass with what it is welded on."""

    draft: Draft
    index: int
    one: Pass

    @property
    def path(self) -> str:
        return f"passes.{self.index}"

    @property
    def kind(self) -> str:
        """Kind of metal, as plans go by it; empty where a metal is not known."""
        return self.draft.metal_kind

    @property
    def thin(self) -> float | None:
        """Thinner member [mm]."""
        known = [one.thickness_mm for one in self.draft.procedure.base_metals if one.thickness_mm]
        return min(known, default=None)

    @property
    def tried(self) -> bool:
        """Whether the current comes from an own trial or the maker."""
        return self.one.sources.get("current_a") in ("own-trial", "maker", "qualified")


def arc_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass."""
    for index, one in enumerate(draft.procedure.passes):
        of = _Of(draft, index, one)
        yield from _size(of)
        yield from _volts(of)
        yield from _feed(of)
        yield from _sum_of_electrodes(of)
        yield from _travel(of)
        yield from _tig_amps(of)
        yield from _short_arc(of)


def _amps(draft: Draft, value: Range) -> str:
    return draft.write_range(value, "current")


def _size(of: _Of) -> Iterator[Finding]:
    """Amps against the size of a covered electrode or a wire."""
    one = of.one
    diameter = one.filler.diameter_mm if one.filler else None
    if one.current_a is None or diameter is None or of.tried or of.draft.maker_range(one) is not None:
        return
    group = (
        stick_kind(of.kind, one.filler.designation or "" if one.filler else "")
        if one.process == "111"
        else pass_group(one, of.kind)
    )
    if not group or (one.electrodes and one.electrodes.count > 1):
        return
    found = wire_range("short" if group == "spray" else group, diameter)
    if found is None:
        return
    takes, citation, unchecked = found
    if group == "spray":
        takes = Range(takes.min, takes.max * 1.75)  # the same wire sprays far above its short arc
    middle = one.current_a.middle
    low, high = takes.min * (1 - BEYOND_SIZE), takes.max * (1 + BEYOND_SIZE)
    actual, limit = _amps(of.draft, one.current_a), _amps(of.draft, takes)
    size = of.draft.write(diameter, "diameter")
    what = (
        tr("the electrode sticks and does not fuse") if middle < low else tr("it overheats and burns through")
    )
    yield advise(
        "arc.filler-size",
        f"{of.path}.current_a",
        trouble=tr(
            "{actual} is {value} for {size}: {limit} is usual; {what}.",
            actual=actual,
            value=tr("low") if middle < low else tr("high"),
            size=size,
            limit=limit,
            what=what,
        )
        if not low <= middle <= high
        else "",
        fine=tr("{limit} is usual for {size}.", limit=limit, size=size),
        titles=(
            of_pass(tr("Current does not suit the filler's size"), one),
            of_pass(tr("Current suits the size"), one),
        ),
        actual=actual,
        limit=limit,
        remedy=tr("Set {limit}, or take another diameter.", limit=limit),
        citations=(citation,),
        unchecked=unchecked,
    )


def _volts(of: _Of) -> Iterator[Finding]:
    one = of.one
    if one.current_a is None or one.voltage_v is None or of.tried or not of.kind:
        return
    if one.pulse is not None or one.transfer in ("controlled-short-circuit",):
        return
    cases = volts_cases(one, of.kind)
    gas = {str(k): float(v) for k, v in one.gas.components_percent.items()} if one.gas else {}
    if not cases:
        return
    amps, stated = one.current_a.middle, one.voltage_v.middle
    usual = [arc_volts(case, amps, gas)[0] for case in cases]
    slack = BEYOND_VOLTS.get(one.process, BEYOND_VOLTS_ELSE)
    low, high = min(e.value for e in usual) * (1 - slack), max(e.value for e in usual) * (1 + slack)
    nearest = min(usual, key=lambda e: abs(e.value - stated))
    expected = of.draft.write(nearest.value, "voltage")
    found = of.draft.write(stated, "voltage")
    short = stated < low
    why = tr("the wire or electrode stubs") if short else tr("the arc is long: undercut, spatter, porosity")
    yield advise(
        "arc.volts",
        f"{of.path}.voltage_v",
        trouble=tr(
            "{found} at {amps} is {value}: about {expected} is usual; {why}.",
            found=found,
            amps=of.draft.write(amps, "current"),
            value=tr("low") if short else tr("high"),
            expected=expected,
            why=why,
        )
        if not low <= stated <= high
        else "",
        fine=tr("About {expected} is usual at this current.", expected=expected),
        titles=(
            of_pass(tr("Volts do not suit the current"), one),
            of_pass(tr("Volts suit the current"), one),
        ),
        actual=found,
        limit=tr("about {expected}", expected=expected),
        remedy=tr("Set about {expected}, or correct the current.", expected=expected),
        citations=(nearest.citation,),
        unchecked=nearest.unchecked,
    )


def _feed(of: _Of) -> Iterator[Finding]:
    """Wire feed against amps by the melting law."""
    one = of.one
    diameter = one.filler.diameter_mm if one.filler else None
    if one.current_a is None or one.wire_feed_m_min is None or diameter is None or not of.kind:
        return
    kind = wire_kind(one.process, one.filler.designation if one.filler else None, diameter)
    if not kind:
        return
    amps = one.current_a.middle / max(one.electrodes.count if one.electrodes else 1, 1)
    group = pass_group(one, of.kind)
    try:
        melts = wire_feed_m_min(kind, diameter, amps, EXTENSION_MM.get(group, 15.0))
    except (UnknownEntryError, OutOfRangeError):
        return
    if not melts.inside:
        return
    ratio = one.wire_feed_m_min.middle / melts.value
    found, usual = (
        of.draft.write_range(one.wire_feed_m_min, "wire_feed"),
        of.draft.write(melts.value, "wire_feed"),
    )
    yield advise(
        "arc.feed",
        f"{of.path}.wire_feed_m_min",
        trouble=tr(
            "Wire feed {found} and {amps} do not agree: this current melts about {usual}.",
            found=found,
            amps=_amps(of.draft, one.current_a),
            usual=usual,
        )
        if not 1 / BEYOND_FEED <= ratio <= BEYOND_FEED
        else "",
        fine=tr("This current melts about {usual}.", usual=usual),
        titles=(
            of_pass(tr("Wire feed does not match the current"), one),
            of_pass(tr("Wire feed matches"), one),
        ),
        actual=found,
        limit=tr("about {usual}", usual=usual),
        remedy=tr("Read both off the machine again; wire feed decides what is deposited."),
        citations=(melts.citation,),
        unchecked=melts.unchecked,
    )


def _sum_of_electrodes(of: _Of) -> Iterator[Finding]:
    """Amps of several electrodes against those of the pass, which are their sum."""
    one = of.one
    each = one.electrodes.each if one.electrodes else ()
    amps = [settings.current_a for settings in each]
    known = [value for value in amps if value is not None]
    if one.current_a is None or not known or len(known) < (one.electrodes.count if one.electrodes else 0):
        return
    total = Range(sum(value.min for value in known), sum(value.max for value in known))
    actual, stated = _amps(of.draft, total), _amps(of.draft, one.current_a)
    apart = total.min > one.current_a.max or total.max < one.current_a.min
    yield advise(
        "arc.electrodes-sum",
        f"{of.path}.electrodes.each",
        trouble=tr(
            "The electrodes add up to {actual}; the pass states {stated}.", actual=actual, stated=stated
        )
        if apart
        else "",
        fine=tr("The electrodes add up to {actual}.", actual=actual),
        titles=(
            of_pass(tr("Currents of the electrodes do not add up"), one),
            of_pass(tr("Currents of the electrodes add up"), one),
        ),
        actual=actual,
        limit=stated,
        remedy=tr("Correct the current of the pass or of an electrode."),
    )


def _travel(of: _Of) -> Iterator[Finding]:
    one = of.one
    if one.travel_mm_min is None or not of.kind:
        return
    attitude = attitude_of(of.draft.procedure, one)
    group = pass_group(one, of.kind)
    known = travel_range(group, attitude) if group and attitude else None
    if known is None or one.mechanisation == "automatic":
        return
    usual, citation, unchecked = known
    middle = one.travel_mm_min.middle
    slow, fast = middle < usual.min * BEYOND_TRAVEL[0], middle > usual.max * BEYOND_TRAVEL[1]
    found, limit = of.draft.write_range(one.travel_mm_min, "travel"), of.draft.write_range(usual, "travel")
    yield advise(
        "arc.travel",
        f"{of.path}.travel_mm_min",
        trouble=tr(
            "Travel {found} is {value} for this process {replace}: {limit} is usual.",
            found=found,
            value=tr("slow") if slow else tr("fast"),
            replace=in_words(attitude),
            limit=limit,
        )
        if slow or fast
        else "",
        fine=tr("{limit} is usual.", limit=limit),
        titles=(of_pass(tr("Travel is unusual"), one), of_pass(tr("Travel is usual"), one)),
        actual=found,
        limit=limit,
        remedy=tr("Time a bead; mm/min and mm/s are easily mixed up."),
        citations=(citation,),
        unchecked=unchecked,
    )


def _tig_amps(of: _Of) -> Iterator[Finding]:
    """TIG amps against the thickness; a root is fused to its lands, however thick the plate."""
    one, thin = of.one, of.thin
    if one.process != "141" or one.current_a is None or thin is None or not of.kind or of.tried:
        return
    if one.pulse is not None or one.mechanisation not in (None, "manual"):
        return
    joint = of.draft.procedure.joint
    narrow = of.kind not in ("aluminium", "copper")
    root = one.role in ("root", "hot") and joint is not None and joint.weld != "fillet"
    law = current_for_thickness(
        law_case(one, of.kind), min(thin, 3.0 if narrow else 5.0) if root else min(thin, 12.0)
    )
    middle = one.current_a.middle
    most = max(law.value, 130.0 if thin > 3 else 0.0) * TIG_BAND[1]
    low = middle < law.value * TIG_BAND[0]
    found, usual = _amps(of.draft, one.current_a), of.draft.write(law.value, "current")
    yield advise(
        "arc.tig-thickness",
        f"{of.path}.current_a",
        trouble=tr(
            "{found} is {value} for {thin}: about {usual} is usual; {value2}.",
            found=found,
            value=tr("little") if low else tr("much"),
            thin=of.draft.write(thin, "thickness"),
            usual=usual,
            value2=tr("the metal is not fused") if low else tr("it burns through"),
        )
        if low or middle > most
        else "",
        fine=tr("About {usual} is usual for this thickness.", usual=usual),
        titles=(
            of_pass(tr("Current does not suit the thickness"), one),
            of_pass(tr("Current suits the metal"), one),
        ),
        actual=found,
        limit=tr("about {usual}", usual=usual),
        remedy=tr("Set about {usual}.", usual=usual),
        citations=(law.citation,),
        unchecked=law.unchecked,
    )


def _short_arc(of: _Of) -> Iterator[Finding]:
    """Short circuit on thick metal, and as the root of 9 % chromium steel: lack of fusion."""
    one, thin = of.one, of.thin
    joint = of.draft.procedure.joint
    if one.process != "135" or one.transfer != "short-circuit" or joint is None:
        return
    filling = joint.weld == "fillet" or one.role not in ("root", "hot")
    chromium = any(
        is_nine_chromium(metal)
        for stated in of.draft.procedure.base_metals
        if (metal := of.draft.metal(stated))
    )
    thick = filling and thin is not None and thin >= SHORT_ARC_TO_MM
    trouble = ""
    if thick and thin is not None:
        trouble = tr(
            "Short-circuit transfer on {thin}: too cold for the filling, its sides are not fused.",
            thin=of.draft.write(thin, "thickness"),
        )
    elif chromium:
        trouble = tr(
            "Short-circuit transfer in 9 % chromium steel leaves lack of fusion unless it is proved."
        )
    yield advise(
        "arc.short-circuit",
        f"{of.path}.transfer",
        trouble=trouble,
        fine=tr("Short-circuit transfer suits roots and thin metal."),
        titles=(
            of_pass(tr("Short circuit on thick metal"), one),
            of_pass(tr("Transfer suits the metal"), one),
        ),
        remedy=tr("Take spray, pulsed or cored wire, or TIG for the root."),
    )
