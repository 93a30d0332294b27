"""./bead mutants: change the core at random, one place at a time, and count what no test notices."""

from __future__ import annotations

import argparse
import os
import random
import sqlite3
import subprocess
import tempfile
from contextlib import closing
from pathlib import Path

from ops import checks
from ops.environment import LOCKS, digest, run
from ops.places import PYTHON, copy_of_tree, home
from ops.say import BUILD, NETWORK, Step, say

WHERE = ("welding/qualification", "welding/testing", "welding/editions")
"""Where a wrong rule is worst: what is covered, what is judged."""
TIMEOUT_S = 900
CONFIG = """\
[cosmic-ray]
module-path = {paths}
timeout = {timeout}
excluded-modules = []
test-command = "{command}"
[cosmic-ray.distributor]
name = "local"
"""


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """What may be asked of it."""
    parser.add_argument("paths", nargs="*", default=WHERE, help=f"folders or modules ({', '.join(WHERE)})")
    parser.add_argument("--most", type=int, default=40, help="how many changes are tried (40)")
    parser.add_argument("--seed", type=int, default=1, help="which of them (1)")
    parser.add_argument("--tests", default="tests/welding", help="tests that should notice (tests/welding)")
    parser.add_argument("--least", type=float, default=85.0, help="percent that must be noticed (85)")


def mutants(options: argparse.Namespace) -> int:
    """Try a sample; exit 1 if fewer are noticed than asked."""
    with checks.tests_ready("mutants") as env, tempfile.TemporaryDirectory() as name:
        tree = Path(name)
        copy_of_tree(tree)
        path = os.pathsep.join((str(tree), str(tree / "server")))
        env = {**env, "PYTHONPATH": path, "PYTHONDONTWRITEBYTECODE": "1"}
        quiet = "-x -q -p no:playwright -p no:base_url -p no:cacheprovider"
        (tree / "config.toml").write_text(
            CONFIG.format(
                paths=list(options.paths),
                timeout=TIMEOUT_S,
                command=f"{PYTHON} -m pytest {quiet} {options.tests}",
            )
        )
        tool = _tool()
        call = [str(tool), "init", "config.toml", "session.sqlite"]
        subprocess.run(call, cwd=tree, env=env, check=True, stdout=subprocess.DEVNULL)
        found = _sample(tree / "session.sqlite", options.most, options.seed)
        say(f"{min(options.most, found)} of {found} possible changes; this takes about a minute for each.")
        subprocess.run([str(tool), "exec", "config.toml", "session.sqlite"], cwd=tree, env=env, check=True)
        return _report(tree / "session.sqlite", options.least)


def _tool() -> Path:
    """The mutation tester, in an environment of its own."""
    place = home() / "mutants-venv"
    lock = LOCKS / "mutants.txt"
    stamp = place / "installed"
    wanted = digest([lock])
    if not stamp.exists() or stamp.read_text() != wanted:
        with Step("installing the mutation tester"):
            run([str(PYTHON), "-m", "venv", "--clear", str(place)], "python -m venv", BUILD)
            python = str(place / "bin" / "python")
            call = [str(PYTHON), "-m", "uv", "pip", "install", "-q", "--python", python]
            run([*call, "--require-hashes", "-r", str(lock)], "installing Python packages", NETWORK)
            stamp.write_text(wanted)
    return place / "bin" / "cosmic-ray"


def _sample(session: Path, most: int, seed: int) -> int:
    """Keep so many changes of a session; how many there were."""
    with closing(sqlite3.connect(session)) as book, book:
        # Ids are random: a seed chooses by the place in the code.
        rows = book.execute("select * from mutation_specs").fetchall()
        places = sorted(rows, key=lambda row: [str(part) for part in row[:-1]])
        every = [row[-1] for row in places]
        kept = set(random.Random(seed).sample(every, min(most, len(every))))  # noqa: S311 - a sample, not a secret
        dropped = [(one,) for one in every if one not in kept]
        book.executemany("delete from mutation_specs where job_id = ?", dropped)
        book.executemany("delete from work_items where job_id = ?", dropped)
    return len(every)


def _report(session: Path, least: float) -> int:
    with closing(sqlite3.connect(session)) as book:
        rows = book.execute(
            "select s.module_path, s.start_pos_row, w.test_outcome, w.diff from mutation_specs s "
            "join work_results w on s.job_id = w.job_id order by s.module_path, s.start_pos_row"
        ).fetchall()
    for module, line, outcome, diff in rows:
        if str(outcome).upper().endswith("SURVIVED"):
            changed = [one for one in diff.splitlines() if one[:1] in "+-" and one[:3] not in ("+++", "---")]
            say(f"not noticed: {module}:{line}\n    " + "\n    ".join(changed))
    noticed = sum(not str(outcome).upper().endswith("SURVIVED") for _, _, outcome, _ in rows)
    share = 100 * noticed / len(rows) if rows else 0.0
    say(f"{noticed} of {len(rows)} changes are noticed by a test: {share:.0f} % (wanted {least:g} %).")
    return 0 if share >= least else 1
