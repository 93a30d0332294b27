"""The commands of ./bead."""

from __future__ import annotations

import argparse
import errno
import os
import shutil
import signal
import subprocess
import time
from collections.abc import Callable
from types import FrameType

from ops import backups, checks, mutants, point_in_time, proxy, units, upgrade
from ops.cluster import Cluster
from ops.database import DEMO, database, name_of
from ops.environment import LOCKS, build_web, code_files, compile_code, digest, make_venv, run
from ops.places import PYTHON, ROOT, SERVER, WEB, home, only_one, version
from ops.prepare import prepare
from ops.roles import MIGRATES, SERVES
from ops.say import DISK, MISSING, NETWORK, USAGE, Stop, say
from ops.settings_file import load_settings
from ops.system import check_node, install_packages
from ops.user import web_user
from ops.web import WebServer, check_serving, manage, require_free

PORT = 8727


def main(arguments: list[str]) -> int:
    """Run one command; return the exit code."""
    if arguments[:1] in (["core"], ["recorder"]):  # everything behind it belongs to the other program
        module = {"core": "welding", "recorder": "recorder"}[arguments[0]]
        return _guarded(lambda: hand_over(module, arguments[1:]))
    options = _parser().parse_args(arguments or ["--help"])
    return _guarded(lambda: _with_settings(options))


def _with_settings(options: argparse.Namespace) -> int:
    load_settings()
    code: int = options.call(options)
    return code


def _guarded(call: Callable[[], int]) -> int:
    try:
        return call()
    except Stop as stop:
        say(f"\n{stop}")
        return stop.code
    except KeyboardInterrupt:
        say("\nInterrupted.")
        return 130
    except OSError as error:
        if error.errno == errno.ENOSPC:
            say("\nThe disk is full. Make room and run this again; nothing acknowledged is lost.")
            return DISK
        if error.errno in (errno.EACCES, errno.EROFS):
            say(f"\n{error.filename or 'A file'} cannot be written: {error.strerror}.")
            return MISSING
        raise


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="./bead",
        description="Grounded Bead: draft, weld, log and print welding procedures.",
        epilog="./bead core --help lists the calls of the core, which need no server.",
    )
    parser.add_argument("--version", action="version", version=version())
    calls = parser.add_subparsers(dest="name", required=True, metavar="COMMAND")

    def add(name: str, call: Callable[[argparse.Namespace], int], text: str) -> argparse.ArgumentParser:
        command = calls.add_parser(name, help=text, description=text)
        command.set_defaults(call=call)
        return command

    for name, call, text in (
        ("demo", demo, "install what is missing, start with invented data, print the address"),
        ("serve", serve, "start with production settings on a database without demo data"),
    ):
        command = add(name, call, text)
        command.add_argument("--port", type=_port, default=None, help=f"loopback port (default {PORT})")
        command.add_argument("--detach", action="store_true", help="return once it is up")
    add("stop", stop, "stop the web server and the database")
    add("status", status, "say what runs")
    add("reset-demo", reset_demo, "throw the demo's data away; the next demo starts afresh")
    admin = add("admin", make_admin, "make an administrator for ./bead serve")
    admin.add_argument("username")
    let_in = add("unlock", unlock, "let a name sign in again after too many failures from strangers")
    let_in.add_argument("username")
    audit = add("audit", audit_verify, "prove the audit trail and everything signed")
    audit.add_argument("what", choices=["verify"])
    for command in (let_in, audit):
        command.add_argument("--demo", action="store_true", help="of the demo's data")
    backups.add_commands(add)
    point_in_time.add_commands(add)
    upgrade.add_commands(add)
    units.add_commands(add)
    front = add("proxy", proxy.write, "print the configuration of nginx in front of ./bead serve")
    front.add_argument("--host", help="the name that people use (default: of BEAD_PUBLIC_URL)")
    front.add_argument("--port", type=_port, default=PORT, help=f"of ./bead serve (default {PORT})")
    front.add_argument("--listen", default="443", help="port or address:port (default 443)")
    front.add_argument("--certificate", required=True, help="path of the certificate chain")
    front.add_argument("--key", required=True, help="path of its key")
    tests = add("test", checks.test, "run every check, as CI does, or the parts that are named")
    tests.add_argument(
        "parts",
        nargs="*",
        metavar="PART",
        help=f"{', '.join(checks.PARTS)}, or words of a test's name; all checks without one",
    )
    tests.add_argument("--long", action="store_true", help="the tests that take minutes, and nothing else")
    add("screenshots", checks.screenshots, "retake docs/screenshots from the demo data")
    add("bench", checks.bench, "measure speed and write docs/bench.md")
    guards = add(
        "guards", checks.guards, "show that each guard against an attack has a test that fails without it"
    )
    guards.add_argument("words", nargs="*", help="only guards whose description holds these words")
    mutants.add_arguments(
        add("mutants", mutants.mutants, "change rules at random and count what no test notices")
    )
    add("schemas", checks.write_schemas, "write docs/schemas and the screen's API types anew")
    add("lock", lock, "lock the Python packages anew, with hashes")
    add("core", lambda _: USAGE, "the core without a server: ./bead core --help")
    add("recorder", lambda _: USAGE, "weld with the stand-in recorder: ./bead recorder --help")
    return parser


def _port(text: str) -> int:
    number = int(text) if text.isdigit() else 0
    if not 1024 <= number <= 65535:
        raise argparse.ArgumentTypeError(f"{text} is no port from 1024 to 65535")
    return number


def demo(options: argparse.Namespace) -> int:
    """Start the demo."""
    return _up(options, demo=True)


def serve(options: argparse.Namespace) -> int:
    """Start with production settings."""
    return _up(options, demo=False)


def _up(options: argparse.Namespace, *, demo: bool) -> int:
    kind = "demo" if demo else "serve"
    # Ended from outside (a closed terminal, a supervisor) it stops what it started, as with Ctrl+C;
    # what nohup told it to outlive it outlives.
    for sign in (signal.SIGTERM, signal.SIGHUP):
        if signal.getsignal(sign) is not signal.SIG_IGN:
            signal.signal(sign, _interrupted)
    check_serving()
    with only_one():
        say("Grounded Bead")
        check_node()
        install_packages(for_tests=False)
        make_venv(for_tests=False)
        compile_code()
        build_web()
        web, base = WebServer(), database(demo=demo)
        code = digest(code_files())
        same = (
            web.healthy() and web.kind() == kind and web.code() == code and options.port in (None, web.port())
        )
        if not same:
            web.stop()
            require_free(options.port or PORT)
        base.start()
        name = name_of(base, demo=demo)
        base.make_database(name)
        if not same:
            prepare(base, name, demo=demo)
            if os.geteuid() == 0 and web_user() is None:
                say("  Caution: the web server runs as root, since no other user can read this folder")
                say("  or its Python. Put both where others can read them, or start as another user.")
            web.start(base.url(name, SERVES), options.port or PORT, demo=demo, code=code)
    _greet(web.port() or PORT, demo=demo)
    if options.detach:
        say("  It runs in the background. ./bead stop ends it.")
        return 0
    say("  Ctrl+C stops it.")
    try:
        while web.port() is not None:
            time.sleep(1)
        say("The web server was stopped or started anew from elsewhere.")
        return 0
    except KeyboardInterrupt:
        say("\nStopping …")
    with only_one():
        web.stop()
        base.stop()
    return 0


def _interrupted(_number: int, _frame: FrameType | None) -> None:
    raise KeyboardInterrupt


def _greet(port: int, *, demo: bool) -> None:
    say(f"\n  http://127.0.0.1:{port}/\n")
    if not demo:
        say("  No one can sign in yet? ./bead admin NAME makes an administrator.")
        return
    code = (
        "from apps.demo.people import PASSWORD, PEOPLE, RECORDER\n"
        "for p in PEOPLE: print(p[0], p[3], p[1], p[2])\nprint(RECORDER[1])\nprint(PASSWORD)"
    )
    lines = subprocess.run(
        [str(PYTHON), "-c", code], cwd=SERVER, capture_output=True, text=True, check=True
    ).stdout.splitlines()
    say(f"  Sign in with one click, or with the password {lines[-1]}:")
    for line in lines[:-2]:
        username, role, *name = line.split()
        say(f"    {username:16} {' '.join(name):16} {role}")
    say(f"  Weld with the stand-in recorder: ./bead recorder --token {lines[-2]} --coupon FB-27-C03")


def stop(_: argparse.Namespace) -> int:
    """Stop everything of this folder."""
    with only_one():
        web, base = WebServer().stop(), Cluster().stop()
    say("Stopped." if web or base else "Nothing was running.")
    return 0


def status(_: argparse.Namespace) -> int:
    """Say what runs; exit 0 if the web server and the database answer."""
    web = WebServer()
    base = database(demo=web.kind() == "demo")
    runs = web.healthy()
    say(f"web server: {f'{web.kind()} on http://127.0.0.1:{web.port()}/' if runs else 'not running'}")
    answers = base.running()
    say(f"database:   {base.where() if answers else 'not running'}")
    say(f"state:      {home()}")
    return 0 if runs and answers else 1


def reset_demo(_: argparse.Namespace) -> int:
    """Throw the demo's data away."""
    make_venv(for_tests=False)
    with only_one():
        web, cluster = WebServer(), Cluster()
        if web.kind() == "demo":
            web.stop()
        cluster.start()
        cluster.drop_database(DEMO)
        shutil.rmtree(home() / "files" / DEMO, ignore_errors=True)
    say("The demo's data is gone. ./bead demo starts afresh.")
    return 0


def make_admin(options: argparse.Namespace) -> int:
    """Make an administrator with a password that is shown once."""
    make_venv(for_tests=False)
    with only_one():
        base = database()
        base.start()
        name = name_of(base, demo=False)
        base.make_database(name)
        prepare(base, name, demo=False)
        say(manage(base.url(name, SERVES), "make_admin", options.username).strip())
    return 0


def _on_database(options: argparse.Namespace, role: str, *call: str) -> str:
    """Run a management command on the database of serve, or of the demo."""
    make_venv(for_tests=False)
    with only_one():
        base = database(demo=options.demo)
        base.start()
        name = name_of(base, demo=options.demo)
        base.make_database(name)
        prepare(base, name, demo=options.demo)
        return manage(base.url(name, role), *call, demo=options.demo).strip()


def unlock(options: argparse.Namespace) -> int:
    """Let a name sign in again."""
    say(_on_database(options, SERVES, "unlock", options.username))
    return 0


def audit_verify(options: argparse.Namespace) -> int:
    """Prove the audit trail; exit 1 with every fault named."""
    try:
        say(_on_database(options, MIGRATES, "audit_verify"))
    except Stop as stop:
        raise Stop(str(stop), 1) from None
    return 0


def lock(_: argparse.Namespace) -> int:
    """Lock the Python packages anew."""
    make_venv(for_tests=True)
    for name in ("tools", "app", "dev", "mutants"):
        run(
            [
                str(PYTHON),
                "-m",
                "uv",
                "pip",
                "compile",
                "-q",
                "--generate-hashes",
                "--no-emit-index-url",
                "--python-version",
                "3.11",
                "--custom-compile-command",
                "./bead lock",
                "-o",
                f"{name}.txt",
                f"{name}.in",
            ],
            f"locking {name}",
            NETWORK,
            LOCKS,
        )
    run(["npm", "install", "--package-lock-only"], "locking the front end", NETWORK, WEB)
    run(["node", "tools/complete-lock.mjs", "package-lock.json"], "completing the lock", NETWORK, WEB)
    return 0


def hand_over(module: str, arguments: list[str]) -> int:
    """Hand over to the core's command line or to the stand-in recorder."""
    if not PYTHON.exists():
        install_packages(for_tests=False)
    make_venv(for_tests=False)
    env = {**os.environ, "PYTHONPATH": str(ROOT)}
    return subprocess.run([str(PYTHON), "-m", module, *arguments], env=env, check=False).returncode
