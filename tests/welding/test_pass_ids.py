"""What a pass is known by while others come and go."""

import pytest

from tests.welding import samples
from welding.documents.codec import PROCEDURE
from welding.documents.identity import with_pass_ids, without_pass_ids
from welding.evaluate.procedure import evaluate


def ids(given):
    document = samples.procedure()
    model = document["passes"][0]
    document["passes"] = [
        {**model, "number": n, **({"id": name} if name else {})} for n, name in enumerate(given, 1)
    ]
    return [run.id for run in with_pass_ids(PROCEDURE.take(document)).passes]


@pytest.mark.parametrize(
    ("given", "kept"),
    [
        ([None, None], ["p1", "p2"]),
        (["a", "b"], ["a", "b"]),
        ([None, "p1", None], ["p2", "p1", "p3"]),
        (["a", "a", "b"], ["a", "p1", "b"]),  # copied by hand in a file
        (["p1", "p1", "p1"], ["p1", "p2", "p3"]),
        ([], []),
    ],
)
def test_a_stated_id_stays_and_the_others_get_free_ones(given, kept):
    assert ids(given) == kept
    assert ids(kept) == kept


def test_ids_change_nothing_that_is_said():
    plain = PROCEDURE.take(samples.procedure())
    named = with_pass_ids(plain)
    assert evaluate(named) == evaluate(plain)
    assert without_pass_ids(named) == plain
    assert all("id" not in run for run in PROCEDURE.plain(plain)["passes"])  # signed bytes stay as they are
