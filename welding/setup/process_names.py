"""Welding processes by what people call them: ISO 4063 numbers, AWS letters, everyday names."""

from __future__ import annotations

import re

from welding.codebook.table import load_table
from welding.errors import AmbiguousError, UnreadableError
from welding.language import tr

_WIDER = {"FCAW": ("FCAW-G", "FCAW-S"), "GMAW-S": ("GMAW",), "GMAW-P": ("GMAW",)}
"""Letters that take in several of the table, or say the transfer as well (AWS A3.0)."""


def _key(text: str) -> str:
    return re.sub(r"[\s_-]+", " ", text).strip().upper()


def processes_called(text: str) -> tuple[str, ...]:
    """ISO 4063 numbers that a name may mean, the most usual first.

    Args:
        text: ``135``, ``GMAW``, ``FCAW-S``, ``stick`` and the like; case, spaces and hyphens do not count.

    Raises:
        UnreadableError: Nobody calls a process that here.

    Example:
        >>> processes_called("dual shield")
        ('136',)
    """
    wanted = _key(text)
    letters = {_key(one) for one in _WIDER.get(text.strip().upper(), (text,))}
    rows = load_table("welding.setup", "process_names").rows
    found = [row["number"] for row in rows if wanted == row["number"]]
    found = found or [row["number"] for row in rows if wanted in {_key(one) for one in row["called"]}]
    found = found or [row["number"] for row in rows if _key(row["aws_letters"]) in letters]
    if not found:
        known = dict.fromkeys(row["aws_letters"] for row in rows)
        raise UnreadableError(
            text,
            tr(
                "no process is called {strip!r} here; write the number of ISO 4063, or {known}",
                strip=text.strip(),
                known=", ".join(known),
            ),
        )
    usual = ("135", "136", "141", "121", "111")
    return tuple(sorted(found, key=lambda one: (usual.index(one) if one in usual else len(usual), one)))


def read_process(text: str) -> str:
    """The one ISO 4063 number that a name means.

    Raises:
        AmbiguousError: It may mean several; carries their numbers.
        UnreadableError: Nobody calls a process that here.

    Example:
        >>> read_process("SMAW")
        '111'
    """
    found = processes_called(text)
    if len(found) > 1:
        raise AmbiguousError(text, tr("{strip} may be one of these processes", strip=text.strip()), found)
    return found[0]


def aws_letters(number: str) -> str:
    """The AWS letter designation of a process, such as ``GMAW`` for 135; empty where none is known.

    Example:
        >>> aws_letters("136")
        'FCAW-G'
    """
    rows = load_table("welding.setup", "process_names").rows
    return next((str(row["aws_letters"]) for row in rows if row["number"] == number), "")
