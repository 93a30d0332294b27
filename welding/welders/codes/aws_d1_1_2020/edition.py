"""AWS D1.1 for persons, as this program knows it."""

from __future__ import annotations

from welding.citation import Citation
from welding.welders.codes.aws_d1_1_2020.rules.asking import asked_of
from welding.welders.codes.aws_d1_1_2020.rules.covering import compare, positions_asked
from welding.welders.codes.aws_d1_1_2020.rules.pieces import pieces_for
from welding.welders.codes.aws_d1_1_2020.rules.ranges import range_items
from welding.welders.codes.aws_d1_1_2020.short_form import SHORT, read, write
from welding.welders.edition import WelderEdition

EDITION = WelderEdition(
    id="aws-d1.1-welders:2020",
    title="AWS D1.1:2020, clause 6 part C, welders, welding operators and tack welders",
    short=SHORT,
    usage="aws",
    package="welding.welders.codes.aws_d1_1_2020",
    prefixes=("AWS D1.1/D1.1M:2020", "AWS D1.1:2020", "AWS D1.1", "D1.1"),
    read=read,
    write=write,
    range_items=range_items,
    compare=compare,
    positions_asked=positions_asked,
    scope=Citation(document=SHORT, edition="2020", clause="clause 6 part C", confidence="high"),
    asked_of=asked_of,
    pieces_for=pieces_for,
    procedure_codes=("aws-d1.1:2020",),
)
