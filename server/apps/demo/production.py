"""The demo's production welds: a day at the deck plates, with a rejection, its repair, and releases."""

from __future__ import annotations

from uuid import uuid4

from django.utils import timezone

from apps.accounts.models import User
from apps.jobs.models import Job
from apps.procedures.models import Revision, Stage
from apps.production.models import Weld
from apps.production.services.inspect_weld import Result, enter_result, release_weld
from apps.production.services.log_weld import WeldEntry, log_weld
from welding.documents.codec import PASS_RECORD

PLATES = [f"DB{number:02d}" for number in range(1, 13)]
SPLICES = [f"GF{number:02d}" for number in range(1, 5)]
WELDERS = ("Rell Okafor", "Signe Holm")
REJECTED = {"DB07": "lack of fusion, 35 mm long, 210 mm from the drawing's left"}
INSPECTOR = "Tobiah Lind"


def weld_production(job: Job, users: dict[str, User]) -> None:
    """Log, inspect and release welds through the services that people use."""
    revision = Revision.objects.filter(procedure__job=job, stage=Stage.RELEASED).first()
    if revision is None:
        return
    for at, mark in enumerate([*PLATES, *SPLICES]):
        weld = _log(job, users, revision, mark, at)
        if at >= len(PLATES) + 2:
            continue  # the last two are welded and not looked at yet
        _found(weld, users, "VT")
        if mark in REJECTED:
            _found(weld, users, "UT", REJECTED[mark])
            weld.refresh_from_db()
            repair = _log(job, users, revision, mark, at, repaired=weld)
            _found(repair, users, "VT")
        elif at % 3 == 0:
            _found(weld, users, "UT")
        weld.refresh_from_db()
        if weld.state == "accepted" and at < len(PLATES) - 2:
            release_weld(users["inspector"], weld.pk)


def _log(
    job: Job, users: dict[str, User], revision: Revision, mark: str, at: int, repaired: Weld | None = None
) -> Weld:
    passes = [{"number": 1, "current_a": {"mean": 228}, "voltage_v": {"mean": 25.4}, "travel_mm_min": 300}]
    entry = WeldEntry(
        mark=mark,
        item=1,
        revision_id=revision.pk,
        welders=[WELDERS[(at + (repaired is not None)) % 2]],
        batches=["TH-4471" if at < len(PLATES) else "TH-4502"],
        heats=["48219", "48220"] if at < len(PLATES) else ["50177"],
        welded_on=timezone.localdate(),
        values=[PASS_RECORD.take(one) for one in passes] if at % 5 == 0 else [],
        repair_of=repaired.pk if repaired is not None else None,
    )
    return log_weld(users["welder"], job, uuid4(), entry)


def _found(weld: Weld, users: dict[str, User], method: str, rejected: str = "") -> None:
    result = Result(
        method=method,  # type: ignore[arg-type]
        accepted=not rejected,
        inspector=INSPECTOR,
        inspected_on=timezone.localdate(),
        report=f"{method}-{weld.pk:03d}" if method != "VT" else "",
        found=rejected,
    )
    enter_result(users["inspector"], weld.pk, uuid4(), result)
