"""From a failed bend to a released procedure, and a word on the code book that reaches it."""

import re
import uuid

import pytest
from apps.accounts.models import User
from apps.coupons.services.edit_piece import edit_piece
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.demo.people import PASSWORD
from apps.procedures.services.create_procedure import create_procedure
from apps.qualification.services.specimens import enter_test
from playwright.sync_api import Page, expect

from tests.welding.records import record
from welding.documents.codec import PASS_RECORD, PROCEDURE, TEST


@pytest.fixture
def coupon(bridge):
    """A coupon of 20 mm, welded and tested but for its bends."""
    plain = record("iso")
    people = {one.role: one for one in User.objects.filter(username__startswith="demo-")}
    document = {**plain["procedure"], "number": "FB-27-P40", "title": "Gusset butt, vertical"}
    revision = create_procedure(people["engineer"], bridge.job, PROCEDURE.take(document))
    made = start_coupon(people["engineer"], revision, "R. Okafor")
    piece = {k: v for k, v in plain["coupon"].items() if k not in ("passes", "welded_on")}
    edit_piece(people["inspector"], made, made.version, {"piece": piece})
    for one in plain["coupon"]["passes"]:
        log_pass(people["inspector"], made, uuid.uuid4(), PASS_RECORD.take(one))
    made.refresh_from_db()
    edit_piece(people["inspector"], made, made.version, {"status": "welded"})
    for test in plain["tests"]:
        if not test["specimen"].startswith("B"):
            enter_test(people["inspector"], made, TEST.take(test))
    return made


def bend(page: Page, mark: str, openings: str, *, button: str = "Enter a specimen") -> None:
    page.get_by_role("button", name=button).click()
    dialog = page.get_by_role("dialog")
    if button == "Enter a specimen":
        dialog.get_by_label("Mark", exact=True).fill(mark)
    for label, text in (
        ("thickness", "10"),
        ("former diameter", "38"),
        ("angle", "180"),
        ("openings", openings),
    ):
        dialog.get_by_label(label, exact=True).fill(text)
        dialog.get_by_label(label, exact=True).press("Enter")
    dialog.get_by_role("button", name=re.compile("Enter it|Save")).click()
    expect(dialog).to_be_hidden()


def sign(page: Page, button: str, action: str) -> None:
    page.get_by_role("button", name=button).click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("your password, again").fill(PASSWORD)
    dialog.get_by_role("button", name=action).click()
    expect(dialog).to_be_hidden()


def test_a_failed_bend_a_retest_a_released_procedure_and_the_book(enter, bridge, coupon):
    page = enter()
    page.goto(f"{bridge.url}/coupons/{coupon.pk}/tests")
    expect(page.get_by_role("heading", name="WPQR FB-27-Q")).to_be_visible()
    expect(page.get_by_text("4 more side bend (4 are asked)")).to_be_visible()
    expect(page.get_by_role("button", name="Sign the record")).to_be_disabled()

    # One of four opens too far: rejected at once, with the criterion.
    for mark, openings in (("S1", "none"), ("S2", "4,2"), ("S3", "1.2; 0.5"), ("S4", "none")):
        bend(page, mark, openings)
    expect(page.get_by_text("a test failed")).to_be_visible()
    expect(page.get_by_role("heading", name="S2 failed")).to_be_visible()
    expect(page.get_by_text("largest 4.2 mm")).to_be_visible()

    # Two more in its place, both accepted.
    for number in (1, 2):
        bend(page, f"S2-R{number}", "none", button="Enter a retest")
    expect(page.get_by_text("all tests accepted")).to_be_visible()
    expect(page.get_by_text("repeated, passed")).to_be_visible()

    # What was typed wrong stays and is named.
    page.get_by_role("button", name="S1", exact=True).click()
    field = page.get_by_role("dialog").get_by_label("openings", exact=True)
    field.fill("1.2 and more")
    page.get_by_role("dialog").get_by_role("button", name="Save").click()
    expect(page.get_by_text("Not saved yet: correct the marked field first")).to_be_visible()
    expect(field).to_have_value("1.2 and more")
    page.get_by_role("dialog").get_by_role("button", name="Not now").click()

    # The range, by its clauses.
    page.get_by_role("link", name="Range", exact=True).click()
    expect(page.get_by_text("10 – 40 mm")).to_be_visible()
    page.get_by_role("link", name="Tests", exact=True).click()

    # Signed: a wrong password signs nothing.
    page.get_by_role("button", name="Sign the record").click()
    page.get_by_label("your password, again").fill("not the one")
    page.get_by_role("button", name="Sign it").click()
    expect(page.get_by_text("The password does not fit")).to_be_visible()
    page.get_by_label("your password, again").fill(PASSWORD)
    page.get_by_role("button", name="Sign it").click()
    expect(page.get_by_text("is signed")).to_be_visible()

    # The WPS, as wide as the record allows, qualified and released.
    page.get_by_role("button", name="Make the WPS").click()
    expect(page.get_by_text("revision B").first).to_be_visible()
    expect(page.get_by_text(re.compile("covered by FB-27-Q"))).to_be_visible()
    sign(page, "Qualify", "Sign: qualified")
    sign(page, "Release revision B", "Release it")
    expect(page.get_by_role("button", name="Withdraw")).to_be_visible()

    # Nothing released is edited: the fields are closed, and the API refuses.
    expect(page.get_by_label("Title", exact=True)).to_be_disabled()
    revision = int(page.url.rsplit("/", 1)[1])
    found = page.request.get(f"{bridge.url}/api/revisions/{revision}").json()
    token = next(one["value"] for one in page.context.cookies() if one["name"] == "csrftoken")
    refused = page.request.put(
        f"{bridge.url}/api/revisions/{revision}",
        data={"version": found["version"], "document": found["document"]},
        headers={"X-CSRFToken": token},
    )
    assert refused.status == 409

    # A correction of the book shows what it reaches before it is said, and lists it after.
    page.get_by_role("link", name="Code book").click()
    page.get_by_role("button", name="Code or subject").click()
    page.get_by_role("option", name="ISO 15614-1:2017").click()
    page.get_by_label("Search rules and clauses").fill("range of thickness, butt")
    page.get_by_role("button", name=re.compile("^multi max factor")).nth(2).click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Value as printed").fill("1.5")
    expect(dialog.get_by_text(re.compile(r"in production change"))).to_be_visible()
    expect(dialog.get_by_text("FB-27-P40 B", exact=False)).to_be_visible()
    dialog.get_by_label("Reason").fill("own copy, table of thickness")
    dialog.get_by_role("button", name="Correct it").click()
    expect(dialog).to_be_hidden()
    reached = page.get_by_role("status").filter(has_text="Code-book changes affect")
    expect(reached.get_by_role("link", name="FB-27-P40 B")).to_be_visible()
    expect(reached.get_by_text("no longer covered", exact=False).first).to_be_visible()
    reached.get_by_role("link", name="FB-27-P40 B").click()
    expect(page.get_by_text("Not covered by a signed record")).to_be_visible()
