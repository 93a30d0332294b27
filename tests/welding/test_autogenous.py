"""Drafts of TIG without filler (142): what it can weld, and why it does not weld the rest (common practice)."""

import pytest

from welding.documents.codec import INTENT
from welding.errors import DocumentError
from welding.evaluate.procedure import evaluate
from welding.planning.propose import propose


def asked(metal="AISI 304L", thickness=2.0, kind="butt", weld="cjp-groove", joint=None, **more):
    return propose(
        INTENT.take(
            {
                "format": "grounded-bead/intent",
                "version": 1,
                "metals": [metal, metal],
                "thickness_mm": [thickness, thickness],
                "joint": {"kind": kind, "weld": weld, **(joint or {})},
                "position": "PA",
                "process": "142",
                **more,
            }
        )
    )


FITS = [
    {},
    {"metal": "EN S235JR", "thickness": 2.0, "kind": "edge", "weld": "pjp-groove"},
    {"metal": "AISI 316L", "thickness": 1.65, "position": "PH", "outside_diameter_mm": 50.8},
    {"thickness": 1.0, "kind": "corner"},
    {"metal": "UNS N06625", "thickness": 1.5},
]


@pytest.mark.parametrize("case", FITS, ids=str)
def test_one_pass_without_filler_on_which_no_check_finds_fault(case):
    made = asked(**case)
    (one,) = made.procedure.passes
    assert (one.process, one.filler, one.polarity) == ("142", None, "DCEN")
    assert "142" in made.procedure.title and "141" not in made.procedure.title
    preparation = made.procedure.joint.preparation
    assert (preparation.form, preparation.root_gap_mm) == ("square", 0.0)
    assert made.collisions == ()
    assert not [r.text for r in made.reasons if "filler" in r.path or "rod" in r.text or "bead of" in r.text]
    assert not [f for f in evaluate(made.procedure).findings if f.verdict == "breach"]


def test_the_root_of_stainless_tube_is_purged_and_mild_steel_is_to_be_killed():
    (one,) = asked(metal="AISI 316L", thickness=1.65).procedure.passes
    assert one.purge is not None and one.purge.components_percent == {"Ar": 100.0}
    assert any("killed" in r.text for r in asked("EN S235JR", 1.5).reasons)


REFUSED = [
    ({"kind": "t", "weld": "fillet"}, "joint.kind", "a fillet needs filler"),
    ({"thickness": 5.0}, "thickness_mm.0", "3 mm at the most"),
    ({"filler": {"designation": "ER308L"}}, "filler.designation", "no filler"),
    ({"fill_process": "111"}, "fill_process", "one pass and no other"),
    ({"passes_wanted": 3}, "passes_wanted", "one pass"),
    ({"joint": {"preparation": {"form": "single-v"}}}, "joint.preparation", "square and touch"),
    ({"joint": {"preparation": {"form": "square", "root_gap_mm": 1.5}}}, "joint.preparation", "touch"),
    ({"metal": "2205"}, "metals.0", "ferritic"),
    ({"metal": "EN AW-6061-T6"}, "metals.0", "crack"),
    ({"metal": "S460M"}, "metals.0", "360 MPa"),
    ({"metal": "P91"}, "metals.0", "heated before and after"),
]


@pytest.mark.parametrize(("case", "path", "words"), REFUSED, ids=lambda one: str(one))
def test_what_needs_filler_is_refused_beside_its_field(case, path, words):
    with pytest.raises(DocumentError) as caught:
        asked(**case)
    assert words in {problem.path: problem.message for problem in caught.value.problems}[path]


def test_bronze_with_aluminium_gets_the_wave_that_goes_with_its_polarity():
    (first, *_) = asked("C61400", 4.0, process="141").procedure.passes
    assert first.polarity == "AC" and first.ac is not None
