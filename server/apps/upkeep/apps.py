"""The app's name, and the migrations that it hastens."""

from django.apps import AppConfig


class UpkeepConfig(AppConfig):
    """No models of its own."""

    name = "apps.upkeep"

    def ready(self) -> None:
        """Wherever migrations run, they run like this."""
        from apps.upkeep.migrating import set_in_place

        set_in_place()
