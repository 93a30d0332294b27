"""The production log as evidence that people have welded."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from datetime import date

from api.errors import DamagedError
from django.db.models import Prefetch

from apps.crew.evidence import DayAtWork, Log, Tested, Work
from apps.procedures.models import Revision
from apps.production.models import Inspection, Weld
from apps.weldlist.queries import standing_list, weld_list_of
from apps.weldlist.wps import hash_of
from welding.documents.procedure import Procedure
from welding.language import tr
from welding.weldlist.applying import written_for
from welding.weldlist.joint_types import JointType


def _works(name: str, since: date, until: date) -> Iterable[Work]:
    welds = (
        Weld.objects.filter(
            welders__contains=[name], welded_on__gte=since, welded_on__lte=until, struck_reason=""
        )
        .select_related("job", "revision__procedure")
        .prefetch_related(
            Prefetch("inspections", queryset=Inspection.objects.filter(struck_reason="").order_by("id"))
        )
    )
    types: dict[int, dict[str, JointType]] = {}
    written: dict[tuple[int, str], Procedure | None] = {}
    for weld in welds:
        if weld.job_id not in types:
            listed = weld_list_of(weld.job)
            kinds = standing_list(listed).types if listed is not None else ()
            types[weld.job_id] = {hash_of(one): one for one in kinds}
        same = (weld.revision_id, weld.facts_hash)
        if same not in written:
            kind = types[weld.job_id].get(weld.facts_hash)
            document = _contents(weld.revision)
            if kind is None or document is None:
                written[same] = None
            else:
                written[same] = written_for(document, kind.joint)
        yield Work(
            ref=f"weld-{weld.pk}",
            name=name,
            on=weld.welded_on,
            what=tr("{job}, weld {mark}, WPS {wps}", job=weld.job.number, mark=str(weld), wps=weld.wps)[:200],
            procedure=written[same],
            same=("weld", *same),
            tested=tuple(
                Tested(method=one.method, accepted=one.accepted, report=one.report)
                for one in weld.inspections.all()
            ),
        )


def _days(names: Collection[str]) -> Iterable[DayAtWork]:
    wanted = set(names)
    rows = (
        Weld.objects.filter(welders__overlap=list(wanted), struck_reason="")
        .order_by()
        .values_list("welders", "welded_on", "revision_id")
        .distinct()
    )
    found = {(name, day, wps) for welders, day, wps in rows for name in welders if name in wanted}
    for name, day, wps in found:
        yield DayAtWork(name=name, on=day, revision_id=wps)


def _contents(revision: Revision) -> Procedure | None:
    """A procedure, unless its bytes are not those that were signed: it says nothing of the work then."""
    try:
        return revision.contents()
    except DamagedError:
        return None


LOG = Log(works=_works, days=_days)
