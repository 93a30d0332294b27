"""What a code for the qualification of persons is: how its designations read, what a test covers."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from welding.citation import Citation
from welding.codebook.table import Table, load_table
from welding.documents.procedure import Procedure
from welding.documents.welder_weld import WelderWeld
from welding.language import Usage
from welding.qualification.items import RangeItem
from welding.welders.asked import Asked
from welding.welders.comparing import Compared


@dataclass(frozen=True, slots=True, kw_only=True)
class WelderEdition:
    """One edition of such a code.

    Attributes:
        id: Its id, such as ``iso-9606-1:2017``.
        title: Full name.
        short: What screens and designations say.
        usage: Whose terms its users speak.
        package: Dotted name of its folder, whose tables hold its numbers.
        prefixes: What its designations begin with, longest first.
        read: A designation without its prefix, as a weld.
        write: A weld as a designation.
        range_items: What a test piece covers; for a piece of two processes each process by itself, and both.
        compare: Answers on a weld that is asked, given the items and the weld that was tested, one by one.
        positions_asked: Positions in which somebody has to be qualified for a weld: all of them.
        scope: Where its scope stands.
        asked_of: What a procedure asks of whoever welds it; ``None`` where that is not answered yet.
        procedure_codes: Codes of procedures that qualify persons by this one.
        together: Positions that two test pieces of one diameter stand for together.
        pieces_for: Test pieces that somebody could weld to be qualified for a weld; whether each covers it is
            for ``compare`` to say.
    """

    id: str
    title: str
    short: str
    usage: Usage
    package: str
    prefixes: tuple[str, ...]
    read: Callable[[str], WelderWeld]
    write: Callable[[WelderWeld], str]
    range_items: Callable[[WelderWeld], tuple[RangeItem, ...]]
    compare: Callable[[Sequence[RangeItem], WelderWeld, WelderWeld], Iterator[Compared]]
    positions_asked: Callable[[WelderWeld], tuple[str, ...]]
    together: Callable[[WelderWeld], tuple[str, ...]] = lambda _: ()
    scope: Citation | None = None
    pieces_for: Callable[[WelderWeld], tuple[WelderWeld, ...]] = lambda _: ()
    asked_of: Callable[[Procedure], Asked] | None = None
    procedure_codes: tuple[str, ...] = ()

    def table(self, name: str) -> Table:
        """One of its tables, corrections laid over it."""
        return load_table(self.package, name)
