"""A storage without local paths, as object storage is."""

from django.core.files.storage import InMemoryStorage, Storage


class NoPaths(Storage):
    """Keeps files in memory and gives no path to them."""

    def __init__(self):
        self._held = InMemoryStorage()

    def _open(self, name, mode="rb"):
        return self._held.open(name, mode)

    def _save(self, name, content):
        return self._held.save(name, content)

    def exists(self, name):
        return self._held.exists(name)
