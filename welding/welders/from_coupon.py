"""A coupon of a procedure as the test piece of its welder: the designation, and what is still missing."""

from __future__ import annotations

from dataclasses import dataclass

from welding.codebook.table import Table
from welding.coverage.record import judge
from welding.documents.record import BENDS, QualificationRecord
from welding.documents.welder_weld import WelderWeld
from welding.glossary.values import in_words
from welding.language import tr
from welding.testing.verdict import SpecimenVerdict
from welding.welders.catalogue import designation_of, edition_for
from welding.welders.edition import WelderEdition

_KIND = {**dict.fromkeys(BENDS, "bend"), "fillet-break": "fracture"}
"""Kinds of specimens by the names of the tables; others have their own."""


@dataclass(frozen=True, slots=True, kw_only=True)
class WelderTest:
    """What a coupon says about whoever welded it.

    Attributes:
        welder: Name of the welder; empty where nobody, or more than one, is named.
        code: Id of the code for persons; ``None`` where none is known.
        weld: The test piece; ``None`` where the coupon does not say it in one designation.
        designation: Its designation; empty without one.
        tests: Tests that were accepted, in words.
        missing: What stands against a certificate, in sentences.
    """

    welder: str
    code: str | None
    weld: WelderWeld | None
    designation: str
    tests: tuple[str, ...]
    missing: tuple[str, ...]


def welder_test(record: QualificationRecord) -> WelderTest:
    """What the coupon of a record says about its welder.

    The piece is taken as the procedure of the coupon has it. Several designations, or a fact that is not
    stated, leave it to the examiner.

    Args:
        record: The record with its tests.
    """
    missing: list[str] = []
    named = [one.name for one in record.people if one.role == "welder"]
    if not named:
        missing.append(tr("No welder is named on the coupon."))
    elif len(set(named)) > 1:
        missing.append(
            tr(
                "A test piece is welded by one person; {names} are named.",
                names=", ".join(sorted(set(named))),
            )
        )
    welder = named[0] if len(set(named)) == 1 else ""
    code = record.procedure.code
    edition = edition_for(code.id) if code is not None else None
    accepted = _accepted(record) if code is not None else []
    if edition is None or edition.asked_of is None:
        missing.append(tr("No code for the qualification of welders is known here for this procedure."))
        return WelderTest(
            welder=welder,
            code=None,
            weld=None,
            designation="",
            tests=_words(accepted),
            missing=tuple(missing),
        )
    asked = edition.asked_of(record.procedure)
    missing += asked.open
    weld = asked.welds[0] if len(asked.welds) == 1 else None
    if len(asked.welds) > 1:
        missing.append(
            tr(
                "The coupon was not welded as one test piece: {welds}. The examiner says which it is.",
                welds="; ".join(designation_of(one) for one in asked.welds),
            )
        )
    if weld is not None:
        missing += missing_tests(edition, weld, [one.kind for one in accepted])
    return WelderTest(
        welder=welder,
        code=edition.id,
        weld=weld,
        designation=designation_of(weld) if weld is not None else "",
        tests=_words(accepted),
        missing=tuple(missing),
    )


def against_certificate(record: QualificationRecord, tested: WelderWeld, person: str) -> tuple[str, ...]:
    """Why a coupon does not carry a certificate that its examiner writes, in sentences.

    Args:
        record: The record with its tests.
        tested: The test piece, as the examiner designates it.
        person: Whom it would qualify.
    """
    found: list[str] = []
    named = {one.name for one in record.people if one.role == "welder"}
    if named != {person}:
        found.append(
            tr(
                "The coupon was welded by {names}, not by {person} alone.",
                names=", ".join(sorted(named)) or tr("nobody who is named"),
                person=person,
            )
        )
    code = record.procedure.code
    edition = edition_for(code.id) if code is not None else None
    if edition is None or edition.id != tested.code:
        found.append(tr("The procedure of the coupon goes by another code."))
        return tuple(found)
    return (*found, *missing_tests(edition, tested, [one.kind for one in _accepted(record)]))


def _accepted(record: QualificationRecord) -> list[SpecimenVerdict]:
    """Specimens that count and were accepted, unless one of their kind was rejected."""
    found = [one for one in judge(record).specimens if one.state in ("counts", "extra")]
    failed = {_named(one.kind) for one in found if one.verdict != "accepted"}
    return [one for one in found if one.verdict == "accepted" and _named(one.kind) not in failed]


def _named(kind: str) -> str:
    return _KIND.get(kind, kind)


def _words(accepted: list[SpecimenVerdict]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(in_words(one.kind) for one in accepted))


def missing_tests(edition: WelderEdition, weld: WelderWeld, kinds: list[str]) -> list[str]:
    """Tests that the code asks of a test piece and that are not there, in sentences.

    Args:
        edition: The code for persons.
        weld: The test piece.
        kinds: Kinds of the tests that were accepted, as records name them.
    """
    try:
        table = edition.table("tests")
    except FileNotFoundError:  # its folder has no such table yet
        return [tr("Which tests {code} asks is not known here: the examiner says.", code=edition.short)]
    done = {_named(one) for one in kinds}
    row = table.row(weld.weld)
    found = [
        tr("{code} asks for a test that is not accepted here: {test}.", code=edition.short, test=_test(one))
        for one in row["always"]
        if one not in done
    ]
    found += _one_of(edition, tuple(row.get("one_of") or ()), _standing(table, weld, done))
    more = next((one for one in table.rows if one["row"] == "gas_metal"), None)
    if weld.weld == "butt" and more is not None:
        concerned = any(part.process in more["processes"] for part in weld.parts)
        found += _one_of(edition, tuple(more["one_of"]), done) if concerned else []
    return found


def _standing(table: Table, weld: WelderWeld, done: set[str]) -> set[str]:
    """Tests that stand for this piece: ultrasonic testing for the thicknesses and fillers of its row."""
    row = next((one for one in table.rows if one["row"] == "ultrasonic"), None)
    if row is None:
        return done
    thickness = weld.thickness_mm or max((part.deposited_mm or 0.0 for part in weld.parts), default=0.0)
    ferritic = all(part.filler_group in row["filler_groups"] for part in weld.parts)
    return done if ferritic and thickness >= row["from_mm"] else done - {"ultrasonic"}


def _one_of(edition: WelderEdition, wanted: tuple[str, ...], done: set[str]) -> list[str]:
    if not wanted or done & set(wanted):
        return []
    return [
        tr(
            "{code} asks for one of these tests: {tests}.",
            code=edition.short,
            tests=", ".join(_test(one) for one in wanted),
        )
    ]


def _test(name: str) -> str:
    words = {"bend": tr("bend test"), "fracture": tr("fracture test")}
    return words.get(name) or in_words(name)
