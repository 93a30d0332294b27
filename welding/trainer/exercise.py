"""What an exercise is, and how an answer is marked. Nothing here draws lots; the makers do."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from random import Random
from typing import Literal

from welding.bead.picture import BeadPicture
from welding.bead.trace import ArcTrace
from welding.citation import Citation
from welding.errors import OutOfRangeError
from welding.language import tr

Stage = Literal["set-up", "flat", "horizontal", "vertical", "overhead", "pipe"]


@dataclass(frozen=True, slots=True)
class Option:
    """One thing to choose."""

    key: str
    words: str


@dataclass(frozen=True, slots=True)
class Fact:
    """One line of what is given."""

    name: str
    words: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Asked:
    """A number to be typed, of a kind of quantity."""

    kind: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Solution:
    """What is right: keys of options, or a number with how far off still counts."""

    keys: frozenset[str] = frozenset()
    low: float = 0.0
    high: float = 0.0
    words: str
    because: tuple[str, ...]
    sources: tuple[Citation, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Exercise:
    """One exercise.

    Attributes:
        kind: Row of the table of exercises.
        stage: Rung of the ladder.
        seed: What it was drawn with; the same seed gives the same exercise.
        question: What is asked.
        given: What is known, line by line.
        options: What may be chosen; empty where a number is asked.
        choose: How many options are right.
        asked: The number that is asked, else ``None``.
        picture: A section drawn by the model, to scale.
        trace: Voltage and current over time.
        caution: What to mind where the lesson leads to the bench.
        solution: What is right; never sent before the answer.
    """

    kind: str
    stage: Stage
    seed: int
    question: str
    given: tuple[Fact, ...] = ()
    options: tuple[Option, ...] = ()
    choose: int = 1
    asked: Asked | None = None
    picture: BeadPicture | None = None
    trace: ArcTrace | None = None
    caution: str = ""
    solution: Solution


@dataclass(frozen=True, slots=True, kw_only=True)
class Feedback:
    """How an answer was: ``score`` is 0 to 1, ``right`` only at 1."""

    right: bool
    score: float
    solution: str
    keys: tuple[str, ...]
    because: tuple[str, ...]
    sources: tuple[Citation, ...]


def shuffled(
    lot: Random, right: Sequence[str], wrong: Sequence[str]
) -> tuple[tuple[Option, ...], frozenset[str]]:
    """Options in a drawn order, named by their places so that a key tells nothing, and the right keys.

    Args:
        lot: What the order is drawn from.
        right: Words of the right ones.
        wrong: Words of the others.
    """
    words = [(one, True) for one in right] + [(one, False) for one in wrong]
    lot.shuffle(words)
    options = tuple(Option(f"o{place}", said) for place, (said, _) in enumerate(words))
    return options, frozenset(f"o{place}" for place, (_, holds) in enumerate(words) if holds)


def mark(exercise: Exercise, keys: Collection[str] = (), number: float | None = None) -> Feedback:
    """Mark an answer.

    Args:
        exercise: What was asked.
        keys: Keys of the options that were chosen.
        number: The number that was typed, in the base unit of its kind.

    Raises:
        OutOfRangeError: Not as many options as asked, an option that is none, or no number.
    """
    solution = exercise.solution
    if exercise.asked is not None:
        if number is None:
            raise OutOfRangeError("number", 0.0, tr("a number is needed"))
        score = 1.0 if solution.low <= number <= solution.high else 0.0
    else:
        chosen = set(keys)
        known = {one.key for one in exercise.options}
        if len(chosen) != exercise.choose or chosen - known:
            raise OutOfRangeError("keys", float(len(chosen)), tr("choose {count}", count=exercise.choose))
        score = len(chosen & solution.keys) / exercise.choose
    return Feedback(
        right=score >= 1.0,
        score=score,
        solution=solution.words,
        keys=tuple(sorted(solution.keys)),
        because=solution.because,
        sources=solution.sources,
    )
