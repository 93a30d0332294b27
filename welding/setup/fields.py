"""Which fields a process has: a screen shows no others, and a document that states others is told."""

from __future__ import annotations

from dataclasses import dataclass

from welding.citation import Citation
from welding.codebook.book import by_book
from welding.codebook.table import load_table
from welding.language import tr


@dataclass(frozen=True, slots=True, kw_only=True)
class SetupField:
    """One field, or group of fields, of a pass.

    Attributes:
        path: Below the pass, such as ``tungsten``.
        words: What it is called.
        processes: ISO 4063 numbers that have it.
        polarity: The only polarity that has it; empty for every one.
        transfers: On wire, the only transfer modes that have it; empty for every one.
    """

    path: str
    words: str
    processes: tuple[str, ...]
    polarity: str
    transfers: tuple[str, ...]


@by_book(8)
def setup_fields() -> tuple[SetupField, ...]:
    """Every field that some processes do not have."""
    return tuple(
        SetupField(
            path=row["path"],
            words=tr(row["words"]),
            processes=tuple(row["processes"]),
            polarity=row.get("polarity", ""),
            transfers=tuple(row.get("transfers", ())),
        )
        for row in load_table("welding.setup", "fields_by_process").rows
    )


def fields_of(process: str, polarity: str | None, transfer: str | None) -> tuple[str, ...]:
    """Paths of the listed fields that a pass has.

    Args:
        process: ISO 4063 number.
        polarity: Of the electrode, where it is stated.
        transfer: Transfer mode of wire, where it is stated.

    Example:
        >>> fields_of("111", "DCEP", None)
        ('purge', 'run_out_mm')
    """
    wire = "transfer" in {one.path for one in setup_fields() if process in one.processes}
    return tuple(
        one.path
        for one in setup_fields()
        if process in one.processes
        and (not one.polarity or one.polarity == polarity)
        and (not one.transfers or not wire or transfer in one.transfers)
    )


def fields_citation() -> Citation:
    """Where the table of fields stands."""
    return load_table("welding.setup", "fields_by_process").citation
