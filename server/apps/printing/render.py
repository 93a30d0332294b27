"""HTML to PDF, with fonts that ship with the application and nothing fetched from outside."""

from __future__ import annotations

from functools import lru_cache
from typing import Any, Literal

import segno
from django.conf import settings
from django.template.loader import render_to_string
from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher

Paper = Literal["a4", "letter"]
PAPER = {"a4": "A4 landscape", "letter": "letter landscape"}


@lru_cache(maxsize=1)
def _fonts_folder() -> str:
    built = settings.WEB_DIST / "fonts"
    source = settings.ROOT / "web" / "public" / "fonts"
    return (built if built.is_dir() else source).as_uri()


def pdf(template: str, context: dict[str, Any], paper: Paper) -> bytes:
    """Render a template to PDF."""
    html = render_to_string(template, {**context, "fonts": _fonts_folder(), "paper": PAPER[paper]})
    fetcher = URLFetcher(allowed_protocols=["file", "data"])
    # WeasyPrint registers fonts with the operating system's font library: one configuration a sheet.
    data: bytes = HTML(string=html, url_fetcher=fetcher).write_pdf(font_config=FontConfiguration())
    return data


def qr_svg(address: str) -> str:
    """A QR code as inline SVG."""
    return str(segno.make(address, error="m").svg_inline(scale=1, border=2, omitsize=True))
