"""ISO 9606-1: what a test covers, both sides of every edge. Clauses and numbers from memory."""

import pytest

from tests.welding.welder_cases import answer, blocking, changed
from welding.welders.catalogue import read_designation
from welding.welders.covers import welder_covers

PLATE = "ISO 9606-1 135 P BW FM1 S s10 PF ss nb"
BACKED = "ISO 9606-1 135 P BW FM1 S s10 PA ss mb"
DIP = "ISO 9606-1 135 P BW FM1 S s10 PF ss nb, dip transfer"
SPRAY = "ISO 9606-1 135 P FW FM1 S t10 PB sl, spray transfer"
PIPE = "ISO 9606-1 141 T BW FM5 S s4 D60.3 PH ss nb"
SMALL = "ISO 9606-1 141 T BW FM5 S s2 D20 PH ss nb"
STICK = "ISO 9606-1 111 P BW FM1 B s12 PF ss nb"
STICK_PIPE = "ISO 9606-1 111 T BW FM1 B s12 D168.3 PH ss nb"
FILLET = "ISO 9606-1 135 P FW FM1 S t10 PB ml"
STICK_FILLET = "ISO 9606-1 111 P FW FM1 B t10 PB ml"
CORED = "ISO 9606-1 136 P FW FM1 B t10 PB ml"
BARE = "ISO 9606-1 142 P BW nm s2 PA ss gb"
GAS = "ISO 9606-1 311 T BW FM1 S s4 D48.3 PH ss nb rw"
ARC = "ISO 9606-1 121 P BW FM1 S s20 PA ss mb"
BOTH = "ISO 9606-1 141/111 T BW FM1 S/B s12(4/8) D168.3 PH ss nb"

# clause: (test, what is asked instead, verdict, variables that block or are open)
CASES = {
    "clause 5.2, processes": [
        (PLATE, "=", "covered", ""),
        (PLATE, "135>138;S>M", "covered", ""),
        (PLATE, "135>136;S>P", "blocked", "welder_process filler_type"),
        (PLATE, "135>131", "blocked", "welder_process"),
        (PLATE, "135>141", "blocked", "welder_process"),
        (PLATE, "135>111;S>B", "blocked", "welder_process filler_type"),
        ("ISO 9606-1 138 P BW FM1 M s10 PA ss mb", "138>135;M>S", "covered", ""),
        (ARC, "121>125;S>M", "covered", ""),
        ("ISO 9606-1 125 P BW FM1 M s20 PA ss mb", "125>121;M>S", "covered", ""),
        (ARC, "121>135", "blocked", "welder_process"),
        (PIPE, "141>143;S>M", "covered", ""),
        (PIPE, "141>145", "covered", ""),
        (PIPE, "141>142;FM5 S>nm", "covered", ""),
        (PIPE, "141>15", "blocked", "welder_process"),
        ("ISO 9606-1 145 T BW FM5 S s4 D60.3 PH ss nb", "145>141", "covered", ""),
        ("ISO 9606-1 143 T BW FM1 M s4 D60.3 PH ss nb", "143>141;M>S", "covered", ""),
        (BARE, "142>141;nm>FM1 S", "blocked", "welder_process filler_type"),
        (BARE, "=", "covered", ""),
        (STICK, "111>114;B>W", "blocked", "welder_process filler_type"),
        ("ISO 9606-1 131 P BW FM5 S s10 PA ss mb", "131>135", "blocked", "welder_process"),
        ("ISO 9606-1 15 P BW FM5 S s4 PA ss nb", "15>141", "blocked", "welder_process"),
    ],
    "clause 5.2, transfer modes": [
        (DIP, "dip>spray", "covered", ""),
        (DIP, "dip>pulsed", "covered", ""),
        (DIP, "dip>globular", "covered", ""),
        (SPRAY, "spray>dip", "blocked", "transfer_mode"),
        (SPRAY, "spray>pulsed", "covered", ""),
        (SPRAY, "135>138;S>M;spray>dip", "blocked", "transfer_mode"),
        (PLATE, "+ dip transfer", "open", "transfer_mode"),
        (PLATE, "+ spray transfer", "covered", ""),
    ],
    "clause 1, mechanized torches": [(PLATE, "+ mechanized", "blocked", "mechanization")],
    "clause 5.3, plates and pipes": [
        ("ISO 9606-1 135 T BW FM1 S s6 D60.3 PH ss nb", "T>P;D60.3>;PH>PF", "covered", ""),
        ("ISO 9606-1 141 T BW FM1 S s3 D25 PH ss nb", "T>P;D25>;PH>PF", "blocked", "product"),
        ("ISO 9606-1 141 T BW FM1 S s3 D25.4 PH ss nb", "T>P;D25.4>;PH>PF", "covered", ""),
        (BACKED, "P>T;s10>s10 D75", "covered", ""),
        (BACKED, "P>T;s10>s10 D74.9", "blocked", "outside_diameter_mm"),
        ("ISO 9606-1 135 P BW FM1 S s10 PC ss nb", "P>T;s10>s10 D500;+ fixed", "covered", ""),
        ("ISO 9606-1 135 P BW FM1 S s10 PC ss nb", "P>T;s10>s10 D499;+ fixed", "blocked", "outside_diameter_mm"),
        ("ISO 9606-1 135 P BW FM1 S s10 PC ss nb", "P>T;s10>s10 D168.3;+ turning", "covered", ""),
        ("ISO 9606-1 135 P BW FM1 S s10 PC ss nb", "P>T;s10>s10 D168.3", "open", "outside_diameter_mm"),
        (STICK, "P>T;s12>s12 D610;PF>PH", "blocked", "welder_position"),
        (FILLET, "P>T;t10>t10 D88.9;+ turning", "covered", ""),
        (FILLET, "P>T;t10>t10 D60.3;+ turning", "blocked", "outside_diameter_mm"),
        ("ISO 9606-1 135 P FW FM1 S t10 PD ml", "P>T;t10>t10 D168.3;+ turning", "covered", ""),
    ],
    "clause 5.4, weld types and branches": [
        (BACKED, "BW>FW;s10>t10;PA>PB;ss mb>sl", "blocked", "weld_type welder_position"),
        (FILLET, "FW>BW;t10>s10;PB>PA;ml>ss mb", "blocked", "weld_type welder_position"),
        (BACKED + ", fillet t12", "BW>FW;s10>t10;PA>PB;ss mb, fillet t12>sl", "covered", ""),
        (BACKED + ", fillet t10", "BW>FW;s10>t10;PA>PB;ss mb, fillet t10>sl", "covered", ""),
        (BACKED + ", fillet t9", "BW>FW;s10>t10;PA>PB;ss mb, fillet t9>sl", "blocked", "weld_type welder_position"),
        (BACKED + ", fillet 111 B t12", "BW>FW;s10>t10;PA>PB;ss mb, fillet 111 B t12>sl", "blocked",
         "weld_type welder_position"),
        (BACKED + ", fillet t12", "BW>FW;s10>t10;PA>PF;ss mb, fillet t12>sl", "blocked", "welder_position"),
        (BACKED + ", fillet t12", "BW>FW;s10>t2.9;PA>PB;ss mb, fillet t12>sl", "blocked", "fillet_material_mm"),
        (PIPE, "D60.3>D48.3;+ branch 90", "covered", ""),
        (PIPE, "D60.3>D48.3;+ branch 60", "covered", ""),
        (PIPE, "D60.3>D48.3;+ branch 59", "blocked", "branch_deg"),
        (PIPE, "D60.3>D26.9;+ branch 90", "blocked", "outside_diameter_mm"),
        (PLATE, "P>T;s10>s10 D610;PF>PA;+ branch 90", "blocked", "branch_deg"),
    ],
    "table 3, filler groups": [
        (PLATE, "FM1>FM2", "covered", ""),
        (PLATE, "FM1>FM3", "blocked", "filler_group"),
        (PLATE, "FM1>FM5", "blocked", "filler_group"),
        (PLATE.replace("FM1", "FM2"), "FM2>FM1", "covered", ""),
        (PLATE.replace("FM1", "FM2"), "FM2>FM3", "blocked", "filler_group"),
        (PIPE.replace("FM5", "FM3"), "FM3>FM1", "covered", ""),
        (PIPE.replace("FM5", "FM3"), "FM3>FM2", "covered", ""),
        (PIPE.replace("FM5", "FM3"), "FM3>FM4", "blocked", "filler_group"),
        (PIPE.replace("FM5", "FM4"), "FM4>FM3", "covered", ""),
        (PIPE.replace("FM5", "FM4"), "FM4>FM1", "covered", ""),
        (PIPE.replace("FM5", "FM4"), "FM4>FM5", "blocked", "filler_group"),
        (PIPE, "FM5>FM1", "blocked", "filler_group"),
        (PIPE, "FM5>FM6", "blocked", "filler_group"),
        (PIPE.replace("FM5", "FM6"), "FM6>FM5", "covered", ""),
        (PIPE.replace("FM5", "FM6"), "FM6>FM4", "blocked", "filler_group"),
    ],
    "tables 4 and 5, filler types": [
        (STICK_FILLET, "B>R", "covered", ""),
        (STICK_FILLET, "B>RB", "covered", ""),
        (STICK_FILLET, "B>C", "blocked", "filler_type"),
        (STICK_FILLET.replace(" B ", " R "), "R>B", "blocked", "filler_type"),
        (STICK_FILLET.replace(" B ", " R "), "R>RR", "covered", ""),
        (STICK_FILLET.replace(" B ", " RB "), "RB>B", "blocked", "filler_type"),
        (STICK_FILLET.replace(" B ", " C "), "C>C", "covered", ""),
        (STICK_FILLET.replace(" B ", " C "), "C>R", "blocked", "filler_type"),
        (STICK_FILLET.replace(" B ", " 18 "), "18>16", "covered", ""),
        (STICK_FILLET.replace(" B ", " 13 "), "13>24", "covered", ""),
        (STICK_FILLET.replace(" B ", " 13 "), "13>16", "blocked", "filler_type"),
        (STICK_FILLET.replace(" B ", " 11 "), "11>10", "covered", ""),
        (STICK, "B>RB", "blocked", "filler_type"),
        (STICK, "B>RB;ss nb>ss mb", "covered", ""),
        (FILLET, "S>S", "covered", ""),
        (FILLET, "135>138;S>M", "covered", ""),
        (CORED, "B>R", "covered", ""),
        (CORED, "B>Z", "covered", ""),
        (CORED.replace(" B ", " P "), "P t10>R t10", "covered", ""),
        (CORED.replace(" B ", " P "), "P t10>B t10", "blocked", "filler_type"),
        ("ISO 9606-1 114 P FW FM1 Y t10 PB ml", "Y>W", "covered", ""),
        ("ISO 9606-1 136 P BW FM1 B s12 PF ss nb", "B>P", "blocked", "filler_type"),
        ("ISO 9606-1 136 P BW FM1 B s12 PF ss nb", "B>P;ss nb>ss mb", "covered", ""),
    ],
    "table 6, deposited thickness": [
        (PIPE.replace("s4", "s1"), "s1>s0.9", "blocked", "deposited_mm"),
        (PIPE.replace("s4", "s1"), "=", "covered", ""),
        (PIPE.replace("s4", "s1"), "s1>s3", "covered", ""),
        (PIPE.replace("s4", "s1"), "s1>s3.1", "blocked", "deposited_mm"),
        (PIPE.replace("s4", "s2"), "s2>s1.9", "blocked", "deposited_mm"),
        (PIPE.replace("s4", "s2"), "s2>s4", "covered", ""),
        (PIPE.replace("s4", "s2"), "s2>s4.1", "blocked", "deposited_mm"),
        (PIPE.replace("s4", "s2.9"), "s2.9>s5.8", "covered", ""),
        (PIPE.replace("s4", "s2.9"), "s2.9>s5.9", "blocked", "deposited_mm"),
        (PIPE.replace("s4", "s3"), "s3>s6", "covered", ""),
        (PIPE.replace("s4", "s3"), "s3>s6.1", "blocked", "deposited_mm"),
        (PLATE, "s10>s3", "covered", ""),
        (PLATE, "s10>s2.9", "blocked", "deposited_mm"),
        (PLATE, "s10>s20", "covered", ""),
        (PLATE, "s10>s20.1", "blocked", "deposited_mm"),
        (PLATE.replace("s10", "s11.9"), "s11.9>s23.8", "covered", ""),
        (PLATE.replace("s10", "s11.9"), "s11.9>s24", "blocked", "deposited_mm"),
        (STICK, "s12>s80", "covered", ""),
        (STICK, "s12>s2.9", "blocked", "deposited_mm"),
        (STICK + ", 3 layers", "s12>s80", "covered", ""),
        (STICK + ", 2 layers", "s12>s13", "open", "deposited_mm"),
        (GAS, "s4>s6", "covered", ""),
        (GAS, "s4>s6.1", "blocked", "deposited_mm"),
        (GAS.replace("s4", "s2"), "s2>s3", "covered", ""),
        (GAS.replace("s4", "s2"), "s2>s3.1", "blocked", "deposited_mm"),
        (GAS.replace("s4", "s12"), "s12>s12", "open", "deposited_mm"),
    ],
    "table 7, outside diameter": [
        (SMALL, "D20>D40", "covered", ""),
        (SMALL, "D20>D40.1", "blocked", "outside_diameter_mm"),
        (SMALL, "D20>D19.9", "blocked", "outside_diameter_mm"),
        (SMALL.replace("D20", "D25"), "D25>D50", "covered", ""),
        (SMALL.replace("D20", "D25"), "D25>D50.1", "blocked", "outside_diameter_mm"),
        (SMALL.replace("D20", "D26.9"), "D26.9>D25", "covered", ""),
        (SMALL.replace("D20", "D26.9"), "D26.9>D24.9", "blocked", "outside_diameter_mm"),
        (SMALL.replace("D20", "D26.9"), "D26.9>D2000", "covered", ""),
        (STICK_PIPE, "D168.3>D84.15", "covered", ""),
        (STICK_PIPE, "D168.3>D84", "blocked", "outside_diameter_mm"),
        (PIPE, "D60.3>D40", "covered", ""),
        (PIPE, "D60.3>D30", "blocked", "outside_diameter_mm"),
    ],
    "table 8, fillet welds": [
        (FILLET.replace("t10", "t1"), "t1>t3", "covered", ""),
        (FILLET.replace("t10", "t1"), "t1>t3.1", "blocked", "fillet_material_mm"),
        (FILLET.replace("t10", "t2"), "t2>t4", "covered", ""),
        (FILLET.replace("t10", "t2"), "t2>t4.1", "blocked", "fillet_material_mm"),
        (FILLET.replace("t10", "t2"), "t2>t1.9", "blocked", "fillet_material_mm"),
        (FILLET.replace("t10", "t3"), "t3>t80", "covered", ""),
        (FILLET, "t10>t3", "covered", ""),
        (FILLET, "t10>t2.9", "blocked", "fillet_material_mm"),
    ],
    "table 1, two processes": [
        (BOTH, "141/111>141;S/B>S;s12(4/8)>s8", "covered", ""),
        (BOTH, "141/111>141;S/B>S;s12(4/8)>s8.1", "blocked", "deposited_mm"),
        (BOTH, "141/111>111;S/B>B;s12(4/8)>s16;ss nb>ss mb", "covered", ""),
        (BOTH, "141/111>111;S/B>B;s12(4/8)>s16.1;ss nb>ss mb", "blocked", "deposited_mm"),
        (BOTH, "141/111>111;S/B>B;s12(4/8)>s8", "blocked", "backing"),
        (BOTH, "s12(4/8)>s30(4/26)", "covered", ""),
        (BOTH, "141/111>141/136;S/B>S/P", "blocked", "welder_process filler_type"),
        (PIPE.replace("FM5", "FM1"), "141>141/111;S>S/B;s4>s12(4/8)", "blocked", "welder_process filler_type"),
    ],
    "table 9, butt welds": [
        *((STICK.replace("PF", at), f"{at}>{asked}", "covered" if asked in covers else "blocked",
           "" if asked in covers else "welder_position")
          for at, covers in {
              "PA": ("PA",), "PC": ("PA", "PC"), "PE": ("PA", "PC", "PE"), "PF": ("PA", "PF"), "PG": ("PG",),
          }.items() for asked in ("PA", "PC", "PE", "PF", "PG")),
        *((STICK_PIPE.replace("PH", at), f"T>P;D168.3>;{at}>{asked}", "covered" if asked in covers else "blocked",
           "" if asked in covers else "welder_position")
          for at, covers in {
              "PH": ("PA", "PE", "PF"), "PJ": ("PA", "PE", "PG"),
              "H-L045": ("PA", "PC", "PE", "PF"), "J-L045": ("PA", "PC", "PE", "PG"),
          }.items() for asked in ("PA", "PC", "PE", "PF", "PG")),
        (STICK_PIPE.replace("PH", "H-L045"), "H-L045>PH", "covered", ""),
        (STICK_PIPE, "PH>H-L045", "blocked", "welder_position"),
        (STICK_PIPE, "PH>PJ", "blocked", "welder_position"),
        (STICK_PIPE.replace("PH", "PH/PC"), "PH/PC>H-L045", "covered", ""),
        (STICK_PIPE.replace("PH", "PH/PC"), "PH/PC>J-L045", "blocked", "welder_position"),
    ],
    "table 10, fillet welds": [
        *((STICK_FILLET.replace("PB", at), f"{at}>{asked}", "covered" if asked in covers else "blocked",
           "" if asked in covers else "welder_position")
          for at, covers in {
              "PA": ("PA",), "PB": ("PA", "PB"), "PC": ("PA", "PB", "PC"), "PD": ("PA", "PB", "PC", "PD", "PE"),
              "PE": ("PA", "PB", "PC", "PD", "PE"), "PF": ("PA", "PB", "PF"), "PG": ("PG",),
          }.items() for asked in ("PA", "PB", "PC", "PD", "PE", "PF", "PG")),
        ("ISO 9606-1 111 T FW FM1 B t10 D168.3 PH ml", "T>P;D168.3>;PH>PC", "covered", ""),
        ("ISO 9606-1 111 T FW FM1 B t10 D168.3 PH ml", "T>P;D168.3>;PH>PG", "blocked", "welder_position"),
        ("ISO 9606-1 111 T FW FM1 B t10 D168.3 PJ ml", "T>P;D168.3>;PJ>PD", "covered", ""),
        ("ISO 9606-1 111 T FW FM1 B t10 D168.3 PJ ml", "T>P;D168.3>;PJ>PF", "blocked", "welder_position"),
        ("ISO 9606-1 111 T FW FM1 B t10 D168.3 H-L045 ml", "H-L045>PH", "open", "welder_position"),
    ],
    "tables 11 and 12, weld details": [
        *((PIPE.replace("ss nb", at), f"{at}>{asked}", "covered" if asked in covers else "blocked",
           "" if asked in covers else "backing")
          for at, covers in {
              "ss nb": ("ss nb", "ss mb", "bs", "ss gb", "ss fb"), "ss mb": ("ss mb", "bs"),
              "bs": ("bs", "ss mb"), "ss gb": ("ss gb", "ss mb", "bs"), "ss fb": ("ss fb", "ss mb", "bs"),
              "ci": ("ci", "ss mb", "bs"),
          }.items() for asked in ("ss nb", "ss mb", "bs", "ss gb", "ss fb", "ci")),
        (FILLET, "ml>sl", "covered", ""),
        (FILLET.replace("ml", "sl"), "sl>ml", "blocked", "layers"),
        (GAS, "rw>lw", "blocked", "welding_direction"),
    ],
}  # fmt: skip
ALL = [(clause, *case) for clause, cases in CASES.items() for case in cases]


def test_there_are_enough_of_them():
    assert len(ALL) >= 150 and len({case[1:3] for case in ALL}) == len(ALL)


@pytest.mark.parametrize("clause, tested, changes, verdict, variables", ALL)
def test_what_a_test_covers(clause, tested, changes, verdict, variables):
    found = answer(tested, changed(tested, changes))
    assert (found.verdict, found.covered) == (verdict, verdict == "covered"), found.findings
    assert blocking(found) == set(variables.split())
    assert all(one.citations and one.message for one in found.findings)


@pytest.mark.parametrize(
    "tests, asked, verdict",
    [
        # 5.3 and 5.8: every position of a fixed pipe held by plates, from 500 mm
        (
            "111 P BW FM1 B s12 PF ss nb + 111 P BW FM1 B s12 PE ss nb",
            "111 T BW FM1 B s12 D610 PH ss nb",
            "covered",
        ),
        (
            "111 P BW FM1 B s12 PF ss nb + 111 P BW FM1 B s12 PE ss nb",
            "111 T BW FM1 B s12 D406.4 PH ss nb",
            "blocked",
        ),
        (
            "111 P BW FM1 B s12 PF ss nb + 111 P BW FM1 B s12 PC ss nb",
            "111 T BW FM1 B s12 D610 PH ss nb",
            "blocked",
        ),
        # 5.8: PH and PC on pipes of one diameter
        (
            "111 T BW FM1 B s8 D168.3 PH ss nb + 111 T BW FM1 B s8 D168.3 PC ss nb",
            "111 T BW FM1 B s8 D168.3 H-L045 ss nb",
            "covered",
        ),
        (
            "111 T BW FM1 B s8 D168.3 PH ss nb + 111 T BW FM1 B s8 D114.3 PC ss nb",
            "111 T BW FM1 B s8 D168.3 H-L045 ss nb",
            "blocked",
        ),
        (
            "111 T BW FM1 B s8 D168.3 PH ss nb + 111 T BW FM1 B s8 D168.3 PC ss nb",
            "111 T BW FM1 B s8 D168.3 J-L045 ss nb",
            "blocked",
        ),
        # table 1: one test for each process
        (
            "141 T BW FM1 S s4 D168.3 PH ss nb + 111 T BW FM1 B s8 D168.3 PH ss mb",
            "141/111 T BW FM1 S/B s12(4/8) D168.3 PH ss nb",
            "covered",
        ),
        (
            "141 T BW FM1 S s4 D168.3 PH ss nb + 111 T BW FM1 B s8 D168.3 PH ss mb",
            "141/111 T BW FM1 S/B s13(9/4) D168.3 PH ss nb",
            "blocked",
        ),
        # the root by 111 and the fill by 141 is another joint
        (
            "141 T BW FM1 S s4 D168.3 PH ss nb + 111 T BW FM1 B s8 D168.3 PH ss mb",
            "111/141 T BW FM1 B/S s12(4/8) D168.3 PH ss nb",
            "blocked",
        ),
    ],
)
def test_tests_stand_together_only_where_the_standard_says_so(tests, asked, verdict):
    found = answer(" + ".join(f"ISO 9606-1 {one}" for one in tests.split(" + ")), f"ISO 9606-1 {asked}")
    assert found.verdict == verdict, found.findings
    assert bool(found.combination) == (verdict == "covered")
    assert len(found.by) == (2 if verdict == "covered" else 0)


def test_nobody_without_a_test_is_covered():
    found = welder_covers([], read_designation(PLATE))
    assert (found.covered, found.verdict) == (False, "blocked")
