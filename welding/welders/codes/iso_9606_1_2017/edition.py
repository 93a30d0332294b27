"""ISO 9606-1 as this program knows it."""

from __future__ import annotations

from collections.abc import Mapping

from welding.citation import Citation
from welding.documents.welder_weld import WelderWeld
from welding.welders.codes.iso_9606_1_2017.rules.asking import asked_of
from welding.welders.codes.iso_9606_1_2017.rules.basics import table
from welding.welders.codes.iso_9606_1_2017.rules.covering import compare, positions_asked, together
from welding.welders.codes.iso_9606_1_2017.rules.pieces import pieces_for
from welding.welders.codes.iso_9606_1_2017.rules.ranges import range_items
from welding.welders.edition import WelderEdition
from welding.welders.iso_designation import Grammar, read, write

SHORT = "ISO 9606-1"


def _types() -> Mapping[str, tuple[str, ...]]:
    return {row["row"]: tuple(row["filler_types"]) for row in table("processes").rows}


def _two_positions_from_mm() -> float:
    return float(table("pipe_positions").row("one_pipe")["from_mm"])


GRAMMAR = Grammar(
    code="iso-9606-1:2017",
    short=SHORT,
    types=_types,
    group="FM[1-6]",
    two_positions_from_mm=_two_positions_from_mm,
)


def _read(text: str) -> WelderWeld:
    return read(text, GRAMMAR)


def _write(weld: WelderWeld) -> str:
    return write(weld, GRAMMAR)


EDITION = WelderEdition(
    id=GRAMMAR.code,
    title="ISO 9606-1:2012 with corrigenda (EN ISO 9606-1:2017), qualification testing of welders, steels",
    short=SHORT,
    usage="iso",
    package="welding.welders.codes.iso_9606_1_2017",
    prefixes=("EN ISO 9606-1:2017", "ISO 9606-1:2017", "ISO 9606-1:2012", "EN ISO 9606-1", "ISO 9606-1"),
    read=_read,
    write=_write,
    range_items=range_items,
    compare=compare,
    positions_asked=positions_asked,
    together=together,
    scope=Citation(document=SHORT, edition="2017", clause="clause 1", confidence="high"),
    asked_of=asked_of,
    pieces_for=pieces_for,
    procedure_codes=("iso-15614-1:2017",),
)
