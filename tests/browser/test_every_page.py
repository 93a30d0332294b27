"""Every page: what its tab says, what the accessibility checker finds in both themes, and a narrow screen."""

from pathlib import Path

import pytest
from apps.coupons.models import Coupon
from apps.crew.models import CrewMember
from apps.procedures.models import Revision
from apps.recordings.models import Recording
from playwright.sync_api import expect

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
WIDEST = """() => [...document.querySelectorAll('#page *')]
    .filter((one) => one.getBoundingClientRect().right > 361 && !one.closest('.overflow-x-auto, .overflow-auto'))
    .slice(0, 4).map((one) => `${one.tagName} ${String(one.className).slice(0, 90)}`)"""
OVERLAPS = """() => {
    const boxes = [...document.querySelectorAll('header button, header a, nav[aria-label=Main] a, [aria-label=Stopwatch] > *')]
        .filter((one) => one.checkVisibility())
        .map((one) => [one.innerText, one.getBoundingClientRect()]).filter(([, box]) => box.width > 0)
    const meet = (a, b) => Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 1
    return boxes.flatMap(([name, box], at) => boxes.slice(at + 1).filter(([, other]) => meet(box, other)).map(([other]) => [name, other]))
}"""
RULES = "{runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations']}"
OF_A_THEME = "{runOnly: ['color-contrast', 'target-size'], resultTypes: ['violations']}"
"""What can differ between two themes of the same page."""
PARTS = 4
"""The pages are looked at in parts, so that no test runs much longer than the others."""


def pages(job):
    """Address and tab words of every page, from the demo's data."""
    draft = Revision.objects.get(procedure__number="FB-27-P07", letter="A").pk
    open_coupon = Coupon.objects.get(number="FB-27-C02").pk
    done = Coupon.objects.get(number="FB-27-C01").pk
    okafor = CrewMember.objects.get(name="Rell Okafor").pk
    recording = Recording.objects.order_by("pk").first().pk
    return [
        ("/", "Dashboard"),
        ("/joints", "Weld list · Joints"),
        ("/joints/coverage", "Coverage · Joints"),
        ("/joints/coupons", "Fewest coupons · Joints"),
        ("/joints/wps", "WPS · Joints"),
        ("/joints/totals", "Totals · Joints"),
        ("/production", "Weld log · Production"),
        ("/production/rates", "Reject rates · Production"),
        ("/production/documentation", "Documentation · Production"),
        ("/production/signatures", "Signatures · Production"),
        ("/production/joint?mark=DB20", "Production · DB20"),
        ("/crew", "Welders · Crew"),
        ("/crew/positions", "Positions · Crew"),
        ("/crew/joints", "Joint types · Crew"),
        ("/crew/due", "What runs out · Crew"),
        (f"/crew/who-may?revision={draft}", "Who may weld it · Crew"),
        (f"/crew/{okafor}", "Crew · Rell Okafor"),
        ("/people", "People and access"),
        ("/operations", "Operations"),
        ("/procedures", "Procedures"),
        ("/procedures/draft", "Draft from six answers"),
        (f"/procedures/{draft}", "FB-27-P07"),
        ("/coupons", "Coupons"),
        (f"/coupons/{open_coupon}", "Coupon FB-27-C02"),
        (f"/coupons/{done}", "Coupon FB-27-C01"),
        (f"/coupons/{done}/tests", "FB-27-Q01"),
        (f"/coupons/{done}/range", "Range of"),
        (f"/recordings/{recording}", "Recording"),
        ("/calculators", "Calculators"),
        ("/try", "Try a setting"),
        ("/faults", "Find a fault"),
        ("/training", "Training"),
        ("/library", "Metals · Library"),
        ("/library/fillers", "Fillers · Library"),
        ("/library/machines", "Machines · Library"),
        ("/library/charts", "Charts · Library"),
        ("/library/trials", "Trials · Library"),
        ("/book", "Code book"),
        ("/nowhere", "Nothing at this address"),
    ]


def faults(page, address, rules=RULES):
    page.evaluate(AXE.read_text())
    found = page.evaluate(f"axe.run(document, {rules})")["violations"]
    return [(address, one["id"], node["html"][:160]) for one in found for node in one["nodes"][:4]]


@pytest.mark.parametrize("part", range(PARTS))
def test_no_fault_of_access_on_any_page(enter, bridge, part):
    page = enter()
    found = []
    for address, words in pages(bridge.job)[part::PARTS]:
        page.goto(bridge.url + address)
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        page.wait_for_load_state("networkidle")
        title = page.title()
        assert words in title and title.endswith("Grounded Bead"), (address, title)
        found += faults(page, address)
        booth = page.get_by_role("button", name="Booth", exact=True)
        if booth.count():  # the other theme, dark and large
            booth.click()
            found += faults(page, f"{address}, booth", OF_A_THEME)
            page.get_by_role("button", name="Light", exact=True).click()
    assert not found, "\n".join(map(str, found))


def test_nothing_overlaps_or_is_cut_off_on_a_narrow_screen(enter, bridge):
    page = enter()
    page.set_viewport_size({"width": 360, "height": 780})
    wide, titles = [], []
    for address, _ in pages(bridge.job):
        page.goto(bridge.url + address)
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(100)
        titles.append(page.title())
        width = page.evaluate(
            "Math.max(...[document.documentElement, document.querySelector('#page')].map((one) => one.scrollWidth))"
        )
        if width > 360:
            wide.append((address, width, page.evaluate(WIDEST)))
        wide += [(address, *pair) for pair in page.evaluate(OVERLAPS)]
    assert not wide, "\n".join(map(str, wide))
    assert len(set(titles)) == len(titles)
