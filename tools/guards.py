"""Take each guard out of a copy of the tree and see its tests fail: ``./bead guards``.

Guards against an attack stand in ``tests/server/attacks``, rules that keep a wrong answer from being said in
``tests/welding``.
"""

from __future__ import annotations

import subprocess
import sys
import tempfile
import tomllib
from pathlib import Path
from typing import Any

from ops.places import ROOT, copy_of_tree

LISTS = (Path("tests/welding"), Path("tests/server/attacks"))
FAILED = 1  # of pytest: tests ran, and some failed


def guards() -> list[dict[str, Any]]:
    """All of them: ``what``, ``file``, ``old``, ``new``, ``tests``, and whether triggers are made anew."""
    return [
        {**one, "tests": _placed(folder, one["tests"])}
        for folder in LISTS
        for one in tomllib.loads((ROOT / folder / "guards.toml").read_text())["guard"]
    ]


def _placed(folder: Path, tests: str) -> str:
    """The tests with the folder that their list stands in."""
    files, dash, chosen = tests.partition(" -k ")
    return " ".join(str(folder / one) for one in files.split()) + dash + chosen


def main(words: str) -> int:
    chosen = [one for one in guards() if words in one["what"]]
    missed = []
    with tempfile.TemporaryDirectory() as name:
        tree = Path(name)
        copy_of_tree(tree)
        remake = True
        for guard in chosen:
            path = tree / guard["file"]
            text = path.read_text()
            assert text.count(guard["old"]) == 1, guard["what"]
            path.write_text(text.replace(guard["old"], guard["new"]))
            remake = remake or guard.get("fresh_database", False)
            code, last = _run(tree, guard["tests"], remake)
            remake = guard.get("fresh_database", False)
            path.write_text(text)
            if code != FAILED:
                missed.append(guard["what"])
            print(f"{'red  ' if code == FAILED else 'GREEN'} {guard['what']}: {last}", flush=True)
    print(f"{len(chosen) - len(missed)} of {len(chosen)} guards have a test that fails without them")
    return 1 if missed or not chosen else 0


def _run(tree: Path, tests: str, remake: bool) -> tuple[int, str]:
    files, _, chosen = tests.partition(" -k ")
    done = subprocess.run(
        [
            *(sys.executable, "-m", "pytest", "-q", "-x", "-p", "no:playwright", "-p", "no:base_url"),
            *("--create-db" if remake else "--reuse-db", "--tb=no"),
            *(["-k", chosen.strip("'")] if chosen else []),
            *files.split(),
        ],
        cwd=tree,
        capture_output=True,
        text=True,
        check=False,
    )
    lines = (done.stdout + done.stderr).strip().splitlines()
    failed = [one.partition("::")[2] for one in lines if one.startswith(("FAILED", "ERROR"))]
    return done.returncode, (failed or lines or ["nothing said"])[0]


if __name__ == "__main__":
    sys.exit(main(" ".join(sys.argv[1:])))
