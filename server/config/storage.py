"""Files on disk that are there once they are acknowledged."""

from __future__ import annotations

import os
from typing import Any

from django.core.files.storage import FileSystemStorage


class DurableStorage(FileSystemStorage):
    """Writes a file through to the disk, and its entry in the folder too, before saying that it is kept."""

    def _save(self, name: str, content: Any) -> str:
        saved: str = super()._save(name, content)  # type: ignore[misc]
        path = self.path(saved)
        for one in (path, os.path.dirname(path)):
            descriptor = os.open(one, os.O_RDONLY)
            try:
                os.fsync(descriptor)
            finally:
                os.close(descriptor)
        return saved
