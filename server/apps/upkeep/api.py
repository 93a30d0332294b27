"""How the server stands, for its administrator."""

from __future__ import annotations

import dataclasses
from datetime import datetime

from api.errors import ProblemOut
from api.people import person
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema

from apps.accounts.permissions import Action, require
from apps.upkeep.state import Mark, facts, version

router = Router(tags=["operations"])


class FactOut(Schema):
    """One thing that is known of the server; ``todo`` says what helps."""

    what: str
    said: str
    mark: Mark
    todo: str


class OperationsOut(Schema):
    """How the server stands."""

    version: str
    at: datetime
    facts: list[FactOut]


@router.get("/operations", response={200: OperationsOut, 403: ProblemOut})
def operations(request: HttpRequest) -> OperationsOut:
    """Backups, proofs, disk, long work, recorders; what has to be done stands first."""
    require(person(request), Action.KEEP_PEOPLE)
    now = timezone.now()
    found = [FactOut(**dataclasses.asdict(one)) for one in facts(now)]
    return OperationsOut(version=version(), at=now, facts=found)
