"""Rows of the codes' tables that no other test reads: each is asked once; values from memory."""

import re

import pytest

from tests.welding.records import put, record, taken
from welding.checks.content import missing_content
from welding.codebook import catalogue
from welding.codebook import contents as codebook
from welding.codebook.book import Book, Correction, using
from welding.codebook.table import load_table
from welding.coverage.covers import covers
from welding.coverage.record import range_of
from welding.documents.codec import PROCEDURE
from welding.editions.aws_d1_1_2020.rules.basics import earlier_number

PAIRS = load_table("welding.editions.iso_15614_1_2017", "parent_metal_level_2").rows


def of_groups(first, second):
    plain = record("iso")
    plain["procedure"]["base_metals"] = [
        {"designation": "agreed", "groups": {"iso_15608": name}, "thickness_mm": 20, "yield_mpa": 355}
        for name in (first, second)
    ]
    return taken(plain)


def sub_group(name):
    """A sub-group of the group, where ISO/TR 15608 parts it."""
    return name if "." in name or int(name) > 40 or name in ("9", "43") else f"{name}.1"


@pytest.mark.parametrize("row", PAIRS, ids=lambda row: row["row"])
def test_a_pair_of_groups_covers_itself_and_what_its_row_lists(row):
    """ISO 15614-1:2017, 8.3.1, level 2 (from memory)."""
    first, second = (sub_group(name) for name in row["row"].split("-"))
    item = range_of(of_groups(first, second)).of("base_metals")[0]
    for pair in row["covers"]:
        wanted = [re.match(r"[\d.]+", member)[0] for member in pair.split("-")]
        assert any(
            all(said.startswith(group) for said, group in zip(value.split(" + "), wanted, strict=True))
            for value in item.values
        ), (pair, item.values)
    own = covers([of_groups(first, second)], of_groups(first, second).procedure)
    assert not [one for one in own.findings if one.rule == "range.base_metals" and one.verdict == "violates"]


REQUIRED = [
    (one.id, row["path"]) for one in catalogue.all_editions().values() for row in one.required_content.rows
]


@pytest.mark.parametrize("code, path", REQUIRED)
def test_what_a_procedure_has_to_state_is_missed(code, path):
    edition = catalogue.all_editions()[code]
    row = edition.required_content.row(path)
    plain = record("aws" if code.startswith("aws") else "iso")["procedure"]
    for one in plain["passes"]:
        one["process"] = row.get("processes", [one["process"]])[0]
    take_out(plain, path.split("."))
    told = [one.message for one in missing_content(PROCEDURE.take(plain), edition.required_content)]
    assert any(words.startswith(row["what"]) for words in told), told


def take_out(at, parts):
    name, *rest = parts
    if name == "*":
        for one in at:
            take_out(one, rest)
    elif isinstance(at, list):
        if int(name) < len(at):
            if rest:
                take_out(at[int(name)], rest)
            else:
                at.pop(int(name))
    elif rest and name in at:
        take_out(at[name], rest)
    else:
        at.pop(name, None)


def test_a_correction_of_what_has_to_be_stated_counts_at_once():
    edition = catalogue.all_editions()["iso-15614-1:2017"]
    table = edition.required_content
    number = table.number_id(table.row("joint"), "what")
    with using(Book({number: Correction(id=number, action="correct", value="joint to be welded")})):
        told = missing_content(
            PROCEDURE.take({**record("iso")["procedure"], "joint": None}), edition.required_content
        )
    assert "joint to be welded" in [one.message for one in told]


@pytest.mark.parametrize("weld", ["plug", "slot"])
def test_a_plug_or_slot_test_qualifies_its_own_kind_only(weld):
    """AWS D1.1:2020, 6.14 (from memory): plug and slot welds are qualified by a test of their own."""
    plain = put_joint({"kind": "lap", "weld": weld})
    assert range_of(taken(plain)).of("weld_kinds")[0].values == (weld,)


def put_joint(joint):
    plain = record("aws")
    put(plain, "procedure.joint", joint)
    return plain


def test_a_record_to_the_edition_before_says_what_it_counts_as():
    """ISO 15614-1:2017, introduction (from memory): records to 2004 stay, as level 2, once tests are added."""
    plain = record("iso", tested_to="iso-15614-1:2004")
    told = [one for one in range_of(taken(plain)).findings if one.rule == "record.edition"]
    assert [(one.verdict, "level 2" in one.message) for one in told] == [("undecided", True)]


EARLIER = [
    ("5.1", "3.7"), ("5.2", "3.6"), ("5.4", "3.2"), ("5.8", "3.3"), ("6.1", "4.1"), ("6.2", "4.2"), ("6.3", "4.3"),
    ("6.4", "4.4"), ("6.5", "4.5"), ("6.7", "4.6"), ("6.8", "4.8"),
]  # fmt: skip


@pytest.mark.parametrize("now, before", EARLIER)
def test_the_code_book_names_the_table_of_the_edition_before(now, before):
    """AWS D1.1 moved clauses 3 and 4 to 5 and 6 in 2020 (from memory)."""
    found = {
        table.earlier
        for table in codebook.part("aws-d1.1:2020").tables
        if table.clause.split(" ")[:2] == ["table", now]
    }
    assert found == {f"2015: table {before}"}


def test_a_table_of_two_numbers_names_both_of_the_edition_before():
    assert earlier_number("tables 7.7 and 5.5") == "2015: tables 5.7 and 3.5"
    assert earlier_number("tables 6.14 and 6.15") == "2015: tables 4.14 and 4.15"
    assert earlier_number("clause 6.10") == ""
