"""What a tested partial groove shows of its weld size (AWS D1.1:2020, clause 6.12 and table 6.3, from memory)."""

import pytest

from tests.welding.records import put
from tests.welding.weldments import own_procedure, plain_record
from welding.coverage.covers import covers
from welding.documents.codec import PROCEDURE, RECORD

OWN = {"joint": "pjp-own", "t": 20, "sections": [6, 6, 6]}
"""A V of 40°, 8 mm deep in 20 mm, of which three sections show 6 mm."""


def answer(words, **changes):
    plain = PROCEDURE.plain(own_procedure("aws", OWN))
    for path, value in changes.items():
        put(plain, path.replace("__", "."), value)
    return covers([RECORD.take(plain_record("aws", {**OWN, **words}))], PROCEDURE.take(plain))


@pytest.mark.parametrize(
    "size, verdict", [(5, "covered"), (6, "covered"), (6.1, "blocked"), (8, "blocked"), ("remove", "open")]
)
def test_no_more_is_counted_on_than_the_sections_show(size, verdict):
    assert answer({}, joint__throat_mm=size).verdict == verdict


@pytest.mark.parametrize("sections, size, verdict", [([7, 7, 7], 7, "covered"), ([7, 7, 6], 7, "blocked")])
def test_the_least_section_counts(sections, size, verdict):
    assert answer({"sections": sections}, joint__throat_mm=size).verdict == verdict


@pytest.mark.parametrize("without", ["included_angle_deg", "root_gap_mm", "sides"])
def test_a_partial_groove_without_its_dimensions_is_no_prequalified_detail(without):
    """A complete groove takes in every prequalified detail (BC-P2: V of 60°, no root opening); a V is none yet."""
    record = RECORD.take(plain_record("aws", {"t": 20}))
    plain = PROCEDURE.plain(own_procedure("aws", {"t": 20}))
    groove = {"form": "single-v", "included_angle_deg": 60, "root_gap_mm": 0, "sides": [{"depth_mm": 11}]}
    plain["joint"] = {"kind": "butt", "weld": "pjp-groove", "throat_mm": 11, "preparation": groove}
    assert covers([record], PROCEDURE.take(plain)).covered
    groove.pop(without)
    found = covers([record], PROCEDURE.take(plain))
    assert found.verdict == "open", [one.message for one in found.findings if one.verdict != "complies"]


@pytest.mark.parametrize("face, size, verdict", [(14, 4, "covered"), (14, 5, "open"), (14, 6, "open")])
def test_a_shallower_groove_is_not_shown_to_fuse_deeper(face, size, verdict):
    """6 mm deep: what was tested lacked 2 mm of its depth."""
    found = answer({}, joint__preparation__root_face_mm=face, joint__throat_mm=size)
    assert found.verdict == verdict, [one.message for one in found.findings if one.verdict != "complies"]
