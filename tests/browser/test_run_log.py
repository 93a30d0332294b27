"""The run log at the booth: a whole coupon through a dead network and a restart, touch, keys, recordings."""

import re
import threading
from pathlib import Path

import pytest
from apps.coupons.models import PassLog
from apps.coupons.services.start_coupon import start_coupon
from apps.demo.management.commands.prepare import load_demo
from apps.demo.people import RECORDER
from apps.procedures.models import Revision
from apps.procedures.services.create_procedure import create_procedure
from apps.recordings.models import Recording
from django.core.servers.basehttp import ThreadedWSGIServer
from django.test.testcases import LiveServerThread
from playwright.sync_api import expect
from pytest_django.live_server_helper import LiveServer

from recorder.client import Gateway
from recorder.waveforms import Setting
from recorder.welding_day import COLUMNS, Plan, Trouble, samples, text_of
from tests.browser.conftest import PATIENCE_MS, open_from
from tests.browser.stopwatch import held
from tests.browser.test_main_path import fill
from welding.documents.codec import PROCEDURE

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


class Again(ThreadedWSGIServer):
    """Takes its port again at once, as the real server does."""

    def __init__(self, *arguments, **options):
        super().__init__(*arguments, **{**options, "allow_reuse_address": True})


@pytest.fixture
def booth(transactional_db, monkeypatch):
    """A server that can be stopped and started again on its port, and a coupon of six passes."""
    monkeypatch.setattr(LiveServerThread, "server_class", Again)
    job = load_demo()
    plain = PROCEDURE.plain(PROCEDURE.take(Revision.objects.get(procedure__number="FB-27-P03").document))
    engineer = Revision.objects.get(procedure__number="FB-27-P03").saved_by
    plain |= {"number": "FB-27-P20", "title": "Six passes", "passes": plain["passes"][:6]}
    revision = create_procedure(engineer, job, PROCEDURE.take(plain))
    coupon = start_coupon(engineer, revision, "Rell Okafor")
    servers = [LiveServer("localhost:0")]
    address = servers[0].url
    port = address.rsplit(":", 1)[1]

    def stop():
        servers.pop().stop()

    def start():
        servers.append(LiveServer(f"localhost:{port}"))

    yield address, coupon, stop, start
    for one in servers:
        one.stop()


def sign_in(page, address, name="Rell Okafor"):
    page.goto(address)
    desk = page.get_by_role("heading", name="Dashboard")
    offer = page.get_by_role("heading", name="Demo: sign in as")
    expect(desk.or_(offer)).to_be_visible()
    if offer.is_visible():
        page.get_by_role("button", name=name).click()
    expect(desk).to_be_visible()


def weld(page, seconds, amps):
    """One pass: the stopwatch by its key, the rest typed. The length carries over from the last pass."""
    expect(page.get_by_role("button", name="Start arc")).to_be_visible()
    page.get_by_role("heading", level=1).click()  # out of the fields, where t is a letter
    with held(page):
        page.keyboard.press("t")
        expect(page.get_by_role("button", name="Stop arc")).to_be_visible()
        page.clock.fast_forward(seconds * 1000)
        page.keyboard.press("t")
        expect(page.get_by_role("button", name="Arc again")).to_be_visible()
    if page.get_by_label("Length", exact=True).input_value() == "":
        fill(page, "Length", "300")
    fill(page, "Current", str(amps))
    fill(page, "Voltage", "24")
    fill(page, "Temperature before the pass", "120")


def test_a_whole_coupon_through_a_dead_network_a_restart_and_two_tabs(booth, context):
    address, coupon, stop, start = booth
    context.set_default_timeout(PATIENCE_MS)
    page = context.new_page()
    page.clock.install()
    sign_in(page, address)
    page.goto(f"{address}/coupons/{coupon.pk}")
    seconds = {1: 160, 2: 150, 3: 140, 4: 130, 5: 125, 6: 120}

    weld(page, seconds[1], 110)
    page.get_by_role("button", name="Save pass 1").click()
    expect(page.locator("[data-logged='1']")).to_be_visible()

    # The network dies: two passes are welded, reckoned on the device and kept.
    context.set_offline(True)
    for number, amps in ((2, 130), (3, 180)):
        weld(page, seconds[number], amps)
        page.get_by_role("button", name=f"Save pass {number}").click()
        expect(page.locator(f"[data-waiting='{number}']")).to_contain_text("judged when connected")
    assert PassLog.objects.filter(coupon=coupon).count() == 1
    context.set_offline(False)
    for number in (2, 3):
        expect(page.locator(f"[data-logged='{number}']")).to_be_visible()
    expect(page.locator("[data-waiting]")).to_have_count(0)

    # The server goes away while a pass is saved, the tab is closed, another one takes over.
    weld(page, seconds[4], 185)
    stop()
    page.get_by_role("button", name="Save pass 4").click()
    expect(page.locator("[data-waiting='4']")).to_be_visible()
    page.close()
    start()
    first = context.new_page()
    first.clock.install()
    second = context.new_page()
    for tab in (first, second):
        tab.goto(f"{address}/coupons/{coupon.pk}")
        expect(tab.locator("[data-logged='4']")).to_be_visible()

    # Two tabs on one coupon: each sees what the other logs.
    weld(first, seconds[5], 185)
    first.get_by_role("button", name="Save pass 5").click()
    expect(second.locator("[data-logged='5']")).to_be_visible()
    expect(second.get_by_role("button", name="Save pass 6")).to_be_visible()
    weld(first, seconds[6], 180)
    first.get_by_role("button", name="Save pass 6").click()
    for tab in (first, second):
        expect(tab.get_by_text("6 of 6 passes logged")).to_be_visible()

    rows = list(PassLog.objects.filter(coupon=coupon).order_by("number"))
    assert [row.number for row in rows] == [1, 2, 3, 4, 5, 6]
    assert [row.struck for row in rows] == [False] * 6
    for row in rows:
        assert row.time_s == pytest.approx(seconds[row.number], abs=0.1)
        assert (row.length_mm, row.voltage_mean_v, row.before_c) == (300, 24, 120)
    log = context.request.get(f"{address}/api/coupons/{coupon.pk}").json()["log"]["passes"]
    for row, result in zip(rows, log, strict=True):
        expected = 0.8 * 24 * row.current_mean_a * row.time_s / 300 / 1000
        assert result["heat_input_kj_mm"] == pytest.approx(expected)


def test_a_coupon_by_touch_on_a_tablet_with_no_serious_fault_of_access(booth, browser):
    address, coupon, _, _ = booth
    context = browser.new_context(viewport={"width": 820, "height": 1180}, has_touch=True, locale="en-US")
    context.set_default_timeout(PATIENCE_MS)
    page = context.new_page()
    sign_in(page, address, "Tobiah Lind")
    page.goto(f"{address}/coupons/{coupon.pk}")
    question = page.get_by_role("group", name=re.compile("polarity looked at"))
    question.get_by_role("button", name="yes").tap()
    expect(question.get_by_role("button", name="yes")).to_have_attribute("aria-pressed", "true")
    page.get_by_text("At the booth", exact=True).tap()
    watcher = page.get_by_label("Witness", exact=True)
    watcher.fill("T. Lind, Marsh Inspection")
    page.get_by_label("Batch or bottle").fill("W-1")
    page.get_by_label("Certificate", exact=True).fill("3.1")
    page.get_by_role("button", name="Add").first.tap()
    expect(page.get_by_text("(certificate 3.1)")).to_be_visible()
    page.get_by_role("button", name="Start arc").tap()
    page.get_by_role("button", name="Stop arc").tap()
    fill(page, "Arc time, typed", "160")
    for label, text in (("Length", "300"), ("Current", "110"), ("Voltage", "17.5")):
        fill(page, label, text)
    page.get_by_label("quenched in water before it").check()
    page.get_by_role("button", name="Save pass 1").tap()
    expect(page.locator("[data-logged='1']")).to_contain_text("flags")
    # A flag stays and can only be explained.
    page.get_by_role("button", name="Flags of pass 1").tap()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Explanation: Quenched before this pass").fill("Dipped by the helper")
    dialog.get_by_role("button", name="Explain").first.tap()
    expect(dialog).to_contain_text("Explained by Tobiah Lind")
    dialog.get_by_role("button", name="Close").tap()
    for target in page.locator("main button:visible, #page button:visible").all():
        box = target.bounding_box()
        name = target.inner_text()
        if (box and name in ("Start arc", "Arc again", "Void the last")) or name.startswith("Save pass"):
            assert box["height"] >= 48, name
    assert page.evaluate("document.documentElement.scrollWidth") <= 820
    page.evaluate(AXE.read_text())
    found = page.evaluate("axe.run(document, {runOnly: ['wcag2a', 'wcag2aa']})")["violations"]
    serious = [
        (one["id"], one["nodes"][0]["html"]) for one in found if one["impact"] in ("serious", "critical")
    ]
    assert serious == []
    context.close()
    piece = context_people(coupon)
    assert piece == [("welder", None), ("witness", "Marsh Inspection")]


def context_people(coupon):
    coupon.refresh_from_db()
    return sorted((one["role"], one.get("organisation")) for one in coupon.people)


def test_a_pass_by_keyboard_alone(booth, page):
    address, coupon, _, _ = booth
    sign_in(page, address)
    page.goto(f"{address}/coupons/{coupon.pk}")
    expect(page.get_by_role("button", name="Start arc")).to_be_visible()
    page.keyboard.press("t")
    expect(page.get_by_role("button", name="Stop arc")).to_be_visible()
    page.keyboard.press("t")
    for label, text in (
        ("Length", "12 in"),
        ("Arc time, typed", "160"),
        ("Current", "108-112"),
        ("Voltage", "17.5"),
        ("Temperature before the pass", "100"),
    ):
        tab_to(page, label)
        page.keyboard.type(text)
        page.keyboard.press("Enter")
    page.keyboard.press("Control+Enter")
    expect(page.locator("[data-logged='1']")).to_be_visible()
    row = PassLog.objects.get(coupon=coupon)
    assert (round(row.length_mm, 1), row.current_min_a, row.current_max_a) == (304.8, 108, 112)


def tab_to(page, label):
    for _ in range(80):
        if page.evaluate("document.activeElement?.getAttribute('aria-label')") == label:
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"Tab does not reach {label}")


def test_a_stream_is_seen_live_flagged_and_taken(enter, bridge):
    plan = Plan(
        Setting("pulsed", 26, 205),
        passes=1,
        arc_s=14,
        trouble=Trouble(dropout=(5.3, 0.6), stuck=(9.0, 2.5)),
    )
    chunks = [text_of(rows) for rows in samples(plan, 1000)]
    gateway = Gateway(bridge.url, RECORDER[1])
    gateway.open(COLUMNS, "FB-27-C03", "Booth 2, pass 3")
    for rows in chunks[:8]:
        gateway.put(rows)
    assert gateway.flush()
    page = enter("Rell Okafor")
    open_from(page, "Coupons", "FB-27-C03")
    page.get_by_role("link", name="Booth 2, pass 3").click()
    live = page.get_by_role("region", name="Live")
    expect(live).to_contain_text("burning")
    expect(live).to_contain_text("7,400 samples arrived")  # 8 s less the hole of 0.6 s
    rest = threading.Thread(target=lambda: [gateway.put(rows) for rows in chunks[8:]] and gateway.close())
    rest.start()
    rest.join()
    faults = page.get_by_role("region", name="Findings")
    expect(faults).to_contain_text("No samples for 0.601 s while the arc burned")
    expect(faults).to_contain_text("a stuck sensor")
    expect(page.get_by_role("img", name=re.compile("Current from"))).to_be_visible()
    parts = page.get_by_role("region", name="Passes found")
    expect(parts).to_contain_text("pulsed 120.0 Hz")
    fill(page, "Bead length of part 1", "300")
    page.get_by_role("button", name="Write pass 3 into the log").click()
    expect(page.get_by_text("Written, with the energy by integration.")).to_be_visible()
    row = PassLog.objects.get(coupon__number="FB-27-C03", number=3, struck=False)
    (found,) = Recording.objects.get(name="Booth 2, pass 3").analysis["passes"]
    assert row.energy_j == pytest.approx(found["measured"]["energy_j"], rel=1e-4)
    page.get_by_role("link", name="coupon FB-27-C03").click()
    expect(page.locator("[data-logged='3']")).to_be_visible()


def test_a_file_with_strange_columns_is_mapped_once(enter, bridge, tmp_path):
    plan = Plan(Setting("spray", 26, 210), passes=1, arc_s=10)
    file = tmp_path / "logger.txt"
    rows = b"".join(text_of(one) for one in samples(plan, 500))
    file.write_bytes(b"when;ch1;ch2;ch3;ch4\n" + rows.replace(b",", b";").replace(b".", b","))
    page = enter("Rell Okafor")
    open_from(page, "Coupons", "FB-27-C03")
    page.get_by_label("Recorder file").set_input_files(file)
    form = page.get_by_role("form", name="Columns")
    expect(form).to_be_visible()
    for channel, column in (("time", "when"), ("voltage", "ch1"), ("current", "ch2")):
        form.get_by_role("button", name=f"Column of {channel}").click()
        page.get_by_role("option", name=column, exact=True).click()
    form.get_by_role("button", name="Read it like this").click()
    expect(page.get_by_role("region", name="Passes found")).to_contain_text("10.0")
