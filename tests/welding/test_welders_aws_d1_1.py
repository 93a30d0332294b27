"""AWS D1.1, clause 6 part C and clause 10: what a test covers, both sides of every edge. From memory."""

import pytest

from tests.welding.welder_cases import answer, blocking, changed

SMAW = "AWS D1.1 SMAW F4 3G uphill plate T3/8in backing"
METRIC = "AWS D1.1 SMAW F4 3G uphill plate T10mm backing"
HALF = "AWS D1.1 FCAW-G 3G uphill plate T1/2in backing"
INCH = "AWS D1.1 FCAW-G 3G uphill plate T1in backing"
SPRAY = "AWS D1.1 GMAW 1G plate T3/8in backing"
SHORT = "AWS D1.1 GMAW-S 3G downhill plate T3/8in backing"
OPEN = "AWS D1.1 SMAW F4 3G uphill plate T3/8in open-root"
FILLET = "AWS D1.1 SMAW F4 2F plate T1/2in"
PIPE_SMALL = "AWS D1.1 SMAW F4 6G uphill pipe D60.3mm T5.5mm open-root"
PIPE_LARGE = "AWS D1.1 SMAW F4 6G uphill pipe D168.3mm T14.3mm open-root"
PIPE_R = "AWS D1.1 SMAW F4 6GR uphill pipe D168.3mm T14.3mm open-root"
OPERATOR = "AWS D1.1 operator SAW 1G plate T1in backing electrodes=1"
TACK = "AWS D1.1 tack-welder SMAW F4 1F plate T1/2in"


def at(position, weld="groove"):
    """A test in another position, and a weld in a position of the code."""
    return f"{position}>{weld}"


def positions(test, covered, weld, progression=""):
    """Each position of the code against a test: covered or blocked."""
    tested = " ".join(f"AWS D1.1 SMAW F4 {test} {progression} plate T3/8in".split())
    tested += " backing" if test.endswith("G") else ""
    for one in ("F", "H", "V", "OH"):
        words = f"{one} {progression} {weld}".replace("  ", " ")
        held = one in covered
        old = f"{test} {progression}".strip()
        change = f"{old}>{words}" + (";backing>" if weld == "fillet" and test.endswith("G") else "")
        yield tested, change, "covered" if held else "blocked", "" if held else "welder_position"


CASES = {
    "table 6.12, process": [
        (SPRAY, "=", "covered", ""),
        (SPRAY, "GMAW>GMAW-S", "blocked", "welder_process"),
        (SHORT, "GMAW-S>GMAW", "blocked", "welder_process"),
        (SPRAY, "GMAW>SAW", "blocked", "welder_process"),
        (HALF, "FCAW-G>FCAW-S", "covered", ""),
        (HALF, "FCAW-G>FCAW", "covered", ""),
        (HALF, "FCAW-G>GMAW", "blocked", "welder_process"),
        (SMAW, "SMAW F4>FCAW-S", "blocked", "welder_process"),
        ("AWS D1.1 GTAW 6G uphill pipe D60.3mm T5.5mm open-root", "GTAW>SMAW F4", "blocked", "welder_process"),
    ],
    "table 6.12, F-number": [
        (SMAW, "F4>F3", "covered", ""),
        (SMAW, "F4>F2", "covered", ""),
        (SMAW, "F4>F1", "covered", ""),
        (SMAW.replace("F4", "F3"), "F3>F4", "blocked", "filler_group"),
        (SMAW.replace("F4", "F3"), "F3>F2", "covered", ""),
        (SMAW.replace("F4", "F2"), "F2>F3", "blocked", "filler_group"),
        (SMAW.replace("F4", "F2"), "F2>F2", "covered", ""),
        (SMAW.replace("F4", "F1"), "F1>F2", "blocked", "filler_group"),
        (SMAW.replace("F4", "F1"), "F1>F4", "blocked", "filler_group"),
    ],
    "table 6.12, progression": [
        (HALF, "3G uphill>V downhill groove", "blocked", "progression"),
        (SHORT, "3G downhill>V uphill groove", "blocked", "progression"),
        (HALF, "3G uphill>V uphill groove", "covered", ""),
        (HALF, "3G uphill>V groove", "open", "progression"),
        (HALF, "3G uphill>F groove", "covered", ""),
        (PIPE_LARGE, "6G uphill>6G downhill", "blocked", "progression"),
    ],
    "table 6.12, backing": [
        (SMAW, "backing>backgouged", "covered", ""),
        (SMAW, "backing>open-root", "blocked", "backing"),
        (SMAW, "backing>", "open", "backing"),
        (SMAW, "3G uphill>V uphill PJP;backing>", "covered", ""),
        (OPEN, "open-root>backing", "covered", ""),
        (OPEN, "open-root>backgouged", "covered", ""),
        (OPEN, "=", "covered", ""),
    ],
    "table 6.12, operators": [
        (OPERATOR, "electrodes=1>electrodes=2", "blocked", "electrodes"),
        (OPERATOR.replace("electrodes=1", "electrodes=2"), "electrodes=2>electrodes=1", "covered", ""),
        (OPERATOR, "operator SAW>SAW", "blocked", "person"),
        ("AWS D1.1 SAW 1G plate T1in backing", "SAW>operator SAW", "open", "person"),
        ("AWS D1.1 SAW 1G plate T1in backing trained", "SAW>operator SAW;trained>", "covered", ""),
    ],
    "table 6.12, tack welders": [
        (TACK, "T1/2in>T1/8in", "covered", ""),
        (TACK, "T1/2in>T2in", "covered", ""),
        (TACK, "T1/2in>T2mm", "blocked", "material_mm"),
        (TACK, "tack-welder SMAW>SMAW", "blocked", "person"),
        (FILLET, "SMAW>tack-welder SMAW", "covered", ""),
    ],
    "table 6.10, groove welds by plate": [
        *positions("1G", ("F",), "groove"),
        *positions("2G", ("F", "H"), "groove"),
        *positions("3G", ("F", "H", "V"), "groove", "uphill"),
        *positions("4G", ("F", "OH"), "groove"),
    ],
    "table 6.10, fillet welds by plate": [
        *positions("1G", ("F", "H"), "fillet"),
        *positions("2G", ("F", "H"), "fillet"),
        *positions("3G", ("F", "H", "V"), "fillet", "uphill"),
        *positions("4G", ("F", "H", "OH"), "fillet"),
        *positions("1F", ("F",), "fillet"),
        *positions("2F", ("F", "H"), "fillet"),
        *positions("3F", ("F", "H", "V"), "fillet", "uphill"),
        *positions("4F", ("F", "H", "OH"), "fillet"),
    ],
    "table 6.10, kinds of weld": [
        (SMAW, "3G uphill>V uphill PJP", "covered", ""),
        (SMAW, "3G uphill>V uphill plug", "blocked", "weld_type"),
        (FILLET, "2F>F groove", "blocked", "weld_type welder_position"),
    ],
    "table 6.11, dihedral angle": [
        (FILLET, "T1/2in>T1/2in dihedral=65", "covered", ""),
        (FILLET, "T1/2in>T1/2in dihedral=60", "open", "dihedral_deg"),
        (FILLET, "T1/2in>T1/2in dihedral=55", "blocked", "dihedral_deg"),
        (SMAW, "3G uphill>H fillet dihedral=45;backing>", "covered", ""),
        (SMAW, "3G uphill>H fillet dihedral=30;backing>", "covered", ""),
        (SMAW, "3G uphill>H fillet dihedral=29;backing>", "blocked", "dihedral_deg"),
    ],
    "table 6.11, thickness": [
        (SMAW, "T3/8in>T3/4in", "covered", ""),
        (SMAW, "T3/8in>T7/8in", "blocked", "material_mm"),
        (SMAW, "T3/8in>T1/8in", "covered", ""),
        (SMAW, "T3/8in>T1/16in", "blocked", "material_mm"),
        (METRIC, "T10mm>T20mm", "covered", ""),
        (METRIC, "T10mm>T20.1mm", "blocked", "material_mm"),
        (METRIC, "T10mm>T3mm", "covered", ""),
        (METRIC, "T10mm>T2.9mm", "blocked", "material_mm"),
        (SMAW, "3G uphill>H fillet;T3/8in>T2in;backing>", "covered", ""),
        (HALF, "T1/2in>T1in", "covered", ""),
        (HALF, "T1/2in>T1-1/8in", "blocked", "material_mm"),
        (HALF.replace("T1/2in", "T3/4in"), "T3/4in>T1-1/2in", "covered", ""),
        (HALF.replace("T1/2in", "T3/4in"), "T3/4in>T1-5/8in", "blocked", "material_mm"),
        (INCH, "T1in>T4in", "covered", ""),
        (INCH, "T1in>T1/16in", "blocked", "material_mm"),
        (SMAW.replace("T3/8in", "T1/4in"), "T1/4in>T1/4in", "open", "material_mm"),
        (SMAW, "T3/8in>", "open", "material_mm"),
    ],
    "table 6.10, pipe by plate": [
        (SMAW, "plate>pipe D24in", "covered", ""),
        (METRIC, "plate>pipe D600mm", "covered", ""),
        (SMAW, "plate>pipe D20in", "blocked", "outside_diameter_mm"),
        (METRIC, "plate>pipe D599mm", "blocked", "outside_diameter_mm"),
        (FILLET, "plate>pipe D24in", "covered", ""),
        (FILLET, "plate>pipe D12in", "open", "outside_diameter_mm"),
        (SMAW, "3G uphill>H fillet;plate>pipe D12in;backing>", "open", "outside_diameter_mm"),
        (OPEN, "plate>pipe D30in", "blocked", "outside_diameter_mm"),
        (OPEN, "plate>pipe D30in;open-root>backgouged", "covered", ""),
    ],
    "tables 10.12 and 10.13, pipe": [
        (PIPE_SMALL, "D60.3mm>D100mm;T5.5mm>T20mm", "covered", ""),
        (PIPE_SMALL, "D60.3mm>D4in;T5.5mm>T3/4in", "covered", ""),
        (PIPE_SMALL, "D60.3mm>D6in;T5.5mm>T1/4in", "blocked", "outside_diameter_mm"),
        (PIPE_SMALL, "D60.3mm>D19mm", "blocked", "outside_diameter_mm"),
        (PIPE_LARGE, "D168.3mm>D24in;T14.3mm>T2in", "covered", ""),
        (PIPE_LARGE, "D168.3mm>D3in;T14.3mm>T1in", "blocked", "outside_diameter_mm"),
        (PIPE_LARGE, "T14.3mm>T4mm", "blocked", "material_mm"),
        (PIPE_LARGE.replace("D168.3mm", "D114.3mm"), "D114.3mm>D114.3mm", "open", "material_mm outside_diameter_mm"),
        (PIPE_LARGE, "6G uphill>V uphill groove;pipe D168.3mm>plate", "covered", ""),
        (PIPE_LARGE, "6G uphill>H TYK", "blocked", "weld_type"),
        (PIPE_R, "6GR uphill>H TYK", "covered", ""),
        (PIPE_LARGE.replace("6G", "5G"), "5G uphill>OH groove", "covered", ""),
        (PIPE_LARGE.replace("6G", "5G"), "5G uphill>H groove", "blocked", "welder_position"),
        (PIPE_LARGE.replace("6G uphill", "2G"), "2G>V uphill groove", "blocked", "welder_position"),
        (PIPE_LARGE.replace("6G uphill", "1G"), "1G>H groove", "blocked", "welder_position"),
        (PIPE_LARGE.replace("6G uphill", "1G"), "1G>H fillet;open-root>", "covered", ""),
    ],
}  # fmt: skip
ALL = [(clause, *case) for clause, cases in CASES.items() for case in cases]


def test_there_are_enough_of_them():
    assert len(ALL) >= 80


@pytest.mark.parametrize("clause, tested, changes, verdict, variables", ALL)
def test_what_a_test_covers(clause, tested, changes, verdict, variables):
    found = answer(tested, changed(tested, changes))
    assert (found.verdict, found.covered) == (verdict, verdict == "covered"), found.findings
    assert blocking(found) >= set(variables.split()) and bool(blocking(found)) == bool(variables)


@pytest.mark.parametrize(
    "tests, asked, verdict",
    [
        (
            "3G uphill plate T1in backing + 4G plate T1in backing",
            "6G uphill pipe D24in T1in backing",
            "covered",
        ),
        (
            "3G uphill plate T1in backing + 4G plate T1in backing",
            "6G uphill pipe D20in T1in backing",
            "blocked",
        ),
        (
            "2G pipe D168.3mm T14.3mm open-root + 5G uphill pipe D168.3mm T14.3mm open-root",
            "6G uphill pipe D12in T1in open-root",
            "covered",
        ),
        (
            "2G plate T1in backing + 3G uphill plate T1in backing",
            "6G uphill pipe D30in T1in backing",
            "blocked",
        ),
        # horizontal is held by 1G for fillet welds alone
        (
            "5G uphill pipe D168.3mm T14.3mm backing + 1G plate T1in backing",
            "6G uphill pipe D24in T1in backing",
            "blocked",
        ),
        (
            "5G uphill pipe D168.3mm T14.3mm backing + 2G plate T1in backing",
            "6G uphill pipe D24in T1in backing",
            "covered",
        ),
        # what a pipe of this size covers is not known here: several leave it as open as one
        (
            "2G pipe D168.3mm T10mm open-root + 5G uphill pipe D168.3mm T10mm open-root",
            "6G uphill pipe D168.3mm T10mm open-root",
            "open",
        ),
    ],
)
def test_positions_of_several_tests_add_up(tests, asked, verdict):
    """Tables 6.10 and 10.12: 3G with 4G, and 2G with 5G, cover all positions."""
    each = [f"AWS D1.1 SMAW F4 {one}" for one in tests.split(" + ")]
    found = answer(" + ".join(each), f"AWS D1.1 SMAW F4 {asked}")
    assert found.verdict == verdict, found.findings
