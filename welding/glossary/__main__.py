"""Write docs/glossary.md from the table."""

from pathlib import Path

from welding.glossary.terms import glossary_page

if __name__ == "__main__":
    Path("docs/glossary.md").write_text(glossary_page())
