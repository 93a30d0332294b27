"""The library and the set-up: machines that cannot, dials, balances, certificates, records in use."""

import re

import pytest
from playwright.sync_api import expect

from recorder.client import Gateway, Refused
from tests.browser.conftest import open_from
from tests.browser.test_main_path import choose, fill, saved


def test_a_machine_is_added_chosen_and_found_too_small(enter):
    page = enter()
    page.get_by_role("navigation").get_by_role("link", name="Library").click()
    page.get_by_role("link", name="Machines").click()
    page.get_by_role("button", name="Add a machine").click()
    form = page.get_by_label("Add a machine")
    form.get_by_role("button", name="Add the machine").click()  # no name yet
    expect(form).to_contain_text("Not saved.")
    form.get_by_label("Name of the machine").fill("bay 1 mag")  # stands already, whatever the case
    form.get_by_role("button", name="wire", exact=True).click()
    fill(form, "Current, wire", "30-160")
    fill(form, "Duty share, wire", "60 %")
    fill(form, "Duty current, wire", "160")
    expect(form).to_contain_text("60 % at 160 A")
    for n, (setting, length) in enumerate((("2", "8 in"), ("8", "35,5 in")), 1):
        fill(form, f"Dial setting {n}", setting)
        fill(form, f"Wire run out {n}", length)
    expect(form).to_contain_text("Straight dial")
    form.get_by_role("button", name="Add the machine").click()
    expect(form).to_contain_text("There is a machine bay 1 mag already.")
    expect(form.get_by_label("Current, wire", exact=True)).to_have_value("30–160")  # nothing lost
    form.get_by_label("Name of the machine").fill("Bay 9 small")
    form.get_by_role("button", name="Add the machine").click()
    expect(page.get_by_role("button", name="Bay 9 small")).to_be_visible()

    open_from(page, "Procedures", "FB-27-P07")
    choose(page, "Machine", "Bay 9 small")
    checks = page.get_by_role("region", name="Checks")
    expect(checks).to_contain_text("Bay 9 small delivers 30–160 A; 240–280 A is asked for.")
    choose(page, "Machine", "Bay 1 MAG")
    expect(checks).not_to_contain_text("Bay 9 small")
    checks.get_by_role("button", name="Show them").click()
    expect(checks).to_contain_text(re.compile(r"is dial \d\.\d to \d\.\d on Bay 1 MAG with 1.2 mm solid"))
    saved(page)
    page.get_by_role("navigation").get_by_role("link", name="Library").click()
    page.get_by_role("link", name="Machines").click()
    page.get_by_role("button", name="Bay 1 MAG").click()
    page.get_by_role("button", name="Correct or remove").click()
    form = page.get_by_label("Correct Bay 1 MAG")
    form.get_by_role("button", name="Remove", exact=True).click()
    form.get_by_role("button", name="Remove it").click()
    expect(form).to_contain_text(
        "Bay 1 MAG is used in FB-27-P02 A, FB-27-P02 B, FB-27-P07 A; it stays while they use it."
    )


def test_two_people_correct_one_machine(enter, context, bridge):
    page, other = enter(), enter()
    for one in (page, other):
        one.goto(f"{bridge.url}/library/machines")
        one.get_by_role("button", name="Bay 3 TIG").click()
        one.get_by_role("button", name="Correct or remove").click()
    for one, words in ((page, "first"), (other, "second")):
        one.get_by_label("Notes").fill(words)
        one.get_by_role("button", name="Save", exact=True).click()
    form = other.get_by_label("Correct Bay 3 TIG")
    expect(form).to_contain_text("saved Bay 3 TIG after you opened it. What you typed is kept.")
    expect(other.get_by_label("Notes")).to_have_value("second")
    form.get_by_role("button", name="Take theirs, drop mine").click()
    expect(other.get_by_label("Notes")).to_have_value("first")


def test_an_own_metal_is_added_and_picked(enter):
    page = enter()
    page.get_by_role("navigation").get_by_role("link", name="Library").click()
    page.get_by_role("button", name="Add a metal").click()
    form = page.get_by_label("Add a metal")
    form.get_by_label("Name of the metal").fill("S355J2")
    form.get_by_role("button", name="Add the metal").click()
    expect(form).to_contain_text("S355J2 (EN 10025-2) is in the catalogue by that name.")
    form.get_by_label("Name of the metal").fill("Lug casting 7")
    form.get_by_role("button", name="Condition").click()
    page.get_by_role("option", name="N", exact=True).click()
    fill(form, "Tensile strength, at least", "75 ksi")
    fill(form, "Up to, new step", "40")
    fill(form, "Yield, new step", "400")
    fill(form, "C, from and to", "0,22")
    form.get_by_role("button", name="Add the metal").click()
    page.get_by_label("Search the metals").fill("lug casting")
    expect(page.get_by_text("1 base metal", exact=True)).to_be_visible()
    expect(page.get_by_role("table", name="Metals")).to_contain_text("517")  # 75 ksi, not its 13 digits
    page.get_by_role("button", name="Lug casting 7").click()
    expect(page.get_by_text("up to 40 mm: 400 MPa")).to_be_visible()
    open_from(page, "Procedures", "FB-27-P08")
    page.get_by_label("Metal 1 designation").fill("lug cast")
    page.get_by_role("option", name="Lug casting 7").click()
    checks = page.get_by_role("region", name="Checks")
    checks.get_by_role("button", name="Show them").click()
    expect(checks).to_contain_text("Lug casting 7 (own record): group 1.3 of ISO/TR 15608")
    saved(page)


def test_a_certificate_with_commas_is_taken_and_judged(enter):
    page = enter()
    open_from(page, "Procedures", "FB-27-P08")
    page.get_by_role("button", name="Enter its certificate").first.click()
    form = page.get_by_label(re.compile("Certificate of metal 1"))
    form.get_by_label("Heat number").fill("H77")
    form.get_by_label("C in %").fill("0,31")
    form.get_by_label("Mn in %").fill("1,40")
    expect(form).to_contain_text("0.543")  # CE (IIW): 0.31 + 1.40 / 6
    form.get_by_label("Cr in %").fill("130")
    expect(form.get_by_role("alert").first).to_contain_text("more than 100 %")
    expect(form.get_by_role("button", name="Take it")).to_be_disabled()
    form.get_by_label("Cr in %").fill("0.1")
    form.get_by_role("button", name="Take it").click()
    expect(page.get_by_role("region", name="Checks")).to_contain_text("C 0.31 % above")
    expect(page.get_by_role("button", name="heat H77")).to_be_visible()
    saved(page)


def test_tig_has_its_own_fields_and_reads_them_as_typed(enter):
    page = enter()
    open_from(page, "Procedures", "FB-27-P09")
    set_up = page.get_by_label("Set-up of pass 1")
    expect(set_up.get_by_label("Drive rolls")).to_have_count(0)
    fill(set_up, "Cup number", "12 mm")
    expect(set_up.get_by_label("Cup number")).to_have_value("8")
    choose(page, "Balance dial", "% negative")
    fill(set_up, "AC balance", "75")
    expect(set_up).to_contain_text("75 % negative, 25 % cleaning")
    fill(set_up, "AC balance", "-5")
    expect(set_up.get_by_role("alert")).to_contain_text("0 to 100 % is taken")
    set_up.get_by_label("AC balance").press("Escape")
    fill(set_up, "AC frequency", "0 Hz")
    expect(set_up.get_by_role("alert")).to_contain_text("above 0")
    set_up.get_by_label("AC frequency").press("Escape")
    fill(set_up, "Tungsten diameter", "1.6")
    checks = page.get_by_role("region", name="Checks")
    expect(checks).to_contain_text("Tungsten is overloaded, pass 2")
    fill(set_up, "Tungsten diameter", "1/8")
    expect(checks).not_to_contain_text("Tungsten is overloaded")
    fill(set_up, "Pulse peak", "200")
    fill(set_up, "Pulse background", "10 %")
    expect(set_up.get_by_label("Pulse background")).to_have_value("20")
    choose(page, "Process", "135")
    expect(set_up.get_by_text("not for this process").first).to_be_visible()
    set_up.get_by_label("Drive rolls").wait_for()


def test_a_filler_is_picked_as_people_say_it(enter):
    page = enter()
    open_from(page, "Procedures", "FB-27-P07")
    page.get_by_label("Filler designation").fill(".045 flux-core")
    page.get_by_role("option", name=re.compile("^E71T-1M")).click()
    expect(page.get_by_label("Filler designation")).to_have_value("E71T-1M")
    expect(page.get_by_label("Filler diameter")).to_have_value("1.143")
    page.get_by_label("Filler designation").fill("tarn core")
    page.get_by_role("option", name=re.compile("^Tarn Core 46")).click()
    expect(page.get_by_text("product: Tarn Core 46")).to_be_visible()


def test_the_arc_side_of_the_calculators(enter, bridge):
    page = enter()
    page.goto(f"{bridge.url}/calculators")
    pulse = page.get_by_role("region", name="Pulse")
    pulse.get_by_label("Background current").fill("5 %")
    expect(pulse).to_contain_text("mean 33.5 A")  # common practice: 100 A, 30 %, 5 %
    pulse.get_by_label("Background current").fill("lots")
    expect(pulse.get_by_role("alert")).to_contain_text("12 A or 10 %")
    wave = page.get_by_role("region", name="AC wave")
    choose(page, "What the balance dial counts", "% negative")
    expect(wave).to_contain_text("30.0 % negative")
    dial = page.get_by_role("region", name="Wire run-out")
    for n, (setting, inches) in enumerate((("3", "22.5"), ("6", "45")), 1):
        fill(dial, f"Dial setting {n}", setting)
        fill(dial, f"Wire run out {n}", f"{inches} in")
    fill(dial, "Feed to find on the dial", "300 ipm")
    expect(dial).to_contain_text("set the dial to 4.0")  # 6 s times ten: 225 and 450 in/min
    cup = page.get_by_role("region", name="TIG cup")
    cup.get_by_role("textbox").fill("10")
    expect(cup).to_contain_text("bore 15.9 mm")


def test_others_look_and_do_not_change(enter, bridge):
    page = enter("Sunniva Marsh")
    page.goto(f"{bridge.url}/library/machines")
    page.get_by_role("button", name="Bay 1 MAG").click()
    expect(page.get_by_text("50 % at 420 A")).to_be_visible()
    expect(page.get_by_role("button", name="Add a machine")).to_have_count(0)
    expect(page.get_by_role("button", name="Correct or remove")).to_have_count(0)
    for tab, text in (
        ("gases", "M21-ArC-18"),
        ("tungsten", "orange in older AWS"),
        ("fillers", "Tarn Core 46"),
    ):
        page.goto(f"{bridge.url}/library/{tab}")
        if tab == "tungsten":
            page.get_by_role("button", name="WCe20").click()
        expect(page.get_by_text(text, exact=False).first).to_be_visible()


def test_a_recorder_gets_its_token_once_and_is_retired(enter, bridge):
    page = enter()
    page.goto(f"{bridge.url}/library/recorders")
    page.get_by_role("button", name="Add a recorder").click()
    page.get_by_label("Name of the recorder").fill("Booth 2 stand-in")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_role("alert")).to_contain_text("There is a recorder Booth 2 stand-in already.")
    page.get_by_label("Name of the recorder").fill("Booth 7")
    page.get_by_role("button", name="Add it").click()
    token = page.get_by_label("Token").inner_text()
    page.get_by_role("button", name="It is copied").click()
    gateway = Gateway(bridge.url, token)
    gateway.open(("time_s", "voltage_v", "current_a"), None, "first words")
    page.get_by_role("button", name="Retire Booth 7").click()
    expect(page.get_by_text("retired")).to_be_visible()
    with pytest.raises(Refused, match="401"):
        gateway.open(("time_s", "voltage_v", "current_a"), None, "again")
    assert token not in page.content()
