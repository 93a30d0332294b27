"""A language changes words and nothing else; a German sentence keeps the places of the English one.

The pseudo language says every text in Greek letters, so what no catalogue can reach stays Latin.
"""

import re
import string
from collections.abc import Iterator
from dataclasses import fields, is_dataclass, replace
from pathlib import Path
from typing import Any

import pytest
from babel.messages.pofile import read_po

from tests.welding.records import put
from tests.welding.test_example_drafts import NINE
from tests.welding.test_what_is_said import AWS, CODES, ISO
from tests.welding.weldments import own_procedure, plain_record
from welding import language
from welding.coverage.covers import covers
from welding.coverage.record import judge, plan_of, range_of
from welding.documents.codec import INTENT, PROCEDURE, RECORD
from welding.evaluate.procedure import evaluate
from welding.glossary.values import in_words
from welding.language import SOURCE, number, pinned_terms, speaking, tr
from welding.planning.propose import propose
from welding.quantities.writing import quantity_text, range_text
from welding.ranges import Range

ROOT = Path(__file__).parents[2]
LATIN = string.ascii_letters
GREEK = "αβψδεφγηιξκλμνοπϙρστθωςχυζ"
TO_GREEK = str.maketrans(LATIN, GREEK + GREEK.upper())
SAID = {
    *("title", "method_name", "message", "actual", "limit", "remedy", "reason", "also", "text", "words", "question", "why"),
    *("notes", "note", "hint", "ask", "missing", "criterion", "lacking", "lacks", "open", "assumptions", "use"),
    *("cautions", "caption", "comparisons", "label", "what", "explanation", "outside", "target", "heat_word", "method_words"),
    *("reasons", "conflicts", "source", "unresolved", "product", "meaning", "assumed", "hydrogen_words"),
}  # fmt: skip
"""Fields that hold sentences; all others are numbers, names and keys, and the same in every language."""


class _Pseudo(dict[str, str]):
    def get(self, key: str, default: Any = None) -> Any:
        return re.sub(
            r"\{[^{}]*\}|[^{}]+", lambda m: m[0] if m[0][0] == "{" else m[0].translate(TO_GREEK), key
        )


@pytest.fixture
def pseudo(monkeypatch):
    known = language._catalogue
    commas = language._has_decimal_comma
    monkeypatch.setattr(language, "_has_decimal_comma", lambda chosen: chosen == "xx" or commas(chosen))
    monkeypatch.setattr(language, "_catalogue", lambda chosen: _Pseudo() if chosen == "xx" else known(chosen))


def _records(code: str) -> Iterator[tuple[str, Any, Any]]:
    for name, (words, asked, changes) in CODES[code].items():
        plain = plain_record(code, words)
        for path, value in changes.items():
            if path.startswith("tests.*."):
                field = path.removeprefix("tests.*.")
                for one in plain["tests"]:
                    one.update({field: value} if field in one else {})
            else:
                put(plain, path, value)
        yield name, RECORD.take(plain), own_procedure(code, {**words, **asked})


def _everything(code: str) -> dict[tuple[str, str], Any]:
    found: dict[tuple[str, str], Any] = {}
    for name, record, procedure in _records(code):
        found[name, "plan"] = plan_of(record)
        found[name, "judged"] = judge(record)
        found[name, "range"] = range_of(record)
        found[name, "covers"] = covers([record], procedure)
        found[name, "evaluated"] = replace(evaluate(procedure), code="")  # its name in words
    return found


def _without_words(value: Any) -> Any:
    if is_dataclass(value) and not isinstance(value, type):
        return {
            one.name: _without_words(getattr(value, one.name))
            for one in fields(value)
            if one.name not in SAID
        }
    if isinstance(value, tuple | list):
        return [_without_words(one) for one in value]
    if isinstance(value, dict):
        return {key: _without_words(one) for key, one in value.items() if key not in SAID}
    return value


@pytest.mark.parametrize("code", CODES)
def test_a_language_changes_no_verdict_no_number_and_no_value(code, pseudo):
    english = _everything(code)
    with speaking("xx"):
        other = _everything(code)
    for key, answer in english.items():
        assert _without_words(other[key]) == _without_words(answer), key


def test_a_record_of_one_language_proves_what_another_asks(pseudo):
    """Ranges and required scopes are computed apart; what is compared is never a translated word."""
    for code, cases in (("aws", AWS), ("iso", ISO)):
        for name, (_, record, procedure) in zip(cases, _records(code), strict=True):
            with speaking("xx"), pinned_terms("aws"):
                there = covers([record], procedure)
            with pinned_terms("iso"):
                here = covers([record], procedure)
            assert there.verdict == here.verdict, name
            assert [one.verdict for one in there.records[0].findings] == [
                one.verdict for one in here.records[0].findings
            ], name


@pytest.mark.parametrize("name", NINE)
def test_a_language_changes_nothing_of_a_draft(name, pseudo):
    intent = NINE[name][1]
    english = propose(INTENT.take(intent))
    with speaking("xx"):
        other = propose(INTENT.take(intent))
    assert {**PROCEDURE.plain(other.procedure), "title": ""} == {
        **PROCEDURE.plain(english.procedure),
        "title": "",
    }


KNOWN = {
    "clause",
    "figures",
    "tables",
    "prequalified",
    "processes",
    "flat",
    "side",
    "bend",
    "macro",
    "impact",
}
"""Of citations, of rows of tables and of specimens: names that are the same in every language."""


def test_a_text_can_be_reached_by_a_catalogue(pseudo):
    """Messages of findings hold no Latin words but names, symbols and units."""
    left: set[str] = set()
    with speaking("xx"):
        for code in CODES:
            for answer in (
                one for (_, what), one in _everything(code).items() if what in ("covers", "evaluated")
            ):
                found = answer.records[0].findings if hasattr(answer, "records") else answer.findings
                for one in found:
                    for text in (one.title, one.message, one.remedy):
                        left |= set(re.findall(r"(?<![\w.-])[a-z]{4,}(?![\w.])", text))
    assert left <= KNOWN, sorted(left - KNOWN)


def _catalogues() -> list[Path]:
    return sorted(ROOT.glob("welding/language/locales/*.po")) + sorted(ROOT.glob("server/locales/*.po"))


def _places(template: str) -> set[str]:
    return {f"{name}:{spec}" for _, name, spec, _ in string.Formatter().parse(template) if name}


@pytest.mark.parametrize("file", _catalogues(), ids=lambda one: f"{one.parts[-3]}-{one.stem}")
def test_a_catalogue_is_whole_and_keeps_every_place(file):
    with file.open("rb") as stream:
        messages = [one for one in read_po(stream, locale=file.stem) if one.id]
    assert len(messages) > 100
    assert [one.id for one in messages if not one.string] == []
    for one in messages:
        if "{" in one.id and re.search(r"\{\w*[:!}]", one.id):
            assert _places(str(one.string)) == _places(str(one.id)), one.id


def test_what_is_stored_is_said_in_english(pseudo):
    @language.in_source_language
    def stored() -> str:
        return tr("Up to {limit} is usual.", limit="3 mm")

    with speaking("xx"):
        assert tr("Up to {limit} is usual.", limit="3 mm") == "Θπ το 3 mm ισ θσθαλ."
        assert stored() == "Up to 3 mm is usual."
        assert language.language() == "xx"
    assert language.language() == SOURCE


def test_english_is_said_where_a_catalogue_lacks_a_sentence():
    with speaking("de"):
        assert tr("A sentence that nobody wrote, {limit}.", limit=3) == "A sentence that nobody wrote, 3."
    with speaking("tlh"):
        assert tr("No answer") == "No answer"


def test_terms_are_those_of_the_code_unless_the_reader_pins_others():
    procedure = own_procedure("aws", {"t": 20})
    record = next(_records("aws"))[1]

    def weld() -> str:
        found = covers([record], procedure).records[0].findings
        return next(one.actual for one in found if one.rule == "range.weld_kinds")

    assert weld() == "CJP groove weld"
    with pinned_terms("iso"):
        assert weld() == "full penetration butt weld"


@pytest.mark.parametrize(
    "value, of, said",
    [
        ("hot", "", "Zweitlage"),
        ("square", "waveform", "Rechteck"),
        ("square", "", "I-Naht"),
        ("E7018", "", "E7018"),
    ],
)
def test_one_word_of_a_document_is_said_by_what_it_stands_for(value, of, said):
    with speaking("de"):
        assert in_words(value, of) == said


@pytest.mark.parametrize(
    ("spoken", "one", "thousands", "sentence"),
    [
        ("en", "0.86 kJ/mm", "1,234.5", "dial 4.5 to 6.0"),
        ("de", "0,86 kJ/mm", "1.234,5", "dial 4,5 to 6,0"),
        ("es", "0,86 kJ/mm", "1.234,5", "dial 4,5 to 6,0"),
    ],
)
def test_numbers_have_the_decimal_sign_of_the_language(spoken, one, thousands, sentence):
    for _ in range(2):  # what was written in one language is not kept for another
        with speaking(spoken):
            assert quantity_text(0.86, "heat_input") == one
            assert range_text(Range(24.5, 26), "voltage") == ("24,5–26,0 V" if "," in one else "24.5–26.0 V")
            assert number(1234.5, ",.1f") == thousands
            assert tr("{share}", share=0.5) == ("0,5" if "," in one else "0.5")
            assert tr("dial {low:.1f} to {high:.1f}", low=4.5, high=6.0) == sentence
            assert (
                tr("{number} of {size}", number="1.2343", size="3/8") == "1.2343 of 3/8"
            )  # names are no numbers
        assert quantity_text(0.86, "heat_input") == "0.86 kJ/mm"
