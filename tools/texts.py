"""Bring the catalogues of core and server up to the source: ``python -m tools.texts [--check]``.

Babel collects what ``tr`` and ``tr_noop`` mark, and the texts of tables; a catalogue keeps its translations.
"""

from __future__ import annotations

import io
import re
import sys
import tomllib
from collections.abc import Iterator
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.extract import extract_from_dir
from babel.messages.pofile import read_po, write_po

ROOT = Path(__file__).resolve().parent.parent
LANGUAGES = ("de", "es")
SHEETS_ALONE = {"es": ("apps/printing/", "advice/", "glossary/tables/values.toml")}
"""Languages of sheets only, and where their texts stand: no screen is said in them."""
PLACES = {
    ROOT / "welding": ROOT / "welding" / "language" / "locales",
    ROOT / "server": ROOT / "server" / "locales",
}
KEYWORDS = {"tr": None, "tr_noop": None, "say": None}
IN_TEMPLATES = re.compile(r'{% say "([^"]+)"')
WITHIN_A_STRING = re.compile(r"""\bf["'].*\{(?:tr|say)\(["']""")
TABLE_TEXTS = {
    "advice/tables/cautions.toml": ("text",),
    "advice/tables/checklist.toml": ("question", "why"),
    "bead/tables/arc_influences.toml": ("words",),
    "bead/tables/arc_sounds.toml": ("caption",),
    "bead/tables/cures.toml": ("words",),
    "consumables/designations/tables/a5_20.toml": ("character",),
    "consumables/tables/iso_14175.toml": ("nature",),
    "consumables/tables/transfer_by_gas.toml": ("note",),
    "editions/aws_d1_1_2020/tables/required_content.toml": ("what",),
    "editions/iso_15614_1_2017/tables/required_content.toml": ("what",),
    "faults/tables/fault_causes.toml": ("cause", "evidence", "check", "remedies", "caution"),
    "faults/tables/fault_symptoms.toml": ("title",),
    "glossary/tables/terms.toml": ("aws", "iso"),
    "glossary/tables/values.toml": ("aws", "iso"),
    "weldlist/tables/filler_packs.toml": ("pack",),
    "heat/tables/heat_tint.toml": ("colour", "view"),
    "heat/tables/treatment_limits.toml": ("why",),
    "joints/tables/positions.toml": ("words", "welds"),
    "setup/tables/common_gases.toml": ("use",),
    "setup/tables/fields_by_process.toml": ("words",),
    "setup/tables/pulse_schools.toml": ("words", "use"),
    "setup/tables/tungsten_types.toml": ("addition", "colour"),
    "trainer/tables/exercises.toml": ("title",),
    "trainer/tables/filler_and_gas.toml": ("why",),
}
"""Columns of tables that are said on screens and sheets."""


def _table_texts(folder: Path) -> Iterator[tuple[str, str]]:
    for name, columns in TABLE_TEXTS.items():
        path = folder / name
        if path.is_file():
            for row in tomllib.loads(path.read_text())["rows"]:
                for column in columns:
                    said = row.get(column) or []
                    yield from ((name, text) for text in ([said] if isinstance(said, str) else said))


def collected(folder: Path) -> Catalog:
    """Every text of a folder, in the order of its files."""
    found = Catalog(project="Grounded Bead", charset="utf-8")
    for file, _, text, comments, _ in extract_from_dir(
        folder, method_map=[("**.py", "python")], keywords=KEYWORDS
    ):
        found.add(text, locations=[(file, 0)], auto_comments=comments)
    for path in sorted(folder.rglob("templates/**/*.html")):
        for text in IN_TEMPLATES.findall(path.read_text()):
            found.add(text, locations=[(str(path.relative_to(folder)), 0)])
    for file, text in _table_texts(folder):
        found.add(text, locations=[(file, 0)])
    return found


def renewed(folder: Path, file: Path, language: str) -> bytes:
    """The catalogue of a language with the texts of today; what is no longer said is dropped."""
    template = collected(folder)
    catalogue = Catalog(locale=language, charset="utf-8")
    if file.is_file():
        with file.open("rb") as stream:
            catalogue = read_po(stream, locale=language)
    for one in list(template):
        if one.id and not any(place.startswith(SHEETS_ALONE.get(language, "")) for place, _ in one.locations):
            template.delete(one.id)
    catalogue.update(template, no_fuzzy_matching=True)
    catalogue.obsolete.clear()
    out = io.BytesIO()
    write_po(out, catalogue, omit_header=True, width=110, include_lineno=False, sort_by_file=True)
    return out.getvalue()


def out_of_reach(folder: Path) -> list[str]:
    """Places where a text stands within an f-string, which no catalogue sees."""
    return [
        f"{path.relative_to(ROOT)}:{number}"
        for path in sorted(folder.rglob("*.py"))
        for number, line in enumerate(path.read_text().splitlines(), 1)
        if WITHIN_A_STRING.search(line)
    ]


def main(check: bool) -> int:
    """Write the catalogues, or only say which are not up to date."""
    stale = []
    for folder, locales in PLACES.items():
        for language in LANGUAGES:
            file = locales / f"{language}.po"
            made = renewed(folder, file, language)
            if not file.is_file() or file.read_bytes() != made:
                stale.append(file.relative_to(ROOT))
                if not check:
                    locales.mkdir(parents=True, exist_ok=True)
                    file.write_bytes(made)
    for file in stale:
        print(f"{file} {'is not up to date: python -m tools.texts' if check else 'written'}")
    hidden = [place for folder in PLACES for place in out_of_reach(folder)]
    for place in hidden:
        print(f"{place} says a text within an f-string: give it a name before")
    return 1 if check and (stale or hidden) else 0


if __name__ == "__main__":
    sys.exit(main("--check" in sys.argv))
