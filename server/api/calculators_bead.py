"""Try a setting: predictions of the bead side by side, and what would cure it. Nothing is stored."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated, Any, Literal

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from api.documents import BeadSettingsIn, ProcedureIn
from api.errors import InvalidError, ProblemOut
from welding.bead.compare import compare
from welding.bead.cure import GOALS, cure
from welding.bead.figures import Figure
from welding.bead.from_procedure import limits_of, settings_of
from welding.bead.joint_picture import JointPicture
from welding.bead.picture import BeadPicture
from welding.bead.predict import predict, trace_for
from welding.bead.trace import ArcTrace
from welding.documents.codec import BEAD_SETTINGS
from welding.language import tr
from welding.ranges import Range

router = Router(tags=["calculators"])
MOST_SIDE_BY_SIDE = 4
REFUSALS: dict[Any, Any] = {422: ProblemOut}
Limits = Annotated[dict[Annotated[str, Field(max_length=40)], Range], Field(max_length=40)]


class BeadIn(Schema):
    """Settings side by side; the others are compared with the first."""

    settings: Annotated[list[BeadSettingsIn], Field(min_length=1, max_length=MOST_SIDE_BY_SIDE)]


class FigureOut(Schema):
    """One figure; ``value`` is null where it is words or there is no model."""

    key: str
    group: Literal["arc", "heat", "bead", "shielding", "distortion"]
    title: str
    value: float | None
    low: float | None
    high: float | None
    quantity: str
    unit: str
    swatch: str
    words: str
    level: Literal["", "fine", "watch", "bad"]
    no_model: str
    source: str
    confidence: str
    error: str


class BeadPredictionOut(Schema):
    """Figures and drawing of one setting; what was changed against the first, and its effect."""

    figures: list[FigureOut]
    picture: BeadPicture | None
    joint: JointPicture | None
    trace: ArcTrace | None
    changed: list[str]
    sentence: str


class GoalOut(Schema):
    """An effect that may be asked for."""

    key: str
    title: str


class BeadOut(Schema):
    """Predictions in the order they were asked, and the effects that may be asked for."""

    items: list[BeadPredictionOut]
    goals: list[GoalOut]


class CureIn(Schema):
    """What should be cured, and limits that the settings must keep."""

    settings: BeadSettingsIn
    goal: Annotated[str, Field(max_length=40)]
    limits: Limits = {}


class RemedyOut(Schema):
    """One setting changed; ``settings`` is null where nothing may be offered."""

    field: str
    before: float | None
    after: float | None
    outcome: Literal["cured", "helps", "outside", "no-effect"]
    limited: bool
    worsens: list[str]
    percent: float
    why: str
    settings: dict[str, Any] | None
    source: str


class CureOut(Schema):
    """Remedies in the order of practice; ``no_model`` says why there are none."""

    title: str
    no_model: str
    remedies: list[RemedyOut]


class PassSettingsIn(Schema):
    """A pass of a procedure, by its place; ``qualified`` as far as a record sets limits."""

    procedure: ProcedureIn
    index: Annotated[int, Field(ge=0, le=998)]
    qualified: Limits = {}


class PassSettingsOut(Schema):
    """The pass in the middle of its ranges, and the limits that a change must keep."""

    settings: dict[str, Any]
    limits: dict[str, Range]


@router.post("/calculators/bead", response={200: BeadOut, **REFUSALS})
def predict_beads(request: HttpRequest, payload: BeadIn) -> BeadOut:
    """What each setting makes of the weld."""
    predicted = [predict(one) for one in payload.settings]
    items = []
    for one, found in zip(payload.settings, predicted, strict=True):
        against = compare(payload.settings[0], one, (predicted[0], found))
        items.append(
            BeadPredictionOut(
                figures=[_figure(figure) for figure in found.figures],
                picture=found.picture,
                joint=found.joint,
                trace=trace_for(one, found),
                changed=[change.field for change in against.changes],
                sentence=against.sentence,
            )
        )
    return BeadOut(items=items, goals=[GoalOut(key=key, title=tr(words)) for key, words in GOALS.items()])


@router.post("/calculators/bead/cure", response={200: CureOut, **REFUSALS})
def cure_bead(request: HttpRequest, payload: CureIn) -> CureOut:
    """The smallest changes with an effect, in the order of practice, inside the limits."""
    found = cure(payload.settings, payload.goal, payload.limits)
    return CureOut(
        title=found.title,
        no_model=found.no_model,
        remedies=[
            RemedyOut(
                field=one.field,
                before=one.before,
                after=one.after,
                outcome=one.outcome,
                limited=one.limited,
                worsens=list(one.worsens),
                percent=one.percent,
                why=one.why,
                settings=BEAD_SETTINGS.plain(one.settings) if one.settings else None,
                source=one.citation.text,
            )
            for one in found.remedies
        ],
    )


@router.post("/calculators/bead/of-pass", response={200: PassSettingsOut, **REFUSALS})
def settings_of_pass(request: HttpRequest, payload: PassSettingsIn) -> PassSettingsOut:
    """Settings to try from a pass of a procedure."""
    if payload.index >= len(payload.procedure.passes):
        raise InvalidError(tr("The procedure has no such pass."))
    one = payload.procedure.passes[payload.index]
    settings = settings_of(payload.procedure, one)
    return PassSettingsOut(
        settings=BEAD_SETTINGS.plain(settings), limits=limits_of(payload.procedure, one, payload.qualified)
    )


def _figure(one: Figure) -> FigureOut:
    plain = asdict(one)
    source = plain.pop("citation")
    return FigureOut(
        **plain,
        source=one.citation.text if one.citation else "",
        confidence=source["confidence"] if source else "",
    )
