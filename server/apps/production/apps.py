"""The app's name, and the log that it tells the crew of."""

from django.apps import AppConfig


class ProductionConfig(AppConfig):
    """The production log is evidence of who has welded."""

    name = "apps.production"

    def ready(self) -> None:
        """Tell the crew of the log."""
        from apps.crew.evidence import register
        from apps.production.welder_log import LOG

        register("production", LOG)
