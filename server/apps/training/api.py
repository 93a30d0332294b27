"""The trainer: the ladder of a person, an exercise, its answer, and the supervisor's overview."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from api.errors import ProblemOut
from api.people import person
from django.db.models import Max
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema
from pydantic import Field

from apps.accounts.permissions import Action, require
from apps.training.models import Skill
from apps.training.services.practise import held, open_exercise, take_answer
from welding.bead.picture import BeadPicture
from welding.bead.trace import ArcTrace
from welding.quantities.writing import System
from welding.trainer.exercise import Exercise
from welding.trainer.ladder import ladder

router = Router(tags=["training"])
REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}
Name = Annotated[str, Field(max_length=40)]


class SkillOut(Schema):
    """An exercise of a rung and how the person stands to it."""

    kind: str
    title: str
    answered: int
    points: float
    due: datetime | None
    is_due: bool
    is_open: bool
    held: bool


class RungOut(Schema):
    """One rung of the ladder."""

    stage: str
    title: str
    skills: list[SkillOut]
    held: bool


class LadderOut(Schema):
    """The ladder of a person; ``due`` counts what comes again now."""

    rungs: list[RungOut]
    answered: int
    points: float
    due: int


class TakeExerciseIn(Schema):
    """Which exercise is wanted; without both, what comes next."""

    stage: Name | None = None
    kind: Name | None = None
    units: System = "si"


class TrainingOptionOut(Schema):
    """One thing to choose."""

    key: str
    words: str


class GivenOut(Schema):
    """One line of what is given."""

    name: str
    words: str


class ExerciseOut(Schema):
    """An exercise without its solution. ``number_kind`` is the kind of quantity that is asked, else empty."""

    skill_id: int
    seed: int
    kind: str
    stage: str
    title: str
    question: str
    given: list[GivenOut]
    options: list[TrainingOptionOut]
    choose: int
    number_kind: str
    picture: BeadPicture | None
    trace: ArcTrace | None
    caution: str


class AnswerIn(Schema):
    """An answer to the open exercise."""

    skill_id: Annotated[int, Field(ge=1, le=2**62)]
    seed: Annotated[int, Field(ge=0, le=2_000_000_000)]
    keys: Annotated[list[Name], Field(max_length=20)] = []
    number: Annotated[float, Field(ge=-1e9, le=1e9)] | None = None
    units: System = "si"


class FeedbackOut(Schema):
    """How the answer was, why, and when the exercise comes again."""

    right: bool
    score: float
    solution: str
    keys: list[str]
    because: list[str]
    sources: list[str]
    due: datetime
    due_in_min: int


class LearnerOut(Schema):
    """How one person stands."""

    name: str
    role: str
    answered: int
    points: float
    last_at: datetime | None
    held: int
    of: int
    stage: str
    due: int


@router.get("/training", response={200: LadderOut, **REFUSALS})
def read_ladder(request: HttpRequest) -> LadderOut:
    """The ladder of whoever asks."""
    user = person(request)
    require(user, Action.VIEW)
    known = {(one.stage, one.kind): one for one in Skill.objects.filter(person=user)}
    now = timezone.now()
    rungs = []
    for rung in ladder():
        skills = [_skill(kind, title, known.get((rung.stage, kind)), now) for kind, title in rung.kinds]
        rungs.append(
            RungOut(stage=rung.stage, title=rung.title, skills=skills, held=all(one.held for one in skills))
        )
    return LadderOut(
        rungs=rungs,
        answered=sum(one.answered for one in known.values()),
        points=sum(one.points for one in known.values()),
        due=sum(one.is_due for rung in rungs for one in rung.skills),
    )


def _skill(kind: str, title: str, one: Skill | None, now: datetime) -> SkillOut:
    return SkillOut(
        kind=kind,
        title=title,
        answered=one.answered if one else 0,
        points=one.points if one else 0,
        due=one.due if one and one.answered else None,
        is_due=bool(one and one.answered and one.due <= now),
        is_open=bool(one and one.open_seed is not None),
        held=held(one),
    )


@router.post("/training/exercise", response={200: ExerciseOut, **REFUSALS})
def take_exercise(request: HttpRequest, payload: TakeExerciseIn) -> ExerciseOut:
    """The exercise that lies open, else the next one."""
    skill, found = open_exercise(person(request), payload.stage, payload.kind, payload.units)
    return _exercise(skill, found)


def _exercise(skill: Skill, found: Exercise) -> ExerciseOut:
    titles = {kind: title for rung in ladder() for kind, title in rung.kinds}
    return ExerciseOut(
        skill_id=skill.pk,
        seed=found.seed,
        kind=found.kind,
        stage=found.stage,
        title=titles[found.kind],
        question=found.question,
        given=[GivenOut(name=one.name, words=one.words) for one in found.given],
        options=[TrainingOptionOut(key=one.key, words=one.words) for one in found.options],
        choose=found.choose,
        number_kind=found.asked.kind if found.asked else "",
        picture=found.picture,
        trace=found.trace,
        caution=found.caution,
    )


@router.post("/training/answer", response={200: FeedbackOut, **REFUSALS})
def answer(request: HttpRequest, payload: AnswerIn) -> FeedbackOut:
    """Mark the answer to the open exercise."""
    skill, found = take_answer(
        person(request), payload.skill_id, payload.seed, payload.keys, payload.number, payload.units
    )
    return FeedbackOut(
        right=found.right,
        score=found.score,
        solution=found.solution,
        keys=list(found.keys),
        because=list(found.because),
        sources=[one.text for one in found.sources],
        due=skill.due,
        due_in_min=max(round((skill.due - timezone.now()).total_seconds() / 60), 1),
    )


@router.get("/training/people", response={200: list[LearnerOut], **REFUSALS})
def overview(request: HttpRequest) -> list[LearnerOut]:
    """How everybody stands, by name; for whoever leads the training."""
    require(person(request), Action.LEAD_TRAINING)
    rungs = ladder()
    of = sum(len(rung.kinds) for rung in rungs)
    skills: dict[int, list[Skill]] = {}
    for one in Skill.objects.select_related("person").filter(answered__gt=0):
        skills.setdefault(one.person_id, []).append(one)
    last = dict(
        Skill.objects.filter(answers__isnull=False)
        .values_list("person_id")
        .annotate(last=Max("answers__given_at"))
        .order_by("person_id")
    )
    now = timezone.now()
    lines = []
    for person_id, own in skills.items():
        kept = {(one.stage, one.kind) for one in own if held(one)}
        # The rung that a person stands on: the lowest that is not held.
        stage = next(
            (rung.title for rung in rungs if any((rung.stage, kind) not in kept for kind, _ in rung.kinds)),
            rungs[-1].title,
        )
        lines.append(
            LearnerOut(
                name=own[0].person.shown_name,
                role=own[0].person.role,
                answered=sum(one.answered for one in own),
                points=sum(one.points for one in own),
                last_at=last.get(person_id),
                held=len(kept),
                of=of,
                stage=stage,
                due=sum(one.due <= now for one in own),
            )
        )
    return sorted(lines, key=lambda line: line.name)
