"""Nickel, copper and aluminium fillers in the names of ISO 18274, ISO 14172, ISO 24373 and ISO 18273."""

from itertools import product

import pytest

from tests.welding.test_fillers_drafted import NOT_WELDED, SUITS, draft
from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.deposit.laid import weld_metal
from welding.evaluate.procedure import evaluate
from welding.metals.catalogue import all_metals
from welding.metals.kinds import KIND_OF_FAMILY


@pytest.mark.parametrize(
    "symbol, system, aws",
    [
        ("S Ni 6625 (NiCr22Mo9Nb)", "ISO 18274", "ERNiCrMo-3"), ("S Ni 6082", "ISO 18274", "ERNiCr-3"),
        ("E Ni 6182 (NiCr15Fe6Mn)", "ISO 14172", "ENiCrFe-3"), ("E Ni 6625", "ISO 14172", "ENiCrMo-3"),
        ("ISO 18274 - S Ni 6276", "ISO 18274", "ERNiCrMo-4"), ("S Ni 4060", "ISO 18274", "ERNiCu-7"),
        ("S Cu 6560 (CuSi3Mn1)", "ISO 24373", "ERCuSi-A"), ("S Cu 1898", "ISO 24373", "ERCu"),
        ("S Cu 6180", "ISO 24373", "ERCuAl-A2"), ("S Cu 7158", "ISO 24373", "ERCuNi"),
    ],
)  # fmt: skip
def test_a_symbol_equals_its_class(symbol, system, aws):
    """Equal alloys as the annexes of the ISO standards name them (from memory)."""
    found, class_ = decode(symbol), decode(aws)
    assert (found.valid, found.system, found.same_as) == (True, system, aws)
    assert (found.product, found.processes, found.polarities) == (
        class_.product, class_.processes, class_.polarities,
    )  # fmt: skip
    assert weld_metal(symbol) == weld_metal(aws)


@pytest.mark.parametrize(
    "symbol, said",
    [
        ("S Ni 9999", "no symbol of ISO 18274"), ("S Ni 6182", "no symbol of ISO 18274"),
        ("E Ni 6082", "no symbol of ISO 14172"), ("S Ni 6625 (NiCr20)", "is NiCr22Mo9Nb and not"),
        ("E Cu 1898", "no ISO name"), ("S Zn 1", "no designation known here"),
    ],
)  # fmt: skip
def test_another_symbol_is_refused_with_what_may_be_meant(symbol, said):
    found = decode(symbol)
    assert not found.valid and said in found.reason


def test_every_symbol_reads_back_and_its_class_is_known():
    for row in load_table("welding.consumables.designations", "iso_nonferrous").rows:
        for prefix, column in (("S", "wire"), ("E", "electrode")):
            if row.get(column):
                shown = f"{prefix} {row['symbol']} ({row['chemical']})"
                found = decode(shown)
                assert (found.designation, found.classed) == (shown, row[column])
                assert decode(row[column]).valid


ISO = {"id": "iso-15614-1:2017", "level": 2, "units": "si"}


@pytest.mark.parametrize(
    "kind, processes", [("nickel", "141 131 111"), ("copper", "141 131"), ("aluminium", "141 131")]
)
def test_a_draft_to_iso_names_fillers_in_iso_words_and_they_suit(kind, processes):
    """What has no ISO name in the tables keeps its AWS class; under either name the checks judge the same."""
    named = {symbol for row in load_table("welding.consumables.designations", "iso_nonferrous").rows
             for symbol in (row.get("wire"), row.get("electrode"))}  # fmt: skip
    metals = [one for one in all_metals() if KIND_OF_FAMILY[one.family] == kind]
    assert len(metals) > 10
    for metal, process in product(metals, processes.split()):
        if NOT_WELDED.search(metal.name):
            continue
        made = draft(metal.name, process, min(6.0, metal.yield_steps_mpa[0][0]), code=ISO)
        for one in made.passes:
            found = decode(one.filler.designation)
            assert found.system.startswith("ISO") or found.designation not in named, metal.name
        wrong = [f.message for f in evaluate(made).findings if f.rule in SUITS and f.verdict == "violates"]
        assert wrong == [], (metal.name, process)
