"""Bodies that are files."""

from django.http import HttpRequest

PIECE_BYTES = 1 << 20


def file_of(request: HttpRequest, most_bytes: int) -> bytes:
    """The body, read no further than just beyond what is taken: whoever keeps it refuses more than that."""
    data = b""
    while len(data) <= most_bytes and (part := request.read(PIECE_BYTES)):
        data += part
    return data
