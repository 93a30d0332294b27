"""``cooling`` and ``preheat``: t8/5 and preheat temperatures by method."""

from __future__ import annotations

import argparse
from typing import Any

from welding.cli.parsing import Calls, number
from welding.codebook.catalogue import all_editions
from welding.codebook.edition import PreheatMethod
from welding.errors import WeldingError
from welding.heat.cooling import cooling_time
from welding.heat.preheat import Preheat, method_b

METHOD_B = "en-1011-2-b"


def add(calls: Calls) -> None:
    """Add the calls."""
    cooling = calls.add_parser("cooling", help="cooling time t8/5 of steel")
    cooling.add_argument("--heat-input", type=number, required=True, help="kJ/mm, with k")
    cooling.add_argument("--preheat", type=number, required=True, help="°C")
    cooling.add_argument("--thickness", type=number, required=True, help="mm")
    cooling.add_argument("--joint", choices=("plate", "butt", "corner-fillet", "t-fillet"), default="plate")
    cooling.set_defaults(call=_cooling)

    preheat = calls.add_parser("preheat", help="preheat temperature by method")
    by_code = _methods_of_codes()
    preheat.add_argument("--method", choices=(METHOD_B, *by_code), required=True)
    preheat.add_argument("--thickness", type=number, required=True, help="mm, the thicker part")
    preheat.add_argument("--cet", type=number, help="%%, method B")
    preheat.add_argument("--weld-cet", type=number, help="%% of the weld metal, method B")
    preheat.add_argument("--hydrogen", type=number, help="ml/100 g, method B")
    preheat.add_argument("--heat-input", type=number, help="kJ/mm with k, method B")
    preheat.add_argument("--single-run-fillet", action="store_true", help="method B")
    for method in by_code.values():
        for one in method.options:
            preheat.add_argument(
                f"--{one.name.replace('_', '-')}",
                type=number if one.number else str,
                choices=one.choices or None,
                help=f"{one.help.replace('%', '%%')}, {method.id}",
            )
    preheat.add_argument("--units", choices=("si", "us"), default="si", help="printed column that governs")
    preheat.set_defaults(call=_preheat)


def _methods_of_codes() -> dict[str, PreheatMethod]:
    return {one.id: one for edition in all_editions().values() for one in edition.preheat_methods}


def _cooling(options: argparse.Namespace) -> dict[str, Any]:
    found = cooling_time(options.heat_input, options.preheat, options.thickness, options.joint)
    return {
        "t85_s": found.t85_s,
        "t85_range_s": [found.spread_s.min, found.spread_s.max],
        "regime": found.regime,
        "transition_thickness_mm": found.transition_thickness_mm,
        "source": found.citation.text,
        "unchecked": list(found.unchecked),
    }


def _needed(options: argparse.Namespace, *names: str) -> list[Any]:
    values = [getattr(options, name) for name in names]
    lacking = [
        f"--{name.replace('_', '-')}" for name, value in zip(names, values, strict=True) if value is None
    ]
    if lacking:
        raise WeldingError(f"{options.method} needs {' and '.join(lacking)}")
    return values


def _preheat(options: argparse.Namespace) -> dict[str, Any]:
    found: Preheat
    if options.method == METHOD_B:
        cet, hydrogen, heat = _needed(options, "cet", "hydrogen", "heat_input")
        found = method_b(
            cet=cet,
            thickness_mm=options.thickness,
            hydrogen_ml_100g=hydrogen,
            heat_input_kj_mm=heat,
            weld_metal_cet=options.weld_cet,
            single_run_fillet=options.single_run_fillet,
        )
    else:
        method = _methods_of_codes()[options.method]
        names = [one.name for one in method.options]
        facts = dict(zip(names, _needed(options, *names), strict=True))
        found = method.compute(thickness_mm=options.thickness, units=options.units, **facts)
    return {
        "preheat_c": found.preheat_c,
        "advised_c": found.advised_c,
        "none_needed": found.none_needed,
        "assumptions": list(found.assumptions),
        "valid": found.valid,
        "outside": list(found.outside),
        "method": found.method,
        "source": found.citation.text,
        "unchecked": list(found.unchecked),
    }
