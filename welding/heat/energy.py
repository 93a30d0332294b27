"""Arc energy and heat input per unit length of run.

Sources, from memory: ISO/TR 18491 (arc energy from mean values, from measured energy and power),
AWS D1.1 (US form V x I x 60 / travel), EN 1011-1 and ISO/TR 17671-1 (thermal efficiency k).
Limits of validity: mean volts times mean amps misjudges pulsed arcs, waveform-controlled short
circuits and AC with unequal halves; use measured energy or power there.
"""

from __future__ import annotations

from dataclasses import dataclass

from welding.citation import Citation
from welding.codebook.table import load_table
from welding.errors import UnknownEntryError
from welding.ranges import Range, positive

MM_PER_INCH = 25.4
ISO_TR_18491 = Citation(
    document="ISO/TR 18491", edition="2015", clause="arc energy", provenance="memory", confidence="high"
)
AWS_HEAT_INPUT = Citation(
    document="AWS D1.1",
    edition="2020",
    clause="heat input, V·I·60/travel",
    provenance="memory",
    confidence="high",
)


def travel_mm_min(*, length_mm: float, time_s: float) -> float:
    """Travel speed from a bead length and an arc time.

    Args:
        length_mm: Length along the joint from the start of the arc to the crater [mm].
        time_s: Arc time [s].

    Returns:
        Travel speed [mm/min].

    Raises:
        OutOfRangeError: Either is zero, negative or not finite.

    Example:
        >>> travel_mm_min(length_mm=300, time_s=100)
        180.0
    """
    positive("mm").require("length_mm", length_mm)
    positive("s").require("time_s", time_s)
    return length_mm / time_s * 60


def arc_energy_kj_mm(*, voltage_v: float, current_a: float, travel_mm_min: float) -> float:
    """Arc energy per unit length, E = U · I · 60 / (1000 · v).

    Args:
        voltage_v: Mean arc voltage U [V], above zero.
        current_a: Mean current I [A], above zero.
        travel_mm_min: Travel speed v [mm/min], above zero.

    Returns:
        Arc energy [kJ/mm], before any thermal efficiency.

    Raises:
        OutOfRangeError: An argument is zero, negative or not finite.

    Example:
        >>> arc_energy_kj_mm(voltage_v=24, current_a=150, travel_mm_min=180)
        1.2
    """
    positive("V").require("voltage_v", voltage_v)
    positive("A").require("current_a", current_a)
    positive("mm/min").require("travel_mm_min", travel_mm_min)
    return voltage_v * current_a * 60 / travel_mm_min / 1000


def arc_energy_kj_in(*, voltage_v: float, current_a: float, travel_in_min: float) -> float:
    """Arc energy in US units, V · I · 60 / travel / 1000.

    Args:
        voltage_v: Mean arc voltage [V], above zero.
        current_a: Mean current [A], above zero.
        travel_in_min: Travel speed [in/min], above zero.

    Returns:
        Arc energy [kJ/in], with no efficiency: AWS D1.1 uses none.

    Raises:
        OutOfRangeError: An argument is zero, negative or not finite.

    Example:
        >>> arc_energy_kj_in(voltage_v=25, current_a=250, travel_in_min=10)
        37.5
    """
    # The same expression as in SI: only the length unit of the travel differs.
    return arc_energy_kj_mm(voltage_v=voltage_v, current_a=current_a, travel_mm_min=travel_in_min)


def arc_energy_from_energy_kj_mm(*, energy_j: float, length_mm: float) -> float:
    """Arc energy from a measured energy, E / L / 1000, where E is the integral of v·i.

    Args:
        energy_j: Measured energy of the run [J], above zero.
        length_mm: Bead length [mm], above zero.

    Returns:
        Arc energy [kJ/mm].

    Raises:
        OutOfRangeError: An argument is zero, negative or not finite.

    Example:
        >>> arc_energy_from_energy_kj_mm(energy_j=45_000, length_mm=150)
        0.3
    """
    positive("J").require("energy_j", energy_j)
    positive("mm").require("length_mm", length_mm)
    return energy_j / length_mm / 1000


def arc_energy_from_power_kj_mm(*, power_w: float, travel_mm_min: float) -> float:
    """Arc energy from a measured mean power, P · 60 / (1000 · v).

    Args:
        power_w: Mean of the product v·i [W], above zero.
        travel_mm_min: Travel speed [mm/min], above zero.

    Returns:
        Arc energy [kJ/mm].

    Raises:
        OutOfRangeError: An argument is zero, negative or not finite.

    Example:
        >>> arc_energy_from_power_kj_mm(power_w=3000, travel_mm_min=180)
        1.0
    """
    positive("W").require("power_w", power_w)
    positive("mm/min").require("travel_mm_min", travel_mm_min)
    return power_w * 60 / travel_mm_min / 1000


def arc_energy_range_kj_mm(*, voltage_v: Range, current_a: Range, travel_mm_min: Range) -> Range:
    """Arc energy over all corners of three ranges.

    Lowest = lowest volts and amps at the fastest travel; highest the other way round. The product
    is monotonic in each, so these two corners bound all eight.

    Args:
        voltage_v: Range of arc voltage [V].
        current_a: Range of current [A].
        travel_mm_min: Range of travel speed [mm/min].

    Returns:
        Range of arc energy [kJ/mm].

    Raises:
        OutOfRangeError: A range reaches zero or below.
    """
    return Range(
        arc_energy_kj_mm(voltage_v=voltage_v.min, current_a=current_a.min, travel_mm_min=travel_mm_min.max),
        arc_energy_kj_mm(voltage_v=voltage_v.max, current_a=current_a.max, travel_mm_min=travel_mm_min.min),
    )


def travel_for_energy_mm_min(*, voltage_v: float, current_a: float, energy_kj_mm: float) -> float:
    """Travel speed at which volts and amps give this arc energy: v = U · I · 60 / (1000 · E).

    Args:
        voltage_v: Arc voltage [V], above zero.
        current_a: Current [A], above zero.
        energy_kj_mm: Wanted arc energy [kJ/mm], above zero.

    Returns:
        Travel speed [mm/min]; slower than this gives more energy.

    Raises:
        OutOfRangeError: An argument is zero, negative or not finite.

    Example:
        >>> travel_for_energy_mm_min(voltage_v=24, current_a=150, energy_kj_mm=1.2)
        180.0
    """
    positive("kJ/mm").require("energy_kj_mm", energy_kj_mm)
    return arc_energy_kj_mm(voltage_v=voltage_v, current_a=current_a, travel_mm_min=energy_kj_mm)


@dataclass(frozen=True, slots=True)
class Efficiency:
    """Thermal efficiency k of a process, with its source."""

    k: float
    citation: Citation
    unchecked: tuple[str, ...]


def thermal_efficiency(process: str) -> Efficiency:
    """Thermal efficiency k of an ISO 4063 process.

    Args:
        process: ISO 4063 number such as ``135``.

    Returns:
        k and where it stands.

    Raises:
        UnknownEntryError: The table gives none for this process; it is never guessed.
    """
    table = load_table("welding.heat", "thermal_efficiency")
    for row in table.rows:
        if row["process"] == process:
            return Efficiency(row["k"], table.citation_of(row), table.unchecked)
    raise UnknownEntryError(
        f"no thermal efficiency k is known here for process {process}; look it up and give it"
    )
