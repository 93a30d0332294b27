"""ISO 9606-2 (aluminium) and ISO 14732 (operators): what a test covers. From memory, medium confidence."""

import pytest

from tests.welding.welder_cases import answer, blocking, changed

MIG = "ISO 9606-2 131 P BW 22 S t10 PA ss mb"
TIG = "ISO 9606-2 141 P BW 22 S t4 PA ss nb"
TUBE = "ISO 9606-2 141 T BW 22 S t4 D60 PF ss nb"
ROBOT = "ISO 14732 automatic 135 unit=cell-7 arc-sensor joint-sensor multi-run functional-test"
CARRIAGE = (
    "ISO 14732 mechanized 135 PA direct-view arc-length-control tracking multi-run backing functional-test"
)

CASES = {
    "ISO 9606-2, 5.2": [
        (TIG, "141>131", "blocked", "welder_process"),
        (MIG, "131>141", "blocked", "welder_process"),
        (TIG, "141>15", "blocked", "welder_process"),
        (TIG, "=", "covered", ""),
    ],
    "ISO 9606-2, 5.3 and 5.4": [
        (MIG, "P>T;t10>t10 D150", "covered", ""),
        (MIG, "P>T;t10>t10 D149", "blocked", "outside_diameter_mm"),
        (MIG.replace("PA", "PF"), "P>T;t10>t10 D499", "blocked", "outside_diameter_mm"),
        (MIG.replace("PA", "PF"), "P>T;t10>t10 D500", "covered", ""),
        (TUBE, "T>P;D60>", "covered", ""),
        (TUBE.replace("D60", "D25"), "T>P;D25>", "blocked", "product"),
        (TUBE, "+ branch 60", "covered", ""),
        (TUBE, "+ branch 45", "blocked", "branch_deg"),
        (MIG, "+ branch 90", "blocked", "branch_deg"),
        ("ISO 9606-2 131 P FW 22 S t10 PB ml", "FW>BW;PB>PA;ml>ss mb", "blocked", "weld_type"),
        (MIG, "BW>FW;ss mb>sl", "open", "weld_type"),
    ],
    "ISO 9606-2, 5.5": [
        *((MIG.replace(" 22 ", f" {one} "), f"{one}>{asked}", "covered" if asked in covers.split() else "blocked",
           "" if asked in covers.split() else "metal_group")
          for one, covers in {"21": "21 22", "22": "21 22", "23": "21 22 23", "24": "24 25", "25": "24 25",
                              "26": "24 25 26"}.items() for asked in ("21", "23", "24", "26")),
    ],
    "ISO 9606-2, 5.6 and 5.7": [
        (TIG, "S>nm", "covered", ""),
        (TIG.replace(" S ", " nm "), "nm>S", "blocked", "filler_type"),
        (TIG, "t4>t2", "covered", ""),
        (TIG, "t4>t1.9", "blocked", "material_mm"),
        (TIG, "t4>t8", "covered", ""),
        (TIG, "t4>t8.1", "blocked", "material_mm"),
        (TIG.replace("t4", "t6"), "t6>t12", "covered", ""),
        (TIG.replace("t4", "t6"), "t6>t12.1", "blocked", "material_mm"),
        (MIG, "t10>t6", "covered", ""),
        (MIG, "t10>t5.9", "blocked", "material_mm"),
        (MIG, "t10>t80", "covered", ""),
        ("ISO 9606-2 131 P FW 22 S t2 PB ml", "t2>t3", "covered", ""),
        ("ISO 9606-2 131 P FW 22 S t2 PB ml", "t2>t3.1", "blocked", "fillet_material_mm"),
        ("ISO 9606-2 131 P FW 22 S t3 PB ml", "t3>t50", "covered", ""),
        ("ISO 9606-2 131 P FW 22 S t3 PB ml", "t3>t2.9", "blocked", "fillet_material_mm"),
        (TUBE.replace("D60", "D20"), "D20>D40", "covered", ""),
        (TUBE.replace("D60", "D20"), "D20>D40.1", "blocked", "outside_diameter_mm"),
        (TUBE, "D60>D30", "covered", ""),
        (TUBE, "D60>D29", "blocked", "outside_diameter_mm"),
        (TUBE.replace("D60", "D30"), "D30>D25", "covered", ""),
        (TUBE.replace("D60", "D30"), "D30>D24", "blocked", "outside_diameter_mm"),
    ],
    "ISO 9606-2, 5.8 and 5.9": [
        (MIG, "PA>PC", "open", "welder_position"),
        (MIG.replace("PA", "PF"), "PF>PG", "blocked", "welder_position"),
        (MIG.replace("PA", "PG"), "PG>PF", "blocked", "welder_position"),
        (TIG, "ss nb>ss mb", "covered", ""),
        (TIG, "ss nb>bs", "covered", ""),
        (MIG, "ss mb>bs", "covered", ""),
        (MIG.replace("ss mb", "bs"), "bs>ss mb", "covered", ""),
        (MIG, "ss mb>ss nb", "blocked", "backing"),
        (MIG.replace("ss mb", "ss gb"), "ss gb>ss mb", "open", "backing"),
        ("ISO 9606-2 131 P FW 22 S t10 PB sl", "sl>ml", "blocked", "layers"),
        ("ISO 9606-2 131 P FW 22 S t10 PB ml", "ml>sl", "covered", ""),
    ],
    "ISO 14732, automatic": [
        (ROBOT, "=", "covered", ""),
        (ROBOT, "135>141", "blocked", "welder_process"),
        (ROBOT, "automatic 135>mechanized 135", "blocked", "operation_mode"),
        (ROBOT, "unit=cell-7>unit=cell-8", "blocked", "unit"),
        (ROBOT, "unit=cell-7>", "open", "unit"),
        (ROBOT, "arc-sensor>", "blocked", "arc_sensor"),
        (ROBOT.replace("arc-sensor ", ""), "joint-sensor>arc-sensor joint-sensor", "blocked", "arc_sensor"),
        (ROBOT, "joint-sensor>", "blocked", "joint_sensor"),
        (ROBOT, "multi-run>single-run", "covered", ""),
        (ROBOT.replace("multi-run", "single-run"), "single-run>multi-run", "blocked", "runs"),
        (ROBOT.replace("multi-run ", ""), "joint-sensor>joint-sensor multi-run", "open", "runs"),
        (ROBOT.replace("functional", "no-functional"), "=", "blocked", "functional_test"),
    ],
    "ISO 14732, mechanized": [
        (CARRIAGE, "=", "covered", ""),
        (CARRIAGE, "direct-view>camera-view", "blocked", "view"),
        (CARRIAGE.replace("direct", "camera"), "camera-view>direct-view", "blocked", "view"),
        (CARRIAGE, "arc-length-control>", "blocked", "arc_length_control"),
        (CARRIAGE.replace("arc-length-control ", ""), "tracking>arc-length-control tracking", "covered", ""),
        (CARRIAGE, "tracking>", "blocked", "joint_tracking"),
        (CARRIAGE.replace("tracking ", ""), "multi-run>tracking multi-run", "covered", ""),
        (CARRIAGE, "PA>PF", "blocked", "welder_position"),
        (CARRIAGE, "backing>no-backing", "blocked", "backing"),
        (CARRIAGE.replace(" backing", " no-backing"), "no-backing>backing", "covered", ""),
        (CARRIAGE, "backing>", "open", "backing"),
    ],
}  # fmt: skip
ALL = [(clause, *case) for clause, cases in CASES.items() for case in cases]


def test_there_are_enough_of_them():
    assert len(ALL) >= 40


@pytest.mark.parametrize("clause, tested, changes, verdict, variables", ALL)
def test_what_a_test_covers(clause, tested, changes, verdict, variables):
    found = answer(tested, changed(tested, changes))
    assert (found.verdict, found.covered) == (verdict, verdict == "covered"), found.findings
    assert blocking(found) >= set(variables.split()) and bool(blocking(found)) == bool(variables)
