"""How the columns of a recorder's file become time, volts and amps. Remembered for each device."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.language import tr

Unit = Literal[
    "s", "ms", "us", "min", "clock", "V", "mV", "A", "kA", "mA", "m/min", "in/min", "L/min", "cfh", "1"
]
FACTORS: dict[Unit, float] = {
    "s": 1.0,
    "ms": 1e-3,
    "us": 1e-6,
    "min": 60.0,
    "clock": 1.0,
    "V": 1.0,
    "mV": 1e-3,
    "A": 1.0,
    "kA": 1e3,
    "mA": 1e-3,
    "m/min": 1.0,
    "in/min": 0.0254,
    "L/min": 1.0,
    # 0.3048 m cubed an hour, in litres a minute
    "cfh": 0.3048**3 * 1000 / 60,
    "1": 1.0,
}
"""What a number in this unit is multiplied by; ``clock`` is hours, minutes and seconds."""

TIME_UNITS: tuple[Unit, ...] = ("s", "ms", "us", "min", "clock")


@dataclass(frozen=True, slots=True, kw_only=True)
class Column:
    """One column of the file: its name or its number from 1, its unit and the sensor's scale."""

    column: f.Line
    unit: Unit
    scale: Annotated[float, Field(gt=-1e9, lt=1e9)] = 1.0
    offset: Annotated[float, Field(gt=-1e9, lt=1e9)] = 0.0

    @property
    def factor(self) -> float:
        """From the number in the file to the unit of the program, before ``offset`` is added."""
        return FACTORS[self.unit] * self.scale


@dataclass(frozen=True, slots=True, kw_only=True)
class Mapping:
    """How to read a device's files.

    ``header_line`` is the line with the names, counted from 1 (0: there is none); data begin at
    ``first_line``. Without a time column ``sample_rate_hz`` gives the clock. Parquet ignores the
    fields on text.
    """

    delimiter: Literal[",", ";", "\t", "|", " "] = ","
    decimal: Literal[".", ","] = "."
    encoding: Literal["utf-8", "utf-16", "cp1252"] = "utf-8"
    header_line: Annotated[int, Field(ge=0, le=1000)] = 1
    first_line: Annotated[int, Field(ge=1, le=1001)] = 2
    time: Column | None = None
    sample_rate_hz: Annotated[float, Field(ge=0.01, le=10_000_000)] | None = None
    voltage: Column
    current: Column
    wire_feed: Column | None = None
    gas: Column | None = None

    def __post_init__(self) -> None:
        if self.time is None and self.sample_rate_hz is None:
            raise ValueError(tr("name the time column, or give the samples a second"))
        if self.time is not None and self.time.unit not in TIME_UNITS:
            raise ValueError(tr("the time column is in s, ms, us, min or clock"))

    @property
    def columns(self) -> dict[str, Column]:
        """The chosen columns by the channel that they become."""
        chosen = {
            "time_s": self.time,
            "voltage_v": self.voltage,
            "current_a": self.current,
            "wire_feed_m_min": self.wire_feed,
            "gas_l_min": self.gas,
        }
        return {name: column for name, column in chosen.items() if column is not None}
