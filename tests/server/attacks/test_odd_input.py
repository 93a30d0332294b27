"""Odd input by hand and by chance: a refusal in words, never an error of ours."""

import io
import uuid
import zipfile
from datetime import timedelta

import pytest
from api.api import api as ninja
from apps.coupons.models import Coupon, PassLog, PassPhoto
from apps.coupons.services.add_photo import add_photo
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.recordings.models import Recording, Status
from apps.recordings.services import receive_file as receiving
from apps.recordings.services.recorders import add_recorder
from config import urls  # noqa: F401 - mounts the routers on the API
from django.db import DataError, IntegrityError, OperationalError, transaction
from django.test import Client
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from openpyxl import Workbook
from PIL import Image
from psycopg.errors import DiskFull

from tests.server.attacks.conftest import CSV, picture
from tests.server.conftest import Api
from tests.welding import samples
from welding.documents.codec import PASS_RECORD

ENTRY = {"number": 1, "current_a": 240, "voltage_v": 26, "length_mm": 300, "time_s": 72}


@pytest.fixture
def coupon(people, draft):
    return start_coupon(people["engineer"], draft, "R. Okafor")


# --- bodies of the wrong kind ----------------------------------------------------------------------


def changing():
    paths = ninja.get_openapi_schema()["paths"]
    return sorted(
        (method, path)
        for path, verbs in paths.items()
        for method in verbs
        if method in ("post", "put", "patch")
    )


@pytest.mark.parametrize("method, path", changing())
def test_a_form_in_place_of_json_is_refused(method, path, people):
    """The token's check reads a form first; what is left of the body then was an error of ours."""
    client = Client(enforce_csrf_checks=True)
    client.force_login(people["engineer"], backend="apps.accounts.backend.GuardedBackend")
    client.get("/api/session")
    token = client.cookies["csrftoken"].value
    address = path.replace("{job_id}", "1").replace("{client_id}", str(uuid.uuid4()))
    while "{" in address:
        head, _, tail = address.partition("{")
        address = head + "1" + tail.partition("}")[2]
    for kind, body in (
        (
            "multipart/form-data; boundary=b",
            b'--b\r\nContent-Disposition: form-data; name="a"\r\n\r\n1\r\n--b--\r\n',
        ),
        ("application/x-www-form-urlencoded", f"csrfmiddlewaretoken={token}&a=1".encode()),
    ):
        answer = client.generic(method.upper(), address, body, content_type=kind)
        assert 400 <= answer.status_code < 500, (address, kind, answer.content[:300])


@pytest.mark.parametrize(
    "path, body",
    [
        ("/coupons/{c}/passes", {"client_id": "UUID", "record": ENTRY, "device_time": "2026-03-02T10:00:00"}),
        ("/coupons/{c}/passes", {"client_id": "UUID", "record": ENTRY, "device_time": "0001-01-01T00:00:00Z"}),
        ("/coupons/{c}/passes", {"client_id": "UUID", "record": ENTRY, "device_time": "9999-12-31T23:59:59Z"}),
        ("/coupons/{c}/passes", {"client_id": "UUID", "record": ENTRY, "device_time": "2026-03-02T10:00:00Z",
                                 "saved_at": "2026-03-02T10:00:00"}),
        ("/coupons/{c}/passes", {"client_id": "UUID", "record": {**ENTRY, "number": 10**18}}),
        ("/passes/1/strike", {"version": 10**30, "reason": "x"}),
        ("/passes/1/strike", {"version": 1, "reason": "x" * 100_000}),
        ("/coupons/{c}/specimens", {"test": {"kind": "visual", "specimen": "x" * 100_000}}),
        ("/recorders", {"name": "x" * 100_000}),
        ("/trials/99999999999999999999/strike", {"reason": "x"}),
    ],
)  # fmt: skip
def test_values_beyond_reason_are_refused(api, coupon, path, body):
    body = {key: str(uuid.uuid4()) if value == "UUID" else value for key, value in body.items()}
    status, answer = api["engineer"]("POST", path.replace("{c}", str(coupon.pk)), body)
    assert 400 <= status < 500, answer


@pytest.mark.parametrize(
    "path",
    [
        "/metals?thickness_mm=nan", "/metals?thickness_mm=1e999", "/metals?most=99999999999999999999",
        "/tungsten-carries?diameter_mm=inf&polarity=DCEN", "/tungsten-carries?diameter_mm=-1&polarity=AC",
        "/used?kind=filler&name=" + "x" * 400, "/fillers?search_text=%F0%9F%98%80",
        "/recordings/1/trace?start_s=nan&end_s=1", "/recordings/1/trace?start_s=1&end_s=inf",
        "/recordings/1/live?after=-99999999999999999999", "/bench/cups?x=1", "/jobs/0/coupons",
    ],
)  # fmt: skip
def test_odd_questions_are_answered(api, people, job, coupon, path):
    recording = receiving.receive_file(
        people["inspector"], coupon, iter([CSV.encode()]), client_id=uuid.uuid4(), name="a.csv"
    )
    status, answer = api["viewer"]("GET", path.replace("/recordings/1/", f"/recordings/{recording.pk}/"))
    assert status < 500, answer


# --- files -----------------------------------------------------------------------------------------


def workbook():
    book = Workbook()
    book.active.append(["pass", "current, A", "voltage, V"])
    book.active.append([1, 200, 24])
    sink = io.BytesIO()
    book.save(sink)
    return sink.getvalue()


def rezipped(change):
    source, sink = zipfile.ZipFile(io.BytesIO(workbook())), io.BytesIO()
    with zipfile.ZipFile(sink, "w") as made:
        for name in source.namelist():
            data = change(name, source.read(name))
            if data is not None:
                made.writestr(name, data)
    return sink.getvalue()


ODD_TABLES = {
    "cut off": workbook()[:900],
    "no workbook part": rezipped(lambda name, data: None if name == "xl/workbook.xml" else data),
    "no xml": rezipped(lambda name, data: b"<" if name.endswith("sheet1.xml") else data),
    "odd cells": rezipped(lambda name, data: data.replace(b'r="A1"', b'r="ZZZZZ99999999999"')),
    "odd types": rezipped(
        lambda name, data: data.replace(b't="n"', b't="zz"').replace(b"<v>200</v>", b"<v>2e999</v>")
    ),
    "an entity": rezipped(lambda name, data: data.replace(b"?>", b'?><!DOCTYPE a [<!ENTITY b "c">]>', 1)),
    "encrypted": b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + b"\x00" * 600,
    "lone returns": b'pass,"current, A"\r1,200\r2,x\r',
    "a wide field": b"pass\n" + b"9" * 140_000 + b"\n",
    "an open quote": b'pass,"current, A\n1,2\n',
    "nothing": b"\n",
    "infinite": b'pass,"current, A"\n1,inf\n2,1e999\n',
}


@pytest.mark.parametrize("name", sorted(ODD_TABLES))
def test_odd_tables_end_in_a_sentence(api, coupon, name):
    status, answer = api["welder"]("POST", f"/coupons/{coupon.pk}/table", raw=ODD_TABLES[name])
    assert status in (200, 422) and (status == 200 or answer["detail"]), answer
    assert api["viewer"]("GET", f"/coupons/{coupon.pk}")[0] == 200


@settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck))
@given(
    flips=st.lists(st.tuples(st.floats(0, 0.999), st.integers(0, 255)), min_size=1, max_size=10),
    cut=st.floats(0.2, 1),
)
def test_a_mutated_workbook_ends_in_a_sentence(api, coupon, flips, cut):
    data = bytearray(workbook())
    for place, value in flips:
        data[int(place * len(data))] = value
    status, answer = api["welder"](
        "POST", f"/coupons/{coupon.pk}/table", raw=bytes(data[: int(cut * len(data))])
    )
    assert status in (200, 409, 422), answer


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


# --- sent twice ------------------------------------------------------------------------------------


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


# --- streams ---------------------------------------------------------------------------------------


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


# --- clocks and names ------------------------------------------------------------------------------


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


@pytest.mark.parametrize("start", ["=", "+", "-", "@", "\t=", "\n=", "\r\n =", "\u00a0="])
def test_no_cell_of_an_export_is_a_formula(start):
    from api.downloads import harmless

    assert harmless(f"{start}cmd|'/c calc'!A0")[:1] == "'"
    assert harmless("plain = text") == "plain = text" and harmless(-5.0) == -5.0


def test_the_day_is_the_shops_own(settings, api, draft):
    """At 22:30 UTC it is tomorrow in Auckland."""
    settings.TIME_ZONE = "Pacific/Auckland"
    timezone.get_default_timezone.cache_clear()
    try:
        assert api["engineer"]("POST", f"/revisions/{draft.pk}/coupons", {"welder": "X"})[0] == 201
        assert Coupon.objects.get().piece["welded_on"] == timezone.localdate().isoformat()
        assert str(timezone.get_current_timezone()) == "Pacific/Auckland"
    finally:
        settings.TIME_ZONE = "UTC"
        timezone.get_default_timezone.cache_clear()


# --- the last lines of defence ---------------------------------------------------------------------


@pytest.mark.parametrize(
    "error, status, kind",
    [
        (DataError("integer out of range"), 422, "invalid"),
        (UnicodeEncodeError("utf-8", "\ud800", 0, 1, "surrogates"), 422, "invalid"),
        (IntegrityError("duplicate key"), 409, "conflict"),
        (MemoryError(), 413, "too-big"),
        (OSError(28, "No space left on device"), 507, "disk-full"),
        (OperationalError("gone"), 503, "database"),
    ],
)
def test_what_gets_past_all_checks_is_told_for_what_it_is(api, draft, monkeypatch, error, status, kind):
    def broken(*_args, **_kwargs):
        raise error

    monkeypatch.setattr("apps.procedures.api.require", broken)
    found, answer = api["viewer"]("GET", f"/revisions/{draft.pk}")
    assert (found, answer["type"]) == (status, f"/problems/{kind}")


def test_a_full_disk_of_the_database_is_told_as_that(api, draft, monkeypatch):
    def broken(*_args, **_kwargs):
        raise OperationalError("could not extend file") from DiskFull("could not extend file")

    monkeypatch.setattr("apps.procedures.api.require", broken)
    status, answer = api["viewer"]("GET", f"/revisions/{draft.pk}")
    assert (status, answer["type"]) == (507, "/problems/disk-full")


def test_the_database_refuses_what_a_service_forgot(evidence):
    with pytest.raises(IntegrityError), transaction.atomic():
        PassLog.objects.filter(pk=evidence["row"].pk).update(current_mean_a=1)


def test_a_stranger_gets_in_nowhere(draft):
    nobody = Api(None)
    for path, verbs in ninja.get_openapi_schema()["paths"].items():
        for method in verbs:
            if "/session" in path or path in ("/api/units", "/api/codes"):
                continue
            address = path.removeprefix("/api")
            while "{" in address:
                head, _, tail = address.partition("{")
                address = head + "1" + tail.partition("}")[2]
            assert nobody(method.upper(), address, {})[0] == 401, (method, path)


# --- many at once, and files on the disk -----------------------------------------------------------


@pytest.mark.django_db(transaction=True)
def test_forty_at_once_get_forty_numbers():
    """Twenty-eight of forty were told that their number was taken: nobody had given one."""
    import threading

    from apps.accounts.models import Role, User
    from apps.jobs.models import Job
    from apps.procedures.models import Procedure
    from apps.procedures.services.create_procedure import create_procedure
    from django.db import connection

    from welding.documents.codec import PROCEDURE

    user = User.objects.create(username="engineer", role=Role.ENGINEER)
    job = Job.objects.create(number="FB-27", title="Bridge")
    document = PROCEDURE.take(
        {k: v for k, v in samples.procedure().items() if k not in ("number", "revision")}
    )
    refused = []

    def create():
        try:
            for _ in range(5):
                create_procedure(user, job, document)
        except Exception as error:  # noqa: BLE001 - whatever it is, it is told below
            refused.append(error)
        finally:
            connection.close()

    threads = [threading.Thread(target=create) for _ in range(8)]
    for one in threads:
        one.start()
    for one in threads:
        one.join(60)
    assert refused == []
    assert set(Procedure.objects.values_list("number", flat=True)) == {
        f"FB-27-P{n:02d}" for n in range(1, 41)
    }


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
