"""The calculators' questions through the API."""

import pytest


def test_decode(api):
    status, found = api["viewer"]("POST", "/calculators/decode", {"text": "E71T-1M"})
    assert (status, found["valid"], found["polarities"]) == (200, True, ["DCEP"])
    assert found["sources"]["citations"][0]["document"] == "AWS A5.20"
    status, found = api["viewer"]("POST", "/calculators/decode", {"text": "E70S-6"})
    assert (status, found["valid"], found["suggestions"]) == (200, False, ["ER70S-6"])


def test_gas(api):
    status, found = api["viewer"]("POST", "/calculators/gas", {"text": "C25"})
    assert (status, found["symbol"]["iso_14175_mix"]) == (200, "M21-ArC-25")
    assert found["modes"]["steel"]["usual"] == ["short-circuit", "globular"]
    assert found["modes"]["aluminium"]["usual"] == []
    status, found = api["viewer"]("POST", "/calculators/gas", {"text": "98/2"})
    assert status == 200
    assert "Ar+2CO2" in found["candidates"]
    status, answer = api["viewer"]("POST", "/calculators/gas", {"text": "XY"})
    assert (status, answer["type"]) == (422, "/problems/unreadable")


def test_equivalents(api):
    status, found = api["viewer"]("POST", "/calculators/equivalents", {"chemistry": {"C": 0.2, "Mn": 1.2}})
    values = {one["key"]: one["value"] for one in found["items"]}
    assert status == 200
    assert values["ce_iiw"] == pytest.approx(0.4)
    assert values["pcm"] is None
    _, found = api["viewer"]("POST", "/calculators/equivalents", {"chemistry": {"C": 0.002, "Mn": 0.012}})
    assert "fractions" in found["hint"]


@pytest.mark.parametrize(
    "chemistry, word", [({"C": 130}, "no share"), ({"Qq": 1}, "no element"), ({"C": -1}, "no share")]
)
def test_impossible_compositions(api, chemistry, word):
    status, answer = api["viewer"]("POST", "/calculators/equivalents", {"chemistry": chemistry})
    assert status == 422
    assert word in answer["detail"]


def test_the_calculators_are_for_people_who_signed_in(people):
    from tests.server.conftest import Api

    assert Api(None)("POST", "/calculators/decode", {"text": "E7018"})[0] == 401
