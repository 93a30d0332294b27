"""An exercise is answered by keyboard and scored; the page closed and opened shows the same one; who leads sees it."""

import re

from apps.training.models import AnswerGiven, Skill
from playwright.sync_api import expect

from welding.trainer.ladder import make


def test_an_exercise_done_and_scored(enter, bridge, browser):
    page = enter("Rell Okafor")
    page.goto(f"{bridge.url}/training")
    expect(page.get_by_role("heading", name="Training")).to_be_visible()
    expect(page.get_by_text("Nothing answered yet.")).to_be_visible()
    page.get_by_role("button", name="Tell the transfer by trace and sound").first.press("Enter")
    expect(page.get_by_role("heading", name="Which mode of metal transfer is this?")).to_be_visible()
    skill = Skill.objects.get(kind="arc")

    # Closed and opened again: the same exercise lies open.
    page.goto(f"{bridge.url}/training")
    expect(page.get_by_role("heading", name="Which mode of metal transfer is this?")).to_be_visible()
    page.get_by_role("button", name="Hear the arc").press("Enter")
    page.get_by_role("button", name="Sound in words").press("Enter")
    skill.refresh_from_db()
    solved = make(skill.kind, skill.stage, skill.open_seed)
    expect(page.get_by_text(solved.trace.sound.caption)).to_be_visible()

    # By keyboard alone: a wrong one chosen, then answered.
    wrong = next(one for one in solved.options if one.key not in solved.solution.keys)
    page.get_by_role("radio", name=wrong.words, exact=True).focus()
    page.keyboard.press("Space")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Not right.")).to_be_visible()
    expect(page.get_by_text(solved.solution.because[0])).to_be_visible()
    expect(page.get_by_text(re.compile("This kind comes again in 1 minute"))).to_be_visible()
    expect(page.get_by_text("0 % of 1 answers right")).to_be_visible()
    assert AnswerGiven.objects.get().score == 0

    page.keyboard.press("Enter")  # the next one has the focus
    expect(page.get_by_text("Not right.")).to_have_count(0)
    expect(page.get_by_role("button", name="Answer", exact=True)).to_be_disabled()

    # The engineer sees how he stands; he sees nobody.
    expect(page.get_by_role("heading", name="Who trains")).to_have_count(0)
    context = browser.new_context(locale="en-US")
    other = context.new_page()
    other.goto(bridge.url)
    other.get_by_role("button", name="Imra Vance").click()
    expect(other.get_by_role("heading", name="Dashboard")).to_be_visible()
    other.goto(f"{bridge.url}/training")
    expect(other.get_by_role("row", name=re.compile("Rell Okafor.*0 %"))).to_be_visible()
    context.close()
