"""Variables that every pass of the required procedure has to keep."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from welding.consumables.designations.decode import decode
from welding.consumables.gas import gas_text
from welding.consumables.gas_symbol import gas_symbol
from welding.documents.procedure import Pass
from welding.finding import Finding, Verdict
from welding.language import tr, tr_noop
from welding.qualification.compare_fillers import filler_verdict
from welding.qualification.counterparts import SAME_SIZE_MM, counterparts, has_role_of, has_size_of
from welding.qualification.coupon import flux_text
from welding.qualification.items import RangeItem
from welding.qualification.outcome import Outcome, asked_span, finding_of, of_set
from welding.qualification.required_scope import RequiredScope
from welding.ranges import Range

Check = Callable[[RangeItem, RequiredScope, Pass, str], Iterator[Outcome]]


_BEST: dict[Verdict, int] = {"complies": 0, "not_applicable": 0, "undecided": 1, "violates": 2}


def _each(check: Check, field: str) -> Callable[[Sequence[RangeItem], RequiredScope], Iterator[Finding]]:
    """Ask every pass, and say the worst of each variable once with the passes that have it."""

    def findings(items: Sequence[RangeItem], required: RequiredScope) -> Iterator[Finding]:
        if all(item.kind == "any" for item in items):
            return
        said: dict[tuple[str, str, str, str], tuple[Finding, list[int]]] = {}
        for index, one in enumerate(required.procedure.passes):
            for finding in _against(items, required, one, check, f"passes.{index}.{field}"):
                key = (finding.verdict, finding.actual, finding.limit, finding.title)
                said.setdefault(key, (finding, []))[1].append(one.number)
        for finding, numbers in said.values():
            passes = (
                tr("pass {numbers}", numbers=numbers[0])
                if len(numbers) == 1
                else tr("passes {list}", list=_list(numbers))
            )
            yield replace(finding, title=f"{finding.title}, {passes}")

    return findings


def _against(
    items: Sequence[RangeItem], required: RequiredScope, one: Pass, check: Check, path: str
) -> tuple[Finding, ...]:
    """Findings on a pass by the tested passes that suit it best."""
    held = counterparts(items, one)
    if not held or any(item.kind == "any" for item in held):
        return ()
    answers = [(item, list(check(item, required, one, path))) for item in held]
    item, outcomes = min(
        answers, key=lambda pair: max((_BEST[outcome.verdict] for outcome in pair[1]), default=0)
    )
    note = _held_against(item, one)
    return tuple(
        finding_of(item, required, replace(outcome, note=outcome.note or note)) for outcome in outcomes
    )


def _held_against(item: RangeItem, one: Pass) -> str:
    """Says which tested passes stand in where none of this size and role was tested."""
    if not item.tested_passes or (has_size_of(item, one) and has_role_of(item, one)):
        return ""
    numbers = _list(sorted(item.tested_passes))
    size = f", {item.filler_diameter_mm:g} mm" if item.filler_diameter_mm else ""
    return tr(
        "held against tested {value} {numbers}{size}",
        value=tr("pass") if len(item.tested_passes) == 1 else tr("passes"),
        numbers=numbers,
        size=size,
    )


def _list(numbers: list[int]) -> str:
    """Numbers with runs shortened.

    Example:
        >>> _list([1, 2, 3, 5])
        '1–3, 5'
    """
    parts: list[str] = []
    start = before = numbers[0]
    for number in [*numbers[1:], None]:
        if number is not None and number == before + 1:
            before = number
            continue
        parts.append(str(start) if start == before else f"{start}–{before}")
        if number is not None:
            start = before = number
    return ", ".join(parts)


def _processes(items: Sequence[RangeItem], required: RequiredScope) -> Iterator[Finding]:
    for process in required.processes:
        index = next((i for i, one in enumerate(required.procedure.passes) if one.process == process), 0)
        for item in items:
            path = f"passes.{index}.process"
            in_order = (
                item.how != "in-order" or process not in item.values or required.processes == item.values
            )
            outcome = (
                of_set(item, process, path)
                if in_order
                else Outcome(
                    "violates",
                    path,
                    actual=tr(" then ").join(required.processes),
                    limit=tr(" then ").join(item.values),
                    note=tr("tested as one joint, in this order"),
                )
            )
            yield finding_of(item, required, outcome)


def _span(of: Callable[[Pass], Range | None], what: str) -> Check:
    def check(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
        stated = of(one)
        if stated is None:
            yield Outcome("undecided", path, ask=tr(what))
            return
        if item.kind == "unknown":
            yield Outcome("undecided", path, value=stated.max)
            return
        for end in (stated.min, stated.max):
            found = asked_span(item, end, path)
            if found.verdict != "complies":
                yield found
        if item.holds(stated.min) and item.holds(stated.max):
            yield asked_span(item, stated.max, path)

    return check


def _current(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    """Amps; where the maker's range of an electrode counts, an electrode of another size has its own."""
    if item.how == "maker" and not has_size_of(item, one):
        sheet = required.draft.maker_range(one)
        if sheet is None or sheet.current_a is None:
            yield Outcome(
                "undecided", path, ask=tr("the manufacturer's amperage range for this electrode size")
            )
            return
        low, high = sheet.current_a.min, sheet.current_a.max
        item = replace(item, kind="span", open_beyond=False, min=low, max=high)
    yield from _span(lambda p: p.current_a, tr("the current"))(item, required, one, path)


def _wire_feed(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    if one.wire_feed_m_min is None and one.current_a is not None:
        return  # the current is what is controlled
    yield from _span(lambda p: p.wire_feed_m_min, tr("the wire feed"))(item, required, one, path)


def _flow(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    if one.gas is None:
        return
    yield from _span(lambda p: p.gas.flow_l_min if p.gas else None, tr("the gas flow"))(
        item, required, one, path
    )


def _word(of: Callable[[Pass], str | None], what: str) -> Check:
    def check(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
        value = of(one)
        if value is None:
            yield Outcome("undecided", path, ask=tr(what))
        else:
            yield of_set(item, value, path)

    return check


def _kind_of_current(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    pulsed = item.how == "with-pulse" and (one.pulse is not None or one.transfer == "pulsed")
    value = tr("{polarity} pulsed", polarity=one.polarity) if one.polarity and pulsed else one.polarity
    yield from _word(lambda _: value, tr("the polarity"))(item, required, one, path)


def _transfer(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    if one.transfer is None:
        yield Outcome("undecided", path, ask=tr("the metal transfer"))
        return
    value = one.transfer
    if value == "controlled-short-circuit" and value not in item.values and "short-circuit" in item.values:
        value = "short-circuit"
    yield of_set(item, value, path)


def _diameter(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    diameter = one.filler.diameter_mm if one.filler else None
    if diameter is None:
        yield Outcome("undecided", path, ask=tr("the filler's diameter"))
    elif item.kind == "set":
        same = any(abs(diameter - size) <= SAME_SIZE_MM for size in item.numbers)
        verdict: Verdict = "complies" if same else "violates"
        yield Outcome(verdict, path, value=diameter, limit=", ".join(f"{size:g} mm" for size in item.numbers))
    else:
        near = item.holds(diameter) or any(
            end is not None and abs(diameter - end) <= SAME_SIZE_MM for end in (item.min, item.max)
        )
        found = asked_span(item, diameter, path)
        yield replace(found, verdict="complies") if near and item.kind == "span" else found


def _gas(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    if item.kind == "unknown":
        yield Outcome("undecided", path)
        return
    limit = ", ".join(item.values)
    if one.gas is None:
        verdict: Verdict = "complies" if "none" in item.values else "undecided"
        yield Outcome(
            verdict, path, actual="none", limit=limit, ask="" if verdict == "complies" else tr("the gas")
        )
        return
    shares = {str(name): share for name, share in one.gas.components_percent.items()}
    yield _gas_outcome(item, shares, path)


def _gas_outcome(item: RangeItem, shares: dict[str, float], path: str) -> Outcome:
    text = gas_text(shares)
    limit = ", ".join(item.values)
    if item.how == "composition":
        return Outcome("complies" if text in item.values else "violates", path, actual=text, limit=limit)
    symbol = gas_symbol(shares).iso_14175
    holds = symbol in item.values
    if holds and item.numbers and shares.get("CO2", 0.0) > item.numbers[0] + 1e-9:
        return Outcome(
            "violates",
            path,
            actual=text,
            limit=tr("{limit} with CO2 up to {numbers:g} %", limit=limit, numbers=item.numbers[0]),
        )
    outside: Verdict = "undecided" if item.open_beyond else "violates"
    return Outcome("complies" if holds else outside, path, actual=f"{text} ({symbol})", limit=limit)


def _purge(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    if item.kind == "unknown":
        yield Outcome("undecided", path)
    elif one.purge is None:
        yield of_set(item, "none", path, words=tr("no backing gas"))
    else:
        shares = {str(name): share for name, share in one.purge.components_percent.items()}
        yield _gas_outcome(item, shares, path)


def _filler(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    name = one.filler.designation if one.filler else None
    if not name:
        yield Outcome("undecided", path, ask=tr("the filler"))
        return
    if item.kind == "unknown":
        yield Outcome("undecided", path, actual=name)
        return
    verdict = filler_verdict(item.how, item.values, name)
    yield Outcome(
        verdict,
        path,
        actual=name,
        limit=", ".join(item.values),
        ask=tr("a class that is understood here") if verdict == "undecided" else "",
    )


def _hydrogen(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    name = one.filler.designation if one.filler else None
    found = decode(name) if name else None
    mark = found.hydrogen_ml_100g if found and found.valid else None
    if item.kind == "unknown" or found is None or not found.valid:
        yield Outcome("undecided", path, ask=tr("the filler's hydrogen mark"))
    elif mark is None:
        solid = found.product.startswith(("solid", "rod"))
        if not solid:
            yield Outcome("undecided", path, ask=tr("the filler's hydrogen mark"))
    else:
        yield asked_span(item, mark, path)


def _make(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    make = one.filler.make if one.filler else None
    if item.kind == "unknown":
        yield Outcome("undecided", path, actual=make or "")
    elif make is None:
        yield Outcome("undecided", path, ask=tr("the filler's trade name"))
    else:
        yield of_set(item, make, path)


def _heat(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    planned = required.procedure.thermal.heat_input_kj_mm if required.procedure.thermal else None
    corners = required.heat_of(one)
    if item.kind == "unknown":
        yield Outcome("undecided", path)
        return
    if corners is None and planned is None:
        yield Outcome("undecided", path, ask=tr("volts, amps and travel"))
        return
    low, high = (
        (planned.min, planned.max) if planned else (corners.min_kj_mm, corners.max_kj_mm)  # type: ignore[union-attr]
    )
    where = "thermal.heat_input_kj_mm" if planned else path
    for end in (low, high):
        found = asked_span(item, end, where)
        if found.verdict != "complies":
            yield found
    if item.holds(low) and item.holds(high):
        yield asked_span(item, high, where)


def _electrodes(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    """Where a procedure states no number of electrodes it is one (common practice)."""
    yield of_set(item, str(one.electrodes.count if one.electrodes else 1), path)


def _apart(name: str) -> Check:
    def check(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
        if one.electrodes is None or one.electrodes.count == 1:
            return  # one electrode has no spacing; their number is a variable of its own
        value: float | None = getattr(one.electrodes, name)
        if value is None:
            yield Outcome("undecided", path, ask=tr("the spacing of the electrodes"))
        else:
            yield asked_span(item, value, path)

    return check


def _each_electrode(
    field: str, what: str
) -> Callable[[Sequence[RangeItem], RequiredScope], Iterator[Finding]]:
    """Ask each of several electrodes by itself; their number is a variable of its own."""

    def check_of(electrode: int) -> Check:
        def check(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
            wires = one.electrodes
            if wires is None or wires.count < 2 or wires.count < electrode:
                return
            settings = wires.each[electrode - 1] if electrode <= len(wires.each) else None
            value = getattr(settings, field, None)
            if value is None:
                yield Outcome(
                    "undecided",
                    path,
                    ask=tr("{what} of electrode {electrode}", what=tr(what), electrode=electrode),
                )
            elif isinstance(value, str):
                yield replace(
                    of_set(item, value, path), note=tr("electrode {electrode}", electrode=electrode)
                )
            else:
                ends = (value.min, value.max) if isinstance(value, Range) else (value,)
                answers = [asked_span(item, end, path) for end in dict.fromkeys(ends)]
                kept = all(answer.verdict == "complies" for answer in answers)
                for answer in answers[-1:] if kept else answers:
                    if kept or answer.verdict != "complies":
                        yield replace(answer, note=tr("electrode {electrode}", electrode=electrode))

        return check

    def findings(items: Sequence[RangeItem], required: RequiredScope) -> Iterator[Finding]:
        for electrode in sorted({item.electrode for item in items if item.electrode}):
            own = [item for item in items if item.electrode == electrode]
            yield from _each(check_of(electrode), f"electrodes.each.{electrode - 1}.{field}")(own, required)

    return findings


def _flux(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    value = flux_text(one)
    if value is None:
        yield Outcome("undecided", path, ask=tr("the flux and its trade name"))
    else:
        yield of_set(item, value, path)


def _supplement(item: RangeItem, required: RequiredScope, one: Pass, path: str) -> Iterator[Outcome]:
    """Powder or cut wire added to the flux is a process of its own by ISO 4063."""
    yield of_set(item, "metal powder" if one.process == "124" else "none", path)


PASS_VARIABLES: dict[str, Callable[[Sequence[RangeItem], RequiredScope], Iterator[Finding]]] = {
    "processes": _processes,
    "mechanisation": _each(
        _word(lambda p: p.mechanisation, tr_noop("the degree of mechanisation")), "mechanisation"
    ),
    "filler": _each(_filler, "filler.designation"),
    "filler_make": _each(_make, "filler.make"),
    "filler_diameter_mm": _each(_diameter, "filler.diameter_mm"),
    "hydrogen_class": _each(_hydrogen, "filler.designation"),
    "gas": _each(_gas, "gas"),
    "gas_flow_l_min": _each(_flow, "gas.flow_l_min"),
    "purge": _each(_purge, "purge"),
    "current_kind": _each(_kind_of_current, "polarity"),
    "output": _each(_word(lambda p: p.output, tr_noop("constant voltage or current")), "output"),
    "transfer_modes": _each(_transfer, "transfer"),
    "current_a": _each(_current, "current_a"),
    "voltage_v": _each(_span(lambda p: p.voltage_v, tr_noop("the voltage")), "voltage_v"),
    "wire_feed_m_min": _each(_wire_feed, "wire_feed_m_min"),
    "travel_mm_min": _each(_span(lambda p: p.travel_mm_min, tr_noop("the travel speed")), "travel_mm_min"),
    "run_out_mm": _each(_span(lambda p: p.run_out_mm, tr_noop("the run-out length")), "run_out_mm"),
    "bead": _each(_word(lambda p: p.bead, tr_noop("stringer or weave")), "bead"),
    "heat_input_kj_mm": _each(_heat, "travel_mm_min"),
    "electrodes": _each(_electrodes, "electrodes.count"),
    "electrode_spacing_mm": _each(_apart("spacing_mm"), "electrodes.spacing_mm"),
    "electrode_offset_mm": _each(_apart("offset_mm"), "electrodes.offset_mm"),
    "electrode_current_a": _each_electrode("current_a", tr_noop("the current")),
    "electrode_polarity": _each_electrode("polarity", tr_noop("the polarity")),
    "electrode_angle_deg": _each_electrode("angle_deg", tr_noop("the angle along the weld")),
    "electrode_across_deg": _each_electrode("across_deg", tr_noop("the angle across the weld")),
    "supplemental_filler": _each(_supplement, "process"),
    "oscillation": _each(lambda item, d, one, path: iter((Outcome("undecided", path),)), "bead"),
    "flux": _each(_flux, "flux.designation"),
}
