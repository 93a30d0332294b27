"""Files as responses."""

import re

from django.http import HttpResponse


def attachment(data: bytes, content_type: str, name: str, *, inline: bool = False) -> HttpResponse:
    """A file under a name that every system takes."""
    safe = re.sub(r"[^A-Za-z0-9._-]+", "_", name)[:120]
    response = HttpResponse(data, content_type=content_type)
    response["Content-Disposition"] = f'{"inline" if inline else "attachment"}; filename="{safe}"'
    return response
