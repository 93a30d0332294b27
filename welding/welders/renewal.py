"""Whether a test renews a qualification that lapsed because its process had rested."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from welding.codebook.table import Table
from welding.documents.welder_weld import WelderWeld
from welding.language import tr
from welding.welders.catalogue import welder_edition
from welding.welders.covers import welder_covers
from welding.welders.retests import same_kind

ROW = "renewal"


@dataclass(frozen=True, slots=True, kw_only=True)
class Renewal:
    """A signature that a test renewed a qualification.

    Attributes:
        on: Day of the signature.
        certificate: Number of the certificate of the test.
        tested: Its test piece.
        welded_on: Day on which that was welded.
        responsible: Whether one of those signed whose signature counts.
        withdrawn_on: Day on which the certificate of the test was revoked.
    """

    on: date
    certificate: str
    tested: WelderWeld
    welded_on: date
    responsible: bool = True
    withdrawn_on: date | None = None


def renews_by_test(code: str) -> bool:
    """Whether a code lets a test on one thickness renew a qualification that lapsed.

    Raises:
        UnknownEntryError: The code is not known here.
    """
    return _row(welder_edition(code).table("validity")) is not None


def against_test(held: WelderWeld, new: WelderWeld) -> tuple[str, ...]:
    """What stands against renewing the qualification of one test by another; empty where it renews.

    Args:
        held: The test piece of the qualification that lapsed.
        new: That of the new test.

    Raises:
        UnknownEntryError: The code of the first is not known here.
    """
    edition = welder_edition(held.code)
    row = _row(edition.table("validity"))
    if row is None:
        return (tr("{code} has no such renewal: a new test is needed.", code=edition.short),)
    if new.code != held.code or not same_kind(held, new):
        return (
            tr("It was not a test of the same kind: process, plate or pipe, position and progression agree."),
        )
    if held.person not in row["persons"] or held.weld not in row["welds"]:
        said = tr(
            "{code} is known here to say this of groove tests of welders, not of fillet welds, operators or "
            "tack welders.",
            code=edition.short,
        )
        return (said,)
    if new.thickness_mm is None or not row["least_mm"] <= new.thickness_mm <= row["thickness_mm"]:
        said = tr(
            "Its test piece has to be {mm} mm [{inch} in] thick.",
            mm=row["thickness_mm"],
            inch=row["thickness_in"],
        )
        return (said,)
    # All else of the earlier test has to be within the range of the new one.
    found = welder_covers([replace(new, thickness_mm=held.thickness_mm)], held)
    if found.covered:
        return ()
    return tuple(
        dict.fromkeys(one.message for one in found.findings if one.verdict in ("violates", "undecided"))
    ) or (tr("The new test does not cover what the earlier one was."),)


def against_renewal(one: Renewal, held: WelderWeld, on: date) -> tuple[str, ...]:
    """Why a renewal that was signed does not count on a day; empty where it counts."""
    day = one.on.isoformat()
    if not one.responsible:
        said = tr(
            "The renewal of {day} does not count: the person responsible for welding, the examiner or the "
            "examining body signs it.",
            day=day,
        )
        return (said,)
    if one.withdrawn_on is not None and one.withdrawn_on <= on:
        said = tr(
            "The renewal of {day} does not count: its test {certificate} was revoked on {revoked}.",
            day=day,
            certificate=one.certificate,
            revoked=one.withdrawn_on.isoformat(),
        )
        return (said,)
    return against_test(held, one.tested)


def renewed_words(one: Renewal, table: Table) -> str:
    """That it was renewed, in a sentence with the clause."""
    row = _row(table)
    return tr(
        "Renewed by test {certificate}, welded on {day} ({clause}, from memory).",
        certificate=one.certificate,
        day=one.welded_on.isoformat(),
        clause=table.citation_of(row).clause if row is not None else table.citation.clause,
    )


def _row(table: Table) -> Mapping[str, Any] | None:
    return next((row for row in table.rows if row["row"] == ROW), None)
