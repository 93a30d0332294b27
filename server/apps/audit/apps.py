"""Attach the chain to every table of events, whatever app adds one."""

from __future__ import annotations

from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class AuditConfig(AppConfig):
    """After every migration the triggers are made anew."""

    name = "apps.audit"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Listen for the end of a migration."""
        post_migrate.connect(_attach, dispatch_uid="audit-triggers")


def _attach(sender: AppConfig, using: str, **_: Any) -> None:
    # Sent once for each app that has models; the last one of these has all tables before it.
    from django.apps import apps

    with_models = [one.name for one in apps.get_app_configs() if one.models_module is not None]
    if sender.name == with_models[-1]:
        from apps.audit.triggers import attach

        attach(using)
