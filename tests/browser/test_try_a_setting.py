"""Settings tried before the arc: four side by side; a proud crown cured inside the limits; keyboard only."""

import re
import time

import pytest
from apps.coupons.models import PassLog
from playwright.sync_api import Page, expect

from tests.browser.conftest import PATIENCE_MS, open_from
from tests.browser.test_main_path import choose


def slide(page: Page, name: str, value: float) -> None:
    page.get_by_role("slider", name=f"{name}, slider").fill(f"{value:g}")


def test_four_settings_of_one_joint_are_compared(enter):
    page = enter()
    page.get_by_role("navigation").get_by_role("link", name="Try a setting").click()
    expect(page.get_by_role("img", name="Section of the bead")).to_have_count(1)
    for speed in (400, 500, 650):
        slide(page, "Travel speed", speed)
        page.get_by_role("button", name="Pin this setting").click()
    slide(page, "Travel speed", 300)
    expect(page.get_by_role("img", name="Section of the bead")).to_have_count(4)
    expect(page.get_by_role("button", name="Pin this setting")).to_be_disabled()
    expect(
        page.get_by_text("Changed against pin 1, and nothing else: Travel speed. Penetration")
    ).to_be_visible()
    energy = page.get_by_role("row", name=re.compile("^Arc energy"))
    # The answer to the last slide may still be on its way: slower travel than the first gives more energy.
    patience = time.monotonic() + PATIENCE_MS / 1000
    values: list[float] = []
    while (len(values) < 4 or values[3] <= values[0]) and time.monotonic() < patience:
        page.wait_for_timeout(100)
        values = [float(one) for one in re.findall(r"([\d.]+) kJ/mm", energy.inner_text())]
    assert len(values) == 4
    # Volts and amps are the same in all four: the energy goes by travel alone.
    assert [one / values[0] for one in values] == [
        pytest.approx(400 / speed, abs=0.02) for speed in (400, 500, 650, 300)
    ]
    energies = sorted(values)
    assert energies[0] == values[2] and energies[-1] == values[3]


def test_a_crown_too_high_is_cured_inside_the_limits_of_the_pass(enter, bridge):
    page = enter()
    open_from(page, "Procedures", "FB-27-P03")
    page.get_by_role("tab", name="Try it").click()
    expect(page.get_by_role("img", name="Section of the bead")).to_be_visible()
    allowed = page.get_by_text(re.compile(r"The procedure allows \d+–\d+ mm/min")).inner_text()
    low, high = (float(one) for one in re.findall(r"(\d+)–(\d+) mm/min", allowed)[0])
    choose(page, "Effect that is wanted", "Flatter crown")
    remedy = page.get_by_role("listitem").filter(has_text="Travel speed")
    expect(remedy).to_be_visible()
    used = page.get_by_role("button", name=re.compile(r"^Use Travel speed"))
    to = float(re.findall(r"→ (\d+)", used.get_attribute("aria-label"))[0])
    assert low <= to <= high
    used.click()
    expect(page.get_by_role("textbox", name="Travel speed", exact=True).last).to_have_value(f"{to:g}")
    # Nothing of it is written into the procedure.
    expect(page.get_by_text("changes no procedure")).to_be_visible()
    page.reload()
    page.get_by_role("tab", name="Try it").click()
    expect(page.get_by_text(allowed)).to_be_visible()


def test_by_keyboard_alone_and_with_what_the_model_does_not_know(enter, bridge):
    page = enter()
    page.goto(f"{bridge.url}/try")
    slider = page.get_by_role("slider", name="Arc voltage, slider")
    slider.focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("textbox", name="Arc voltage")).to_have_value("29.1")
    for _ in range(40):
        page.keyboard.press("Shift+Tab")
        if page.evaluate("document.activeElement?.getAttribute('aria-label')") == "Metal":
            break
    page.keyboard.press("Control+a")
    page.keyboard.type("a steel of nobody")
    expect(
        page.get_by_text("the metal is not known").or_(page.get_by_text("The metal is not known")).first
    ).to_be_visible()
    expect(page.get_by_text("No drawing: there is no model for these settings.")).to_be_visible()
    expect(page.get_by_role("textbox", name="Metal", exact=True)).to_have_value("a steel of nobody")


def test_a_tried_setting_goes_to_the_trial_weld_with_one_key_and_a_pass_comes_back(enter, bridge):
    page = enter()
    open_from(page, "Procedures", "FB-27-P04")
    page.get_by_role("tab", name="Try it").click()
    expect(page.get_by_role("img", name="Section of the bead")).to_be_visible()
    page.get_by_role("slider", name="Current, slider").fill("88")
    page.get_by_role("tab", name="Try it").focus()
    page.keyboard.press("w")
    expect(page.get_by_role("heading", name=re.compile("Trial weld for FB-27-P04"))).to_be_visible()
    expect(page.get_by_text("Correct it by what the meters show")).to_be_visible()
    expect(page.get_by_role("textbox", name="Current", exact=True)).to_have_value("88")
    # What a person typed is never written over by the next setting that is tried.
    page.get_by_role("textbox", name="Current", exact=True).fill("91")
    page.get_by_role("textbox", name="Voltage", exact=True).focus()
    page.go_back()
    page.get_by_role("tab", name="Try it").click()
    expect(page.get_by_role("img", name="Section of the bead")).to_be_visible()
    page.get_by_role("button", name="Weld it on scrap").click()
    expect(page.get_by_text("is not filled in")).to_be_visible()
    expect(page.get_by_role("textbox", name="Current", exact=True)).to_have_value("91")

    # From the log back to the page: the pass as welded.
    row = PassLog.objects.get(coupon__job=bridge.job, coupon__number="FB-27-C02", number=3)
    page.goto(f"{bridge.url}/faults?pass={row.pk}")
    page.get_by_role("link", name="Try its settings").click()
    expect(page.get_by_role("link", name="Coupon FB-27-C02, pass 3")).to_be_visible()
    expect(page.get_by_role("textbox", name="Current", exact=True)).to_have_value("136")
    expect(page.get_by_text("Outside what the procedure allows: 105–130 A")).to_be_visible()


def test_the_pool_moves_and_the_arc_is_shown(enter, bridge):
    page = enter()
    page.goto(f"{bridge.url}/try")
    expect(page.get_by_role("img", name="Side view of the moving pool")).to_be_visible()
    expect(page.get_by_role("img", name="Voltage, V")).to_be_visible()
    page.emulate_media(reduced_motion="no-preference")
    place = "document.querySelector('.pool-travels').getBoundingClientRect().x"
    before = page.evaluate(place)
    for _ in range(100):
        if abs(page.evaluate(place) - before) > 5:
            break
        page.wait_for_timeout(50)
    assert abs(page.evaluate(place) - before) > 5, "the pool stands still"
    page.emulate_media(reduced_motion="reduce")
    still = page.evaluate(place)
    page.wait_for_timeout(300)
    assert page.evaluate(place) == still
