"""ISO 9606-2 as this program knows it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from welding.citation import Citation
from welding.documents.welder_weld import WelderWeld
from welding.language import tr
from welding.qualification.items import RangeItem
from welding.welders.codes.iso_9606_2_2004.ranges import PACKAGE, range_items, table
from welding.welders.comparing import Answer, Compared, compared, of_set, of_span
from welding.welders.edition import WelderEdition
from welding.welders.iso_designation import Grammar, read, write

SHORT = "ISO 9606-2"


def _types() -> Mapping[str, tuple[str, ...]]:
    return {row["row"]: tuple(row["filler_types"]) for row in table("processes").rows}


GRAMMAR = Grammar(
    code="iso-9606-2:2004",
    short=SHORT,
    types=_types,
    group="2[1-6]",
    group_is_metal=True,
    deposited=False,
    pipe_positions=("PF", "PG", "H-L045", "J-L045"),
)


def _read(text: str) -> WelderWeld:
    return read(text, GRAMMAR)


def _write(weld: WelderWeld) -> str:
    return write(weld, GRAMMAR)


def compare(items: Sequence[RangeItem], _tested: WelderWeld, asked: WelderWeld) -> Iterator[Compared]:
    """Findings on a weld that is asked."""
    return _each(items, asked)


def _each(items: Sequence[RangeItem], asked: WelderWeld) -> Iterator[Compared]:
    part = asked.parts[0]
    fillet = asked.weld == "fillet"
    words: dict[str, str | None] = {
        "welder_process": part.process,
        "filler_type": part.filler_type,
        "metal_group": asked.metal_group,
        "weld_type": "FW" if fillet else "BW",
        "product": "T" if asked.product == "pipe" else "P",
        "welder_position": asked.position,
    }
    if not fillet:
        words["backing"] = asked.backing
    elif asked.layers is not None:
        words["layers"] = asked.layers
    for item in items:
        if item.variable in words:
            yield compared(item, of_set(item, words[item.variable]))
        elif (item.variable == "fillet_material_mm" and fillet) or (
            item.variable == "material_mm" and not fillet
        ):
            yield compared(item, of_span(item, asked.thickness_mm))
        elif item.variable == "branch_deg" and asked.branch_deg is not None:
            yield compared(item, of_span(item, asked.branch_deg))
        elif item.variable == "outside_diameter_mm" and asked.product == "pipe":
            yield from _diameter(item, asked)
    if asked.branch_deg is not None and not any(one.variable == "branch_deg" for one in items):
        item = next(one for one in items if one.variable == "weld_type")
        why = tr("Branches are covered by butt welds on pipes.")
        shown = replace(item, variable="branch_deg", kind="set", values=())
        yield compared(shown, Answer(verdict="violates", actual=f"{asked.branch_deg:g}°", why=why))


def _diameter(item: RangeItem, asked: WelderWeld) -> Iterator[Compared]:
    """Plates cover pipes by two rules: the one for the position that is asked answers."""
    if item.how:
        easy = asked.position in table("products").row("pipe_from_plate")["positions"]
        if item.how != ("pipe_from_plate" if easy else "other_pipe_from_plate"):
            return
    yield compared(item, of_span(item, asked.diameter_mm))


def positions_asked(asked: WelderWeld) -> tuple[str, ...]:
    """The position itself: what an inclined pipe passes through is not recalled for this part."""
    return (asked.position,)


EDITION = WelderEdition(
    id=GRAMMAR.code,
    title="ISO 9606-2:2004, qualification testing of welders, aluminium and its alloys",
    short=SHORT,
    usage="iso",
    package=PACKAGE,
    prefixes=("EN ISO 9606-2:2004", "ISO 9606-2:2004", "EN ISO 9606-2", "ISO 9606-2"),
    read=_read,
    write=_write,
    range_items=range_items,
    compare=compare,
    positions_asked=positions_asked,
    scope=Citation(document=SHORT, edition="2004", clause="clause 1"),
)
