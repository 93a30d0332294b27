"""Booth sheets and joint cards by the hundred: set part by part by a process beside the server."""

from __future__ import annotations

import hashlib
import io
import json
from collections.abc import Callable, Iterator
from typing import Any

from django.conf import settings
from django.core.files.base import ContentFile
from django.db import transaction
from pypdf import PdfWriter

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.background.work import Watch, answered, carry_out, end, start_process
from apps.printing.joint_cards import MOST_CARDS, cards_pdf
from apps.printing.joint_sheets import PART_SHEETS, sheets_pdf
from apps.printing.joints_printed import Printed, Printing
from apps.printing.models import PrintRun
from apps.weldlist.models import WeldList
from apps.weldlist.queries import standing_list
from apps.weldlist.wps import holding_wps, released_wps
from welding.codebook.book import in_force
from welding.errors import WeldingError
from welding.language import language, speaking, tr

KEPT = 6
"""Prints of a list that are kept."""
MOST_OF = {"sheets": 1000, "cards": 30_000}
"""What one PDF may hold: the printer's reader has to open it."""
PARTS: dict[str, tuple[int, Callable[[Printed, int, int], bytes]]] = {
    "sheets": (PART_SHEETS, sheets_pdf),
    "cards": (MOST_CARDS, cards_pdf),
}


def ask(user: User, listed: WeldList, what: str, how: Printing) -> PrintRun:
    """Ask for the sheets or cards of the whole list; what was asked already is not set again.

    Args:
        user: Who asks.
        listed: The list.
        what: ``sheets`` for joint types, ``cards`` for joints.
        how: Paper, units, languages, and where the codes lead.

    Raises:
        NotAllowedError: The role does not allow it.
    """
    require(user, Action.VIEW)
    asked = {"what": what, **how.plain()}
    asked_hash = _hash_of(listed, asked)
    with transaction.atomic():
        WeldList.objects.select_for_update().get(pk=listed.pk)
        known = answered(listed.print_runs.all(), asked_hash)
        if known is not None:
            return known
        run = PrintRun.objects.create(
            weld_list=listed, asked=asked, asked_hash=asked_hash, language=language(), asked_by=user
        )
        kept = listed.print_runs.order_by("-id").values_list("pk", flat=True)[:KEPT]
        for old in listed.print_runs.exclude(pk__in=list(kept)):
            _drop(old)
    if settings.WORK_APART:
        transaction.on_commit(start_printer)
    else:
        take_up(run)
    run.refresh_from_db()
    return run


def stop(user: User, run: PrintRun) -> PrintRun:
    """End a print; one that is done stays.

    Raises:
        NotAllowedError: The role does not allow it.
    """
    require(user, Action.VIEW)
    return end(run)


def is_current(run: PrintRun) -> bool:
    """Whether the joints and the WPS of each are what they were when it was asked for."""
    with speaking(run.language):
        return run.asked_hash == _hash_of(run.weld_list, run.asked)


def _hash_of(listed: WeldList, asked: dict[str, Any]) -> str:
    """Over all that a print rests on: the list, the WPS that holds for each of its types, the code book."""
    held = holding_wps(listed, standing_list(listed), released_wps(listed.job))
    by_type = sorted((key, one.revision.pk) for key, one in held.items())
    rests_on = [listed.pk, listed.version, asked, in_force().digest, language(), by_type]
    return hashlib.sha256(json.dumps(rests_on, sort_keys=True).encode()).hexdigest()


def _drop(run: PrintRun) -> None:
    storage, name = run.file.storage, run.file.name
    run.delete()
    if name:
        transaction.on_commit(lambda: storage.delete(name))


def start_printer() -> None:
    """Start the process that takes up what waits."""
    start_process("set_prints")


def take_up(run: PrintRun, _workers: int = 1, let_go: Callable[[], None] = lambda: None) -> None:
    """Set the sheets, and keep the PDF or why there is none.

    Args:
        run: What was asked for.
        let_go: Gives the connection back; called whenever it goes on without it.
    """
    saved: list[str] = []

    def made() -> dict[str, Any]:
        saved.append(_kept(run, let_go))
        return {"file": saved[0]}

    carry_out(run, made, let_go)
    if saved and not PrintRun.objects.filter(pk=run.pk, file=saved[0]).exists():
        run.file.storage.delete(saved[0])  # somebody ended it while the file was written
        let_go()


def _kept(run: PrintRun, let_go: Callable[[], None]) -> str:
    if not is_current(run):
        raise WeldingError(tr("The list or its WPSs changed since: print again."))
    watch = Watch(run, let_go)
    printed = Printed.of(run.weld_list, Printing.take(run.asked))
    whole = PdfWriter()
    for part in _parts(run.asked["what"], printed, watch):
        whole.append(io.BytesIO(part))
    whole.compress_identical_objects()
    data = io.BytesIO()
    whole.write(data)
    name = f"{run.asked['what']}-{run.pk}.pdf"
    run.file.save(name, ContentFile(data.getvalue()), save=False)
    return str(run.file.name)


def _parts(what: str, printed: Printed, watch: Watch) -> Iterator[bytes]:
    count = len(printed.standing.types) if what == "sheets" else len(printed.rows())
    if count > MOST_OF[what]:
        raise WeldingError(tr("One PDF holds at most {most}: print them type by type.", most=MOST_OF[what]))
    step, set_part = PARTS[what]
    for first in range(0, count, step):
        watch("set", first, count)
        yield set_part(printed, first, step)
    watch("join", 0, 1)
