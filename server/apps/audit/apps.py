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
    # Sent once for each app; the last one has all tables before it.
    from django.apps import apps

    if sender.name == list(apps.get_app_configs())[-1].name:
        from apps.audit.triggers import attach

        attach(using)
