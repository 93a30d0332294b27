"""The trainer through the API: the ladder, an exercise without its solution, its answer, who sees whom."""

from datetime import timedelta

import pytest
from apps.training.models import AnswerGiven, Skill
from django.utils import timezone

from welding.trainer.ladder import ladder, make

pytestmark = pytest.mark.django_db


def take(call, **asked):
    status, found = call("POST", "/training/exercise", asked)
    assert status == 200, found
    return found


def answer(call, exercise, **more):
    solved = make(exercise["kind"], exercise["stage"], exercise["seed"]).solution
    said = (
        {"keys": sorted(solved.keys)} if exercise["options"] else {"number": (solved.low + solved.high) / 2}
    )
    body = {"skill_id": exercise["skill_id"], "seed": exercise["seed"], **said, **more}
    return call("POST", "/training/answer", body)


def test_the_first_exercise_stands_on_the_lowest_rung_and_tells_no_solution(api):
    found = take(api["welder"])
    assert found["stage"] == "set-up"
    assert not {"solution", "because", "sources"} & set(found)
    assert not any("right" in one["key"] for one in found["options"])


def test_a_page_that_was_closed_shows_the_same_exercise_again(api):
    first = take(api["welder"], stage="flat", kind="hotter")
    again = take(api["welder"], stage="flat", kind="hotter")
    assert again == first
    assert take(api["welder"])["seed"] == first["seed"], "the open one comes before a new one"
    take(api["welder"], stage="set-up", kind="balance")
    take(api["welder"], stage="flat", kind="hotter")
    assert take(api["welder"])["seed"] == first["seed"], "the one that was looked at last, not the lowest"
    other = take(api["engineer"], stage="flat", kind="hotter")
    assert other["skill_id"] != first["skill_id"]


@pytest.mark.parametrize("stage, kind", [(one.stage, kind) for one in ladder() for kind, _ in one.kinds])
def test_every_exercise_is_opened_answered_and_scored(api, stage, kind):
    found = take(api["welder"], stage=stage, kind=kind)
    status, told = answer(api["welder"], found)
    assert (status, told["right"], told["score"]) == (200, True, 1)
    assert told["because"] and told["sources"]
    _, board = api["welder"]("GET", "/training")
    one = next(
        s for rung in board["rungs"] if rung["stage"] == stage for s in rung["skills"] if s["kind"] == kind
    )
    assert (one["answered"], one["points"], one["is_open"]) == (1, 1, False)
    assert (board["answered"], board["points"]) == (1, 1)


def test_a_wrong_answer_comes_again_sooner_than_a_right_one(api):
    due = {}
    for right in (True, False):
        found = take(api["welder"], stage="set-up", kind="arc")
        solved = make("arc", "set-up", found["seed"]).solution.keys
        wrong = next(one["key"] for one in found["options"] if one["key"] not in solved)
        begun = timezone.now()
        _, told = answer(api["welder"], found, keys=sorted(solved) if right else [wrong])
        assert told["right"] is right
        assert told["keys"] == sorted(solved)
        due[right] = Skill.objects.get().due - begun
    assert timedelta(0) < due[False] < due[True]


def test_what_is_due_comes_before_what_is_new(api):
    found = take(api["welder"], stage="pipe", kind="bend")
    answer(api["welder"], found)
    assert take(api["welder"])["stage"] == "set-up", "nothing is due yet"
    Skill.objects.filter(stage="set-up").update(open_seed=None)
    Skill.objects.filter(stage="pipe").update(due=timezone.now() - timedelta(days=1))
    assert take(api["welder"])["stage"] == "pipe"


def test_an_answer_counts_once_and_only_for_whom_it_was_asked(api):
    found = take(api["welder"])
    assert answer(api["engineer"], found)[0] == 409
    assert answer(api["welder"], found, seed=found["seed"] ^ 1)[0] == 409
    assert answer(api["welder"], found)[0] == 200
    assert answer(api["welder"], found)[0] == 409
    assert AnswerGiven.objects.count() == 1


@pytest.mark.parametrize(
    "said",
    [
        {"keys": []},
        {"keys": ["nothing"]},
        {"keys": ["o0", "o1"]},
        {"keys": ["x" * 41]},
        {"keys": ["o0"] * 21},
    ],
)
def test_an_answer_that_is_none_is_refused_and_the_exercise_stays_open(api, said):
    found = take(api["welder"], stage="set-up", kind="designation")
    status, _ = answer(api["welder"], found, **said)
    assert status == 422
    assert take(api["welder"], stage="set-up", kind="designation") == found
    assert not AnswerGiven.objects.exists()


@pytest.mark.parametrize(
    "asked", [{"stage": "nowhere"}, {"stage": "flat", "kind": "bend"}, {"kind": "x" * 41}]
)
def test_an_exercise_that_there_is_not(api, asked):
    assert api["welder"]("POST", "/training/exercise", asked)[0] == 422
    assert not Skill.objects.exists()


def test_who_leads_the_training_sees_how_others_stand(api):
    for _ in range(3):
        answer(api["welder"], take(api["welder"], stage="set-up", kind="designation"))
    for role in ("welder", "viewer", "inspector", "examiner"):
        assert api[role]("GET", "/training/people")[0] == 403
    status, lines = api["engineer"]("GET", "/training/people")
    assert status == 200
    (line,) = lines
    assert (line["answered"], line["points"], line["held"], line["stage"]) == (3, 3, 1, "Set-up")
    assert line["of"] == sum(len(one.kinds) for one in ladder())
    assert line["last_at"]
