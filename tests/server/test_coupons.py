"""Coupons: logging once, two loggers, corrections, striking, import and export, the database's guard."""

import io
import uuid
from datetime import timedelta

import pytest
from apps.coupons.models import Coupon, PassLog
from apps.coupons.rows import to_columns, to_plain
from apps.coupons.services.start_coupon import start_coupon
from django.db import IntegrityError, transaction
from django.utils import timezone
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from tests.welding import samples
from welding.documents.codec import PASS_RECORD

ENTRY = {
    "number": 1,
    "current_a": 240,
    "voltage_v": {"mean": 26, "min": 25.5, "max": 26.5},
    "wire_feed_m_min": 8,
    "length_mm": 300,
    "time_s": 72,
    "before_c": 100,
}


@pytest.fixture
def coupon(people, draft):
    return start_coupon(people["engineer"], draft, "R. Okafor")


def log(api, coupon, entry, client_id=None):
    return api(
        "POST", f"/coupons/{coupon.pk}/passes", {"client_id": str(client_id or uuid.uuid4()), "record": entry}
    )


def test_log_and_judge(api, coupon):
    assert log(api["welder"], coupon, ENTRY)[0] == 201
    assert log(api["inspector"], coupon, {**ENTRY, "number": 2, "time_s": 120})[0] == 201
    _, read = api["viewer"]("GET", f"/coupons/{coupon.pk}")
    first, second = read["log"]["passes"]
    assert first["travel_mm_min"] == pytest.approx(250)
    assert first["heat_input_kj_mm"] == pytest.approx(1.19808)  # 26 x 240 x 60 / 250 / 1000 x 0.8
    assert not any(finding["verdict"] == "violates" for finding in first["findings"])
    assert any(
        finding["rule"] == "travel.range" and finding["verdict"] == "violates"
        for finding in second["findings"]
    )
    assert read["log"]["to_weld"] == [3]
    assert read["rows"][0]["logged_by"] == "Welder Test"
    _, lines = api["viewer"]("GET", f"/jobs/{coupon.job_id}/coupons")
    assert (lines[0]["logged"], lines[0]["flagged"]) == (2, 1)


def test_the_same_entry_twice_is_logged_once(api, coupon):
    client_id = uuid.uuid4()
    answers = [log(api["welder"], coupon, ENTRY, client_id) for _ in range(3)]
    assert [status for status, _ in answers] == [201, 201, 201]
    assert len({answer["id"] for _, answer in answers}) == 1
    assert PassLog.objects.count() == 1


def test_two_loggers_on_one_pass(api, coupon):
    log(api["inspector"], coupon, ENTRY)
    status, answer = log(api["welder"], coupon, {**ENTRY, "current_a": 250})
    assert (status, answer["errors"][0]["path"]) == (409, "number")
    assert "Inspector Test" in answer["detail"]
    assert answer["current"]["pass"]["current_a"] == 240


def test_correct_and_strike_with_a_trace(api, coupon):
    _, row = log(api["welder"], coupon, ENTRY)
    path = f"/passes/{row['id']}"
    status, changed = api["welder"]("PUT", path, {"version": 1, "record": {**ENTRY, "current_a": 250}})
    assert (status, changed["version"]) == (200, 2)
    status, stale = api["inspector"]("PUT", path, {"version": 1, "record": ENTRY})
    assert (status, stale["current"]["pass"]["current_a"]) == (409, 250)
    status, answer = api["welder"]("POST", f"{path}/strike", {"version": 2, "reason": " "})
    assert (status, answer["errors"][0]["path"]) == (422, "reason")
    assert api["welder"]("POST", f"{path}/strike", {"version": 2, "reason": "wrong plate"})[0] == 200
    _, read = api["viewer"]("GET", f"/coupons/{coupon.pk}")
    assert read["rows"] == []
    assert read["struck"][0]["reason"] == "wrong plate"
    assert log(api["welder"], coupon, ENTRY)[0] == 201  # the number is free again
    events = PassLog.objects.get(pk=row["id"]).events.order_by("pgh_id")
    assert [event.pgh_label for event in events] == ["insert", "update", "update"]


def test_a_closed_log_takes_nothing(api, coupon):
    _, row = log(api["welder"], coupon, ENTRY)
    assert api["inspector"]("PATCH", f"/coupons/{coupon.pk}", {"version": 1, "status": "welded"})[0] == 200
    for status, answer in (
        log(api["welder"], coupon, {**ENTRY, "number": 2}),
        api["welder"]("PUT", f"/passes/{row['id']}", {"version": 1, "record": {**ENTRY, "current_a": 250}}),
        api["welder"]("POST", f"/passes/{row['id']}/strike", {"version": 1, "reason": "late"}),
    ):
        assert (status, answer["type"]) == (409, "/problems/conflict")
        assert "closed" in answer["detail"]
    assert list(PassLog.objects.values_list("current_mean_a", "struck")) == [(240, False)]


def test_fit_up_has_a_version_too(api, coupon):
    piece = {"product": "plate", "fit_up": {"gap_before_tack_mm": 3.2}}
    assert api["inspector"]("PATCH", f"/coupons/{coupon.pk}", {"version": 1, "piece": piece})[0] == 200
    status, answer = api["engineer"]("PATCH", f"/coupons/{coupon.pk}", {"version": 1, "piece": piece})
    assert (status, answer["type"]) == (409, "/problems/stale")


def test_a_procedure_without_passes_starts_no_coupon(api, job):
    _, made = api["engineer"](
        "POST",
        f"/jobs/{job.pk}/procedures",
        {"document": {"format": "grounded-bead/procedure", "version": 1}},
    )
    status, answer = api["engineer"]("POST", f"/revisions/{made['id']}/coupons", {})
    assert (status, answer["errors"][0]["path"]) == (422, "passes")


def test_round_trip_through_a_file(api, job, coupon):
    log(api["welder"], coupon, ENTRY)
    log(
        api["welder"],
        coupon,
        {
            **ENTRY,
            "number": 2,
            "segments": [{"time_s": 30}, {"time_s": 42.5}],
            "interpass": {"quenched": True},
            "remarks": "second",
        },
    )
    client = api["engineer"].client
    file = client.get(f"/api/coupons/{coupon.pk}/export").content
    assert api["engineer"]("POST", f"/jobs/{job.pk}/import", raw=file)[1]["unchanged"] is True
    _, other = api["engineer"]("POST", "/jobs", {"number": "FB-28", "title": "Other"})
    status, answer = api["engineer"]("POST", f"/jobs/{other['id']}/import", raw=file)
    assert (status, answer["kind"], answer["unchanged"]) == (200, "coupon", False)
    assert client.get(f"/api/coupons/{answer['id']}/export").content == file


def test_an_import_with_a_mistake_changes_nothing(api, job, coupon):
    log(api["welder"], coupon, ENTRY)
    file = api["engineer"].client.get(f"/api/coupons/{coupon.pk}/export").content
    _, other = api["engineer"]("POST", "/jobs", {"number": "FB-28", "title": "Other"})
    wrong = file.replace(b'"length_mm": 300', b'"length_mm": -3, "zap": 1')
    status, answer = api["engineer"]("POST", f"/jobs/{other['id']}/import", raw=wrong)
    assert status == 422
    assert {e["path"] for e in answer["errors"]} == {"coupon.passes.0.length_mm", "coupon.passes.0.zap"}
    assert api["engineer"]("GET", f"/jobs/{other['id']}/procedures")[1] == []


@pytest.mark.parametrize(
    "change",
    [
        {"current_mean_a": -1},
        {"length_mm": 0},
        {"voltage_min_v": 30.0},
        {"number": 0},
        {"struck": True, "struck_reason": ""},
        {"time_s": -5},
    ],
)
def test_the_database_refuses_odd_passes(api, coupon, change):
    log(api["welder"], coupon, ENTRY)
    with pytest.raises(IntegrityError), transaction.atomic():
        PassLog.objects.update(**change)


numbers = st.floats(1, 90, allow_nan=False).map(lambda x: round(x, 3))
readings = numbers | st.tuples(numbers, numbers, numbers).map(sorted).map(
    lambda t: {"mean": t[1], "min": t[0], "max": t[2]}
)


@given(
    st.fixed_dictionaries(
        {"number": st.integers(1, 999)},
        optional={
            "current_a": readings,
            "voltage_v": readings,
            "length_mm": numbers,
            "time_s": numbers,
            "before_c": numbers,
            "remarks": st.sampled_from(["", "stop ground", "déjà vu 😀"]),
            "polarity": st.sampled_from(["DCEP", "AC"]),
            "energy_j": numbers,
            "interpass": st.just({"place": "25 mm from the joint"}),
        },
    )
)
@settings(max_examples=60)
def test_a_row_holds_all_of_a_pass(plain):
    record = PASS_RECORD.take(plain)
    assert PASS_RECORD.take(to_plain(PassLog(**to_columns(record)))) == record


def test_samples_are_whole():
    assert samples.coupon([ENTRY])["coupon"]["passes"] == [ENTRY]


def picture(kind="PNG", size=(8, 6)):
    sink = io.BytesIO()
    Image.new("RGB", size, "#9A5F2C").save(sink, kind)
    return sink.getvalue()


def test_a_photo_of_a_pass_is_kept_once_as_it_came(api, coupon):
    _, row = log(api["welder"], coupon, ENTRY)
    client_id = uuid.uuid4()
    data = picture("JPEG")
    for _ in range(2):
        status, made = api["welder"]("POST", f"/passes/{row['id']}/photos?client_id={client_id}", raw=data)
        assert status == 201
    assert api["viewer"]("GET", f"/coupons/{coupon.pk}")[1]["rows"][0]["photos"] == [made["id"]]
    answer = api["viewer"].client.get(f"/api/photos/{made['id']}")
    assert (answer["Content-Type"], b"".join(answer.streaming_content)) == ("image/jpeg", data)
    assert api["viewer"]("POST", f"/passes/{row['id']}/photos?client_id={uuid.uuid4()}", raw=data)[0] == 403


@pytest.mark.parametrize("data", [b"", b"<svg onload='x'/>", picture()[:40], picture("GIF")])
def test_what_is_no_photo_is_refused(api, coupon, data):
    _, row = log(api["welder"], coupon, ENTRY)
    status, answer = api["welder"]("POST", f"/passes/{row['id']}/photos?client_id={uuid.uuid4()}", raw=data)
    assert (status, "no photo" in answer["detail"]) == (422, True)


def test_a_pass_that_waited_is_dated_back_by_the_servers_clock(api, coupon):
    """The device is an hour ahead and the pass waited ten minutes in it."""
    now = timezone.now()
    Coupon.objects.filter(pk=coupon.pk).update(created_at=now - timedelta(hours=1))
    body = {
        "client_id": str(uuid.uuid4()),
        "record": ENTRY,
        "device_time": (now + timedelta(hours=1)).isoformat(),
        "saved_at": (now + timedelta(minutes=50)).isoformat(),
    }
    assert api["welder"]("POST", f"/coupons/{coupon.pk}/passes", body)[0] == 201
    row = PassLog.objects.get()
    assert row.device_offset_s == pytest.approx(3600, abs=5)
    assert (now - row.ended_at).total_seconds() == pytest.approx(600, abs=5)


def test_flags_stay_through_corrections_and_are_explained(api, coupon):
    _, row = log(api["welder"], coupon, {**ENTRY, "before_c": None})
    path = f"/passes/{row['id']}"
    assert api["welder"]("PUT", path, {"version": 1, "record": ENTRY})[0] == 200
    flags = api["viewer"]("GET", f"/coupons/{coupon.pk}")[1]["rows"][0]["record"]["flags"]
    assert [one["rule"] for one in flags] == ["interpass.range"]
    said = {"version": 2, "rule": "interpass.range", "text": "Pyrometer was out, read after"}
    assert api["viewer"]("POST", f"{path}/explain", said)[0] == 403
    assert api["welder"]("POST", f"{path}/explain", {**said, "rule": "nothing"})[0] == 422
    assert api["welder"]("POST", f"{path}/explain", said)[0] == 200
    assert api["welder"]("POST", f"{path}/explain", said)[0] == 409
    flag = api["viewer"]("GET", f"/coupons/{coupon.pk}")[1]["rows"][0]["record"]["flags"][0]
    assert (flag["explanation"], flag["explained_by"]) == ("Pyrometer was out, read after", "Welder Test")
    # a sender cannot wash them away, nor bring its own
    assert api["welder"]("PUT", path, {"version": 3, "record": {**ENTRY, "flags": []}})[0] == 200
    assert len(api["viewer"]("GET", f"/coupons/{coupon.pk}")[1]["rows"][0]["record"]["flags"]) == 1


@pytest.mark.parametrize("who,status", [("viewer", 403), ("welder", 201)])
def test_a_pass_tried_on_scrap_becomes_a_trial(api, draft, who, status):
    body = {"record": {**ENTRY, "remarks": "toes wet"}, "verdict": "kept"}
    assert api[who]("POST", f"/revisions/{draft.pk}/trials", body)[0] == status
    trials = api["viewer"]("GET", "/trials")[1]
    if status == 201:
        trial, planned = trials[0]["trial"], draft.document["passes"][0]
        assert (trial["process"], trial["filler"]["designation"]) == (
            planned["process"],
            planned["filler"]["designation"],
        )
        assert (trial["voltage_v"], trial["seen"]) == (26, "toes wet")
        assert trial["travel_mm_min"] == pytest.approx(250)
        assert trial["thickness_mm"] == min(one["thickness_mm"] for one in draft.document["base_metals"])
    else:
        assert trials == []


@pytest.mark.parametrize(("who", "status"), [("welder", 201), ("engineer", 403)])
def test_a_pass_that_waited_bears_no_other_name(api, people, coupon, who, status):
    """Saved by the welder without a network; somebody else is signed in on the device when it is sent."""
    body = {"client_id": str(uuid.uuid4()), "record": ENTRY, "person_id": people["welder"].pk}
    got, answer = api[who]("POST", f"/coupons/{coupon.pk}/passes", body)
    assert (got, PassLog.objects.count()) == (status, int(status == 201))
    assert status == 201 or answer["type"] == "/problems/other-person"
