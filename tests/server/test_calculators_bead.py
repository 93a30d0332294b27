"""Try a setting through the API: predictions side by side, cures inside limits, a pass of a procedure."""

import json
from pathlib import Path

import pytest

pytestmark = pytest.mark.django_db
ROOT = Path(__file__).resolve().parents[2]
SPRAY = json.loads((ROOT / "docs/examples/bead/gmaw-spray-fillet.bead-settings.json").read_text())
PROCEDURE = json.loads((ROOT / "server/apps/demo/documents/FB-27-P03-A.procedure.json").read_text())


def test_settings_side_by_side_are_compared_with_the_first(api):
    faster = {**SPRAY, "travel_mm_min": SPRAY["travel_mm_min"] * 1.2}
    status, found = api["viewer"]("POST", "/calculators/bead", {"settings": [SPRAY, faster]})
    assert status == 200
    first, second = found["items"]
    assert (first["changed"], first["sentence"]) == ([], "")
    assert second["changed"] == ["travel_mm_min"]
    assert "less" in second["sentence"]
    energy = [next(f for f in one["figures"] if f["key"] == "arc_energy_kj_mm") for one in (first, second)]
    assert energy[1]["value"] == pytest.approx(energy[0]["value"] / 1.2)
    assert energy[0]["low"] < energy[0]["value"] < energy[0]["high"]
    assert energy[0]["source"]
    assert first["picture"]["lines"]
    assert {"key": "flatter", "title": "Flatter crown"} in found["goals"]


def test_a_cure_stays_inside_the_limits_it_is_given(api):
    limits = {"voltage_v": {"min": 28, "max": 29.1}, "travel_mm_min": {"min": 380, "max": 440}}
    body = {"settings": SPRAY, "goal": "flatter", "limits": limits}
    status, found = api["welder"]("POST", "/calculators/bead/cure", body)
    assert status == 200
    by_field = {one["field"]: one for one in found["remedies"]}
    assert by_field["voltage_v"]["outcome"] == "outside"
    assert by_field["voltage_v"]["settings"] is None
    assert by_field["travel_mm_min"]["after"] <= 440
    assert by_field["travel_mm_min"]["limited"]


def test_a_pass_gives_its_middle_and_its_limits(api):
    body = {"procedure": PROCEDURE, "index": 0, "qualified": {}}
    status, found = api["welder"]("POST", "/calculators/bead/of-pass", body)
    one = PROCEDURE["passes"][0]
    assert status == 200
    assert found["settings"]["process"] == one["process"]
    assert found["limits"]["travel_mm_min"] == one["travel_mm_min"]
    narrow = {**body, "qualified": {"travel_mm_min": {"min": 1, "max": one["travel_mm_min"]["min"]}}}
    _, found = api["welder"]("POST", "/calculators/bead/of-pass", narrow)
    assert found["limits"]["travel_mm_min"]["max"] == one["travel_mm_min"]["min"]


@pytest.mark.parametrize(
    "path, body, said",
    [
        ("", {"settings": []}, "settings"),
        ("", {"settings": [SPRAY] * 5}, "settings"),
        ("", {"settings": [{**SPRAY, "voltage_v": -3}]}, "voltage_v"),
        ("", {"settings": [{**SPRAY, "nobody": 1}]}, "nobody"),
        ("/cure", {"settings": SPRAY, "goal": "prettier"}, "prettier"),
        ("/cure", {"settings": SPRAY, "goal": "flatter", "limits": {"voltage_v": {"min": 9, "max": 2}}}, "limits"),
        ("/of-pass", {"procedure": PROCEDURE, "index": 99}, "no such pass"),
        ("/of-pass", {"procedure": {**PROCEDURE, "base_metals": []}, "index": 0}, "thickness"),
    ],
)  # fmt: skip
def test_what_cannot_be_tried_is_refused_with_its_field(api, path, body, said):
    status, answer = api["engineer"]("POST", f"/calculators/bead{path}", body)
    assert status == 422
    assert said in json.dumps(answer)
