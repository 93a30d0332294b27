"""The page's clock, held still: what the stopwatch counts must not depend on how busy the machine is."""

from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Page

AHEAD_S = 60
"""The clock can be held at a coming moment only; by then a slow machine has done so."""


@contextmanager
def held(page: Page) -> Iterator[None]:
    """Within, time passes only by ``page.clock.fast_forward``; the clock was installed before."""
    page.clock.pause_at(page.evaluate("Date.now()") / 1000 + AHEAD_S)
    try:
        yield
    finally:
        page.clock.resume()
