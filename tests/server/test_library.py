"""The library through the API: own records kept, found, used, and guarded."""

import pytest
from apps.procedures.services.create_procedure import create_procedure
from apps.procedures.services.save_revision import save_revision

from tests.welding import samples
from welding.documents.codec import PROCEDURE

MACHINE = {
    "format": "grounded-bead/machine",
    "version": 1,
    "name": "Bay 2",
    "supplies": [{"name": "400 V", "envelopes": [{"family": "wire", "current_a": {"min": 30, "max": 240}}]}],
}
METAL = {
    "format": "grounded-bead/metal",
    "version": 1,
    "name": "FB-440",
    "family": "carbon",
    "condition": "N",
    "yield_steps": [{"up_to_mm": 40, "yield_mpa": 440}],
    "tensile_mpa": 560,
    "chemistry": {"C": {"min": 0, "max": 0.2}},
}
PRODUCT = {"format": "grounded-bead/product", "version": 1, "name": "Fern Wire 71", "designation": "E71T-1M"}
CHART = {
    "format": "grounded-bead/chart",
    "version": 1,
    "name": "Door of bay 2",
    "process": "136",
    "designation": "E71T-1C",
    "rows": [{"diameter_mm": 1.2, "current_a": {"min": 150, "max": 300}}],
}
ALL = pytest.mark.parametrize(
    "document", [MACHINE, METAL, PRODUCT, CHART], ids=["machine", "metal", "product", "chart"]
)


def added(api, document):
    status, found = api["engineer"]("POST", "/library", {"document": document})
    assert status == 201, found
    return found


def using(api, people, job, **shelf):
    procedure = PROCEDURE.take(samples.procedure(shelf=shelf, number="FB-27-P77"))
    return create_procedure(people["engineer"], job, procedure)


@ALL
def test_a_record_is_added_corrected_and_removed(api, document):
    one = added(api, document)
    assert (one["version"], one["used_in"], one["document"]["name"]) == (1, 0, document["name"])
    kind = document["format"].removeprefix("grounded-bead/")
    assert [found["name"] for found in api["viewer"]("GET", f"/library?kind={kind}")[1]] == [document["name"]]
    better = {**document, "name": document["name"] + " new"}
    status, saved = api["engineer"]("PUT", f"/library/{one['id']}", {"version": 1, "document": better})
    assert (status, saved["version"], saved["name"]) == (200, 2, better["name"])
    assert api["engineer"]("DELETE", f"/library/{one['id']}")[0] == 204
    assert api["viewer"]("GET", f"/library?kind={kind}")[1] == []


@ALL
def test_two_people_never_overwrite_each_other(api, document):
    one = added(api, document)
    url, body = f"/library/{one['id']}", {"version": 1, "document": document}
    assert api["administrator"]("PUT", url, body)[0] == 200
    status, answer = api["engineer"]("PUT", url, body)
    assert (status, answer["type"]) == (409, "/problems/stale")
    assert answer["current"]["version"] == 2
    assert "Administrator" in answer["detail"]


@ALL
@pytest.mark.parametrize("role", ["inspector", "welder", "viewer"])
def test_others_may_look_and_not_change(api, document, role):
    one = added(api, document)
    for method, url, body in (
        ("POST", "/library", {"document": {**document, "name": "Other"}}),
        ("PUT", f"/library/{one['id']}", {"version": 1, "document": document}),
        ("DELETE", f"/library/{one['id']}", None),
    ):
        status, answer = api[role](method, url, body)
        assert (status, answer["type"]) == (403, "/problems/not-allowed")
    assert api[role]("GET", f"/library/{one['id']}/used") == (200, [])


@pytest.mark.parametrize(
    "first, second",
    [
        (MACHINE, {**MACHINE, "name": " bay 2"}),
        (METAL, {**METAL, "name": "fb 440"}),
        (PRODUCT, {**PRODUCT, "name": "FERN wire 71"}),
        (CHART, {**CHART, "name": "door OF bay 2"}),
    ],
)
def test_a_name_stands_once(api, first, second):
    added(api, first)
    status, answer = api["engineer"]("POST", "/library", {"document": second})
    assert (status, answer["errors"][0]["path"]) == (409, "name")


@pytest.mark.parametrize(
    "own", [{"name": "S355J2"}, {"name": "304 L"}, {"name": "FB-9", "also": ["6061-T6"]}]
)
def test_a_grade_of_the_catalogue_is_not_entered_again(api, own):
    status, answer = api["engineer"]("POST", "/library", {"document": {**METAL, **own}})
    assert status == 409
    assert "is in the catalogue" in answer["detail"]


@pytest.mark.parametrize(
    "document, path, word",
    [
        (
            {**METAL, "chemistry": {"C": {"min": 70, "max": 80}, "Mn": {"min": 60, "max": 70}}},
            "",
            "sum to 130 %",
        ),
        ({**METAL, "family": "wood"}, "family", "should be"),
        ({**MACHINE, "connected": "230 V"}, "", "none of its supplies"),
        ({**MACHINE, "colour": "red"}, "colour", "not known"),
        ({**PRODUCT, "designation": ""}, "designation", "at least 1"),
        ({**CHART, "rows": []}, "rows", "at least 1"),
        ({**CHART, "rows": [{"diameter_mm": 1.2}]}, "rows.0", "gives amps, volts or wire feed"),
        ({**CHART, "process": "MIG"}, "process", "should be"),
        ({"format": "grounded-bead/hammer"}, "format", "is none of"),
    ],
)
def test_wrong_records_are_refused_with_their_place(api, document, path, word):
    status, answer = api["engineer"]("POST", "/library", {"document": document})
    assert status == 422
    assert answer["errors"][0]["path"] == path
    assert word in answer["errors"][0]["message"]


@pytest.mark.parametrize("document, part", [(MACHINE, "machines"), (METAL, "metals"), (PRODUCT, "products")])
def test_what_is_in_use_stays_and_says_where(api, people, job, document, part):
    one = added(api, document)
    revision = using(api, people, job, **{part: [document]})
    status, used = api["viewer"]("GET", f"/library/{one['id']}/used")
    assert (status, [(u["number"], u["letter"], u["revision_id"]) for u in used]) == (
        200,
        [("FB-27-P77", "A", revision.pk)],
    )
    status, answer = api["engineer"]("DELETE", f"/library/{one['id']}")
    assert (status, answer["current"]) == (409, {"used_in": ["FB-27-P77 A"]})
    renamed = {**document, "name": "Else"}
    status, answer = api["engineer"]("PUT", f"/library/{one['id']}", {"version": 1, "document": renamed})
    assert (status, answer["errors"][0]["path"]) == (409, "name")
    # The rest of it may be corrected: the procedure keeps the copy it took along.
    assert api["engineer"]("PUT", f"/library/{one['id']}", {"version": 1, "document": document})[0] == 200
    save_revision(people["engineer"], revision, 1, PROCEDURE.take(samples.procedure()))
    assert api["engineer"]("DELETE", f"/library/{one['id']}")[0] == 204


def test_the_list_counts_uses_with_one_question(api, people, job, django_assert_max_num_queries):
    for n in range(6):
        added(api, {**MACHINE, "name": f"Bay {n}"})
    using(api, people, job, machines=[{**MACHINE, "name": "Bay 3"}, {**MACHINE, "name": "Bay 4"}])
    api["viewer"]("GET", "/session/all")  # the first use of a session is noted once
    with django_assert_max_num_queries(6):  # session, person, its last use, counts, records
        found = api["viewer"]("GET", "/library?kind=machine")[1]
    assert [one["used_in"] for one in found] == [0, 0, 0, 1, 1, 0]


@pytest.mark.parametrize("due, overdue", [("2020-01-01", ["volts"]), ("2999-01-01", []), (None, [])])
def test_a_meter_past_its_day_is_named(api, due, overdue):
    one = added(api, {**MACHINE, "meters": [{"name": "volts", **({"due_on": due} if due else {})}]})
    assert one["overdue_meters"] == overdue


def test_a_record_does_not_change_its_kind(api):
    one = added(api, MACHINE)
    status, answer = api["engineer"]("PUT", f"/library/{one['id']}", {"version": 1, "document": PRODUCT})
    assert (status, answer["detail"]) == (409, "Bay 2 is a machine and stays one.")


@pytest.mark.parametrize(
    "query, numbers",
    [
        ("kind=metal&name=S355J2%2BN", ["FB-27-P03"]), ("kind=metal&name=304L", []),
        ("kind=filler&name=ER70S-6", ["FB-27-P03"]), ("kind=filler&name=E7018", []),
        ("kind=gas&name=Ar%2B18CO2", ["FB-27-P03"]), ("kind=gas&name=CO2", []), ("kind=gas&name=???", []),
        ("kind=tungsten&name=WLa20", []),
    ],
)  # fmt: skip
def test_where_something_of_a_catalogue_is_used(api, draft, query, numbers):
    status, used = api["viewer"]("GET", f"/used?{query}")
    assert (status, [one["number"] for one in used]) == (200, numbers)


# --- catalogues ------------------------------------------------------------------------------------


def test_metals_are_found_with_the_yield_of_the_thickness(api):
    status, found = api["viewer"]("GET", "/metals?search_text=S355J2&thickness_mm=20")
    assert status == 200
    assert (found[0]["name"], found[0]["yield_mpa"], found[0]["iso_15608"]) == ("S355J2", 345, "1.2")
    assert api["viewer"]("GET", "/metals?search_text=zzzz")[1] == []
    assert api["viewer"]("GET", f"/metals?search_text={'x' * 900}")[0] == 422


def test_own_metals_stand_first_with_their_computed_group(api):
    added(api, METAL)
    found = api["viewer"]("GET", "/metals?search_text=fb")[1]
    assert (found[0]["name"], found[0]["iso_15608"], found[0]["own"]["name"]) == ("FB-440", "1.3", "FB-440")


def test_fillers_as_bought_stand_first(api):
    added(api, PRODUCT)
    found = api["viewer"]("GET", "/fillers?search_text=fern")[1]
    assert (found[0]["product"]["name"], found[0]["decoded"]["designation"]) == ("Fern Wire 71", "E71T-1M")
    found = api["viewer"]("GET", "/fillers?search_text=.045%20E71T-1M")[1]
    assert found[0]["diameter_mm"] == pytest.approx(1.143)


def test_gases_and_tungstens_are_listed(api):
    assert api["viewer"]("GET", "/gases?search_text=C25")[1][0]["symbol"]["iso_14175"] == "M21"
    tungstens = api["viewer"]("GET", "/tungstens")[1]
    size = next(one for one in tungstens["oxide"] if one["diameter_mm"] == 2.4)
    assert [(r["min"], r["max"]) for r in size["dcen"]] == [(150, 250), (170, 250)]
    assert {one["iso"] for one in tungstens["types"]} >= {"WP", "WLa20", "WTh20"}


# --- the calculators, arc side ------------------------------------------------------------------------


@pytest.mark.parametrize(
    "url, body, key, value",
    [
        ("/calculators/pulse", {"peak_a": 100, "background": "5 %", "peak_share": 0.3, "frequency_hz": 2}, "background_a", 5),
        ("/calculators/ac", {"en_a": 100, "balance": 35, "dial": {"convention": "ep-percent"}, "frequency_hz": 120}, "en_share", 0.65),
        ("/calculators/balance", {"dial": {"convention": "en-percent"}, "reading": 70}, "en_share", 0.7),
        ("/calculators/balance", {"dial": {"convention": "ep-percent"}, "en_share": 0.7}, "reading", 30),
        ("/calculators/dial", {"dial": {"points": [{"setting": 2, "length_mm": 200, "time_s": 6}, {"setting": 8, "length_mm": 800, "time_s": 6}]}, "feed_m_min": 5}, "setting", 5),
        ("/calculators/cup", {"text": "12 mm", "lens": True}, "number", 8),
    ],
)  # fmt: skip
def test_the_arc_side_answers(api, url, body, key, value):
    status, found = api["viewer"]("POST", url, body)
    assert (status, found[key]) == (200, pytest.approx(value))


@pytest.mark.parametrize(
    "url, body, word",
    [
        ("/calculators/pulse", {"peak_a": 100, "background": "150 A", "peak_share": 0.3}, "no background"),
        ("/calculators/pulse", {"peak_a": 100, "background": "5 %", "peak_share": 1.3}, "peak_share"),
        ("/calculators/ac", {"en_a": 100, "balance": -5, "dial": {"convention": "en-percent"}, "frequency_hz": 120}, "balance"),
        ("/calculators/ac", {"en_a": 100, "balance": 65, "dial": {"convention": "en-percent"}, "frequency_hz": 0}, "frequency_hz"),
        ("/calculators/ac", {"en_a": 100, "balance": 5, "dial": {"convention": "signed"}, "frequency_hz": 60}, "share at zero"),
        ("/calculators/dial", {"dial": {"points": []}}, "two or more"),
        ("/calculators/dial", {"dial": {"points": [{"setting": 2, "length_mm": 200, "time_s": 0}]}}, "0 s"),
        ("/calculators/cup", {"text": "40"}, "no cup"),
    ],
)  # fmt: skip
def test_the_arc_side_refuses_with_a_sentence(api, url, body, word):
    status, answer = api["viewer"]("POST", url, body)
    assert status == 422
    assert word in answer["detail"]


@pytest.mark.parametrize(
    "body, value",
    [
        ({"text": "12 mm", "as_": "cup"}, 8), ({"text": "#10", "as_": "cup"}, 10),
        ({"text": "5 %", "as_": "background", "peak_a": 120}, 6), ({"text": "14", "as_": "background", "peak_a": 120}, 14),
        ({"text": "35", "as_": "balance", "dial": {"convention": "ep-percent"}}, 0.65), ({"text": "70 %", "as_": "balance"}, 0.7),
        ({"text": "-2", "as_": "balance", "dial": {"convention": "signed", "zero_en_share": 0.7, "step_en_share": 0.05}}, 0.6),
    ],
)  # fmt: skip
def test_settings_are_read_as_typed(api, body, value):
    status, found = api["viewer"]("POST", "/read", {"kind": "", **body})
    assert (status, found["value"]) == (200, pytest.approx(value))


@pytest.mark.parametrize(
    "body, word",
    [
        ({"text": "5 %", "as_": "background"}, "peak current first"), ({"text": "-5 %", "as_": "balance"}, "not plausible"),
        ({"text": "0", "as_": "balance"}, "between 0 and 100"), ({"text": "99", "as_": "cup"}, "no cup"),
    ],
)  # fmt: skip
def test_settings_that_cannot_be_are_refused(api, body, word):
    status, answer = api["viewer"]("POST", "/read", {"kind": "", **body})
    assert status == 422
    assert word in answer["detail"]


def test_a_process_has_its_fields_and_no_others(api):
    assert api["viewer"]("GET", "/setup-fields?process=111")[1] == ["purge", "run_out_mm"]
    tig = api["viewer"]("GET", "/setup-fields?process=141&polarity=DCEN")[1]
    assert {"tungsten", "cup", "pulse"} <= set(tig)
    assert "ac" not in tig
    assert "ac" in api["viewer"]("GET", "/setup-fields?process=141&polarity=AC")[1]
    assert "pulse" not in api["viewer"]("GET", "/setup-fields?process=135&transfer=spray")[1]
    assert "pulse" in api["viewer"]("GET", "/setup-fields?process=135&transfer=pulsed")[1]


@pytest.mark.parametrize(
    "query, families",
    [
        ("diameter_mm=2.4&polarity=DCEN", [(150, 250), (170, 250)]),
        ("diameter_mm=2.4&polarity=DCEN&type_text=pure", [(130, 230)]),
        ("diameter_mm=3.2&polarity=AC&en_share=0.5", [(160, 250), (150, 250)]),
        ("diameter_mm=3.2&polarity=AC&en_share=0.7", [(225, 325), (150, 250)]),
        ("diameter_mm=9&polarity=DCEN", []),
    ],
)
def test_the_hint_beside_a_tungsten_is_what_the_check_goes_by(api, query, families):
    status, found = api["viewer"]("GET", f"/tungsten-carries?{query}")
    assert (status, [(one["min"], one["max"]) for one in found]) == (200, families)
