"""The production log as a sheet."""

from __future__ import annotations

from api.sheets import Rows, written
from django.db.models import QuerySet

from apps.production.models import Weld
from welding.language import tr
from welding.production.state import METHODS, method_words, state_words


def log_file(welds: QuerySet[Weld], kind: str) -> bytes:
    """Welds, one a row, with the last result of each method of testing; ``kind`` is csv or xlsx."""
    head = [
        tr("Mark"), tr("Weld"), tr("Joint"), tr("WPS"), tr("Welders"), tr("Filler batches"), tr("Heats"),
        tr("Welded on"), tr("State"), tr("Repair of"), *(method_words(one) for one in METHODS), tr("Reports"),
        tr("Released by"), tr("Entered by"), tr("Remarks"), tr("Struck because"),
    ]  # fmt: skip
    rows: Rows = [head]
    for one in welds.iterator(chunk_size=2000):
        counting = [result for result in one.inspections.all() if not result.struck_reason]
        last = {result.method: result for result in counting}
        rows.append(
            [
                one.mark,
                one.item,
                one.joint,
                one.wps,
                ", ".join(one.welders),
                ", ".join(one.batches),
                ", ".join(one.heats),
                one.welded_on.isoformat(),
                state_words(one.state),
                f"{one.mark} {one.item}" if one.repair_of_id else "",
                *(_verdict(last[name].accepted) if name in last else "" for name in METHODS),
                ", ".join(result.report for result in counting if result.report),
                one.released_name,
                one.entered_name,
                one.remarks,
                one.struck_reason,
            ]
        )
    return written(rows, kind, tr("Production welds"))


def _verdict(accepted: bool) -> str:
    return tr("accepted") if accepted else tr("rejected")
