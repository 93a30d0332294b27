"""The core's command line: JSON on stdout; problems on stderr and exit code 2."""

from __future__ import annotations

import json
import sys

from welding.cli import (
    bead,
    consumables,
    documents,
    fault,
    heat,
    metals,
    qualification,
    quantities,
    recording,
    rules,
    thermal,
    welder,
    weldlist,
)
from welding.cli.parsing import Parser
from welding.errors import DocumentError, WeldingError


def main(arguments: list[str]) -> int:
    """Run one call; return the exit code."""
    try:
        options = _parser().parse_args(arguments)
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


def _parser() -> Parser:
    parser = Parser(prog="python -m welding", description=__doc__)
    calls = parser.add_subparsers(dest="name", required=True, parser_class=Parser)
    for module in (
        quantities,
        heat,
        recording,
        thermal,
        consumables,
        metals,
        documents,
        qualification,
        rules,
        bead,
        fault,
        weldlist,
        welder,
    ):
        module.add(calls)
    return parser
