"""The real thing: the built front end in Chromium, Django and PostgreSQL behind it, the demo's data."""

import os
import re
import time
from collections.abc import Callable
from contextlib import suppress
from functools import cache
from itertools import count
from pathlib import Path
from types import SimpleNamespace
from urllib.error import HTTPError
from urllib.request import urlopen

import pytest
from django.db import connection
from playwright.sync_api import BrowserContext, Page, expect

from tests.browser.kept_demo import demo
from tools.chromium import CONTEXT, LAUNCH

PATIENCE_MS = 45_000
"""How long a page may take: a busy machine is no fault of the page, and speed is measured by the bench."""
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    return {**browser_type_launch_args, **LAUNCH}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, **CONTEXT}


class Watch:
    """What went wrong behind the page: scripts that broke, answers of 500, requests to other hosts."""

    def __init__(self, address: str) -> None:
        self.address = address
        self.seen: list[str] = []

    def follow(self, page: Page) -> None:
        page.on("pageerror", lambda error: self.seen.append(f"script: {error}"))
        page.on("response", lambda answer: self._answer(answer.status, answer.url))
        page.on("request", lambda request: self._request(request.url))

    def _answer(self, status: int, url: str) -> None:
        if status == 500:
            self.seen.append(f"500: {url}")

    def _request(self, url: str) -> None:
        if not url.startswith((self.address, "data:", "blob:")):
            self.seen.append(f"outside: {url}")


@cache
def _warm(address: str) -> None:
    """Ask for the first answers, for which the server reads its modules and tables: that may take long."""
    for path in ("/", "/api/session"):
        with suppress(HTTPError), urlopen(address + path, timeout=180) as answer:
            answer.read()


@pytest.fixture
def bridge(live_server, context):
    """The footbridge job, ready to be opened by anyone; nothing may break behind the pages."""
    job = demo()
    _warm(live_server.url)
    context.set_default_timeout(PATIENCE_MS)
    watch = Watch(live_server.url)
    context.on("page", watch.follow)
    keep_counts = _measured(context)
    yield SimpleNamespace(url=live_server.url, job=job)
    for page in context.pages:
        keep_counts(page)
        page.close()
    _until_idle()
    assert watch.seen == []


_NUMBERS = count()


def _measured(context: BrowserContext) -> Callable[[Page], None]:
    """Where ``./bead test coverage`` has built the screen: keep what ran of it when a page is left."""
    if "BEAD_MEASURED_DIST" not in os.environ:
        return lambda page: None
    folder = Path(os.environ["BEAD_MEASURED_DIST"]).parent / "pages"
    folder.mkdir(exist_ok=True)

    def keep(text: str) -> None:
        if text:
            (folder / f"{next(_NUMBERS)}.json").write_text(text)

    def leave(page: Page) -> None:
        keep(page.evaluate("window.__coverage__ ? JSON.stringify(window.__coverage__) : ''"))

    def follow(page: Page) -> None:
        """A page that is loaded anew forgets its counts."""
        for name in ("goto", "reload"):
            go = getattr(page, name)
            setattr(page, name, lambda *said, go=go, **more: (leave(page), go(*said, **more))[1])

    context.on("page", follow)
    return leave


_BUSY = """
    select count(*) from pg_stat_activity
    where datname = current_database() and pid <> pg_backend_pid()
      and (state = 'active' or state like 'idle in transaction%')
"""


def _until_idle() -> None:
    """Wait for what pages sent last: the tables are emptied next, which a save on its way would block."""
    quiet = 0
    for _ in range(200):
        with connection.cursor() as cursor:
            cursor.execute(_BUSY)
            quiet = 0 if cursor.fetchone()[0] else quiet + 1
        if quiet == 3:
            return
        time.sleep(0.05)


@pytest.fixture
def enter(bridge, context):
    """Sign in as one of the demo's people on a page of its own."""

    def sign_in(name: str = "Imra Vance") -> Page:
        page = context.new_page()
        page.goto(bridge.url)
        desk = page.get_by_role("heading", name="Dashboard")
        offer = page.get_by_role("heading", name="Demo: sign in as")
        expect(desk.or_(offer)).to_be_visible()
        if offer.is_visible():  # a second page is signed in already
            page.get_by_role("button", name=name).click()
        expect(desk).to_be_visible()
        return page

    return sign_in


def open_from(page: Page, list_name: str, number: str) -> None:
    """Open a procedure or a coupon from its list."""
    page.get_by_role("navigation").get_by_role("link", name=list_name).click()
    page.get_by_role("link", name=number, exact=False).first.click()
    expect(page.get_by_role("heading", name=re.compile(number))).to_be_visible()
