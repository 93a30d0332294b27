"""Where something of the library is used: in which revisions of which job."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from typing import Any

from django.db.models import Q, QuerySet

from apps.library.models import Kind, Record
from apps.procedures.models import Revision
from welding.consumables.gas import read_gas
from welding.errors import UnreadableError
from welding.metals.catalogue import find
from welding.setup.tungsten import tungsten_named

_PARTS = {Kind.METAL: "metals", Kind.PRODUCT: "products", Kind.MACHINE: "machines"}


def uses_of(record: Record) -> QuerySet[Revision]:
    """Revisions that take a record along; no revision takes a chart along."""
    if record.kind == Kind.CHART:
        return Revision.objects.none()
    return _revisions([{"shelf": {_PARTS[Kind(record.kind)]: [{"name": record.name}]}}])


def use_counts(kind: str) -> Counter[str]:
    """How many revisions take each record of a kind along, by its name; one query for all of them."""
    if kind == Kind.CHART:
        return Counter()
    part = _PARTS[Kind(kind)]
    taken = Revision.objects.filter(document__shelf__has_key=part).values_list(
        f"document__shelf__{part}", flat=True
    )
    return Counter(name for records in taken for name in {one["name"] for one in records})


def uses_of_listed(kind: str, name: str) -> QuerySet[Revision]:
    """Revisions that name something of a catalogue: metal, filler, gas or tungsten."""
    if kind == "metal":
        metal = find(name)
        names = {name, *((metal.name, *metal.also) if metal else ())}
        return _revisions([{"base_metals": [{"designation": one}]} for one in names])
    if kind == "filler":
        return _revisions([{"passes": [{"filler": {"designation": name}}]}])
    if kind == "tungsten":
        found = tungsten_named(name)
        names = {name, *((found.iso, found.aws, *found.also) if found else ())}
        return _revisions([{"passes": [{"tungsten": {"type": one}}]} for one in names])
    try:
        shares = read_gas(name)
    except UnreadableError:
        return Revision.objects.none()
    return _revisions([{"passes": [{part: {"components_percent": shares}}]} for part in ("gas", "purge")])


def _revisions(shapes: Iterable[dict[str, Any]]) -> QuerySet[Revision]:
    wanted = Q()
    for shape in shapes:
        wanted |= Q(document__contains=shape)
    return (
        Revision.objects.filter(wanted)
        .select_related("procedure__job")
        .defer("document", "body")
        .order_by("procedure__job__number", "procedure__number", "id")
    )
