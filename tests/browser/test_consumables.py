"""The gross errors of a set-up: seen while one drafts, named, mended, gone. And the calculators."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import open_from
from tests.browser.test_main_path import choose, fill, saved
from welding.metals.catalogue import all_metals, search


def test_wrong_polarity_is_named_and_goes_once_mended(enter):
    page = enter()
    page.get_by_role("link", name="Procedures").click()
    page.get_by_role("button", name="Draft a procedure").click()
    page.get_by_role("textbox", name="Title").fill("Bracket fillet")
    page.get_by_role("button", name="Draft it").click()
    choose(page, "Code", "AWS D1.1")
    choose(page, "Joint", "T joint")
    for metal in ("Metal 1", "Metal 2"):
        fill(page, f"{metal} thickness", "10 mm")
    fill(page, "Leg", "8")
    choose(page, "Position", "2F")
    page.get_by_role("button", name="Add the root pass").click()
    choose(page, "Process", "136")
    filler = page.get_by_label("Filler designation")
    filler.fill("E71T1-C")  # the hyphen in the wrong place
    page.get_by_role("option", name=re.compile("^E71T-1C ")).click()
    expect(filler).to_have_value("E71T-1C")
    expect(page.get_by_text("flux-cored wire · DCEP · CO2 · all positions · 490 MPa")).to_be_visible()
    fill(page, "Shielding gas", "CO2")
    choose(page, "Polarity", "DCEN")
    checks = page.get_by_role("region", name="Checks")
    wrong = checks.get_by_role("button", name="Wrong polarity, pass 1")
    expect(wrong).to_be_visible()
    expect(checks).to_contain_text("E71T-1C runs on DCEP; DCEN is stated.")
    expect(checks).to_contain_text("Set DCEP.")
    choose(page, "Polarity", "DCEP")
    expect(wrong).to_have_count(0)
    fill(page, "Shielding gas", "C25")
    expect(checks).to_contain_text("Gas is not the class's, pass 1")
    fill(page, "Shielding gas", "CO2")
    expect(checks).not_to_contain_text("Gas is not the class's")
    saved(page)


def test_the_calculators(enter):
    page = enter()
    page.keyboard.press("g")
    page.keyboard.press("a")
    filler = page.get_by_role("region", name="Filler designation")
    filler.get_by_role("textbox").fill("E70S-6")
    expect(filler).to_contain_text("solid wire begins with ER")
    filler.get_by_role("button", name="ER70S-6").click()
    expect(filler).to_contain_text("AWS A5.18")
    gas = page.get_by_role("region", name="Shielding gas")
    gas.get_by_role("textbox").fill("98/2")
    gas.get_by_role("button", name="Ar+2O2").click()
    expect(gas).to_contain_text("M13-ArO-2")
    metal = page.get_by_role("region", name="Carbon equivalents")
    metal.get_by_label("C in %", exact=True).fill("0,16")
    metal.get_by_label("Mn in %", exact=True).fill("1.45")
    expect(metal).to_contain_text("0.402")  # .16 + 1.45 / 6
    metal.get_by_label("Mn in %", exact=True).fill("lots")
    expect(metal.get_by_role("alert")).to_contain_text("Mn: a number in % is needed")
    reader = page.get_by_role("region", name="Unit reader")
    reader.get_by_role("textbox").fill("3/32")
    expect(reader).to_contain_text("2.38125 mm")
    reader.get_by_role("textbox").fill("25 kg")
    expect(reader.get_by_role("alert")).to_contain_text("kg measures mass")


def test_findings_of_several_passes_are_said_once(enter):
    page = enter()
    open_from(page, "Procedures", "FB-27-P06")
    page.locator("[data-pass='2']").click()
    page.get_by_label("Filler designation").fill("E71T-8")
    checks = page.get_by_role("region", name="Checks")
    expect(
        checks.get_by_role("button", name="Filler is of another process, passes 2, 3 and 4")
    ).to_be_visible()


def test_a_metal_is_picked_by_what_people_say(enter):
    page = enter()
    open_from(page, "Procedures", "FB-27-P05")
    page.get_by_label("Metal 1 designation").fill("304L")
    page.get_by_role("option", name="304L").first.click()
    expect(page.get_by_label("Metal 1 designation")).to_have_value("304L")
    page.get_by_label("Filler designation").fill("ER70S-6")
    checks = page.get_by_role("region", name="Checks")
    expect(checks.get_by_role("button", name="Filler does not suit the metal, pass 1")).to_be_visible()
    choose(page, "Metal 1 magnet", "magnet: yes")
    expect(checks.get_by_role("button", name="Magnet contradicts metal 1")).to_be_visible()
    choose(page, "Metal 1 magnet", "magnet: no")
    expect(checks).not_to_contain_text("Magnet contradicts")
    page.get_by_label("Filler designation").fill("ER308L")
    expect(checks).not_to_contain_text("Filler does not suit")
    saved(page)
    page.reload()
    expect(page.get_by_label("Metal 1 designation")).to_have_value("304L")


def test_the_library(enter):
    page = enter("Sunniva Marsh")
    page.get_by_role("link", name="Library").click()
    expect(page.get_by_role("status")).to_contain_text(f"{len(all_metals()) + 1} base metals")
    page.get_by_label("Search the metals").fill("duplex")
    expect(page.get_by_role("status")).to_contain_text(f"{len(search('duplex', 1000))} base metals")
    page.get_by_role("button", name="1.4462").click()
    expect(page.get_by_text("up to 75 mm: 460 MPa")).to_be_visible()
    page.get_by_label("Search the metals").fill("unobtainium")
    expect(page.get_by_text("No base metal by that name.")).to_be_visible()
