"""In which language and by whose terms a request is answered."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from django.http import HttpRequest, HttpResponse
from django.utils.translation.trans_real import parse_accept_lang_header

from welding.language import SOURCE, Usage, add_catalogues, pinned_terms, speaking

LANGUAGES = ("en", "de", "es")
"""Languages with a catalogue; English is the source, and what a catalogue lacks is said in it."""
PINS: dict[str, Usage] = {"aws": "aws", "iso": "iso"}

add_catalogues(Path(__file__).resolve().parent.parent / "locales")


def language_of(request: HttpRequest) -> str:
    """What the page chose (cookie ``language``), else the first that the browser asks for, else English."""
    chosen = request.COOKIES.get("language", "")
    if chosen in LANGUAGES:
        return chosen
    asked = parse_accept_lang_header(request.headers.get("Accept-Language", "")[:200])
    short = (code.partition("-")[0] for code, _ in asked)
    return next((code for code in short if code in LANGUAGES), SOURCE)


class SaidInLanguage:
    """Answer in the reader's language and, where pinned (cookie ``words``), by the terms of AWS or of ISO."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """What is stored on the way is said in English all the same: the services see to it."""
        with speaking(language_of(request)), pinned_terms(PINS.get(request.COOKIES.get("words", ""))):
            return self._get_response(request)
