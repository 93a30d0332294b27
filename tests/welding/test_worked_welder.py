"""docs/worked-iso-9606-1.md: every line of its tables is computed and compared."""

import re
from datetime import date
from pathlib import Path

import pytest

from tests.welding.welder_cases import answer
from welding.welders.catalogue import read_designation, welder_edition
from welding.welders.covers import welder_range
from welding.welders.validity import Confirmation, ExaminedWeld, Held, Prolongation, validity

TEXT = (Path(__file__).resolve().parents[2] / "docs" / "worked-iso-9606-1.md").read_text(encoding="utf-8")
TESTED = re.search(r'core welder "([^"]+)"', TEXT)[1]
DAY = r"\d{4}-\d\d-\d\d"


def rows(heading):
    """Cells of the table below a heading, without its two head lines."""
    part = TEXT.split(heading, 1)[1].split("\n## ", 1)[0]
    lines = [line for line in part.splitlines() if line.startswith("|")][2:]
    return [[cell.strip().strip("`") for cell in line.strip("|").split("|")] for line in lines]


def test_the_range_is_the_one_by_hand():
    found = [
        (
            one.variable,
            "" if one.kind != "span" else f"{one.min:g}" if one.min is not None else "-",
            "" if one.kind != "span" else f"{one.max:g}" if one.max is not None else "-",
            ", ".join(one.values),
            one.rule.clause,
        )
        for one in welder_range(read_designation(TESTED)).items
    ]
    told = [
        (variable, least, most, values, clause)
        for variable, _, least, most, values, clause in rows("## 2. What it covers")
    ]
    assert found == told


@pytest.mark.parametrize("asked, verdict, why", rows("## 3. What is asked"))
def test_each_weld_gets_the_answer_by_hand(asked, verdict, why):
    assert answer(TESTED, asked).verdict == verdict, why


@pytest.mark.parametrize("signed, until, why", rows("## 4. Until when"))
def test_it_holds_as_long_as_by_hand(signed, until, why):
    rows_before = {row[0]: row for row in rows("## 4. Until when")}
    if signed.startswith("the same"):
        signed = next(one for one in rows_before if one.count(",") == 3 and "prolonged" not in one) + signed
    confirmed, _, prolonged = signed.partition("prolonged")
    days = [date.fromisoformat(one) for one in re.findall(DAY, prolonged)]
    held = Held(
        package=welder_edition("iso-9606-1:2017").package,
        processes=("135",),
        welded_on=date(2027, 1, 12),
        option="b",
        confirmations=tuple(Confirmation(on=date.fromisoformat(one)) for one in re.findall(DAY, confirmed)),
        prolongations=(
            Prolongation(
                on=days[0],
                welds=tuple(
                    ExaminedWeld(welded_on=day, method=method, accepted=True)
                    for day, method in zip(days[1:], ("RT", "UT"), strict=True)
                ),
            ),
        )
        if days
        else (),
    )
    assert validity(held, date(2030, 1, 1)).last_valid_day == date.fromisoformat(until), why
