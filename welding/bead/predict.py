"""``predict``: what one setting makes of a weld, figure by figure, with error and source."""

from __future__ import annotations

from dataclasses import dataclass
from random import Random

from welding.bead.arc_figures import arc_figures
from welding.bead.bead_figures import bead_figures
from welding.bead.behaviour_figures import behaviour_figures
from welding.bead.figures import Figure
from welding.bead.heat_figures import distortion_figures, heat_figures
from welding.bead.joint_picture import JointPicture, joint_picture_of
from welding.bead.picture import BeadPicture, picture_of
from welding.bead.shielding_figures import shielding_figures
from welding.bead.state import BeadState
from welding.bead.trace import ArcTrace, trace_of
from welding.bead.wave import ac_trace, pulse_trace
from welding.documents.bead_settings import BeadSettings


@dataclass(frozen=True, slots=True, kw_only=True)
class Prediction:
    """The figures of one setting in the order of the trade, and its drawings (``None`` without a model):
    on a plate, and in its joint where that is a fillet or a groove."""

    figures: tuple[Figure, ...]
    picture: BeadPicture | None
    joint: JointPicture | None

    def figure(self, key: str) -> Figure | None:
        """The figure of this key."""
        return next((one for one in self.figures if one.key == key), None)


def predict(settings: BeadSettings) -> Prediction:
    """Predict a bead.

    Nothing raises: what is outside a relation is a figure that says that there is no model, and why.
    """
    state = BeadState(settings)
    figures = (
        *arc_figures(state),
        *behaviour_figures(state),
        *bead_figures(state),
        *heat_figures(state),
        *shielding_figures(state),
        *distortion_figures(state),
    )
    return Prediction(figures=figures, picture=picture_of(state), joint=joint_picture_of(state))


def trace_for(settings: BeadSettings, prediction: Prediction) -> ArcTrace | None:
    """How voltage and current move, by the source's wave or the transfer that is predicted; ``None`` without.

    Args:
        settings: The settings.
        prediction: What was predicted for them.
    """
    state = BeadState(settings)
    if settings.pulse is not None:
        made = pulse_trace(settings.pulse, state.volts, wire=bool(state.wire))
        if made is not None:
            return made
    if state.group == "tig-ac" and settings.ac is not None and state.amps and state.volts:
        return ac_trace(settings.ac, state.amps, state.volts)
    if state.transfer is None:
        return None
    shorts = prediction.figure("short_circuits_hz")
    rate = shorts.value if shorts else None
    if state.transfer == "pulsed":
        rate = settings.pulse.frequency_hz if settings.pulse else None
    # Always the same lot: a drag changes the trace by its settings alone.
    lot = Random(0)  # noqa: S311
    return trace_of(state.transfer, lot, rate_hz=rate, mean_a=state.amps, mean_v=settings.voltage_v)
