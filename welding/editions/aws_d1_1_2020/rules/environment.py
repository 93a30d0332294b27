"""Wind at gas-shielded welding (AWS D1.1:2020, clause 7.11)."""

from __future__ import annotations

from welding.checks.site import WindLimit
from welding.codebook.table import load_table
from welding.documents.procedure import Code


def wind_limit(code: Code) -> WindLimit:
    """The limit by the printed column that governs: 5 mph, or 8 km/h."""
    table = load_table("welding.editions.aws_d1_1_2020", "environment")
    row = next(row for row in table.rows if row["item"] == "wind")
    speed = row["si_km_h"] / 3.6 if code.units == "si" else row["us_mph"] * 0.44704
    return WindLimit(
        m_s=speed, obligation="requirement", citation=table.citation_of(row), unchecked=table.unchecked
    )
