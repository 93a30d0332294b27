"""./bead test PART: which checks a part holds."""

import importlib
from pathlib import Path

import pytest

from ops.checks import NO_DATABASE, PARTS, steps_of

ROOT = Path(__file__).resolve().parents[2]


def names(*asked):
    return [name for name, _, _ in steps_of(asked)]


def test_all_checks_run_without_a_name():
    assert (
        len(names()) == 12
        and "catalogues" in names()
        and "core and server" in names()
        and "browser" in names()
    )


@pytest.mark.parametrize("part", PARTS)
def test_a_part_is_its_checks(part):
    assert set(names(part)) == set(PARTS[part])


def test_parts_add_up_and_keep_their_order():
    assert names("web", "core") == ["typescript types", "typescript style", "screen units", "core"]


def test_any_other_word_picks_tests_by_name():
    ((name, command, _),) = steps_of(("retest", "bend"))
    assert name == "tests named retest bend"
    assert command[-2:] == ["-k", "retest and bend"] and "--ignore=tests/browser" in command


def test_the_core_needs_no_database():
    assert set(names("core", "web", "style")) <= NO_DATABASE
    assert not set(names("server")) <= NO_DATABASE and not set(names("browser")) <= NO_DATABASE


@pytest.mark.parametrize("path", sorted((ROOT / "tools").glob("*.py")), ids=lambda path: path.stem)
def test_every_tool_can_be_started(path):
    """A tool that is called by hand alone would break unseen when something it uses is renamed."""
    assert importlib.import_module(f"tools.{path.stem}")
