"""Who may weld it: what procedures ask of a person, and whose certificates cover all of it on that day."""

from dataclasses import replace
from datetime import date
from pathlib import Path

import pytest

from welding.documents.codec import PROCEDURE
from welding.welders.asked import Asked
from welding.welders.catalogue import designation_of, edition_for, read_designation
from welding.welders.codes.aws_d1_1_2020.rules.asking import f_number
from welding.welders.codes.iso_9606_1_2017.rules.asking import filler_of
from welding.welders.validity import Confirmation, Held, validity
from welding.welders.who import HeldTest, asked_by, may_weld

EXAMPLES = Path(__file__).resolve().parents[2] / "docs" / "examples"
DEMO = EXAMPLES.parents[1] / "server" / "apps" / "demo" / "documents"


def procedure(path):
    return PROCEDURE.read(path.read_bytes())


GIRDER = procedure(DEMO / "FB-27-P02-A.procedure.json")
"""A plate butt of 16 mm in PA, 135, dip transfer in the root, one side without backing."""
FILLET = procedure(DEMO / "FB-27-P01-A.procedure.json")
"""AWS: a fillet of FCAW in 2F, 3/4 in to 1/2 in."""


def changed(document, **facts):
    """The document with every pass, or the joint, changed."""
    passes, joint = {}, {}
    for name, value in facts.items():
        (joint if hasattr(document.joint, name) else passes)[name] = value
    return replace(
        document,
        joint=replace(document.joint, **joint),
        passes=tuple(replace(one, **passes) for one in document.passes),
    )


def asked(document):
    return asked_by(document)[1]


def held(designation, welded="2026-08-01", confirmed=(), on="2026-12-01", **more):
    weld = read_designation(designation)
    one = Held(
        package=f"welding.welders.codes.{'aws_d1_1_2020' if 'AWS' in designation else 'iso_9606_1_2017'}",
        processes=tuple(part.process for part in weld.parts),
        welded_on=date.fromisoformat(welded),
        option="a",
        confirmations=tuple(Confirmation(on=date.fromisoformat(day)) for day in confirmed),
        **more,
    )
    return HeldTest(weld=weld, validity=validity(one, date.fromisoformat(on)))


def test_a_procedure_asks_for_each_position_and_transfer_mode():
    found = asked(GIRDER)
    assert found.open == ()
    assert {designation_of(one) for one in found.welds} == {
        "ISO 9606-1 135 P BW FM1 S s16 PA ss nb, dip transfer",
        "ISO 9606-1 135 P BW FM1 S s16 PA ss nb, spray transfer",
    }
    two = replace(GIRDER, positions=("PA", "PF"))
    assert {one.position for one in asked(two).welds} == {"PA", "PF"}
    fillets = asked(FILLET)
    assert {round(one.thickness_mm, 2) for one in fillets.welds} == {12.7, 19.05} and not fillets.open


@pytest.mark.parametrize(
    "facts, part",
    [
        ({"sides": "both"}, "bs"),
        ({"backing": "metal"}, "ss mb"),
        ({"backing": "ceramic"}, "ss mb"),
        ({"backing": "gas"}, "ss gb"),
        ({"backing": "flux"}, "ss fb"),
        ({"mechanisation": "fully"}, "mechanized"),
        ({"transfer": "pulsed"}, "pulsed transfer"),
    ],
)
def test_facts_of_the_joint_and_the_passes_are_asked(facts, part):
    assert all(part in designation_of(one) for one in asked(changed(GIRDER, **facts)).welds)


FILLERS = [
    ("ER70S-6", "135", "FM1", "S"),
    ("ISO 14341-A G 42 4 M21 3Si1", "135", "FM1", "S"),
    ("ISO 17632-A T 46 4 P M21 1 H5", "136", "FM1", "P"),
    ("ISO 17632-A T 42 4 B M21 3 H5", "136", "FM1", "B"),
    ("E71T-1C", "136", "FM1", "P"),
    ("E70C-6M", "138", "FM1", "M"),
    ("E7018-1", "111", "FM1", "18"),
    ("E6010", "111", "FM1", "10"),
    ("ISO 2560-A E 42 5 B 42 H5", "111", "FM1", "B"),
    # The impact symbols A and Z are no coverings and no cores.
    ("ISO 2560-A E 42 A B 12 H5", "111", "FM1", "B"),
    ("ISO 2560-A E 42 A RR 12", "111", "FM1", "RR"),
    ("ISO 2560-A E 38 Z C 21", "111", "FM1", "C"),
    ("ISO 17632-A T 42 Z B M21 3 H5", "136", "FM1", "B"),
    ("ISO 17632-A T 46 Z P M21 1", "136", "FM1", "P"),
    ("E71T-5C-J", "136", "FM1", "B"),
    ("E71T-8", "114", "FM1", "Z"),
    ("E316L-17", "111", "FM5", "R"),
    ("E308L-15", "111", "FM5", "B"),
    ("ER308LSi", "141", "FM5", "S"),
    ("ISO 14343-A G 19 9 L Si", "135", "FM5", "S"),
    ("ERNiCr-3", "141", "FM6", "S"),
    ("F7A2-EM12K", "121", "FM1", "S"),
    ("E8018-C3", "111", None, "18"),
    ("ER80S-B2", "141", None, "S"),
    ("ISO 3580-A E CrMo1 B 4 2", "111", None, "B"),
    ("no such filler", "135", None, None),
]


@pytest.mark.parametrize("designation, process, group, kind", FILLERS)
def test_group_and_type_of_a_filler(designation, process, group, kind):
    """By the standard that classes it; common practice for AWS classes. What is not known says so."""
    found = filler_of(designation, process)
    assert found[:2] == (group, kind) and bool(found[2]) == (None in (group, kind))


@pytest.mark.parametrize(
    "designation, number",
    [("E7018", "F4"), ("E7018-1 H4R", "F4"), ("E6010", "F3"), ("E6013", "F2"), ("E7014", "F2"),
     ("E7024", "F1"), ("E7028", "F1"), ("E8018-C3", "F4"), ("E316L-17", None), ("ER70S-6", None), ("", None)],
)  # fmt: skip
def test_f_number_of_an_electrode(designation, number):
    """AWS D1.1 table 6.13, from memory."""
    assert f_number(designation) == number


@pytest.mark.parametrize(
    "document, reason",
    [
        (replace(GIRDER, positions=()), "position is not stated"),
        (replace(GIRDER, positions=("3G",), passes=changed(GIRDER, progression=None).passes), "upward or downward"),
        (replace(GIRDER, passes=()), "no joint or no passes"),
        (changed(GIRDER, process="122"), "122 is no process of ISO 9606-1"),
        (changed(GIRDER, weld="plug"), "not known here"),
        (replace(GIRDER, base_metals=()), "thickness is not stated"),
        (changed(FILLET, process="135", transfer=None), "GMAW-S is a process of its own"),
        (changed(FILLET, process="111"), "F-number"),
        (replace(FILLET, positions=()), "position is not stated"),
        (changed(FILLET, weld="build-up"), "not known here"),
    ],
)  # fmt: skip
def test_what_is_not_stated_leaves_it_open(document, reason):
    """Nobody is said to be qualified for what is not known."""
    found = asked(document)
    assert reason in " ".join(found.open)
    tests = [
        held("ISO 9606-1 135 P BW FM1 S s16 PA ss nb, dip transfer"),
        held("AWS D1.1 FCAW-G 2F plate T1/2in"),
    ]
    assert may_weld(tests, found).standing in ("open", "blocked")


WHO = [
    (["ISO 9606-1 135 P BW FM1 S s16 PA ss nb, dip transfer"], "may"),
    (["ISO 9606-1 135 P BW FM1 S s16 PA ss nb"], "open"),
    (["ISO 9606-1 135 P BW FM1 S s16 PA ss nb, spray transfer"], "blocked"),
    (["ISO 9606-1 138 P BW FM2 M s8 PF ss nb, dip transfer"], "may"),
    (["ISO 9606-1 135 P BW FM1 S s16 PA ss mb, dip transfer"], "blocked"),
    (["ISO 9606-1 111 P BW FM1 B s16 PA ss nb"], "blocked"),
    (["ISO 9606-1 111 P BW FM1 B s16 PA ss nb", "ISO 9606-1 135 P BW FM1 S s10 PC ss nb, dip transfer"], "may"),
    (["AWS D1.1 GMAW-S 3G uphill plate T1in open-root"], "untested"),
    ([], "untested"),
]  # fmt: skip


@pytest.mark.parametrize("tests, standing", WHO)
def test_who_may_weld_the_girder(tests, standing):
    found = may_weld([held(one) for one in tests], asked(GIRDER))
    assert found.standing == standing
    assert bool(found.by) == (standing == "may")
    if standing == "may" and len(tests) == 2:
        assert found.by == (1,)
    if standing in ("blocked", "open"):
        assert all(one.message for one in found.findings) and found.findings
    if standing == "untested":
        assert found.reasons


def test_a_certificate_that_has_run_out_covers_nothing():
    good = "ISO 9606-1 135 P BW FM1 S s16 PA ss nb, dip transfer"
    found = may_weld([held(good, welded="2026-01-10")], asked(GIRDER))
    assert (found.standing, found.by) == ("lapsed", (0,)) and "2026-07-10" in " ".join(found.reasons)
    kept = held(good, welded="2026-01-10", confirmed=("2026-07-01",))
    assert may_weld([kept], asked(GIRDER)).standing == "may"
    short = held("ISO 9606-1 135 P BW FM1 S s3 PA ss nb, dip transfer")
    assert may_weld([short], asked(GIRDER)).standing == "blocked"
    conditions = HeldTest(
        weld=read_designation(good),
        validity=validity(
            Held(
                package="welding.welders.codes.iso_9606_1_2017",
                processes=("135",),
                welded_on=date(2026, 8, 1),
                option="c",
            ),
            date(2026, 12, 1),
        ),
    )
    assert may_weld([conditions], asked(GIRDER)).standing == "open", "what is unknown does not count"


def test_without_filler_the_base_metal_counts():
    """Clause 5.5: its group takes the place of the filler group, and a certificate may not state it."""
    bare = changed(GIRDER, process="142", transfer=None, filler=None)
    test = held("ISO 9606-1 142 P BW nm s16 PA ss nb")
    found = may_weld([test], asked(bare))
    assert found.standing == "open" and found.findings[0].title == "Base metal group"
    stated = replace(test, weld=replace(test.weld, metal_group="1"))
    welds = tuple(replace(one, metal_group="1") for one in asked(bare).welds)
    assert may_weld([stated], Asked(welds=welds, open=())).standing == "may"
    other = tuple(replace(one, metal_group="8") for one in welds)
    assert may_weld([stated], Asked(welds=other, open=())).standing == "blocked"


def test_a_fact_that_is_open_is_open_for_everybody():
    good = [held("ISO 9606-1 135 P BW FM1 S s16 PA ss nb, dip transfer")]
    found = may_weld(good, Asked(welds=asked(GIRDER).welds, open=("The site is not stated.",)))
    assert (found.standing, found.reasons) == ("open", ("The site is not stated.",))


def test_a_pass_without_a_transfer_mode_is_not_taken_for_another():
    first, *rest = GIRDER.passes
    partly = replace(GIRDER, passes=(replace(first, transfer=None), *rest))
    spray = held("ISO 9606-1 135 P BW FM1 S s16 PA ss nb, spray transfer")
    assert {one.transfer for one in partly.passes} == {None, "spray"}
    assert may_weld([spray], asked(partly)).standing == "open"


def test_the_codes_that_procedures_go_by():
    assert edition_for("iso-15614-1:2017").id == "iso-9606-1:2017"
    assert edition_for("aws-d1.1:2020").id == "aws-d1.1-welders:2020"
    assert edition_for("iso-15614-2:2005") is None
    assert asked_by(replace(GIRDER, code=None)) is None
    aws = procedure(EXAMPLES / "two-processes-aws-d1-1.procedure.json")
    assert {one.parts[0].process for one in asked(aws).welds} == {"GTAW", "SMAW"}
    both = procedure(EXAMPLES / "two-processes-iso-15614-1.procedure.json")
    test = held(designation_of(asked(both).welds[0]))
    assert may_weld([test], asked(both)).standing == "may"
