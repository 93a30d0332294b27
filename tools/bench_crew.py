"""How fast it is said who may weld what: in the core, and by the server with 1,000 people."""

from __future__ import annotations

import random
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from datetime import date
from functools import partial
from pathlib import Path
from typing import Any

from welding.documents.welder_weld import WelderWeld
from welding.welders.asked import Asked
from welding.welders.catalogue import read_designation, welder_edition
from welding.welders.crew_matrix import crew_matrix
from welding.welders.fewest_tests import fewest_tests
from welding.welders.validity import Held, validity
from welding.welders.who import HeldTest

PEOPLE = 1000
TABLE = (200, 300)
ROOT = Path(__file__).resolve().parents[1]
GOALS: dict[str, tuple[str, str, float | None]] = {
    "who_may_core_ms": ("1,000 welders asked about one joint, in the core", "ms", 100),
    "crew_matrix_ms": ("200 welders against 300 joint types, all different", "ms", 2000),
    "fewest_tests_ms": ("fewest tests of 20 welders for 300 joint types", "ms", None),
    "who_may_server_ms_p95": ("who may weld it, 1,000 welders, with the reasons, 95 of 100", "ms", None),
    "job_crew_server_ms_p95": ("1,000 welders against the demo's joint types, 95 of 100", "ms", 2000),
}


def crew() -> dict[str, float]:
    """Figures of the core [ms]; ranges of the tests are kept from one to the next, as on a server."""
    chance = random.Random(18)
    people = [[_held(_weld(chance)) for _ in range(chance.randint(1, 3))] for _ in range(PEOPLE)]
    joints: dict[WelderWeld, None] = {}
    while len(joints) < TABLE[1]:
        joints[_weld(chance)] = None
    asked = [Asked(welds=(one,), open=()) for one in joints]
    crew_matrix(people, asked[:1])
    one_joint = statistics.median(_ms(partial(crew_matrix, people, [joint])) for joint in asked[1:8])
    return {
        "who_may_core_ms": one_joint,
        "crew_matrix_ms": _ms(lambda: crew_matrix(people[: TABLE[0]], asked)),
        "fewest_tests_ms": _ms(lambda: fewest_tests(people[:20], asked)),
    }


def crew_of_server(sign_in: Callable[[], Any]) -> dict[str, float]:
    """The same asked of a running demo, to which 1,000 people are added [ms]."""
    subprocess.run(
        [sys.executable, "manage.py", "many_crew", str(PEOPLE)],
        cwd=ROOT / "server",
        capture_output=True,
        check=True,
    )
    get = sign_in().get
    job = get("/api/jobs")[0]["id"]
    lines = get(f"/api/jobs/{job}/procedures")
    revision = next(one["id"] for one in lines if one["number"].endswith("P02"))
    return {
        "who_may_server_ms_p95": _p95(lambda: get(f"/api/revisions/{revision}/who-may")),
        "job_crew_server_ms_p95": _p95(lambda: get(f"/api/jobs/{job}/crew")),
    }


def _p95(ask: Callable[[], Any]) -> float:
    ask()
    return statistics.quantiles([_ms(ask) for _ in range(20)], n=20)[-1]


def _ms(do: Callable[[], Any]) -> float:
    start = time.perf_counter()
    do()
    return (time.perf_counter() - start) * 1000


def _weld(chance: random.Random) -> WelderWeld:
    process, kind = chance.choice([("135", "S"), ("111", "B"), ("141", "S"), ("136", "P"), ("138", "M")])
    pipe = chance.random() < 0.5
    positions = ["PH", "PC", "H-L045"] if pipe else ["PA", "PC", "PF", "PE"]
    outside = f" D{chance.choice([33.7, 60.3, 114.3, 168.3, 323.9])}" if pipe else ""
    dip = ", dip transfer" if process in ("135", "138") else ""
    return read_designation(
        f"ISO 9606-1 {process} {'T' if pipe else 'P'} BW {chance.choice(['FM1', 'FM2', 'FM5'])} {kind} "
        f"s{chance.choice([3, 5, 8, 10, 12, 16, 20, 25, 30, 40])}{outside} {chance.choice(positions)} "
        f"{chance.choice(['ss nb', 'ss mb'])}{dip}"
    )


def _held(weld: WelderWeld) -> HeldTest:
    one = Held(
        package=welder_edition(weld.code).package,
        processes=tuple(part.process for part in weld.parts),
        welded_on=date(2026, 8, 1),
        option="a",
    )
    return HeldTest(weld=weld, validity=validity(one, date(2026, 12, 1)))
