"""The variables of ranges: what they are called, their quantity, what a coupon would change."""

from __future__ import annotations

from dataclasses import dataclass

from welding.language import tr, tr_noop


@dataclass(frozen=True, slots=True)
class Variable:
    """Words for one variable, said in the language of the context.

    Attributes:
        sources: English of headline, of what a coupon would have to be, and of the heading it stands under.
        quantity: Kind of quantity of its numbers; empty for sets.
    """

    sources: tuple[str, str, str]
    quantity: str

    @property
    def title(self) -> str:
        """Headline."""
        return tr(self.sources[0])

    @property
    def coupon(self) -> str:
        """What a coupon would have to be to take in a value outside; ``{}`` is the value."""
        return tr(self.sources[1])

    @property
    def group(self) -> str:
        """Under which heading it stands."""
        return tr(self.sources[2])


def _v(title: str, quantity: str, coupon: str, group: str) -> Variable:
    return Variable((title, coupon, group), quantity)


_JOINT, _METAL, _FILLER, _POWER, _HEAT, _PROCESS = (
    tr_noop("Joint"),
    tr_noop("Base metal"),
    tr_noop("Filler and gas"),
    tr_noop("Electrical"),
    tr_noop("Temperature and heat"),
    tr_noop("Process"),
)

VARIABLES: dict[str, Variable] = {
    "processes": _v(tr_noop("Process"), "", tr_noop("a coupon welded with process {}"), _PROCESS),
    "mechanisation": _v(tr_noop("Degree of mechanisation"), "", tr_noop("a coupon welded {}"), _PROCESS),
    "weld_kinds": _v(tr_noop("Weld type"), "", tr_noop("a coupon with this weld: {}"), _JOINT),
    "parent_thickness_mm": _v(
        tr_noop("Base metal thickness"), "thickness", tr_noop("a coupon that qualifies {}"), _METAL
    ),
    "deposited_thickness_mm": _v(
        tr_noop("Deposited thickness"),
        "thickness",
        tr_noop("a coupon with more of this process deposited ({})"),
        _METAL,
    ),
    "groove_depth_mm": _v(
        tr_noop("Groove depth"), "thickness", tr_noop("a coupon with a groove of {}"), _JOINT
    ),
    "partial_weld_size_mm": _v(
        tr_noop("Weld size of a PJP groove"),
        "gap",
        tr_noop("three macroetch sections that show a weld size of {}"),
        _JOINT,
    ),
    "throat_mm": _v(
        tr_noop("Throat"), "gap", tr_noop("a fillet coupon with a throat that qualifies {}"), _JOINT
    ),
    "fillet_size_mm": _v(tr_noop("Fillet size"), "gap", tr_noop("a fillet coupon of {}"), _JOINT),
    "outside_diameter_mm": _v(
        tr_noop("Outside diameter"), "diameter", tr_noop("a pipe coupon that qualifies {}"), _METAL
    ),
    "branch_angle_deg": _v(tr_noop("Branch angle"), "angle", tr_noop("a branch coupon at {}"), _JOINT),
    "base_metals": _v(tr_noop("Base metals"), "", tr_noop("a coupon in {}"), _METAL),
    "positions": _v(tr_noop("Positions"), "", tr_noop("a coupon welded in {}"), _JOINT),
    "progression": _v(tr_noop("Progression"), "", tr_noop("a coupon welded {}"), _JOINT),
    "sides": _v(tr_noop("Sides"), "", tr_noop("a coupon welded from {}"), _JOINT),
    "backing": _v(tr_noop("Backing"), "", tr_noop("a coupon with {}"), _JOINT),
    "back_gouge": _v(tr_noop("Back-gouging"), "", tr_noop("a coupon {}"), _JOINT),
    "runs_per_side": _v(tr_noop("Passes per side"), "", tr_noop("a coupon with {} pass per side"), _JOINT),
    "groove": _v(tr_noop("Groove"), "", tr_noop("a coupon with this groove: {}"), _JOINT),
    "groove_angle_deg": _v(tr_noop("Groove angle"), "angle", tr_noop("a coupon with a groove of {}"), _JOINT),
    "root_gap_mm": _v(tr_noop("Root opening"), "gap", tr_noop("a coupon with a root opening of {}"), _JOINT),
    "root_face_mm": _v(tr_noop("Root face"), "gap", tr_noop("a coupon with a root face of {}"), _JOINT),
    "filler": _v(tr_noop("Filler class"), "", tr_noop("a coupon with {}"), _FILLER),
    "filler_make": _v(tr_noop("Filler trade name"), "", tr_noop("a coupon with {}"), _FILLER),
    "filler_diameter_mm": _v(
        tr_noop("Filler diameter"), "wire_diameter", tr_noop("a coupon with {}"), _FILLER
    ),
    "electrode_spacing_mm": _v(
        tr_noop("Spacing of the electrodes along the weld"),
        "gap",
        tr_noop("a coupon with electrodes {} apart"),
        _FILLER,
    ),
    "electrode_offset_mm": _v(
        tr_noop("Spacing of the electrodes across the weld"),
        "gap",
        tr_noop("a coupon with electrodes {} apart"),
        _FILLER,
    ),
    "electrode_current_a": _v(
        tr_noop("Current of each electrode"), "current", tr_noop("a coupon with this electrode at {}"), _POWER
    ),
    "electrode_polarity": _v(
        tr_noop("Polarity of each electrode"), "", tr_noop("a coupon with this electrode on {}"), _POWER
    ),
    "electrode_angle_deg": _v(
        tr_noop("Angle of each electrode along the weld"),
        "angle",
        tr_noop("a coupon with this electrode at {}"),
        _FILLER,
    ),
    "electrode_across_deg": _v(
        tr_noop("Angle of each electrode across the weld"),
        "angle",
        tr_noop("a coupon with this electrode at {}"),
        _FILLER,
    ),
    "electrodes": _v(tr_noop("Electrodes"), "", tr_noop("a coupon with {} electrodes"), _FILLER),
    "hydrogen_class": _v(tr_noop("Hydrogen"), "hydrogen", tr_noop("a coupon with a filler of {}"), _FILLER),
    "flux": _v(tr_noop("Flux"), "", tr_noop("a coupon with {}"), _FILLER),
    "supplemental_filler": _v(tr_noop("Supplementary filler"), "", tr_noop("a coupon with {}"), _FILLER),
    "gas": _v(tr_noop("Shielding gas"), "", tr_noop("a coupon with {}"), _FILLER),
    "gas_flow_l_min": _v(tr_noop("Gas flow"), "flow", tr_noop("a coupon with {}"), _FILLER),
    "purge": _v(tr_noop("Backing gas"), "", tr_noop("a coupon with {}"), _FILLER),
    "current_kind": _v(tr_noop("Current and polarity"), "", tr_noop("a coupon with {}"), _POWER),
    "output": _v(tr_noop("Power source output"), "", tr_noop("a coupon with {}"), _POWER),
    "transfer_modes": _v(tr_noop("Metal transfer"), "", tr_noop("a coupon with {} transfer"), _POWER),
    "current_a": _v(tr_noop("Current"), "current", tr_noop("a coupon at {}"), _POWER),
    "voltage_v": _v(tr_noop("Voltage"), "voltage", tr_noop("a coupon at {}"), _POWER),
    "wire_feed_m_min": _v(tr_noop("Wire feed"), "wire_feed", tr_noop("a coupon at {}"), _POWER),
    "travel_mm_min": _v(tr_noop("Travel speed"), "travel", tr_noop("a coupon at {}"), _POWER),
    "run_out_mm": _v(tr_noop("Run-out length"), "length", tr_noop("a coupon at {}"), _POWER),
    "bead": _v(tr_noop("Stringer or weave"), "", tr_noop("a coupon with {} beads"), _POWER),
    "oscillation": _v(tr_noop("Oscillation"), "", tr_noop("a coupon with this oscillation"), _POWER),
    "heat_input_kj_mm": _v(tr_noop("Heat input"), "heat_input", tr_noop("a coupon at {}"), _HEAT),
    "preheat_c": _v(tr_noop("Preheat"), "temperature", tr_noop("a coupon preheated to {}"), _HEAT),
    "interpass_c": _v(tr_noop("Interpass temperature"), "temperature", tr_noop("a coupon at {}"), _HEAT),
    "post_heat": _v(tr_noop("Post-heating (hydrogen release)"), "", tr_noop("a coupon with {}"), _HEAT),
    "pwht": _v(tr_noop("PWHT"), "", tr_noop("a coupon {}"), _HEAT),
    "pwht_hold_c": _v(tr_noop("Holding temperature"), "temperature", tr_noop("a coupon held at {}"), _HEAT),
    "pwht_hold_min": _v(tr_noop("Holding time"), "", tr_noop("a coupon held for {}"), _HEAT),
    "impact_temperature_c": _v(
        tr_noop("Impact test temperature"),
        "temperature",
        tr_noop("impact tests, from this coupon or a new one"),
        _HEAT,
    ),
    "hardness": _v(
        tr_noop("Hardness tested"), "", tr_noop("a hardness traverse from this coupon or a new one"), _HEAT
    ),
}
GROUPS = (_METAL, _JOINT, _PROCESS, _FILLER, _POWER, _HEAT)
PROOFS = ("impact_temperature_c", "hardness")
"""Variables that are proved by a test and not by how the coupon was welded."""
