"""What the impact sets of a record prove: a temperature and an energy, by where the notch lies."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from welding.documents.record import ImpactTest
from welding.qualification.coupon import TestCoupon
from welding.qualification.needs import specified_impact
from welding.qualification.notch import Notch, notches, wanted_notches

_FULL_WIDTH_MM = 10.0


@dataclass(frozen=True, slots=True, kw_only=True)
class ImpactProof:
    """What holds for weld metal and heat-affected zone alike, and for every process of the coupon.

    Attributes:
        temperature_c: The warmest of the coldest temperatures of each place [°C].
        energy_j: Mean energy that every place shows there [J]; ``None`` where it is not known.
        lacking: Places without a set, by process where the coupon has several.
    """

    temperature_c: float
    energy_j: float | None
    lacking: tuple[Notch, ...]


def impact_proof(coupon: TestCoupon, single_share: float) -> ImpactProof | None:
    """The proof of a record's sets that count; ``None`` without one.

    Args:
        coupon: The coupon.
        single_share: Least single value as a share of the mean asked, as the code has it.
    """
    sets = [
        one
        for one in coupon.record.tests
        if isinstance(one, ImpactTest) and one.discarded is None and one.temperature_c is not None
    ]
    if not sets:
        return None
    asked = coupon.impact_asked
    own_c, own_j = getattr(asked, "temperature_c", None), getattr(asked, "average_j", None)
    specified = [value for one in coupon.metals if (value := specified_impact(one))]
    if own_j is None and specified:
        own_j = min(one.energy_j for one in specified)
        own_c = min(one.temperature_c for one in specified) if own_c is None else own_c
    by_place: dict[Notch, list[ImpactTest]] = {}
    for one in sets:
        for notch in notches(one, coupon.processes):
            by_place.setdefault(notch, []).append(one)
    proved = [_of_place(found, own_c, own_j, single_share) for found in by_place.values()]
    energies = [energy for _, energy in proved]
    return ImpactProof(
        temperature_c=max(cold for cold, _ in proved),
        energy_j=None if None in energies else min(energy for energy in energies if energy is not None),
        lacking=tuple(one for one in wanted_notches(coupon.processes) if one not in by_place),
    )


def _of_place(
    sets: Iterable[ImpactTest], own_c: float | None, own_j: float | None, single_share: float
) -> tuple[float, float | None]:
    """Coldest temperature of a place's sets, and the energy there; accepted sets show what was asked."""
    by_temperature: dict[float, list[ImpactTest]] = {}
    for one in sets:
        # A narrow specimen is broken colder than what it stands for: it proves what was asked of it.
        narrow = one.width_mm is not None and one.width_mm < _FULL_WIDTH_MM - 1e-9
        at = one.temperature_c or 0.0
        by_temperature.setdefault(max(at, own_c) if narrow and own_c is not None else at, []).append(one)
    cold = min(by_temperature)
    shown = [_energy_j(one, single_share) for one in by_temperature[cold]]
    known = [one for one in shown if one is not None]
    energy = min(known) if len(known) == len(shown) else None
    if own_j is not None and (own_c is None or cold <= own_c + 1e-9):
        energy = max(energy or 0.0, own_j)
    return cold, energy


def _energy_j(one: ImpactTest, single_share: float) -> float | None:
    """The greatest mean asked that a set of full width meets [J], with at most one value below it."""
    known = [value for value in one.values_j if value is not None]
    if not known or len(known) < len(one.values_j):
        return None
    if one.width_mm is not None and one.width_mm < _FULL_WIDTH_MM - 1e-9:
        return None
    second = sorted(known)[1] if len(known) > 1 else known[0]
    return min(sum(known) / len(known), min(known) / single_share, second)
