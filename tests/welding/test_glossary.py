"""The glossary: its page, what the screen asks of it, and words that nobody in the trade uses."""

import ast
import json
import re
from functools import cache
from pathlib import Path
from typing import get_args

import pytest

from welding.cli import main
from welding.codebook.catalogue import all_editions
from welding.errors import UnknownEntryError
from welding.finding import Verdict
from welding.glossary.rules import all_rules, rules_page
from welding.glossary.terms import glossary_page, term, terms
from welding.setup.process_names import aws_letters

ROOT = Path(__file__).parents[2]
SCREEN = [*(ROOT / "web" / "src").rglob("*.tsx"), *(ROOT / "web" / "src" / "domain").glob("*.ts")]
SCREEN = [path for path in SCREEN if ".test." not in path.name]
AVOIDED = {
    r"\blaid down\b|\blays? down\b": "deposited",
    r"\bold records?\b": "existing PQR or WPQR",
    r"\bas bought\b": "product",
    r"\bshelf\b": "library",
    r"\bat the bench\b": "at the booth",
    r"\bgreatest (hardness|load)\b": "maximum hardness, maximum load",
    r"\bland\b": "root face",
    r"\bbreach(es)?\b(?!\.)": "nonconformity",
    r"\bmakers?\b(?!-)": "manufacturer",
    r"\b[Ww]ho (welds|watches)\b": "welder, witness",
    r"\bruns a side\b": "passes per side",
}
"""Words that were ours alone, and what the trade says."""
NAMES = {"breach", "maker"}
"""Values of documents and answers, which no reader sees."""


def sentences(path):
    """What a module says: its texts but docstrings and single names."""
    tree = ast.parse(path.read_text())
    docs = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    loose = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    for node in ast.walk(tree):
        said = isinstance(node, ast.Constant) and isinstance(node.value, str)
        if said and id(node) not in docs | loose and node.value not in NAMES:
            yield node.value


def test_the_page_is_the_table():
    assert (ROOT / "docs" / "glossary.md").read_text() == glossary_page()


def test_the_page_of_findings_is_the_table():
    assert (ROOT / "docs" / "findings.md").read_text() == "\n".join(rules_page())


def test_a_rule_says_what_it_asks_and_gives_no_answer_that_is_none():
    verdicts = set(get_args(Verdict))
    for rule in all_rules().values():
        assert rule.asks.endswith(".") and rule.asks[0].isupper(), rule.id
        assert rule.answers and {verdict for verdict, _ in rule.answers} <= verdicts, rule.id


def test_the_command_finds_rules_by_a_word(capsys):
    assert main(["rules", "purge"]) == 0
    found = {one["rule"] for one in json.loads(capsys.readouterr().out)}
    assert {"purge.root", "purge.flow", "purge.oxygen"} <= found and "arc.volts" not in found


def test_every_term_has_both_usages_and_a_meaning():
    assert len(terms()) >= 70 and len({one.key for one in terms()}) == len(terms())
    for one in terms():
        assert one.aws and one.iso and one.meaning.endswith("."), one.key


@pytest.mark.parametrize(
    ("key", "aws", "iso"),
    [
        ("root-gap", "root opening", "root gap"),
        ("groove-angle", "groove angle", "included angle"),
        ("weld-groove-cjp", "CJP groove weld", "full penetration butt weld"),
        ("pass", "weld pass", "run"),
        ("incomplete-fusion", "incomplete fusion", "lack of fusion"),
        ("procedure-qualification-record", "procedure qualification record (PQR)",
         "welding procedure qualification record (WPQR)"),
    ],
)  # fmt: skip
def test_terms_from_memory_of_aws_a3_0_and_iso_tr_25901(key, aws, iso):
    assert (term(key).word("aws"), term(key).word("iso")) == (aws, iso)


def test_no_such_term():
    with pytest.raises(UnknownEntryError, match="no term"):
        term("root-hole")


def test_every_edition_says_whose_words_its_users_speak():
    assert {one.id.split("-")[0]: one.usage for one in all_editions().values()} == {
        "aws": "aws",
        "iso": "iso",
    }


def test_the_screen_asks_for_terms_that_there_are():
    asked = set()
    for path in SCREEN:
        asked |= set(re.findall(r"\b(?:term|word)\('([a-z-]+)'\)", path.read_text()))
    asked |= set(re.findall(r"'(weld-[a-z-]+)'", (ROOT / "web" / "src" / "domain" / "words.ts").read_text()))
    assert len(asked) >= 6
    assert asked <= {one.key for one in terms()}


def test_the_screen_names_processes_as_the_table_does():
    text = (ROOT / "web" / "src" / "domain" / "words.ts").read_text()
    rows = re.findall(r"\['(\d+)', '([A-Z-]+)', (?:'|t`)", text)
    assert len(rows) == 15
    assert {number: aws_letters(number) for number, _ in rows} == dict(rows)


@cache
def told():
    """Everything that somebody may read: where it stands, and the text."""
    found = [
        (path, text)
        for folder in ("welding", "server")
        for path in (ROOT / folder).rglob("*.py")
        for text in sentences(path)
        if " " in text
    ]
    for path in (ROOT / "welding").rglob("*.toml"):
        lines = path.read_text().splitlines() if path.name != "terms.toml" else []
        found += [(path, line) for line in lines if " " in line.partition("=")[2].strip()]
    for path in SCREEN:
        texts = re.findall(r">([^<>{}'=\n]+)<|'([^'\n]* [^'\n]*)'|\"([^\"\n]* [^\"\n]*)\"", path.read_text())
        said = ["".join(text) for text in texts]
        styles = r"\b(text|border|bg|stroke|outline|fill)-breach"
        found += [(path, one) for one in said if not re.search(styles, one)]
    return found


@pytest.mark.parametrize("pattern", AVOIDED)
def test_nobody_is_told_what_nobody_in_the_trade_says(pattern):
    found = [f"{path.relative_to(ROOT)}: {text}" for path, text in told() if re.search(pattern, text)]
    assert not found, f"say {AVOIDED[pattern]}:\n" + "\n".join(found)
