"""What is noted over a whole run of tests/welding, across the workers of pytest-xdist."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

CORE = Path(__file__).parent / "welding"
state: dict[str, bool] = {"whole": False}


def pytest_collection_finish(session: pytest.Session) -> None:
    """Whether all of tests/welding is run, and not a part of it."""
    chosen = {item.path for item in session.items}
    part = session.config.getoption("keyword") or session.config.getoption("markexpr")
    named = any("::" in word for word in session.config.args)
    state["whole"] = not part and not named and chosen >= set(CORE.rglob("test_*.py"))


class Noted:
    """A set of keys, gathered from every worker.

    Attributes:
        noted: What was noted.
    """

    def __init__(self, name: str) -> None:
        self.name = name
        self.noted: set[tuple[str, ...]] = set()

    def take_over(self, node: Any) -> None:
        """Take over what a worker noted."""
        output = getattr(node, "workeroutput", {}).get(self.name)
        if output:
            self.noted.update(map(tuple, output["noted"]))
            state["whole"] = state["whole"] or output["whole"]

    def finish(self, session: pytest.Session, exitstatus: int, lacking: Callable[[], list[str]]) -> None:
        """Hand over at a worker's end; fail at the end of a whole run where something is lacking."""
        output = getattr(session.config, "workeroutput", None)
        if output is not None:
            output[self.name] = {"noted": sorted(self.noted), "whole": state["whole"]}
        elif state["whole"] and exitstatus == 0 and lacking():
            session.exitstatus = pytest.ExitCode.TESTS_FAILED

    def tell(self, terminalreporter: Any, title: str, lacking: Callable[[], list[str]]) -> None:
        """Name what is lacking."""
        if state["whole"] and (found := lacking()):
            terminalreporter.section(title)
            for line in found:
                terminalreporter.line(line)
