"""The app's name, and the label that its tables and migrations carry since the first release."""

from django.apps import AppConfig


class LibraryConfig(AppConfig):
    """Own records. Tables keep their names, so that a database in use needs no renaming."""

    name = "apps.library"
    label = "shelf"
