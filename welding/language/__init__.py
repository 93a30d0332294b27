"""In which language a sentence is said.

The source is English. A sentence is a template with named places, as in
``tr("Up to {limit} is usual.", limit=limit)``. A catalogue (``locales/<language>.po``) has its translation;
English is said where it has none. The language is that of the context: the server sets it for each request,
and whatever is stored or signed is said in English. Numbers that a sentence names are written as the language
writes them, with a decimal comma in German and Spanish.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import cache, wraps
from pathlib import Path
from typing import Literal, ParamSpec, TypeVar

from babel.core import UnknownLocaleError
from babel.messages.pofile import read_po
from babel.numbers import get_decimal_symbol

Usage = Literal["aws", "iso"]
SOURCE = "en"
P = ParamSpec("P")
R = TypeVar("R")
_language: ContextVar[str] = ContextVar("language", default=SOURCE)
_usage: ContextVar[Usage] = ContextVar("usage", default="iso")
_pinned: ContextVar[Usage | None] = ContextVar("pinned", default=None)
_folders: list[Path] = [Path(__file__).parent / "locales"]


def language() -> str:
    """The language of the context, such as ``de``."""
    return _language.get()


@contextmanager
def speaking(chosen: str) -> Iterator[None]:
    """Say all within in this language; in English what its catalogues lack."""
    token = _language.set(chosen)
    try:
        yield
    finally:
        _language.reset(token)


def usage() -> Usage:
    """Whose terms are said: those the reader pinned, else those of the code in force, else those of ISO."""
    return _pinned.get() or _usage.get()


@contextmanager
def terms_of(code: Usage | None) -> Iterator[None]:
    """Say all within in the terms of a code, unless the reader pinned others."""
    token = _usage.set(code or "iso")
    try:
        yield
    finally:
        _usage.reset(token)


@contextmanager
def pinned_terms(pin: Usage | None) -> Iterator[None]:
    """Whatever the code in force, say these terms."""
    token = _pinned.set(pin)
    try:
        yield
    finally:
        _pinned.reset(token)


def in_source_language(function: Callable[P, R]) -> Callable[P, R]:
    """For what is stored or signed: it reads the same whoever stored it."""

    @wraps(function)
    def wrapped(*args: P.args, **kwargs: P.kwargs) -> R:
        with speaking(SOURCE), pinned_terms(None):
            return function(*args, **kwargs)

    return wrapped


def add_catalogues(folder: Path) -> None:
    """Read ``<folder>/<language>.po`` too: for sentences of a layer above."""
    if folder not in _folders:
        _folders.append(folder)
        _catalogue.cache_clear()


@cache
def _catalogue(chosen: str) -> dict[str, str]:
    """Template -> translated template, of what is translated."""
    found: dict[str, str] = {}
    for folder in _folders:
        file = folder / f"{chosen}.po"
        if file.is_file():
            with file.open("rb") as stream:
                found |= {
                    str(one.id): str(one.string)
                    for one in read_po(stream, locale=chosen)
                    if one.id and one.string and not one.fuzzy
                }
    return found


@cache
def _has_decimal_comma(chosen: str) -> bool:
    try:
        return get_decimal_symbol(chosen) == ","
    except UnknownLocaleError:
        return False


_SWAPPED = str.maketrans(".,", ",.")


class _Decimal(float):
    """A number of a sentence in a language with a decimal comma."""

    def __format__(self, spec: str) -> str:
        return format(float(self), spec).translate(_SWAPPED)


class _Count(int):
    """The same for whole numbers, whose thousands may be parted."""

    def __format__(self, spec: str) -> str:
        return format(int(self), spec).translate(_SWAPPED)


def digits(text: str) -> str:
    """A number that was written with a point, with the decimal sign of the language of the context.

    Example:
        >>> with speaking("de"):
        ...     print(digits("0.86"), digits("3/8"))
        0,86 3/8
    """
    return text.translate(_SWAPPED) if _has_decimal_comma(_language.get()) else text


def number(value: float, spec: str = "g") -> str:
    """A number in the digits of the language of the context, formatted as ``format`` does.

    Example:
        >>> with speaking("de"):
        ...     print(number(0.5), number(1234.5, ",.1f"))
        0,5 1.234,5
    """
    return digits(format(value, spec))


def _as_written(value: object) -> object:
    if type(value) is float:
        return _Decimal(value)
    return _Count(value) if type(value) is int else value


def tr(template: str, /, **values: object) -> str:
    """The sentence in the language of the context, its places filled.

    Args:
        template: English, with named places as of ``str.format`` where there are values.
        values: What goes into the places; formatted as the template says.

    Example:
        >>> tr("Up to {limit} is usual.", limit="3 mm")
        'Up to 3 mm is usual.'
    """
    chosen = _language.get()
    if chosen != SOURCE:
        template = _catalogue(chosen).get(template, template)
        if values and _has_decimal_comma(chosen):
            values = {name: _as_written(value) for name, value in values.items()}
    return template.format_map(values) if values else template


def in_sentence(headline: str) -> str:
    """A headline within a sentence: its first letter small, but in German and where it is a symbol.

    Example:
        >>> in_sentence("Gap is too wide"), in_sentence("PF suits the weld")
        ('gap is too wide', 'PF suits the weld')
    """
    if _language.get() == "de" or not headline[1:2].islower():
        return headline
    return headline[:1].lower() + headline[1:]


def tr_noop(template: str) -> str:
    """Mark a sentence of a module's constant, which is read once; ``tr`` says it where it is used."""
    return template
