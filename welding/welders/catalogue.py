"""Finds the codes for persons by their folders, and the code of a designation by what it begins with."""

from __future__ import annotations

import pkgutil
from functools import lru_cache
from importlib import import_module

from welding.documents.welder_weld import WelderWeld
from welding.errors import UnknownEntryError, UnreadableError
from welding.language import tr
from welding.welders import codes
from welding.welders.edition import WelderEdition


@lru_cache(maxsize=1)
def welder_editions() -> dict[str, WelderEdition]:
    """Every edition by its id."""
    found = [
        import_module(f"welding.welders.codes.{module.name}.edition").EDITION
        for module in pkgutil.iter_modules(codes.__path__)
        if module.ispkg
    ]
    return {one.id: one for one in sorted(found, key=lambda one: one.id)}


def welder_edition(code: str) -> WelderEdition:
    """The edition with this id.

    Raises:
        UnknownEntryError: There is none.
    """
    found = welder_editions().get(code)
    if found is None:
        raise UnknownEntryError(
            tr(
                "{code} is no code for welders that is known here; {known} are",
                code=code,
                known=", ".join(welder_editions()),
            )
        )
    return found


def edition_for(procedure_code: str) -> WelderEdition | None:
    """The code by which whoever welds to such a procedure is qualified; ``None`` where none is known."""
    return next((one for one in welder_editions().values() if procedure_code in one.procedure_codes), None)


def read_designation(text: str) -> WelderWeld:
    """A designation as the weld that it stands for.

    Args:
        text: Such as ``ISO 9606-1 135 P BW FM1 S s10 PF ss nb``; what a certificate says beside it follows
            after a comma or in brackets: ``dip transfer``, ``turning``, ``3 layers``, ``branch 60``.

    Raises:
        UnreadableError: It begins with no code that is known here, or a part of it is missing, unknown, or
            contradicts another.
    """
    said = " ".join(text.split())
    for one in welder_editions().values():
        for prefix in one.prefixes:
            if said.upper().startswith(prefix.upper()):
                return one.read(said[len(prefix) :].strip())
    raise UnreadableError(
        text,
        tr(
            "A designation begins with its code: {known}.",
            known=", ".join(one.short for one in welder_editions().values()),
        ),
    )


def designation_of(weld: WelderWeld) -> str:
    """The designation of a weld, by its code."""
    return welder_edition(weld.code).write(weld)
