"""What sheets and cards of a weld list are made of: the list as it stands, its WPSs, and how to print."""

from __future__ import annotations

from dataclasses import asdict, dataclass, fields
from typing import Any

from apps.jobs.models import Job
from apps.printing.api import Second
from apps.printing.render import Paper
from apps.weldlist.models import WeldList
from apps.weldlist.queries import ListedRow, StandingList, standing_list
from apps.weldlist.wps import ReleasedWps, holding_wps, released_wps
from welding.quantities.writing import System


@dataclass(frozen=True, slots=True, kw_only=True)
class Printing:
    """How to print.

    Attributes:
        paper: Size.
        units: Of what is said of a joint.
        second: A second language beside the reader's; empty for none.
        root: Address of the server, which the codes on paper begin with.
    """

    paper: Paper = "a4"
    units: System = "si"
    second: Second = ""
    root: str

    def plain(self) -> dict[str, Any]:
        """As JSON."""
        return asdict(self)

    @classmethod
    def take(cls, plain: dict[str, Any]) -> Printing:
        """From JSON, which may hold more."""
        return cls(**{one.name: plain[one.name] for one in fields(cls)})


@dataclass(frozen=True, slots=True, kw_only=True)
class Printed:
    """A list as it is printed: ``holding`` is the WPS that each joint type is welded to, by its key."""

    listed: WeldList
    standing: StandingList
    holding: dict[str, ReleasedWps]
    how: Printing

    @classmethod
    def of(cls, listed: WeldList, how: Printing) -> Printed:
        """The list as it stands now."""
        standing = standing_list(listed)
        holding = holding_wps(listed, standing, released_wps(listed.job))
        return cls(listed=listed, standing=standing, holding=holding, how=how)

    @property
    def job(self) -> Job:
        """Its job."""
        return self.listed.job

    def rows(self, joint_type: str = "") -> list[ListedRow]:
        """Rows that a card can be made of, of one joint type or of all."""
        return [one for one in self.standing.rows if one.type and joint_type in ("", one.type)]
