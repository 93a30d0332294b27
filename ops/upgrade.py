"""To a newer version of the program: a backup, the migrations, a proof; or back to where it was."""

from __future__ import annotations

import argparse
from typing import Any

from ops import backups
from ops.cluster import Cluster
from ops.database import database, name_of
from ops.environment import build_web, compile_code, make_venv
from ops.places import only_one
from ops.prepare import prepare
from ops.roles import MIGRATES
from ops.say import BUILD, Step, Stop, say
from ops.system import check_node, install_packages
from ops.web import WebServer, manage


def upgrade(options: argparse.Namespace) -> int:
    """Bring the data to this version; whatever fails leaves them as they were."""
    check_node()
    install_packages(for_tests=False, for_backups=True)
    make_venv(for_tests=False)
    compile_code()
    build_web()
    with only_one():
        WebServer().stop()  # nothing may be written between the backup and the migrations
    backups.backup(options)
    where = backups.place_of(options)
    base = database(demo=options.demo)
    name = name_of(base, demo=options.demo)
    kept = where.newest(name)
    with only_one():
        base.start()
        try:
            prepare(base, name, demo=options.demo)
            with Step("proving the audit trail and what is signed"):
                manage(base.url(name, MIGRATES), "audit_verify", demo=options.demo)
        except Stop as stop:
            raise Stop(f"{stop}\n\n{_back(base, options, kept)}", BUILD) from None
    say(f"The data are of this version. The backup of before is {kept} in {where.place}.")
    say(f"./bead {'demo' if options.demo else 'serve'} starts it.")
    return 0


def _back(base: Any, options: argparse.Namespace, kept: str) -> str:
    if not isinstance(base, Cluster):
        return (
            f"The database is kept by others: load {kept} into it again (./bead take-out, pg_restore), and "
            "start the version of before."
        )
    backups.bring_back(options, kept, replace=True)
    return f"The data are as they were ({kept}). Start the version of before; nothing was lost."


def add_commands(add: Any) -> None:
    """Put the command into the parser."""
    one = add("upgrade", upgrade, "after new code was put in place: backup, migrate, prove, or back")
    backups.add_place(one)
    one.set_defaults(encrypt=False, keep_all=True, replace=True, backup=None)
