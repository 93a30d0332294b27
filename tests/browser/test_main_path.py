"""From signing in to a printed coupon and back from its file, as an engineer would do it."""

import json
import re
from io import BytesIO

from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.browser.stopwatch import held


def fill(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def choose(page: Page, label: str, words: str) -> None:
    page.get_by_role("button", name=label, exact=True).click()
    page.get_by_role("option", name=words, exact=False).first.click()


def saved(page: Page) -> None:
    expect(page.get_by_text(re.compile(r"saved \d\d:\d\d"))).to_be_visible()


def pdf_text(page: Page, path: str) -> str:
    answer = page.request.get(path)
    assert answer.ok
    pages = PdfReader(BytesIO(answer.body())).pages
    return " ".join(" ".join(one.extract_text() for one in pages).split())


def test_draft_weld_log_print_and_exchange(enter, bridge, tmp_path):
    page = enter()

    # Draft, typed as people say it.
    page.get_by_role("link", name="Procedures").click()
    page.get_by_role("button", name="Draft a procedure").click()
    page.get_by_role("textbox", name="Title").fill("Gusset butt, flat")
    page.get_by_role("button", name="Draft it").click()
    expect(page.get_by_role("heading", name="FB-27-P11 Gusset butt, flat")).to_be_visible()
    choose(page, "Code", "ISO 15614-1:2017")
    for metal in ("Metal 1", "Metal 2"):
        page.get_by_label(f"{metal} designation").fill("S355J2+N")
        fill(page, f"{metal} thickness", "3/8 in")
    choose(page, "Joint", "butt")
    choose(page, "Edge form", "single V")
    fill(page, "Included angle", "60")
    fill(page, "Root gap", "3")
    fill(page, "Root face", "1.5")
    choose(page, "Position", "PA")
    expect(page.get_by_role("img", name="Section of a single V, butt joint, 0 passes")).to_be_visible()
    page.get_by_role("button", name="Add the root pass").click()
    page.get_by_label("Filler designation").fill("ER70S-6")
    fill(page, "Filler diameter", ".045")
    fill(page, "Shielding gas", "C18")
    choose(page, "Polarity", "DCEP")
    expect(page.get_by_text("Ar+18CO2").first).to_be_visible()

    # The heat input answers while typing: 25 V x 150-170 A x 60 / 200-250 mm/min x 0.8.
    heat = page.locator("[data-heat='1']")
    fill(page, "Current, pass 1", "150-170")
    fill(page, "Voltage, pass 1", "25 V")
    fill(page, "Travel, pass 1", "200 to 250")
    expect(heat).to_contain_text("0.72–1.02")
    page.get_by_label("Travel, pass 1").press_sequentially("")  # focus, nothing typed
    page.get_by_label("Travel, pass 1").fill("10 ipm")
    expect(heat).to_contain_text("0.71–0.80")  # before the field is left
    fill(page, "Travel, pass 1", "200-250")
    expect(heat).to_contain_text("0.72–1.02")
    for _ in range(2):
        page.get_by_role("button", name=re.compile("Add a pass above")).click()
    expect(page.get_by_role("img", name="Section of a single V, butt joint, 3 passes")).to_be_visible()
    expect(page.locator("[data-heat='3']")).to_contain_text("0.72–1.02")
    saved(page)

    # A typing slip is refused beside the field, and what was typed stays.
    page.get_by_label("Current, pass 2").fill("5000 A")
    expect(page.get_by_role("alert")).to_contain_text("not plausible")
    expect(page.get_by_label("Current, pass 2")).to_have_value("5000 A")
    page.get_by_label("Current, pass 2").press("Escape")
    expect(page.get_by_label("Current, pass 2")).to_have_value("150–170")

    # Weld a coupon: the revision freezes.
    page.get_by_role("button", name="Weld a coupon").click()
    page.get_by_role("textbox", name="Welder").fill("Rell Okafor")
    page.get_by_role("button", name="Start the coupon").click()
    expect(page.get_by_role("heading", name="Coupon FB-27-C04")).to_be_visible()

    # Log three passes with the stopwatch; 300 mm in 80 s is 225 mm/min, in 120 s 150 (too slow).
    page.clock.install()
    fill(page, "Length", "300")
    for number, seconds, before in ((1, 80, 22), (2, 120, 140), (3, 75, 180)):
        expect(page.get_by_role("button", name=f"Save pass {number}")).to_be_visible()
        with held(page):
            page.get_by_role("button", name="Start arc").click()
            page.clock.fast_forward(seconds * 1000)
            page.get_by_role("button", name="Stop").click()
        fill(page, "Current", "160")
        fill(page, "Voltage", "25")
        fill(page, "Temperature before the pass", str(before))
        if number == 2:
            expect(page.get_by_text("Travel below the range.")).to_be_visible()
            expect(page.get_by_text("200 mm/min or faster, about 90 s for 300 mm.")).to_be_visible()
        page.keyboard.press("Control+Enter")
        expect(page.locator(f"[data-logged='{number}']")).to_be_visible()
    slow = page.locator("[data-logged='2']")
    expect(slow).to_contain_text("out of range")
    expect(slow).to_contain_text("1.28")  # 25 x 160 x 60 / 150 / 1000 x 0.8 = 1.28 kJ/mm
    expect(page.locator("[data-logged='1']")).not_to_contain_text("out of range")
    expect(page.get_by_text("3 of 3 passes logged")).to_be_visible()

    # Print: the PDF holds the pass table.
    coupon_id = page.url.rsplit("/", 1)[1]
    text = pdf_text(page, f"{bridge.url}/api/coupons/{coupon_id}/print")
    for words in (
        "FB-27-C04 · FB-27-P11",
        "160 A",
        "25.0 V",
        "300 mm",
        "OUT",
        "Rell Okafor (welder)",
        "140 °C",
    ):
        assert words in text, words
    assert "1.28 kJ/mm" in text
    page.get_by_role("link", name="FB-27-P11 rev A").click()
    expect(page.get_by_text("Revision A is frozen")).to_be_visible()
    revision_id = page.url.rsplit("/", 1)[1]
    text = pdf_text(page, f"{bridge.url}/api/revisions/{revision_id}/print?paper=letter")
    for words in (
        "Gusset butt, flat",
        "150–170 A",
        "200–250 mm/min",
        "0.72–1.02 kJ/mm",
        "Ar+18CO2",
        "9.53 mm",
    ):
        assert words in text, words

    # Export, and import into another job: the files are the same again.
    page.goto(f"{bridge.url}/coupons/{coupon_id}")
    with page.expect_download() as download:
        page.get_by_role("button", name="More").click()
        page.get_by_role("menuitem", name="Export JSON").click()
    file = tmp_path / "coupon.json"
    download.value.save_as(file)
    page.get_by_role("button", name="Job FB-27 Tarn Hollow footbridge").click()
    page.get_by_role("menuitem", name="Add a job").click()
    page.get_by_role("textbox", name="Number").fill("FB-28")
    page.get_by_role("textbox", name="Title").fill("Weir gate")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_role("button", name="Job FB-28 Weir gate")).to_be_visible()
    bring(page, file)
    expect(page.get_by_role("heading", name="Coupon FB-27-C04")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("button", name="More").click()
        page.get_by_role("menuitem", name="Export JSON").click()
    again = tmp_path / "again.json"
    download.value.save_as(again)
    assert again.read_bytes() == file.read_bytes()

    # A file with mistakes is refused whole, each with its path.
    wrong = json.loads(file.read_text())
    wrong["coupon"]["passes"][0]["current_a"] = 5000
    wrong["coupon"]["passes"][1]["zap"] = 1
    broken = tmp_path / "broken.json"
    broken.write_text(json.dumps(wrong))
    bring(page, broken)
    refusal = page.get_by_role("dialog").get_by_role("alert")
    expect(refusal).to_contain_text("coupon.passes.0.current_a")
    expect(refusal).to_contain_text("coupon.passes.1.zap")


def bring(page: Page, file) -> None:
    page.get_by_role("navigation").get_by_role("link", name="Procedures").click()
    page.get_by_role("button", name="Import").click()
    page.get_by_label("File").set_input_files(file)
    page.get_by_role("dialog").get_by_role("button", name="Import").click()
