"""A call of the command line loads what it needs, and every call is known by its name."""

import subprocess
import sys

import pytest

from welding.cli import COMMANDS, _parser
from welding.cli.parsing import Parser

HEAVY = ("pint", "scipy.optimize", "scipy.interpolate", "pyarrow", "welding.planning")
"""Each of these takes a noticeable part of a second to load."""


@pytest.mark.parametrize(
    "words",
    [("decode", "E71T-1C"), ("rules", "preheat"), ("metal", "S355J2+N")],
    ids=lambda words: words[0],
)
def test_a_small_call_loads_nothing_heavy(words):
    code = (
        "import sys\nfrom welding.cli import main\nassert main(sys.argv[1:]) == 0\n"
        f"print([one for one in {HEAVY!r} if one in sys.modules], file=sys.stderr)"
    )
    done = subprocess.run([sys.executable, "-c", code, *words], capture_output=True, text=True, check=True)
    assert done.stdout.strip() and done.stderr.strip() == "[]"


def names(parser):
    action = next(one for one in parser._actions if one.dest == "name")
    return set(action.choices)


def test_every_call_is_known_by_its_name():
    assert names(_parser([])) == set(COMMANDS) == names(_parser(["--help"]))


@pytest.mark.parametrize("name", sorted(COMMANDS))
def test_a_call_is_found_in_its_module(name):
    assert isinstance(_parser([name]), Parser) and name in names(_parser([name]))
