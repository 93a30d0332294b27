"""``gas``: what a shielding gas is called and what may be welded with it."""

from __future__ import annotations

import argparse
from typing import Any

from welding.cli.parsing import Calls
from welding.consumables.gas import gas_text, read_gas
from welding.consumables.gas_symbol import gas_symbol, transfer_modes
from welding.errors import AmbiguousError


def add(calls: Calls) -> None:
    """Add the call."""
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
