"""Photos, passes, recordings and streams as they are sent: kept once, whole, dated and named by the server."""

import io
import uuid
from datetime import timedelta

import pytest
from apps.coupons.models import Coupon, PassLog, PassPhoto
from apps.coupons.services.add_photo import add_photo
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.recordings.models import Recording, Status
from apps.recordings.services import receive_file as receiving
from apps.recordings.services.recorders import add_recorder
from config import urls  # noqa: F401 - mounts the routers on the API
from django.test import Client
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from PIL import Image

from tests.server.attacks.conftest import CSV, ENTRY, picture
from tests.welding import samples
from welding.documents.codec import PASS_RECORD

# --- photos --------------------------------------------------------------------------------------


@settings(max_examples=30, deadline=None, suppress_health_check=list(HealthCheck))
@given(flips=st.lists(st.tuples(st.floats(0, 0.999), st.integers(0, 255)), max_size=8), cut=st.floats(0.1, 1))
def test_a_mutated_photo_ends_in_a_sentence(api, people, coupon, flips, cut):
    row = PassLog.objects.filter(coupon=coupon).first() or log_pass(
        people["welder"], coupon, uuid.uuid4(), PASS_RECORD.take(ENTRY)
    )
    data = bytearray(with_position())
    for place, value in flips:
        data[int(place * len(data))] = value
    path = f"/passes/{row.pk}/photos?client_id={uuid.uuid4()}"
    status, answer = api["welder"]("POST", path, raw=bytes(data[: int(cut * len(data))]))
    assert status in (201, 422), answer


def with_position():
    image, sink = Image.new("RGB", (40, 20), "orange"), io.BytesIO()
    notes = Image.Exif()
    notes[0x0112] = 6  # held upright
    notes[0x8825] = {1: "N", 2: (54.0, 58.0, 12.0), 3: "W", 4: (1.0, 36.0, 0.0)}
    image.save(sink, "JPEG", exif=notes)
    return sink.getvalue()


def test_a_photo_is_kept_without_its_position_and_turned_as_it_was_held(people, coupon):
    row = log_pass(people["welder"], coupon, uuid.uuid4(), PASS_RECORD.take(ENTRY))
    assert Image.open(io.BytesIO(with_position())).getexif().get_ifd(0x8825)
    photo = add_photo(people["welder"], row, uuid.uuid4(), with_position())
    with photo.file.open("rb") as kept, Image.open(kept) as image:
        assert not image.getexif() and image.size == (20, 40)


# --- sent twice ----------------------------------------------------------------------------------


def test_another_photo_under_a_used_id_is_refused_and_not_thrown_away(api, people, coupon):
    row = log_pass(people["welder"], coupon, uuid.uuid4(), PASS_RECORD.take(ENTRY))
    path = f"/passes/{row.pk}/photos?client_id={uuid.uuid4()}"
    first = api["welder"]("POST", path, raw=picture("red"))
    assert first[0] == 201
    assert api["welder"]("POST", path, raw=picture("red")) == first, "the same again is the same"
    status, answer = api["welder"]("POST", path, raw=picture("blue"))
    assert status == 409 and "take it again" in answer["detail"]
    assert PassPhoto.objects.count() == 1


def test_another_pass_under_a_used_id_is_refused_and_not_thrown_away(api, coupon):
    body = {"client_id": str(uuid.uuid4()), "record": ENTRY}
    path = f"/coupons/{coupon.pk}/passes"
    first = api["welder"]("POST", path, body)
    assert first[0] == 201 and api["welder"]("POST", path, body) == first
    status, answer = api["welder"]("POST", path, {**body, "record": {**ENTRY, "current_a": 300}})
    assert status == 409 and answer["current"]["pass"]["current_a"] == 240
    # Corrected since: the late second sending of the first is the same entry still.
    assert (
        api["welder"](
            "PUT", f"/passes/{first[1]['id']}", {"version": 1, "record": {**ENTRY, "current_a": 250}}
        )[0]
        == 200
    )
    assert api["welder"]("POST", path, body)[0] == 201


def test_a_recording_that_the_server_died_over_is_read_at_the_next_sending(api, people, coupon, monkeypatch):
    class Killed(BaseException):
        pass

    def die(*_):
        raise Killed

    client_id = uuid.uuid4()
    send = {"client_id": client_id, "name": "booth.csv", "declared_bytes": len(CSV)}
    monkeypatch.setattr(receiving, "examine", die)
    with pytest.raises(Killed):
        receiving.receive_file(people["welder"], coupon, iter([CSV.encode()]), **send)
    monkeypatch.undo()
    assert Recording.objects.get().status == Status.RECEIVED
    _, lines = api["viewer"]("GET", f"/coupons/{coupon.pk}/recordings")
    assert lines[0]["status"] == "received"
    again = receiving.receive_file(people["welder"], coupon, iter([CSV.encode()]), **send)
    assert again.status == Status.READY and Recording.objects.count() == 1
    Recording.objects.update(status=Status.RECEIVED)
    assert api["welder"]("POST", f"/recordings/{again.pk}/examine")[1]["status"] == "ready"


def test_another_file_under_a_used_id_is_refused(api, people, draft, coupon):
    other = start_coupon(people["engineer"], draft)
    path = f"/recordings?client_id={uuid.uuid4()}"
    assert api["welder"]("POST", f"/coupons/{coupon.pk}{path}", raw=CSV.encode())[0] == 201
    assert api["welder"]("POST", f"/coupons/{other.pk}{path}", raw=CSV.encode())[0] == 409
    assert (
        api["welder"]("POST", f"/coupons/{coupon.pk}{path}", raw=CSV.encode() + b"4.00,24.0,200.0\n")[0]
        == 409
    )


# --- streams -------------------------------------------------------------------------------------


@pytest.fixture
def recorder(people):
    _, token = add_recorder(people["engineer"], "Booth 2")
    client = Client(headers={"Authorization": f"Bearer {token}"})

    def call(method, path, body, kind="application/json"):
        import json

        data = body if isinstance(body, bytes) else json.dumps(body)
        answer = client.generic(method, f"/api/recorder/streams{path}", data, content_type=kind)
        return answer.status_code, json.loads(answer.content)

    return call


def opened(coupon, **more):
    columns = ["time_s", "voltage_v", "current_a"]
    return {"client_id": str(uuid.uuid4()), "columns": columns, "coupon": coupon, **more}


def test_a_stream_goes_to_the_coupon_that_is_named_and_to_no_closed_one(recorder, people, draft, coupon):
    from apps.jobs.models import Job
    from apps.procedures.services.create_procedure import create_procedure

    from welding.documents.codec import PROCEDURE

    other = Job.objects.create(number="FB-28", title="Weir")
    twin = start_coupon(
        people["engineer"], create_procedure(people["engineer"], other, PROCEDURE.take(samples.procedure()))
    )
    Coupon.objects.filter(pk=twin.pk).update(number=coupon.number)
    status, answer = recorder("POST", "", opened(coupon.number))
    assert status == 422 and "FB-27, FB-28" in answer["detail"]
    status, made = recorder("POST", "", opened(coupon.number, job="FB-27"))
    assert status == 201 and Recording.objects.get(pk=made["id"]).coupon_id == coupon.pk
    assert recorder("POST", "", opened(coupon.number, job="FB-29"))[0] == 422
    Coupon.objects.filter(pk=coupon.pk).update(status="welded")
    status, answer = recorder("POST", "", opened(coupon.number, job="FB-27"))
    assert status == 409 and "closed" in answer["detail"]


@pytest.mark.parametrize(
    "rows",
    [b"0,24,1e308\n0.1,24,1e308\n0.2,24,1e308\n", b"0,inf,inf\n1,inf,inf\n2,1,1\n", b"nan,1,1\n", b"x,y,z\n", b"\xff\xfe",
     b"0,1\n", b"", b"1e300,24,200\n2e300,24,200\n3e300,24,200\n"],
)  # fmt: skip
def test_odd_chunks_neither_break_the_stream_nor_the_page(recorder, api, coupon, rows):
    _, made = recorder("POST", "", opened(coupon.number))
    status, answer = recorder("PUT", f"/{made['id']}/chunks/0", rows, kind="text/csv")
    assert status < 500, answer
    assert api["viewer"]("GET", f"/recordings/{made['id']}/live")[0] == 200
    assert api["viewer"]("GET", f"/recordings/{made['id']}")[0] == 200
    status, answer = api["welder"]("POST", f"/recordings/{made['id']}/end")
    assert status == 200, answer
    assert api["viewer"]("GET", f"/coupons/{coupon.pk}/recordings")[0] == 200


# --- who and when --------------------------------------------------------------------------------


def test_no_device_dates_a_pass_to_before_its_coupon(api, coupon):
    """A device said 2001, and the log said so too; what it said is noted, the server's clock rules."""
    now = timezone.now()
    body = {"client_id": str(uuid.uuid4()), "record": ENTRY, "device_time": now.isoformat(),
            "saved_at": "2001-09-09T01:46:40Z"}  # fmt: skip
    assert api["welder"]("POST", f"/coupons/{coupon.pk}/passes", body)[0] == 201
    row = PassLog.objects.get()
    assert abs((row.ended_at - now).total_seconds()) < 30
    assert row.device_saved_at.year == 2001
    Coupon.objects.filter(pk=coupon.pk).update(created_at=now - timedelta(days=30))
    body |= {"client_id": str(uuid.uuid4()), "record": {**ENTRY, "number": 2},
             "saved_at": (now - timedelta(days=8)).isoformat()}  # fmt: skip
    assert api["welder"]("POST", f"/coupons/{coupon.pk}/passes", body)[0] == 201
    assert abs((PassLog.objects.get(number=2).ended_at - now).total_seconds()) < 30, "more than a week"


def test_a_corrected_pass_names_who_corrected_it(api, coupon):
    _, made = api["welder"](
        "POST", f"/coupons/{coupon.pk}/passes", {"client_id": str(uuid.uuid4()), "record": ENTRY}
    )
    body = {"version": 1, "record": {**ENTRY, "current_a": 250}}
    assert api["inspector"]("PUT", f"/passes/{made['id']}", body)[0] == 200
    _, log = api["viewer"]("GET", f"/coupons/{coupon.pk}")
    assert (log["rows"][0]["logged_by"], log["rows"][0]["corrected_by"]) == (
        "Welder Test",
        "Inspector Test",
    )
    assert (
        api["engineer"]("POST", f"/passes/{made['id']}/strike", {"version": 2, "reason": "not welded"})[0]
        == 200
    )
    _, log = api["viewer"]("GET", f"/coupons/{coupon.pk}")
    assert (log["struck"][0]["logged_by"], log["struck"][0]["struck_by"]) == ("Welder Test", "Engineer Test")


# --- kept before it is acknowledged --------------------------------------------------------------


def test_a_file_is_written_through_before_it_is_acknowledged(tmp_path, monkeypatch):
    import os

    from config.storage import DurableStorage
    from django.core.files.base import ContentFile

    synced = []
    real = os.fsync
    monkeypatch.setattr(os, "fsync", lambda fd: (synced.append(os.readlink(f"/proc/self/fd/{fd}")), real(fd)))
    name = DurableStorage(location=tmp_path).save("recordings/a.csv", ContentFile(b"x"))
    assert synced == [str(tmp_path / name), str(tmp_path / "recordings")]
    assert (tmp_path / name).stat().st_mode & 0o077 == 0


def test_the_chunks_of_a_stream_stay_until_its_file_is_kept(recorder, coupon, monkeypatch):
    from apps.recordings.models import Chunk
    from apps.recordings.services import stream

    _, made = recorder("POST", "", opened(coupon.number))
    assert (
        recorder("PUT", f"/{made['id']}/chunks/0", CSV.partition("\n")[2].encode(), kind="text/csv")[0] == 200
    )

    def full(*_args, **_kwargs):
        raise OSError(28, "No space left on device")

    with monkeypatch.context() as broken:
        broken.setattr(stream, "examine", full)
        assert recorder("POST", f"/{made['id']}/close", {"chunks": 1, "samples": 400})[0] == 507
    assert Chunk.objects.count() == 1 and Recording.objects.get().status == Status.STREAMING
    assert recorder("POST", f"/{made['id']}/close", {"chunks": 1, "samples": 400})[1]["status"] == "ready"
