"""What the tests ran of the screen, by folder: ``python -m tools.screen_coverage FOLDER``.

Component tests and browser tests count on their own; a line is covered where either ran it.
"""

import json
import sys
from collections import defaultdict
from pathlib import Path

GOALS_PERCENT = {"domain": 95, "features": 70}
"""Folders that have a goal; the others are printed only."""

Lines = dict[str, dict[int, bool]]


def main(folder: Path) -> int:
    """Print the share of lines by folder; 1 where a goal is missed."""
    ran = lines_of([*folder.glob("pages/*.json"), *folder.glob("units/*.json")])
    folders: dict[str, list[bool]] = defaultdict(list)
    for name, lines in ran.items():
        parts = name.split("/")[:-1]
        for depth in range(len(parts) + 1):
            folders["/".join(parts[:depth]) or "all"] += lines.values()
    missed = 0
    for name, flags in sorted(folders.items()):
        percent = 100 * sum(flags) / len(flags)
        goal = GOALS_PERCENT.get(name)
        missed += goal is not None and percent < goal
        wanted = "" if goal is None else f"   goal {goal} %"
        print(f"{percent:6.1f} % of {len(flags):5} lines   {name}{wanted}")
    return 1 if missed else 0


def lines_of(files: list[Path]) -> Lines:
    """Whether a test ran each line that begins a statement, by source file below ``src``."""
    ran: Lines = defaultdict(dict)
    for file in files:
        for path, counts in json.loads(file.read_text()).items():
            name = path.split("?")[0].rsplit("/src/", 1)[1]
            if ".test." in name or name.startswith(("testing", "test-setup")):
                continue
            for key, place in counts["statementMap"].items():
                line = place["start"]["line"]
                ran[name][line] = ran[name].get(line, False) or counts["s"][key] > 0
    return ran


if __name__ == "__main__":
    sys.exit(main(Path(sys.argv[1])))
