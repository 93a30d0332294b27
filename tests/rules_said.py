"""After a whole run of tests/welding: every finding was of a known rule, and every rule was provoked.

Each finding that is made is held against the table of rules (``welding/glossary/tables/rules.toml``): its id
has to be there, with its verdict and its obligation. And a run of all of ``tests/welding`` fails while an
answer of the table, or a variable of a range, was never given. Part of the tests asks the first alone.
"""

from __future__ import annotations

from typing import Any

import pytest

from tests.whole_run import Noted
from welding.finding import Finding
from welding.glossary.rules import all_rules, rule_named
from welding.qualification.variables import PROOFS, VARIABLES
from welding.welders.variables import VARIABLES as WELDER_VARIABLES

said = Noted("rules_said")
_FREE = {"run_out_mm"}
"""Variables that no edition binds."""
_LEFT_OPEN = {"oscillation"}
"""Variables that are not recorded, so that they are left open wherever they are asked."""
_ANOTHER_PROCESS = {"supplemental_filler"}
"""Adding or leaving out metal powder is another process number, which is told first."""

_NEVER_COVERED = {"mechanization"}
"""A mechanized torch is never within the range of a welder."""


def _expected() -> set[tuple[str, str, str]]:
    found = {
        (rule.id, *answer) for rule in all_rules().values() if not rule.family for answer in rule.answers
    }
    for variable in VARIABLES.keys() - _FREE:
        verdicts = ["complies"] if variable in _ANOTHER_PROCESS else ["complies", "violates"]
        for verdict in ["undecided"] if variable in _LEFT_OPEN else verdicts:
            found.add((f"range.{variable}", verdict, "requirement"))
    for variable in WELDER_VARIABLES:
        verdicts = ["violates"] if variable in _NEVER_COVERED else ["complies", "violates"]
        found |= {(f"welder.{variable}", verdict, "requirement") for verdict in verdicts}
    return found


class NotInTheTable(AssertionError):
    """A finding of a rule, or with an answer, that the table of rules does not have."""


def pytest_configure() -> None:
    """Note every finding that is made."""
    made = Finding.__init__

    def note(self: Finding, *args: Any, **facts: Any) -> None:
        made(self, *args, **facts)
        key = (self.rule, self.verdict, self.obligation)
        if key in said.noted:
            return
        rule = rule_named(self.rule)
        family, _, variable = self.rule.partition(".")
        unknown = family == "range" and variable not in VARIABLES and variable not in PROOFS
        unknown |= family == "welder" and variable not in WELDER_VARIABLES
        if rule is None or unknown or key[1:] not in rule.answers:
            raise NotInTheTable(f"{key} is not in welding/glossary/tables/rules.toml")
        said.noted.add(key)

    Finding.__init__ = note  # type: ignore[method-assign]


def lacking() -> list[str]:
    """What no test provoked."""
    return [" ".join(one) for one in sorted(_expected() - said.noted)]


@pytest.hookimpl(optionalhook=True)
def pytest_testnodedown(node: Any) -> None:
    """Take over what a worker noted."""
    said.take_over(node)


@pytest.hookimpl(trylast=True)
def pytest_sessionfinish(session: pytest.Session, exitstatus: int) -> None:
    """Fail a run of the whole core that left an answer unprovoked."""
    said.finish(session, exitstatus, lacking)


def pytest_terminal_summary(terminalreporter: Any) -> None:
    """Name the answers."""
    said.tell(terminalreporter, "answers of rules that no test of the core provokes", lacking)
