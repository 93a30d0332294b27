"""Enter what was found on a weld, strike a wrong result, release the weld."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from uuid import UUID

from api.errors import ConflictError, InvalidError
from django.db import transaction
from django.utils import timezone

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.production.models import Inspection, State, Weld
from apps.production.queries import fit_of, joint_to_log
from apps.production.services.log_weld import MOST_AHEAD, given
from apps.production.services.standing import is_repaired, restate, results_of
from apps.production.welders import against_welders, kept, welders_of
from welding.language import SOURCE, speaking, tr
from welding.production.state import Method, against_release, state_words


@dataclass(frozen=True, slots=True, kw_only=True)
class Result:
    """What is entered of an inspection. ``found`` says what was found; a rejection needs it."""

    method: Method
    accepted: bool
    inspector: str
    inspected_on: date
    report: str = ""
    found: str = ""


@transaction.atomic
def enter_result(user: User, weld_id: int, client_id: UUID, result: Result) -> Inspection:
    """Enter a result once; the same ``client_id`` again gives the entry that is there.

    Raises:
        NotAllowedError: The role does not allow it.
        InvalidError: A rejection that does not say what was found, nobody named, or a day that is ahead.
        ConflictError: The weld is struck or repaired.
    """
    require(user, Action.INSPECT_WELD)
    there = Inspection.objects.filter(client_id=client_id).first()
    if there is not None:
        if (there.weld_id, there.method, there.accepted) != (weld_id, result.method, result.accepted):
            raise ConflictError(tr("This entry was sent before, with other values: log it anew."))
        return there
    weld = Weld.objects.select_for_update().get(pk=weld_id)
    if weld.state in (State.STRUCK, State.REPAIRED):
        raise ConflictError(
            tr("{weld} is {state}: nothing is entered on it.", weld=weld, state=state_words(weld.state))
        )
    wrong = []
    if not result.inspector.strip():
        wrong.append(("inspector", tr("Say who inspected it.")))
    if not result.accepted and not result.found.strip():
        wrong.append(("found", tr("Say what was found, and where.")))
    if result.inspected_on > timezone.localdate() + MOST_AHEAD:
        wrong.append(("inspected_on", tr("This day is yet to come.")))
    elif result.inspected_on < weld.welded_on:
        wrong.append(("inspected_on", tr("It was not welded yet on this day.")))
    if wrong:
        raise InvalidError(
            wrong[0][1], errors=[{"path": path, "message": said, "value": ""} for path, said in wrong]
        )
    made = Inspection.objects.create(
        weld=weld,
        client_id=client_id,
        method=result.method,
        accepted=result.accepted,
        report=result.report.strip(),
        inspector=result.inspector.strip(),
        inspected_on=result.inspected_on,
        found=result.found.strip(),
        entered_by=user,
        entered_name=user.shown_name,
    )
    restate(weld)
    return made


@transaction.atomic
def strike_result(user: User, inspection_id: int, reason: str) -> Inspection:
    """Strike a result that was entered wrongly.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: It is struck already, the weld is released or repaired, or no reason is given.
    """
    require(user, Action.INSPECT_WELD)
    weld = Weld.objects.select_for_update().get(inspections__pk=inspection_id)
    result = weld.inspections.get(pk=inspection_id)
    if result.struck_reason:
        raise ConflictError(tr("It is struck already."))
    if weld.released_at is not None and result.entered_at <= weld.released_at:
        raise ConflictError(tr("It is released: nothing of it is struck any more."))
    if is_repaired(weld):
        raise ConflictError(tr("It was repaired: strike the repair first."))
    result.struck_reason, result.struck_name = given(reason), user.shown_name
    result.save(update_fields=["struck_reason", "struck_name"])
    restate(weld)
    return result


@transaction.atomic
def release_weld(user: User, weld_id: int) -> Weld:
    """Release a weld: accepted by every method used, and its WPS covers the joint as the list has it now.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: What stands against it.
    """
    require(user, Action.RELEASE_WELD)
    weld = (
        Weld.objects.select_for_update(of=("self",))
        .select_related("job", "revision__procedure")
        .get(pk=weld_id)
    )
    if weld.struck_reason:
        raise ConflictError(tr("It is struck already."))
    joint = joint_to_log(weld.job, weld.mark)
    if joint is None:
        raise ConflictError(tr("The weld list has no joint {mark}.", mark=weld.mark))
    # The next revision is assigned to joints that are welded already: these were made to the one before.
    same = weld.fit == "covered" and weld.facts_hash == joint.facts_hash
    fit = fit_of(joint, weld.revision, weld.welded_on, was_assigned=same)
    against = against_release(
        results_of(weld),
        fit.verdict == "covered",
        repaired=is_repaired(weld),
        released=weld.released_at is not None,
    )
    if against:
        raise ConflictError(
            against,
            errors=[{"path": "wps", "message": one, "value": weld.wps} for one in fit.against],
        )
    with speaking(SOURCE):  # what is kept reads the same whoever releases
        found = welders_of(joint, weld.revision, weld.welded_on, weld.welders)
    if against_welders(found):
        said = against_welders(welders_of(joint, weld.revision, weld.welded_on, weld.welders))
        raise ConflictError(
            " ".join(said), errors=[{"path": "welders", "message": one, "value": ""} for one in said]
        )
    weld.fit, weld.against, weld.qualified = fit.verdict, [], kept(found)
    weld.released_by, weld.released_name, weld.released_at = user, user.shown_name, timezone.now()
    weld.save(update_fields=["fit", "against", "qualified", "released_by", "released_name", "released_at"])
    restate(weld)
    return weld
