"""From a flagged pass to its cause with one key, by keyboard alone; what cured it ranks higher next time."""

from apps.coupons.models import PassLog
from apps.faults.models import Cure, UnknownSymptom
from playwright.sync_api import expect


def test_a_flagged_pass_leads_to_its_cause_with_one_key(enter, bridge):
    row = PassLog.objects.get(coupon__job=bridge.job, coupon__number="FB-27-C02", number=3)
    page = enter("Imra Vance")
    page.goto(f"{bridge.url}/coupons/{row.coupon_id}")
    expect(page.get_by_role("link", name=f"Find the cause on pass {row.number}")).to_be_visible()
    page.keyboard.press("f")
    expect(page.get_by_role("link", name=f"Coupon {row.coupon.number}, pass {row.number}")).to_be_visible()
    expect(page.get_by_text("262 °C is above 250 °C")).to_be_visible()
    expect(page.get_by_role("heading", name="Current above the procedure")).to_be_visible()
    causes = page.get_by_role("list", name="Causes, the likeliest first").locator("> li")
    expect(causes.first).to_contain_text("speaks for it")
    expect(causes.first).to_contain_text("current 136 A")

    # A check by keyboard: what it rules out goes down, and what it confirms stays first.
    first = causes.first.get_attribute("data-cause")
    page.locator(f'[data-cause="{first}"]').get_by_role("button", name="Not it").focus()
    page.keyboard.press("Enter")
    expect(causes.first).not_to_have_attribute("data-cause", first)
    page.locator(f'[data-cause="{first}"]').get_by_role("button", name="Found").click()
    expect(causes.first).to_have_attribute("data-cause", first)

    page.locator(f'[data-cause="{first}"]').get_by_role("button", name="Cured by").first.click()
    page.get_by_label("Note").fill("dial had slipped")
    page.keyboard.press("Tab")
    page.get_by_role("button", name="Keep it").press("Enter")
    expect(page.get_by_text("cured here before: 1")).to_be_visible()
    expect(page.get_by_role("heading", name="What cured it here")).to_be_visible()
    cure = Cure.objects.get()
    assert (cure.cause, cure.row_id, cure.note) == (first, row.pk, "dial had slipped")


def test_words_that_nobody_knows_go_to_the_engineer_and_nothing_typed_is_lost(enter, bridge):
    page = enter("Imra Vance")
    page.keyboard.press("g")
    page.keyboard.press("x")
    field = page.get_by_label("Say it in words")
    field.fill("sugar on the root")
    page.get_by_role("list", name="Found by words").get_by_role("button").first.click()
    expect(page.get_by_role("heading", name="Oxidised, sugared stainless root")).to_be_visible()
    field.fill("qwertz knarz")
    page.get_by_role("button", name="Ask the engineer").click()
    expect(page.get_by_text("Kept for the welding engineer.")).to_be_visible()
    expect(field).to_have_value("qwertz knarz")
    page.get_by_role("button", name="answer").click()
    page.get_by_label("What it means").fill("spatter")
    page.get_by_label("What it means").press("Enter")
    expect(page.get_by_text("“qwertz knarz” spatter")).to_be_visible()
    assert UnknownSymptom.objects.get().settled_as == "spatter"
