"""A tablet without a network: the program opens, what is kept says how old it is, entries wait for their person."""

import re

import pytest
from apps.coupons.models import Coupon, PassLog
from apps.production.models import Weld
from apps.production.queries import joints_to_log
from playwright.sync_api import expect

from tests.browser.test_main_path import fill

BEFORE = 2
"""Passes that the demo's third coupon has."""


def passes(coupon):
    return PassLog.objects.filter(coupon=coupon).count()


@pytest.fixture
def coupon(bridge):
    return Coupon.objects.get(number="FB-27-C03")


@pytest.fixture
def tablet(enter, context):
    """The welder's device, with the job taken along and the network gone."""
    page = enter("Rell Okafor")
    page.get_by_role("button", name=re.compile("^Rell Okafor")).click()
    page.get_by_role("menuitem", name="Work without a network").click()
    page.get_by_role("button", name="Turn it on on this device").click()
    page.get_by_role("button", name="Take job FB-27 along").click()
    expect(
        page.get_by_text(re.compile(r"was taken along at .*2 coupons being welded, 1 sheet"))
    ).to_be_visible()
    page.evaluate("navigator.serviceWorker.ready")
    page.close()
    context.set_offline(True)
    yield context.new_page()
    context.set_offline(False)


def save_pass(page):
    for name, value in (("Length", "300"), ("Arc time, typed", "60"), ("Current", "205"), ("Voltage", "26")):
        fill(page, name, value)
    page.get_by_role("button", name="Save pass 3").click()
    expect(page.get_by_text("1 entry waits on this device")).to_be_visible()


def test_a_pass_saved_without_a_network_is_logged_once_from_another_page(bridge, tablet, context, coupon):
    tablet.goto(f"{bridge.url}/coupons/{coupon.pk}")
    expect(tablet.get_by_role("heading", name="Coupon FB-27-C03")).to_be_visible()
    expect(tablet.get_by_text("This page is as it was read at")).to_be_visible()
    save_pass(tablet)
    # The program is opened anew; still there is no network.
    tablet.goto(f"{bridge.url}/coupons")
    expect(tablet.get_by_role("heading", name="Coupons")).to_be_visible()
    expect(tablet.get_by_text("1 entry waits on this device")).to_be_visible()
    assert passes(coupon) == BEFORE
    context.set_offline(False)
    expect(tablet.get_by_text("1 entry waits on this device")).to_be_hidden()
    row = PassLog.objects.get(coupon=coupon, number=3)
    assert (row.logged_name, passes(coupon)) == ("Rell Okafor", BEFORE + 1)


def test_what_the_welder_saved_is_not_sent_under_the_name_of_whoever_signs_in_next(
    bridge, tablet, context, coupon
):
    tablet.goto(f"{bridge.url}/coupons/{coupon.pk}")
    save_pass(tablet)
    tablet.get_by_role("button", name=re.compile("^Rell Okafor")).click()
    tablet.get_by_role("menuitem", name="Sign out").click()
    expect(tablet.get_by_role("button", name="Sign in")).to_be_visible()
    tablet.reload()
    # What was read was the welder's: it is forgotten, and without an answer nobody is signed in.
    expect(tablet.get_by_text("The server does not answer")).to_be_visible()
    assert "sheets" not in tablet.evaluate("caches.keys()")
    context.set_offline(False)
    tablet.reload()
    tablet.get_by_role("button", name="Imra Vance").click()
    expect(
        tablet.get_by_text(re.compile("until its person signs in on this device: Rell Okafor"))
    ).to_be_visible()
    tablet.goto(f"{bridge.url}/coupons/{coupon.pk}")
    expect(tablet.get_by_text("it is sent when Rell Okafor signs in")).to_be_visible()
    assert passes(coupon) == BEFORE
    tablet.get_by_role("button", name=re.compile("^Imra Vance")).click()
    tablet.get_by_role("menuitem", name="Sign out").click()
    tablet.get_by_role("button", name="Rell Okafor").click()
    expect(tablet.locator("[data-logged='3']")).to_be_visible()
    expect(tablet.get_by_text(re.compile("entry waits"))).to_be_hidden()
    assert PassLog.objects.get(coupon=coupon, number=3).logged_name == "Rell Okafor"


def test_a_weld_and_a_sheet_at_the_bench(bridge, tablet, context):
    welded = set(Weld.objects.values_list("mark", flat=True))
    listed = (one.row.cells["mark"] for one in joints_to_log(bridge.job) if one.assigned)
    mark = next(one for one in listed if one not in welded)
    tablet.goto(f"{bridge.url}/production/joint?job=FB-27&mark={mark}")
    expect(tablet.get_by_role("heading", name=mark, level=1)).to_be_visible()
    before = Weld.objects.count()
    tablet.get_by_role("button", name="Log this weld").click()
    expect(tablet.get_by_text(re.compile("saved on this device at .*, not logged yet"))).to_be_visible()
    assert Weld.objects.count() == before
    sheet = bridge.job.procedures.get(number="FB-27-P02").revisions.get(stage="released")
    kind = tablet.evaluate(
        "async (id) => (await (await fetch(`/api/revisions/${id}/print`)).blob()).type", sheet.pk
    )
    assert kind == "application/pdf"
    context.set_offline(False)
    expect(tablet.get_by_text("not logged yet")).to_be_hidden()
    made = Weld.objects.latest("id")
    assert (Weld.objects.count(), made.welders, made.entered_name) == (
        before + 1,
        ["Rell Okafor"],
        "Rell Okafor",
    )
