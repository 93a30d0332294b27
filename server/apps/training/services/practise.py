"""Open an exercise, take its answer, and say when it comes again."""

from __future__ import annotations

import secrets
from collections.abc import Sequence

from api.errors import ConflictError
from django.db import transaction
from django.utils import timezone
from fsrs import Card, Rating, Scheduler

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.training.models import AnswerGiven, Skill
from welding.language import tr
from welding.quantities.writing import System
from welding.trainer.exercise import Exercise, Feedback, mark
from welding.trainer.ladder import ladder, make

_SCHEDULER = Scheduler(enable_fuzzing=False)
MOST_SEED = 2_000_000_000
HELD_FROM, HELD_ANSWERS = 0.8, 3
"""A rung's exercise is held from this share of its points, after this many answers."""


def held(skill: Skill | None) -> bool:
    """Whether an exercise is mastered as far as its points tell."""
    return skill is not None and skill.answered >= HELD_ANSWERS and skill.points >= HELD_FROM * skill.answered


def open_exercise(user: User, stage: str | None, kind: str | None, system: System) -> tuple[Skill, Exercise]:
    """The exercise that lies open, else a new one: what is due first, then what is new on the lowest rung.

    Args:
        user: Who practises.
        stage: Rung that is wanted.
        kind: Exercise that is wanted.
        system: Unit system of the sentences.

    Raises:
        NotAllowedError: The role does not allow it.
        UnknownEntryError: There is no such exercise on that rung.
    """
    require(user, Action.VIEW)
    stage, kind = (stage, kind) if stage and kind else _next(user, stage)
    make(kind, stage, 0, system)  # before anything is kept: is there such an exercise?
    with transaction.atomic():
        skill, _ = Skill.objects.select_for_update().get_or_create(
            person=user,
            stage=stage,
            kind=kind,
            defaults={"card": Card().to_dict(), "due": timezone.now()},
        )
        if skill.open_seed is None:
            skill.open_seed = secrets.randbelow(MOST_SEED)
        skill.opened_at = timezone.now()
        skill.save(update_fields=["open_seed", "opened_at"])
        return skill, make(kind, stage, skill.open_seed, system)


def _next(user: User, stage: str | None) -> tuple[str, str]:
    """What comes next: what lies open, what is due, what is new on the lowest rung, what is due soonest."""
    rungs = [(rung.stage, kind) for rung in ladder() for kind, _ in rung.kinds if stage in (None, rung.stage)]
    known = {(one.stage, one.kind): one for one in Skill.objects.filter(person=user)}
    mine = [(place, known[place]) for place in rungs if place in known]
    now = timezone.now()
    open_ = [(one.opened_at or now, place) for place, one in mine if one.open_seed is not None]
    # The one that was looked at last: whoever chose another kind finds that again.
    lying = max(open_)[1] if open_ else None
    due = next((place for place, one in sorted(mine, key=lambda pair: pair[1].due) if one.due <= now), None)
    new = next((place for place in rungs if place not in known), None)
    soonest = min(mine, key=lambda pair: pair[1].due, default=None)
    chosen = lying or due or new or (soonest[0] if soonest else None)
    # A rung that there is not: the maker of exercises says so.
    return chosen or (stage or "", "")


@transaction.atomic
def take_answer(
    user: User, skill_id: int, seed: int, keys: Sequence[str], number: float | None, system: System
) -> tuple[Skill, Feedback]:
    """Mark an answer, keep it and say when the exercise is due again.

    Raises:
        NotAllowedError: The role does not allow it.
        ConflictError: That exercise is not open any more.
        OutOfRangeError: The answer is none.
    """
    require(user, Action.VIEW)
    skill = Skill.objects.select_for_update().filter(person=user, pk=skill_id).first()
    if skill is None or skill.open_seed != seed:
        raise ConflictError(tr("This exercise is answered already. Take the next one."))
    found = mark(make(skill.kind, skill.stage, seed, system), keys, number)
    rating = Rating.Good if found.right else Rating.Hard if found.score > 0 else Rating.Again
    card, _ = _SCHEDULER.review_card(Card.from_dict(skill.card), rating)
    skill.card, skill.due = card.to_dict(), card.due
    skill.answered, skill.points = skill.answered + 1, skill.points + found.score
    skill.open_seed = None
    skill.save()
    AnswerGiven.objects.create(
        skill=skill, seed=seed, given={"keys": list(keys), "number": number}, score=found.score
    )
    return skill, found
