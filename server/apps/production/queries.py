"""Reading the production log: joints as they are welded, welds by any of their facts, reject rates."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any, Literal

from django.db.models import Count, Exists, F, Func, OuterRef, Prefetch, Q, QuerySet
from django.db.models.functions import TruncMonth
from django.utils import timezone

from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from apps.production.models import Inspection, State, Weld
from apps.qualification.models import Purpose, Signature
from apps.weldlist.models import WeldList
from apps.weldlist.queries import ListedRow, StandingList, standing_list, weld_list_of
from apps.weldlist.wps import hash_of, wps_of
from welding.documents.weld_list import ListedJoint
from welding.language import tr
from welding.production.rates import RejectRate, reject_rate
from welding.weldlist.applying import applied_to
from welding.weldlist.joint_types import JointType, type_words

RateBy = Literal["welder", "wps", "position", "month"]


@dataclass(frozen=True, slots=True, kw_only=True)
class JointToLog:
    """A joint of the list for whoever welds it.

    Attributes:
        row: Its row.
        listed: The list.
        standing: The list as it is read.
        kind: Its joint type; ``None`` where the row does not say enough.
        assigned: The WPS assigned to it.
    """

    row: ListedRow
    listed: WeldList
    standing: StandingList
    kind: JointType | None
    assigned: Revision | None

    @property
    def joint(self) -> ListedJoint | None:
        """The joint as the row was read."""
        return self.row.read.joint

    @property
    def count(self) -> int:
        """How many welds the mark stands for."""
        return self.joint.count if self.joint is not None else 1

    @property
    def facts_hash(self) -> str:
        """What the facts of its type are found again by; empty without a type."""
        return hash_of(self.kind) if self.kind is not None else ""

    @property
    def words(self) -> str:
        """The joint type in a line, in SI units; what is kept with a weld."""
        return type_words(self.kind.joint) if self.kind is not None else ""


def joint_to_log(job: Job, mark: str) -> JointToLog | None:
    """The joint of this mark; ``None`` where the list has none."""
    listed = weld_list_of(job)
    if listed is None:
        return None
    standing = standing_list(listed)
    row = next((one for one in standing.rows if one.cells.get("mark", "") == mark), None)
    if row is None:
        return None
    kind = next((one for one in standing.types if one.key == row.type), None)
    assigned = None
    if kind is not None:
        found = (
            listed.assignments.filter(facts_hash=hash_of(kind)).select_related("revision__procedure").first()
        )
        assigned = found.revision if found else None
    return JointToLog(row=row, listed=listed, standing=standing, kind=kind, assigned=assigned)


def joints_to_log(job: Job) -> Iterator[JointToLog]:
    """Every joint of the list that has a mark, in the order of the list; none where there is no list."""
    listed = weld_list_of(job)
    if listed is None:
        return
    standing = standing_list(listed)
    kinds = {one.key: one for one in standing.types}
    assigned = {
        one.facts_hash: one.revision for one in listed.assignments.select_related("revision__procedure")
    }
    hashes = {key: hash_of(kind) for key, kind in kinds.items()}
    for row in standing.rows:
        if row.cells.get("mark", ""):
            kind = kinds.get(row.type)
            wps = assigned.get(hashes[kind.key]) if kind is not None else None
            yield JointToLog(row=row, listed=listed, standing=standing, kind=kind, assigned=wps)


@dataclass(frozen=True, slots=True)
class Fit:
    """Whether the WPS covered the joint on the day that it was welded, and what stands against it."""

    verdict: Literal["covered", "open", "blocked"]
    against: tuple[str, ...]


def fit_of(joint: JointToLog, revision: Revision, day: date, *, was_assigned: bool = False) -> Fit:
    """Whether a joint may be welded to a revision on a day.

    A revision that was in force on that day counts, whatever became of it later. Another than the assigned
    one is left to the engineer, also where it covers the joint.

    Args:
        joint: The joint.
        revision: What it is welded to.
        day: The day of welding.
        was_assigned: It was the assigned one when the weld was made: what is assigned since is not asked.
    """
    if not in_force_on(revision, day):
        said = tr("{wps} was not released on {day}.", wps=revision, day=day.isoformat())
        return Fit("blocked", (said,))
    if joint.kind is None:
        problems = [one.message for one in joint.row.read.problems]
        return Fit("open", (tr("The weld list does not say enough of this joint."), *problems))
    found = next(iter(wps_of(Revision.objects.filter(pk=revision.pk))), None)
    if found is None:
        return Fit("blocked", (tr("{wps} does not match what was signed.", wps=revision),))
    applied = applied_to(found.document, joint.kind.joint, found.records, joint.standing.code)
    against = tuple(one.message for one in applied.findings)
    if applied.verdict != "covered":
        return Fit(applied.verdict, against)
    if was_assigned:
        return Fit("covered", ())
    if joint.assigned is None:
        return Fit("open", (tr("No WPS is assigned to this joint."),))
    if joint.assigned.pk != revision.pk:
        return Fit("open", (tr("The WPS assigned to this joint is {wps}.", wps=joint.assigned),))
    return Fit("covered", ())


def in_force_on(revision: Revision, day: date) -> bool:
    """Whether a revision was released on a day: from its release to its withdrawal or the next release."""
    signed = Signature.objects.filter(
        revision__procedure_id=revision.procedure_id, purpose__in=(Purpose.RELEASE, Purpose.WITHDRAW)
    ).order_by("at", "id")
    since = until = None
    for one in signed:
        own = one.revision_id == revision.pk
        if own and one.purpose == Purpose.RELEASE:
            since, until = timezone.localdate(one.at), None
        elif since is not None and until is None and (own or one.purpose == Purpose.RELEASE):
            until = timezone.localdate(one.at)
    return since is not None and since <= day and (until is None or day <= until)


def loggable_wps(job: Job) -> list[Revision]:
    """Revisions that are or were released, the released ones first."""
    stages = (Stage.RELEASED, Stage.SUPERSEDED, Stage.WITHDRAWN)
    found = Revision.objects.filter(procedure__job=job, stage__in=stages).select_related("procedure")
    return sorted(found, key=lambda one: (one.stage != Stage.RELEASED, str(one)))


# --- searching ------------------------------------------------------------------------------------


def with_inspections(welds: QuerySet[Weld]) -> QuerySet[Weld]:
    """Welds with what was found on them, read at once."""
    return welds.prefetch_related(Prefetch("inspections", queryset=Inspection.objects.order_by("id")))


def search(job: Job, asked: Mapping[str, Any]) -> QuerySet[Weld]:
    """Welds of a job by any of their facts.

    Args:
        job: The job.
        asked: ``mark`` (a part of it), ``welder``, ``batch``, ``heat``, ``wps`` (id of a revision),
            ``state``, ``method`` with ``accepted``, ``since`` and ``until``; what is empty is not asked.
    """
    welds = Weld.objects.filter(job=job)
    if asked.get("mark"):
        welds = welds.filter(mark__icontains=asked["mark"])
    for name, column in (("welder", "welders"), ("batch", "batches"), ("heat", "heats")):
        if asked.get(name):
            welds = welds.filter(**{f"{column}__contains": [asked[name]]})
    if asked.get("wps"):
        welds = welds.filter(revision_id=asked["wps"])
    state = asked.get("state")
    welds = welds.filter(state=state) if state else welds.exclude(state=State.STRUCK)
    if asked.get("method"):
        found = Inspection.objects.filter(weld=OuterRef("pk"), method=asked["method"], struck_reason="")
        if asked.get("accepted") is not None:
            found = found.filter(accepted=asked["accepted"])
        welds = welds.filter(Exists(found))
    if asked.get("since"):
        welds = welds.filter(welded_on__gte=asked["since"])
    if asked.get("until"):
        welds = welds.filter(welded_on__lte=asked["until"])
    return welds


@dataclass(frozen=True, slots=True)
class RateLine:
    """A reject rate of one welder, WPS, position or month."""

    of: str
    rate: RejectRate


def reject_rates(job: Job, by: RateBy, methods: tuple[str, ...]) -> list[RateLine]:
    """Reject rates by welder, WPS, position or month.

    A weld counts as inspected where one of the methods was used on it, as rejected where one of them ever
    rejected it; a repair is a weld of its own. Of several welders of a weld each is counted with it.

    Args:
        job: The job.
        by: What the welds are grouped by.
        methods: Methods of testing that count.
    """
    group: dict[RateBy, Any] = {
        "welder": Func(F("welders"), function="unnest"),
        "wps": F("wps"),
        "position": F("position"),
        "month": TruncMonth("welded_on"),
    }
    rows = (
        Weld.objects.filter(job=job, inspections__method__in=methods, inspections__struck_reason="")
        .exclude(state=State.STRUCK)
        .annotate(of=group[by])
        .order_by()
        .values("of")
        .annotate(
            inspected=Count("pk", distinct=True),
            rejected=Count("pk", distinct=True, filter=Q(inspections__accepted=False)),
        )
    )
    lines = [
        RateLine(
            of=row["of"].strftime("%Y-%m") if by == "month" else row["of"],
            rate=reject_rate(row["rejected"], row["inspected"]),
        )
        for row in rows
    ]
    if by == "month":
        return sorted(lines, key=lambda one: one.of)
    return sorted(lines, key=lambda one: (-(one.rate.share or 0.0), one.of))


RECENT = 300
"""Entries by which names are offered that were typed before."""


def recent_names(job: Job) -> dict[str, list[str]]:
    """Welders, batches and heats of the latest entries, the latest first, without doubles."""
    rows = list(
        Weld.objects.filter(job=job)
        .exclude(state=State.STRUCK)
        .order_by("-id")
        .values("welders", "batches", "heats")[:RECENT]
    )
    return {
        column: list(dict.fromkeys(name for row in rows for name in row[column]))[:40]
        for column in ("welders", "batches", "heats")
    }
