"""``bead``: what settings make of a weld; ``cure``: what to change for an effect."""

from __future__ import annotations

import argparse
import dataclasses
from pathlib import Path
from typing import Any

from welding.bead.compare import compare
from welding.bead.cure import GOALS, cure
from welding.bead.figures import Figure
from welding.bead.predict import predict
from welding.cli.documents import read_bytes
from welding.cli.parsing import Calls
from welding.documents.bead_settings import BeadSettings
from welding.documents.codec import BEAD_SETTINGS
from welding.errors import WeldingError
from welding.ranges import Range


def add(calls: Calls) -> None:
    """Add the calls."""
    bead = calls.add_parser("bead", help="predict a bead from its settings")
    bead.add_argument("file", type=Path, help="bead settings, JSON")
    bead.add_argument("--against", type=Path, help="other settings: what was changed and what it does")
    bead.add_argument("--goal", choices=tuple(GOALS), help="what would cure it")
    bead.add_argument(
        "--limit",
        action="append",
        default=[],
        metavar="FIELD=MIN:MAX",
        help="limits that a cure must keep, such as voltage_v=24:28",
    )
    bead.set_defaults(call=_bead)


def _bead(options: argparse.Namespace) -> dict[str, Any]:
    settings, limits = BEAD_SETTINGS.read(read_bytes(options.file)), _limits(options.limit)
    found = predict(settings)
    answer: dict[str, Any] = {
        "figures": [_figure(one) for one in found.figures],
        "picture": dataclasses.asdict(found.picture) if found.picture else None,
        "joint": dataclasses.asdict(found.joint) if found.joint else None,
    }
    if options.against is not None:
        other = BEAD_SETTINGS.read(read_bytes(options.against))
        compared = compare(other, settings, (predict(other), found))
        answer["against"] = {
            "changes": {one.field: [_plain(one.before), _plain(one.after)] for one in compared.changes},
            "percent": {key: round(value, 1) for key, value in compared.percent.items()},
            "sentence": compared.sentence,
        }
    if options.goal is not None:
        cured = cure(settings, options.goal, limits)
        answer["cure"] = {
            "goal": cured.title,
            "no_model": cured.no_model,
            "remedies": [
                {
                    "field": one.field,
                    "before": one.before,
                    "after": one.after,
                    "outcome": one.outcome,
                    "limited": one.limited,
                    "percent": round(one.percent, 1),
                    "worsens": list(one.worsens),
                    "why": one.why,
                    "source": one.citation.text,
                }
                for one in cured.remedies
            ],
        }
    return answer


def _limits(texts: list[str]) -> dict[str, Range]:
    fields = {one.name for one in dataclasses.fields(BeadSettings)} | {"cup", "ac_frequency_hz"}
    found = {}
    for text in texts:
        field, _, span = text.partition("=")
        low, _, high = span.partition(":")
        if field not in fields:
            raise WeldingError(f"{field!r} is no field of bead settings")
        try:
            found[field] = Range(float(low), float(high))
        except ValueError:
            raise WeldingError(f"{text!r} is no limit; write voltage_v=24:28") from None
    return found


def _plain(value: object) -> object:
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return {key: one for key, one in dataclasses.asdict(value).items() if one is not None}
    return value


def _figure(one: Figure) -> dict[str, Any]:
    said: dict[str, Any] = {"key": one.key, "group": one.group, "title": one.title}
    for name in ("value", "low", "high"):
        number = getattr(one, name)
        if number is not None:
            said[name] = round(number, 4)
    for name in ("quantity", "unit", "words", "level", "no_model", "error"):
        if getattr(one, name):
            said[name] = getattr(one, name)
    if one.citation is not None:
        said["source"] = one.citation.text
        said["confidence"] = one.citation.confidence
    return said
