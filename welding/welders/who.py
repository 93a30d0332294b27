"""Who may weld it: a person's tests, and whether they hold, against everything that a procedure asks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from welding.documents.procedure import Procedure
from welding.documents.welder_weld import WelderWeld
from welding.finding import Finding
from welding.language import tr
from welding.welders.asked import Asked
from welding.welders.catalogue import edition_for
from welding.welders.covers import WelderCoverage, welder_covers
from welding.welders.validity import Validity

MayWeld = Literal["may", "open", "lapsed", "blocked", "untested"]
ORDER: tuple[MayWeld, ...] = ("may", "open", "lapsed", "blocked", "untested")
"""From whoever may weld to whoever has no test at all."""


@dataclass(frozen=True, slots=True, kw_only=True)
class HeldTest:
    """A test that a person passed, and how its certificate stands on the day that is asked."""

    weld: WelderWeld
    validity: Validity


@dataclass(frozen=True, slots=True, kw_only=True)
class WhoMay:
    """Whether a person may weld it.

    Attributes:
        standing: ``may``; ``open`` while a fact is missing; ``lapsed`` where only certificates that have run
            out would cover it; ``blocked`` by a variable; ``untested`` without any certificate of the code.
        by: Places of the tests that cover it.
        findings: What blocks or is open, of the weld that is farthest from covered.
        reasons: Sentences: what is not stated, why certificates have run out.
    """

    standing: MayWeld
    by: tuple[int, ...]
    findings: tuple[Finding, ...]
    reasons: tuple[str, ...]


def asked_by(procedure: Procedure) -> tuple[str, Asked] | None:
    """The code for persons that a procedure goes by, and what it asks; ``None`` where none is known here."""
    edition = edition_for(procedure.code.id) if procedure.code else None
    if edition is None or edition.asked_of is None:
        return None
    return edition.id, edition.asked_of(procedure)


def may_weld(tests: Sequence[HeldTest], asked: Asked) -> WhoMay:
    """Whether a person may weld what is asked, on the day for which the validities were taken.

    Args:
        tests: The person's tests, of any code.
        asked: What is asked; all of it has to be covered.
    """
    if not asked.welds:
        return WhoMay(standing="open", by=(), findings=(), reasons=asked.open)
    code = asked.welds[0].code
    own = [(at, one) for at, one in enumerate(tests) if one.weld.code == code]
    if not own:
        return WhoMay(
            standing="untested", by=(), findings=(), reasons=(tr("No certificate of this code is known."),)
        )
    current = [(at, one) for at, one in own if one.validity.valid]
    found = _worst([welder_covers([one.weld for _, one in current], weld) for weld in asked.welds])
    if found.covered:
        by = tuple(dict.fromkeys(current[at][0] for at in found.by))
        if asked.open:
            return WhoMay(standing="open", by=by, findings=(), reasons=asked.open)
        return WhoMay(standing="may", by=by, findings=(), reasons=())
    with_lapsed = _worst([welder_covers([one.weld for _, one in own], weld) for weld in asked.welds])
    if with_lapsed.covered:
        used = [own[at] for at in with_lapsed.by]
        unknown = any(one.validity.standing == "unknown" for _, one in used)
        return WhoMay(
            standing="open" if unknown else "lapsed",
            by=tuple(at for at, _ in used),
            findings=(),
            reasons=_run_out([one.validity for _, one in used]),
        )
    nearest = found if current else with_lapsed
    return WhoMay(
        standing="open" if nearest.verdict == "open" else "blocked",
        by=(),
        findings=tuple(one for one in nearest.findings if one.verdict in ("violates", "undecided")),
        reasons=asked.open,
    )


def _run_out(validities: list[Validity]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(why for one in validities if not one.valid for why in one.reasons))


def _worst(found: list[WelderCoverage]) -> WelderCoverage:
    """The answer that counts where all have to be covered; all that cover it stand in ``by``."""
    order = {"covered": 0, "open": 1, "blocked": 2}
    worst = max(found, key=lambda one: order[one.verdict])
    if worst.covered:
        by = tuple(dict.fromkeys(at for one in found for at in one.by))
        return WelderCoverage(
            covered=True, verdict="covered", by=by, combination=worst.combination, findings=worst.findings
        )
    return worst
