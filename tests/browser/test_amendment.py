"""A signed record on the screen: frozen, amended, superseded, void; and a password that is one's own."""

import re

from apps.accounts.models import User
from apps.coupons.models import Coupon
from apps.demo.people import PASSWORD
from apps.qualification.models import QualificationRecord
from playwright.sync_api import expect

from tests.browser.test_qualification import sign


def test_a_signed_record_is_amended_and_the_amended_one_declared_void(enter, bridge):
    record = QualificationRecord.objects.get(coupon__job=bridge.job)
    page = enter()
    page.goto(f"{bridge.url}/coupons/{record.coupon_id}")
    expect(page.get_by_text("this log is shown as it was signed")).to_be_visible()
    for name in ("Open the log again", "Send a file", "Save pass 1"):
        expect(page.get_by_role("button", name=name)).to_have_count(0)
    expect(page.get_by_role("button", name=re.compile("^Correct pass"))).to_have_count(0)

    page.get_by_role("link", name="amend the record").click()
    expect(page.get_by_role("button", name="Sign as a witness")).to_have_count(0)  # signed it herself
    page.get_by_role("button", name="Amend the record").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("button", name="Begin the amendment")).to_be_disabled()
    dialog.get_by_label("What is wrong").fill("the gauge of T1 was out of date")
    dialog.get_by_role("button", name="Begin the amendment").click()
    expect(page.get_by_role("heading", name=f"{record.number}-R1")).to_be_visible()
    expect(page.get_by_text("Amendment of")).to_be_visible()
    sign(page, "Sign the record", "Sign it")
    expect(page.get_by_role("heading", name=re.compile("-R1 is signed"))).to_be_visible()

    page.get_by_role("link", name=record.number, exact=True).click()
    expect(page.get_by_role("heading", name=f"WPQR {record.number} is superseded")).to_be_visible()
    expect(page.get_by_role("button", name="Make the WPS")).to_have_count(0)
    page.get_by_role("link", name=f"{record.number}-R1").click()
    page.get_by_role("button", name="Void this record").click()
    page.get_by_label("Why").fill("the laboratory withdrew its results")
    page.get_by_label("your password, again").fill(PASSWORD)
    page.get_by_role("button", name="Sign it").click()
    expect(page.get_by_role("heading", name=re.compile("-R1 is void"))).to_be_visible()
    page.goto(f"{bridge.url}/coupons")
    expect(page.get_by_text("record is void")).to_be_visible()
    expect(page.get_by_text("record is superseded by its amendment")).to_be_visible()


def test_a_password_that_an_administrator_set_is_changed_before_signing(enter, bridge):
    record = QualificationRecord.objects.get(coupon__job=bridge.job)
    inspector = User.objects.get(username="demo-inspector")
    inspector.set_password("given-by-admin-1")
    inspector.save()
    page = enter("Tobiah Lind")
    page.goto(f"{bridge.url}/coupons/{record.coupon_id}/tests")
    expect(page.get_by_text("An administrator set your password")).to_be_visible()
    page.get_by_role("button", name="Sign as a witness").click()
    page.get_by_label("your password, again").fill("given-by-admin-1")
    page.get_by_role("button", name="Sign it").click()
    expect(page.get_by_text("a signature with it would prove nothing")).to_be_visible()
    page.get_by_role("button", name="Not now").click()
    page.get_by_role("button", name="change the password").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Present password").fill("given-by-admin-1")
    dialog.get_by_label("New password, at least").fill("heather-and-tin-4")
    dialog.get_by_label("New password, again").fill("heather-and-tin-4")
    dialog.get_by_role("button", name="Change it").click()
    expect(page.get_by_text("An administrator set your password")).to_have_count(0)
    page.get_by_role("button", name="Sign as a witness").click()
    page.get_by_label("your password, again").fill("heather-and-tin-4")
    page.get_by_role("button", name="Sign it").click()
    expect(page.get_by_text("welding and tests were witnessed").nth(1)).to_be_visible()


def test_a_damaged_coupon_is_named_in_its_list(enter, bridge):
    bad = Coupon.objects.filter(job=bridge.job, status="welding").first()
    Coupon.objects.filter(pk=bad.pk).update(piece={"product": "sculpture"})
    page = enter()
    page.goto(f"{bridge.url}/coupons")
    expect(page.get_by_role("alert")).to_contain_text("cannot be read")
    expect(page.get_by_role("link", name=bad.number, exact=True)).to_be_visible()
    expect(page.get_by_text("passes logged").first).to_be_visible()
