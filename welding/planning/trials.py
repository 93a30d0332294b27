"""Own trials: kept ones are offered first for the same wire, gas, position and thickness."""

from __future__ import annotations

from collections.abc import Iterable

from welding.consumables.gas import read_gas
from welding.documents.intent import Trial
from welding.errors import UnreadableError
from welding.planning.starting import Run, Setting

THICKNESS_SHARE = 0.15
"""Trials on plate this much thinner or thicker still hold (common practice)."""
DIAMETER_MM = 0.03


def matching_trials(setting: Setting, trials: Iterable[Trial]) -> list[Trial]:
    """Trials on the same wire, gas, position and about the same thickness, the latest first."""
    found = [trial for trial in trials if _matches(setting, trial)]
    return sorted(found, key=lambda trial: trial.made_on or "", reverse=True)


def _matches(setting: Setting, trial: Trial) -> bool:
    facts, filler = setting.facts, trial.filler
    same_wire = (
        trial.process == facts.process
        and (filler.designation or "").replace(" ", "").upper()
        == setting.designation.replace(" ", "").upper()
        and (filler.diameter_mm is None or abs(filler.diameter_mm - setting.diameter_mm) <= DIAMETER_MM)
    )
    same_way = (
        trial.position == facts.intent.position
        and (trial.progression is None or trial.progression == facts.progression)
        and (trial.transfer is None or trial.transfer == setting.transfer)
        and (trial.role is None or trial.role == setting.role)
    )
    near = abs(trial.thickness_mm - facts.thin) <= THICKNESS_SHARE * facts.thin
    return same_wire and same_way and near and _same_gas(setting, trial)


def _same_gas(setting: Setting, trial: Trial) -> bool:
    if not trial.gas or not setting.gas:
        return not trial.gas and not setting.gas
    try:
        said = read_gas(trial.gas)
    except UnreadableError:
        return False
    shares = {name: share for name, share in setting.gas.items() if share > 0}
    return {k: v for k, v in said.items() if v > 0} == shares


def near_rejected(run: Run, trials: Iterable[Trial]) -> Trial | None:
    """A rejected trial whose settings are about those of a run."""
    for trial in trials:
        if trial.verdict != "rejected":
            continue
        pairs = [
            (trial.current_a, run.current_a, 0.1),
            (trial.voltage_v, run.voltage_v, 0.05),
            (trial.wire_feed_m_min, run.feed_m_min, 0.1),
        ]
        known = [(said, ours, share) for said, ours, share in pairs if said and ours]
        if known and all(abs(said - ours) <= share * ours for said, ours, share in known):
            return trial
    return None
