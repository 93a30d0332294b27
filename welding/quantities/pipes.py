"""Pipe by nominal size and schedule. Dimensions are those of fluids (ASME B36.10M and B36.19M)."""

from __future__ import annotations

import re

from fluids.piping import nearest_pipe

from welding.errors import UnreadableError
from welding.language import tr

_PIPE = re.compile(
    r"^(?:nps\s*)?(?P<dn>dn\s*)?(?P<size>[\d./\s-]+?)\s*(?:in\.?|inch|\"|”|″)?\s*(?:pipe\s*)?"
    r"(?:sch(?:edule)?\.?\s*(?P<schedule>\d{1,3}s?|std|xs|xxs)|(?P<weight>std|xs|xxs))"
    r"(?:\s*pipe)?$",
    re.IGNORECASE,
)


# DN of the sizes below NPS 4 (ISO 6708, from memory); from there on DN is 25 x NPS.
_DN_TO_NPS = {
    6: 0.125,
    8: 0.25,
    10: 0.375,
    15: 0.5,
    20: 0.75,
    25: 1.0,
    32: 1.25,
    40: 1.5,
    50: 2.0,
    65: 2.5,
    80: 3.0,
    90: 3.5,
}


def read_pipe(text: str) -> tuple[float, float, str] | None:
    """Read "2in sch40", "NPS 1 1/2 sch 80S", "DN50 sch 40".

    Returns outside diameter in mm, wall in mm and what was understood; ``None`` if the text is no
    pipe. Diameters are rounded to 0.1 mm and walls to 0.01 mm, as the standards print them.

    Raises:
        UnreadableError: That size or schedule is not in the standards.
    """
    match = _PIPE.match(text)
    if not match:
        return None
    schedule = (match["schedule"] or match["weight"]).upper()
    size = match["size"].strip()
    try:
        if match["dn"]:
            nps = _DN_TO_NPS.get(int(size)) or int(size) / 25
            found = nearest_pipe(NPS=nps, schedule=schedule)
            label = tr("DN {int} schedule {schedule}", int=int(size), schedule=schedule)
        else:
            nps = _mixed(size)
            found = nearest_pipe(NPS=nps, schedule=schedule)
            label = tr("NPS {size} schedule {schedule}", size=size, schedule=schedule)
    except (ValueError, KeyError, IndexError, ZeroDivisionError):
        raise UnreadableError(
            text,
            tr(
                "pipe {size} schedule {schedule} is not in ASME B36.10M or B36.19M: give outside "
                "diameter and wall instead",
                size=size,
                schedule=schedule,
            ),
        ) from None
    return round(found[2] * 1000, 1), round(found[3] * 1000, 2), label


def _mixed(text: str) -> float:
    whole = 0.0
    for part in re.split(r"[\s-]+", text):
        top, _, bottom = part.partition("/")
        whole += float(top) / float(bottom) if bottom else float(top)
    return whole
