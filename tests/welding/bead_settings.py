"""Settings that tests of the bead start from, and what is predicted for them with changes."""

from typing import Any

from welding.bead.figures import Figure
from welding.bead.predict import predict
from welding.documents.bead_settings import BeadSettings
from welding.documents.codec import BEAD_SETTINGS

M21 = {"Ar": 82, "CO2": 18}
SPRAY: dict[str, Any] = {
    "process": "135", "metal": "S355J2", "thickness_mm": 12, "gas": M21, "filler": "ER70S-6", "diameter_mm": 1.2,
    "wire_feed_m_min": 9.5, "voltage_v": 29, "travel_mm_min": 400, "extension_mm": 18, "gas_flow_l_min": 16,
    "nozzle_mm": 16,
}  # fmt: skip
SHORT: dict[str, Any] = {
    **SPRAY, "thickness_mm": 4, "diameter_mm": 1.0, "wire_feed_m_min": 5, "voltage_v": 18, "travel_mm_min": 350,
    "extension_mm": 12, "inductance_percent": 50,
}  # fmt: skip
PULSE: dict[str, Any] = {"peak_a": 400, "background_a": 60, "peak_share": 0.3, "frequency_hz": 110}
PULSED: dict[str, Any] = {
    **SPRAY,
    "wire_feed_m_min": None,
    "voltage_v": 25,
    "transfer": "pulsed",
    "pulse": PULSE,
}
ROOT: dict[str, Any] = {**SHORT, "thickness_mm": 10, "joint": "butt", "root_face_mm": 1.5, "root_gap_mm": 2}
TIG: dict[str, Any] = {
    "process": "141", "metal": "304L", "thickness_mm": 1.5, "gas": {"Ar": 100}, "current_a": 60, "voltage_v": 10,
    "travel_mm_min": 150, "polarity": "DCEN", "cup": {"number": 10, "lens": True}, "gas_flow_l_min": 10,
    "tungsten": {"diameter_mm": 2.4, "type": "WC20"}, "feed_filler": False,
}  # fmt: skip
AC: dict[str, Any] = {
    "process": "141", "metal": "5083", "thickness_mm": 6, "gas": {"Ar": 100}, "current_a": 190, "voltage_v": 14,
    "travel_mm_min": 180, "polarity": "AC", "ac": {"en_share": 0.68, "frequency_hz": 100},
    "tungsten": {"diameter_mm": 3.2, "type": "WL15"}, "filler": "ER5356", "diameter_mm": 3.2, "cup": {"number": 8},
}  # fmt: skip
SAW: dict[str, Any] = {
    "process": "121", "metal": "S355J2", "thickness_mm": 20, "filler": "EM12K", "diameter_mm": 4.0, "current_a": 550,
    "voltage_v": 30, "travel_mm_min": 500, "polarity": "DCEP", "extension_mm": 30,
}  # fmt: skip
STICK: dict[str, Any] = {
    "process": "111", "metal": "S355J2", "thickness_mm": 12, "current_a": 125, "voltage_v": 24, "travel_mm_min": 150,
    "polarity": "DCEP", "filler": "E7018", "diameter_mm": 3.2,
}  # fmt: skip


def settings(plain: dict[str, Any], /, **changes: Any) -> BeadSettings:
    head = {"format": "grounded-bead/bead-settings", "version": 1}
    merged = {key: value for key, value in {**head, **plain, **changes}.items() if value is not None}
    return BEAD_SETTINGS.take(merged)


def figures(plain: dict[str, Any], /, **changes: Any) -> dict[str, Figure]:
    return {one.key: one for one in predict(settings(plain, **changes)).figures}


def value(plain: dict[str, Any], key: str, /, **changes: Any) -> float:
    found = figures(plain, **changes)[key].value
    assert found is not None, (key, changes)
    return found
