"""Take passes from a recording into the coupon's log, as a person confirmed them."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace
from uuid import uuid4

from api.errors import ConflictError, InvalidError
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.coupons.models import Coupon, PassLog
from apps.coupons.rows import to_record
from apps.coupons.services.hold import held_open
from apps.coupons.services.log_pass import correct_pass, log_pass
from apps.recordings.models import RecordedPass, Recording, Status
from apps.recordings.store import read_signals
from welding.documents.coupon import GasUsed, PassRecord, RecordingRef, Segment
from welding.documents.procedure import GasShares, Procedure
from welding.language import tr
from welding.recording.analysis import PassMeasured, measure_window

MARGIN_S = 0.5


@dataclass(frozen=True, slots=True, kw_only=True)
class Taken:
    """A part of the recording that is a pass."""

    number: int
    start_s: float
    end_s: float
    length_mm: float | None = None


@transaction.atomic
def take_passes(
    user: User, recording: Recording, coupon: Coupon, taken: list[Taken], procedure: Procedure
) -> list[PassLog]:
    """Write passes with energy, means and starts and stops from the recording.

    A pass that is in the log keeps what was typed; its electrical values become those of the
    recording. Taking the same part again changes nothing.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: The recording is not ready, parts overlap, the log is closed or its record signed.
        InvalidError: A number stands twice, or a part ends before it begins.
        WeldingError: A part holds no arc.
    """
    require(user, Action.LOG_PASS)
    held_open(coupon)
    if recording.status != Status.READY:
        raise ConflictError(tr("The recording is not ready to take passes from."))
    numbers = [one.number for one in taken]
    if len(set(numbers)) != len(numbers):
        raise InvalidError(tr("A pass number stands twice."))
    ordered = sorted(taken, key=lambda one: one.start_s)
    if any(one.end_s <= one.start_s for one in ordered):
        raise InvalidError(tr("A part ends before it begins."))
    if any(after.start_s < before.end_s for before, after in itertools.pairwise(ordered)):
        raise ConflictError(tr("Two parts overlap: a piece of arc belongs to one pass."))
    return [_one(user, recording, coupon, one, procedure) for one in ordered]


def _one(user: User, recording: Recording, coupon: Coupon, part: Taken, procedure: Procedure) -> PassLog:
    signals = read_signals(recording, part.start_s - MARGIN_S, part.end_s + MARGIN_S)
    found = measure_window(signals, part.start_s, part.end_s)
    planned = next((one for one in procedure.passes if one.number == part.number), None)
    gas = planned.gas.components_percent if planned and planned.gas else None
    row = PassLog.objects.filter(coupon=coupon, number=part.number, struck=False).first()
    before = to_record(row) if row else PassRecord(number=part.number)
    record = replace(_filled(before, found, part, gas), recording=_reference(recording, part))
    if row is None:
        # A new entry, also where the same part was taken before and struck; its number counts once.
        row = log_pass(user, coupon, uuid4(), record)
    elif record != before:
        row = correct_pass(user, row, row.version, record)
    RecordedPass.objects.update_or_create(
        row=row,
        defaults={"recording": recording, "start_s": part.start_s, "end_s": part.end_s, "taken_by": user},
    )
    return row


def _filled(before: PassRecord, found: PassMeasured, part: Taken, gas: GasShares | None) -> PassRecord:
    got = found.measured
    stretches = [end - start for start, end in found.stretches_s]
    flow = round(got.mean_gas_l_min, 2) if got.mean_gas_l_min else None
    return replace(
        before,
        length_mm=part.length_mm if part.length_mm is not None else before.length_mm,
        time_s=round(got.arc_time_s, 3),
        elapsed_s=round(got.elapsed_s, 3) if got.elapsed_s > 0 else None,
        segments=tuple(Segment(time_s=round(one, 3)) for one in stretches if one > 0)
        if len(stretches) > 1
        else (),
        current_a=round(got.mean_current_a, 2),
        voltage_v=round(got.mean_voltage_v, 3),
        wire_feed_m_min=round(got.mean_wire_feed_m_min, 3)
        if got.mean_wire_feed_m_min
        else before.wire_feed_m_min,
        gas=GasUsed(components_percent=gas, flow_l_min=flow)
        if gas and flow and before.gas is None
        else before.gas,
        energy_j=round(got.energy_j, 1),
        energy_method="energy",
    )


def _reference(recording: Recording, part: Taken) -> RecordingRef:
    return RecordingRef(name=recording.name, sha256=recording.sha256, start_s=part.start_s, end_s=part.end_s)
