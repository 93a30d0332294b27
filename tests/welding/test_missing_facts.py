"""A missing fact never makes a weld covered or prequalified: every fact of a document is left out in turn."""

from copy import deepcopy

import pytest

from tests.welding.test_aws_prequalified import GOUGED_U, verdict
from tests.welding.test_aws_prequalified_rows import BACKED, G, V, draft, fillet, partial
from tests.welding.weldments import own_procedure, plain_record
from welding.coverage.covers import covers
from welding.documents.codec import PROCEDURE, RECORD
from welding.errors import DocumentError

NAMES = {"format", "version", "number", "title", "revision", "code", "shelf"}
"""Not facts of the weld: which document it is, and which rules and sheets it is held against."""


def leaves(value, path=()):
    """Paths of every field; of passes the first stands for all."""
    if isinstance(value, dict):
        for key, item in value.items():
            if path or key not in NAMES:
                yield (*path, key)
                yield from leaves(item, (*path, key))
    elif isinstance(value, list):
        for index, item in enumerate(value if path[-1:] != ("passes",) else value[:1]):
            yield from leaves(item, (*path, index))


def without(plain, path):
    """The document without one field, of all passes and of both metals alike."""
    left = deepcopy(plain)
    head, rest = (
        (path[:1], path[2:]) if path[0] in ("passes", "base_metals") and len(path) > 2 else ((), path)
    )
    for one in left[head[0]] if head else [left]:
        at = one
        for key in rest[:-1]:
            at = at.get(key, {}) if isinstance(at, dict) else at[key] if key < len(at) else {}
        if isinstance(at, dict):
            at.pop(rest[-1], None)
    return left


def stays(plain, answer):
    """Facts that may be left out without the answer changing, as dotted paths."""
    found = set()
    for path in dict.fromkeys(leaves(plain)):
        try:
            kept = answer(without(plain, path))
        except (DocumentError, StopIteration):
            continue
        if kept:
            found.add(".".join("*" if isinstance(key, int) else key for key in path))
    return found


U = {**deepcopy(GOUGED_U), "preparation": {**GOUGED_U["preparation"]}}
PREQUALIFIED = {
    "SMAW, V on backing": draft("SMAW", V(6, 45, **BACKED), "1G", passes=G),
    "GMAW, V on backing": draft("GMAW", V(6, 45, **BACKED), "1G", passes=G),
    "FCAW uphill": draft("FCAW-G", V(6, 45, **BACKED), "3G", passes=G, progression="up"),
    "SMAW, U gouged": draft("SMAW", U, "1G", passes=G),
    "SMAW, PJP": draft("SMAW", partial("single-v", 60, 11, 11), "1G", t=20, passes=4),
    "FCAW, fillet": draft("FCAW-G", fillet(8), "2F"),
    "SMAW, fillet uphill": draft("SMAW", fillet(8), "3F", progression="up"),
    "SAW, fillet": draft("SAW", fillet(8), "2F"),
}
FREE_PREQUALIFIED = {
    "thermal.interpass_max_c": "table 5.8 names the least temperature only",
    "passes.*.role": "a root is the first pass, whatever it is called",
    "passes.*.mechanisation": "no clause of the prequalified rules asks it",
    "passes.*.side": "one side where none is named; gouged joints need the other",
    "passes.*.layer": "layers follow from the beads",
    "joint.sides": "gouging says that both are welded",
    "passes.*.voltage_v": "SMAW only: no limit of table 5.1",
    "passes.*.travel_mm_min": "SMAW only: no limit of table 5.1",
    "passes.*.output": "SMAW and SAW only",
    "passes.*.current_a": "a wire's feed stands for it",
    "passes.*.wire_feed_m_min": "its current stands for it",
    "passes.*.gas.flow_l_min": "told as content that is missing",
}
WIRES = {"passes.*.voltage_v", "passes.*.travel_mm_min"}


@pytest.mark.parametrize("name", PREQUALIFIED)
def test_nothing_is_prequalified_without_its_facts(name):
    """AWS D1.1:2020, clause 5 and table 5.1, from memory."""
    plain = PREQUALIFIED[name]
    assert verdict(plain).verdict == "complies", verdict(plain).message
    found = stays(plain, lambda one: verdict(one).verdict == "complies")
    assert found <= set(FREE_PREQUALIFIED), found - set(FREE_PREQUALIFIED)
    if not name.startswith("SMAW"):
        assert not found & WIRES
    assert verdict({**plain, "passes": []}).verdict != "complies"


@pytest.mark.parametrize("role", ["root", "hot", "fill", "cap", None])
def test_the_name_of_a_first_pass_frees_it_of_nothing(role):
    """Table 5.2: root passes flat with covered electrodes up to 4.8 mm [3/16 in], from memory."""
    plain = draft("SMAW", V(6, 45, **BACKED), "1G", passes=G, size=6.0)
    plain["passes"][0]["role"] = role
    broken = [one for one in [verdict(plain)] if "lectrode diameter" in one.message]
    assert broken and broken[0].verdict == "violates"
    plain["passes"][0]["filler"]["diameter_mm"] = 4.8
    assert verdict(plain).verdict == "complies", verdict(plain).message


def test_a_joint_that_cannot_be_drawn_is_not_prequalified():
    plain = deepcopy(PREQUALIFIED["SMAW, PJP"])
    plain["joint"]["preparation"]["sides"] = [{"depth_mm": 25}]
    found = verdict(plain)
    assert found.verdict == "undecided" and "cannot be drawn" in found.message


def scaled(plain, path, factor):
    """The procedure with one number, or both ends of one range, of all passes changed."""
    head, rest = (path[:1], path[2:]) if path[0] == "passes" and len(path) > 2 else ((), path)
    changed = deepcopy(plain)
    for one in changed[head[0]] if head else [changed]:
        at = one
        for key in rest[:-1]:
            at = at[key] if isinstance(at, list) else at.get(key, {})
        found = at.get(rest[-1]) if isinstance(at, dict) else None
        if isinstance(found, dict):
            at[rest[-1]] = {end: value * factor + 1 for end, value in found.items()}
        elif found is not None:
            at[rest[-1]] = found * factor + 1
    return changed


EVIDENCE = [
    ("aws", {"t": 20}, ("joint.preparation.included_angle_deg", "joint.preparation.root_gap_mm", "passes.0.filler.diameter_mm")),
    ("aws", {"t": 20, "process": "FCAW-G", "position": "3G", "progression": "up"},
     ("passes.0.wire_feed_m_min", "passes.0.current_a", "passes.0.voltage_v", "passes.0.travel_mm_min")),
    ("iso", {"t": 15, "impact": -20}, ("passes.0.current_a", "passes.0.voltage_v", "thermal.interpass_max_c")),
]  # fmt: skip


@pytest.mark.parametrize("code, words, paths", EVIDENCE, ids=[str(words) for _, words, _ in EVIDENCE])
def test_evidence_that_is_missing_covers_nothing_more(code, words, paths):
    """Each field of joint and passes is left out of the record: what it did not cover it still does not."""
    plain, sheet = plain_record(code, words), PROCEDURE.plain(own_procedure(code, words))
    asked = []
    for path in paths:
        parts = tuple(int(key) if key.isdigit() else key for key in path.split("."))
        for factor in (0.3, 2.5):
            one = PROCEDURE.take(scaled(sheet, parts, factor))
            if not covers([RECORD.take(plain)], one).covered:
                asked.append((path, factor, one))
    assert len(asked) >= 3, "changes that the record does not cover"
    for kind in ("procedure", "coupon"):
        for path in dict.fromkeys(leaves(plain[kind])):
            if path[0] not in ("joint", "passes"):
                continue
            left = deepcopy(plain)
            at = left[kind]
            for key in path[:-1]:
                at = at[key]
            if not isinstance(at, dict):
                continue
            at.pop(path[-1])
            try:
                record = RECORD.take(left)
            except DocumentError:
                continue
            wider = [(name, factor) for name, factor, one in asked if covers([record], one).covered]
            assert wider == [], (kind, path)


@pytest.mark.parametrize("code", ["aws", "iso"])
def test_a_record_without_a_joint_covers_nothing_and_says_so(code):
    plain = plain_record(code, {"t": 20})
    del plain["procedure"]["joint"]
    found = covers([RECORD.take(plain)], own_procedure(code, {"t": 20}))
    assert not found.covered and found.findings


WELDED = [
    ("aws", {"t": 20}),
    ("aws", {"t": 20, "process": "FCAW-G", "position": "3G", "progression": "up"}),
    ("aws", {"t": 12, "impact": -20, "process": "GMAW"}),
    ("aws", {"process": "SAW", "t": 30}),
    ("aws", {"t": 50, "pwht": [620, 120], "preheat": 110}),
    ("aws", {"t": 50, "pwht": [620, 120], "preheat": 110, "impact": -20, "process": "GMAW"}),
    ("aws", {"joint": "pjp-own", "t": 20, "sections": [6, 6, 6]}),
    ("aws", {"joint": "fillet", "runs": 3, "t": 12, "position": "2F"}),
    ("iso", {"t": 15, "impact": -20}),
    ("iso", {"t": 12, "level": 1}),
    ("iso", {"joint": "fillet", "t": 10, "runs": 2}),
    ("iso", {"od": 168.3, "t": 10, "position": "H-L045"}),
    ("iso", {"processes": ["141", "111"], "deposits": {"141": 4, "111": 11}, "t": 15, "runs": 2}),
    ("iso", {"t": 30, "pwht": [600, 90], "metals": ["13CrMo4-5"]}),
    ("iso", {"joint": "branch", "od": 48.3, "t": 5, "position": "PH", "runs": 2}),
    ("iso", {"process": "121", "t": 30}),
    ("iso", {"hardness": True, "t": 15, "metals": ["S460N"]}),
]
ALWAYS_FREE = {
    "base_metals.*.elongation_percent", "joint.back_gouge", "joint.backing", "joint.sides", "passes.*.bead",
    "passes.*.mechanisation", "passes.*.output", "passes.*.role", "passes.*.side", "passes.*.filler.make",
    "passes.*.wire_feed_m_min", "requirements", "requirements.hardness", "requirements.impact",
    "requirements.hardness_limit", "requirements.hardness_limit.agreed_on",
    "requirements.hardness_limit.agreed_with", "requirements.hardness_limit.max_hv10",
}  # fmt: skip
"""What is none by default (backing, gouging, one side), asks a test and is no fact, or no code limits here."""
FREE = {
    "aws": ALWAYS_FREE
    | {
        "joint.preparation.root_face_mm",  # on backing the tolerances have none
        "passes.*.flux", "passes.*.flux.designation", "passes.*.flux.make",  # the classification names it
        "passes.*.travel_mm_min", "passes.*.voltage_v",  # of SMAW
        "thermal.interpass_max_c", "thermal.pwht.hold_c", "thermal.pwht.hold_min",  # without impact
        "base_metals.*.thickness_mm",  # of fillets: any thickness
    },
    "iso": ALWAYS_FREE
    | {
        "joint.preparation", "joint.preparation.included_angle_deg", "joint.preparation.root_face_mm",
        "joint.preparation.root_gap_mm",  # no variable of ISO 15614-1
        "passes.*.filler.diameter_mm", "passes.*.gas.flow_l_min", "thermal.pwht.hold_min",
        "passes.*.current_a", "passes.*.polarity", "passes.*.travel_mm_min", "passes.*.voltage_v",
        "thermal.interpass_max_c",  # at level 1
    },
}  # fmt: skip
LEVEL_1 = {"passes.*.current_a", "passes.*.polarity", "passes.*.travel_mm_min", "passes.*.voltage_v"}


@pytest.mark.parametrize("code, words", WELDED, ids=[f"{code} {words}" for code, words in WELDED])
def test_nothing_is_covered_without_its_facts(code, words):
    """AWS D1.1:2020, tables 6.5 to 6.8; ISO 15614-1:2017, clause 8; from memory."""
    record = RECORD.take(plain_record(code, words))
    plain = PROCEDURE.plain(own_procedure(code, words))

    def covered(one):
        return covers([record], PROCEDURE.take(one)).covered

    assert covered(plain), [one.message for one in covers([record], PROCEDURE.take(plain)).findings]
    found = stays(plain, covered)
    assert found <= FREE[code], found - FREE[code]
    if words.get("impact") and "pwht" in words:
        assert not found & {"thermal.pwht.hold_c", "thermal.pwht.hold_min"}
    if code == "iso" and words.get("level") != 1:
        assert not found & LEVEL_1
    assert not covered({**plain, "passes": []}), "nothing is compared of a procedure without passes"


@pytest.mark.parametrize("t, verdict", [(25, "covered"), (36, "covered"), (50, "open"), (100, "open")])
def test_preheat_of_thicker_metal_is_held_against_the_code_s_table(t, verdict):
    """AWS D1.1:2020, table 5.8, from memory: category B asks for 65 °C over 38 mm, 110 °C over 65 mm."""
    tested = RECORD.take(plain_record("aws", {"t": 25, "preheat": 20}))
    assert covers([tested], own_procedure("aws", {"t": t, "preheat": 20})).verdict == verdict


@pytest.mark.parametrize(
    "electrode, verdict",
    [("E 42 4 B 32 H5", "covered"), ("E 42 4 B 32", "open"), ("E 42 4 B 32 H10", "blocked")],
)
def test_an_electrode_without_a_hydrogen_mark_is_undecided(electrode, verdict):
    """ISO 15614-1:2017, 8.4.5, from memory: a mark of the coupon is the most that production may bring."""
    words = {"t": 15, "process": "111"}
    tested = RECORD.take(plain_record("iso", words))
    asked = PROCEDURE.plain(own_procedure("iso", words))
    for one in asked["passes"]:
        one["filler"]["designation"] = electrode
    assert covers([tested], PROCEDURE.take(asked)).verdict == verdict
