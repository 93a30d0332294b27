"""From the code on a joint's card to the final documentation: welded, inspected, released, found again."""

import io
import json
import zipfile

import pypdfium2
from playwright.sync_api import expect

PHONE = {"width": 390, "height": 844}


def test_a_weld_from_its_code_to_the_documentation(bridge, browser, enter):
    # The card's code opens the entry on a phone, of the job that it names.
    phone = enter("Rell Okafor")
    phone.set_viewport_size(PHONE)
    phone.goto(f"{bridge.url}/production/joint?job=FB-27&mark=DB20")
    expect(phone.get_by_text("FB-27-P02 B").first).to_be_visible()
    expect(phone.get_by_label("Welders")).to_have_value("Rell Okafor")
    batch = phone.get_by_label("Filler batches")
    batch.fill("TH-4999")
    phone.get_by_role("button", name="+ 48219").click()
    phone.get_by_role("button", name="Add readings").click()
    phone.get_by_label("Current (A), row 1").fill("900")
    phone.get_by_role("button", name="Log this weld").click()
    expect(phone.get_by_text("Its weld is logged.")).to_be_visible()

    # A joint that no WPS covers says so before it is welded.
    phone.goto(f"{bridge.url}/production/joint?job=FB-27&mark=BP01")
    expect(phone.get_by_text("No WPS is assigned to this joint")).to_be_visible()
    phone.get_by_role("button", name="Person").or_(
        phone.get_by_role("button", name="Rell Okafor")
    ).first.click()
    phone.get_by_role("menuitem", name="Sign out").click()
    expect(phone.get_by_role("button", name="Sign in")).to_be_visible()

    page = enter("Tobiah Lind")
    page.get_by_role("navigation").get_by_role("link", name="Production").click()
    page.get_by_label("Filler batch", exact=True).fill("TH-4999")
    expect(page.get_by_text("1 weld", exact=True)).to_be_visible()
    page.get_by_role("link", name="DB20 / 1").click()
    expect(page.get_by_role("region", name="As welded")).to_contain_text("900")
    form = page.get_by_role("form", name="Enter a result")
    form.get_by_role("button", name="Rejected").click()
    expect(form.get_by_role("alert")).to_contain_text("Say what was found")
    form.get_by_role("button", name="Accepted").click()
    page.get_by_role("button", name="Release this weld").click()
    expect(page.get_by_text("Released by")).to_be_visible()

    page.get_by_role("navigation").get_by_role("link", name="Production").click()
    page.get_by_role("link", name="Documentation").click()
    expect(page.get_by_role("region", name="Open points")).to_contain_text(
        "Joints without a WPS that covers them"
    )
    address = page.get_by_role("link", name="Open as one PDF").get_attribute("href")
    document = pypdfium2.PdfDocument(page.request.get(bridge.url + address).body())
    assert "Welds and results" in [one.get_title() for one in document.get_toc()]
    assert "DB20 / 1" in " ".join(sheet.get_textpage().get_text_range() for sheet in document)
    with page.expect_download() as waited:
        page.get_by_role("link", name="Download the open files as ZIP").click()
    with zipfile.ZipFile(io.BytesIO(waited.value.path().read_bytes())) as archive:
        welds = json.loads(archive.read("welds.json"))
    assert next(one for one in welds if one["mark"] == "DB20")["filler_batches"] == ["TH-4999"]


def test_a_wps_is_assigned_and_ends_with_its_withdrawal(enter):
    page = enter()
    page.get_by_role("navigation").get_by_role("link", name="Joints").click()
    page.get_by_role("link", name="WPS", exact=True).click()
    expect(page.get_by_text("6 of 9 joint types have a WPS")).to_be_visible()
    page.get_by_role("button", name="WPS for T1").click()
    page.get_by_role("option", name="no WPS assigned").click()
    expect(page.get_by_text("5 of 9 joint types have a WPS")).to_be_visible()
    page.get_by_role("button", name="Assign FB-27-P02 B to T1").click()
    expect(page.get_by_text("6 of 9 joint types have a WPS")).to_be_visible()
    page.get_by_role("button", name="T9", exact=True).click()
    expect(page.get_by_role("list", name="Released WPSs")).to_contain_text(
        "40 mm is outside what the WPS states"
    )
