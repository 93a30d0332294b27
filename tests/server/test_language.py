"""The server answers in the reader's language; what is signed is English whoever signs."""

import json

import pytest

from tests.server.conftest import PASSWORD, enter_tests
from tests.server.test_printing import text_of

pytestmark = pytest.mark.django_db


def in_german(api, who):
    api[who].client.cookies["language"] = "de"
    return api[who]


def test_findings_and_terms_are_said_in_the_language_of_the_page(api, draft):
    asked = {"document": draft.document}
    _, english = api["engineer"]("POST", "/evaluate", asked)
    _, german = in_german(api, "engineer")("POST", "/evaluate", asked)
    assert [(one["rule"], one["verdict"], one["path"]) for one in german["findings"]] == [
        (one["rule"], one["verdict"], one["path"]) for one in english["findings"]
    ]
    titles = {one["title"] for one in german["findings"]}
    assert "Stromart und Polung" not in titles and any("Werkstoff" in one for one in titles)
    assert not titles & {one["title"] for one in english["findings"] if " " in one["title"]}
    _, terms = api["engineer"]("GET", "/terms")
    assert {one["key"]: one["iso"] for one in terms}["interpass"] == "Zwischenlagentemperatur"


@pytest.mark.parametrize(
    "asked, said",
    [("de-AT,de;q=0.9,en;q=0.5", "Nicht gefunden"), ("en-GB,de;q=0.5", "Not found"), ("fr,nl", "Not found"),
     ("nl,de;q=0.3", "Nicht gefunden"), ("", "Not found"), (";;q=,,%%", "Not found")],
)  # fmt: skip
def test_without_a_choice_the_browser_is_followed(api, asked, said):
    answer = api["viewer"].client.get("/api/revisions/999999", HTTP_ACCEPT_LANGUAGE=asked)
    assert json.loads(answer.content)["title"] == said


def test_what_is_signed_reads_the_same_whoever_signs(api, welded):
    enter_tests(api, welded)
    status, made = in_german(api, "engineer")("POST", f"/coupons/{welded.pk}/sign", PASSWORD)
    assert status == 201, made
    welded.refresh_from_db()
    kept = json.dumps(welded.record.findings, ensure_ascii=False)
    assert "qualif" in kept or "proved" in kept
    assert "Raupe" not in kept and "nicht" not in kept and "geprüft" not in kept
    status, refused = api["engineer"]("POST", f"/coupons/{welded.pk}/sign", PASSWORD)
    assert status == 409 and "unterschrieben" in refused["detail"]


def test_a_record_signed_in_one_language_covers_what_is_asked_in_another(api, welded):
    enter_tests(api, welded)
    status, _ = api["engineer"]("POST", f"/coupons/{welded.pk}/sign", PASSWORD)
    assert status == 201
    path = f"/revisions/{welded.revision_id}/stage"
    _, english = api["engineer"]("GET", path)
    _, german = in_german(api, "engineer")("GET", path)
    if english["current"]:
        assert german["current"]["verdict"] == english["current"]["verdict"]


def test_a_sheet_in_two_languages(api, draft):
    status, data = in_german(api, "engineer")("GET", f"/revisions/{draft.pk}/print?second=en")
    assert status == 200
    _, text = text_of(data)
    for words in ("Raupe / Pass", "Vorwärmen, mindestens / Preheat, at least", "Local rules and qualified people decide",
                  "Örtliche Vorschriften und befähigte Personen entscheiden", "Stegabstand 3"):  # fmt: skip
        assert words in text, words
    status, data = api["engineer"]("GET", f"/revisions/{draft.pk}/print")
    _, text = text_of(data)
    assert "Preheat, at least" not in text and "Vorwärmen, mindestens" in text
    assert api["engineer"]("GET", f"/revisions/{draft.pk}/print?second=xx")[0] == 422


def in_spanish(api, path):
    status, data = api["engineer"]("GET", f"{path}/print?second=es")
    assert status == 200
    _, text = text_of(data)
    for words in (
        "Pass / Pasada",
        "Preheat, at least / Precalentamiento, mínimo",
        "La radiación del arco quema ojos y piel",
        "Arc radiation burns eyes and skin",
    ):
        assert words in text, (path, words)


def test_the_procedure_for_the_booth_in_spanish(api, draft):
    in_spanish(api, f"/revisions/{draft.pk}")


def test_the_run_log_in_spanish(api, welded):
    in_spanish(api, f"/coupons/{welded.pk}")


@pytest.mark.parametrize("pin, weld", [("aws", "CJP groove weld"), ("iso", "full penetration butt weld")])
def test_the_reader_pins_whose_terms_are_said(api, draft, pin, weld):
    api["engineer"].client.cookies["words"] = pin
    _, data = api["engineer"]("GET", f"/revisions/{draft.pk}/print")
    assert weld in text_of(data)[1]
