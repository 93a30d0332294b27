"""``rules``: what is checked, by id or by a word of what is asked."""

from __future__ import annotations

import argparse
from typing import Any

from welding.cli.parsing import Calls
from welding.glossary.rules import all_rules


def add(calls: Calls) -> None:
    """Add the call."""
    rules = calls.add_parser("rules", help="what is checked: every rule, or those with a word")
    rules.add_argument("word", nargs="?", default="", help="part of an id or of what a rule asks")
    rules.set_defaults(call=_rules)


def _rules(options: argparse.Namespace) -> list[dict[str, Any]]:
    word = options.word.casefold()
    return [
        {
            "rule": rule.id,
            "asks": rule.asks,
            "answers": [{"verdict": verdict, "obligation": to} for verdict, to in sorted(rule.answers)],
        }
        for rule in all_rules().values()
        if word in rule.id.casefold() or word in rule.asks.casefold()
    ]
