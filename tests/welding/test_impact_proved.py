"""Impact toughness as a record proves it: by place, temperature, energy (ISO 15614-1:2017, 7.4.5; from memory)."""

import pytest

from tests.welding.records import record, taken
from tests.welding.test_covering import joint, procedure_of
from tests.welding.test_no_wider_than_proof import answer
from welding.coverage.record import judge


def impact(place, at, values=(61, 58, 70)):
    return {
        "kind": "impact",
        "specimen": f"{place}{at}",
        "location": place,
        "temperature_c": at,
        "values_j": list(values),
        "width_mm": 10,
    }


def proved(*sets):
    plain = record("iso")
    plain["tests"] = [t for t in plain["tests"] if t["kind"] != "impact"] + list(sets)
    return plain


@pytest.mark.parametrize(
    "sets, temperature, energy, verdict",
    [
        ((("VWT", -20), ("VHT", -20)), -20, 27, "covered"),
        ((("VWT", -40), ("VHT", -20)), -20, 27, "covered"),
        ((("VWT", -40), ("VHT", -20)), -30, 27, "violates"),
        ((("VWT", -40), ("VHT", -40)), -40, 27, "covered"),
        ((("VWT", -20), ("VWT", -40)), -20, 27, "violates"),
        ((("VHT", -20), ("VHT", -30)), -20, 27, "violates"),
        ((("VWT", -20), ("VHT", -20, (30, 28, 27))), -20, 40, "violates"),
        ((("VWT", -20), ("VHT", -20, (50, 48, 47))), -20, 40, "covered"),
        ((("VWT", -20), ("VHT", -20, (70, 60, 27))), -20, 40, "violates"),
        ((("VWT", -20), ("VHT", -20, (40, 40, 39.1))), -20, 40, "violates"),
        ((("VWT", -20), ("VHT", -20, (40, 41, 39))), -20, 40, "covered"),
        ((("VWT", -20), ("VHT", -20, (45, 39, 39))), -20, 40, "violates"),  # two below the mean asked
        ((("VWT", -20), ("VHT", -20, (60, 60, 28))), -20, 40, "covered"),
        ((("VWT", -20), ("VHT", -20, (60, 60, 27.9))), -20, 40, "violates"),
    ],
)  # fmt: skip
def test_impact_is_proved_for_weld_and_heat_affected_zone_alike(sets, temperature, energy, verdict):
    plain = proved(*(impact(*one) for one in sets))
    wanted = procedure_of(
        record("iso"), requirements={"impact": {"temperature_c": temperature, "average_j": energy}}
    )
    assert answer(plain, wanted, "impact_temperature_c") == verdict


@pytest.mark.parametrize(
    "second, verdict",
    [
        ("VHT 1/1", "accepted"),
        ("HAZ, fusion line + 2", "accepted"),
        ("VWT 0/1", "incomplete"),
        ("A", "incomplete"),
    ],
)
def test_two_sets_in_the_weld_are_none_in_the_heat_affected_zone(second, verdict):
    found = judge(taken(proved(impact("VWT 0/1", -20), impact(second, -20.5))))
    assert found.verdict == verdict
    assert (verdict == "accepted") == (not found.missing)


@pytest.mark.parametrize("symbol, energy", [("J2", "covered"), ("K2", "violates")])
def test_27_joules_do_not_show_40(symbol, energy):
    plain = proved(impact("VWT", -20, (31, 30, 29)), impact("VHT", -20, (30, 29, 28)))
    assert answer(plain, joint(20, metal=f"S355{symbol}+N", position="PF"), "impact_temperature_c") == energy


@pytest.mark.parametrize("lowest, verdict", [(29.7, "covered"), (29.5, "violates")])
def test_the_single_value_keeps_the_proportion_of_the_code(lowest, verdict):
    """AWS D1.1:2020, table 6.14: 20 J single beside 27 J mean, where ISO takes 70 %."""

    def asking(energy):
        return {"requirements": {"impact": {"temperature_c": -20, "average_j": energy}}}

    plain = record("aws", procedure__requirements=asking(27)["requirements"])
    plain["tests"] = [t for t in plain["tests"] if t["kind"] != "impact"]
    plain["tests"] += [impact(place, -20, (60, 60, lowest)) for place in ("VWT", "VHT")]
    assert answer(plain, procedure_of(plain, **asking(40)), "impact_temperature_c") == verdict
