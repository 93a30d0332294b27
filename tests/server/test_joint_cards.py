"""Cards for the joints: the WPS that holds, no WPS where none does, and the code that opens the entry."""

import pypdfium2

from tests.server.test_list_wps import assign, table  # noqa: F401 - a fixture


def text_of(data):
    document = pypdfium2.PdfDocument(data)
    return " ".join(page.get_textpage().get_text_range() for page in document)


def cards(api, job, query="", status=200):
    code, data = api["welder"]("GET", f"/jobs/{job.pk}/joints/print{query}")
    assert code == status, data
    return data


def test_a_card_says_the_wps_that_holds_or_not_to_weld(api, job, table, released):  # noqa: F811
    assert text_of(cards(api, job)).count("do not weld") == 4
    assert assign(api, job, table, T1=released.pk)[0] == 200
    said = text_of(cards(api, job))
    assert said.count(str(released)) == 2 and said.count("do not weld") == 2
    assert "W1" in said and "60 mm" in said
    assert text_of(cards(api, job, "?joint_type=T2")).count("do not weld") == 1


def test_cards_of_a_type_that_is_gone_are_refused(api, job, table):  # noqa: F811
    assert "T9" in cards(api, job, "?joint_type=T9", 409)["detail"]
    assert text_of(cards(api, job, "?first=4")).count("W4") == 1


def test_a_withdrawn_wps_is_on_no_card(api, job, table, released):  # noqa: F811
    assert assign(api, job, table, T1=released.pk)[0] == 200
    body = {"password": "long-enough-1", "reason": "found wrong"}
    assert api["engineer"]("POST", f"/revisions/{released.pk}/withdraw", body)[0] == 200
    assert text_of(cards(api, job)).count("do not weld") == 4
