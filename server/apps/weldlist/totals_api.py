"""What the job of a weld list takes: metal, filler, gas, time and cost."""

from __future__ import annotations

from typing import Literal

from api.downloads import attachment
from api.people import person
from api.sheets import TYPES, Rows, written
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from apps.accounts.permissions import Action, require
from apps.weldlist.listed import REFUSALS, listed_of
from apps.weldlist.models import WeldList
from apps.weldlist.queries import StandingList, prices_of
from apps.weldlist.wps import applied_table, assigned_of, released_wps
from welding.documents.procedure import Code
from welding.language import tr
from welding.weldlist.totals import JobTotals, job_totals

router = Router(tags=["weld list"])


class TotalsOut(Schema):
    """What the job takes; ``left_out`` is in none of the sums."""

    version: int
    code: Code
    currency: str
    totals: JobTotals


def _totals(listed: WeldList, standing: StandingList) -> JobTotals:
    wps = released_wps(listed.job)
    documents = {one.revision.pk: one.document for one in wps}
    assigned = {
        one.kind.key: documents[one.assignment.revision_id]
        for one in assigned_of(listed, standing, wps, applied_table(standing, wps))
        if one.kind is not None and not one.against
    }
    lines = {row.read.joint.mark: row.read.joint for row in standing.rows if row.read.joint is not None}
    return job_totals(standing.types, lines, assigned, prices_of(listed))


@router.get("/jobs/{int:job_id}/weld-list/totals", response={200: TotalsOut, **REFUSALS})
def totals(request: HttpRequest, job_id: int) -> TotalsOut:
    """What the job takes, of the welds whose length and WPS are known."""
    require(person(request), Action.VIEW)
    _, listed, standing = listed_of(job_id)
    return TotalsOut(
        version=standing.version,
        code=standing.code,
        currency=prices_of(listed).currency,
        totals=_totals(listed, standing),
    )


@router.get("/jobs/{int:job_id}/weld-list/totals/file", response={200: None, **REFUSALS})
def totals_file(request: HttpRequest, job_id: int, kind: Literal["csv", "xlsx"] = "xlsx") -> HttpResponse:
    """The totals as a sheet."""
    require(person(request), Action.VIEW)
    job, listed, standing = listed_of(job_id)
    found = _totals(listed, standing)
    currency = prices_of(listed).currency
    rows: Rows = [
        [tr("Welds"), found.welds],
        [tr("Length (m)"), round(found.length_m, 2)],
        [tr("Weld metal (kg)"), round(found.weld_metal_kg, 2)],
        [tr("Cost ({currency})", currency=currency), round(found.cost, 2)],
        [],
        [
            tr("Filler"),
            tr("Process"),
            tr("Diameter (mm)"),
            tr("Used (kg)"),
            tr("To buy (kg)"),
            tr("Packs"),
            tr("Pack"),
        ],
        *(
            [
                one.filler,
                one.process,
                one.diameter_mm,
                _rounded(one.used_kg),
                _rounded(one.bought_kg),
                one.packs,
                f"{one.pack} {one.pack_kg:g} kg" if one.pack_kg else "",
            ]
            for one in found.fillers
        ),
        [],
        [tr("Gas"), tr("Litres")],
        *([name, _rounded(litres)] for name, litres in found.gas_l.items()),
    ]
    for title, lines in ((tr("Process and position"), found.hours), (tr("Part"), found.parts)):
        head = [title, tr("Welds"), tr("Weld metal (kg)"), tr("Arc time (h)"), tr("Time at the joint (h)")]
        rows += [[], [*head, tr("Cost ({currency})", currency=currency)]]
        rows += [
            [
                one.of,
                one.welds,
                round(one.weld_metal_kg, 2),
                round(one.arc_h, 2),
                round(one.at_joint_h, 2),
                round(one.cost, 2),
            ]
            for one in lines
        ]
    rows += [[], [tr("Not counted"), tr("Welds"), tr("Joint types")]]
    rows += [[one.reason, one.welds, ", ".join(one.types)] for one in found.left_out]
    return attachment(written(rows, kind, tr("Totals")), TYPES[kind], f"{job.number} totals.{kind}")


def _rounded(value: float | None) -> float | str:
    return tr("not known") if value is None else round(value, 2)
