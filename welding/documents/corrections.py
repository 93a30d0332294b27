"""The document *book corrections*: what the owner of a copy confirmed or corrected, to take elsewhere."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field

from welding.codebook.book import Book, Correction, split_id
from welding.documents import fields as f
from welding.language import tr

Scalar = bool | int | float | f.Line
Value = Scalar | Annotated[list[Scalar | list[Scalar]], Field(max_length=100)]


@dataclass(frozen=True, slots=True, kw_only=True)
class NumberCorrection:
    """One number: its id, whether it stands or what is printed instead, why, by whom and when."""

    id: f.Name
    action: Literal["confirm", "correct"]
    value: Value | None = None
    reason: Annotated[f.Note, Field(min_length=1)]
    by: f.Line | None = None
    at: f.Line | None = None

    def __post_init__(self) -> None:
        split_id(self.id)
        if (self.action == "correct") == (self.value is None):
            raise ValueError(tr("a correction states its value, a confirmation states none"))


@dataclass(frozen=True, slots=True, kw_only=True)
class BookCorrections:
    """Confirmations and corrections of code tables."""

    format: Literal["grounded-bead/book-corrections"] = "grounded-bead/book-corrections"
    version: Literal[1] = 1
    organisation: f.Line | None = None
    corrections: Annotated[tuple[NumberCorrection, ...], Field(max_length=5000)] = ()

    def __post_init__(self) -> None:
        ids = [one.id for one in self.corrections]
        if len(set(ids)) != len(ids):
            twin = next(one for one in ids if ids.count(one) > 1)
            raise ValueError(tr("{twin} stands twice", twin=twin))

    @property
    def book(self) -> Book:
        """As the book that the core lays over its tables."""
        return Book(
            {
                one.id: Correction(id=one.id, action=one.action, value=_plain(one.value))
                for one in self.corrections
            }
        )


def _plain(value: Any) -> Any:
    return tuple(_plain(item) for item in value) if isinstance(value, list) else value
