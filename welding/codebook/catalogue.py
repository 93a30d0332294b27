"""Finds code editions by their folders."""

from __future__ import annotations

import pkgutil
from functools import lru_cache
from importlib import import_module

from welding import editions
from welding.codebook.edition import Edition


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
