"""Weld lists as drawing offices write them: what is understood, what is asked once, what is wrong by cell.

What headings and short words mean is common practice; a list's silence is never filled by a guess.
"""

from __future__ import annotations

from datetime import datetime

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from welding.codebook.table import load_table
from welding.documents.procedure import Code
from welding.language import speaking
from welding.weldlist.cells import read_row
from welding.weldlist.columns import COLUMNS, column_title, words
from welding.weldlist.grid import guessed_mapping, headings_of, read_grid
from welding.weldlist.joint_types import joint_types, type_words
from welding.weldlist.revision import changes_between, merged
from welding.weldlist.row_reader import UNIT

ISO = Code(id="iso-15614-1:2017", level=2)
PLAIN = {
    "mark": "W1", "joint": "butt", "weld": "CJP", "metal": "S355J2+N", "metal2": "S355J2+N",
    "thickness": "20 mm", "thickness2": "12 mm", "positions": "PF",
}  # fmt: skip
FILLET = {**PLAIN, "joint": "T", "weld": "FW", "size": "a5 mm"}


def row(answers=None, **changes):
    cells = {**PLAIN, **changes}
    return read_row({name: text for name, text in cells.items() if text}, ISO, answers or {})


def problems(read):
    return {one.column: one for one in read.problems}


def test_a_plain_row_is_the_joint_that_it_says():
    read = row(count="4", length="600 mm", site="site", revision="B", impact="27 J at -20 °C", pwht="no")
    listed = read.joint
    assert not read.problems and listed is not None
    assert (listed.mark, listed.count, listed.length_mm, listed.site) == ("W1", 4, 600, True)
    joint = listed.joint
    assert (joint.joint.kind, joint.joint.weld, joint.positions) == ("butt", "cjp-groove", ("PF",))
    assert [one.thickness_mm for one in joint.base_metals] == [20, 12]
    assert (joint.requirements.impact.temperature_c, joint.requirements.impact.average_j) == (-20, 27)
    assert joint.pwht is False


@pytest.mark.parametrize(
    ("text", "kind", "weld"),
    [
        ("butt CJP", "butt", "cjp-groove"),
        ("BW full penetration", "butt", "cjp-groove"),
        ("BW", "butt", None),
        ("CJP + fillet", None, None),
        ("Kehlnaht", None, "fillet"),
        ("T joint, fillet", "t", "fillet"),
        ("T FW", "t", "fillet"),
        ("lap fillet", "lap", "fillet"),
        ("PJP butt", "butt", "pjp-groove"),
    ],
)
def test_joint_and_weld_in_one_cell(text, kind, weld):
    read = row(joint="", weld=text)
    wrong = problems(read)
    assert ("weld" not in wrong) == (weld is not None)
    assert ("joint" not in wrong) == (kind is not None)
    if kind and weld:
        assert (read.joint.joint.joint.kind, read.joint.joint.joint.weld) == (kind, weld)


def test_bw_alone_does_not_say_how_far_it_penetrates():
    wrong = problems(row(joint="", weld="BW"))["weld"]
    assert wrong.asks == "weld:bw" and wrong.choices == ("cjp-groove", "pjp-groove")
    answered = row({"weld:bw": "pjp-groove"}, joint="", weld="BW").joint
    assert (answered.joint.joint.kind, answered.joint.joint.weld) == ("butt", "pjp-groove")


@pytest.mark.parametrize(
    ("size", "answers", "leg", "throat"),
    [
        ("a5 mm", {}, None, 5),
        ("z 7 mm", {}, 7, None),
        ("a=5 mm", {}, None, 5),
        ("6 mm", {"size": "leg"}, 6, None),
        ("6 mm", {"size": "throat"}, None, 6),
        ("1/4", {"size": "leg"}, 6.35, None),
        ("a5", {UNIT: "mm"}, None, 5),
    ],
)
def test_the_size_of_a_fillet_is_its_leg_or_its_throat(size, answers, leg, throat):
    joint = read_row({**FILLET, "size": size}, ISO, answers).joint.joint.joint
    assert (joint.leg1_mm, joint.throat_mm) == (leg, throat)


def test_a_bare_size_is_asked_about_and_never_taken_for_either():
    assert problems(read_row({**FILLET, "size": "6 mm"}, ISO, {}))["size"].asks == "size"


def test_a_bare_number_has_the_unit_that_was_answered_and_no_other():
    assert problems(row(thickness="20", thickness2="12"))["thickness"].asks == UNIT
    inches = row({UNIT: "in"}, thickness="0.5", thickness2="12 mm").joint.joint
    assert [one.thickness_mm for one in inches.base_metals] == [12.7, 12]


@pytest.mark.parametrize(("answer", "second"), [("same", ("S355J2+N", 20)), ("unknown", (None, None))])
def test_one_stated_member_is_not_taken_for_both(answer, second):
    assert problems(row(metal2="", thickness2=""))["metal2"].asks == "second"
    read = row({"second": answer}, metal2="", thickness2="").joint.joint.base_metals[1]
    assert (read.designation, read.thickness_mm) == second


@pytest.mark.parametrize(
    ("column", "text"),
    [
        ("metal", "St 99 special"),
        ("positions", "PQ"),
        ("process", "magic"),
        ("thickness", "thick"),
        ("count", "two"),
        ("impact", "cold"),
        ("pwht", "perhaps"),
        ("edge", "zigzag"),
        ("thickness", "#REF!"),
        ("thickness", "#DATE 2026-04-03, 4/3"),
        ("mark", ""),
        ("thickness", "20000 mm"),
    ],
)
def test_what_is_not_understood_is_named_by_its_cell(column, text):
    read = row(**{column: text})
    assert read.joint is None
    assert column in problems(read), read.problems


def test_an_answer_stands_for_a_word_in_every_row():
    wrong = problems(row(metal="S355", metal2="S355"))
    assert wrong["metal"].asks == "metal:s355" and "S355J2" in wrong["metal"].choices
    answered = row({"metal:s355": "S355J2+N"}, metal="S355", metal2="s355 ").joint.joint
    assert [one.designation for one in answered.base_metals] == ["S355J2+N"] * 2


def test_every_word_of_the_table_means_one_thing_in_its_column():
    seen = {}
    for one in load_table("welding.weldlist", "list_words").rows:
        of, _, means = one["means"].partition(".")
        for word in one["words"]:
            assert seen.setdefault((of, word.casefold()), means) == means, word
            assert words(of)[word.casefold().strip(" .:")] == means
        if of == "column":
            assert means in COLUMNS and column_title(means)


@pytest.mark.parametrize("language", ["en", "de", "es"])
def test_the_titles_that_a_list_is_written_with_are_read_again(language):
    with speaking(language):
        titles = [column_title(name) for name in COLUMNS]
    assert tuple(guessed_mapping([titles]).headings) == COLUMNS


@pytest.mark.parametrize("column", ["metal", "thickness", "positions"])
def test_what_a_list_leaves_out_is_named_and_not_supplied(column):
    assert column in problems(row(**{column: ""}))


def test_positions_may_be_left_open_for_the_procedure():
    assert row({"positions:": "unknown"}, positions="").joint.joint.positions == ()
    assert row({"positions:": "PA, PB"}, positions="").joint.joint.positions == ("PA", "PB")


@pytest.mark.parametrize(
    ("text", "answers", "mm"),
    [
        ("20/12 mm", {}, [20, 12]),
        ("t20/t12 mm", {}, [20, 12]),
        ("20 + 12,5 mm", {}, [20, 12.5]),
        ("20/12", {UNIT: "mm"}, [20, 12]),
        ("3/8 mm", {"fraction": "members"}, [3, 8]),
        ("3/8 mm", {"fraction": "inch", "second": "same"}, [9.525, 9.525]),
        ("12/16", {UNIT: "mm", "fraction": "members"}, [12, 16]),
        ("3/8", {UNIT: "in", "second": "same"}, [9.525, 9.525]),
        ("3/8 in", {"second": "same"}, [9.525, 9.525]),
    ],
)
def test_two_members_in_one_cell_and_fractions_of_an_inch(text, answers, mm):
    listed = row(answers, thickness=text, thickness2="").joint
    assert [one.thickness_mm for one in listed.joint.base_metals] == mm


@pytest.mark.parametrize(("text", "answers"), [("3/8 mm", {}), ("12/16", {UNIT: "mm"})])
def test_what_may_be_two_members_or_a_fraction_is_asked(text, answers):
    assert [one.asks for one in row(answers, thickness=text, thickness2="").problems] == ["fraction"]


def test_a_width_by_a_thickness_is_not_taken_for_two_members():
    assert "thickness" in problems(row({"second": "same"}, thickness="100x10 mm", thickness2=""))


@pytest.mark.parametrize("changes", [{"positions": "PH"}, {"positions": "6G"}, {"joint": "branch"}])
def test_a_pipe_without_its_diameter_is_not_judged_as_plate(changes):
    assert list(problems(row(**changes))) == ["diameter"]
    assert row(**changes, diameter="60.3 mm").joint is not None


def test_a_double_form_is_welded_from_both_sides():
    assert row(edge="X").joint.joint.joint.sides == "both"
    assert row(edge="V").joint.joint.joint.sides == "one"


MERGED = [
    ["Tarn Hollow, weld list"],
    [],
    ["Weld", "Drawing", None, "Nahtart", "Material", "Thickness [mm]", None, "Position", "Size"],
    ["No.", "No.", "Rev.", None, None, "1", "2", None, None],
    ["W1", "101", "B", "BW", "S355", 20.0, 12, "PA", None],
    ["W2", "101", "B", "FW", "S355", "20/12", None, "PB", "a5"],
    ["W2", "101", "B", "FW", "S355", "20", None, "PB", "6"],
    ["W4", "101", "B", "FW", "S355", datetime(2026, 4, 3), None, "PB", "6"],
]
ANSWERS = {
    "weld:bw": "cjp-groove", "metal:s355": "S355J2+N", "joint:fillet": "t", "size": "leg", "second": "same",
    UNIT: "mm",
}  # fmt: skip


def test_merged_headings_in_two_rows_are_found_below_a_title():
    first, names = headings_of(MERGED)
    assert first == 5
    assert names[:7] == (
        "Weld No.", "Drawing No.", "Rev.", "Nahtart", "Material", "Thickness [mm] 1", "Thickness [mm] 2",
    )  # fmt: skip
    mapping = guessed_mapping(MERGED)
    assert mapping.headings["mark"] == "Weld No." and mapping.headings["revision"] == "Rev."
    assert mapping.units == {"thickness": "mm", "thickness2": "mm"}


def test_a_messy_list_asks_once_and_keeps_every_row():
    read = read_grid(MERGED, ISO)
    assert len(read.rows) == 4 and all(one.joint is None for _, one in read.rows)
    asked = {one.key: one.rows for one in read.questions}
    assert asked == {UNIT: 2, "metal:s355": 3, "joint:fillet": 2, "second": 1, "weld:bw": 1}
    assert read.questions[0].key == UNIT
    mapping = guessed_mapping(MERGED)
    mapping.answers.update(ANSWERS)
    rows = read_grid(MERGED, ISO, mapping).rows
    assert [one.joint is not None for _, one in rows] == [True, False, False, False]
    assert rows[0][1].joint.joint.base_metals[1].thickness_mm == 12
    assert rows[1][0].cells["thickness"] == "20/12 mm"
    twice = [problem.message for problem in rows[1][1].problems]
    assert twice == ["W2 stands 2 times in the list."]
    assert [one.column for one in rows[3][1].problems] == ["thickness"]


def test_the_last_list_tells_how_the_next_is_read():
    before = guessed_mapping([["Nr", "Was", "Material"], ["W1", "BW", "S355"]])
    usual = type(before)(
        first_row=2, headings={"mark": "Nr", "weld": "Was"}, answers={"weld:bw": "cjp-groove"}
    )
    mapping = guessed_mapping([["Was", "Nr", "Material"], ["BW", "W1", "S355"]], usual)
    assert mapping.headings == {"mark": "Nr", "weld": "Was", "metal": "Material"}
    assert mapping.answers == {"weld:bw": "cjp-groove"}


@settings(max_examples=60, deadline=None)
@given(
    st.lists(
        st.lists(st.none() | st.text(max_size=8) | st.integers(-9, 99) | st.floats(allow_nan=True)),
        max_size=6,
    )
)
def test_no_grid_breaks_the_reader_and_no_row_is_lost(grid):
    read = read_grid(grid, ISO)
    first = read.mapping.first_row
    given_rows = [one for one in grid[first - 1 :] if any(str(cell or "").strip() for cell in one)]
    assert len(read.rows) <= len(given_rows)
    assert all(one.joint is None or not one.problems for _, one in read.rows)


def test_equal_facts_are_one_type_whatever_their_marks_say():
    listed = [row(mark=f"W{n}", count=str(n), length="500 mm", part=f"P{n}").joint for n in (1, 2)]
    listed.append(row(mark="W3", positions="PA").joint)
    types = joint_types(listed, ISO)
    assert [(one.marks, one.count, one.length_mm) for one in types] == [
        (("W1", "W2"), 3, 1500),
        (("W3",), 1, None),
    ]
    said = type_words(types[0].joint)
    assert "S355J2+N 20 mm to S355J2+N 12 mm" in said and "PF" in said


OLD = [
    {"mark": "W1", "drawing": "101", "thickness": "20 mm", "remarks": "keep"},
    {"mark": "W2", "drawing": "101", "thickness": "20 mm"},
    {"mark": "W3", "drawing": "101", "thickness": "20 mm"},
    {"mark": "W9", "drawing": "102", "thickness": "8 mm"},
]


def test_a_new_revision_says_what_it_adds_changes_and_drops():
    new = [
        {"mark": "W1", "drawing": "101", "thickness": "20 mm"},
        {"mark": "W2", "drawing": "101", "thickness": "25 mm"},
        {"mark": "W5", "drawing": "101", "thickness": "12 mm"},
    ]
    changes = changes_between(OLD, new)
    assert changes.added == (2,) and changes.same == 1
    assert [(one.mark, one.cells[0].before, one.cells[0].after) for one in changes.changed] == [
        ("W2", "20 mm", "25 mm")
    ]
    assert [OLD[at]["mark"] for at in changes.gone] == ["W3"]  # W9 is of another drawing
    assert merged(OLD[0], new[0], ("mark", "drawing", "thickness"))["remarks"] == "keep"


@settings(max_examples=60, deadline=None)
@given(st.lists(st.sampled_from("abcd"), max_size=6), st.lists(st.sampled_from("abcd"), max_size=6))
def test_every_joint_of_both_lists_is_told_of_once(old, new):
    changes = changes_between([{"mark": one} for one in old], [{"mark": one} for one in new])
    assert len(changes.added) + len(changes.changed) + changes.same == len(new)
    assert len(changes.gone) + len(changes.changed) + changes.same == len(old) or not new
