"""HTML to PDF. Knows no Django: it runs in a process of its own, too."""

from __future__ import annotations

import os

# The same document printed twice gives the same bytes: fonts cut down for a sheet carry no time of day.
os.environ.setdefault("SOURCE_DATE_EPOCH", "1767225600")

from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher


def set_sheet(html: str) -> bytes:
    """Set a sheet; nothing is fetched but from files and the text itself."""
    fetcher = URLFetcher(allowed_protocols=["file", "data"])
    # WeasyPrint registers fonts with the operating system's font library: one configuration a sheet.
    data: bytes = HTML(string=html, url_fetcher=fetcher).write_pdf(font_config=FontConfiguration())
    return data
