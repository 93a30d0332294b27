"""Files for systemd, cron and logrotate, so that the server starts with the machine and is backed up."""

from __future__ import annotations

import argparse
import os
from pathlib import Path
from typing import Any

from ops.places import ROOT, home
from ops.say import USAGE, Stop, say

_SERVICE = """[Unit]
Description={what}
After=network-online.target
Wants=network-online.target

[Service]
Type={kind}
Environment=BEAD_HOME={home}
ExecStart={bead} {call}
{more}
"""
_TIMER = """[Unit]
Description={what}

[Timer]
OnCalendar={when}
RandomizedDelaySec=15m
Persistent=true

[Install]
WantedBy=timers.target
"""
_SERVING = """Restart=always
RestartSec=5
# PostgreSQL ends in good order: give it time, and signal ./bead alone.
KillMode=mixed
TimeoutStopSec=180

[Install]
WantedBy=multi-user.target"""
_AT_NIGHT = "Nice=10\nIOSchedulingClass=idle"
_LOGROTATE = """{home}/web.log {{
    weekly
    rotate 52
    compress
    delaycompress
    missingok
    notifempty
    copytruncate
}}
"""
_CRON = """# min hour day month weekday user command
15 1 * * *   {user}  BEAD_HOME={home} {bead} backup
45 3 * * 6   {user}  BEAD_HOME={home} {bead} verify
30 4 * * 0   {user}  BEAD_HOME={home} {bead} audit verify
"""


def files(*, archived: bool) -> dict[str, str]:
    """Their names and contents.

    Args:
        archived: Whether the log of changes is kept, which needs a new copy of the data every week.
    """
    told = {"home": str(home()), "bead": str(ROOT / "bead"), "user": os.environ.get("USER") or "root"}
    nightly = [
        ("bead-backup", "backup", "Backup of Grounded Bead", "*-*-* 01:15"),
        ("bead-verify", "verify", "Proof of the newest backup of Grounded Bead", "Sat 03:45"),
        ("bead-audit", "audit verify", "Proof of the audit trail of Grounded Bead", "Sun 04:30"),
    ]
    if archived:
        nightly.append(("bead-copy-data", "copy-data", "Copy of the data of Grounded Bead", "Sun 02:00"))
    found = {
        "bead.service": _SERVICE.format(
            what="Grounded Bead", kind="simple", call="serve", more=_SERVING, **told
        ),
        "bead.logrotate": _LOGROTATE.format(**told),
        "bead.cron": _CRON.format(**told)
        + ("0 2 * * 0    {user}  BEAD_HOME={home} {bead} copy-data\n".format(**told) if archived else ""),
    }
    for name, call, what, when in nightly:
        found[f"{name}.service"] = _SERVICE.format(
            what=what, kind="oneshot", call=call, more=_AT_NIGHT, **told
        )
        found[f"{name}.timer"] = _TIMER.format(what=what, when=when)
    return found


def write(options: argparse.Namespace) -> int:
    """Write them into a folder, to be looked at and put where they belong."""
    for place in (home(), ROOT):
        if any(one in str(place) for one in " \t\n\"'%\\"):
            raise Stop(f"{place} holds characters that mean something else in these files.", USAGE)
    folder = Path(options.folder).resolve()
    folder.mkdir(parents=True, exist_ok=True)
    for name, text in files(archived=bool(os.environ.get("BEAD_LOG_ARCHIVE"))).items():
        (folder / name).write_text(text)
        say(f"  {folder / name}")
    if not os.environ.get("BEAD_BACKUPS"):
        say(f"Say in {home() / 'settings.env'} where backups go: BEAD_BACKUPS=/another/disk")
    say("With systemd: copy *.service and *.timer to /etc/systemd/system, then")
    say("  systemctl daemon-reload && systemctl enable --now bead.service bead-{backup,verify,audit}.timer")
    say("With cron: copy bead.cron to /etc/cron.d/bead. Logs: copy bead.logrotate to /etc/logrotate.d/bead.")
    return 0


def add_commands(add: Any) -> None:
    """Put the command into the parser."""
    one = add("units", write, "write files for systemd, cron and logrotate")
    one.add_argument("folder")
