"""A storage without local paths, as object storage is."""

from django.core.files.storage import InMemoryStorage, Storage


class NoPaths(InMemoryStorage):
    """Django's storage in memory gives paths that lead nowhere; this one says that there are none."""

    path = Storage.path
