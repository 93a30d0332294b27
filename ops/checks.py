"""./bead test, schemas, screenshots and bench: each on a database of its own."""

from __future__ import annotations

import argparse
import filecmp
import os
import shutil
import subprocess
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ops.cluster import Cluster, free_port
from ops.environment import build_web, compile_code, install_node_packages, make_venv
from ops.places import PYTHON, ROOT, SERVER, VENV, WEB, home, only_one
from ops.say import BUILD, Stop, say
from ops.system import check_node, install_packages
from ops.web import WebServer, environment, manage

SCHEMAS = ROOT / "docs" / "schemas"
SCHEMAS_KEPT = (
    "procedure",
    "coupon",
    "qualification-record",
    "joint-list",
    "weld-list",
    "book-corrections",
    "chart",
    "bead-settings",
    "fault-case",
    "welder-certificate",
    "certificate-statement",
)
API_TYPES = WEB / "src" / "api" / "schema.d.ts"


@contextmanager
def own_home(name: str) -> Iterator[None]:
    """Work in a state folder of its own, so that a running demo is left alone."""
    before = os.environ.get("BEAD_HOME")
    os.environ["BEAD_HOME"] = str(home() / name)
    try:
        yield
    finally:
        if before is None:
            del os.environ["BEAD_HOME"]
        else:
            os.environ["BEAD_HOME"] = before


def _ready_for_tests() -> None:
    check_node()
    install_packages(for_tests=True)
    make_venv(for_tests=True)
    compile_code()
    install_node_packages()
    build_web()


# --- test ------------------------------------------------------------------------------------


def test(options: argparse.Namespace) -> int:
    """Run every check, or the parts that are named; exit 1 if any fails."""
    asked = (*options.parts, *(["long"] if options.long else []))
    steps = steps_of(asked)
    if not {name for name, _, _ in steps} - NO_DATABASE:
        with only_one():
            _ready_for_tests()
        return _run_all(environment("postgresql://nobody@127.0.0.1:1/none", demo=True), steps, asked)
    with tests_ready("test") as env:
        return _run_all(env, steps, asked)


@contextmanager
def tests_ready(name: str) -> Iterator[dict[str, str]]:
    """What tests need, with a database of their own; gives their environment."""
    with only_one():
        _ready_for_tests()
    with own_home(name):
        with only_one():
            cluster = Cluster(fast=True)
            cluster.start()
            cluster.make_database("bead")
        try:
            yield environment(cluster.url("bead"), demo=True)
        finally:
            cluster.stop()


Check = tuple[str, list[str], Path]
"""What a check is called, its command, and the folder it runs in."""
PARTS: dict[str, tuple[str, ...]] = {
    "style": (
        "style",
        "format",
        "floors",
        "catalogues",
        "python types",
        "typescript types",
        "typescript style",
    ),
    "core": ("core",),
    "server": ("migrations", "server"),
    "web": ("typescript types", "typescript style", "screen units"),
    "browser": ("browser",),
    "system": ("crashes",),
    "long": ("killed under load",),
    "coverage": (
        "coverage",
        "screen built to be measured",
        "screen units measured",
        "browser measured",
        "screen coverage",
    ),
}
COVERAGE = ("--cov=welding", "--cov=server", "--cov-branch", "--cov-report=term:skip-covered")
"""Line and branch coverage takes half as long again, so that it is a part of its own."""
MEASURED = ROOT / ".bead" / "measured"
"""Where the screen that counts its statements stands, and what it counted."""
NO_DATABASE = {*PARTS["style"], *PARTS["core"], *PARTS["web"]}


def steps_of(asked: tuple[str, ...]) -> list[Check]:
    """The checks of the parts that are named; all but the coverage without a name.

    Args:
        asked: Names of ``PARTS``; any other word picks tests of the core and the server by their names.
    """
    bin_ = VENV / "bin"
    pytest = [str(PYTHON), "-m", "pytest"]
    plain, two = ["-p", "no:playwright", "-p", "no:base_url"], ["-n", "2", "--dist", "worksteal"]
    besides = ["--ignore=tests/browser", "--ignore=tests/system", "--ignore=tests/long"]
    every: list[Check] = [
        ("style", [str(bin_ / "ruff"), "check", "-q", "."], ROOT),
        ("format", [str(bin_ / "ruff"), "format", "-q", "--check", "."], ROOT),
        ("floors", [str(bin_ / "lint-imports"), "--no-cache"], ROOT),
        ("catalogues", [str(PYTHON), "-m", "tools.texts", "--check"], ROOT),
        ("python types", [str(PYTHON), "-m", "mypy"], ROOT),
        ("migrations", [str(PYTHON), "manage.py", "makemigrations", "--check", "--dry-run"], SERVER),
        ("typescript types", ["npm", "run", "--silent", "types"], WEB),
        ("typescript style", ["npm", "run", "--silent", "lint"], WEB),
        ("screen units", ["npm", "run", "--silent", "test"], WEB),
        ("core and server", [*pytest, *plain, *two, *besides], ROOT),
        ("browser", [*pytest, *two, "tests/browser"], ROOT),
        ("crashes", [*pytest, *plain, "-n", "2", "--dist", "loadfile", "tests/system"], ROOT),
    ]
    if not asked:
        return every
    parts: list[Check] = [
        *every,
        ("core", [*pytest, *plain, *two, "tests/welding", "welding"], ROOT),
        ("server", [*pytest, *plain, *two, "tests/server"], ROOT),
        ("killed under load", [*pytest, *plain, "-s", "tests/long"], ROOT),
        ("coverage", [*pytest, *plain, *two, *besides, *COVERAGE], ROOT),
        *_screen_measured(pytest),
    ]
    named = {name for part in asked for name in PARTS.get(part, ())}
    found = [step for step in parts if step[0] in named]
    words = [word for word in asked if word not in PARTS]
    if words:
        found.append(
            (f"tests named {' '.join(words)}", [*pytest, *plain, *besides, "-k", " and ".join(words)], ROOT)
        )
    return found


def _screen_measured(pytest: list[str]) -> list[Check]:
    """Component and browser tests over a screen that counts its statements, and what they ran of it."""
    shutil.rmtree(MEASURED, ignore_errors=True)
    vitest = ["npx", "vitest", "run", "--coverage", f"--coverage.reportsDirectory={MEASURED / 'units'}"]
    return [
        ("screen built to be measured", ["npm", "run", "--silent", "build"], WEB),
        ("screen units measured", vitest, WEB),
        ("browser measured", [*pytest, "tests/browser"], ROOT),
        ("screen coverage", [str(PYTHON), "-m", "tools.screen_coverage", str(MEASURED)], ROOT),
    ]


def _run_all(env: dict[str, str], steps: list[Check], asked: tuple[str, ...]) -> int:
    bin_ = VENV / "bin"
    failed: list[str] = []
    begin = time.monotonic()
    if not asked:
        say("\n── schemas ──")
        if not _schemas_current():
            failed.append("schemas")
    for name, command, folder in steps:
        say(f"\n── {name} ──")
        start = time.monotonic()
        # Only the browser tests may touch Django from the browser's event loop.
        step_env = {**env, "DJANGO_ALLOW_ASYNC_UNSAFE": "true"} if name.startswith("browser") else env
        if "measured" in name:
            step_env = {**step_env, "BEAD_MEASURED_DIST": str(MEASURED / "dist")}
        step_env = {
            **step_env,
            "DJANGO_SETTINGS_MODULE": "config.settings_test",
            "PATH": f"{bin_}:{env['PATH']}",
        }
        code = subprocess.run(
            command, cwd=folder, env=step_env, check=False, stdin=subprocess.DEVNULL
        ).returncode
        say(f"{name}: {'passed' if code == 0 else 'FAILED'} in {time.monotonic() - start:.0f} s")
        if code:
            failed.append(name)
    say(f"\nAll checks took {time.monotonic() - begin:.0f} s.")
    say(f"Failed: {', '.join(failed)}" if failed else "All checks passed.")
    say(f"{len(steps) + (not asked) - len(failed)} passed, {len(failed)} failed")
    return 1 if failed else 0


def guards(asked: argparse.Namespace) -> int:
    """Take each guard against an attack out of a copy; exit 1 if no test fails without it."""
    with tests_ready("guards") as env:
        return subprocess.run(
            [str(PYTHON), "-m", "tools.guards", *asked.words],
            cwd=ROOT,
            env={**env, "DJANGO_SETTINGS_MODULE": "config.settings_test"},
            check=False,
        ).returncode


# --- schemas ---------------------------------------------------------------------------------


def write_schemas(_: argparse.Namespace) -> int:
    """Write the JSON Schemas of the documents and the screen's API types anew."""
    with only_one():
        make_venv(for_tests=True)
        install_node_packages()
    _generate(SCHEMAS, API_TYPES)
    say(f"Written: {SCHEMAS.relative_to(ROOT)}, {API_TYPES.relative_to(ROOT)}")
    return 0


def _generate(schemas: Path, types: Path) -> None:
    schemas.mkdir(parents=True, exist_ok=True)
    env = environment("postgresql://nobody@127.0.0.1:1/none", demo=True)
    for name in SCHEMAS_KEPT:
        done = subprocess.run(
            [str(PYTHON), "-m", "welding", "schema", name],
            cwd=ROOT,
            env=env,
            capture_output=True,
            text=True,
            check=True,
        )
        (schemas / f"{name}.schema.json").write_text(done.stdout)
    with tempfile.TemporaryDirectory() as folder:
        openapi = Path(folder) / "openapi.json"
        for command, where in (
            (
                [
                    str(PYTHON),
                    "manage.py",
                    "export_openapi_schema",
                    "--api",
                    "config.urls.api",
                    "--output",
                    str(openapi),
                    "--indent",
                    "1",
                ],
                SERVER,
            ),
            (["npm", "run", "--silent", "api-types", "--", str(openapi), "-o", str(types)], WEB),
        ):
            done = subprocess.run(command, cwd=where, env=env, capture_output=True, text=True, check=False)
            if done.returncode:
                raise Stop(f"Writing the schemas failed:\n{(done.stdout + done.stderr)[-2000:]}", BUILD)


def _schemas_current() -> bool:
    """Whether the committed schemas are what the code says."""
    with tempfile.TemporaryDirectory() as folder:
        fresh, types = Path(folder) / "schemas", Path(folder) / "schema.d.ts"
        _generate(fresh, types)
        pairs = [(types, API_TYPES), *((path, SCHEMAS / path.name) for path in fresh.iterdir())]
        stale = [
            committed
            for new, committed in pairs
            if not committed.exists() or not filecmp.cmp(new, committed, shallow=False)
        ]
    for path in stale:
        say(f"{path.relative_to(ROOT)} is not what the code says: run ./bead schemas")
    if not stale:
        say("schemas: passed")
    return not stale


# --- with a demo of its own ------------------------------------------------------------------


@contextmanager
def _fresh_demo(name: str) -> Iterator[tuple[str, dict[str, str]]]:
    """A demo on fresh data in a state folder of its own: its address and its environment."""
    with only_one():
        _ready_for_tests()
    with own_home(name):
        cluster, web = Cluster(fast=True), WebServer()
        web.stop()
        cluster.start()
        cluster.drop_database("bead_demo")
        cluster.make_database("bead_demo")
        url = cluster.url("bead_demo")
        manage(url, "prepare", "--demo", demo=True)
        port = free_port()
        web.start(url, port, demo=True)
        try:
            yield f"http://127.0.0.1:{port}", environment(url, demo=True)
        finally:
            web.stop()
            cluster.stop()


def screenshots(_: argparse.Namespace) -> int:
    """Retake docs/screenshots."""
    with _fresh_demo("screenshots") as (address, env):
        return subprocess.run(
            [str(PYTHON), "-m", "tools.screenshots", address, str(ROOT / "docs" / "screenshots")],
            cwd=ROOT,
            env=env,
            check=False,
        ).returncode


def bench(_: argparse.Namespace) -> int:
    """Measure speed; write docs/bench.md."""
    with _fresh_demo("bench") as (address, env):
        return subprocess.run(
            [str(PYTHON), "-m", "tools.bench", address, str(ROOT / "docs" / "bench.md")],
            cwd=ROOT,
            env=env,
            check=False,
        ).returncode
