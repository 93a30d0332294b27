"""Finds code editions by their folders."""

from __future__ import annotations

import pkgutil
from collections.abc import Callable, Sequence
from functools import lru_cache, wraps
from importlib import import_module
from typing import ParamSpec, TypeVar

from welding import editions
from welding.codebook.edition import Edition
from welding.language import Usage, terms_of

P = ParamSpec("P")
R = TypeVar("R")


@lru_cache(maxsize=1)
def all_editions() -> dict[str, Edition]:
    """Every edition by its code id, in the order of the ids."""
    found = [
        import_module(f"welding.editions.{module.name}.edition").EDITION
        for module in pkgutil.iter_modules(editions.__path__)
        if module.ispkg
    ]
    return {edition.id: edition for edition in sorted(found, key=lambda one: one.id)}


def edition_of(code_id: str) -> Edition | None:
    """The edition with this code id, or ``None`` where there is none."""
    return all_editions().get(code_id)


def by_code(function: Callable[P, R]) -> Callable[P, R]:
    """Say what a function says in the terms of the code of what it is given first.

    For a procedure, a record or a joint to weld, or a sequence of them; without a code, those of ISO.
    """

    @wraps(function)
    def said(*args: P.args, **kwargs: P.kwargs) -> R:
        with terms_of(_usage_of(args[0])):
            return function(*args, **kwargs)

    return said


def _usage_of(subject: object) -> Usage | None:
    if isinstance(subject, Sequence):
        return next((found for one in subject if (found := _usage_of(one))), None)
    procedure = getattr(subject, "procedure", subject)
    code = getattr(procedure, "code", None)
    edition = edition_of(code.id) if code else None
    return edition.usage if edition else None
