"""The library: own records to keep, and catalogues to search as one types."""

from __future__ import annotations

from functools import partial
from typing import Annotated, Any, Literal

from api.damage import attempt
from api.errors import ProblemOut
from api.people import person
from django.db.models import QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status
from pydantic import Field, StringConstraints

from apps.accounts.permissions import Action, require
from apps.library.models import Kind, Record
from apps.library.queries import use_counts, uses_of, uses_of_listed
from apps.library.schemas import (
    AddIn,
    CarriedOut,
    FillerOut,
    MetalOut,
    RecordOut,
    SaveRecordIn,
    TungstensOut,
    UseOut,
)
from apps.library.services.add_record import add_record
from apps.library.services.remove_record import remove_record
from apps.library.services.save_record import save_record
from apps.procedures.models import Revision
from welding.checks.own_metal import as_metal
from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.documents.codec import CODECS, OWN_METAL, PRODUCT
from welding.documents.library import OwnMetal
from welding.documents.machine import Machine
from welding.machines.meters import overdue_meters
from welding.metals.catalogue import Metal, name_key, search
from welding.ranges import Range
from welding.setup.filler_search import search_fillers
from welding.setup.gas_search import GasFound, search_gases
from welding.setup.tungsten import carried_current, tungsten_named, tungsten_types

router = Router(tags=["library"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}
Text = Annotated[str, StringConstraints(max_length=500)]
Most = Annotated[int, Field(ge=1, le=1000)]


# --- own records -----------------------------------------------------------------------------


def _record_out(one: Record, used_in: int) -> RecordOut:
    document, damaged = attempt(f"{one.kind} {one.pk}", lambda: CODECS[one.kind].take(one.document))
    today = timezone.localdate()
    return RecordOut(
        id=one.pk,
        kind=one.kind,
        name=one.name,
        version=one.version,
        document=document,
        damaged=damaged,
        saved_by=one.saved_by.shown_name,
        saved_at=one.saved_at,
        used_in=used_in,
        overdue_meters=list(overdue_meters(document, today)) if isinstance(document, Machine) else [],
    )


def _uses_out(found: QuerySet[Revision]) -> list[UseOut]:
    return [
        UseOut(
            revision_id=one.pk,
            number=one.procedure.number,
            letter=one.letter,
            title=one.title,
            stage=one.stage,
            job=one.procedure.job.number,
        )
        for one in found[:200]
    ]


@router.get("/library", response=list[RecordOut])
def list_records(
    request: HttpRequest, kind: Literal["metal", "product", "machine", "chart"]
) -> list[RecordOut]:
    """All own records of a kind."""
    require(person(request), Action.VIEW)
    counts = use_counts(kind)
    records = Record.objects.filter(kind=kind).select_related("saved_by")
    return [_record_out(one, counts[one.name]) for one in records]


@router.post("/library", response={201: RecordOut, **REFUSALS})
def add(request: HttpRequest, payload: AddIn) -> Status[RecordOut]:
    """Add a record."""
    return Status(201, _record_out(add_record(person(request), payload.document), 0))


@router.put("/library/{int:record_id}", response={200: RecordOut, **REFUSALS})
def save(request: HttpRequest, record_id: int, payload: SaveRecordIn) -> RecordOut:
    """Correct a record; 409 with what stands now if someone did in the meantime."""
    record = get_object_or_404(Record, pk=record_id)
    saved = save_record(person(request), record, payload.version, payload.document)
    return _record_out(saved, use_counts(saved.kind)[saved.name])


@router.delete("/library/{int:record_id}", response={204: None, **REFUSALS})
def remove(request: HttpRequest, record_id: int) -> Status[None]:
    """Remove a record; 409 with where it is used while anything uses it."""
    remove_record(person(request), get_object_or_404(Record, pk=record_id))
    return Status(204, None)


@router.get("/library/{int:record_id}/used", response={200: list[UseOut], 404: ProblemOut})
def record_used(request: HttpRequest, record_id: int) -> list[UseOut]:
    """Revisions that take this record along."""
    require(person(request), Action.VIEW)
    return _uses_out(uses_of(get_object_or_404(Record, pk=record_id)))


@router.get("/used", response=list[UseOut])
def listed_used(
    request: HttpRequest, kind: Literal["metal", "filler", "gas", "tungsten"], name: Text
) -> list[UseOut]:
    """Revisions that name something of a catalogue."""
    require(person(request), Action.VIEW)
    return _uses_out(uses_of_listed(kind, name))


# --- catalogues ------------------------------------------------------------------------------


def _metal_out(one: Metal, thickness_mm: float | None, own: OwnMetal | None = None) -> MetalOut:
    return MetalOut(
        name=one.name,
        also=list(one.also),
        standard=one.standard,
        family=one.family,
        condition=one.condition,
        iso_15608=one.iso_15608,
        reason=one.grouped.reason,
        aws_d1_1=one.aws_d1_1,
        yield_mpa=one.yield_at(thickness_mm),
        yield_steps_mpa=list(one.yield_steps_mpa),
        tensile_mpa=one.tensile_mpa,
        chemistry=one.chemistry,
        magnetic=one.magnetic,
        citation=one.citation,
        own=own,
    )


@router.get("/metals", response=list[MetalOut])
def list_metals(
    request: HttpRequest, search_text: Text = "", thickness_mm: float | None = None, most: Most = 12
) -> list[MetalOut]:
    """Grades that people may mean, own records first; the yield is that of the thickness given."""
    require(person(request), Action.VIEW)
    wanted = name_key(search_text)
    own = []
    for record in Record.objects.filter(kind=Kind.METAL):
        document, _ = attempt(f"metal {record.pk}", partial(OWN_METAL.take, record.document))
        if document is None:
            continue
        told = (document.name, *document.also, document.family, document.standard or "")
        if any(wanted in name_key(one) for one in told):
            own.append(_metal_out(as_metal(document), thickness_mm, document))
    listed = [_metal_out(one, thickness_mm) for one in search(search_text, most=most)]
    return [*own, *listed][:most]


@router.get("/fillers", response=list[FillerOut])
def list_fillers(request: HttpRequest, search_text: Text = "", most: Most = 12) -> list[FillerOut]:
    """Fillers that people may mean, those as bought first."""
    require(person(request), Action.VIEW)
    wanted = search_text.casefold().split()
    bought = []
    for record in Record.objects.filter(kind=Kind.PRODUCT):
        product, _ = attempt(f"product {record.pk}", partial(PRODUCT.take, record.document))
        if product is None:
            continue
        if all(word in f"{product.name} {product.designation}".casefold() for word in wanted):
            size = product.ranges[0].diameter_mm if len(product.ranges) == 1 else None
            bought.append(
                FillerOut(
                    decoded=decode(product.designation),
                    metal="",
                    said=product.name,
                    diameter_mm=size,
                    nominal=None,
                    product=product,
                )
            )
    found = [
        FillerOut(
            decoded=one.decoded,
            metal=one.metal,
            said=one.said,
            diameter_mm=one.diameter_mm,
            nominal=one.nominal,
        )
        for one in search_fillers(search_text, most=most)
    ]
    return [*bought, *found][:most]


@router.get("/gases", response=list[GasFound])
def list_gases(request: HttpRequest, search_text: Text = "") -> list[GasFound]:
    """Gases that people may mean."""
    require(person(request), Action.VIEW)
    return list(search_gases(search_text))


@router.get("/tungsten-carries", response=list[Range])
def tungsten_carries(
    request: HttpRequest,
    diameter_mm: float,
    polarity: Literal["DCEN", "DCEP", "AC"],
    type_text: Text = "",
    en_share: float | None = None,
) -> list[Range]:
    """What one tungsten carries [A], one range a published family; none where it is not known."""
    require(person(request), Action.VIEW)
    kind = tungsten_named(type_text)
    found = carried_current(diameter_mm, polarity, pure=kind is not None and kind.pure, en_share=en_share)
    return list(found.families) if found else []


@router.get("/tungstens", response=TungstensOut)
def list_tungstens(request: HttpRequest) -> TungstensOut:
    """Tungsten types, and what each diameter carries in argon."""
    require(person(request), Action.VIEW)
    table = load_table("welding.setup", "tungsten_current")
    sizes = [float(row["diameter_mm"]) for row in table.rows]
    return TungstensOut(
        types=list(tungsten_types()),
        oxide=[_carried(size, pure=False) for size in sizes],
        pure=[_carried(size, pure=True) for size in sizes],
        citation=table.citation,
    )


def _carried(size: float, *, pure: bool) -> CarriedOut:
    def families(polarity: Literal["DCEN", "DCEP", "AC"]) -> list[Any]:
        found = carried_current(size, polarity, pure=pure)
        return list(found.families) if found else []

    return CarriedOut(diameter_mm=size, dcen=families("DCEN"), ac=families("AC"), dcep=families("DCEP"))
