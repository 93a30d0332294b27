"""Relations that starting settings come from: melting, arc volts, current, travel. Common practice.

Each has the range it was set up for and an error. None is a code limit. How the melting law was fitted
and what it missed stands in docs/rules.md; tests fit it again.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from welding.citation import Citation
from welding.codebook.book import by_book
from welding.codebook.table import Table, load_table
from welding.errors import UnknownEntryError
from welding.ranges import Range, positive

PACKAGE = "welding.arc"


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """A value from a relation.

    Attributes:
        value: In the unit its function names.
        error_percent: How far a working setting usually lies from it.
        inside: Whether the arguments lie in the range the relation was set up for.
        citation: Where the relation stands.
        unchecked: Its table, while nobody has compared it.
    """

    value: float
    error_percent: float
    inside: bool
    citation: Citation
    unchecked: tuple[str, ...]


def _row(table: Table, key: str, wanted: str) -> Mapping[str, Any]:
    row = next((row for row in table.rows if row[key] == wanted), None)
    if row is None:
        raise UnknownEntryError(f"{wanted!r} has no row in {table.id}")
    return row


def _estimate(table: Table, row: Mapping[str, Any], value: float, *, inside: bool) -> Estimate:
    return Estimate(
        value=value,
        error_percent=row["error_percent"],
        inside=inside,
        citation=table.citation_of(row),
        unchecked=table.unchecked,
    )


# --- melting ----------------------------------------------------------------------------------


def wire_feed_m_min(
    kind: str, diameter_mm: float, current_a: float, extension_mm: float, rms_a: float | None = None
) -> Estimate:
    """Feed that a current melts: m1·I/A + m2·L·I²/A², electrode heat and resistance heat.

    Args:
        kind: Row of the table of burn-off.
        diameter_mm: True diameter of the wire [mm].
        current_a: Mean current [A].
        extension_mm: Wire beyond the contact tip [mm].
        rms_a: Root mean square of a pulsed current, by which the wire is heated by resistance [A]; the mean
            without it.

    Raises:
        UnknownEntryError: No such kind.
        OutOfRangeError: A number is not above zero.

    Example:
        >>> round(wire_feed_m_min("solid-steel", 1.2, 200, 15).value, 1)
        5.2
    """
    positive("mm").require("diameter_mm", diameter_mm)
    positive("A").require("current_a", current_a)
    positive("mm").require("extension_mm", extension_mm)
    table = load_table(PACKAGE, "burn_off")
    row = _row(table, "kind", kind)
    feed_mm_s = melting_mm_s(_law(row, diameter_mm), extension_mm, current_a, rms_a)
    inside = row["d_min_mm"] * 0.99 <= diameter_mm <= row["d_max_mm"] * 1.01
    return _estimate(table, row, feed_mm_s * 0.06, inside=inside)


def current_a(kind: str, diameter_mm: float, feed_m_min: float, extension_mm: float) -> Estimate:
    """Current that a feed draws; the inverse of ``wire_feed_m_min``.

    Example:
        >>> round(current_a("solid-steel", 1.2, 5.2, 15).value)
        201
    """
    positive("m/min").require("feed_m_min", feed_m_min)
    one_amp = wire_feed_m_min(kind, diameter_mm, 1.0, extension_mm)
    table = load_table(PACKAGE, "burn_off")
    row = _row(table, "kind", kind)
    value = melting_a(_law(row, diameter_mm), extension_mm, feed_m_min / 0.06)
    return _estimate(table, row, value, inside=one_amp.inside)


@dataclass(frozen=True, slots=True)
class MeltingLaw:
    """Feed = alpha I + beta L I²: ``alpha`` in mm/(A·s), ``beta`` in 1/(A²·s), of one wire and size."""

    alpha: float
    beta: float

    def scaled(self, diameter_mm: float, to_mm: float) -> MeltingLaw:
        """The same wire in another size: the one per section, the other per section squared."""
        thinner = (diameter_mm / to_mm) ** 2
        return MeltingLaw(self.alpha * thinner, self.beta * thinner**2)


def melting_mm_s(law: MeltingLaw, extension_mm: float, mean_a: float, rms_a: float | None = None) -> float:
    """Feed that a current melts [mm/s]; resistance heats by the root mean square, the arc by the mean."""
    heating = mean_a if rms_a is None else rms_a
    return law.alpha * mean_a + law.beta * extension_mm * heating**2


def melting_a(law: MeltingLaw, extension_mm: float, feed_mm_s: float) -> float:
    """Current that a feed draws [A], the root of the law."""
    square = law.beta * extension_mm
    if square <= 0:
        return feed_mm_s / law.alpha
    return (-law.alpha + math.sqrt(law.alpha**2 + 4 * square * feed_mm_s)) / (2 * square)


def _law(row: Mapping[str, Any], diameter_mm: float) -> MeltingLaw:
    area_mm2 = math.pi / 4 * diameter_mm**2
    return MeltingLaw(row["m1"] / area_mm2, row["m2"] / area_mm2**2)


def extension_mm(kind: str) -> float:
    """Extension that a kind of wire is run with [mm]."""
    return float(_row(load_table(PACKAGE, "burn_off"), "kind", kind)["extension_mm"])


# --- volts ------------------------------------------------------------------------------------


def active_percent(components: Mapping[Any, float]) -> float:
    """Active part of a gas, CO2 and O2 [% by volume]; it is what arc volts go by."""
    return components.get("CO2", 0.0) + components.get("O2", 0.0)


def arc_volts(case: str, current: float, components: Mapping[Any, float]) -> tuple[Estimate, float]:
    """Arc volts at a current, and what of them the gas adds [V].

    Args:
        case: Row of the table of arc volts.
        current: Mean current [A].
        components: Gas, % by volume; empty for covered electrodes.

    Example:
        >>> estimate, gas = arc_volts("steel-short", 110, {"Ar": 75, "CO2": 25})
        >>> round(estimate.value, 1), gas
        (17.2, 0.0)
    """
    positive("A").require("current", current)
    table = load_table(PACKAGE, "arc_volts")
    row = _row(table, "case", case)
    lean = min(1.0, max(0.0, (25 - active_percent(components)) / 20))
    rich = min(1.0, max(0.0, (components.get("CO2", 0.0) - 25) / 75))
    shift = row["lean_v"] * lean + row["co2_v"] * rich if components else 0.0
    if components.get("He"):
        shift += 0.04 * components["He"]
    inside = row["a_min"] <= current <= row["a_max"]
    return _estimate(table, row, row["base_v"] + row["slope"] * current + shift, inside=inside), shift


# --- current ----------------------------------------------------------------------------------


def fillet_factor(case: str) -> float:
    """How many times the current of a butt a T or lap takes; 1 where the case does not tell them apart.

    Example:
        >>> fillet_factor("tig-aluminium"), fillet_factor("short")
        (1.35, 1.0)
    """
    return float(_row(load_table(PACKAGE, "current_law"), "case", case).get("fillet", 1.0))


def current_for_thickness(case: str, thickness_mm: float) -> Estimate:
    """Current for a thickness: the lesser of a steep and a flat line [A].

    Above the thickness that the row knows the current stays: thicker metal takes more beads, not hotter ones.

    Example:
        >>> round(current_for_thickness("tig", 3.048).value)
        119
    """
    positive("mm").require("thickness_mm", thickness_mm)
    table = load_table(PACKAGE, "current_law")
    row = _row(table, "case", case)
    counted = min(thickness_mm, row["t_max"])
    value = min(row["steep"] * counted, row["base"] + row["slope"] * counted)
    return _estimate(table, row, value, inside=row["t_min"] <= thickness_mm <= row["t_max"])


@by_book(4096)
def wire_range(
    kind: str, diameter_mm: float, *, uphill: bool = False
) -> tuple[Range, Citation, tuple[str, ...]] | None:
    """Current that a wire or an electrode takes; between listed diameters straight in between.

    Args:
        kind: Group of pass, or kind of electrode.
        diameter_mm: True diameter [mm].
        uphill: Uphill or overhead, where the pool holds less.
    """
    table = load_table(PACKAGE, "wire_current")
    rows = sorted((row for row in table.rows if row["kind"] == kind), key=lambda row: row["d_mm"])
    if not rows or not rows[0]["d_mm"] - 0.12 <= diameter_mm <= rows[-1]["d_mm"] + 0.12:
        return None

    def ends(row: Mapping[str, Any]) -> tuple[float, float]:
        if not uphill:
            return row["min_a"], row["max_a"]
        return row.get("min_up_a", row["min_a"]), row["max_up_a"]

    near = next((row for row in rows if abs(row["d_mm"] - diameter_mm) <= 0.06), None)
    if near is not None:
        return Range.between(*ends(near)), table.citation_of(near), table.unchecked
    above = next((i for i, row in enumerate(rows) if row["d_mm"] >= diameter_mm), len(rows) - 1)
    low, high = rows[max(above - 1, 0)], rows[above]
    share = (diameter_mm - low["d_mm"]) / (high["d_mm"] - low["d_mm"]) if high is not low else 0.0
    least, most = (a + share * (b - a) for a, b in zip(ends(low), ends(high), strict=True))
    return Range.between(least, most), table.citation_of(low), table.unchecked


# --- travel and bead shape --------------------------------------------------------------------


def travel_range(group: str, attitude: str) -> tuple[Range, Citation, tuple[str, ...]] | None:
    """Travel that a process is run at in a position [mm/min]; ``None`` where it is not used there."""
    table = load_table(PACKAGE, "travel")
    row = next((r for r in table.rows if r["group"] == group and r["attitude"] == attitude), None)
    if row is None:
        return None
    return Range.between(row["min_mm_min"], row["max_mm_min"]), table.citation_of(row), table.unchecked


@dataclass(frozen=True, slots=True, kw_only=True)
class BeadShape:
    """Layer thickness and bead width that plans take [mm], and the largest section of a bead [mm²]."""

    root_mm: float
    fill_mm: float
    width_mm: float
    most_mm2: float
    citation: Citation


def bead_shape(group: str, attitude: str, diameter_mm: float) -> BeadShape:
    """The usual bead of a process in a position, with filler of this diameter [mm]."""
    table = load_table(PACKAGE, "bead_shape")
    row = _row(table, "group", group)
    width = row["width_up_mm"] if attitude == "vertical-up" else row["width_mm"]
    return BeadShape(
        root_mm=row["root_mm"],
        fill_mm=row["fill_mm"],
        width_mm=width,
        most_mm2=row["most_mm2"] * diameter_mm / row["at_mm"],
        citation=table.citation_of(row),
    )
