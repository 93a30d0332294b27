"""``plan``, ``judge``, ``range`` and ``covers``: what a coupon proves."""

from __future__ import annotations

import argparse
import dataclasses
import json
from pathlib import Path
from typing import Any

from welding.cli.documents import read_bytes
from welding.cli.parsing import Calls
from welding.codebook.book import AS_ENTERED, Book, using
from welding.coverage.covers import Coverage, covers
from welding.coverage.record import judge, plan_of, range_of
from welding.documents.codec import CORRECTIONS, JOINT, JOINT_LIST, PROCEDURE, RECORD
from welding.documents.joint_list import JointToWeld
from welding.documents.procedure import Procedure
from welding.documents.record import QualificationRecord
from welding.errors import DocumentError, WeldingError


def add(calls: Calls) -> None:
    """Add the calls."""
    for name, words, call in (
        ("plan", "what to test on a coupon", _plan),
        ("judge", "the verdict on its specimens", _judge),
        ("range", "its range of qualification", _range),
    ):
        one = calls.add_parser(name, help=words)
        one.add_argument("record", type=Path)
        _code(one)
        one.set_defaults(call=call)
    call = calls.add_parser("covers", help="whether records cover a procedure or joints")
    call.add_argument("record", type=Path, nargs="+")
    call.add_argument("--target", type=Path, required=True)
    _code(call)
    call.set_defaults(call=_covers)


def _code(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--code", help="code id, where it is not the document's own")
    parser.add_argument("--level", type=int, help="level of ISO 15614-1")
    parser.add_argument("--book", type=Path, help="corrections of the code tables")


def _book(options: argparse.Namespace) -> Book:
    return CORRECTIONS.read(read_bytes(options.book)).book if options.book else AS_ENTERED


def _record(file: Path) -> QualificationRecord:
    """A qualification record; a coupon is one without tests."""
    data = read_bytes(file)
    try:
        plain = json.loads(data)
    except ValueError:
        plain = None
    if isinstance(plain, dict) and plain.get("format") == "grounded-bead/coupon":
        return RECORD.take({**plain, "format": "grounded-bead/qualification-record"})
    return RECORD.read(data)


def _plan(options: argparse.Namespace) -> dict[str, Any]:
    with using(_book(options)):
        found = plan_of(_record(options.record), options.code, options.level)
    items = []
    for one in found.items:
        plain = dataclasses.asdict(one)
        plain["clause"] = one.clause
        plain["before_cutting"] = one.before_cutting
        plain["alternative_to"] = one.alternative_to or None
        items.append(plain)
    return {
        "code": found.code,
        "level": found.level,
        "items": items,
        "notes": list(found.notes),
        "open": list(found.open),
    }


def _judge(options: argparse.Namespace) -> dict[str, Any]:
    with using(_book(options)):
        found = judge(_record(options.record), options.code, options.level)
    plain = dataclasses.asdict(found)
    del plain["plan"]
    return plain


def _range(options: argparse.Namespace) -> dict[str, Any]:
    with using(_book(options)):
        return dataclasses.asdict(range_of(_record(options.record), options.code, options.level))


def _covers(options: argparse.Namespace) -> dict[str, Any]:
    records = [_record(file) for file in options.record]
    target = _target(read_bytes(options.target))
    with using(_book(options)):
        if isinstance(target, list):
            found = [
                {"joint": one.number, **_answer(covers(records, one, options.code, options.level))}
                for one in target
            ]
            return {"covered": all(one["covered"] for one in found), "joints": found}
        return _answer(covers(records, target, options.code, options.level))


def _answer(found: Coverage) -> dict[str, Any]:
    return dataclasses.asdict(found)


def _target(data: bytes) -> Procedure | JointToWeld | list[JointToWeld]:
    try:
        plain = json.loads(data)
    except ValueError:
        plain = None
    kind = plain.get("format") if isinstance(plain, dict) else None
    if kind == "grounded-bead/joint":
        return JOINT.read(data)
    if kind == "grounded-bead/joint-list":
        return list(JOINT_LIST.read(data).joints)
    if kind in ("grounded-bead/qualification-record", "grounded-bead/coupon"):
        raise WeldingError("the target is a procedure, a joint or a joint list, not a record")
    try:
        return PROCEDURE.read(data)
    except DocumentError:
        if isinstance(plain, dict) and kind is None and "joint" in plain and "passes" not in plain:
            return JOINT.read(data)
        raise
