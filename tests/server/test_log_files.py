"""The log as CSV and XLSX, the template, and a hand-written log taken whole or not at all."""

import csv
import io
import zipfile

import pytest
from apps.coupons.models import PassLog
from apps.coupons.services.start_coupon import start_coupon
from openpyxl import Workbook, load_workbook

from tests.server.test_coupons import ENTRY, log


@pytest.fixture
def coupon(people, draft):
    return start_coupon(people["engineer"], draft, "R. Okafor")


def book(rows):
    made = Workbook()
    for row in rows:
        made.active.append(row)
    sink = io.BytesIO()
    made.save(sink)
    return sink.getvalue()


ROWS = [
    ["pass", "current, A", "voltage, V", "bead length, mm", "arc time, s"],
    [1, 240, 26, 300, 72],
    [2, 238, 26, 300, 70],
]


def test_the_log_is_exported_with_what_each_pass_gave(api, coupon):
    log(api["welder"], coupon, {**ENTRY, "remarks": "=cmd()"})
    _, data = api["viewer"]("GET", f"/coupons/{coupon.pk}/table?kind=csv")
    names, row = list(csv.reader(io.StringIO(data.decode("utf-8-sig"))))
    cells = dict(zip(names, row, strict=True))
    assert float(cells["heat input, kJ/mm"]) == pytest.approx(1.1981)  # 26 x 240 x 60 / 250 / 1000 x 0.8
    assert cells["remarks"] == "'=cmd()"
    assert cells["logged by"] == "Welder Test"
    _, data = api["viewer"]("GET", f"/coupons/{coupon.pk}/table?kind=xlsx")
    sheet = load_workbook(io.BytesIO(data)).active
    titles = [cell.value for cell in sheet[1]]
    remark = sheet.cell(2, titles.index("remarks") + 1)
    assert (remark.value, remark.data_type) == ("=cmd()", "s")


@pytest.mark.parametrize("kind", ["csv", "xlsx"])
def test_an_exported_log_comes_back_the_same(api, coupon, people, draft, kind):
    log(api["welder"], coupon, ENTRY)
    log(api["welder"], coupon, {**ENTRY, "number": 2, "remarks": "stop at 120, ground"})
    _, data = api["viewer"]("GET", f"/coupons/{coupon.pk}/table?kind={kind}")
    other = start_coupon(people["engineer"], draft, "R. Okafor")
    status, taken = api["welder"]("POST", f"/coupons/{other.pk}/table", raw=data)
    assert (status, len(taken)) == (200, 2)
    _, a = api["viewer"]("GET", f"/coupons/{coupon.pk}")
    _, b = api["viewer"]("GET", f"/coupons/{other.pk}")

    def bare(read):
        return [{**row["record"], "flags": None} for row in read["rows"]]

    assert bare(a) == bare(b)


def test_the_template_names_what_is_to_weld_and_is_taken_when_filled(api, coupon):
    _, data = api["viewer"]("GET", f"/coupons/{coupon.pk}/table?kind=xlsx&empty=true")
    sheet = load_workbook(io.BytesIO(data)).active
    assert [row[0] for row in sheet.iter_rows(values_only=True)] == ["pass", 1, 2, 3]
    assert api["welder"]("POST", f"/coupons/{coupon.pk}/table", raw=data)[0] == 422
    status, _ = api["welder"]("POST", f"/coupons/{coupon.pk}/table", raw=book(ROWS))
    assert status == 200
    assert api["welder"]("POST", f"/coupons/{coupon.pk}/table", raw=book(ROWS))[0] == 200
    assert PassLog.objects.filter(coupon=coupon).count() == 2
    row = PassLog.objects.get(number=2)
    api["welder"]("POST", f"/passes/{row.pk}/strike", {"version": row.version, "reason": "misread"})
    assert api["welder"]("POST", f"/coupons/{coupon.pk}/table", raw=book(ROWS))[0] == 200
    assert PassLog.objects.filter(coupon=coupon, struck=False).count() == 2


def test_one_bad_row_and_nothing_is_taken(api, coupon):
    data = b"pass;current, A;voltage, V\n1;240,5;26\n2;lots;26\n"
    status, answer = api["welder"]("POST", f"/coupons/{coupon.pk}/table", raw=data)
    assert (status, answer["errors"][0]["path"]) == (422, "line 3, current, A")
    assert PassLog.objects.count() == 0
    assert api["welder"]("POST", f"/coupons/{coupon.pk}/table", raw=data.replace(b"lots", b"238"))[0] == 200
    assert PassLog.objects.get(number=1).current_mean_a == 240.5


def bomb():
    sink = io.BytesIO()
    with zipfile.ZipFile(sink, "w", zipfile.ZIP_DEFLATED) as file:
        file.writestr("xl/worksheets/sheet1.xml", b"0" * 50_000_000)
    return sink.getvalue()


@pytest.mark.parametrize(
    "data,says", [(bomb(), "20 MB"), (b"PK\x03\x04 nothing", "cannot be read"), (b"\x00\x01", "neither CSV")]
)
def test_files_that_are_no_log(api, coupon, data, says):
    status, answer = api["welder"]("POST", f"/coupons/{coupon.pk}/table", raw=data)
    assert status == 422
    assert says in answer["detail"]


def test_who_may_take_a_log(api, coupon):
    assert api["viewer"]("POST", f"/coupons/{coupon.pk}/table", raw=book(ROWS))[0] == 403
