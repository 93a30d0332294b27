"""``find_causes``: causes of a symptom, ranked by what is known here, each with check, remedy and limits.

Odds are those of practice times what each sign, each quick check and each earlier cure says: a naive Bayes
reckoning whose weights are a judgement (table ``fault_weights``). It ranks; it proves nothing.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import Any, Literal

from welding.bead.from_procedure import HEAT, limits_of
from welding.citation import Citation
from welding.codebook.table import load_table
from welding.documents.fault_case import FaultCase
from welding.errors import UnknownEntryError
from welding.faults.signs import Known
from welding.language import tr, tr_noop
from welding.quantities.writing import System
from welding.ranges import Range

PACKAGE = "welding.faults"
Where = Literal["inside", "engineer", "shop"]
ALIKE = 0.55
WORTH_A_WORD = 3
LEAST_STEP = 1e-9
CAUTION = tr_noop(
    "A check that changes a setting is made on scrap, never on the work. A crack stops the welding until the "
    "welding engineer has seen it."
)
GROUPS: Mapping[str, str] = {
    "porosity": tr_noop("Porosity"),
    "cracks": tr_noop("Cracks"),
    "shape": tr_noop("Shape of the bead"),
    "fusion": tr_noop("Fusion"),
    "root": tr_noop("Root"),
    "slag": tr_noop("Slag"),
    "tungsten": tr_noop("Tungsten"),
    "colour": tr_noop("Colour and soot"),
    "arc": tr_noop("Arc"),
    "feed": tr_noop("Wire feed"),
    "heat": tr_noop("Settings and temperature"),
    "distortion": tr_noop("Distortion"),
    "fit-up": tr_noop("Fit-up"),
    "tests": tr_noop("Test results"),
}
"""What symptoms are shown together, in this order."""
OF_THE_WELDER = ("torch_angle_deg", "inductance_percent", "post_flow_s")
"""Technique and settings that no procedure here fixes by a range."""
HEATS = {"current_a": True, "wire_feed_m_min": True, "voltage_v": True, "travel_mm_min": False}
"""Settings that move the heat input, and whether more of them is more heat."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Symptom:
    """One thing that is seen, heard or found.

    Attributes:
        key: What it is known by.
        title: What it is called.
        group: What it is shown with, by key.
        sensed: How it is found.
        also: What else people call it.
        findings: Rules whose breach at a pass is this symptom, with ``+`` above and ``-`` below a range.
    """

    key: str
    title: str
    group: str
    sensed: tuple[str, ...]
    also: tuple[str, ...]
    findings: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Evidence:
    """A fact that speaks for (or against) a cause."""

    sign: str
    holds: bool
    words: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """One thing to do.

    Attributes:
        words: What to do.
        where: ``inside`` the procedure; ``engineer``: it would leave what the procedure fixes and is no
            knob of the welder's; ``shop``: nothing that the procedure fixes.
        field: Setting that it moves; empty where none.
        direction: Which way.
        limit: Range of that setting in the procedure, where it has one.
    """

    words: str
    where: Where
    field: str
    direction: str
    limit: Range | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Cause:
    """One cause with its place in the ranking.

    Attributes:
        row: What it is known by.
        cause: What is wrong.
        share: Share of the odds among the causes that are left, 0 to 1.
        prior: How often it is the cause in practice.
        evidence: Facts known here that speak for or against it.
        look_for: What else speaks for it, where a person has to look.
        check: One quick check that tells it apart.
        remedies: What to do, in the order practice tries it.
        caution: What to mind.
        ticked: What the quick check said, ``None`` where it was not made.
        citation: Where the row stands.
    """

    row: str
    cause: str
    share: float
    prior: str
    evidence: tuple[Evidence, ...]
    look_for: str
    check: str
    remedies: tuple[Remedy, ...]
    caution: str
    ticked: bool | None
    citation: Citation


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """Causes of a symptom, the likeliest first; ``caution`` is said with every answer."""

    symptom: Symptom
    causes: tuple[Cause, ...]
    caution: str


def symptoms() -> tuple[Symptom, ...]:
    """Every symptom, in the order of the table."""
    return tuple(
        Symptom(
            key=row["symptom"],
            title=tr(row["title"]),
            group=row["group"],
            sensed=tuple(row["sensed"]),
            also=tuple(row["also"]),
            findings=tuple(row["findings"]),
        )
        for row in load_table(PACKAGE, "fault_symptoms").rows
    )


def symptoms_called(text: str) -> tuple[Symptom, ...]:
    """Symptoms that words may mean, the likeliest first; empty where nobody knows them.

    Example:
        >>> [one.key for one in symptoms_called("sugar on the root")][:1]
        ['sugared-root']
    """
    every, said = symptoms(), text.strip().lower()
    exact = next((one for one in every if one.key == said), None)
    if exact is not None:
        return (exact,)
    wanted = _words(text)
    scored = []
    for one in every:
        names = (one.key.replace("-", " "), one.title, *one.also)
        score = max(_likeness(wanted, _words(name)) for name in names)
        if score >= ALIKE:
            scored.append((score, one))
    return tuple(one for _, one in sorted(scored, key=lambda pair: -pair[0]))


@dataclass(frozen=True, slots=True)
class CauseRow:
    """A row of the table of causes."""

    symptom: str
    cause: str
    remedies: tuple[str, ...]


def remedies_of(row: str) -> CauseRow | None:
    """A cause and its remedies, in the words of the table; ``None`` where there is no such row.

    Example:
        >>> remedies_of("pores.1").remedies[0]
        'Open or change the cylinder'
    """
    found = next((one for one in load_table(PACKAGE, "fault_causes").rows if one["row"] == row), None)
    if found is None:
        return None
    return CauseRow(found["symptom"], found["cause"], tuple(found["remedies"]))


def _words(text: str) -> list[str]:
    return [word for word in re.findall(r"\w+", text.lower()) if len(word) >= WORTH_A_WORD]


def _likeness(wanted: list[str], name: list[str]) -> float:
    """How much of what was said is in a name: a share of its words, each as alike as its best match."""
    if not wanted or not name:
        return 0.0
    best = [max(SequenceMatcher(None, word, other).ratio() for other in name) for word in wanted]
    found = [one for one in best if one > 0.75]
    back = [max(SequenceMatcher(None, word, other).ratio() for other in wanted) for word in name]
    return 0.6 * sum(found) / len(wanted) + 0.4 * sum(one for one in back if one > 0.75) / len(name)


def find_causes(case: FaultCase, system: System = "si") -> Answer:
    """Rank the causes of a symptom.

    Args:
        case: The symptom and what is known.
        system: Unit system of the sentences.

    Raises:
        UnknownEntryError: Nobody knows the symptom; what it may have been meant for is named.
    """
    found = symptoms_called(case.symptom)
    if not found:
        raise UnknownEntryError(case.symptom, tuple(one.key for one in symptoms()))
    symptom, known = found[0], Known(case, system)
    table = load_table(PACKAGE, "fault_causes")
    weights = {row["what"]: row["odds"] for row in load_table(PACKAGE, "fault_weights").rows}
    rows = [row for row in table.rows if row["symptom"] == symptom.key and _can_be(row, known)]
    limits = (
        limits_of(case.procedure, known.planned, case.qualified) if case.procedure and known.planned else {}
    )
    scored = [(row, *_odds(row, known, weights)) for row in rows]
    whole = sum(odds for _, odds, _ in scored) or 1.0
    causes = [
        _cause(row, odds / whole, evidence, known, limits, table.citation_of(row))
        for row, odds, evidence in scored
    ]
    # What a check ruled out comes last, whatever spoke for it. Alike in odds the order is that of the table.
    causes.sort(key=lambda one: (one.ticked is False, -one.share))
    return Answer(symptom=symptom, causes=tuple(causes), caution=tr(CAUTION))


def _can_be(row: Mapping[str, Any], known: Known) -> bool:
    """Whether a cause is one of this process, transfer, current and metal, as far as they are known."""
    settings, state = known.settings, known.state
    planned = known.planned
    process = (known.case.logged.process if known.case.logged else None) or (
        planned.process if planned else None
    )
    if process and row["processes"] and process not in row["processes"]:
        return False
    if settings is None or state is None:
        return True
    transfer = settings.transfer or state.transfer
    if row["transfers"] and transfer and transfer not in row["transfers"]:
        return False
    if row["current"] and settings.polarity and (settings.polarity == "AC") != (row["current"] == "AC"):
        return False
    return not (row["metals"] and state.kind and state.kind not in row["metals"])


def _odds(
    row: Mapping[str, Any], known: Known, weights: Mapping[str, float]
) -> tuple[float, tuple[Evidence, ...]]:
    odds = weights[row["prior"]]
    evidence = []
    for key in row["signs"]:
        sign = known.sign(key)
        if sign is not None:
            evidence.append(Evidence(sign=key, holds=sign.holds, words=sign.words))
            odds *= weights["sign holds"] if sign.holds else weights["sign does not hold"]
    ticked = known.case.ticked.get(row["row"])
    if ticked is not None:
        odds *= weights["check confirms"] if ticked else weights["check rules out"]
    cured = known.case.cured.get(row["row"], 0)
    return odds * (1 + weights["each cure here"] * min(cured, 10)), tuple(evidence)


def _cause(
    row: Mapping[str, Any],
    share: float,
    evidence: tuple[Evidence, ...],
    known: Known,
    limits: Mapping[str, Range],
    citation: Citation,
) -> Cause:
    return Cause(
        row=row["row"],
        cause=tr(row["cause"]),
        share=share,
        prior=row["prior"],
        evidence=evidence,
        look_for=tr(row["evidence"]),
        check=tr(row["check"]),
        remedies=tuple(
            _remedy(words, move, row["engineer"] or leaves, known, limits)
            for words, move, leaves in zip(row["remedies"], row["moves"], row["leaves"], strict=True)
        ),
        caution=_said(row["caution"]),
        ticked=known.case.ticked.get(row["row"]),
        citation=citation,
    )


def _remedy(words: str, move: str, leaves: bool, known: Known, limits: Mapping[str, Range]) -> Remedy:
    """A remedy and whose it is: what leaves the procedure's range is never the welder's."""
    field, direction = move[:-1], move[-1:]
    settings = known.settings
    if field == "current_a" and settings is not None and settings.wire_feed_m_min is not None:
        field = "wire_feed_m_min"  # on wire the feed sets the current
    limit = limits.get(field)
    where: Where = "shop"
    if leaves:
        where = "engineer"
    elif field and field not in OF_THE_WELDER:
        value = getattr(settings, field, None) if settings else None
        # Not stated, or not known here: the first step may leave what was qualified.
        room = _room(limit, value, up=direction == "+")
        if room > LEAST_STEP and field in HEATS:
            heat = known.figures.get(HEAT)
            if HEAT in limits:
                rises = (direction == "+") == HEATS[field]
                room = _room(limits[HEAT], heat.value if heat else None, up=rises)
        where = "inside" if room > LEAST_STEP else "engineer"
    return Remedy(words=tr(words), where=where, field=field, direction=direction, limit=limit)


def _said(words: str) -> str:
    return tr(words) if words else ""


def _room(limit: Range | None, value: float | None, *, up: bool) -> float:
    """How far a value may go; less than nothing where the limit or the value is not known."""
    if limit is None or limit.max <= 0 or value is None:
        return -1.0
    return limit.max - value if up else value - limit.min
