"""Does a range hold what is required? One answer for each variable."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace

from welding.documents.procedure import Joint, OpenRange
from welding.finding import Finding, Verdict
from welding.glossary.values import in_words
from welding.language import tr, tr_noop
from welding.qualification.compare_passes import PASS_VARIABLES
from welding.qualification.items import MetalPair, MetalSide, QualifiedRange, RangeItem
from welding.qualification.needs import Needs, specified_impact
from welding.qualification.outcome import Outcome, asked_span, finding_of, no_answer, of_set
from welding.qualification.positions import (
    has_progression,
    is_of_pipe,
    progression_of,
)
from welding.qualification.required_scope import RequiredScope

_READ_TO_MM = 0.05
"""Sections are read to a tenth of a millimetre."""
MetalGroup = Callable[[RequiredScope, int], tuple[str | None, str, float | None]]
"""Group, name and specified yield [MPa] of a required member (0 or 1) under the code."""


@dataclass(frozen=True, slots=True)
class Rules:
    """What a code brings to the comparison.

    Attributes:
        metal: Group, name and yield of a member.
        prequalified_groove: Whether the required groove is one that any test of a groove takes in.
        table_preheat_c: Preheat that the code's own table asks of the required joint [°C].
        position_in: Whether a stated position is among those of an item, in the symbols of the code.
        sides_rule_gouging: Whether the range of sides alone decides on a weld from one side without gouging.
        contradiction: What is stated of a member against what its grade is, in words.
    """

    metal: MetalGroup
    prequalified_groove: Callable[[RequiredScope], bool]
    table_preheat_c: Callable[[RequiredScope], float | None]
    position_in: Callable[[str, RequiredScope, RangeItem], Verdict]
    sides_rule_gouging: bool = False
    contradiction: Callable[[RequiredScope, int], str] = lambda required, index: ""


@dataclass(frozen=True, slots=True)
class _Asked:
    required: RequiredScope
    rules: Rules
    needs: Needs


def compare(
    found: QualifiedRange, required: RequiredScope, rules: Rules, needs: Needs
) -> tuple[Finding, ...]:
    """Findings on every variable; by the line of the code that blocks least where a test meets several."""
    asked = _Asked(required, rules, needs)
    lines = [tuple(_line(items, asked)) for _, items in found.lines()]
    return min(lines, key=_weight)


def _weight(findings: tuple[Finding, ...]) -> tuple[int, int]:
    return (
        sum(one.verdict == "violates" for one in findings),
        sum(one.verdict == "undecided" for one in findings),
    )


def _line(items: Iterable[RangeItem], asked: _Asked) -> Iterator[Finding]:
    required = asked.required
    of_passes: dict[str, list[RangeItem]] = {}
    for item in items:
        if not required.is_of(item.weld):
            continue
        of_joint = JOINT_VARIABLES.get(item.variable)
        if of_joint is not None:
            yield from (
                finding_of(item, required, one)
                for one in of_joint(item, asked)
                if _is_asked(item, one.verdict, asked.needs)
            )
        else:
            of_passes.setdefault(item.variable, []).append(item)
    for variable, found in of_passes.items():
        yield from PASS_VARIABLES[variable](found, required)


def verdict_on(item: RangeItem, required: RequiredScope, rules: Rules, needs: Needs) -> Verdict:
    """Worst verdict of one variable of the joint, without the sentences."""
    if not required.is_of(item.weld):
        return "not_applicable"
    worst: Verdict = "not_applicable"
    for one in JOINT_VARIABLES[item.variable](item, _Asked(required, rules, needs)):
        if not _is_asked(item, one.verdict, needs):
            continue
        if one.verdict == "violates":
            return "violates"
        if one.verdict == "undecided" or worst == "not_applicable":
            worst = one.verdict
    return worst


def _is_asked(item: RangeItem, verdict: Verdict, needs: Needs) -> bool:
    if item.how in ("only-if-impact", "not-of-this-joint"):
        return needs.impact
    return needs.hardness if item.how == "only-if-hardness" else True


# --- each variable of the joint -----------------------------------------------------------------


def thicknesses_asked(item: RangeItem, required: RequiredScope) -> list[tuple[int, float]]:
    """Members (0 or 1) with their thickness that an item is asked about; empty where one is not stated."""
    if item.member is None:
        return required.members_asked
    return [one for one in required.members_asked if one[0] == item.member - 1]


def _open_range(item: RangeItem, wanted: OpenRange | None, path: str) -> Iterator[Outcome]:
    """A production range against a span: an end without a limit needs a span without that limit."""
    if wanted is None or item.kind == "any":
        return
    for end, limit in (("min", item.min), ("max", item.max)):
        value = getattr(wanted, end)
        if value is not None:
            yield asked_span(item, value, f"{path}.{end}")
        elif limit is not None and not (end == "min" and limit <= 0):
            sense = "at least" if end == "min" else "at most"
            yield Outcome("violates", f"{path}.{end}", actual=tr("no limit"), limit_value=limit, sense=sense)


def _thickness(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    if item.kind == "any":
        yield Outcome("complies", "base_metals")
        return
    applies = required.procedure.applies_to
    if applies is not None and item.member is None:
        yield from _open_range(item, applies.thickness_mm, "applies_to.thickness_mm")
    if not required.thicknesses_mm:
        yield no_answer(required, "base_metals.0.thickness_mm", tr("the thickness"))
        return
    for index, t in thicknesses_asked(item, required):
        yield asked_span(item, t, f"base_metals.{index}.thickness_mm")


def _deposit(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    if item.kind == "any" or required.weld == "fillet":
        return
    if required.processes and item.process not in (*required.processes, None):
        return
    # Which of several processes lays down how much is settled by the procedure that will weld it.
    if required.open_welding and item.kind == "span" and len(required.processes) != 1:
        return
    t = required.weld_depth_mm
    if t is None:
        yield no_answer(required, "base_metals.0.thickness_mm", tr("the thickness"))
        return
    if len(required.processes) > 1:
        laid = required.deposits.get(item.process or "")
        if item.kind == "unknown" or laid is None or laid.mm is None:
            ask = (
                ""
                if laid is None or laid.mm is not None
                else tr("the thickness that process {process} deposits", process=item.process)
            )
            yield Outcome("undecided", "passes", ask=ask, note=laid.reason if laid and ask else "")
            return
        t = laid.mm
    yield asked_span(item, t, "passes")


def _groove_depth(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    joint = asked.required.joint
    if joint is None or joint.weld != "pjp-groove":
        return
    depth = asked.required.groove_depth_mm
    if depth is None:
        yield no_answer(asked.required, "joint.preparation", tr("the depth of the groove"))
    else:
        yield asked_span(item, depth, "joint.preparation.sides.0.depth_mm")


def _partial_size(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    """Weld size of a partial groove, which the sections of the tested piece have to show.

    ``numbers`` of an item hold what the size lacked of the groove's depth when tested: a shallower groove
    that is counted on for more of its depth is not shown by it.
    """
    path = "joint.throat_mm"
    if asked.rules.prequalified_groove(asked.required):
        yield Outcome("complies", path, actual=tr("a prequalified detail"))
        return
    joint, depth = asked.required.joint, asked.required.groove_depth_mm
    size = joint.throat_mm if joint else None
    if size is None:
        yield no_answer(asked.required, path, tr("the weld size E"))
        return
    found = asked_span(item, size, path)
    if found.verdict == "complies" and item.numbers and depth is not None:
        most = depth - item.numbers[0]
        if size > most + _READ_TO_MM:
            found = replace(found, verdict="undecided", limit_value=most, sense="at most")
    yield found


def _throat(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    applies = asked.required.procedure.applies_to
    if applies is not None and asked.required.weld == "fillet":
        yield from _open_range(item, applies.throat_mm, "applies_to.throat_mm")
    if asked.required.weld == "fillet" and item.kind != "any":
        throat = asked.required.throat_mm
        if throat is None:
            yield no_answer(asked.required, "joint.throat_mm", tr("the throat"))
        else:
            yield asked_span(item, throat, "joint.throat_mm")


def _fillet_size(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    if asked.required.weld == "fillet" and item.kind != "any":
        leg = asked.required.leg_mm
        if leg is None:
            yield no_answer(asked.required, "joint.leg1_mm", tr("the leg"))
        else:
            yield asked_span(item, leg, "joint.leg1_mm")


def _diameter(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    diameter = required.outside_diameter_mm
    if item.kind == "any":
        return
    applies = required.procedure.applies_to
    if applies is not None and not item.unless and item.how != "rotated":
        yield from _open_range(item, applies.outside_diameter_mm, "applies_to.outside_diameter_mm")
    if diameter is None:
        if not required.of_a_list and any(is_of_pipe(one) for one in required.procedure.positions):
            yield no_answer(
                required, "base_metals.0.outside_diameter_mm", tr("the outside diameter of the pipe")
            )
        return
    joint = required.joint
    found = asked_span(item, diameter, "base_metals.0.outside_diameter_mm")
    if found.verdict == "violates" and joint is not None:
        if ("backing" in item.unless and joint.backing == "metal") or (
            "back-gouge" in item.unless and joint.back_gouge
        ):
            found = replace(found, verdict="undecided", note=tr("small pipe on backing or gouged"))
        elif item.how == "rotated" and item.numbers and diameter > item.numbers[0]:
            if required.procedure.positions == ("PA",) or required.procedure.positions == ("1G",):
                found = replace(found, verdict="complies")
            elif set(required.procedure.positions) <= {"PA", "PC", "1G", "2G"}:
                found = replace(found, verdict="undecided", ask=tr("whether the pipe is rotated in PC"))
    yield found


def _branch(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    joint = asked.required.joint
    if joint is None or joint.kind != "branch" or item.kind == "any":
        return
    if joint.branch_angle_deg is None:
        yield no_answer(asked.required, "joint.branch_angle_deg", tr("the branch angle"))
    else:
        yield asked_span(item, joint.branch_angle_deg, "joint.branch_angle_deg")


def _metals(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    if len(required.metals) < 2:
        yield no_answer(required, "base_metals", tr("the base metals"))
        return
    sides = metal_sides(required, asked.rules)
    actual = " + ".join(f"{name or 'unnamed'}{f' ({group})' if group else ''}" for group, name, _ in sides)
    limit = "; ".join(in_words(one) for one in item.values)
    if item.kind == "unknown":
        yield Outcome("undecided", "base_metals", actual=actual, limit=limit)
        return
    if any(group is None and not name for group, name, _ in sides):
        yield no_answer(required, "base_metals.0.designation", tr("the base metals"))
        return
    against = next((said for index in (0, 1) if (said := asked.rules.contradiction(required, index))), "")
    if against:
        yield Outcome("undecided", "base_metals", actual=actual, limit=limit, note=against)
        return
    holds = any(_pair_holds(pair, sides) for pair in item.pairs)
    yield Outcome("complies" if holds else "violates", "base_metals", actual=actual, limit=limit)


def metal_sides(required: RequiredScope, rules: Rules) -> list[tuple[str | None, str, float | None]]:
    """Group, name and yield of both members, as the code sees them."""
    return [rules.metal(required, index) for index in (0, 1)]


def pairs_holding(item: RangeItem, required: RequiredScope, rules: Rules) -> tuple[str, ...]:
    """Pairs of an item of base metals, in its words, that the required metals belong to."""
    if len(required.metals) < 2:
        return ()
    sides = metal_sides(required, rules)
    return tuple(pair.text for pair in item.pairs if _pair_holds(pair, sides))


def _pair_holds(pair: MetalPair, sides: list[tuple[str | None, str, float | None]]) -> bool:
    a, b = sides
    return (_side_holds(pair.first, a) and _side_holds(pair.second, b)) or (
        _side_holds(pair.first, b) and _side_holds(pair.second, a)
    )


def _side_holds(side: MetalSide, metal: tuple[str | None, str, float | None]) -> bool:
    group, name, yield_mpa = metal
    if side.names:
        return name in side.names
    if group is None or not any(group == one or group.startswith(f"{one}.") for one in side.groups):
        return False
    if side.max_yield_mpa is None:
        return True
    return yield_mpa is not None and yield_mpa <= side.max_yield_mpa + 1e-9


def _welds(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    joint = asked.required.joint
    if joint is None:
        yield no_answer(asked.required, "joint.weld", tr("the weld"))
        return
    value = str(joint.weld)
    if item.how == "joint-and-weld" and joint.weld != "fillet":
        value = f"{joint.kind} {joint.weld}"
    yield of_set(item, value, "joint.weld")


def _positions(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    stated = required.procedure.positions
    if not stated:
        yield no_answer(required, "positions", tr("the position"))
        return
    if item.kind in ("any", "unknown"):
        yield Outcome(
            "complies" if item.kind == "any" else "undecided", "positions", actual=", ".join(stated)
        )
        return
    for index, position in enumerate(stated):
        verdict = asked.rules.position_in(position, required, item)
        yield Outcome(
            verdict,
            f"positions.{index}",
            actual=position,
            limit=", ".join(item.values),
            ask=tr("the progression") if verdict == "undecided" else "",
        )


def _progression(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    vertical = [p for p in required.procedure.positions if has_progression(p)]
    if not vertical or item.kind == "any":
        return
    if item.kind == "unknown":
        yield Outcome("undecided", "passes.0.progression")
        return
    for position in vertical:
        stated = progression_of(position, required.progression)
        if len(required.progressions) > 1:
            stated = next((one for one in required.progressions if one not in item.values), None)
        if stated is None:
            yield no_answer(required, "passes.0.progression", tr("the progression"))
        else:
            yield of_set(item, stated, "passes.0.progression")


def _sides(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    joint = asked.required.joint
    if joint is None or item.kind == "any":
        return
    both = joint.sides == "both" or joint.back_gouge
    yield of_set(item, "both" if both else "one", "joint.sides")


def _backing(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    joint = asked.required.joint
    if joint is None or item.kind == "any":
        return
    if "both-sides" in item.unless and (joint.sides == "both" or joint.back_gouge):
        yield Outcome("complies", "joint.backing", actual=tr("both sides"), limit=", ".join(item.values))
        return
    found = of_set(
        item, joint.backing, "joint.backing", words=tr("without backing") if joint.backing == "none" else ""
    )
    yield _as_detailed(item, asked, found)


def _gouge(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    joint = asked.required.joint
    if joint is None or item.kind == "any":
        return
    if asked.rules.sides_rule_gouging and joint.sides == "one" and not joint.back_gouge:
        return  # the sides block already
    found = of_set(item, "back-gouged" if joint.back_gouge else "not gouged", "joint.back_gouge")
    yield _as_detailed(item, asked, found)


def _runs(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    if item.kind == "any" or required.open_welding:
        return
    if item.process is not None and not any(item.is_for(one) for one in required.processes):
        return
    yield of_set(item, required.run_kind(item.process), "passes")


def _groove(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    joint = asked.required.joint
    if joint is None or joint.weld == "fillet" or item.kind == "any":
        return
    if joint.preparation is None:
        if not asked.required.of_a_list:
            yield no_answer(asked.required, "joint.preparation", tr("the form of the groove"))
        return
    found = of_set(item, joint.preparation.form, "joint.preparation.form")
    if found.verdict != "complies" and item.how == "form-or-prequalified":
        square = "square" in (joint.preparation.form, *item.values)
        if not square and asked.rules.prequalified_groove(asked.required):
            found = replace(found, verdict="complies", limit=tr("a prequalified detail"))
    yield found


def _as_detailed(item: RangeItem, asked: _Asked, found: Outcome) -> Outcome:
    """A prequalified detail of a complete groove may be used in place of the tested one."""
    joint = asked.required.joint
    excused = item.how == "or-prequalified" and joint is not None and joint.weld == "cjp-groove"
    if found.verdict != "complies" and excused and asked.rules.prequalified_groove(asked.required):
        return replace(found, verdict="complies", limit=tr("a prequalified detail"), note="")
    return found


def _dimension(
    of: Callable[[RequiredScope], float | None], path: str, words: str
) -> Callable[[RangeItem, _Asked], Iterator[Outcome]]:
    def check(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
        joint = asked.required.joint
        if joint is None or joint.preparation is None or joint.weld == "fillet" or item.kind == "any":
            return
        value = of(asked.required)
        if value is None:
            if not asked.required.of_a_list and not _has_none(joint, path):
                yield no_answer(asked.required, path, words)
            return
        yield _as_detailed(item, asked, asked_span(item, value, path))

    return check


def _has_none(joint: Joint, path: str) -> bool:
    """Whether a form of groove has no such dimension: a square one no angle and no root face."""
    square = joint.preparation is not None and joint.preparation.form == "square"
    return square and not path.endswith("root_gap_mm")


def _of_preparation(name: str) -> Callable[[RequiredScope], float | None]:
    def of(required: RequiredScope) -> float | None:
        preparation = required.joint.preparation if required.joint else None
        value = getattr(preparation, name) if preparation else None
        if value is None and name == "included_angle_deg" and preparation and preparation.sides:
            return min((s.angle_deg for s in preparation.sides if s.angle_deg is not None), default=None)
        return float(value) if value is not None else None

    return of


def _preheat(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    if required.open_welding or item.kind == "any":
        return
    path = "thermal.preheat_min_c"
    stated = required.procedure.thermal.preheat_min_c if required.procedure.thermal else None
    if stated is None:
        yield no_answer(required, path, tr("the preheat"))
        return
    yield asked_span(item, stated, path)
    if item.how == "production-preheat":
        yield from _against_table(item, asked, stated)


def _against_table(item: RangeItem, asked: _Asked, stated: float) -> Iterator[Outcome]:
    """The table binds prequalified work: below it a test counts where the engineer says why it is enough.

    What was tested says nothing of cracking in thicker metal. A steel without a row goes by its test.
    """
    required = asked.required
    least = asked.rules.table_preheat_c(required)
    if least is None:
        return
    path = "thermal.preheat_min_c"
    table = tr("the code's table for the production thickness")
    if stated >= least - 1e-6:
        yield Outcome("complies", path, value=stated, limit_value=least, sense="at least", note=table)
        return
    reason = required.procedure.thermal.preheat_reason if required.procedure.thermal else None
    asked_mm: list[float | None] = [t for _, t in required.members_asked]
    applies = required.procedure.applies_to
    if applies is not None and applies.thickness_mm is not None:
        asked_mm.append(applies.thickness_mm.max)  # open upwards is thicker than anything tested
    tested_mm = item.numbers[0] * (1 + 1e-9) if item.numbers else 0.0
    as_thick = bool(asked_mm) and all(t is not None and t <= tested_mm for t in asked_mm)
    asks = tr("{table} asks for {least}", table=table, least=required.draft.write(least, "temperature"))
    if reason and as_thick:
        yield Outcome(
            "complies",
            path,
            value=stated,
            note=tr("{asks}; the record proves less: {reason}", asks=asks, reason=reason),
        )
    elif as_thick:
        note = tr("{asks}, and no reason is stated why less is enough", asks=asks)
        yield Outcome("undecided", "thermal.preheat_reason", value=stated, note=note)
    else:
        yield Outcome(
            "undecided", path, value=stated, note=tr("{asks}, and no coupon as thick was tested", asks=asks)
        )


def _interpass(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    if required.open_welding or item.kind == "any" or len(required.procedure.passes) == 1:
        return  # a single pass has none before it
    thermal = required.procedure.thermal
    most, least = (thermal.interpass_max_c, thermal.preheat_min_c) if thermal else (None, None)
    if item.kind == "unknown":
        yield Outcome("undecided", "thermal.interpass_max_c")
        return
    if item.max is not None:
        if most is None:
            yield no_answer(required, "thermal.interpass_max_c", tr("the highest interpass temperature"))
        else:
            yield asked_span(replace(item, min=None), most, "thermal.interpass_max_c")
    if item.min is not None and least is not None:
        yield asked_span(replace(item, max=None), least, "thermal.preheat_min_c")


def _post_heat(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    required = asked.required
    if required.open_welding or item.kind == "any":
        return
    held = required.procedure.thermal.post_heat if required.procedure.thermal else None
    enough = held is not None and held.temperature_c >= item.numbers[0] and held.hold_min >= item.numbers[1]
    said = (
        tr(
            "{temperature_c:g} °C for {hold_min:g} min",
            temperature_c=held.temperature_c,
            hold_min=held.hold_min,
        )
        if held
        else "none"
    )
    yield Outcome(
        "complies" if enough else "violates", "thermal.post_heat", actual=said, limit=", ".join(item.values)
    )


def _pwht(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    treated = asked.required.heat_treated
    if treated is None or item.kind == "any":
        return
    yield of_set(item, "heat-treated after welding" if treated else "not heat-treated", "thermal.pwht")


def _hold_c(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    thermal = asked.required.procedure.thermal
    pwht = thermal.pwht if thermal else None
    if pwht is None or item.kind == "any":
        return
    if pwht.hold_c is None:
        yield no_answer(asked.required, "thermal.pwht.hold_c", tr("the holding temperature"))
        return
    for end in (pwht.hold_c.min, pwht.hold_c.max):
        found = asked_span(item, end, "thermal.pwht.hold_c")
        if found.verdict != "complies":
            yield found
            return
    yield asked_span(item, pwht.hold_c.max, "thermal.pwht.hold_c")


def _hold_min(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    thermal = asked.required.procedure.thermal
    pwht = thermal.pwht if thermal else None
    if pwht is None or item.kind == "any":
        return
    if pwht.hold_min is None:
        yield no_answer(asked.required, "thermal.pwht.hold_min", tr("the holding time"))
    else:
        yield asked_span(item, pwht.hold_min, "thermal.pwht.hold_min")


def _impact(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    requirements = asked.required.procedure.requirements
    wanted = requirements.impact if requirements else None
    path = "requirements.impact"
    if item.how == "not-of-this-joint":
        yield from _impact_of_a_joint_without(item, asked, wanted not in (None, False))
        return
    if item.kind == "unknown":
        yield Outcome("violates", path, actual=tr("required"), limit=tr("no impact tests that prove it"))
        return
    if wanted is None or isinstance(wanted, bool):
        specified = [found for one in asked.required.metals if (found := specified_impact(one))]
        if not specified:
            yield no_answer(asked.required, path, tr("the temperature at which impact toughness is required"))
            return
        yield asked_span(item, min(one.temperature_c for one in specified), path)
        yield from _impact_energy(item, max(one.energy_j for one in specified), path)
        return
    yield asked_span(item, wanted.temperature_c, path)
    yield from _impact_energy(item, wanted.average_j, path)


def _impact_of_a_joint_without(item: RangeItem, asked: _Asked, explicit: bool) -> Iterator[Outcome]:
    """A T-butt or branch coupon has no impact sets: its kind of joint asks none, the application may."""
    joint, path = asked.required.joint, "requirements.impact"
    if explicit or joint is None or joint.kind not in ("t", "corner", "branch"):
        yield Outcome("violates", path, actual=tr("required"), limit=tr("no impact tests that prove it"))
        return
    yield Outcome(
        "complies",
        path,
        actual=tr("not tested on this kind of joint"),
        note=tr("where toughness matters to the application, hold a butt weld qualification beside it"),
    )


def _impact_energy(item: RangeItem, wanted_j: float, path: str) -> Iterator[Outcome]:
    """A record proves an energy as well as a temperature."""
    shown = item.numbers[0] if item.numbers else None
    if shown is not None and shown >= wanted_j - 1e-9:
        return
    yield Outcome(
        "undecided" if shown is None else "violates",
        path,
        actual=f"{wanted_j:g} J",
        limit=f"{shown:.1f} J" if shown is not None else "",
        ask=tr("the energy that the record's sets showed") if shown is None else "",
    )


def _hardness(item: RangeItem, asked: _Asked) -> Iterator[Outcome]:
    tested = item.kind != "unknown"
    yield Outcome(
        "complies" if tested else "violates",
        "requirements.hardness",
        actual=tr("required"),
        limit="tested" if tested else tr("no hardness traverse"),
    )


JOINT_VARIABLES: dict[str, Callable[[RangeItem, _Asked], Iterator[Outcome]]] = {
    "parent_thickness_mm": _thickness,
    "deposited_thickness_mm": _deposit,
    "groove_depth_mm": _groove_depth,
    "partial_weld_size_mm": _partial_size,
    "throat_mm": _throat,
    "fillet_size_mm": _fillet_size,
    "outside_diameter_mm": _diameter,
    "branch_angle_deg": _branch,
    "base_metals": _metals,
    "weld_kinds": _welds,
    "positions": _positions,
    "progression": _progression,
    "sides": _sides,
    "backing": _backing,
    "back_gouge": _gouge,
    "runs_per_side": _runs,
    "groove": _groove,
    "groove_angle_deg": _dimension(
        _of_preparation("included_angle_deg"),
        "joint.preparation.included_angle_deg",
        tr_noop("the groove angle"),
    ),
    "root_gap_mm": _dimension(
        _of_preparation("root_gap_mm"), "joint.preparation.root_gap_mm", tr_noop("the root opening")
    ),
    "root_face_mm": _dimension(
        _of_preparation("root_face_mm"), "joint.preparation.root_face_mm", tr_noop("the root face")
    ),
    "preheat_c": _preheat,
    "interpass_c": _interpass,
    "post_heat": _post_heat,
    "pwht": _pwht,
    "pwht_hold_c": _hold_c,
    "pwht_hold_min": _hold_min,
    "impact_temperature_c": _impact,
    "hardness": _hardness,
}
