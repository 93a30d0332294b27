"""What the sheet of a procedure states of the joints that it is for, asked of one joint."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import inf

from welding.citation import COMMON_PRACTICE
from welding.coverage.covers import required_of
from welding.coverage.record import InForce, in_force, ranges_of
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import AppliesTo, Code, OpenRange, Procedure
from welding.documents.record import QualificationRecord
from welding.finding import Finding, Verdict
from welding.glossary.values import in_words
from welding.language import tr
from welding.metals.catalogue import find
from welding.qualification.compare import pairs_holding
from welding.qualification.required_scope import RequiredScope
from welding.quantities.writing import quantity_text

_SAME_MM = 0.05


@dataclass(frozen=True, slots=True, kw_only=True)
class _Question:
    procedure: Procedure
    joint: JointToWeld
    own: RequiredScope
    asked: RequiredScope
    force: InForce
    records: Sequence[QualificationRecord]

    @property
    def applies(self) -> AppliesTo:
        return self.procedure.applies_to or AppliesTo()

    def text(self, value: float, quantity: str) -> str:
        return quantity_text(value, quantity, self.force.code.units)


@dataclass(frozen=True, slots=True)
class _Size:
    """A size of the joint against what the sheet states: ``margin`` is the share of it that is left."""

    margin: float
    finding: Finding


def stated_limits(
    procedure: Procedure, joint: JointToWeld, records: Sequence[QualificationRecord], code: Code
) -> tuple[float, tuple[Finding, ...]]:
    """Each fact of a joint against what the sheet of a procedure states.

    What the sheet does not state is what it is drawn for: its own thickness, diameter, size and metals.

    Args:
        procedure: The procedure.
        joint: The joint.
        records: Records that support it; their pairs of base metals are what the sheet's words name.
        code: Code of the list.

    Returns:
        The least margin of a size inside its limits, as a share of that size (``inf`` without a limit), and
        the findings.
    """
    own_code = procedure.code
    if own_code is None or own_code.id != code.id:
        named = own_code.id if own_code else tr("no code")
        said = tr("The WPS is written to {own}, the weld list to {asked}.", own=named, asked=code.id)
        return 0.0, (_finding("wps.code", "violates", tr("Code"), said, path="code.id"),)
    force = in_force(code, code.id, code.level)
    question = _Question(
        procedure=procedure,
        joint=joint,
        own=required_of(procedure, force),
        asked=required_of(joint, force),
        force=force,
        records=records,
    )
    weld = tuple(_weld(question))
    if any(one.verdict == "violates" for one in weld):
        return 0.0, weld  # sizes of another weld are not compared
    sizes = [*_thicknesses(question), *_diameter(question), *_fillet_size(question)]
    others = [found for ask in (_edge, _welding, _positions, _metals, _pwht) for found in ask(question)]
    return (
        min((one.margin for one in sizes), default=inf),
        (*weld, *(one.finding for one in sizes), *others),
    )


def _finding(
    rule: str, verdict: Verdict, title: str, message: str, *, path: str = "", remedy: str = ""
) -> Finding:
    return Finding(
        rule=rule, verdict=verdict, path=path, title=title, message=message, remedy=remedy,
        citations=(COMMON_PRACTICE,),
    )  # fmt: skip


# --- sizes --------------------------------------------------------------------------------------------


def _size(
    question: _Question,
    rule: str,
    quantity: str,
    value: float,
    stated: OpenRange | None,
    drawn: Sequence[float],
    path: str,
) -> _Size:
    """A size against the range of the sheet; against what it is drawn for where it states no range."""
    title = {
        "wps.thickness": tr("Thickness"),
        "wps.diameter": tr("Outside diameter"),
        "wps.size": tr("Size"),
    }[rule]
    here = question.text(value, quantity)
    if stated is None:
        holds = any(abs(value - one) <= _SAME_MM for one in drawn)
        of = ", ".join(question.text(one, quantity) for one in dict.fromkeys(drawn)) or tr("no size")
        said = (
            tr("{value}: the WPS is drawn for it.", value=here)
            if holds
            else tr("{value}: the WPS is drawn for {drawn} and states no range.", value=here, drawn=of)
        )
        return _Size(0.0, _finding(rule, "complies" if holds else "violates", title, said, path=path))
    low, high = stated.min, stated.max
    holds = (low is None or value >= low - 1e-9) and (high is None or value <= high + 1e-9)
    span = " ".join(
        part
        for part in (
            tr("from {end}", end=question.text(low, quantity)) if low is not None else "",
            tr("up to {end}", end=question.text(high, quantity)) if high is not None else "",
        )
        if part
    ) or tr("any size")
    said = (
        tr("{value} is inside what the WPS states: {span}.", value=here, span=span)
        if holds
        else tr("{value} is outside what the WPS states: {span}.", value=here, span=span)
    )
    margin = min(
        (value - low) / value if low is not None else inf, (high - value) / value if high is not None else inf
    )
    return _Size(
        margin if holds else 0.0,
        _finding(rule, "complies" if holds else "violates", title, said, path=path),
    )


def _unstated(rule: str, title: str, what: str, path: str) -> _Size:
    said = tr("The weld list does not state {what}.", what=what)
    return _Size(0.0, _finding(rule, "undecided", title, said, path=path))


def _thicknesses(question: _Question) -> Iterator[_Size]:
    path = "base_metals.0.thickness_mm"
    if not question.asked.thicknesses_mm:
        yield _unstated("wps.thickness", tr("Thickness"), tr("the thickness"), path)
        return
    stated = question.applies.thickness_mm
    drawn = question.own.thicknesses_mm
    for index, value in question.asked.members_asked:
        # Of a fillet drawn for two thicknesses either may lie on either side.
        of = drawn if question.asked.weld == "fillet" else [t for _, t in question.own.members_asked]
        yield _size(
            question, "wps.thickness", "thickness", value, stated, of, f"base_metals.{index}.thickness_mm"
        )


def _diameter(question: _Question) -> Iterator[_Size]:
    path = "base_metals.0.outside_diameter_mm"
    asked, own = question.asked.outside_diameter_mm, question.own.outside_diameter_mm
    stated = question.applies.outside_diameter_mm
    title = tr("Outside diameter")
    if asked is not None and own is None and stated is None:
        said = tr("The WPS is drawn for plate and states no pipe.")
        remedy = tr("State the outside diameters in the WPS.")
        yield _Size(0.0, _finding("wps.diameter", "undecided", title, said, path=path, remedy=remedy))
    elif asked is not None:
        drawn = () if own is None else (own,)
        yield _size(question, "wps.diameter", "diameter", asked, stated, drawn, path)
    elif own is not None and (stated is None or stated.max is not None):
        said = tr("The WPS is drawn for pipe and does not state plate.")
        remedy = tr("State outside diameters without an upper limit in the WPS.")
        yield _Size(0.0, _finding("wps.diameter", "undecided", title, said, path=path, remedy=remedy))


def _fillet_size(question: _Question) -> Iterator[_Size]:
    if question.asked.weld != "fillet":
        return
    value = question.asked.throat_mm
    if value is None:
        yield _unstated("wps.size", tr("Size"), tr("the size of the fillet"), "joint.throat_mm")
        return
    own = question.own.throat_mm
    drawn = () if own is None else (own,)
    yield _size(question, "wps.size", "gap", value, question.applies.throat_mm, drawn, "joint.throat_mm")


# --- the joint and how it is welded -------------------------------------------------------------------


def _weld(question: _Question) -> Iterator[Finding]:
    own, asked = question.procedure.joint, question.joint.joint
    if own is None:
        said = tr("The WPS states no joint.")
        yield _finding("wps.weld", "undecided", tr("Joint"), said, path="joint")
        return
    have, want = in_words(f"{own.kind} {own.weld}"), in_words(f"{asked.kind} {asked.weld}")
    same = (own.kind, own.weld) == (asked.kind, asked.weld)
    said = (
        tr("The WPS is for: {own}.", own=have)
        if same
        else tr("The WPS is for: {own}; the weld list asks for: {asked}.", own=have, asked=want)
    )
    yield _finding("wps.weld", "complies" if same else "violates", tr("Joint"), said, path="joint.weld")


def _edge(question: _Question) -> Iterator[Finding]:
    own, asked = question.procedure.joint, question.joint.joint
    if own is None or asked.weld == "fillet":
        return
    if asked.preparation is not None:
        form: str = own.preparation.form if own.preparation else ""
        same = form == asked.preparation.form
        said = tr(
            "Edge preparation of the WPS: {own}; of the weld list: {asked}.",
            own=in_words(form) if form else tr("not stated"),
            asked=in_words(asked.preparation.form),
        )
        verdict: Verdict = "complies" if same else "violates" if form else "undecided"
        yield _finding(
            "wps.preparation", verdict, tr("Edge preparation"), said, path="joint.preparation.form"
        )
    # A list that says nothing of sides and backing is read as one side without backing.
    for rule, title, have, want, silent in (
        ("wps.sides", tr("Sides"), own.sides, asked.sides, "one"),
        ("wps.backing", tr("Backing"), own.backing, asked.backing, "none"),
    ):
        if have == want:
            continue
        said = tr(
            "{title}: {own} in the WPS, {asked} in the weld list.",
            title=title,
            own=in_words(have),
            asked=tr("{value} or nothing", value=in_words(want)) if want == silent else in_words(want),
        )
        remedy = tr("State it in the weld list.") if want == silent else ""
        verdict = "undecided" if want == silent else "violates"
        yield _finding(rule, verdict, title, said, path=f"joint.{rule.removeprefix('wps.')}", remedy=remedy)


def _welding(question: _Question) -> Iterator[Finding]:
    processes = question.own.processes
    wanted = question.joint.process
    if wanted is not None and set(processes) != {wanted}:
        said = tr(
            "The weld list asks for process {asked}; the WPS welds with {own}.",
            asked=wanted,
            own=", ".join(processes) or tr("no process"),
        )
        yield _finding("wps.process", "violates", tr("Process"), said, path="passes.0.process")
    upward = question.joint.progression
    if upward is not None:
        stated = set(question.own.progressions)
        verdict: Verdict = "complies" if stated == {upward} else "violates" if stated else "undecided"
        said = tr(
            "Progression: {own} in the WPS, {asked} in the weld list.",
            own=", ".join(in_words(one) for one in stated) or tr("not stated"),
            asked=in_words(upward),
        )
        yield _finding("wps.progression", verdict, tr("Progression"), said, path="passes.0.progression")


def _positions(question: _Question) -> Iterator[Finding]:
    own, asked = question.procedure.positions, question.joint.positions
    outside = [one for one in asked if one not in own]
    said = tr(
        "Positions of the WPS: {own}; of the weld list: {asked}.",
        own=", ".join(own) or tr("not stated"),
        asked=", ".join(asked) or tr("not stated"),
    )
    verdict: Verdict = "violates" if outside else "complies" if own else "undecided"
    yield _finding("wps.positions", verdict, tr("Positions"), said, path="positions")


def _metals(question: _Question) -> Iterator[Finding]:
    path, title = "base_metals", tr("Base metals")
    have = [one.designation for one in question.own.metals]
    want = [one.designation for one in question.asked.metals]
    if len(want) < 2 or not all(want):
        said = tr("The weld list does not state {what}.", what=tr("the base metals"))
        yield _finding("wps.base-metals", "undecided", title, said, path=path)
        return
    asked = " + ".join(one or "" for one in want)
    if len(have) == 2 and sorted(map(_grade, have)) == sorted(map(_grade, want)):
        yield _finding(
            "wps.base-metals", "complies", title, tr("{pair}: stated in the WPS.", pair=asked), path=path
        )
        return
    named = question.applies.base_metals
    if not named:
        own = " + ".join(one or "?" for one in have) or tr("no metals")
        said = tr("The WPS is for {own}, the weld list has {asked}.", own=own, asked=asked)
        yield _finding("wps.base-metals", "violates", title, said, path=path)
        return
    held, known = _pairs(question)
    listed = "; ".join(named)
    if held & set(named):
        said = tr("{pair} is among the metals that the WPS states: {listed}.", pair=asked, listed=listed)
        yield _finding("wps.base-metals", "complies", title, said, path=path)
    elif set(named) <= known:
        said = tr("{pair} is not among the metals that the WPS states: {listed}.", pair=asked, listed=listed)
        yield _finding("wps.base-metals", "violates", title, said, path=path)
    else:
        said = tr(
            "Whether {pair} is among the metals that the WPS states is not known: {listed}.",
            pair=asked,
            listed=listed,
        )
        yield _finding("wps.base-metals", "undecided", title, said, path=path)


def _grade(name: str | None) -> str:
    metal = find(name or "")
    return metal.name if metal else (name or "")


def _pairs(question: _Question) -> tuple[set[str], set[str]]:
    """Pairs in the words of the records' ranges: those that the joint belongs to, and all of them."""
    qualification = question.force.edition.qualification
    needs = qualification.needs(question.asked.need_facts, question.force.level)
    held: set[str] = set()
    known: set[str] = set()
    for found in ranges_of(question.records, question.force, needs, joint_alone=True):
        for item in found.of("base_metals"):
            held.update(pairs_holding(item, question.asked, qualification.rules))
            known.update(item.values)
    return held, known


def _pwht(question: _Question) -> Iterator[Finding]:
    treats = bool(question.procedure.thermal and question.procedure.thermal.pwht)
    asked = question.joint.pwht
    if asked is None and not treats:
        return
    have = tr("with PWHT") if treats else tr("without PWHT")
    if asked is None:
        said = tr("The WPS is {own}; the weld list does not state it.", own=have)
        yield _finding("wps.pwht", "undecided", tr("PWHT"), said, path="thermal.pwht")
        return
    want = tr("with PWHT") if asked else tr("without PWHT")
    said = tr("The WPS is {own}, the weld list asks for a joint {asked}.", own=have, asked=want)
    yield _finding(
        "wps.pwht", "complies" if asked == treats else "violates", tr("PWHT"), said, path="thermal.pwht"
    )
