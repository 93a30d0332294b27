"""A messy list from the drawing office: imported, its questions answered, gaps seen, coupons found, drafts made."""

import datetime
import io
import re
from uuid import uuid4

from apps.accounts.models import User
from apps.coupons.services.edit_piece import edit_piece
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.procedures.models import Revision
from apps.qualification.services.signing import sign_record
from apps.qualification.services.specimens import enter_test
from openpyxl import Workbook
from playwright.sync_api import expect

from tests.browser.conftest import PATIENCE_MS
from tests.welding.records import specimens_of
from welding.documents.codec import PASS_RECORD, TEST

HEAD = [
    ["Tarn Hollow footbridge, drawing 105"],
    ["Weld", "Drawing", None, "Nahtart", "Material", "Thickness [mm]", None, "Position", "Size"],
    ["No.", "No.", "Rev.", None, None, "1", "2", None, None],
]
ROWS = [
    ["MA01", "FB-27-105", "A", "BW", "S355", 20.0, 20, "PA", None],
    ["MA02", "FB-27-105", "A", "BW", "S355", "20 ", "20", "PA", None],
    ["MA03", "FB-27-105", "A", "FW", "S355", "20/12", None, "PB", "5"],
    ["MA04", "FB-27-105", "A", "BW", "S355", datetime.datetime(2026, 4, 3), 20, "PA", None],
]


def workbook() -> dict[str, object]:
    made = Workbook()
    for row in [*HEAD, *ROWS]:
        made.active.append(row)
    made.active.merge_cells("B2:C2")
    made.active.merge_cells("F2:G2")
    sink = io.BytesIO()
    made.save(sink)
    return {"name": "drawing 105.xlsx", "mimeType": "application/octet-stream", "buffer": sink.getvalue()}


def answer(dialog, page, question, choice):
    dialog.get_by_role("button", name=question).click()
    page.get_by_role("option", name=choice, exact=True).click()


def test_a_messy_list_to_drafts_of_the_cheapest_coupons(enter):
    page = enter()
    page.get_by_role("navigation").get_by_role("link", name="Joints").click()
    expect(page.get_by_text("400 joints")).to_be_visible()
    page.get_by_role("button", name="Import a list").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Weld list file").set_input_files(workbook())
    expect(dialog.get_by_role("button", name="Column Thickness [mm] 2")).to_have_text("Thickness 2")
    expect(dialog).to_contain_text("4 added, 0 changed, 0 gone, 0 as before")
    answer(dialog, page, "Lengths stand without a unit", "mm")
    dialog.get_by_role("combobox", name="“S355” is no metal").fill("S355J2+N")
    answer(dialog, page, "Is the other of the same metal", "yes, the same")
    answer(dialog, page, "full or partial", "CJP groove weld, full penetration")
    answer(dialog, page, "does not say which joint", "T joint")
    answer(dialog, page, "its leg or its throat", "throat")
    expect(dialog.get_by_role("list", name="To correct")).to_contain_text("holds a date here")
    expect(dialog).to_contain_text("1 with something to correct")
    dialog.get_by_role("button", name="Take the list").click()
    expect(page.get_by_text("404 joints")).to_be_visible()

    # The damaged cell is found at the end of the list, and mended by keyboard alone.
    page.get_by_role("gridcell", name="Mark: DB01").click()
    page.keyboard.press("Control+End")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Home")
    expect(page.get_by_role("gridcell", name="Mark: MA04")).to_be_focused()
    for _ in range(8):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_text("Enter it as text.")).to_be_visible()
    page.keyboard.type("20 mm")
    page.keyboard.press("Enter")
    page.keyboard.press("Control+s")
    expect(page.get_by_text("with something to correct")).to_have_count(0)

    page.get_by_role("link", name="Coverage").click()
    expect(page.get_by_text("covered by FB-27-Q01").first).to_be_visible()
    page.get_by_label("Only what is not covered").check()
    expect(page.get_by_text("covered by FB-27-Q01")).to_have_count(0)
    page.get_by_role("button", name="T9", exact=True).click()
    expect(page.get_by_role("list", name="Records")).to_contain_text("40 mm is outside what is qualified")

    page.get_by_role("link", name="Fewest coupons").click()
    page.get_by_role("button", name="Find the cheapest coupons").click()
    expect(page.get_by_text("proven: no cheaper set")).to_be_visible(timeout=2 * PATIENCE_MS)
    page.get_by_role("button", name="Draft their procedures").click()
    drafted = page.get_by_role("list", name="Drafted").get_by_role("link")
    expect(drafted.first).to_be_visible(timeout=2 * PATIENCE_MS)
    number = drafted.first.inner_text()
    drafted.first.click()
    expect(page.get_by_role("heading", level=1)).to_contain_text(number)


def test_two_people_change_one_joint(enter):
    first = enter()
    first.get_by_role("navigation").get_by_role("link", name="Joints").click()
    second = enter("Odile Brandt")
    second.get_by_role("navigation").get_by_role("link", name="Joints").click()
    for page, part in ((first, "pylon"), (second, "mast")):
        page.get_by_role("gridcell", name="Mark: DB02").click()
        for _ in range(3):
            page.keyboard.press("ArrowRight")
        page.keyboard.type(part)
        page.keyboard.press("Enter")
    first.keyboard.press("Control+s")
    expect(first.get_by_role("button", name="Save 1 changed joint")).to_have_count(0)
    second.keyboard.press("Control+s")
    expect(second.get_by_text("changed these joints in the meantime")).to_be_visible()
    expect(second.get_by_role("gridcell", name="Part: mast")).to_be_visible()  # nothing typed is lost
    second.get_by_role("button", name="Take theirs, drop mine").click()
    expect(second.get_by_role("gridcell", name="Part: pylon")).to_be_visible()
    expect(second.get_by_role("gridcell", name="Part: mast")).to_have_count(0)


def weld_as_planned(revision):
    """Weld a coupon of a draft with the middle of every planned range, test it, sign its record."""
    engineer, inspector = (User.objects.get(role=role) for role in ("engineer", "inspector"))
    document = revision.contents()
    coupon = start_coupon(engineer, revision, "Rell Okafor")
    piece = coupon.piece | {
        "product": "plate",
        "thickness_mm": [one.thickness_mm for one in document.base_metals],
        "position": document.positions[0],
        "preheat_c": max(20, document.thermal.preheat_min_c or 20),
        "welded_on": "2026-05-04",
    }
    edit_piece(inspector, coupon, coupon.version, {"piece": piece})
    for one in document.passes:
        entry = {
            "number": one.number,
            "side": one.side,
            "current_a": {"mean": one.current_a.middle},
            "voltage_v": {"mean": one.voltage_v.middle},
            "travel_mm_min": one.travel_mm_min.middle,
        }
        if one.wire_feed_m_min:
            entry["wire_feed_m_min"] = {"mean": one.wire_feed_m_min.middle}
        log_pass(inspector, coupon, uuid4(), PASS_RECORD.take(entry))
    coupon.refresh_from_db()
    edit_piece(inspector, coupon, coupon.version, {"status": "welded"})
    for test in specimens_of({"id": "iso-15614-1:2017"}):
        enter_test(inspector, coupon, TEST.take(test))
    return sign_record(engineer, coupon, "As planned.")


def test_a_welded_coupon_closes_its_gap(enter):
    page = enter()
    page.get_by_role("navigation").get_by_role("link", name="Joints").click()
    page.get_by_role("link", name="Coverage").click()
    page.get_by_label("Only what is not covered").check()
    gap = page.get_by_role("row", name=re.compile("40 mm; PC|40 mm.*PC"))
    expect(gap).to_be_visible()
    page.get_by_role("link", name="Fewest coupons").click()
    page.get_by_role("button", name="Find the cheapest coupons").click()
    page.get_by_role("button", name="Draft their procedures").click(timeout=2 * PATIENCE_MS)
    expect(page.get_by_role("list", name="Drafted").get_by_role("link").first).to_be_visible(
        timeout=2 * PATIENCE_MS
    )
    drafts = Revision.objects.filter(stage="draft", positions__contains=["PC"]).order_by("-pk")
    record = weld_as_planned(drafts[0])
    page.get_by_role("link", name="Coverage").click()
    expect(page.get_by_text(f"covered by {record.number}").first).to_be_visible()
    page.get_by_label("Only what is not covered").check()
    expect(gap).to_have_count(0)
