"""The sheets hold what they must: read back from the PDF by another library."""

from io import BytesIO

import pytest
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.procedures.services.create_procedure import create_procedure
from pypdf import PdfReader

from tests.welding import samples
from welding.documents.codec import PASS_RECORD, PROCEDURE


def text_of(data):
    reader = PdfReader(BytesIO(data))
    return reader, " ".join(" ".join(page.extract_text() for page in reader.pages).split())


@pytest.mark.parametrize("paper, width, height", [("a4", 842, 595), ("letter", 792, 612)])
def test_the_procedure_on_paper(api, draft, paper, width, height):
    status, data = api["viewer"]("GET", f"/revisions/{draft.pk}/print?paper={paper}")
    assert status == 200
    reader, text = text_of(data)
    box = reader.pages[0].mediabox
    assert (round(float(box.width)), round(float(box.height))) == (width, height)
    for words in (
        "FB-27-P03",
        "Girder butt, vertical",
        "220–260 A",
        "24.0–28.0 V",
        "200–300 mm/min",
        "0.84–1.75 kJ/mm",
        "21.5–44.4 kJ/in",
        "7.9–11.8 in/min",
        "75 °C",
        "167 °F",
        "Ar+18CO2",
        "ER70S-6",
        "60°",
        "gap 3",
        "page 1 of",
        "revision",
        "Cautions",
        "Local rules and qualified people decide",
        "ISO 15614-1:2017, level 2",
    ):
        assert words in text, words
    fonts = {str(font) for page in reader.pages for font in page["/Resources"]["/Font"].values()}
    assert fonts  # embedded, not the reader's


def test_a_sheet_under_us_units_puts_inches_first(api, people, job):
    document = samples.procedure(
        code={"id": "aws-d1.1:2020", "units": "us"},
        joint=samples.T_FILLET,
        thermal={"preheat_min_c": 10, "interpass_max_c": 260, "heat_input_kj_mm": {"min": 1, "max": 1.5}},
    )
    draft = create_procedure(people["engineer"], job, PROCEDURE.take(document))
    _, data = api["viewer"]("GET", f"/revisions/{draft.pk}/print")
    _, text = text_of(data)
    # 24-28 V, 220-260 A, 200-300 mm/min: 26.8-55.5 kJ/in by hand, with no k; 10 °C is 50 °F.
    for words in (
        "7.9–11.8 in/min 200–300 mm/min",
        "26.8–55.5 kJ/in 1.06–2.18 kJ/mm",
        "50 °F 10 °C",
        "0.0472 in (1.2 mm)",
        "leg 0.315",
        "dimensions in inches;",
        "55.5 kJ/in at the slow, hot corner",
    ):
        assert words in text, words


def test_the_coupon_on_paper(api, people, draft):
    coupon = start_coupon(people["engineer"], draft, "R. Okafor")
    log_pass(
        people["welder"],
        coupon,
        "6f1f3d1e-0000-4000-8000-000000000001",
        PASS_RECORD.take(
            {"number": 1, "current_a": 240, "voltage_v": 26, "length_mm": 300, "time_s": 120, "before_c": 100}
        ),
    )
    status, data = api["viewer"]("GET", f"/coupons/{coupon.pk}/print")
    assert status == 200
    _, text = text_of(data)
    # 300 mm in 120 s = 150 mm/min; 26 x 240 x 60 / 150 / 1000 x 0.8 = 1.9968 kJ/mm.
    for words in (
        "FB-27-C01",
        "150 mm/min",
        "2.00 kJ/mm",
        "OUT",
        "below the range",
        "R. Okafor (welder)",
        "Still to weld: pass 2, 3",
        "WPQR",
    ):
        assert words in text, words


def test_an_empty_draft_prints_too(api, job):
    _, made = api["engineer"](
        "POST",
        f"/jobs/{job.pk}/procedures",
        {"document": {"format": "grounded-bead/procedure", "version": 1, "title": "<b>&amp;"}},
    )
    status, data = api["viewer"]("GET", f"/revisions/{made['id']}/print")
    assert status == 200
    assert "<b>&amp;" in text_of(data)[1]
