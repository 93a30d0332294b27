"""evaluate(): findings, heat ranges, what is missing; and the coupon's log against its ranges."""

import json

import pytest

from tests.welding import samples
from welding.cli import main
from welding.codebook.catalogue import all_editions
from welding.documents.codec import COUPON, PROCEDURE
from welding.evaluate.coupon import evaluate_coupon
from welding.evaluate.procedure import evaluate
from welding.quantities.reading import read_quantity

WINDOW = {"preheat_min_c": 75, "interpass_max_c": 250}


def judged(**change):
    return evaluate(PROCEDURE.take(samples.procedure(**change)))


def of_rule(evaluation, rule):
    return [finding for finding in evaluation.findings if finding.rule == rule]


def test_heat_range_by_hand():
    # 24 V x 220 A x 60 / 300 / 1000 = 1.056 and 28 x 260 x 60 / 200 / 1000 = 2.184; ISO: x 0.8.
    heat = judged().heat_input[0]
    assert (heat.min_kj_mm, heat.max_kj_mm, heat.k) == (pytest.approx(0.8448), pytest.approx(1.7472), 0.8)
    aws = judged(code={"id": "aws-d1.1:2020", "units": "us"}).heat_input[0]
    assert (aws.min_kj_mm, aws.max_kj_mm, aws.k) == (pytest.approx(1.056), pytest.approx(2.184), 1.0)
    assert aws.max_kj_in == pytest.approx(2.184 * 25.4)
    assert judged(code=None).heat_input[0].k == 0.8


@pytest.mark.parametrize(
    "window, verdict, word",
    [
        ((0.8, 1.8), "complies", "within"),
        ((0.8, 1.5), "violates", "233 mm/min or faster"),
        ((1.0, 1.8), "violates", "253 mm/min or slower"),
    ],
)
def test_wanted_window_and_the_travel_that_keeps_it(window, verdict, word):
    # 28 x 260 x 60 x 0.8 / 1.5 / 1000 = 232.96 mm/min; 24 x 220 x 60 x 0.8 / 1.0 / 1000 = 253.4.
    found = of_rule(
        judged(thermal={**WINDOW, "heat_input_kj_mm": {"min": window[0], "max": window[1]}}),
        "heat-input.window",
    )
    assert {f.verdict for f in found} == {verdict}
    assert word in found[0].remedy + found[0].message


@pytest.mark.parametrize(
    "passes, rule, verdict",
    [
        ({"polarity": "DCEN", "filler": None}, "polarity.process", "violates"),
        ({"polarity": "DCEP", "filler": None}, "polarity.process", "complies"),
        (
            {
                "process": "141",
                "polarity": "DCEN",
                "filler": None,
                "gas": {"components_percent": {"Ar": 100}},
            },
            "polarity.process",
            "complies",
        ),
        ({"process": "141", "polarity": "DCEP", "filler": None}, "polarity.process", "violates"),
        ({"gas": {"components_percent": {"Ar": 100}}}, "gas.process", "violates"),
        ({"gas": {"components_percent": {"Ar": 82, "CO2": 18}}}, "gas.process", "complies"),
        ({"process": "141"}, "gas.process", "violates"),
        ({"process": "111"}, "gas.process", "violates"),
        ({"process": "131"}, "gas.process", "violates"),
        ({"transfer": "pulsed"}, "heat-input.estimate", "undecided"),
        ({"transfer": "controlled-short-circuit"}, "heat-input.estimate", "undecided"),
    ],
)
def test_process_checks(passes, rule, verdict):
    evaluation = judged(passes=[samples.a_pass(1, "root", **passes)])
    assert {finding.verdict for finding in of_rule(evaluation, rule)} == {verdict}


@pytest.mark.parametrize(
    "positions, joint, rule, verdict",
    [
        (["PF"], samples.SINGLE_V, "position.weld", "complies"),
        (["PB"], samples.SINGLE_V, "position.weld", "violates"),
        (["PB"], samples.T_GROOVE, "position.weld", "complies"),
        (["2F"], samples.T_GROOVE, "position.weld", "violates"),
        (["2F"], samples.T_FILLET, "position.weld", "complies"),
        (["1G"], samples.T_FILLET, "position.weld", "violates"),
        (["PG"], samples.SINGLE_V, "position.progression", "violates"),
    ],
)
def test_positions(positions, joint, rule, verdict):
    found = of_rule(judged(positions=positions, joint=joint), rule)
    assert {finding.verdict for finding in found} == {verdict}


def test_3g_without_progression_is_undecided():
    passes = [samples.a_pass(1, "root")]
    del passes[0]["progression"]
    found = of_rule(judged(positions=["3G"], passes=passes), "position.progression")
    assert [finding.verdict for finding in found] == ["undecided"]


@pytest.mark.parametrize("top", [1.3, 1.41, 1.5, 1.53, 1.61])
@pytest.mark.parametrize("system", ["si", "us"])
def test_the_advised_travel_really_holds(top, system):
    thermal = {**WINDOW, "heat_input_kj_mm": {"min": 0.1, "max": top}}
    document = samples.procedure(thermal=thermal)
    remedy = of_rule(evaluate(PROCEDURE.take(document), system), "heat-input.window")[0].remedy
    slowest = read_quantity(" ".join(remedy.split()[1:3]), kind="travel").value
    for one in document["passes"]:
        one["travel_mm_min"] = {"min": slowest, "max": 400}
    found = of_rule(evaluate(PROCEDURE.take(document)), "heat-input.window")
    assert {finding.verdict for finding in found} == {"complies"}


def test_temperatures_that_cross():
    found = of_rule(judged(thermal={"preheat_min_c": 200, "interpass_max_c": 150}), "temperature.order")
    assert [finding.verdict for finding in found] == ["violates"]


def test_missing_is_named_with_its_path():
    document = samples.procedure()
    for metal in document["base_metals"]:
        metal.setdefault("standard", "EN 10025-2")
    for one in document["passes"]:
        one.setdefault("bead", "stringer")
        one.setdefault("extension_mm", {"min": 15, "max": 20})
    del document["thermal"]["preheat_min_c"]
    del document["passes"][1]["voltage_v"]
    evaluation = evaluate(PROCEDURE.take(document))
    assert {problem.path for problem in evaluation.missing} == {"thermal.preheat_min_c", "passes.1.voltage_v"}
    assert of_rule(evaluation, "content.complete")[0].verdict == "undecided"
    assert [heat.pass_number for heat in evaluation.heat_input] == [1, 3]


def test_an_empty_draft_and_an_unknown_code_do_not_raise():
    empty = evaluate(PROCEDURE.take({"format": "grounded-bead/procedure", "version": 1}))
    assert empty.drawing is None
    assert empty.missing
    assert of_rule(judged(code={"id": "no-such-code:1999"}), "code.known")[0].verdict == "undecided"


def test_every_finding_has_a_number_or_a_reason_and_breaches_come_first():
    evaluation = judged(thermal={**WINDOW, "heat_input_kj_mm": {"min": 1, "max": 1.2}}, positions=["PB"])
    verdicts = [finding.verdict for finding in evaluation.findings]
    assert verdicts == sorted(verdicts, key=["violates", "undecided", "complies"].index)
    assert all(finding.message.endswith(".") for finding in evaluation.findings)
    assert all(finding.remedy for finding in evaluation.findings if finding.verdict == "violates")


def test_sentences_follow_the_readers_units():
    document = PROCEDURE.take(
        samples.procedure(thermal={**WINDOW, "heat_input_kj_mm": {"min": 1, "max": 1.2}})
    )
    us = " ".join(f.message + f.remedy for f in evaluate(document, "us").findings)
    assert "kJ/in" in us
    assert "kJ/mm" not in us


def test_cautions_follow_the_hazard():
    plain = judged().cautions
    stainless = judged(
        passes=[
            samples.a_pass(
                1,
                "root",
                process="141",
                polarity="DCEN",
                filler={"designation": "ER308LSi", "diameter_mm": 1.6},
            )
        ]
    )
    assert not any("chromium" in text for text in plain)
    assert any("chromium(VI)" in text for text in stainless.cautions)
    # What is special to it stands first; what every arc does, and who decides, last.
    assert "chromium(VI)" in stainless.cautions[0]
    assert stainless.cautions[-1] == "Local rules and qualified people decide."
    assert plain[-1] == "Local rules and qualified people decide."


@pytest.mark.parametrize("level, verdicts", [(None, ["undecided"]), (1, []), (2, [])])
def test_a_code_with_levels_asks_for_the_level(level, verdicts):
    code = {"id": "iso-15614-1:2017", "units": "si", **({"level": level} if level else {})}
    found = evaluate(PROCEDURE.take(samples.procedure(code=code))).findings
    assert [one.verdict for one in found if one.rule == "code.level"] == verdicts


def test_editions_are_found_by_their_folders():
    assert set(all_editions()) == {"aws-d1.1:2020", "iso-15614-1:2017"}


LOG = {"number": 1, "current_a": 240, "voltage_v": 26, "length_mm": 300, "time_s": 72, "before_c": 100}


@pytest.mark.parametrize(
    "change, rule, verdict, word",
    [
        ({}, "travel.range", "complies", "within"),
        ({"time_s": 120}, "travel.range", "violates", "200 mm/min or faster, about 90 s for 300 mm"),
        ({"time_s": 40}, "travel.range", "violates", "slower"),
        ({"current_a": 300}, "current.range", "violates", "above 220–260 A"),
        ({"current_a": {"mean": 240, "min": 205, "max": 255}}, "current.range", "violates", "below"),
        ({"voltage_v": 33}, "voltage.range", "violates", "above"),
        ({"voltage_v": 20}, "voltage.range", "violates", "below"),
        ({"wire_feed_m_min": 4}, "wire-feed.range", "violates", "below"),
        (
            {"gas": {"components_percent": {"Ar": 82, "CO2": 18}, "flow_l_min": 30}},
            "flow.range",
            "violates",
            "above",
        ),
        (
            {"gas": {"components_percent": {"Ar": 82, "CO2": 18}, "flow_l_min": 5}},
            "flow.range",
            "violates",
            "below",
        ),
        ({"before_c": 260}, "interpass.range", "violates", "cool"),
        ({"before_c": 20}, "interpass.range", "violates", "Preheat"),
        ({"before_c": None}, "interpass.range", "undecided", "not read"),
        ({"polarity": "DCEN"}, "polarity.planned", "violates", "DCEP is planned"),
        ({"interpass": {"quenched": True}}, "interpass.quenched", "violates", "no interpass record"),
        ({"number": 9}, "pass.planned", "undecided", "9"),
    ],
)
def test_log_against_ranges(change, rule, verdict, word):
    entry = {key: value for key, value in {**LOG, **change}.items() if value is not None}
    result = evaluate_coupon(COUPON.take(samples.coupon([entry]))).passes[0]
    found = [finding for finding in result.findings if finding.rule == rule]
    assert [finding.verdict for finding in found] == [verdict]
    assert word in found[0].message + found[0].remedy


def test_logged_heat_input_by_hand():
    # 300 mm in 72 s = 250 mm/min; 26 x 240 x 60 / 250 / 1000 = 1.4976; ISO k 0.8 = 1.19808.
    result = evaluate_coupon(COUPON.take(samples.coupon([LOG]))).passes[0]
    assert result.travel_mm_min == pytest.approx(250)
    assert result.arc_energy_kj_mm == pytest.approx(1.4976)
    assert result.heat_input_kj_mm == pytest.approx(1.19808)
    assert not result.out_of_range


def test_segments_add_up_and_measured_energy_is_used():
    stretches = {**LOG, "time_s": None, "segments": [{"time_s": 40}, {"time_s": 32}]}
    entry = {key: value for key, value in stretches.items() if value is not None}
    assert evaluate_coupon(COUPON.take(samples.coupon([entry]))).passes[0].travel_mm_min == pytest.approx(250)
    measured = {**LOG, "energy_j": 450_000, "energy_method": "energy"}
    result = evaluate_coupon(COUPON.take(samples.coupon([measured]))).passes[0]
    assert (result.method, result.arc_energy_kj_mm) == ("energy", pytest.approx(1.5))


def test_what_is_still_to_weld():
    assert evaluate_coupon(COUPON.take(samples.coupon([LOG]))).to_weld == (2, 3)


def run(capsys, *arguments):
    code = main(list(arguments))
    out, err = capsys.readouterr()
    return code, json.loads(out) if out else None, err


def test_cli_heat_and_read(capsys):
    _, heat, _ = run(
        capsys, "heat", "--volts", "25", "--amps", "250", "--travel", "10 ipm", "--process", "135"
    )
    assert heat["arc_energy_kj_in"] == 37.5
    assert heat["arc_energy_kj_mm"] == pytest.approx(1.4764, abs=5e-5)
    assert heat["heat_input_kj_mm"] == pytest.approx(1.1811, abs=5e-5)
    assert (heat["k"], heat["source"]["k"]["provenance"]) == (0.8, "memory")
    code, out, err = run(capsys, "read", "25 kg", "--as", "flow")
    assert (code, out) == (2, None)
    assert "mass" in err
    assert run(capsys, "heat", "--volts", "25", "--amps", "250", "--travel", "10 ipm")[1]["k"] is None
    assert run(capsys, "heat", "--energy", "45000", "--length", "150 mm")[1][
        "arc_energy_kj_mm"
    ] == pytest.approx(0.3)
    assert run(capsys, "heat", "--power", "3000", "--travel", "180 mm/min")[1][
        "arc_energy_kj_mm"
    ] == pytest.approx(1.0)
    assert run(
        capsys,
        "pulse",
        "--peak",
        "100",
        "--background",
        "10",
        "--duty",
        "0.3",
        "--peak-volts",
        "12",
        "--background-volts",
        "9",
    )[1]["mean_power_w"] == pytest.approx(423)


@pytest.mark.parametrize(
    "arguments",
    [
        ["heat"],
        ["heat", "--volts", "x"],
        ["nonsense"],
        ["read"],
        ["evaluate", "/no/such/file"],
        ["heat", "--volts", "25", "--amps", "0", "--travel", "10 ipm"],
        ["heat", "--energy", "5"],
    ],
)
def test_cli_refuses_with_exit_2(capsys, arguments):
    code, out, err = run(capsys, *arguments)
    assert (code, out) == (2, None)
    assert err.strip()


CALLS = "read heat pulse cooling preheat decode gas equivalents evaluate propose schema"


@pytest.mark.parametrize("call", ["", *CALLS.split()])
def test_cli_explains_itself(capsys, call):
    with pytest.raises(SystemExit) as ended:
        main([part for part in (call, "--help") if part])
    assert ended.value.code == 0
    assert f"python -m welding {call}".strip() in capsys.readouterr().out


def test_cli_evaluate(capsys, tmp_path):
    file = tmp_path / "p.json"
    file.write_text(json.dumps(samples.procedure()))
    _, out, _ = run(capsys, "evaluate", str(file))
    assert [heat["pass"] for heat in out["heat_input"]] == [1, 2, 3]
    assert out["section"]["total_mm2"] == pytest.approx(
        out["section"]["area_mm2"] + out["section"]["reinforcement_mm2"]
    )
    file.write_text(json.dumps(samples.coupon([LOG])))
    assert run(capsys, "evaluate", str(file))[1]["to_weld"] == [2, 3]
    file.write_text('{"format": "grounded-bead/procedure", "version": 1, "zap": 1}')
    code, _, err = run(capsys, "evaluate", str(file))
    assert (code, "zap" in err) == (2, True)
    assert run(capsys, "schema", "coupon")[1]["title"] == "Coupon"
