"""Hardness traverses: the greatest value against the limit, and whether each zone has its indents."""

from __future__ import annotations

from welding.documents.record import HardnessRow, HardnessTest
from welding.language import tr, tr_noop
from welding.testing.limits import Limit
from welding.testing.verdict import Judged, Point


def judge_hardness(
    test: HardnessTest,
    limit: Limit,
    lacks: str,
    *,
    lines: int,
    indents: int,
    lines_text: str,
    agreed: str = "",
) -> Judged:
    """Judge the values there are; missing rows, zones and indents are told beside the verdict.

    Args:
        test: The traverse.
        limit: Greatest hardness [HV10]; ``None`` where none is known.
        lacks: What is missing then.
        lines: How many lines the thickness and the joint ask for.
        indents: How many indents each zone has at least.
        lines_text: Where those lines lie.
        agreed: Who agreed the limit and when, where it is none of the code's.
    """
    entered = [value for row in test.rows for value in row.values] + list(test.values)
    values = [value for value in entered if value is not None]
    blanks = len(values) < len(entered)
    criterion = (
        tr("no value over {value:g} HV10", value=limit.value)
        if limit.value is not None
        else tr("maximum hardness HV10")
    )
    criterion += f", {agreed}" if agreed else ""
    lacking = _lacking(test, lines, indents, lines_text) + ((tr("values left blank"),) if blanks else ())
    if not values:
        return Judged(
            points=(Point(None, criterion, "", limit.rule, limit.unchecked, tr("the values")),),
            lacking=lacking,
        )
    actual = tr("highest {max:g} HV10", max=max(values))
    if limit.value is None:
        return Judged(
            points=(Point(None, criterion, actual, limit.rule, limit.unchecked, lacks),), lacking=lacking
        )
    kept = max(values) <= limit.value + 1e-9
    return Judged(points=(Point(kept, criterion, actual, limit.rule, limit.unchecked),), lacking=lacking)


_ZONES = {
    "weld": tr_noop("the weld"),
    "haz": tr_noop("each heat-affected zone"),
    "parent": tr_noop("each parent metal"),
}


def _lacking(test: HardnessTest, lines: int, indents: int, lines_text: str) -> tuple[str, ...]:
    found: list[str] = []
    if test.values:
        found.append(tr("the zone of each value (weld, heat-affected zone, parent)"))
    named = {row.line for row in test.rows if row.line}
    if len(named) < lines:
        found.append(
            tr(
                "{lines} lines of indents ({lines_text}); {count} named",
                lines=lines,
                lines_text=lines_text,
                count=len(named),
            )
        )
    for line in sorted(named) or ([""] if test.rows else []):
        rows = [row for row in test.rows if (row.line or "") == line]
        found += _of_line(rows, line, indents)
    return tuple(dict.fromkeys(found))


def _of_line(rows: list[HardnessRow], line: str, indents: int) -> list[str]:
    counts: dict[str, int] = {}
    for row in rows:
        zone = row.zone or ""
        counts[zone] = counts.get(zone, 0) + sum(value is not None for value in row.values)
    where = tr(" on line {line}", line=line) if line else ""
    found = []
    if counts.get("", 0):
        found.append(tr("the zone of every row{where}", where=where))
    for name, both in (("weld", 1), ("haz", 2), ("parent", 2)):
        split = [counts.get(f"{name}-{side}", 0) for side in (1, 2)]
        enough = counts.get(name, 0) >= indents * both or (both == 2 and min(split) >= indents)
        if not enough:
            words = {
                "weld": tr("the weld"),
                "haz": tr("each heat-affected zone"),
                "parent": tr("each parent metal"),
            }[name]
            found.append(
                tr("at least {indents} indents in {words}{where}", indents=indents, words=words, where=where)
            )
    return found
