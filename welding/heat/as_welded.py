"""Travel and arc energy of a pass as welded."""

from __future__ import annotations

from welding.documents.coupon import PassRecord
from welding.documents.fields import mean_of
from welding.documents.procedure import Pass
from welding.heat.energy import arc_energy_from_energy_kj_mm, arc_energy_kj_mm, travel_mm_min
from welding.heat.passes import HeatMethod, is_uneven


def travel_of(record: PassRecord) -> float | None:
    """Travel speed [mm/min] from segments, from length and time, or as typed."""
    length = record.length_mm
    time_s = record.time_s
    if record.segments:
        time_s = sum(segment.time_s for segment in record.segments)
        if all(segment.length_mm is not None for segment in record.segments):
            length = sum(segment.length_mm or 0.0 for segment in record.segments)
    if length and time_s:
        return travel_mm_min(length_mm=length, time_s=time_s)
    return record.travel_mm_min


def arc_energy_of(record: PassRecord, planned: Pass | None) -> tuple[float | None, HeatMethod]:
    """Arc energy [kJ/mm] and how it was had; ``None`` where a measurement is missing."""
    if record.energy_j is not None and record.energy_method == "energy":
        length = record.length_mm
        if length:
            return arc_energy_from_energy_kj_mm(energy_j=record.energy_j, length_mm=length), "energy"
        return None, "energy"
    method: HeatMethod = "mean-estimate" if planned and is_uneven(planned) else "mean"
    travel = travel_of(record)
    if record.voltage_v is None or record.current_a is None or not travel:
        return None, method
    volts, amps = mean_of(record.voltage_v), mean_of(record.current_a)
    return arc_energy_kj_mm(voltage_v=volts, current_a=amps, travel_mm_min=travel), method
