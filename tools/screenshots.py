"""Retake docs/screenshots from a running demo: ``python -m tools.screenshots ADDRESS FOLDER``."""

import io
import re
import sys
from collections.abc import Callable
from pathlib import Path

from PIL import Image
from playwright.sync_api import Locator, Page, ViewportSize, expect, sync_playwright
from pypdfium2 import PdfDocument

from tools.chromium import CONTEXT, LAUNCH

BOOTH: ViewportSize = {"width": 820, "height": 1180}


def main(address: str, folder: Path) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as play:
        browser = play.chromium.launch(**LAUNCH)
        page = browser.new_context(**CONTEXT, base_url=address).new_page()

        def shot(name: str) -> None:
            page.evaluate("document.fonts.ready")
            page.wait_for_load_state("networkidle")
            page.screenshot(path=folder / f"{name}.png")
            print(f"  {name}.png", flush=True)

        page.goto(address)
        page.get_by_role("button", name="Imra Vance").wait_for()
        page.get_by_role("button", name="Imra Vance").click()
        page.get_by_text("FB-27-P03").first.wait_for()
        page.get_by_text("FB-27-C02").first.wait_for()
        shot("dashboard")
        open_procedure(page, address, "FB-27-P03")
        shot("procedure")
        joints(page, address, shot)
        production(page, address, folder)
        six_answers(page, address)
        shot("draft")
        page.goto(f"{address}/calculators")
        page.get_by_role("textbox", name="Filler designation").fill("E71T-1M-JH8")
        page.get_by_role("textbox", name="Shielding gas").fill("C25")
        for element, share in (("C", "0.16"), ("Si", "0.40"), ("Mn", "1.45"), ("Cr", "0.08")):
            page.get_by_label(f"{element} in %", exact=True).fill(share)
        page.get_by_role("textbox", name="Quantity").fill("2in sch40")
        page.get_by_text("M21-ArC-25").wait_for()
        page.get_by_text("read as").wait_for()
        page.get_by_text("CE (IIW)").wait_for()
        shot("calculators")
        page.goto(f"{address}/try")
        page.get_by_role("button", name="Pin this setting").click()
        page.get_by_role("slider", name="Travel speed, slider").fill("500")
        page.get_by_label("Effect that is wanted").click()
        page.get_by_role("option", name="Flatter crown").click()
        page.get_by_role("button", name=re.compile("^Use Travel speed")).wait_for()
        page.get_by_text("and nothing else: Travel speed").wait_for()
        show(page.get_by_role("heading", name="Try a setting"))
        shot("try-a-setting")
        page.goto(f"{address}/coupons")
        page.get_by_role("link", name="FB-27-C02").click()
        page.get_by_role("link", name="Find the cause on pass 3").wait_for()
        page.keyboard.press("f")
        page.get_by_role("button", name="Interpass temperature above its limit").first.click()
        page.get_by_role("heading", name="Interpass temperature above its limit").wait_for()
        shot("find-a-fault")
        page.goto(f"{address}/training")
        page.get_by_role("button", name="Tell the transfer by trace and sound").first.click()
        page.get_by_role("heading", name="Which mode of metal transfer is this?").wait_for()
        page.get_by_role("button", name="Sound in words").click()
        shot("training")
        page.goto(f"{address}/library")
        page.get_by_label("Search the metals").fill("S355")
        page.get_by_role("button", name="S355J2", exact=True).click()
        page.get_by_text("Minimum yield by thickness").wait_for()
        shot("library")
        open_coupon(page, address, "FB-27-C01")
        page.get_by_role("link", name="Tests", exact=True).click()
        page.get_by_text("S2 failed, repeated").wait_for()
        shot("tests")
        page.get_by_role("link", name="Range", exact=True).click()
        page.get_by_label("AWS D1.1:2020").check()
        page.get_by_label("Metal", exact=True).fill("S355J2+N")
        page.get_by_label("Thickness", exact=True).fill("40")
        page.get_by_label("Thickness", exact=True).press("Enter")
        page.get_by_role("button", name="Ask").click()
        page.get_by_text("not covered", exact=True).wait_for()
        shot("range")
        page.goto(f"{address}/book")
        page.get_by_role("button", name="Code or subject").click()
        page.get_by_role("option", name="ISO 15614-1:2017").click()
        page.get_by_label("Search rules and clauses").fill("hardness")
        page.get_by_text("Welding environment").wait_for(state="hidden")
        page.get_by_text("Records to earlier editions").wait_for(state="hidden")
        page.get_by_text("Maximum hardness HV10").wait_for()
        shot("code-book")
        crew(page, address, folder)
        open_coupon(page, address, "FB-27-C03")
        page.get_by_role("link", name="booth-2 pass 3.csv").click()
        page.get_by_role("img", name="Current from").wait_for()
        shot("recording")
        open_coupon(page, address, "FB-27-C02")
        page.wait_for_load_state("networkidle")
        office = page.screenshot()
        page.set_viewport_size(BOOTH)
        page.get_by_role("button", name="Booth").click()
        page.wait_for_load_state("networkidle")
        joined(office, page.screenshot(), folder / "run-log.png")
        page.set_viewport_size(CONTEXT["viewport"])
        page.get_by_role("button", name="Light").click()
        sheets = [
            PdfDocument(page.request.get(address + path).body())[0].render(scale=1.25).to_pil()
            for path in (
                f"/api/revisions/{revision_of(page, 3)}/print",
                f"/api/coupons/{line_of(page, 'coupons', 2)}/print",
            )
        ]
        side_by_side(*sheets).save(folder / "sheets.png")
        print("  sheets.png", flush=True)
        browser.close()


def show(part: Locator) -> None:
    """Bring a part to the top of the window."""
    part.evaluate("part => part.scrollIntoView()")


def joints(page: Page, address: str, shot: Callable[[str], None]) -> None:
    """The weld list, the coupons for what nothing covers, and the WPS that each type is welded to."""
    page.goto(f"{address}/joints")
    page.get_by_role("gridcell", name="Mark: DB01").click()
    shot("weld-list")
    page.get_by_role("link", name="Fewest coupons").click()
    page.get_by_role("button", name="Find the cheapest coupons").click()
    page.get_by_text("proven").wait_for()
    shot("coupons-planned")
    page.get_by_role("link", name="WPS", exact=True).click()
    page.get_by_role("button", name="T9", exact=True).click()
    page.get_by_text("40 mm is outside").wait_for()
    shot("wps")


def production(page: Page, address: str, folder: Path) -> None:
    """Production welds, and beside them the entry of one at the size of a phone."""
    page.goto(f"{address}/production")
    page.get_by_text("17 welds").wait_for()
    page.wait_for_load_state("networkidle")
    log = page.screenshot()
    page.set_viewport_size({"width": 390, "height": 800})
    page.goto(f"{address}/production/joint?job=FB-27&mark=DB20")
    page.get_by_role("button", name="Log this weld").wait_for()
    show(page.get_by_role("heading", name="DB20", exact=True))
    page.wait_for_load_state("networkidle")
    joined(log, page.screenshot(), folder / "production.png")
    page.set_viewport_size(CONTEXT["viewport"])


def crew(page: Page, address: str, folder: Path) -> None:
    """The crew, and beside it who may weld a procedure."""
    page.goto(f"{address}/crew")
    page.get_by_text("8 welders").wait_for()
    page.wait_for_load_state("networkidle")
    people = page.screenshot()
    page.goto(f"{address}/crew/who-may?revision={revision_of(page, 2)}")
    page.get_by_role("heading", name="May weld it", exact=True).wait_for()
    page.wait_for_load_state("networkidle")
    joined(people, page.screenshot(), folder / "crew.png")


def joined(one: bytes, other: bytes, file: Path) -> None:
    """Two pictures in one file."""
    side_by_side(Image.open(io.BytesIO(one)), Image.open(io.BytesIO(other))).save(file)
    print(f"  {file.name}", flush=True)


def side_by_side(one: Image.Image, other: Image.Image) -> Image.Image:
    """Two pictures in one."""
    both = Image.new("RGB", (one.width + other.width + 12, max(one.height, other.height)), "#8a8f98")
    both.paste(one, (0, 0))
    both.paste(other, (one.width + 12, 0))
    return both


def six_answers(page: Page, address: str) -> None:
    page.goto(f"{address}/procedures/draft")
    page.get_by_label("Metal 1", exact=True).fill("S355J2+N")
    page.keyboard.press("Escape")
    page.get_by_label("Thickness of metal 1", exact=True).fill("20")
    page.keyboard.press("Enter")
    for label, words in (
        ("Joint", "butt"),
        ("Weld", "full penetration"),
        ("Position", "PF"),
        ("Process", "135"),
        ("Code", "ISO 15614-1:2017"),
    ):
        page.get_by_role("button", name=label, exact=True).click()
        page.get_by_role("option", name=words).first.click()
    page.get_by_role("heading", name="S355J2, 20 mm, single V butt, 135, PF").wait_for()
    expect(page.get_by_role("button", name="Make it a procedure")).to_be_enabled()
    page.mouse.move(0, 0)


def revision_of(page: Page, index: int) -> int:
    return line_of(page, "procedures", index)


def line_of(page: Page, kind: str, index: int) -> int:
    """Id of the n-th procedure or coupon of the demo, by number."""
    job = page.request.get("/api/jobs").json()[0]["id"]
    return int(page.request.get(f"/api/jobs/{job}/{kind}").json()[index - 1]["id"])


def open_procedure(page: Page, address: str, number: str) -> None:
    page.goto(f"{address}/procedures")
    page.get_by_role("link", name=number).first.click()
    page.get_by_role("heading", name=number).wait_for()


def open_coupon(page: Page, address: str, number: str) -> None:
    page.goto(f"{address}/coupons")
    page.get_by_role("link", name=number).first.click()
    page.get_by_role("heading", name=number).wait_for()


if __name__ == "__main__":
    main(sys.argv[1].rstrip("/"), Path(sys.argv[2]))
