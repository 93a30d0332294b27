"""Which cautions a procedure calls for."""

from __future__ import annotations

import re

from welding.codebook.table import load_table
from welding.documents.procedure import Procedure
from welding.language import tr, tr_noop
from welding.setup.tungsten import tungsten_named

CLOSING = tr_noop("Local rules and qualified people decide.")

# Fillers of the 300 and 400 series, duplex and nickel-chromium; and metals of groups 8 and 10 or
# with the EN numbers 1.4xxx (common practice).
_CHROMIUM_FILLER = re.compile(r"\b(?:E|ER|EC)?(?:308|309|310|312|316|317|318|347|410|430|2209|2594)")
_CHROMIUM_METAL = re.compile(r"\b1\.4\d{3}\b|\b(?:304|308|309|310|316|317|321|347|410|430)L?\b|DUPLEX")


_EVERYWHERE = ("arc", "fume", "gas", "sparks")
"""Cautions of nearly every weld; they stand behind those that are special to it."""


def cautions_for(procedure: Procedure) -> tuple[str, ...]:
    """Cautions, what is special to the procedure first; the last defers to others."""
    texts = {row["id"]: row["text"] for row in load_table("welding.advice", "cautions").rows}
    chosen = _triggers(procedure)
    ordered = sorted((key for key in texts if key in chosen), key=lambda key: key in _EVERYWHERE)
    return (*(tr(texts[key]) for key in ordered), tr(CLOSING))


def _triggers(procedure: Procedure) -> set[str]:
    chosen = {"arc", "fume", "sparks"}
    for one in procedure.passes:
        if one.process in ("114", "132", "136"):
            chosen.add("cored")
        if one.gas:
            chosen.add("gas")
        if one.purge:
            chosen.add("purge")
        if one.polarity == "AC" or one.process.startswith("14"):
            chosen.add("ac")
        kind = tungsten_named(one.tungsten.type) if one.tungsten and one.tungsten.type else None
        if kind is not None and kind.thoriated:
            chosen.add("thoria")
        if one.filler and _CHROMIUM_FILLER.search((one.filler.designation or "").upper()):
            chosen.add("chromium")
    for metal in procedure.base_metals:
        group = (metal.groups.iso_15608 or "") if metal.groups else ""
        named = _CHROMIUM_METAL.search((metal.designation or "").upper())
        if named or group.split(".")[0] in ("8", "10"):
            chosen.add("chromium")
    if procedure.thermal and (procedure.thermal.preheat_min_c or 0) > 50:
        chosen.add("preheat")
    if "purge" in chosen:
        chosen.discard("gas")  # the sharper of the two says it all
    return chosen
