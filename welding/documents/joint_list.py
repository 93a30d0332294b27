"""The documents *joint* and *joint list*: welds of a job that procedures have to cover."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from welding.documents import fields as f
from welding.documents.procedure import BaseMetal, Code, Joint, Procedure, Requirements


@dataclass(frozen=True, slots=True, kw_only=True)
class JointToWeld:
    """One weld of a job. What is not stated is left to the procedure that will weld it."""

    format: Literal["grounded-bead/joint"] = "grounded-bead/joint"
    version: Literal[1] = 1
    number: f.Line | None = None
    title: f.Line | None = None
    code: Code | None = None
    requirements: Requirements | None = None
    base_metals: Annotated[tuple[BaseMetal, ...], Field(max_length=2)] = ()
    joint: Joint
    positions: Annotated[tuple[f.Position, ...], Field(max_length=12)] = ()
    progression: f.Progression | None = None
    process: f.Process | None = None
    pwht: bool | None = None

    @property
    def as_procedure(self) -> Procedure:
        """The same facts as a procedure without passes."""
        return Procedure(
            number=self.number,
            title=self.title,
            code=self.code,
            requirements=self.requirements,
            base_metals=self.base_metals,
            joint=self.joint,
            positions=self.positions,
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class JointList:
    """The welds of a job."""

    format: Literal["grounded-bead/joint-list"] = "grounded-bead/joint-list"
    version: Literal[1] = 1
    job: f.Line | None = None
    joints: Annotated[tuple[JointToWeld, ...], Field(max_length=5000)] = ()
