"""What bead settings come to before any figure is told: power, melting, pool, deposit, transfer."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal

import numpy as np

from welding.arc.groups import volts_cases, wire_kind
from welding.arc.relations import Estimate, active_percent, arc_volts, current_a, wire_feed_m_min
from welding.arc.relations import extension_mm as usual_extension_mm
from welding.bead.conduction import Conductor, Source, half_widths_mm, plate_c
from welding.bead.melting import fuerschbach_efficiency, jackson_penetration_mm
from welding.citation import Citation
from welding.codebook.table import Table, load_table
from welding.deposit.laid import bead_area_middle_mm2
from welding.documents.bead_settings import BeadSettings
from welding.documents.procedure import Filler, Gas, Pass
from welding.errors import UnknownEntryError
from welding.heat.pulse import PulseMeans, rectangular_pulse
from welding.metals.catalogue import Metal, find
from welding.metals.kinds import KIND_OF_FAMILY
from welding.ranges import Range
from welding.setup.spray import SprayTransition, spray_transition

PACKAGE = "welding.bead"
WireTransfer = Literal["short-circuit", "globular", "spray", "pulsed"]
_FIXED_GROUP = {"111": "stick", "114": "cored-self", "136": "cored-gas", "138": "cored-metal"}
_VOLTS_ABOVE_SHORT = 2.5
"""Above the line of short-circuit volts by so much the drop no longer reaches the pool (common practice)."""
_VOLTS_BELOW_SPRAY = 4.0
"""Below the line of spray volts by so much the arc is too short for free drops (common practice)."""
_LITTLE_FILLER = 0.3
HOT_LOSS_W_MM2_K = 1e-4
"""What a face at 500 to 1000 °C gives off, mostly by radiation (handbook, about 100 W/(m² K))."""
MELTING_ON_NEGATIVE = {"135": 1.35, "131": 1.35, "121": 1.28}
"""Solid wire on electrode negative melts faster by 30 to 50 %, submerged by 20 to 35 % (common practice)."""
SLOW_POOL = 0.05
"""Travel times half width over twice the diffusivity where half of the heat of melting counts: set so that
beads on aluminium come out as wide as in practice."""
ISOTHERMS_C = (1100.0, 800.0, 500.0, 300.0)
"""Lines that are drawn beside the pool, as far as the metal is colder than its melting point."""


@dataclass(frozen=True, slots=True)
class Band:
    """A value with what it may be: from ``low`` to ``high``."""

    value: float
    low: float
    high: float

    @staticmethod
    def within(value: float, *percent: float) -> Band:
        """A value with independent errors in percent, added as squares."""
        error = math.sqrt(sum(one**2 for one in percent)) / 100
        return Band(value, value * (1 - min(error, 1.0)), value * (1 + error))


class BeadState:
    """Everything that the figures of one setting share; each property is ``None`` where there is no model."""

    def __init__(self, settings: BeadSettings) -> None:
        self.settings = settings

    # --- the metal ------------------------------------------------------------------------------

    @cached_property
    def metal(self) -> Metal | None:
        """The grade, where the catalogue knows it."""
        return find(self.settings.metal)

    @property
    def kind(self) -> str:
        """Kind of metal that settings go by; empty where the metal is not known."""
        return KIND_OF_FAMILY[self.metal.family] if self.metal else ""

    @cached_property
    def hot(self) -> Mapping[str, Any] | None:
        """Row of the metal under the arc."""
        if self.metal is None:
            return None
        return self.hot_table.row("duplex" if self.metal.family == "duplex" else self.kind)

    @property
    def hot_table(self) -> Table:
        """Metals under an arc."""
        return load_table(PACKAGE, "hot_metals")

    @cached_property
    def conductor(self) -> Conductor | None:
        """How it conducts."""
        if self.hot is None:
            return None
        return Conductor(
            k_w_mm_k=self.hot["conductivity_w_m_k"] / 1000, heat_j_mm3_k=self.hot["heat_j_cm3_k"] / 1000
        )

    # --- the arc --------------------------------------------------------------------------------

    @cached_property
    def as_pass(self) -> Pass:
        """The settings as a pass of a procedure, for the relations that plans are made with."""
        one = self.settings
        rod = one.filler or one.diameter_mm
        return Pass(
            number=1,
            process=one.process,
            transfer=one.transfer,
            polarity=one.polarity,
            filler=Filler(designation=one.filler, diameter_mm=one.diameter_mm) if rod else None,
            gas=Gas(components_percent=one.gas) if one.gas else None,
            current_a=_exact(one.current_a),
            voltage_v=_exact(one.voltage_v),
            wire_feed_m_min=_exact(one.wire_feed_m_min),
            travel_mm_min=_exact(one.travel_mm_min),
            pulse=one.pulse,
            ac=one.ac,
        )

    @property
    def components(self) -> Mapping[Any, float]:
        """The gas; empty without one."""
        return self.settings.gas or {}

    @cached_property
    def wire(self) -> str:
        """Row of the melting law; empty for what is fed by hand."""
        return wire_kind(self.settings.process, self.settings.filler, self.settings.diameter_mm or 1.2)

    @cached_property
    def extension_mm(self) -> float | None:
        """Wire beyond the contact tip, as set or as usual."""
        return self.settings.extension_mm or (usual_extension_mm(self.wire) if self.wire else None)

    @cached_property
    def amps_by_feed(self) -> Estimate | None:
        """Current that the wire feed draws."""
        one = self.settings
        if not (self.wire and one.wire_feed_m_min and one.diameter_mm and self.extension_mm):
            return None
        as_positive = one.wire_feed_m_min / self._melting_factor
        return current_a(self.wire, one.diameter_mm, as_positive, self.extension_mm)

    @cached_property
    def feed_by_amps(self) -> Estimate | None:
        """Wire feed that the current melts."""
        one = self.settings
        if not (self.wire and self.set_amps and one.diameter_mm and self.extension_mm):
            return None
        found = wire_feed_m_min(
            self.wire,
            one.diameter_mm,
            self.set_amps,
            self.extension_mm,
            self.pulse.rms_a if self.pulse else None,
        )
        return replace(found, value=found.value * self._melting_factor)

    @property
    def _melting_factor(self) -> float:
        """How many times as fast a wire melts on electrode negative; the law is for electrode positive."""
        if self.settings.polarity != "DCEN":
            return 1.0
        return MELTING_ON_NEGATIVE.get(self.settings.process, 1.0)

    @cached_property
    def attitude(self) -> str:
        """How the weld lies: flat, vertical-up …; empty where no position is stated."""
        rows = load_table("welding.joints", "positions").rows
        row = next((row for row in rows if row["position"] == self.settings.position), None)
        if row is None:
            return ""
        if row["attitude"] != "vertical":
            return str(row["attitude"])
        fixed = row["progression"] if row["progression"] in ("up", "down") else None
        return f"vertical-{fixed or self.settings.progression or 'up'}"

    @cached_property
    def pulse(self) -> PulseMeans | None:
        """Means of the pulse; ``None`` without one, or without its share at peak."""
        pulse = self.settings.pulse
        if pulse is None or pulse.peak_share is None:
            return None
        return rectangular_pulse(
            peak_a=pulse.peak_a,
            background_a=pulse.background_a,
            peak_share=pulse.peak_share,
            peak_v=pulse.peak_v,
            background_v=pulse.background_v,
        )

    @property
    def set_amps(self) -> float | None:
        """Mean current that is set: typed, or as the pulse makes it."""
        if self.settings.current_a is not None:
            return self.settings.current_a
        return self.pulse.mean_a if self.pulse else None

    @property
    def amps(self) -> float | None:
        """Mean current: as set, else as the wire feed draws it."""
        return self.set_amps or (self.amps_by_feed.value if self.amps_by_feed else None)

    @property
    def feed_m_min(self) -> float | None:
        """Wire feed: as set, else as the current melts it."""
        if self.settings.wire_feed_m_min is not None:
            return self.settings.wire_feed_m_min
        return self.feed_by_amps.value if self.feed_by_amps else None

    def usual_volts(self, case: str) -> float | None:
        """Arc volts that a case usually has at this current and in this gas."""
        if self.amps is None:
            return None
        try:
            return arc_volts(case, self.amps, self.components)[0].value
        except UnknownEntryError:
            return None

    @cached_property
    def spray_from(self) -> SprayTransition | None:
        """Where spray begins; ``None`` where the gas gives none or the table has nothing for it."""
        metal: Any = "stainless" if self.kind == "nickel" else self.kind
        if self.settings.process not in ("131", "135") or not self.settings.diameter_mm or not metal:
            return None
        return spray_transition(metal, self.components, self.settings.diameter_mm)

    @cached_property
    def transfer(self) -> WireTransfer | None:
        """How drops of a solid wire cross the arc, by current, volts, gas; ``None`` for other processes."""
        one = self.settings
        if one.process not in ("131", "135"):
            return None
        if one.pulse is not None or one.transfer == "pulsed":
            return "pulsed"
        if self.amps is None or one.voltage_v is None:
            stated: dict[str, WireTransfer] = {
                "short-circuit": "short-circuit",
                "controlled-short-circuit": "short-circuit",
                "spray": "spray",
                "globular": "globular",
            }
            return stated.get(one.transfer or "")
        sprays = self.spray_from is not None and self.amps >= self.spray_from.current_a
        spray_volts = self.usual_volts("aluminium" if self.kind == "aluminium" else "spray") or 0.0
        if sprays and one.voltage_v >= spray_volts - _VOLTS_BELOW_SPRAY:
            return "spray"
        short = self.usual_volts("stainless-short" if self.kind == "stainless" else "steel-short") or 0.0
        return "short-circuit" if one.voltage_v <= short + _VOLTS_ABOVE_SHORT else "globular"

    @cached_property
    def group(self) -> str:
        """Row of what the arc digs; empty where the process has none."""
        one = self.settings
        if one.process == "141":
            return "tig-ac" if one.polarity == "AC" else "tig"
        if one.process.startswith("12"):
            return "saw"
        if one.process in ("131", "135"):
            if self.kind in ("aluminium", "copper"):
                return "inert"
            return {"short-circuit": "short", None: ""}.get(self.transfer, self.transfer or "")
        return _FIXED_GROUP.get(one.process, "")

    @cached_property
    def arc(self) -> Mapping[str, Any] | None:
        """Row of what the arc digs."""
        return self.arc_table.row(self.group) if self.group else None

    @property
    def arc_table(self) -> Table:
        """Share of the power that enters, depth and width."""
        return load_table(PACKAGE, "arc_shape")

    @cached_property
    def volts_case(self) -> str:
        """Row of the usual volts; empty where the process has none."""
        case = {"short": "steel-short", "globular": "spray", "inert": self.kind}.get(self.group, self.group)
        if case == "short" or (case == "steel-short" and self.kind == "stainless"):
            case = "stainless-short"
        if case == "stick":
            case = volts_cases(self.as_pass, self.kind)[0]
        return case or ""

    @property
    def usual_v(self) -> float | None:
        """Volts that go with this current in practice."""
        return self.usual_volts(self.volts_case) if self.volts_case else None

    @property
    def volts(self) -> float | None:
        """Arc volts: as set, else as usual at this current."""
        return self.settings.voltage_v if self.settings.voltage_v is not None else self.usual_v

    @property
    def travel_mm_s(self) -> float | None:
        """Travel speed."""
        return self.settings.travel_mm_min / 60 if self.settings.travel_mm_min else None

    @cached_property
    def power_w(self) -> float | None:
        """Electric power of the arc; of a pulse with both voltages the mean of the product."""
        if self.pulse is not None and self.pulse.mean_power_w is not None:
            return self.pulse.mean_power_w
        return self.amps * self.volts if self.amps and self.volts else None

    @property
    def arc_energy_j_mm(self) -> float | None:
        """Arc energy for each length, no efficiency."""
        return self.power_w / self.travel_mm_s if self.power_w and self.travel_mm_s else None

    @property
    def efficiency(self) -> Band | None:
        """Share of the power that enters the work, by calorimeter."""
        if self.arc is None:
            return None
        low, high = self.arc["arc_min"], self.arc["arc_max"]
        return Band((low + high) / 2, low, high)

    @cached_property
    def source(self) -> Source | None:
        """The arc as a source of heat."""
        if not (self.power_w and self.travel_mm_s and self.efficiency):
            return None
        return Source(
            power_w=self.power_w * self.efficiency.value,
            travel_mm_s=self.travel_mm_s,
            start_c=self.settings.start_c,
        )

    # --- the pool -------------------------------------------------------------------------------

    @cached_property
    def deposit_mm2(self) -> float | None:
        """Section of weld metal laid down; 0 without filler."""
        one = self.settings
        if one.process == "141" and (not one.feed_filler or not (one.filler or one.diameter_mm)):
            return 0.0
        feed = _exact(self.feed_m_min) if self.wire else None
        return bead_area_middle_mm2(
            replace(
                self.as_pass,
                wire_feed_m_min=feed or self.as_pass.wire_feed_m_min,
                current_a=_exact(self.amps),
            )
        )

    @cached_property
    def melted_mm2(self) -> float | None:
        """Section that the heat melts in all, base and filler, by the share that melts."""
        if self.source is None or self.conductor is None or self.hot is None:
            return None
        share = fuerschbach_efficiency(
            self.source.power_w,
            self.source.travel_mm_s,
            self.hot["melt_j_mm3"],
            self.conductor.diffusivity_mm2_s,
        )
        # Preheated metal needs less to melt.
        stored = self.conductor.heat_j_mm3_k * (self.settings.start_c - 20.0)
        return float(share * self.source.energy_j_mm / max(self.hot["melt_j_mm3"] - stored, 1.0))

    @property
    def fusing_c(self) -> float | None:
        """Temperature that stands for molten right through: melting takes heat beyond the melting point."""
        if self.hot is None:
            return None
        return float(20.0 + self.hot["melt_j_mm3"] / (self.hot["heat_j_cm3_k"] / 1000))

    @cached_property
    def pool_edge_c(self) -> float | None:
        """Temperature that stands for the edge of the pool at the surface.

        A fast source has to bring the heat of melting as well, so that the isotherm that counts lies above
        the melting point; a slow pool gives back at its rear what it takes at its front. How fast it is goes
        by travel times half width over twice the diffusivity.
        """
        if self.hot is None or self.conductor is None or self.source is None:
            return None
        latent_c = self.hot["melt_j_mm3"] / self.conductor.heat_j_mm3_k - (self.hot["melting_c"] - 20.0)
        rise_c = max(self.hot["melting_c"] - self.source.start_c, 50.0)
        slow_mm = self.source.power_w / (2 * math.pi * self.conductor.k_w_mm_k * rise_c)
        fast_mm = math.sqrt(
            2 * self.source.energy_j_mm / (math.pi * math.e * self.conductor.heat_j_mm3_k * rise_c)
        )
        half_mm = slow_mm * fast_mm / math.hypot(slow_mm, fast_mm)
        speed = self.source.travel_mm_s * half_mm / (2 * self.conductor.diffusivity_mm2_s)
        return float(self.hot["melting_c"] + max(latent_c, 0.0) * speed / (speed + SLOW_POOL))

    @cached_property
    def half_widths_mm(self) -> dict[str, float]:
        """Half width on the surface of the pool, the zone, and each temperature of ``ISOTHERMS_C``."""
        if self.source is None or self.conductor is None or self.hot is None or self.pool_edge_c is None:
            return {}
        if self.settings.start_c > self.hot["zone_c"]:
            return {}
        wanted = {"pool": self.pool_edge_c, "zone": self.hot["zone_c"]}
        wanted |= {
            f"{one:g}": one
            for one in ISOTHERMS_C
            if self.settings.start_c + 50 < one < self.hot["melting_c"] - 50
        }
        found = half_widths_mm(self.conductor, self.source, list(wanted.values()), self.settings.thickness_mm)
        return dict(zip(wanted, found, strict=True))

    @property
    def conduction_width_mm(self) -> float | None:
        """Width of the pool by conduction from a point, plate of its own thickness."""
        return 2 * self.half_widths_mm["pool"] if self.half_widths_mm else None

    @cached_property
    def width_mm(self) -> Band | None:
        """Width of the bead at the surface."""
        if self.conduction_width_mm is None or self.arc is None or self.efficiency is None:
            return None
        more = 0.0
        if self.settings.voltage_v is not None and self.usual_v is not None:
            more = self.arc["width_per_v"] * (self.settings.voltage_v - self.usual_v)
        width = max(self.conduction_width_mm + more, 0.35 * self.conduction_width_mm)
        width *= _leaning(self.settings.torch_angle_deg, push=0.006, drag=-0.004) * self._ac_factor(-0.1)
        if self.group == "tig-ac":
            width *= 1 + 0.2 * (self.positive_share - 0.3)
        if self.group == "short" and self.settings.inductance_percent is not None:
            # A slower short circuit leaves the pool more fluid.
            width *= 1 + 0.0015 * (self.settings.inductance_percent - 50)
        width += self.settings.weave_mm or 0.0
        spread = 50 * (self.efficiency.high - self.efficiency.low) / self.efficiency.value / 2
        return Band.within(width, self.arc["width_error_percent"], spread)

    @cached_property
    def penetration_mm(self) -> Band | None:
        """Depth of fusion below the surface of the plate, as if it were thick."""
        one = self.settings
        if self.arc is None or not (self.amps and self.volts and one.travel_mm_min and self.hot):
            return None
        if self.kind in ("aluminium", "copper"):
            # The constant was fitted on steel: elsewhere the depth follows the pool's width.
            if self.conduction_width_mm is None:
                return None
            depth, error = 0.35 * self.conduction_width_mm, 45.0
        else:
            depth = jackson_penetration_mm(self.arc["k_depth"], self.amps, self.volts, one.travel_mm_min)
            error = self.arc["depth_error_percent"]
        depth *= _leaning(one.torch_angle_deg, push=-0.01, drag=0.005) * self._ac_factor(0.05)
        depth *= 1 + 0.00025 * (one.start_c - 20)
        depth *= 1 + 0.002 * self.components.get("He", 0.0) + 0.05 * min(self.components.get("H2", 0.0), 10)
        if one.process == "135":
            depth *= 1 + 0.004 * min(active_percent(self.components), 40)
        if self.group == "tig-ac":
            depth *= 1 - 0.6 * (self.positive_share - 0.3)
        if one.process.startswith("12"):
            depth *= 0.77 if one.polarity == "DCEN" else 1.0
            if one.extension_mm is not None and self.wire:
                depth *= 1 - 0.003 * min(max(one.extension_mm - usual_extension_mm(self.wire), -20.0), 60.0)
        depth *= {"vertical-down": 0.75, "vertical-up": 1.1}.get(self.attitude, 1.0)
        if one.joint == "butt":
            depth += 0.2 * min(one.root_gap_mm or 0.0, 4.0)
        if one.weave_mm and self.conduction_width_mm:
            depth *= self.conduction_width_mm / (self.conduction_width_mm + 0.5 * one.weave_mm)
        if one.process == "141" and self.deposit_mm2 and self.melted_mm2:
            # Cold rod takes its heat from the pool.
            depth *= 1 - _LITTLE_FILLER * min(self.deposit_mm2 / self.melted_mm2, 1.0)
        if self.fused_through and depth < one.thickness_mm:
            return Band.within(one.thickness_mm, error)
        return Band.within(depth, error)

    @cached_property
    def fused_through(self) -> bool:
        """Whether conduction melts the underside, as in sheet, long before the arc digs that deep."""
        if self.source is None or self.conductor is None or self.fusing_c is None:
            return False
        reach = 3 * max(self.half_widths_mm.get("pool", 0.0), self.settings.thickness_mm)
        behind = np.linspace(-reach, 0.0, 40)
        under = np.full_like(behind, self.settings.thickness_mm)
        found = plate_c(
            self.conductor, self.source, self.settings.thickness_mm, behind, np.zeros_like(behind), under
        )
        return bool(np.max(found) >= self.fusing_c)

    @property
    def positive_share(self) -> float:
        """Share of an AC period that is electrode positive, 0.3 where it is not set."""
        ac = self.settings.ac
        return 1 - ac.en_share if ac and ac.en_share is not None else 0.3

    def _ac_factor(self, power: float) -> float:
        ac = self.settings.ac
        if self.group != "tig-ac" or ac is None or ac.frequency_hz is None:
            return 1.0
        return float((min(max(ac.frequency_hz, 40.0), 250.0) / 100) ** power)

    @cached_property
    def base_mm2(self) -> float | None:
        """Section of base metal that is molten: width, depth and fill, as far as the heat goes."""
        if self.width_mm is None or self.penetration_mm is None or self.arc is None:
            return None
        depth = min(self.penetration_mm.value, self.settings.thickness_mm)
        shape = float(self.arc["fill"]) * self.width_mm.value * depth
        if self.melted_mm2 is None:
            return shape
        return min(shape, max(self.melted_mm2 - 0.5 * (self.deposit_mm2 or 0.0), 0.1 * shape))

    def behind_c(self, distance_mm: float) -> float | None:
        """Temperature on the centreline so far behind the arc, both faces losing heat [°C]."""
        if self.source is None or self.conductor is None:
            return None
        at = np.array([-distance_mm])
        none = np.zeros(1)
        found = float(plate_c(self.conductor, self.source, self.settings.thickness_mm, at, none, none)[0])
        seconds = distance_mm / self.source.travel_mm_s
        store = self.settings.thickness_mm * self.conductor.heat_j_mm3_k
        kept = math.exp(-2 * HOT_LOSS_W_MM2_K * seconds / store)
        return self.settings.start_c + (found - self.settings.start_c) * kept

    def citation_of_arc(self) -> Citation:
        """Where the shape of the pool comes from."""
        return self.arc_table.citation_of(self.arc_table.row(self.group))


def _exact(value: float | None) -> Range | None:
    return None if value is None else Range(value, value)


def _leaning(angle_deg: float | None, *, push: float, drag: float) -> float:
    """How a leaning torch changes depth or width, up to 25° (common practice)."""
    if not angle_deg:
        return 1.0
    lean = min(abs(angle_deg), 25.0)
    return 1 + (push if angle_deg > 0 else drag) * lean
