"""What a record's document gives its row, and whether its name is free."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from api.errors import ConflictError

from apps.library.models import Kind, Record
from welding.documents.chart import SettingsChart
from welding.documents.codec import CODECS
from welding.documents.library import OwnMetal, Product
from welding.documents.machine import Machine
from welding.language import tr
from welding.metals.catalogue import all_metals, name_key

Document = Machine | Product | OwnMetal | SettingsChart


def columns_of(document: Document) -> dict[str, Any]:
    """Columns of a record's row."""
    kind = document.format.removeprefix("grounded-bead/")
    name = document.name.strip()
    return {
        "kind": kind,
        "name": name,
        "name_key": (name_key(name) if kind == Kind.METAL else name.casefold())[:120],
        "document": CODECS[kind].kept(replace(document, name=name)),
    }


def require_free(columns: dict[str, Any], but: int | None = None) -> None:
    """Refuse a name that stands already, among the own records or in the catalogue of metals.

    Raises:
        ConflictError: With the field's path.
    """
    kind, name, key = columns["kind"], columns["name"], columns["name_key"]
    taken = ""
    if not key:
        taken = tr("{name!r} holds no letter or figure.", name=name)
    elif Record.objects.filter(kind=kind, name_key=key).exclude(pk=but or 0).exists():
        taken = tr("There is a {kind} {name} already.", kind=kind, name=name)
    elif kind == Kind.METAL:
        own = {key, *(name_key(other) for other in columns["document"].get("also", []))}
        listed = next(
            (one for one in all_metals() if own & {name_key(other) for other in (one.name, *one.also)}), None
        )
        if listed is not None:
            taken = tr(
                "{name} ({standard}) is in the catalogue by that name.",
                name=listed.name,
                standard=listed.standard,
            )
    if taken:
        raise ConflictError(taken, errors=[{"path": "name", "message": taken, "value": name}])
