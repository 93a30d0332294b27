"""A pass tried on scrap, filed under what it was tried for: its means, its wire, gas and thinner thickness."""

from __future__ import annotations

import pytest

from tests.welding.samples import a_pass, procedure
from welding.documents.codec import PASS_RECORD, PROCEDURE
from welding.errors import WeldingError
from welding.planning.trial import trial_of

TRIED = {
    "number": 2,
    "current_a": {"mean": 236},
    "voltage_v": {"mean": 25.5},
    "wire_feed_m_min": {"mean": 8.1},
    "length_mm": 150,
    "time_s": 36,
    "remarks": "steady",
}


def test_a_trial_says_what_was_tried_and_on_what():
    planned = PROCEDURE.take(
        procedure(
            base_metals=[{"designation": "S355J2+N", "thickness_mm": mm} for mm in (20, 12)],
            passes=[a_pass(1, "root"), a_pass(2)],
        )
    )
    trial = trial_of(planned, PASS_RECORD.take(TRIED), "kept", "2026-05-03")
    assert (trial.process, trial.role, trial.position, trial.progression) == ("135", "fill", "PF", "up")
    assert (trial.filler.designation, trial.filler.diameter_mm) == ("ER70S-6", 1.2)
    assert trial.thickness_mm == 12 and trial.metal == "S355J2+N"
    assert (trial.current_a, trial.voltage_v, trial.wire_feed_m_min) == (236, 25.5, 8.1)
    assert trial.travel_mm_min == pytest.approx(250)  # 150 mm in 36 s
    assert (trial.seen, trial.verdict, trial.made_on) == ("steady", "kept", "2026-05-03")


@pytest.mark.parametrize(
    "changes", [{"passes": [a_pass(1)]}, {"positions": []}, {"base_metals": [{"designation": "S355J2+N"}]}]
)
def test_a_trial_that_cannot_be_filed_is_refused(changes):
    with pytest.raises(WeldingError):
        trial_of(PROCEDURE.take(procedure(**changes)), PASS_RECORD.take(TRIED), "kept", "2026-05-03")
