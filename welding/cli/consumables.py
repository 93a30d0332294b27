"""``gas`` and ``decode``: what a shielding gas or a filler is called, and what that means."""

from __future__ import annotations

import argparse
import dataclasses
from typing import Any

from welding.cli.parsing import Calls
from welding.consumables.designations.decode import decode
from welding.consumables.gas import gas_text, read_gas
from welding.consumables.gas_symbol import gas_symbol, transfer_modes
from welding.errors import AmbiguousError


def add(calls: Calls) -> None:
    """Add the calls."""
    call = calls.add_parser("decode", help="what a filler designation of AWS or ISO system A says")
    call.add_argument("text")
    call.set_defaults(call=lambda options: _decoded(options.text))
    gas = calls.add_parser("gas", help="symbols of a shielding gas and its transfer modes")
    gas.add_argument("text")
    gas.add_argument("--metal", choices=("steel", "stainless", "aluminium"), default="steel")
    gas.set_defaults(call=_gas)


def _gas(options: argparse.Namespace) -> dict[str, Any]:
    try:
        shares = read_gas(options.text)
    except AmbiguousError as error:
        return {"ambiguous": True, "candidates": list(error.candidates), "reason": error.reason}
    symbol = gas_symbol(shares)
    modes = transfer_modes(shares, options.metal)
    return {
        "components_percent": shares,
        "written": gas_text(shares),
        "iso_14175": symbol.iso_14175,
        "iso_14175_mix": symbol.iso_14175_mix,
        "aws_a5_32": symbol.aws_a5_32,
        "nature": symbol.nature,
        "transfer_modes": list(modes.all),
        "limited_modes": list(modes.limited),
        "note": modes.note,
        "unchecked": list(symbol.unchecked),
    }


def _decoded(text: str) -> dict[str, Any]:
    plain = dataclasses.asdict(decode(text))
    if plain["valid"]:
        return plain
    return {key: plain[key] for key in ("valid", "designation", "reason", "suggestions")}
