"""The app's name, and the log that it tells the crew of."""

from django.apps import AppConfig


class CouponsConfig(AppConfig):
    """The logs of coupons are evidence of who has welded."""

    name = "apps.coupons"

    def ready(self) -> None:
        """Tell the crew of the log."""
        from apps.coupons.welder_log import LOG
        from apps.crew.evidence import register

        register("coupons", LOG)
