"""A welder's test from the coupon to the certificate, six months of work confirmed, and who may weld a joint."""

from datetime import UTC, datetime, timedelta

from apps.coupons.models import Coupon
from apps.crew.models import Certificate, Statement
from apps.demo.people import PASSWORD
from playwright.sync_api import expect

PIECE = "ISO 9606-1 135 P BW FM1 S s16 PA ss nb, dip transfer"


def test_from_the_coupon_to_the_certificate_its_confirmation_and_the_joint(bridge, enter, monkeypatch):
    coupon = Coupon.objects.get(number="FB-27-C01")
    page = enter("Bertil Quill")
    page.goto(f"{bridge.url}/coupons/{coupon.pk}/tests")
    panel = page.get_by_role("region", name="As the test of its welder")
    # The root was welded in dip transfer and the rest in spray: which test it is the examiner says.
    expect(panel).to_contain_text("The examiner says which it is.")
    panel.get_by_role("link", name="Write the certificate of Rell Okafor").click()
    form = page.get_by_role("form", name="Enter a certificate")
    expect(form.get_by_label("Examiner")).to_have_value("Bertil Quill")
    form.get_by_label("Designation").fill(PIECE.replace("FM1 ", ""))
    expect(form.get_by_role("alert")).to_be_visible()
    form.get_by_label("Designation").fill(PIECE)
    expect(form.get_by_text("see what it qualifies")).to_be_visible()
    form.get_by_label("Number of the certificate").fill("FB-W101")
    form.get_by_role("button", name="Way of revalidation").click()
    page.get_by_role("option", name="a) a new test when the period ends").click()
    form.get_by_label("your password, again").fill("wrong")
    form.get_by_role("button", name="Sign the certificate").click()
    expect(form.get_by_text("nothing was signed")).to_be_visible()
    expect(form.get_by_label("Number of the certificate")).to_have_value("FB-W101")
    form.get_by_label("your password, again").fill(PASSWORD)
    form.get_by_role("button", name="Sign the certificate").click()
    held = page.get_by_role("region", name="Certificate FB-W101")
    expect(held.get_by_role("status")).to_contain_text("valid until")
    held.get_by_role("button", name="Range of qualification").click()
    expect(held.get_by_role("table", name="Range of qualification")).to_contain_text("PA")
    assert Certificate.objects.get(number="FB-W101").document().coupon == coupon.number

    # Five months on it runs out soon; what was welded meanwhile stands in the logs, and a person signs.
    monkeypatch.setattr("django.utils.timezone.now", lambda: datetime.now(UTC) + timedelta(days=160))
    page = enter("Imra Vance")
    page.get_by_role("navigation").get_by_role("link", name="Crew").click()
    page.get_by_role("link", name="What runs out").click()
    page.get_by_role("button", name="30 days").click()
    expect(page.get_by_text("FB-W101")).to_be_visible()
    page.get_by_role("row").filter(has_text="FB-W101").get_by_role("link", name="Rell Okafor").click()
    held = page.get_by_role("region", name="Certificate FB-W101")
    held.get_by_role("button", name="Confirm the work").click()
    dialog = page.get_by_role("dialog", name="Confirm the work")
    expect(dialog.get_by_text("rests on 5 welds")).to_be_visible()
    dialog.get_by_label("your password, again").fill(PASSWORD)
    dialog.get_by_role("button", name="Sign", exact=True).click()
    expect(held).to_contain_text("Confirmed")
    assert Statement.objects.get(certificate__number="FB-W101").document().works

    # Who is named for a joint is answered before the arc, and who may weld it stands in a list.
    monkeypatch.undo()
    page.context.clear_cookies()
    page = enter("Rell Okafor")
    page.goto(f"{bridge.url}/production/joint?job=FB-27&mark=DB20")
    named = page.get_by_role("status", name="Qualification of those who are named")
    page.get_by_role("textbox", name="Welders").fill("Danek Ruiz, Rell Okafor")
    expect(named).to_contain_text("Danek Ruiz is not qualified for this weld.")
    expect(named).to_contain_text("Rell Okafor is qualified for this weld.")
    page.get_by_role("link", name="Who may weld it").click()
    expect(page.get_by_role("region", name="May weld it")).to_contain_text("Rell Okafor")
    expect(page.get_by_role("region", name="Not qualified for this")).to_contain_text("Danek Ruiz")
