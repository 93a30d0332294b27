"""The variables of ranges: what they are called, their quantity, what a coupon would change."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Variable:
    """Words for one variable.

    Attributes:
        title: Headline.
        quantity: Kind of quantity of its numbers; empty for sets.
        coupon: What a coupon would have to be to take in a value outside; ``{}`` is the value.
        group: Under which heading it stands.
    """

    title: str
    quantity: str
    coupon: str
    group: str


def _v(title: str, quantity: str, coupon: str, group: str) -> Variable:
    return Variable(title, quantity, coupon, group)


_JOINT, _METAL, _FILLER, _POWER, _HEAT, _PROCESS = (
    "Joint",
    "Base metal",
    "Filler and gas",
    "Electrical",
    "Temperature and heat",
    "Process",
)

VARIABLES: dict[str, Variable] = {
    "processes": _v("Process", "", "a coupon welded with process {}", _PROCESS),
    "mechanisation": _v("Degree of mechanisation", "", "a coupon welded {}", _PROCESS),
    "weld_kinds": _v("Weld type", "", "a coupon with this weld: {}", _JOINT),
    "parent_thickness_mm": _v("Base metal thickness", "thickness", "a coupon that qualifies {}", _METAL),
    "deposited_thickness_mm": _v(
        "Deposited thickness", "thickness", "a coupon with more of this process deposited ({})", _METAL
    ),
    "groove_depth_mm": _v("Groove depth", "thickness", "a coupon with a groove of {}", _JOINT),
    "partial_weld_size_mm": _v(
        "Weld size of a PJP groove",
        "gap",
        "three macroetch sections that show a weld size of {}",
        _JOINT,
    ),
    "throat_mm": _v("Throat", "gap", "a fillet coupon with a throat that qualifies {}", _JOINT),
    "fillet_size_mm": _v("Fillet size", "gap", "a fillet coupon of {}", _JOINT),
    "outside_diameter_mm": _v("Outside diameter", "diameter", "a pipe coupon that qualifies {}", _METAL),
    "branch_angle_deg": _v("Branch angle", "angle", "a branch coupon at {}", _JOINT),
    "base_metals": _v("Base metals", "", "a coupon in {}", _METAL),
    "positions": _v("Positions", "", "a coupon welded in {}", _JOINT),
    "progression": _v("Progression", "", "a coupon welded {}", _JOINT),
    "sides": _v("Sides", "", "a coupon welded from {}", _JOINT),
    "backing": _v("Backing", "", "a coupon with {}", _JOINT),
    "back_gouge": _v("Back-gouging", "", "a coupon {}", _JOINT),
    "runs_per_side": _v("Passes per side", "", "a coupon with {} pass per side", _JOINT),
    "groove": _v("Groove", "", "a coupon with this groove: {}", _JOINT),
    "groove_angle_deg": _v("Groove angle", "angle", "a coupon with a groove of {}", _JOINT),
    "root_gap_mm": _v("Root opening", "gap", "a coupon with a root opening of {}", _JOINT),
    "root_face_mm": _v("Root face", "gap", "a coupon with a root face of {}", _JOINT),
    "filler": _v("Filler class", "", "a coupon with {}", _FILLER),
    "filler_make": _v("Filler trade name", "", "a coupon with {}", _FILLER),
    "filler_diameter_mm": _v("Filler diameter", "wire_diameter", "a coupon with {}", _FILLER),
    "electrode_spacing_mm": _v(
        "Spacing of the electrodes along the weld", "gap", "a coupon with electrodes {} apart", _FILLER
    ),
    "electrode_offset_mm": _v(
        "Spacing of the electrodes across the weld", "gap", "a coupon with electrodes {} apart", _FILLER
    ),
    "electrode_current_a": _v(
        "Current of each electrode", "current", "a coupon with this electrode at {}", _POWER
    ),
    "electrode_polarity": _v("Polarity of each electrode", "", "a coupon with this electrode on {}", _POWER),
    "electrode_angle_deg": _v(
        "Angle of each electrode along the weld", "angle", "a coupon with this electrode at {}", _FILLER
    ),
    "electrode_across_deg": _v(
        "Angle of each electrode across the weld", "angle", "a coupon with this electrode at {}", _FILLER
    ),
    "electrodes": _v("Electrodes", "", "a coupon with {} electrodes", _FILLER),
    "hydrogen_class": _v("Hydrogen", "hydrogen", "a coupon with a filler of {}", _FILLER),
    "flux": _v("Flux", "", "a coupon with {}", _FILLER),
    "supplemental_filler": _v("Supplementary filler", "", "a coupon with {}", _FILLER),
    "gas": _v("Shielding gas", "", "a coupon with {}", _FILLER),
    "gas_flow_l_min": _v("Gas flow", "flow", "a coupon with {}", _FILLER),
    "purge": _v("Backing gas", "", "a coupon with {}", _FILLER),
    "current_kind": _v("Current and polarity", "", "a coupon with {}", _POWER),
    "output": _v("Power source output", "", "a coupon with {}", _POWER),
    "transfer_modes": _v("Metal transfer", "", "a coupon with {} transfer", _POWER),
    "current_a": _v("Current", "current", "a coupon at {}", _POWER),
    "voltage_v": _v("Voltage", "voltage", "a coupon at {}", _POWER),
    "wire_feed_m_min": _v("Wire feed", "wire_feed", "a coupon at {}", _POWER),
    "travel_mm_min": _v("Travel speed", "travel", "a coupon at {}", _POWER),
    "run_out_mm": _v("Run-out length", "length", "a coupon at {}", _POWER),
    "bead": _v("Stringer or weave", "", "a coupon with {} beads", _POWER),
    "oscillation": _v("Oscillation", "", "a coupon with this oscillation", _POWER),
    "heat_input_kj_mm": _v("Heat input", "heat_input", "a coupon at {}", _HEAT),
    "preheat_c": _v("Preheat", "temperature", "a coupon preheated to {}", _HEAT),
    "interpass_c": _v("Interpass temperature", "temperature", "a coupon at {}", _HEAT),
    "post_heat": _v("Post-heating (hydrogen release)", "", "a coupon with {}", _HEAT),
    "pwht": _v("PWHT", "", "a coupon {}", _HEAT),
    "pwht_hold_c": _v("Holding temperature", "temperature", "a coupon held at {}", _HEAT),
    "pwht_hold_min": _v("Holding time", "", "a coupon held for {}", _HEAT),
    "impact_temperature_c": _v(
        "Impact test temperature", "temperature", "impact tests, from this coupon or a new one", _HEAT
    ),
    "hardness": _v("Hardness tested", "", "a hardness traverse from this coupon or a new one", _HEAT),
}
GROUPS = (_METAL, _JOINT, _PROCESS, _FILLER, _POWER, _HEAT)
PROOFS = ("impact_temperature_c", "hardness")
"""Variables that are proved by a test and not by how the coupon was welded."""
