"""Recordings: files kept as they came, streams that lose nothing, passes taken once, permissions."""

import hashlib
import json
import uuid
from pathlib import Path

import numpy as np
import pytest
from apps.coupons.models import PassLog
from apps.coupons.services.start_coupon import start_coupon
from apps.recordings.models import Chunk, Recording
from apps.recordings.services.recorders import add_recorder
from apps.recordings.store import read_signals
from django.test import Client

from recorder.waveforms import Setting
from recorder.welding_day import COLUMNS, Plan, Trouble, samples, text_of

PLAN = Plan(Setting("pulsed", 24, 160), passes=2, arc_s=8, pause_s=25)


@pytest.fixture
def coupon(people, draft):
    return start_coupon(people["engineer"], draft, "R. Okafor")


def file_of(plan=PLAN, rate=1000, names=COLUMNS):
    return (",".join(names) + "\n").encode() + b"".join(text_of(rows) for rows in samples(plan, rate))


def send(api, coupon, contents, client_id=None, more="", name="booth.csv"):
    return api(
        "POST",
        f"/coupons/{coupon.pk}/recordings?client_id={client_id or uuid.uuid4()}&name={name}{more}",
        raw=contents,
    )


class Device:
    """A recorder with its token, speaking the gateway's interface."""

    def __init__(self, token):
        self.client = Client(headers={"authorization": f"Bearer {token}"})

    def __call__(self, method, path, body=None, raw=None):
        data, kind = (raw, "text/csv") if raw is not None else (json.dumps(body), "application/json")
        answer = self.client.generic(method, f"/api/recorder{path}", data, content_type=kind)
        return answer.status_code, json.loads(answer.content)

    def open(self, **more):
        body = {"client_id": str(uuid.uuid4()), "columns": list(COLUMNS), **more}
        return self("POST", "/streams", body)


@pytest.fixture
def device(people):
    return Device(add_recorder(people["engineer"], "Booth 2")[1])


def test_a_file_is_kept_read_and_its_passes_found(api, coupon):
    contents = file_of()
    status, got = send(api["welder"], coupon, contents)
    assert (status, got["status"], got["faults"]) == (201, "ready", [])
    assert got["sha256"] == hashlib.sha256(contents).hexdigest()
    assert (
        b"".join(api["viewer"].client.get(f"/api/recordings/{got['id']}/file").streaming_content) == contents
    )
    assert [round(one["start_s"]) for one in got["analysis"]["passes"]] == [2, 35]
    table = np.loadtxt(contents.decode().splitlines(), delimiter=",", skiprows=1)
    time, volts, amps = table[:, 0], table[:, 1], table[:, 2]
    first = time < 20
    # the second way: numpy over the whole of the first half, arc or not
    energy = np.trapezoid(volts[first] * amps[first], time[first])
    measured = got["analysis"]["passes"][0]["measured"]
    assert measured["energy_j"] == pytest.approx(energy, rel=1e-3)
    assert measured["mean_wire_feed_m_min"] == pytest.approx(6.5, rel=0.01)
    assert got["analysis"]["passes"][0]["waveform"]["shape"] == "pulsed"
    kept = read_signals(Recording.objects.get(pk=got["id"]))
    assert np.array_equal(kept.voltage_v, volts)  # losslessly


def test_the_same_sending_twice_is_one_recording(api, coupon):
    client_id = uuid.uuid4()
    answers = [send(api["welder"], coupon, file_of(), client_id)[1]["id"] for _ in range(2)]
    assert len(set(answers)) == 1
    assert Recording.objects.count() == 1


def test_passes_are_taken_with_their_energy_and_only_once(api, coupon):
    _, got = send(api["welder"], coupon, file_of())
    parts = [
        {"number": number, "start_s": one["start_s"], "end_s": one["end_s"], "length_mm": 150}
        for number, one in enumerate(got["analysis"]["passes"], 1)
    ]
    path = f"/recordings/{got['id']}/passes"
    first = api["welder"]("POST", path, {"parts": parts})
    again = api["welder"]("POST", path, {"parts": parts})
    assert first[0] == again[0] == 200
    assert first[1] == again[1]
    assert PassLog.objects.filter(struck=False).count() == 2
    _, read = api["viewer"]("GET", f"/coupons/{coupon.pk}")
    record, result = read["rows"][0]["record"], read["log"]["passes"][0]
    energy = got["analysis"]["passes"][0]["measured"]["energy_j"]
    assert record["energy_j"] == pytest.approx(energy, rel=1e-4)
    assert result["method"] == "energy"
    assert result["arc_energy_kj_mm"] == pytest.approx(energy / 150 / 1000, rel=1e-4)
    assert record["recording"]["sha256"] == got["sha256"]
    _, after = api["viewer"]("GET", f"/recordings/{got['id']}")
    assert [one["pass_number"] for one in after["taken"]] == [1, 2]


def test_a_struck_pass_can_be_taken_again(api, coupon):
    _, got = send(api["welder"], coupon, file_of())
    one = got["analysis"]["passes"][0]
    body = {"parts": [{"number": 1, "start_s": one["start_s"], "end_s": one["end_s"], "length_mm": 150}]}
    path = f"/recordings/{got['id']}/passes"
    (row,) = api["welder"]("POST", path, body)[1]
    api["welder"]("POST", f"/passes/{row['id']}/strike", {"version": row["version"], "reason": "wrong pass"})
    status, (again,) = api["welder"]("POST", path, body)
    assert (status, again["id"] != row["id"]) == (200, True)
    assert list(PassLog.objects.order_by("id").values_list("struck", flat=True)) == [True, False]


def test_a_typed_pass_keeps_its_words_when_a_recording_follows(api, coupon):
    entry = {
        "number": 1,
        "current_a": 170,
        "voltage_v": 25,
        "length_mm": 150,
        "before_c": 80,
        "remarks": "slag in the toe",
    }
    api["welder"]("POST", f"/coupons/{coupon.pk}/passes", {"client_id": str(uuid.uuid4()), "record": entry})
    _, got = send(api["welder"], coupon, file_of())
    one = got["analysis"]["passes"][0]
    part = {"number": 1, "start_s": one["start_s"], "end_s": one["end_s"]}
    assert api["welder"]("POST", f"/recordings/{got['id']}/passes", {"parts": [part]})[0] == 200
    record = api["viewer"]("GET", f"/coupons/{coupon.pk}")[1]["rows"][0]["record"]
    assert (record["remarks"], record["length_mm"], record["before_c"]) == ("slag in the toe", 150, 80)
    assert record["energy_method"] == "energy"


@pytest.mark.parametrize(
    "parts,status,says",
    [
        (
            [{"number": 1, "start_s": 2, "end_s": 10}, {"number": 2, "start_s": 9, "end_s": 20}],
            409,
            "overlap",
        ),
        ([{"number": 1, "start_s": 2, "end_s": 10}, {"number": 1, "start_s": 30, "end_s": 40}], 422, "twice"),
        ([{"number": 1, "start_s": 10, "end_s": 2}], 422, "before it begins"),
        ([{"number": 1, "start_s": 12, "end_s": 20}], 422, "no arc between"),
        ([], 422, "parts"),
    ],
)
def test_parts_that_cannot_be_passes(api, coupon, parts, status, says):
    _, got = send(api["welder"], coupon, file_of())
    answer = api["welder"]("POST", f"/recordings/{got['id']}/passes", {"parts": parts})
    assert answer[0] == status
    assert says in answer[1]["detail"]
    assert PassLog.objects.count() == 0


def test_strange_columns_are_asked_about_and_remembered_for_the_device(api, people, coupon):
    device, _ = add_recorder(people["engineer"], "Old logger")
    contents = file_of(names=("a", "b", "c", "d", "e"))
    _, got = send(api["welder"], coupon, contents, more=f"&recorder_id={device.pk}")
    assert got["status"] == "asking"
    assert "Which column is the voltage?" in got["message"]
    mapping = {
        "time": {"column": "a", "unit": "s"},
        "voltage": {"column": "b", "unit": "V"},
        "current": {"column": "c", "unit": "A"},
    }
    path = f"/recordings/{got['id']}/mapping"
    status, wrong = api["welder"](
        "POST", path, {"version": 1, "mapping": {**mapping, "voltage": {"column": "z", "unit": "V"}}}
    )
    assert (status, wrong["status"]) == (200, "asking")
    assert "no column 'z'" in wrong["message"]
    status, ready = api["welder"]("POST", path, {"version": wrong["version"], "mapping": mapping})
    assert (status, ready["status"]) == (200, "ready")
    assert api["welder"]("POST", path, {"version": 1, "mapping": mapping})[0] == 409
    _, next_one = send(api["welder"], coupon, contents, more=f"&recorder_id={device.pk}")
    assert next_one["status"] == "ready"


@pytest.mark.parametrize(
    "contents,says", [(b"", "empty"), (b"PK\x03\x04....", "archive"), (b"\x1f\x8b....", "compressed")]
)
def test_what_cannot_be_read_is_kept_with_its_reason(api, coupon, contents, says):
    status, got = send(api["welder"], coupon, contents)
    assert (status, got["status"]) == (201, "refused")
    assert says in got["message"]
    assert got["size_bytes"] == len(contents)
    assert got["sha256"] == hashlib.sha256(contents).hexdigest()


def test_two_gigabytes_are_refused_before_they_are_read(api, coupon):
    answer = api["welder"].client.post(
        f"/api/coupons/{coupon.pk}/recordings?client_id={uuid.uuid4()}",
        b"",
        content_type="text/csv",
        CONTENT_LENGTH=str(2_500_000_000),
    )
    assert answer.status_code == 413
    assert "at most 2 GB" in answer.json()["detail"]


@pytest.mark.parametrize("who,status", [("viewer", 403), ("welder", 201), ("inspector", 201)])
def test_who_may_send_a_file(api, coupon, who, status):
    assert send(api[who], coupon, file_of())[0] == status


@pytest.mark.parametrize("who,status", [("viewer", 403), ("welder", 403), ("engineer", 201)])
def test_who_may_add_a_recorder(api, who, status):
    assert api[who]("POST", "/recorders", {"name": "Booth 9"})[0] == status


@pytest.mark.parametrize("window", [{}, {"start_s": 3, "end_s": 4}, {"start_s": 3, "end_s": 3.05}])
def test_the_trace_is_thin_and_holds_every_peak(api, coupon, window):
    _, got = send(api["welder"], coupon, file_of(rate=5000))
    query = "&".join(f"{key}={value}" for key, value in window.items())
    status, trace = api["viewer"]("GET", f"/recordings/{got['id']}/trace?most=200&{query}")
    assert status == 200
    signals = read_signals(Recording.objects.get(pk=got["id"]), window.get("start_s"), window.get("end_s"))
    highest = max(one for one in trace["channels"]["current_a"]["high"] if one is not None)
    assert len(trace["start_s"]) <= 512
    if window:
        assert highest >= signals.current_a.max() - 1e-3
    else:
        assert highest == pytest.approx(signals.current_a.max(), abs=1e-3)


# --- streams ---------------------------------------------------------------------------------


def chunks_of(plan=PLAN, rate=1000):
    return [text_of(rows) for rows in samples(plan, rate) if rows.size]


def test_a_stream_arrives_whole_and_once(device, api, coupon):
    status, stream = device.open(coupon=coupon.number, device_time="2026-11-26T08:00:00Z")
    assert (status, stream["next"]) == (201, 0)
    chunks = chunks_of()
    for number, payload in enumerate(chunks):
        for _ in range(2 if number % 5 == 0 else 1):  # an acknowledgement that was lost
            status, answer = device("PUT", f"/streams/{stream['id']}/chunks/{number}", raw=payload)
            assert (status, answer["next"]) == (200, number + 1)
    _, live = api["viewer"]("GET", f"/recordings/{stream['id']}/live?after={len(chunks) - 2}")
    assert (live["next"], len(live["chunks"]), live["status"]) == (len(chunks), 2, "streaming")
    count = sum(one.count(b"\n") for one in chunks)
    assert live["samples"] == count
    status, closed = device(
        "POST", f"/streams/{stream['id']}/close", {"chunks": len(chunks), "samples": count}
    )
    assert (status, closed["status"], closed["samples"]) == (200, "ready", count)
    assert Chunk.objects.count() == 0
    _, got = api["viewer"]("GET", f"/recordings/{stream['id']}")
    assert got["device_offset_s"] is not None
    whole = (",".join(COLUMNS) + "\n").encode() + b"".join(chunks)
    assert got["sha256"] == hashlib.sha256(whole).hexdigest()
    # the running figure and the record agree
    assert live["energy_j"] == pytest.approx(
        sum(one["measured"]["energy_j"] for one in got["analysis"]["passes"]), rel=0.01
    )
    assert (
        device("POST", f"/streams/{stream['id']}/close", {"chunks": len(chunks), "samples": count})[0] == 200
    )


def test_a_stream_tells_what_is_missing(device, coupon):
    _, stream = device.open(coupon=coupon.number)
    path = f"/streams/{stream['id']}"
    row = b"0.0,24,200,6,15\n"
    assert device("PUT", f"{path}/chunks/0", raw=row)[0] == 200
    status, answer = device("PUT", f"{path}/chunks/2", raw=row)
    assert (status, answer["current"]["next"]) == (409, 1)
    status, answer = device("PUT", f"{path}/chunks/0", raw=b"0.0,25,200,6,15\n")
    assert (status, "other bytes" in answer["detail"]) == (409, True)
    status, answer = device("PUT", f"{path}/chunks/1", raw=b"0.0,oops,200,6,15\n")
    assert (status, "cannot be read" in answer["detail"]) == (422, True)
    status, answer = device("POST", f"{path}/close", {"chunks": 3, "samples": 3})
    assert (status, answer["current"]["next"]) == (409, 1)


def test_an_abandoned_stream_is_ended_by_a_person(device, api, coupon):
    _, stream = device.open(coupon=coupon.number)
    for number, payload in enumerate(chunks_of()[:6]):
        device("PUT", f"/streams/{stream['id']}/chunks/{number}", raw=payload)
    assert api["viewer"]("POST", f"/recordings/{stream['id']}/end")[0] == 403
    status, got = api["welder"]("POST", f"/recordings/{stream['id']}/end")
    assert (status, got["status"], got["analysis"]["samples"]) == (200, "ready", 6000)
    assert device("PUT", f"/streams/{stream['id']}/chunks/6", raw=b"9,24,200,6,15\n")[0] == 409


@pytest.mark.parametrize(
    "more,says",
    [
        ({"columns": ["time_s", "voltage_v"]}, "current_a"),
        ({"columns": ["time_s", "voltage_v", "current_a", "smell"]}, "smell"),
        ({"coupon": "FB-99-C01"}, "no coupon FB-99-C01"),
    ],
)
def test_a_stream_that_cannot_be(device, coupon, more, says):
    status, answer = device.open(**more)
    assert status == 422
    assert says in answer["detail"]


def test_tokens(device, api, coupon, people):
    assert Device("guess").open()[0] == 401
    recorder, token = add_recorder(people["engineer"], "Gone")
    assert Device(token).open()[0] == 201
    assert api["engineer"]("POST", f"/recorders/{recorder.pk}/retire")[0] == 200
    assert Device(token).open()[0] == 401
    _, stream = device.open()
    other = Device(add_recorder(people["engineer"], "Booth 3")[1])
    assert other("PUT", f"/streams/{stream['id']}/chunks/0", raw=b"0,1,1,1,1\n")[0] == 404


@pytest.mark.parametrize(
    "trouble,kind",
    [
        (Trouble(dropout=(5.2, 1.1)), "gap"),
        (Trouble(stuck=(4.0, 3.0)), "stuck"),
        (Trouble(saturate_a=200.0), "saturated"),
    ],
)
def test_trouble_of_the_stand_in_is_flagged(device, coupon, api, trouble, kind):
    _, stream = device.open(coupon=coupon.number)
    chunks = chunks_of(Plan(Setting("pulsed", 24, 160), passes=1, arc_s=8, trouble=trouble))
    for number, payload in enumerate(chunks):
        device("PUT", f"/streams/{stream['id']}/chunks/{number}", raw=payload)
    _, got = api["welder"]("POST", f"/recordings/{stream['id']}/end")
    assert kind in {one["kind"] for one in got["faults"]}


def test_files_may_lie_in_another_storage(api, coupon, settings):
    """A storage without paths, as object storage is: everything goes through open and save."""
    settings.STORAGES = {
        **settings.STORAGES,
        "default": {"BACKEND": "tests.server.no_paths.NoPaths"},
    }
    _, got = send(api["welder"], coupon, file_of(names=("a", "b", "c", "d", "e")))
    units = {"time": ("a", "s"), "voltage": ("b", "V"), "current": ("c", "A")}
    mapping = {key: {"column": column, "unit": unit} for key, (column, unit) in units.items()}
    _, ready = api["welder"]("POST", f"/recordings/{got['id']}/mapping", {"version": 1, "mapping": mapping})
    assert ready["status"] == "ready"
    with pytest.raises(NotImplementedError):
        Recording.objects.get(pk=got["id"]).original.path  # noqa: B018
    assert api["viewer"]("GET", f"/recordings/{got['id']}/trace?start_s=3&end_s=4")[0] == 200


def test_the_client_in_the_docs_does_what_it_says(live_server, people, coupon):
    _, token = add_recorder(people["engineer"], "From the docs")
    page = (Path(__file__).parents[2] / "docs" / "formats.md").read_text()
    code = page.split("```python\n", 1)[1].split("```", 1)[0]
    code = code.replace("http://127.0.0.1:8727", live_server.url).replace("FB-27-C03", coupon.number)
    exec(compile(code, "formats.md", "exec"), {"TOKEN": token})
    (one,) = Recording.objects.all()
    assert (one.status, one.analysis["samples"]) == ("ready", 2)
