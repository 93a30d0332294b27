"""Reads the cells of a row of a weld list, and collects what is wrong with them. Nothing is supplied."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import partial
from typing import Any, TypeVar, get_args

from welding.documents import fields as f
from welding.documents.codec import Codec
from welding.documents.procedure import Code
from welding.documents.weld_list import ListedJoint
from welding.errors import AmbiguousError, DocumentError, UnreadableError, WeldingError
from welding.language import tr
from welding.metals.catalogue import find, search
from welding.qualification.positions import is_of_pipe
from welding.quantities.reading import read_quantity
from welding.setup.process_names import read_process
from welding.weldlist.columns import QUANTITIES, word_key, words

T = TypeVar("T")

LENGTH_UNITS = ("mm", "in")
BARE = re.compile(r"[-+]?\d+(?:[.,]\d+)?")
"""A number without a unit. A fraction is no such: it is in inches."""

TWO = re.compile(r"t?\s*=?\s*(\d+(?:[.,]\d+)?)\s*([/+])\s*t?\s*(\d+(?:[.,]\d+)?)\s*(mm|cm)?", re.IGNORECASE)
"""Both members' thickness in one cell, such as ``20/12 mm``."""
FRACTION = "fraction"
"""Key of the question whether ``12/16`` among millimetres is two members or a fraction of an inch."""
SECOND = "second"
"""Key of the question whether a joint of which one member is stated joins two of it."""
UNIT = "unit"
"""Key of the question what unit a length without one is in."""
SIZE = "size"
"""Key of the question whether a bare size of a fillet is its leg or its throat."""
LISTED = Codec(ListedJoint)
"""Rows as documents."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CellProblem:
    """What is wrong with a cell.

    Attributes:
        column: Which column; a name of ``COLUMNS``.
        message: What is wrong, in words.
        asks: Key under which an answer holds for all rows; empty where the cell has to be corrected.
        choices: Answers to choose from; empty where any text may be the answer.
    """

    column: str
    message: str
    asks: str = ""
    choices: tuple[str, ...] = ()


class _Wrong(Exception):
    def __init__(self, problem: CellProblem) -> None:
        self.problem = problem


class RowReader:
    """Reads the cells of a row; collects what is wrong with them."""

    def __init__(self, cells: Mapping[str, str], code: Code, answers: Mapping[str, str]) -> None:
        self.cells, self.code, self.answers = cells, code, answers
        self.problems: list[CellProblem] = []

    def text(self, column: str) -> str:
        """A cell, or what was answered for its text."""
        told = self.cells.get(column, "").strip()
        return self.answers.get(f"{_asked(column)}:{word_key(told)}", told)

    def own(self) -> ListedJoint | None:
        """What a row says of itself, around a mark and a joint that are put in afterwards."""
        plain: dict[str, Any] = {"mark": "-", "joint": _NOTHING}
        names = {"drawing": "drawing", "revision": "revision", "part": "part", "place": "place",
                 "ndt": "ndt_class", "remarks": "remarks"}  # fmt: skip
        plain |= {field: self.text(name) for name, field in names.items() if self.text(name)}
        if (count := self._try("count", self._count)) is not None:
            plain["count"] = count
        if (length := self._try("length", lambda: self._length("length"))) is not None:
            plain["length_mm"] = length
        if (site := self._try("site", lambda: self._word("site", "site"))) is not None:
            plain["site"] = site == "yes"
        try:
            return LISTED.take(plain)
        except DocumentError as error:
            for one in error.problems:
                column = next((name for name, field in names.items() if field == one.path), one.path)
                self.problems.append(CellProblem(column=column.removesuffix("_mm"), message=one.message))
            return None

    def joint(self) -> dict[str, Any]:
        """The facts that decide about the procedure."""
        weld = self._try("weld", self._weld)
        kind = self._try("joint", lambda: self._kind(weld))
        plain: dict[str, Any] = {"kind": kind, "weld": weld}
        for column, field in (("edge", "preparation"), ("sides", "sides"), ("backing", "backing")):
            means = self._try(column, partial(self._word, column, column))
            if means is not None:
                plain[field] = {"form": means} if column == "edge" else means
                if means.startswith("double-") and not self.text("sides"):
                    plain["sides"] = "both"  # a double form is welded from both sides, whatever the list says
        plain |= self._try("size", partial(self._size, weld)) or {}
        metals = self._members("metal", "metal2", self._metal)
        self._part_thickness()
        thicknesses = self._members("thickness", "thickness2", self._length)
        diameter = self._try("diameter", lambda: self._length("diameter"))
        # Where a pipe meets a plate or another pipe, the list's diameter is that of its first member.
        diameters = [diameter, diameter if kind == "butt" else None]
        base = [
            {"designation": metal, "thickness_mm": mm, "outside_diameter_mm": outside}
            for metal, mm, outside in zip(metals, thicknesses, diameters, strict=True)
        ]
        found: dict[str, Any] = {"joint": plain, "base_metals": base, "code": None}
        found["positions"] = self._try("positions", self._positions) or []
        if diameter is None and (kind == "branch" or any(is_of_pipe(one) for one in found["positions"])):
            # Without it a pipe would be judged as plate.
            message = tr("This is a pipe: its outside diameter is missing.")
            self.problems.append(CellProblem(column="diameter", message=message))
        if (process := self._try("process", self._process)) is not None:
            found["process"] = process
        if (pwht := self._try("pwht", lambda: self._word("pwht", "yes-no"))) is not None:
            found["pwht"] = pwht == "yes"
        required = {
            "impact": self._try("impact", self._impact),
            "hardness": self._try("hardness", lambda: self._yes("hardness")),
        }
        if any(one is not None for one in required.values()):
            found["requirements"] = required
        return found

    def _try(self, column: str, read: Callable[[], T]) -> T | None:
        try:
            return read()
        except _Wrong as wrong:
            self.problems.append(wrong.problem)
        except WeldingError as error:
            self.problems.append(CellProblem(column=column, message=str(error)))
        return None

    def _word(self, column: str, of: str) -> str | None:
        told = self.text(column)
        if not told:
            return None
        means = words(of).get(word_key(told))
        if means is None:
            raise _Wrong(self._unknown(column, told, tuple(dict.fromkeys(words(of).values()))))
        return means

    def _unknown(self, column: str, told: str, choices: tuple[str, ...]) -> CellProblem:
        return CellProblem(
            column=column,
            message=tr("“{text}” is not understood.", text=told),
            asks=f"{_asked(column)}:{word_key(self.cells.get(column, ''))}",
            choices=choices,
        )

    def _yes(self, column: str) -> bool | None:
        means = self._word(column, "yes-no")
        return None if means is None else means == "yes"

    def _count(self) -> int | None:
        told = self.text("count")
        if not told:
            return None
        if not re.fullmatch(r"\d{1,6}(?:[.,]0+)?", told):
            raise UnreadableError(told, tr("a whole number is needed"))
        return int(re.split(r"[.,]", told)[0])

    def _length(self, column: str) -> float | None:
        told = self.text(column)
        if not told:
            return None
        return self._quantity(column, told)

    def _quantity(self, column: str, told: str) -> float:
        """A length in mm. A bare number is in the unit that was answered for the list, never in a guess."""
        unit = self.answers.get(UNIT)
        if BARE.fullmatch(told) and unit not in LENGTH_UNITS:
            raise _Wrong(
                CellProblem(
                    column=column,
                    message=tr("Lengths stand without a unit in this list. In which unit are they?"),
                    asks=UNIT,
                    choices=LENGTH_UNITS,
                )
            )
        return read_quantity(told, kind=QUANTITIES[column], shown_unit=unit).value

    def _weld(self) -> str:
        """What weld; many lists say joint and weld in one cell, such as ``butt CJP``."""
        told, other = self.text("weld"), self.text("joint")
        choices = tuple(get_args(f.WeldKind))
        for text in (told, other):
            if (means := _said("weld", text)) is not None:
                return means
        if told:
            is_butt = word_key(told) in words("joint")
            if is_butt:
                message = tr("“{text}” does not say whether the penetration is full or partial.", text=told)
                raise _Wrong(replace(self._unknown("weld", told, choices[:2]), message=message))
            raise _Wrong(self._unknown("weld", told, choices))
        raise _Wrong(
            replace(
                self._unknown("weld", "", choices),
                message=tr("The list does not say which weld: full or partial penetration, or fillet."),
            )
        )

    def _kind(self, weld: str | None) -> str:
        told = self.text("joint")
        # As it was written: an answer for "BW" says which weld, and BW itself that it is a butt joint.
        for text in (told, self.text("weld"), self.cells.get("weld", "")):
            if (means := _said("joint", text)) is not None:
                return means
        choices = tuple(get_args(f.JointKind))
        if told:
            raise _Wrong(self._unknown("joint", told, choices))
        asked = f"joint:{weld or ''}"
        if self.answers.get(asked) in choices:
            return self.answers[asked]
        raise _Wrong(
            CellProblem(
                column="joint",
                message=tr("The list does not say which joint: butt, T, corner, lap."),
                asks=asked,
                choices=choices,
            )
        )

    def _size(self, weld: str | None) -> dict[str, float]:
        told = self.text("size")
        if not told or weld not in ("fillet", "pjp-groove"):
            return {}
        named = re.fullmatch(r"([az])\s*=?\s*(.+)", told, re.IGNORECASE)
        value = self._quantity("size", named[2] if named else told)
        if weld == "pjp-groove":
            return {"throat_mm": value}
        which = {"a": "throat", "z": "leg"}[named[1].lower()] if named else self._which_size()
        return {"throat_mm": value} if which == "throat" else {"leg1_mm": value, "leg2_mm": value}

    def _which_size(self) -> str:
        answer = self.answers.get(SIZE)
        if answer in ("leg", "throat"):
            return answer
        raise _Wrong(
            CellProblem(
                column="size",
                message=tr("Is the size of a fillet weld its leg or its throat?"),
                asks=SIZE,
                choices=("leg", "throat"),
            )
        )

    def _members(self, first: str, second: str, read: Callable[[str], T]) -> list[T | None]:
        """A fact of both members. Where one is stated, an answer says whether it is the other's, too."""
        one, two = self._try(first, lambda: read(first)), self._try(second, lambda: read(second))
        known = {one.column for one in self.problems}
        if not self.text(first) and not self.answers.get(f"{_asked(first)}:") and first not in known:
            message = (
                tr("The base metal is missing.") if first == "metal" else tr("The thickness is missing.")
            )
            self.problems.append(CellProblem(column=first, message=message))
        if one is not None and not self.text(second):
            answer = self.answers.get(SECOND)
            if answer == "same":
                two = one
            elif answer != "unknown":
                problem = CellProblem(
                    column=second,
                    message=tr(
                        "One member of the joint is stated. Is the other of the same metal and thickness?"
                    ),
                    asks=SECOND,
                    choices=("same", "unknown"),
                )
                if problem.asks not in {seen.asks for seen in self.problems}:
                    self.problems.append(problem)
        return [one, two]

    def _part_thickness(self) -> None:
        """``20/12 mm`` is both members; ``3/8 mm`` may be a fraction of an inch as well, and is asked."""
        told = TWO.fullmatch(self.text("thickness"))
        if told is None or self.text("thickness2") or (told[4] is None and self.answers.get(UNIT) != "mm"):
            return
        one, sign, other, unit = told.groups()
        is_fraction = sign == "/" and other in ("2", "4", "8", "16", "32", "64") and float(one) < float(other)
        answer = self.answers.get(FRACTION) if is_fraction else "members"
        if answer == "members":
            unit = unit or "mm"
            self.cells = {**self.cells, "thickness": f"{one} {unit}", "thickness2": f"{other} {unit}"}
        elif answer == "inch":
            self.cells = {**self.cells, "thickness": f"{one}/{other} in"}
        else:
            self.cells = {**self.cells, "thickness": ""}
            message = tr("Is {text} the thickness of both members, or a fraction of an inch?", text=told[0])
            self.problems.append(
                CellProblem(column="thickness", message=message, asks=FRACTION, choices=("members", "inch"))
            )

    def _metal(self, column: str) -> str | None:
        told = self.text(column)
        if not told:
            return None
        if find(told) is None:
            near = tuple(one.name for one in search(told, 6))
            raise _Wrong(
                replace(
                    self._unknown(column, told, near),
                    message=tr("“{text}” is no metal of the catalogue.", text=told),
                )
            )
        return told

    def _positions(self) -> list[str]:
        """Positions; where a list names none, that is asked once, and may be left open."""
        told = self.text("positions")
        if not told:
            message = tr("The list names no position. In which positions is it welded?")
            raise _Wrong(replace(self._unknown("positions", "", ("unknown",)), message=message))
        if told == "unknown":
            return []
        known = {one.casefold(): one for one in get_args(f.Position)}
        found = []
        for part in re.split(r"[\s,;/+]+", told):
            if not part:
                continue
            if part.casefold() not in known:
                raise _Wrong(self._unknown("positions", part if part == told else told, ()))
            found.append(known[part.casefold()])
        return list(dict.fromkeys(found))

    def _process(self) -> str | None:
        told = self.text("process")
        if not told:
            return None
        try:
            return read_process(told)
        except AmbiguousError as error:
            raise _Wrong(self._unknown("process", told, error.candidates)) from error
        except UnreadableError as error:
            raise _Wrong(self._unknown("process", told, ())) from error

    def _impact(self) -> dict[str, float] | bool | None:
        told = self.text("impact")
        if not told:
            return None
        if word_key(told) in words("yes-no"):
            return self._yes("impact")
        joules = re.search(r"(\d+(?:[.,]\d+)?)\s*J\b", told)
        at = re.search(r"([-−–+]?\s*\d+(?:[.,]\d+)?)\s*(?:°\s*)?(C|F)\b", told)
        if joules is None or at is None:
            raise UnreadableError(told, tr("write it as 27 J at -20 C, yes or no"))
        degrees = at[1].replace("−", "-").replace("–", "-").replace(" ", "")
        return {
            "temperature_c": read_quantity(f"{degrees} {at[2]}", kind="temperature").value,
            "average_j": float(joules[1].replace(",", ".")),
        }


def _said(of: str, text: str) -> str | None:
    """What a cell says, whole or by its words; nothing where its words say two things."""
    whole = words(of).get(word_key(text))
    if whole is not None:
        return whole
    said = {words(of)[word_key(part)] for part in re.split(r"[\s,/;+]+", text) if word_key(part) in words(of)}
    return said.pop() if len(said) == 1 else None


_NOTHING: dict[str, Any] = {"joint": {"kind": "butt", "weld": "cjp-groove"}}


def _asked(column: str) -> str:
    """Both members' metals are asked about as one."""
    return "metal" if column == "metal2" else column
