"""The set-up against the draft: TIG, wire, gas flow, machine, wind, hydrogen, certificate, maker's sheet.

Expectations are common practice, from memory, unless a line names another source. Every draft lists the
exact set of rules that it breaks or leaves open; the right ones list none.
"""

import pytest

from tests.welding import samples
from welding.documents.codec import COUPON, PROCEDURE
from welding.evaluate.coupon import evaluate_coupon
from welding.evaluate.procedure import evaluate

RULES = {
    "tungsten.type", "tungsten.current", "cup.number", "pedal.maximum", "pulse.mean", "polarity.metal", "extension.usual",
    "rolls.wire", "spray.current", "gas.flow", "gas.post-flow", "purge.root", "purge.oxygen", "purge.flow",
    "setup.field", "machine.known", "machine.process", "machine.current", "machine.voltage", "machine.feed",
    "machine.duty", "machine.dial", "wind.gas", "hydrogen.steel", "product.class", "product.range",
    "metal.fractions", "metal.heat", "metal.chemistry", "metal.strength", "filler.over-match", "polarity.class",
}  # fmt: skip
AR, MIX = {"Ar": 100}, {"Ar": 82, "CO2": 18}
STEEL = {"designation": "S355J2+N", "thickness_mm": 10}


def span(low, high):
    return {"min": low, "max": high}


def tig(amps=(90, 120), **more):
    return {
        "process": "141",
        "role": "root",
        "transfer": None,
        "wire_feed_m_min": None,
        "polarity": "DCEN",
        "filler": {"designation": "ER70S-2", "diameter_mm": 2.4},
        "gas": {"components_percent": AR, "flow_l_min": span(8, 11)},
        "current_a": span(*amps),
        "voltage_v": span(10, 12),
        "tungsten": {"type": "WLa20", "diameter_mm": 2.4},
        "cup": {"number": 8, "lens": False},
        **more,
    }


def wire(**more):
    return {"transfer": "spray", "current_a": span(260, 290), **more}


def cored(**more):
    return {
        "process": "136",
        "transfer": None,
        "filler": {"designation": "E71T-1M H8", "diameter_mm": 1.2},
        "gas": {"components_percent": {"Ar": 75, "CO2": 25}, "flow_l_min": span(15, 20)},
        "current_a": span(180, 220),
        **more,
    }


def stick(designation, **more):
    return {
        "process": "111",
        "transfer": None,
        "gas": None,
        "wire_feed_m_min": None,
        "filler": {"designation": designation, "diameter_mm": 3.2},
        "current_a": span(90, 130),
        **more,
    }


def metals(designation, thick=10, **more):
    return {"base_metals": [{"designation": designation, "thickness_mm": thick, **more}] * 2}


ALU, STAINLESS = metals("6082-T6", 6), metals("304L", 6)
SOURCE = {
    "format": "grounded-bead/machine",
    "version": 1,
    "name": "Bay 2",
    "supplies": [
        {"name": "400 V", "envelopes": [
            {"family": "wire", "current_a": span(30, 350), "voltage_v": span(14, 34), "wire_feed_m_min": span(1, 20),
             "duty": [{"current_a": 350, "percent": 40}, {"current_a": 220, "percent": 100}]},
            {"family": "stick", "current_a": span(20, 280)},
        ]},
        {"name": "230 V", "envelopes": [
            {"family": "wire", "current_a": span(30, 180), "voltage_v": span(14, 23), "wire_feed_m_min": span(1, 12)}]},
    ],
    "dial": {"wire": "1.2 mm", "points": [{"setting": n, "length_mm": 100 * n, "time_s": 6} for n in (2, 6, 10)]},
}  # fmt: skip
PRODUCT = {
    "format": "grounded-bead/product",
    "version": 1,
    "name": "Fern Wire 71",
    "designation": "E71T-1M",
    "sheet_date": "2026-01-15",
    "ranges": [
        {"diameter_mm": 1.2, "current_a": span(150, 300), "voltage_v": span(22, 30)},
        {"diameter_mm": 1.2, "positions": ["PF", "PE"], "current_a": span(150, 230)},
    ],
}
BOUGHT = {"filler": {"designation": "E71T-1M", "diameter_mm": 1.2, "make": "Fern Wire 71"}}
NEGATIVE = {**PRODUCT, "ranges": [{"diameter_mm": 1.2, "polarity": "DCEN"}]}
HEAT = {"heat": "4711", "chemistry": {"C": 0.16, "Si": 0.4, "Mn": 1.45}}


def bay(connected="400 V", **more):
    return {"shelf": {"machines": [{**SOURCE, "connected": connected, **more}]}}


def sheet(product=PRODUCT):
    return {"shelf": {"products": [product]}}


DRAFTS = [
    # --- TIG: right -----------------------------------------------------------------------------
    ("tig root", tig(), {}, set()),
    ("tig at the top of its tungsten", tig((150, 250)), {}, set()),
    ("tig on aluminium", tig(polarity="AC", filler={"designation": "ER5356"}, gas={"components_percent": AR, "flow_l_min": span(9, 13)}), ALU, set()),
    ("tig on aluminium in helium, negative", tig(polarity="DCEN", filler={"designation": "ER5356"}, gas={"components_percent": {"He": 100}, "flow_l_min": span(18, 22)}), ALU, set()),
    ("tig stainless, purged", tig(filler={"designation": "ER308L"}, purge={"components_percent": AR, "flow_l_min": span(3, 5), "oxygen_ppm": 50}), STAINLESS, set()),
    ("tig stainless fillet needs no purge", tig(filler={"designation": "ER308L"}), {**STAINLESS, "joint": samples.T_FILLET, "positions": ["PB"]}, set()),
    ("large lens at 35 ft3/h", tig(cup={"number": 10, "lens": True}, gas={"components_percent": AR, "flow_l_min": span(16, 17)}), {}, set()),
    ("four seconds of gas at 75 A", tig((60, 75), gas_times={"post_flow_s": 4}), {}, set()),
    ("pedal at about the middle", tig((60, 80), pedal_max_a=130), {}, set()),
    ("a pulse that agrees with its current", tig((75, 95), pulse={"peak_a": 150, "background_a": 26, "peak_share": 0.45}), {}, set()),
    ("a pulse cooler than its current", tig((75, 95), pulse={"peak_a": 100, "background_a": 10, "peak_share": 0.3}), {}, {"pulse.mean"}),
    ("pulse of 300 A peak on 2.4 mm, a third of the time", tig((90, 120), pulse={"peak_a": 300, "background_a": 20, "peak_share": 0.3, "frequency_hz": 2}), {}, set()),
    # --- TIG: wrong -----------------------------------------------------------------------------
    ("overloaded tungsten", tig((240, 300)), {}, {"tungsten.current"}),
    ("overloaded on AC", tig((180, 245), polarity="AC", filler={"designation": "ER5356"}), ALU, {"tungsten.current"}),
    ("pure tungsten on negative", tig((90, 120), tungsten={"type": "WP", "diameter_mm": 2.4}), {}, {"tungsten.type"}),
    ("thoriated on AC", tig(polarity="AC", filler={"designation": "ER5356"}, tungsten={"type": "EWTh-2", "diameter_mm": 2.4}), ALU, {"tungsten.type"}),
    ("a tungsten nobody knows", tig(tungsten={"type": "shiny", "diameter_mm": 2.4}), {}, {"tungsten.type"}),
    ("cup of 20", tig(cup={"number": 20}, gas={"components_percent": AR}), {}, {"cup.number"}),
    ("pedal too low", tig((90, 120), pedal_max_a=100), {}, {"pedal.maximum"}),
    ("aluminium on negative in argon", tig(filler={"designation": "ER5356"}), ALU, {"polarity.metal"}),
    ("steel on AC without filler", tig(polarity="AC", filler=None), {}, {"polarity.metal"}),
    ("a breath of gas", tig(gas={"components_percent": AR, "flow_l_min": span(3, 4)}), {}, {"gas.flow"}),
    ("a storm of gas", tig(gas={"components_percent": AR, "flow_l_min": span(24, 28)}), {}, {"gas.flow"}),
    ("gas stops at once", tig((90, 150), gas_times={"post_flow_s": 2}), {}, {"gas.post-flow"}),
    ("stainless root without purge", tig(filler={"designation": "ER308L"}), STAINLESS, {"purge.root"}),
    ("purge to an unknown oxygen", tig(filler={"designation": "ER308L"}, purge={"components_percent": AR}), STAINLESS, {"purge.oxygen"}),
    ("purge that blows the root out", tig(filler={"designation": "ER308L"}, purge={"components_percent": AR, "flow_l_min": span(20, 30), "oxygen_ppm": 50}), STAINLESS, {"purge.flow"}),
    # --- wire: right ----------------------------------------------------------------------------
    ("spray", wire(), {}, set()),
    ("short circuit close to the work", wire(transfer="short-circuit", current_a=span(120, 160), gas={"components_percent": MIX, "flow_l_min": span(11, 14)}, extension_mm=span(9, 12)), {}, set()),
    ("cored with knurled rolls", cored(feeder={"rolls": "knurled"}, extension_mm=span(18, 22)), {}, set()),
    ("spray on aluminium", wire(process="131", filler={"designation": "ER5356", "diameter_mm": 1.2}, gas={"components_percent": AR, "flow_l_min": span(16, 20)}, current_a=span(180, 220), feeder={"rolls": "u"}), ALU, set()),
    ("short circuit, 20 ft3/h", wire(transfer="short-circuit", current_a=span(120, 160), gas={"components_percent": MIX, "flow_l_min": span(9, 10)}), {}, set()),
    ("tungsten field does not ask a wire", wire(pulse=None), {}, set()),
    # --- wire: wrong ----------------------------------------------------------------------------
    ("too cool to spray", wire(current_a=span(180, 220)), {}, {"spray.current"}),
    ("partly too cool to spray", wire(current_a=span(200, 280)), {}, {"spray.current"}),
    ("aluminium too cool to spray", wire(process="131", filler={"designation": "ER5356", "diameter_mm": 1.2}, gas={"components_percent": AR}, current_a=span(90, 120)), ALU, {"spray.current"}),
    ("cored wire close to the tip", cored(extension_mm=span(5, 8)), {}, {"extension.usual"}),
    ("short circuit far from the work", wire(transfer="short-circuit", current_a=span(120, 160), gas={"components_percent": MIX}, extension_mm=span(20, 25)), {}, {"extension.usual"}),
    ("cored wire on V rolls", cored(feeder={"rolls": "v"}), {}, {"rolls.wire"}),
    ("solid wire on knurls", wire(feeder={"rolls": "knurled"}), {}, {"rolls.wire"}),
    ("aluminium wire on V rolls", wire(process="131", filler={"designation": "ER5356", "diameter_mm": 1.2}, gas={"components_percent": AR}, current_a=span(180, 220), feeder={"rolls": "v"}), ALU, {"rolls.wire"}),
    ("spray with a breath of gas", wire(gas={"components_percent": MIX, "flow_l_min": span(6, 8)}), {}, {"gas.flow"}),
    ("a wire with a tungsten", wire(tungsten={"diameter_mm": 2.4}), {}, {"setup.field"}),
    ("a stick with drive rolls", stick("E7018 H4R", feeder={"rolls": "v"}), {}, {"setup.field"}),
    ("AC fields on direct current", tig(ac={"frequency_hz": 120, "en_share": 0.7}), {}, {"setup.field"}),
    # --- machines -------------------------------------------------------------------------------
    ("machine that can", wire(machine="Bay 2", mechanisation="partly"), bay(), set()),
    ("stick on the same machine", stick("E7018 H4R", machine="Bay 2"), bay(), set()),
    ("machine by hand at 40 %", wire(current_a=span(320, 350), voltage_v=span(30, 33), machine="Bay 2", mechanisation="partly"), bay(), set()),
    ("machine not on record", wire(machine="Bay 9"), bay(), {"machine.known"}),
    ("low supply cannot spray", wire(machine="Bay 2"), bay("230 V"), {"machine.current", "machine.voltage"}),
    ("no tig on it", tig(machine="Bay 2"), bay(), {"machine.process"}),
    ("too much feed", wire(machine="Bay 2", wire_feed_m_min=span(18, 22)), bay(dial=None), {"machine.feed"}),
    ("mechanised at 40 %", wire(current_a=span(320, 350), voltage_v=span(30, 33), machine="Bay 2", mechanisation="fully"), bay(), {"machine.duty"}),
    ("feed beyond the measured dial", wire(machine="Bay 2", wire_feed_m_min=span(11, 13)), bay(), {"machine.dial"}),
    ("pulse peak beyond the machine", wire(transfer="pulsed", current_a=span(150, 200), pulse={"peak_a": 420, "background_a": 50}, machine="Bay 2"), bay(), {"machine.current"}),
    # --- wind -----------------------------------------------------------------------------------
    ("indoors", wire(), {"site": {"place": "indoors"}}, set()),
    ("a light air outdoors", wire(), {"site": {"place": "outdoors", "wind_m_s": 1.5}}, set()),
    ("stick in wind", stick("E7018 H4R"), {"site": {"place": "outdoors", "wind_m_s": 8}}, set()),
    ("wire in wind", wire(), {"site": {"place": "outdoors", "wind_m_s": 4}}, {"wind.gas"}),
    ("tig in a draught", tig(), {"site": {"place": "outdoors", "wind_m_s": 1.8}}, {"wind.gas"}),
    ("outdoors, wind unknown", wire(), {"site": {"place": "outdoors"}}, {"wind.gas"}),
    ("AWS D1.1 allows 5 mph", wire(), {"code": {"id": "aws-d1.1:2020", "units": "us"}, "site": {"wind_m_s": 2.23}}, set()),
    ("AWS D1.1, 8 km/h in the other column", wire(), {"code": {"id": "aws-d1.1:2020", "units": "si"}, "site": {"wind_m_s": 2.23}}, {"wind.gas"}),
    # --- hydrogen -------------------------------------------------------------------------------
    ("low hydrogen on S690", stick("E11018M H4R"), metals("S690QL", 20), set()),
    ("bare wire on S690", wire(filler={"designation": "ER110S-1", "diameter_mm": 1.2}), metals("S690QL", 20), set()),
    ("cellulose on thin S355", stick("E6010"), metals("S355J2+N", 8), set()),
    ("stainless on S690 is another matter", stick("E309L-16"), metals("S690QL", 20), set()),
    ("cellulose on S460", stick("E6010"), metals("S460N", 20), {"hydrogen.steel"}),
    ("rutile on thick S355", stick("E6013"), metals("S355J2+N", 40), {"hydrogen.steel"}),
    ("H16 on S690", stick("E11018M H16"), metals("S690QL", 20), {"hydrogen.steel"}),
    ("a stated figure does not dry cellulose", stick("E6010"), {**metals("S460N", 20), "thermal": {"hydrogen_ml_100g": 5}}, {"hydrogen.steel"}),
    ("a stated figure serves a basic covering", stick("E11018M"), {**metals("S690QL", 20), "thermal": {"hydrogen_ml_100g": 5}}, set()),
    ("a stated figure is taken as it is", stick("E11018M"), {**metals("S690QL", 20), "thermal": {"hydrogen_ml_100g": 5.8}}, {"hydrogen.steel"}),
    ("no mark on S690", stick("E11018M"), metals("S690QL", 20), {"hydrogen.steel"}),
    # --- certificate ----------------------------------------------------------------------------
    ("certificate that fits", wire(), metals("S355J2+N", 20, **HEAT, certificate={"yield_mpa": 372, "tensile_mpa": 530}), set()),
    ("carbon above the grade", wire(), metals("S355J2+N", 20, heat="4711", chemistry={"C": 0.31, "Mn": 1.4}), {"metal.chemistry"}),
    ("weaker than the grade", wire(), metals("S355J2+N", 20, **HEAT, certificate={"yield_mpa": 320}), {"metal.strength"}),
    ("chemistry without its heat", wire(), metals("S355J2+N", 20, chemistry={"C": 0.16}), {"metal.heat"}),
    ("fractions for per cent", wire(), metals("S355J2+N", 20, heat="1", chemistry={"C": 0.0016, "Mn": 0.0145}), {"metal.fractions"}),
    # --- the manufacturer's sheet ----------------------------------------------------------------------
    ("inside the sheet", cored(**BOUGHT, voltage_v=span(24, 28)), sheet(), set()),
    ("outside the sheet, uphill", cored(**BOUGHT, current_a=span(180, 260)), {**sheet(), "positions": ["PF"]}, {"product.range"}),
    ("the same current flat", cored(**BOUGHT, current_a=span(180, 260)), {**sheet(), "positions": ["PA"]}, set()),
    ("another class than bought", cored(filler={**BOUGHT["filler"], "designation": "E71T-9M"}), sheet(), {"product.class"}),
    ("the sheet's polarity outranks the class", cored(**BOUGHT, polarity="DCEN"), sheet(NEGATIVE), set()),
    ("and makes the class's wrong", cored(**BOUGHT, polarity="DCEP"), sheet(NEGATIVE), {"polarity.class"}),
    # --- strength -------------------------------------------------------------------------------
    ("far too strong", wire(filler={"designation": "ER110S-1", "diameter_mm": 1.2}), {}, {"filler.over-match"}),
    ("80 ksi on S355 is common", wire(filler={"designation": "ER80S-D2", "diameter_mm": 1.2}), {}, set()),
]  # fmt: skip


def found_in(one, rest):
    passes = [{k: v for k, v in {**samples.a_pass(1), **one}.items() if v is not None}]
    document = samples.procedure(
        **{"base_metals": [STEEL] * 2, "positions": ["PA"], "passes": passes, **rest}
    )
    return evaluate(PROCEDURE.take(document)).findings


@pytest.mark.parametrize("what, one, rest, expected", DRAFTS, ids=[draft[0] for draft in DRAFTS])
def test_each_set_up_is_told_exactly_what_is_wrong(what, one, rest, expected):
    told = {f.rule for f in found_in(one, rest) if f.rule in RULES and f.verdict != "complies"}
    assert told == expected


def test_there_are_enough_set_ups_of_both_kinds():
    right = sum(not expected for *_, expected in DRAFTS)
    assert right >= 30
    assert len(DRAFTS) - right >= 30


def test_every_finding_has_a_source_and_every_breach_a_remedy():
    for _, one, rest, _ in DRAFTS:
        for finding in found_in(one, rest):
            assert finding.citations, finding.rule
            if finding.verdict == "violates":
                assert finding.remedy, finding.rule
                assert finding.path, finding.rule


def test_the_dial_is_told_for_the_feed():
    dial = next(f for f in found_in(wire(machine="Bay 2"), bay()) if f.rule == "machine.dial")
    assert (dial.verdict, dial.title) == ("complies", "Dial 7.0 to 9.0, pass 1")  # run-out: 1 m/min a mark


OWN = {
    "format": "grounded-bead/metal",
    "version": 1,
    "name": "FB-440",
    "family": "carbon",
    "condition": "N",
    "yield_steps": [{"up_to_mm": 16, "yield_mpa": 440}, {"up_to_mm": 40, "yield_mpa": 430}],
    "tensile_mpa": 560,
    "chemistry": {"C": {"min": 0, "max": 0.2}, "Mn": {"min": 1, "max": 1.7}},
}


def test_an_own_metal_is_judged_like_a_grade():
    rest = {**metals("fb 440", 20), "shelf": {"metals": [OWN]}}
    findings = {f.rule: f for f in found_in(wire(), rest)}
    assert findings["metal.known"].verdict == "complies"
    assert "group 1.3" in findings["metal.known"].message
    assert findings["filler.strength"].verdict == "violates"  # ER70S-6 has 480, the record asks 560 MPa
    rest["shelf"]["metals"] = [{**OWN, "iso_15608": "8.1"}]
    wrong = {f.rule: f for f in found_in(wire(), rest)}["metal.known"]
    assert (wrong.verdict, wrong.actual, wrong.limit) == ("violates", "8.1", "1.3")


def test_the_piece_answers_for_its_own_metals():
    document = samples.coupon()
    document["coupon"]["base_metals"] = [
        {"designation": "S355J2+N", "thickness_mm": 20, "heat": "4711", "chemistry": {"C": 0.31}},
        {"designation": "S235JR", "thickness_mm": 20},
    ]
    found = evaluate_coupon(COUPON.take(document)).piece
    assert [one.rule for one in found if one.verdict == "violates"] == ["metal.as-planned", "metal.chemistry"]
    assert not evaluate_coupon(COUPON.take(samples.coupon())).piece
