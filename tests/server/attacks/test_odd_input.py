"""Odd input by hand and by chance: a refusal in words, never an error of ours."""

import io
import uuid
import zipfile

import pytest
from api.api import api as ninja
from apps.coupons.models import Coupon, PassLog
from apps.recordings.services import receive_file as receiving
from config import urls  # noqa: F401 - mounts the routers on the API
from django.db import DataError, IntegrityError, OperationalError, transaction
from django.test import Client
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from openpyxl import Workbook
from psycopg.errors import DiskFull

from tests.server.attacks.conftest import CSV, ENTRY
from tests.server.conftest import Api
from tests.welding import samples

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
        "/recordings/1/live?after=-99999999999999999999", "/calculators/cups?x=1", "/jobs/0/coupons",
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


# --- exports and days ------------------------------------------------------------------------------


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
            # An invitation is accepted before there is a session; tokens that are none are tried in test_people.
            if "/session" in path or path.startswith("/api/invitations"):
                continue
            if path in ("/api/units", "/api/codes", "/api/terms"):
                continue
            address = path.removeprefix("/api")
            while "{" in address:
                head, _, tail = address.partition("{")
                address = head + "1" + tail.partition("}")[2]
            assert nobody(method.upper(), address, {})[0] == 401, (method, path)


# --- many at once -----------------------------------------------------------


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
