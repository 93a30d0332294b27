"""Retake docs/screenshots from a running demo: ``python -m tools.screenshots ADDRESS FOLDER``."""

import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from pypdfium2 import PdfDocument

from tools.chromium import CONTEXT, LAUNCH

BOOTH = {"width": 820, "height": 1180}


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
        shot("sign-in")
        page.get_by_role("button", name="Imra Vance").click()
        page.get_by_text("FB-27-P03").first.wait_for()
        page.get_by_text("FB-27-C02").first.wait_for()
        shot("desk")
        page.goto(f"{address}/procedures")
        page.get_by_text("FB-27-P03").wait_for()
        shot("procedures")
        page.goto(f"{address}/coupons")
        page.get_by_text("FB-27-C01").wait_for()
        shot("coupons")
        open_procedure(page, address, "FB-27-P03")
        shot("procedure")
        open_procedure(page, address, "FB-27-P01")
        page.get_by_role("radio", name="in", exact=True).click()
        page.get_by_text("Section to the surface").wait_for()
        shot("procedure-inch")
        page.get_by_role("radio", name="mm", exact=True).click()
        open_procedure(page, address, "FB-27-P09")
        page.get_by_label("Set-up of pass 1").evaluate("part => part.scrollIntoView()")
        page.get_by_text("70 % negative, 30 % cleaning").wait_for()
        shot("procedure-tig")
        open_procedure(page, address, "FB-27-P02")
        page.get_by_role("button", name="heat H20417").click()
        page.get_by_text("CE (IIW)").wait_for()
        shot("certificate")
        page.keyboard.press("Escape")
        page.goto(f"{address}/bench")
        page.get_by_role("textbox", name="Filler designation").fill("E71T-1M-JH8")
        page.get_by_role("textbox", name="Shielding gas").fill("C25")
        for element, share in (("C", "0.16"), ("Si", "0.40"), ("Mn", "1.45"), ("Cr", "0.08")):
            page.get_by_label(f"{element} in %", exact=True).fill(share)
        page.get_by_role("textbox", name="Quantity").fill("2in sch40")
        page.get_by_text("M21-ArC-25").wait_for()
        page.get_by_text("read as").wait_for()
        page.get_by_text("CE (IIW)").wait_for()
        shot("bench-arc")
        page.get_by_role("heading", name="Bench").evaluate("head => head.scrollIntoView({block: 'end'})")
        shot("bench")
        page.goto(f"{address}/shelf")
        page.get_by_label("Search the metals").fill("S355")
        page.get_by_role("button", name="S355J2", exact=True).click()
        page.get_by_text("Minimum yield by thickness").wait_for()
        shot("shelf")
        page.goto(f"{address}/shelf/fillers")
        page.get_by_label("Search the fillers").fill("flux-core 1.2")
        page.get_by_role("button", name="E71T-1M").click()
        page.get_by_text("Its parts").wait_for()
        shot("shelf-fillers")
        page.goto(f"{address}/shelf/machines")
        page.get_by_role("button", name="Bay 1 MAG").click()
        page.get_by_role("link", name="FB-27-P02 A").wait_for()
        shot("shelf-machines")
        open_coupon(page, address, "FB-27-C02")
        shot("run-log")
        page.set_viewport_size(BOOTH)
        page.get_by_role("button", name="Booth").click()
        shot("run-log-booth")
        page.set_viewport_size(CONTEXT["viewport"])
        page.get_by_role("button", name="Light").click()
        page.keyboard.press("Control+k")
        page.get_by_role("combobox", name="Find or do").wait_for()
        page.keyboard.type("girder")
        page.get_by_role("option").first.wait_for()
        shot("command-box")
        for path, name in (
            (sheet_of(page, "procedures", 3), "sheet-procedure"),
            (sheet_of(page, "coupons", 2), "sheet-coupon"),
        ):
            pdf = PdfDocument(page.request.get(address + path).body())
            pdf[0].render(scale=1.25).to_pil().save(folder / f"{name}.png")
            print(f"  {name}.png", flush=True)
        browser.close()


def sheet_of(page: Page, kind: str, index: int) -> str:
    """Address of the sheet of the n-th procedure or coupon of the demo, by number."""
    job = page.request.get("/api/jobs").json()[0]["id"]
    lines = page.request.get(f"/api/jobs/{job}/{kind}").json()
    return f"/api/{'revisions' if kind == 'procedures' else kind}/{lines[index - 1]['id']}/print"


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
