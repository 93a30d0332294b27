"""The configuration of nginx in front of ./bead serve."""

from __future__ import annotations

import argparse
import os
import re
from pathlib import Path
from urllib.parse import urlsplit

from ops.say import USAGE, Stop, say

TEMPLATE = Path(__file__).with_name("nginx.conf")


def configuration(*, host: str, port: int, listen: str, certificate: str, key: str) -> str:
    """The template with its places filled.

    Raises:
        Stop: A value holds what would end or change the line that it stands in.
    """
    values = {"HOST": host, "PORT": str(port), "LISTEN": listen, "CERTIFICATE": certificate, "KEY": key}
    for name, value in values.items():
        if not re.fullmatch(r"[A-Za-z0-9_./:\[\]*-]+", value):
            raise Stop(f"{value!r} cannot stand in the configuration as {name.lower()}.", USAGE)
    return re.sub(r"@([A-Z]+)@", lambda found: values[found[1]], TEMPLATE.read_text())


def write(options: argparse.Namespace) -> int:
    """Print it."""
    host = options.host or urlsplit(os.environ.get("BEAD_PUBLIC_URL", "")).hostname
    if not host:
        raise Stop("Name the host that people use: --host bead.example, or set BEAD_PUBLIC_URL.", USAGE)
    say(
        configuration(
            host=host,
            port=options.port,
            listen=options.listen,
            certificate=options.certificate,
            key=options.key,
        )
    )
    return 0
