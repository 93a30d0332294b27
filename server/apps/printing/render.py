"""HTML to PDF, with fonts that ship with the application and nothing fetched from outside."""

from __future__ import annotations

import os
from functools import lru_cache
from typing import Any, Literal

from api.connection import release_connection
from django.conf import settings
from django.template.loader import render_to_string
from fontTools.ttLib.woff2 import decompress

from apps.printing.apart import set_apart
from apps.printing.paper import set_sheet

Paper = Literal["a4", "letter"]
PAPER = {"a4": "A4 landscape", "letter": "letter landscape"}


@lru_cache(maxsize=1)
def _fonts_folder() -> str:
    """The screen's fonts, unpacked once: doing it for every sheet takes a fifth of its time."""
    folder = settings.STATIC_ROOT.parent / "print-fonts"
    folder.mkdir(parents=True, exist_ok=True)
    for font in (settings.ROOT / "web" / "public" / "fonts").glob("*.woff2"):
        unpacked = folder / f"{font.stem}.ttf"
        if not unpacked.exists() or unpacked.stat().st_mtime < font.stat().st_mtime:
            new = folder / f"{font.stem}.{os.getpid()}.new"
            with new.open("wb") as stream:
                decompress(str(font), stream)
            new.replace(unpacked)
    return folder.as_uri()


def pdf(template: str, context: dict[str, Any], paper: Paper) -> bytes:
    """Render a template to PDF."""
    html = render_to_string(template, {**context, "fonts": _fonts_folder(), "paper": PAPER[paper]})
    release_connection()  # the sheet is set without it
    return set_apart(html) if settings.PRINT_APART else set_sheet(html)


def warm_up() -> None:
    """Unpack the fonts and set an empty sheet, so that the first real one need not wait for it."""
    set_sheet(render_to_string("printing/warm_up.html", {"fonts": _fonts_folder(), "paper": PAPER["a4"]}))
