"""The core's command line: JSON on stdout; problems on stderr and exit code 2."""

from __future__ import annotations

import json
import sys
from importlib import import_module

from welding.cli.parsing import Parser
from welding.errors import DocumentError, WeldingError

COMMANDS = {
    "read": "quantities",
    "heat": "heat",
    "pulse": "heat",
    "recording": "recording",
    "cooling": "thermal",
    "preheat": "thermal",
    "decode": "consumables",
    "gas": "consumables",
    "metal": "metals",
    "equivalents": "metals",
    "evaluate": "documents",
    "propose": "documents",
    "schema": "documents",
    "plan": "qualification",
    "judge": "qualification",
    "range": "qualification",
    "covers": "qualification",
    "rules": "rules",
    "bead": "bead",
    "fault": "fault",
    "symptoms": "fault",
    "coupons": "weldlist",
    "welder": "welder",
    "welder-covers": "welder",
}
"""The module of each call: only the one that is asked for is loaded, and what it needs."""


def main(arguments: list[str]) -> int:
    """Run one call; return the exit code."""
    try:
        options = _parser(arguments).parse_args(arguments)
        print(json.dumps(options.call(options), ensure_ascii=False, indent=2, allow_nan=False))
    except DocumentError as error:
        for problem in error.problems:
            print(
                f"{problem.path or 'document'}: {problem.message}"
                + (f" ({problem.value})" if problem.value else ""),
                file=sys.stderr,
            )
        return 2
    except (WeldingError, OSError) as error:
        print(error, file=sys.stderr)
        return 2
    return 0


def _parser(arguments: list[str]) -> Parser:
    """The parser of the call that is made; of every call where none is made, as for help."""
    parser = Parser(prog="python -m welding", description=__doc__)
    calls = parser.add_subparsers(dest="name", required=True, parser_class=Parser)
    asked = COMMANDS.get(arguments[0]) if arguments else None
    for name in (asked,) if asked else dict.fromkeys(COMMANDS.values()):
        import_module(f"welding.cli.{name}").add(calls)
    return parser
