"""Write docs/glossary.md and docs/findings.md from their tables."""

from pathlib import Path

from welding.glossary.rules import rules_page
from welding.glossary.terms import glossary_page

if __name__ == "__main__":
    Path("docs/glossary.md").write_text(glossary_page())
    Path("docs/findings.md").write_text("\n".join(rules_page()))
