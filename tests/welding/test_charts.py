"""Printed charts beside a proposal: which are followed, which are not, and what is said of them."""

import pytest

from tests.welding import samples
from welding.charts.differences import differences, rows_for
from welding.documents.codec import CHART, INTENT, PROCEDURE
from welding.errors import DocumentError
from welding.planning.propose import propose

CORED = {"process": "136", "designation": "E71T-1C", "gas": "CO2", "polarity": "DCEP"}
LINE = {"diameter_mm": 1.2, "positions": ["1G", "2F"], "current_a": {"min": 170, "max": 320},
        "voltage_v": {"min": 22, "max": 32}}  # fmt: skip


def chart(row=None, **more):
    plain = {
        "format": "grounded-bead/chart", "version": 1, "name": "Door of the feeder", "page": "2", **CORED, **more,
        "rows": [{**LINE, **(row or {})}],
    }  # fmt: skip
    return {key: value for key, value in plain.items() if value is not None}


def asked(*charts, trials=(), **more):
    plain = {
        "format": "grounded-bead/intent", "version": 1, "metals": ["A36"], "thickness_mm": [20], "process": "136",
        "joint": {"kind": "butt", "weld": "cjp-groove", "backing": "metal"}, "position": "1G", "gas": "CO2",
        "filler": {"designation": "E71T-1C", "diameter_mm": 1.2}, "charts": list(charts), "trials": list(trials),
        **more,
    }  # fmt: skip
    return propose(INTENT.take(plain))


def of_chart(found):
    return [source for group in found.bands for source in group.sources if source.kind == "chart"]


def test_a_chart_for_just_this_is_followed_and_says_so():
    plain, found = asked(), asked(chart({"current_a": {"min": 200, "max": 240}}))
    assert any("kept inside Door of the feeder, page 2" in one.text for one in found.reasons)
    fills = [one for one in found.procedure.passes if one.role == "fill"]
    before = [one for one in plain.procedure.passes if one.role == "fill"]
    assert all(one.current_a.min >= 200 and one.current_a.max <= 240 for one in fills)
    assert before[0].current_a.max > 240 or before[0].current_a.min < 200
    assert any(one.followed for one in of_chart(found))


@pytest.mark.parametrize(
    "what, change, row, said",
    [
        ("wrong polarity for the class", {"polarity": "DCEN"}, {}, "E71T-1C runs on DCEP"),
        ("a chart for a mix", {"gas": "75Ar/25CO2"}, {}, "V more at the same current"),
        ("self-shielded wire of the same look", {"designation": "E71T-11", "polarity": "DCEN"}, {}, "not for E71T-1C"),
        ("thicker metal", {}, {"thickness_mm": {"min": 3, "max": 12}}, "the metal is 20"),
        ("another position", {}, {"positions": ["3G"]}, "not for 1G"),
        ("no gas named", {"gas": None}, {}, "does not say which gas"),
        ("no position named", {}, {"positions": []}, "does not say for which positions"),
        ("no class named", {"designation": None}, {}, "does not name a filler class"),
        ("a gas nobody can read", {"gas": "the blue bottle"}, {}, "could not be read"),
        ("amps that nothing explains", {}, {"current_a": {"min": 380, "max": 420}}, "a trial weld decides"),
    ],
)  # fmt: skip
def test_a_chart_that_is_not_for_this_is_shown_with_the_reason_and_changes_nothing(what, change, row, said):
    found = asked(chart(row, **change))
    (first, *_) = of_chart(found)
    assert any(said in text for text in first.differs), (what, first.differs)
    assert not any(one.followed for one in of_chart(found))
    assert found.procedure.passes == asked().procedure.passes
    assert any("not followed" in one.text and said in one.text for one in found.reasons)


def test_polarity_against_the_class_is_called_wrong_and_a_mere_difference_is_not():
    assert of_chart(asked(chart(polarity="DCEN")))[0].wrong
    assert not of_chart(asked(chart(gas="75Ar/25CO2")))[0].wrong


@pytest.mark.parametrize(
    "theirs, own, alike",
    [
        ("ER70S-6", "G 42 4 M21 3Si1", True),  # G3Si1 and ER70S-6 are one wire (common practice)
        ("E71T-1C", "T 42 2 P C1 1 H5", True),
        ("ER70S-6", "ER308LSi", False),
        ("E71T-11", "T 42 2 P C1 1 H5", False),  # self-shielded against gas-shielded
    ],
)
def test_one_class_in_two_naming_systems_is_one_class(theirs, own, alike):
    document = samples.procedure()
    one = document["passes"][0]
    one["filler"] = {**one["filler"], "designation": own}
    procedure = PROCEDURE.take(document)
    printed = CHART.take({**chart({"diameter_mm": 1.2}, designation=theirs), "process": one["process"]})
    (row,) = rows_for(printed, procedure, procedure.passes[0])
    told = differences(printed, row, procedure, procedure.passes[0], "steel")
    assert ("class" not in {difference.subject for difference in told}) == alike


def test_a_flat_chart_used_uphill_names_the_next_thinner_size():
    """Uphill goes on the settings of thinner metal (common practice)."""
    found = asked(chart({"positions": ["1G", "2F"]}), position="3G", progression="up")
    assert any("next thinner size" in text for text in of_chart(found)[0].differs)


def test_where_a_line_names_the_position_the_others_are_not_shown():
    plain = chart()
    plain["rows"].append({**LINE, "positions": ["3G"], "current_a": {"min": 150, "max": 200}})
    shown = {source.current_a.max for source in of_chart(asked(plain, position="3G", progression="up"))}
    assert shown == {200}


@pytest.mark.parametrize(
    "transfer, volts, said",
    [
        ("spray", (16, 19), "short-circuiting range"),
        ("short-circuit", (25, 29), "spray range"),
        ("spray", (25, 29), ""),
    ],
)
def test_a_line_of_another_metal_transfer_says_so(transfer, volts, said):
    """Solid wire: short circuiting below about 22 V, spray above about 24 V (common practice)."""
    printed = chart(
        {"voltage_v": {"min": volts[0], "max": volts[1]}, "current_a": {"min": 90, "max": 400}},
        process="135", designation="ER70S-6", gas="Ar+18CO2", polarity="DCEP",
    )  # fmt: skip
    wire = {"designation": "ER70S-6", "diameter_mm": 1.2}
    found = asked(printed, process="135", transfer=transfer, gas="Ar+18CO2", filler=wire)
    told = [text for source in of_chart(found) for text in source.differs if "range, the pass" in text]
    assert bool(told) == bool(said) and all(said in text for text in told)


def test_carbon_dioxide_takes_more_volts_than_a_mix_by_what_the_trade_sees():
    """Straight CO2 against 75/25: two to three volts at the same current (common practice)."""
    found = asked(chart(gas="75Ar/25CO2"))
    text = next(text for text in of_chart(found)[0].differs if "V more" in text)
    volts = float(text.split("about ")[1].split(" V")[0])
    assert 1.0 <= volts <= 3.5


@pytest.mark.parametrize("mm, shown", [(1.143, True), (1.2, True), (1.6, False), (1.0, False)])
def test_only_lines_of_the_size_are_shown(mm, shown):
    """0.045 in and 1.2 mm are one size (common practice)."""
    assert bool(of_chart(asked(chart({"diameter_mm": mm})))) == shown


def test_a_chart_of_another_process_is_not_shown():
    assert of_chart(asked(chart(process="138", designation="E70C-6M"))) == []


def test_trials_the_code_and_charts_stand_on_one_scale():
    trial = {
        "process": "121", "filler": {"diameter_mm": 4.0}, "position": "1G", "thickness_mm": 20, "current_a": 520,
        "voltage_v": 30, "verdict": "kept", "made_on": "2026-03-01",
    }  # fmt: skip
    printed = chart(
        {"diameter_mm": 4.0, "positions": ["1G"], "current_a": {"min": 400, "max": 800}},
        process="121", designation="F7A4-EM12K", gas=None, polarity="DCEP",
    )  # fmt: skip
    found = asked(
        printed, trials=[trial], process="121", gas=None, filler={"diameter_mm": 4.0},
        code={"id": "aws-d1.1:2020", "units": "si", "route": "prequalified"},
    )  # fmt: skip
    kinds = {source.kind for group in found.bands for source in group.sources}
    assert {"own", "chart", "trial", "code"} <= kinds
    for group in found.bands:
        scale = group.current_scale_a
        for source in group.sources:
            if source.current_a and source.kind != "code":
                assert scale.min <= source.current_a.min <= source.current_a.max <= scale.max


def test_without_other_sources_there_is_nothing_to_compare():
    assert asked().bands == ()


@pytest.mark.parametrize(
    "change",
    [{"rows": []}, {"rows": [{"diameter_mm": 1.2}]}, {"name": ""}, {"process": "MIG"},
     {"rows": [{**LINE, "current_a": {"min": 300, "max": 200}}]}],
)  # fmt: skip
def test_a_chart_that_says_nothing_or_nonsense_is_refused(change):
    with pytest.raises(DocumentError):
        CHART.take({**chart(), **change})
