"""A server that is new: the administrator invites, and whoever is invited sets a password and begins."""

from apps.accounts.models import Role, User
from apps.jobs.models import Job
from playwright.sync_api import expect

from tests.browser.test_every_page import faults

FIRST, OWN = "given-out-by-hand 1", "nine quiet kettles 4"


def sign_in(page, url, username, password):
    page.goto(url)
    page.get_by_label("Name").fill(username)
    page.get_by_label("Password").fill(password)
    page.get_by_role("button", name="Sign in", exact=True).click()
    expect(page.get_by_role("heading", name="Dashboard")).to_be_visible()


def test_from_an_empty_server_to_the_first_job(live_server, context, db):
    User.objects.create_user(
        "root-of-it", password=FIRST, role=Role.ADMINISTRATOR, first_name="Ada", last_name="Min"
    )
    page = context.new_page()
    sign_in(page, live_server.url, "root-of-it", FIRST)
    steps = page.get_by_role("region", name="Nothing is here yet")
    steps.get_by_role("link", name="Invite the people").click()
    page.get_by_role("button", name="Invite a person").click()
    dialog = page.get_by_role("dialog", name="Invite a person")
    dialog.get_by_label("Full name, as signatures show it").fill("Odile Ferrant")
    dialog.get_by_label("Name to sign in with").fill("odile ferrant")
    dialog.get_by_label("your password, again").fill(FIRST)
    dialog.get_by_role("button", name="Make the invitation").click()
    # A password that was given out changes nobody's access: the own one comes first.
    expect(dialog).to_contain_text("Change it first")
    dialog.get_by_role("button", name="Not now").click()
    page.get_by_role("button", name="Ada Min · administrator").click()
    page.get_by_role("menuitem", name="Change the password").click()
    change = page.get_by_role("dialog", name="Change your password")
    change.get_by_label("Present password").fill(FIRST)
    change.get_by_label("New password, at least 10 characters").fill(OWN)
    change.get_by_label("New password, again").fill(OWN)
    change.get_by_role("button", name="Change it").click()
    expect(change).to_be_hidden()

    page.get_by_role("button", name="Invite a person").click()
    dialog.get_by_label("Full name, as signatures show it").fill("Odile Ferrant")
    dialog.get_by_label("Name to sign in with").fill("odile ferrant")
    dialog.get_by_label("your password, again").fill(OWN)
    dialog.get_by_role("button", name="Make the invitation").click()
    expect(dialog.get_by_text("Letters, digits").first).to_be_visible()
    expect(dialog.get_by_label("Full name, as signatures show it")).to_have_value("Odile Ferrant")
    dialog.get_by_label("Name to sign in with").fill("odile")
    dialog.get_by_role("button", name="Make the invitation").click()
    shown = page.get_by_role("dialog", name="Link for Odile Ferrant")
    link = shown.get_by_label("Link to set the password").input_value()
    shown.get_by_role("button", name="Done").click()
    expect(page.get_by_role("row").filter(has_text="Odile Ferrant")).to_contain_text("no password set yet")
    assert not faults(page, "/people")

    other = context.browser.new_context(locale="en").new_page()
    other.goto(link)
    expect(other.get_by_text("Odile Ferrant, choose the password")).to_be_visible()
    assert not faults(other, "/welcome")
    other.get_by_label("Password, at least 10 characters").fill("odile")
    other.get_by_label("Password, again").fill("odile")
    other.get_by_role("button", name="Set the password").click()
    expect(other.get_by_role("alert").first).to_be_visible()
    other.get_by_label("Password, at least 10 characters").fill(OWN + " too")
    other.get_by_label("Password, again").fill(OWN + " too")
    other.get_by_role("button", name="Set the password").click()
    expect(other.get_by_text("Your password is set.")).to_be_visible()
    sign_in(other, live_server.url, "odile", OWN + " too")
    other.get_by_role("region", name="Nothing is here yet").get_by_role(
        "button", name="Add the first job"
    ).click()
    job = other.get_by_role("dialog", name="Add a job")
    job.get_by_label("Number").fill("FB-1")
    job.get_by_label("Title").fill("Handrail")
    job.get_by_role("button", name="Add it").click()
    expect(other.get_by_role("button", name="Job FB-1 Handrail")).to_be_visible()
    other.goto(f"{live_server.url}/people")
    expect(other.get_by_text("An administrator manages people and access.")).to_be_visible()

    # Whoever is disabled is out with the next click.
    page.get_by_role("button", name="Change Odile Ferrant").click()
    dialog = page.get_by_role("dialog", name="Change Odile Ferrant")
    dialog.get_by_label("May sign in").uncheck()
    dialog.get_by_label("your password, again").fill(OWN)
    dialog.get_by_role("button", name="Save").click()
    expect(page.get_by_role("row").filter(has_text="Odile Ferrant")).to_contain_text("disabled")
    other.goto(live_server.url)
    expect(other.get_by_role("button", name="Sign in", exact=True)).to_be_visible()
    other.context.close()


def test_somebody_from_outside_sees_the_job_that_was_named(live_server, context, db):
    for username, role, first in (("ada", Role.ADMINISTRATOR, "Ada"), ("guest", Role.EXAMINER, "Gil")):
        user = User(username=username, role=role, first_name=first, last_name="Min")
        user.set_own_password(OWN)
        user.save()
    for number in ("A-1", "B-2"):
        Job.objects.create(number=number, title="Weir")
    page = context.new_page()
    sign_in(page, live_server.url, "ada", OWN)
    page.goto(f"{live_server.url}/people")
    page.get_by_role("button", name="Change Gil Min").click()
    dialog = page.get_by_role("dialog", name="Change Gil Min")
    dialog.get_by_label("only these jobs").check()
    dialog.get_by_label("your password, again").fill(OWN)
    dialog.get_by_role("button", name="Save").click()
    expect(dialog.get_by_role("alert").first).to_have_text("Name at least one job.")
    dialog.get_by_label("B-2 Weir").check()
    assert not faults(page, "/people")
    dialog.get_by_role("button", name="Save").click()
    expect(page.get_by_role("row").filter(has_text="Gil Min")).to_contain_text("sees only B-2")

    guest = context.browser.new_context(locale="en").new_page()
    sign_in(guest, live_server.url, "guest", OWN)
    expect(guest.get_by_role("button", name="Job B-2 Weir")).to_be_visible()
    expect(guest.get_by_role("navigation").get_by_role("link", name="Crew")).to_have_count(0)
    guest.get_by_role("button", name="Job B-2 Weir").click()
    expect(guest.get_by_text("A-1 Weir")).to_have_count(0)
    guest.goto(f"{live_server.url}/crew")
    expect(guest.get_by_text("You see only the jobs that you were invited to")).to_be_visible()

    # A second place, signed out from the first.
    tablet = context.browser.new_context(locale="en").new_page()
    sign_in(tablet, live_server.url, "guest", OWN)
    guest.get_by_role("button", name="Gil Min · examiner").click()
    guest.get_by_role("menuitem", name="Where you are signed in").click()
    own = guest.get_by_role("dialog", name="Where you are signed in")
    own.get_by_role("button", name="Sign out").click()
    expect(own.get_by_text("You are signed in nowhere else.")).to_be_visible()
    assert not faults(guest, "sessions")
    tablet.goto(live_server.url)
    expect(tablet.get_by_role("button", name="Sign in", exact=True)).to_be_visible()
    for one in (guest, tablet):
        one.context.close()
