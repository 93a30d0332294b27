"""The sheets hold what they must: read back from the PDF by another library."""

from io import BytesIO

import pytest
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.printing.set_up import set_up_words
from apps.printing.sheets import Writer
from apps.procedures.services.create_procedure import create_procedure
from pypdf import PdfReader

from tests.welding import samples
from welding.documents.codec import PASS, PASS_RECORD, PROCEDURE


def text_of(data):
    reader = PdfReader(BytesIO(data))
    return reader, " ".join(" ".join(page.extract_text() for page in reader.pages).split())


def test_the_electrodes_of_a_tandem_pass_stand_one_by_one_on_the_sheet():
    one = PASS.take(
        {
            "number": 1, "role": "fill", "process": "121",
            "electrodes": {
                "count": 2, "spacing_mm": 20,
                "each": [
                    {"current_a": {"min": 600, "max": 650}, "polarity": "DCEP", "angle_deg": 0},
                    {"current_a": {"min": 500, "max": 500}, "polarity": "AC", "angle_deg": 12, "across_deg": -2},
                ],
            },
        }
    )  # fmt: skip
    text = set_up_words(one, Writer("si"))[2]
    assert "2 electrodes, 20 mm apart along" in text
    assert "electrode 1: 600–650 A DCEP 0° along" in text
    assert "electrode 2: 500 A AC +12° along -2° across" in text


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
        "root gap 3",
        "page 1 / ",
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


def test_deviations_are_on_the_coupons_sheet_and_on_the_record(api, people, draft):
    """What was welded otherwise than planned: 100 % CO2 for a mix stays as a flag, another position is told."""
    coupon = start_coupon(people["engineer"], draft, "R. Okafor")
    status, _ = api["welder"](
        "PATCH", f"/coupons/{coupon.pk}", {"version": 1, "piece": {"product": "plate", "thickness_mm": [20, 16], "position": "PC"}}
    )  # fmt: skip
    assert status == 200
    used = {"number": 1, "gas": {"components_percent": {"CO2": 100}}, "side": 2, "length_mm": 300, "time_s": 60,
            "travel_mm_min": 200}  # fmt: skip
    log_pass(people["welder"], coupon, "6f1f3d1e-0000-4000-8000-000000000002", PASS_RECORD.take(used))
    for sheet in ("print", "record/print"):
        status, data = api["viewer"]("GET", f"/coupons/{coupon.pk}/{sheet}")
        assert status == 200, sheet
        _, text = text_of(data)
        for words in (
            "Deviations from the procedure",
            "Metal 2 is 16 mm thick; 20 mm is planned.",
            "The coupon is in PC; PF is planned.",
            "Welded from another side than planned",
            "Travel does not agree with length and time",
            "Pass 1: Other shielding gas than planned.",
        ):
            assert words in text, (sheet, words)
        assert text.count("Other shielding gas than planned.") == 1, "a flag is not told twice"


def test_a_pipe_has_its_diameter_on_the_sheet(api, people, job):
    document = samples.procedure()
    for metal in document["base_metals"]:
        metal["outside_diameter_mm"] = 168.3
    draft = create_procedure(people["engineer"], job, PROCEDURE.take(document))
    _, text = text_of(api["viewer"]("GET", f"/revisions/{draft.pk}/print")[1])
    assert "Outside diameter 168.3 mm" in text


def test_an_empty_draft_prints_too(api, job):
    _, made = api["engineer"](
        "POST",
        f"/jobs/{job.pk}/procedures",
        {"document": {"format": "grounded-bead/procedure", "version": 1, "title": "<b>&amp;"}},
    )
    status, data = api["viewer"]("GET", f"/revisions/{made['id']}/print")
    assert status == 200
    assert "<b>&amp;" in text_of(data)[1]


def test_a_tig_set_up_is_on_the_paper_whole(api, people, job):
    one = samples.a_pass(
        1,
        "root",
        process="141",
        polarity="AC",
        filler={"designation": "ER5356", "diameter_mm": 2.4, "make": "Fern Rod"},
        gas={"components_percent": {"Ar": 100}, "flow_l_min": {"min": 9, "max": 12}},
        purge={"components_percent": {"Ar": 100}, "oxygen_ppm": 50},
        tungsten={"type": "WLa15", "diameter_mm": 2.4, "angle_deg": 60},
        cup={"number": 8, "lens": True},
        ac={"frequency_hz": 120, "en_share": 0.7, "waveform": "soft-square"},
        pulse={"peak_a": 150, "background_a": 30, "frequency_hz": 2, "peak_share": 0.4},
        slopes={"start_a": 40, "up_s": 0.5, "down_s": 4, "finish_a": 20},
        gas_times={"pre_flow_s": 0.5, "post_flow_s": 12},
        start="high-frequency",
        pedal_max_a=190,
        machine="Bay 3 TIG",
    )
    for gone in ("transfer", "wire_feed_m_min"):
        del one[gone]
    metals = [{"designation": "6082-T6", "thickness_mm": 5, "heat": "H77"}] * 2
    document = PROCEDURE.take(samples.procedure(code=None, base_metals=metals, passes=[one]))
    revision = create_procedure(people["engineer"], job, document)
    status, data = api["viewer"]("GET", f"/revisions/{revision.pk}/print")
    assert status == 200
    text = text_of(data)[1]
    for part in (
        "ER5356, Fern Rod", "0.5 s before, 12 s after", "below 50 ppm oxygen", "tungsten WLa15 2.4 mm 60°",
        "cup no. 8 with lens", "120 Hz, 70 % negative, soft square", "pulse 150 A over 30 A, 40 % at peak, 2 Hz",
        "high frequency start, from 40 A, up in 0.5 s, down in 4 s, to 20 A, pedal to 190 A", "machine Bay 3 TIG", "heat H77",
    ):  # fmt: skip
        assert part in text, part


def test_what_guides_a_wire_is_on_the_paper(api, people, job):
    feeder = {"rolls": "knurled", "liner": "steel", "contact_tip_mm": 1.2, "inductance_percent": 40}
    one = samples.a_pass(1, "root", feeder=feeder, extension_mm={"min": 15, "max": 20})
    revision = create_procedure(people["engineer"], job, PROCEDURE.take(samples.procedure(passes=[one])))
    text = text_of(api["viewer"]("GET", f"/revisions/{revision.pk}/print")[1])[1]
    assert "tip to work 15–20 mm" in text
    assert "knurled rolls, steel liner, tip 1.2 mm, inductance 40 %" in text
