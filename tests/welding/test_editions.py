"""What holds for every edition: each row is read by a rule, each item is compared, no fact is assumed."""

import re
from functools import cache
from importlib import import_module
from pathlib import Path

import pytest

import welding
from tests.welding.records import put, record, taken
from tests.welding.test_covering import procedure_of
from tests.welding.test_ranges import CODES, _change
from welding.codebook.catalogue import all_editions
from welding.codebook.table import load_table
from welding.coverage.covers import covers
from welding.coverage.record import in_force, range_of
from welding.documents.procedure import Code
from welding.qualification.compare import JOINT_VARIABLES
from welding.qualification.compare_passes import PASS_VARIABLES
from welding.qualification.needs import Needs
from welding.qualification.variables import VARIABLES

NEEDS = (Needs(), Needs(impact=True), Needs(impact=True, hardness=True))
PROCESSES = ("121", "124", "138", "131", "143", "142", "15")
TABLES = {
    "aws": ("welding.editions.aws_d1_1_2020", ("essential_variables", "impact_variables")),
    "iso": ("welding.editions.iso_15614_1_2017", ("variables",)),
}


def family(code):
    """Records of every process and kind of weld that a rule tells apart."""
    for kind, value in ((None, None), ("smaw", "E7018"), ("fcaw", None), ("gtaw", None), ("fillet", None)):
        plain = record(code)
        if kind:
            _change(plain, kind, value)
        yield plain
    for process in PROCESSES:
        plain = record(code)
        for one in (*plain["procedure"]["passes"], *plain["coupon"]["passes"]):
            one["process"] = process
        yield plain
    tandem = record(code)
    for one in (*tandem["procedure"]["passes"], *tandem["coupon"]["passes"]):
        one["process"] = "121"
    put(
        tandem, "procedure.passes.*.electrodes", {"count": 2, "each": [{"angle_deg": 0, "across_deg": 0}] * 2}
    )
    yield tandem
    treated = record(code)
    treated["coupon"]["pwht"] = {
        "kind": "stress-relief",
        "hold_c": {"min": 580, "max": 600},
        "hold_min": 60,
    }
    yield treated
    woven = record(code)
    put(woven, "coupon.passes.*.bead", "weave")
    put(woven, "procedure.passes.*.mechanisation", "fully")
    yield woven


@cache
def items_of(code):
    return [
        item
        for plain in family(code)
        for level in ((1, 2) if code == "iso" else (None,))
        for needs in NEEDS
        for _, items in range_of(taken(plain), CODES[code], level, needs).lines()
        for item in items
    ]


@pytest.mark.parametrize("code", CODES)
def test_every_item_of_a_range_is_compared(code):
    """An item that is made and never compared covers whatever it is about."""
    found = {item.variable for item in items_of(code)}
    assert found <= {*JOINT_VARIABLES, *PASS_VARIABLES}
    assert found <= set(VARIABLES)


@pytest.mark.parametrize("code", CODES)
def test_every_row_of_the_variables_is_read_by_a_rule(code):
    package, names = TABLES[code]
    read = {item.rule.id for item in items_of(code)}
    for item in items_of(code):
        read.update("/".join(key.split("/")[:2]) for key in item.unchecked)
    for name in names:
        table = load_table(package, name)
        rows = {f"{table.id}/{row[table.key]}" for row in table.rows}
        assert rows - read == set(), "rows that no rule reads"


@pytest.mark.parametrize("code", CODES)
def test_every_item_has_a_reason_and_every_set_its_values(code):
    for item in items_of(code):
        assert item.reason and item.rule.clause, item
        if item.kind in ("set", "exact"):
            assert item.values or item.numbers, item


FACTS = (
    "passes.*.current_a", "passes.*.voltage_v", "passes.*.travel_mm_min", "passes.*.polarity", "passes.*.output",
    "passes.*.transfer", "passes.*.progression", "passes.*.gas", "positions", "thermal", "base_metals.*.designation",
    "base_metals.*.thickness_mm",
)  # fmt: skip


@pytest.mark.parametrize("code, fact", [(code, fact) for code in CODES for fact in FACTS])
def test_a_missing_fact_never_makes_it_covered(code, fact):
    """Leaving a fact out of a procedure that breaks its limit must not cover it."""
    good, plain = record(code), procedure_plain(code)
    before = covers([taken(good)], read(plain))
    assert before.covered, [one.title for one in before.findings]
    remove(plain, fact)
    after = covers([taken(good)], read(plain))
    assert after.covered == ((code, fact) in FREE)


FREE = {("iso", "passes.*.output"), ("iso", "passes.*.progression")}
"""Facts that a code does not ask: constant voltage or current; PF runs up by its name."""


def procedure_plain(code):
    from welding.documents.codec import PROCEDURE

    return PROCEDURE.plain(procedure_of(record(code)))


def read(plain):
    from welding.documents.codec import PROCEDURE

    return PROCEDURE.take(plain)


def remove(plain, path):
    head, _, last = path.rpartition(".*.")
    for one in plain[head] if head else [plain]:
        one.pop(last, None)
        if last == "designation":
            one.pop("groups", None)
    return plain


# --- what an edition is made of -----------------------------------------------------------------

CORE = Path(welding.__file__).parent
RULE_FILES = [
    "basics",
    "covering",
    "groups",
    "judging",
    "layout",
    "needs",
    "range_heat",
    "range_joint",
    "range_metal",
    "range_process",
    "range_size",
    "ranges",
    "test_plan",
]


@pytest.mark.parametrize("edition", all_editions().values(), ids=all_editions())
def test_rules_of_the_same_kind_stand_in_files_of_the_same_name(edition):
    rules = Path(import_module(edition.qualification.tables).__file__).parent / "rules"
    lacking = [name for name in RULE_FILES if not (rules / f"{name}.py").exists()]
    assert not lacking


def test_no_edition_is_named_outside_its_folder():
    """A third edition touches one folder: nothing else asks which code it is."""
    ids = "|".join(re.escape(code.split(":")[0]) for code in all_editions())
    named = re.compile(
        rf"welding\.editions\.(?!toolkit)\w|code\.id == ['\x22]|\.startswith\(.(?:{ids})|[!=]= .(?:{ids})"
    )
    found = [
        f"{path.relative_to(CORE)}:{number}"
        for path in CORE.rglob("*.py")
        if "editions" not in path.parts
        for number, line in enumerate(path.read_text().splitlines(), 1)
        if named.search(line) and 'import_module(f"welding.editions.{' not in line
    ]
    assert not found


def test_a_code_without_the_printed_column_asked_for_uses_its_own():
    for edition in all_editions().values():
        for units in ("si", "us"):
            code = Code(id=edition.id, level=max(edition.levels, default=None), units=units)
            used = in_force(code).code.units
            assert used == (units if units in edition.unit_columns else edition.unit_column)
