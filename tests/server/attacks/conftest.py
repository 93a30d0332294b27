"""A signed record with everything beneath it, and what it is seen by."""

import io
import json
import uuid
from datetime import UTC, datetime
from io import BytesIO

import pytest
from apps.coupons.models import Coupon
from apps.coupons.services.add_photo import add_photo
from apps.coupons.services.start_coupon import start_coupon
from apps.recordings.models import RecordedPass, Status
from apps.recordings.services.receive_file import receive_file
from openpyxl import load_workbook
from PIL import Image

from tests.server.conftest import PASSWORD, enter_tests

NOON = datetime(2026, 11, 2, 12, 0, tzinfo=UTC)
CSV = "time_s,voltage_v,current_a\n" + "".join(f"{n / 100:.2f},24.0,200.0\n" for n in range(400))


ENTRY = {"number": 1, "current_a": 240, "voltage_v": 26, "length_mm": 300, "time_s": 72}


def picture(colour="red"):
    sink = io.BytesIO()
    Image.new("RGB", (8, 8), colour).save(sink, "PNG")
    return sink.getvalue()


@pytest.fixture
def coupon(people, draft):
    """A coupon whose log is open."""
    return start_coupon(people["engineer"], draft, "R. Okafor")


@pytest.fixture
def evidence(api, people, welded):
    """A signed record of a coupon with a photo and a recording."""
    first = welded.passes.get(number=1)
    photo = add_photo(people["welder"], first, uuid.uuid4(), picture())
    recording = receive_file(
        people["inspector"], welded, iter([CSV.encode()]), client_id=uuid.uuid4(), name="booth.csv"
    )
    assert recording.status == Status.READY
    RecordedPass.objects.create(
        recording=recording, row=first, start_s=0.5, end_s=2.5, taken_by=people["inspector"]
    )
    enter_tests(api, welded)
    status, made = api["engineer"]("POST", f"/coupons/{welded.pk}/sign", PASSWORD)
    assert status == 201, made
    coupon = Coupon.objects.get(pk=welded.pk)
    return {
        "coupon": coupon,
        "record": coupon.record,
        "row": first,
        "specimen": coupon.specimens.first(),
        "photo": photo,
        "recording": recording,
    }


def seen(api, coupon):
    """Everything that shows a signed record: print, exports, log, range, evidence, in a form to compare."""
    look = api["viewer"]

    def get(path):
        status, answer = look("GET", path)
        assert status == 200, (path, answer)
        return answer

    ranges = get(f"/coupons/{coupon.pk}/ranges")
    evidence = get(f"/coupons/{coupon.pk}/evidence")
    log = get(f"/coupons/{coupon.pk}")
    del log["server_time"]
    book = load_workbook(BytesIO(get(f"/coupons/{coupon.pk}/record/table")))
    return {
        "record print": get(f"/coupons/{coupon.pk}/record/print"),
        "coupon print": get(f"/coupons/{coupon.pk}/print"),
        "record": look.client.get(f"/api/coupons/{coupon.pk}/record").content,
        "coupon": look.client.get(f"/api/coupons/{coupon.pk}/export").content,
        "csv": get(f"/coupons/{coupon.pk}/table"),
        "workbook": [[list(row) for row in sheet.values] for sheet in book],
        "range": json.dumps(next(one for one in ranges["ranges"] if one["own"]), sort_keys=True),
        "specimens": json.dumps(evidence["specimens"], sort_keys=True),
        "report": json.dumps(evidence["report"], sort_keys=True),
        "hash": evidence["signed"]["content_hash"],
        "signatures": json.dumps(evidence["signed"]["signatures"], sort_keys=True),
        "log": json.dumps(log, sort_keys=True),
        "photo": b"".join(look.client.get(f"/api/photos/{log['rows'][0]['photos'][0]}").streaming_content),
    }


@pytest.fixture
def at_noon(monkeypatch):
    """Sheets say when they were printed: always at noon."""
    for module in ("apps.printing.api", "apps.printing.record_api"):
        monkeypatch.setattr(f"{module}.timezone.now", lambda: NOON)
