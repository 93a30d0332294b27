"""Matching filler by group of base metal (AWS D1.1:2020, table 5.4)."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.codebook.table import load_table
from welding.consumables.designations.model import Decoded
from welding.documents.procedure import Pass
from welding.editions.aws_d1_1_2020.rules.groups import ORDER, group_of
from welding.finding import Finding
from welding.language import tr

STEEL_FILLERS = tuple(f"AWS A5.{number}" for number in (1, 5, 17, 18, 20, 23, 28, 29, 36))


def matching_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass's filler; the weaker metal's group decides, as for dissimilar groups."""
    code = draft.procedure.code
    units = code.units if code else "si"
    groups = [group_of(draft, metal, units) for metal in draft.procedure.base_metals]
    known = [group for group in groups if group]
    if not known or len(known) < len(groups):
        return
    table = load_table("welding.editions.aws_d1_1_2020", "matching_filler")
    group = min(known, key=ORDER.index)
    row = next(row for row in table.rows if row["group"] == group)
    # Joined to a stronger group, the weaker one's filler has to be of a low-hydrogen class as well.
    low_hydrogen = row["low_hydrogen"] or len(set(known)) > 1
    for index, one in enumerate(draft.procedure.passes):
        filler = decoded_of(one)
        if filler is None or filler.system not in STEEL_FILLERS:
            continue
        trouble = _trouble(draft, filler, row, low_hydrogen=low_hydrogen)
        unknown = not trouble and filler.tensile_mpa is None
        if unknown:
            trouble = tr(
                "{designation} alone does not tell the strength of the weld metal.",
                designation=filler.designation,
            )
        yield Finding(
            rule="filler.matching",
            verdict="undecided" if unknown else "violates" if trouble else "complies",
            obligation="requirement" if code and code.route == "prequalified" else "recommendation",
            path=f"passes.{index}.filler.designation",
            title=_title(one, bool(trouble)),
            message=trouble
            or tr(
                "{designation} matches base metals of group {group}.",
                designation=filler.designation,
                group=group,
            ),
            actual=filler.designation,
            limit=tr("matching filler for group {group}", group=group),
            remedy=tr("State the class of flux and electrode together.")
            if unknown
            else tr("Choose a class that the table lists, or qualify it by testing.")
            if trouble
            else "",
            citations=(table.citation_of(row), *filler.sources.citations[:1]),
            unchecked=(*table.unchecked, *filler.sources.unchecked[:1]),
        )


def _title(one: Pass, trouble: bool) -> str:
    said = tr("Filler is not a matching one") if trouble else tr("Filler is a matching one")
    return tr("{said}, pass {number}", said=said, number=one.number)


def _trouble(draft: Draft, filler: Decoded, row: Any, *, low_hydrogen: bool) -> str:
    group, name = row["group"], filler.designation
    if filler.tensile_mpa is not None and filler.tensile_mpa < row["tensile_mpa"]:
        return tr(
            "{name} has {tensile_mpa:g} MPa; group {group} is matched from {row} MPa.",
            name=name,
            tensile_mpa=filler.tensile_mpa,
            group=group,
            row=row["tensile_mpa"],
        )
    if low_hydrogen and filler.low_hydrogen is False:
        return tr("{name} is no low-hydrogen electrode; group {group} asks for one.", name=name, group=group)
    if name.endswith("-GS") and "GS" in row["not_usability"]:
        return tr("usability -GS is left out of the table.")
    cored = {"AWS A5.20": r"E\d{2}T-(\d{1,2}|GS|G)", "AWS A5.36": r"E\d{2}T(\d{1,2}|GS|G)S?-"}
    use = re.match(cored[filler.system], name) if filler.system in cored else None
    if use and use[1] in row["not_usability"]:
        return tr("usability -{use} is left out of the table.", use=use[1])
    thickest = max((m.thickness_mm for m in draft.procedure.base_metals if m.thickness_mm), default=0.0)
    if use and use[1] == "11" and thickest > row["t11_max_mm"] * (1 + 1e-9):
        limit, found = (draft.write(value, "thickness") for value in (row["t11_max_mm"], thickest))
        return tr(
            "usability -11 is listed up to {limit} only; the thickest metal is {found}.",
            limit=limit,
            found=found,
        )
    return ""
