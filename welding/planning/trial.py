"""A trial of the log from a pass that was tried on scrap for a procedure."""

from __future__ import annotations

from welding.consumables.gas import gas_text
from welding.documents.coupon import PassRecord
from welding.documents.fields import mean_of
from welding.documents.intent import Trial, TrialVerdict, WishedFiller
from welding.documents.procedure import Procedure
from welding.errors import WeldingError
from welding.heat.as_welded import travel_of
from welding.language import tr


def trial_of(procedure: Procedure, record: PassRecord, verdict: TrialVerdict, made_on: str) -> Trial:
    """What was set and seen, filed under the wire, gas, position and thinner thickness of the procedure.

    Args:
        procedure: What it was tried for.
        record: The pass as it was tried; its means count.
        verdict: Kept or rejected.
        made_on: The day, year first.

    Raises:
        WeldingError: The procedure plans no such pass, or states no position or no thickness.
    """
    planned = next((one for one in procedure.passes if one.number == record.number), None)
    thickness = [one.thickness_mm for one in procedure.base_metals if one.thickness_mm]
    if planned is None:
        raise WeldingError(tr("the procedure plans no pass {number}", number=record.number))
    if not thickness or not procedure.positions:
        raise WeldingError(tr("the procedure states no thickness or no position: state them first"))
    filler, gas = planned.filler, planned.gas
    return Trial(
        process=planned.process,
        transfer=planned.transfer,
        filler=WishedFiller(
            designation=filler.designation if filler else None,
            diameter_mm=filler.diameter_mm if filler else None,
        ),
        gas=gas_text(gas.components_percent) if gas and gas.components_percent else None,
        position=procedure.positions[0],
        progression=planned.progression,
        thickness_mm=min(thickness),
        metal=procedure.base_metals[0].designation,
        role=planned.role,
        current_a=mean_of(record.current_a) if record.current_a is not None else None,
        voltage_v=mean_of(record.voltage_v) if record.voltage_v is not None else None,
        wire_feed_m_min=mean_of(record.wire_feed_m_min) if record.wire_feed_m_min is not None else None,
        travel_mm_min=travel_of(record),
        seen=record.remarks,
        verdict=verdict,
        made_on=made_on,
    )
