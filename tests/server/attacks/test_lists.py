"""One way in for documents, and lists that no single row can break."""

import uuid
from copy import deepcopy

import pytest
from apps.coupons.models import Coupon
from apps.jobs.models import Job
from apps.library.models import Record
from apps.procedures.models import Revision
from apps.trials.models import TrialEntry
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.welding import samples


def lists(job):
    return [
        "/jobs", f"/jobs/{job.pk}/procedures", f"/jobs/{job.pk}/coupons", f"/jobs/{job.pk}/records",
        f"/jobs/{job.pk}/records?all_of_them=true", "/trials", "/library?kind=machine", "/library?kind=product",
        "/library?kind=metal", "/metals", "/fillers", "/recorders", "/book/touched",
    ]  # fmt: skip


def all_answer(api, job):
    for path in lists(job):
        status, answer = api["viewer"]("GET", path)
        assert status == 200, (path, answer)


def test_a_scrap_trial_of_a_pass_without_filler_is_kept_and_listed(api, job):
    """An autogenous pass has no filler: the trial made from it could not be read again."""
    one = {
        k: v
        for k, v in samples.a_pass(1, process="141", polarity="DCEN").items()
        if k not in ("filler", "transfer", "wire_feed_m_min")
    }
    document = samples.procedure(passes=[one])
    status, made = api["engineer"]("POST", f"/jobs/{job.pk}/procedures", {"document": document})
    assert status == 201, made
    body = {"record": {"number": 1, "current_a": 90}, "verdict": "kept"}
    assert api["welder"]("POST", f"/revisions/{made['id']}/trials", body)[0] == 201
    _, found = api["viewer"]("GET", "/trials")
    assert found[0]["trial"]["current_a"] == 90 and found[0]["damaged"] == ""
    all_answer(api, job)


@pytest.mark.parametrize("odd", ["a\u0085b", "a\x7fb", "x" * 70_000, "\u009bb"])
def test_what_would_brick_a_list_is_refused_at_the_door(api, draft, job, odd):
    coupon = {"format": "grounded-bead/coupon", "version": 1, "procedure": samples.procedure(number="P-9"),
              "coupon": {"product": "plate"}}  # fmt: skip
    tries = [
        ("POST", "/jobs", {"number": odd[:30], "title": "x"}),
        ("POST", "/jobs", {"number": "J-1", "title": odd}),
        ("POST", f"/revisions/{draft.pk}/coupons", {"welder": odd}),
        ("POST", f"/jobs/{job.pk}/import", {**coupon, "number": odd}),
        ("POST", f"/jobs/{job.pk}/old-records", {"document": samples.procedure(), "certificate": odd}),
        ("POST", "/recorders", {"name": odd}),
    ]
    for method, path, body in tries:
        status, answer = api["engineer"](method, path, body)
        assert status == 422 or (len(odd) > 1000 and status == 201 and path == "/jobs"), (path, answer)
    all_answer(api, job)


TEXT = st.text(max_size=30) | st.sampled_from(
    ["", " ", "\x00", "\u0085", "=1+1", "\t=1", "😀", "\ud800", "x" * 500]
)
NUMBER = st.floats(allow_nan=False, allow_infinity=False) | st.integers(-(10**30), 10**30) | st.just(0)
ANY = st.recursive(
    st.none() | st.booleans() | NUMBER | TEXT,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(TEXT, inner, max_size=3),
    max_leaves=6,
)


def mutated(base):
    """The document with a few of its values replaced, wherever they stand."""

    @st.composite
    def build(draw):
        document = deepcopy(base)
        for _ in range(draw(st.integers(1, 3))):
            place, key = document, None
            while isinstance(place, (dict, list)) and len(place):
                key = (
                    draw(st.sampled_from(sorted(place)))
                    if isinstance(place, dict)
                    else draw(st.integers(0, len(place) - 1))
                )
                if not isinstance(place[key], (dict, list)) or draw(st.booleans()):
                    break
                place = place[key]
            if key is not None and isinstance(place, (dict, list)) and len(place):
                place[key] = draw(ANY)
        return document

    return build()


MACHINE = {"format": "grounded-bead/machine", "version": 1, "name": "Feeder 3",
           "supplies": [{"name": "400 V", "envelopes": [{"family": "gmaw", "current_a": {"min": 30, "max": 350}}]}]}  # fmt: skip
TRIAL = {"process": "135", "filler": {"designation": "ER70S-6", "diameter_mm": 1.2}, "position": "PF",
         "thickness_mm": 10, "current_a": 120, "seen": "flat", "verdict": "kept"}  # fmt: skip
PIECE = {"product": "plate", "thickness_mm": [10, 10], "position": "PF", "welded_on": "2026-03-02",
         "batches": [{"kind": "filler", "batch": "B1"}], "fit_up": {"gap_before_tack_mm": 3}}  # fmt: skip
ENTRY = {"number": 1, "current_a": {"mean": 240, "min": 230}, "voltage_v": 26, "length_mm": 300, "time_s": 72,
         "remarks": "good", "welded_by": "R. Okafor"}  # fmt: skip
TEST = {"kind": "side-bend", "specimen": "B1", "thickness_mm": 10, "openings_mm": [1.2], "remarks": "good"}


@settings(max_examples=20, deadline=None, suppress_health_check=list(HealthCheck))
@given(
    procedure=mutated(samples.procedure()), machine=mutated(MACHINE), trial=mutated(TRIAL),
    piece=mutated(PIECE), entry=mutated(ENTRY), test=mutated(TEST), words=TEXT,
)  # fmt: skip
def test_after_any_document_every_list_answers(
    api, draft, job, procedure, machine, trial, piece, entry, test, words
):
    """Random documents through every call that writes one; then every list and every page."""
    call = api["engineer"]
    coupon = {"format": "grounded-bead/coupon", "version": 1, "number": words, "procedure": procedure,
              "coupon": piece, "people": [{"role": "welder", "name": words}]}  # fmt: skip

    def send(method, path, body):
        try:
            return call(method, path, body)
        except UnicodeEncodeError:  # not even JSON can be made of it
            return 422, None

    tries = [
        ("POST", f"/jobs/{job.pk}/procedures", {"document": procedure}),
        ("POST", f"/jobs/{job.pk}/import", procedure),
        ("POST", f"/jobs/{job.pk}/import", coupon),
        ("POST", f"/jobs/{job.pk}/old-records", {"document": procedure, "certificate": words}),
        ("POST", "/library", {"document": machine}),
        ("POST", "/trials", {"trial": trial}),
        ("POST", f"/revisions/{draft.pk}/coupons", {"welder": words}),
        ("POST", "/jobs", {"number": words, "title": words}),
        ("POST", "/evaluate", {"document": procedure}),
        ("POST", "/read", {"text": words, "kind": "current"}),
        ("POST", f"/jobs/{job.pk}/coverage", {"procedure": procedure}),
    ]
    for method, path, body in tries:
        status, answer = send(method, path, body)
        assert status < 500, (path, body, answer)
    first = Coupon.objects.filter(job=job).order_by("id").first()
    if first is not None:
        for method, path, body in (
            ("PATCH", f"/coupons/{first.pk}", {"version": first.version, "piece": piece}),
            ("POST", f"/coupons/{first.pk}/passes", {"client_id": str(uuid.uuid4()), "record": entry}),
            ("POST", f"/coupons/{first.pk}/specimens", {"test": test}),
        ):
            status, answer = send(method, path, body)
            assert status < 500, (path, body, answer)
        for path in ("", "/evidence", "/ranges", "/export", "/table", "/record"):
            status, answer = api["viewer"]("GET", f"/coupons/{first.pk}{path}")
            assert status == 200, (path, answer)
    all_answer(api, job)


def test_a_row_that_cannot_be_read_is_named_and_the_rest_stands(api, draft, job):
    assert api["engineer"]("POST", f"/revisions/{draft.pk}/coupons", {"welder": "R. Okafor"})[0] == 201
    assert api["engineer"]("POST", f"/revisions/{draft.pk}/coupons", {"welder": "R. Okafor"})[0] == 201
    assert (
        api["engineer"]("POST", f"/jobs/{job.pk}/procedures", {"document": samples.procedure(number="P-2")})[
            0
        ]
        == 201
    )
    for _ in range(2):
        assert api["welder"]("POST", "/trials", {"trial": TRIAL})[0] == 201
    for name in ("Feeder 3", "Feeder 4"):
        status, answer = api["engineer"](
            "POST",
            "/library",
            {
                "document": {
                    "format": "grounded-bead/machine",
                    "version": 1,
                    "name": name,
                    "supplies": [{"name": "400 V"}],
                }
            },
        )
        assert status == 201, answer
    bad = Coupon.objects.order_by("id").first()
    Coupon.objects.filter(pk=bad.pk).update(piece={"product": "sculpture"}, people=[7])
    TrialEntry.objects.filter(pk=TrialEntry.objects.first().pk).update(document={"process": 7})
    Record.objects.filter(name="Feeder 3").update(document=[])
    second = Revision.objects.get(procedure__number="P-2")
    Revision.objects.filter(pk=second.pk).update(body=second.body + " ")
    for path, whole in (
        (f"/jobs/{job.pk}/coupons", 1), (f"/jobs/{job.pk}/procedures", 1), ("/trials", 1), ("/library?kind=machine", 1)
    ):  # fmt: skip
        status, rows = api["viewer"]("GET", path)
        assert status == 200, (path, rows)
        assert [bool(one["damaged"]) for one in rows].count(False) == whole, path
        assert len(rows) == 2
    status, answer = api["viewer"]("GET", f"/coupons/{bad.pk}")
    assert status in (409, 422) and answer["detail"]
    status, _ = api["engineer"]("POST", "/propose", {"intent": {
        "format": "grounded-bead/intent", "version": 1, "metals": ["S355J2+N"], "thickness_mm": [10],
        "joint": {"kind": "butt", "weld": "cjp-groove"}, "position": "PF", "process": "135"}})  # fmt: skip
    assert status == 200, "a damaged trial does not stand in the way of a draft"


def test_jobs_are_listed_whatever_their_numbers(api, people):
    Job.objects.create(number="J\u0085", title="from before numbers were checked")
    assert api["viewer"]("GET", "/jobs")[0] == 200
