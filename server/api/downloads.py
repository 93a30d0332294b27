"""Files as responses."""

import re
from typing import Any

from django.http import HttpResponse


def harmless(cell: Any) -> Any:
    """A text that a sheet would take for a formula gets an apostrophe in front, blanks before it or not."""
    if isinstance(cell, str) and cell.lstrip("\t\r\n \u00a0\ufeff")[:1] in ("=", "+", "-", "@"):
        return f"'{cell}"
    return cell


def attachment(data: bytes, content_type: str, name: str, *, inline: bool = False) -> HttpResponse:
    """A file under a name that every system takes."""
    safe = re.sub(r"[^A-Za-z0-9._-]+", "_", name)[:120]
    response = HttpResponse(data, content_type=content_type)
    response["Content-Disposition"] = f'{"inline" if inline else "attachment"}; filename="{safe}"'
    return response
