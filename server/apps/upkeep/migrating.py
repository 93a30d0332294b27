"""Migrations that change only a model's constraints, indexes or triggers render no model anew.

Django renders every related model anew after each step of a migration. All of ours hang together by the
people who did things, and more than half of the steps change nothing that a model is built again for. On an
empty database that was most of the time of the first start.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.db.migrations import AddConstraint, AddIndex, RemoveConstraint, RemoveIndex
from django.db.migrations.state import ProjectState
from pgtrigger.migrations import AddTrigger, RemoveTrigger

OPTIONS = ("constraints", "indexes", "triggers")
OPERATIONS = (AddConstraint, RemoveConstraint, AddIndex, RemoveIndex, AddTrigger, RemoveTrigger)


def set_in_place() -> None:
    """Let these operations set the option on the rendered model, instead of rendering it anew."""
    for operation in OPERATIONS:
        if not hasattr(operation.state_forwards, "in_place"):
            setattr(operation, "state_forwards", _in_place(operation.state_forwards))  # noqa: B010 - mypy


def _in_place(plain: Callable[..., None]) -> Callable[..., None]:
    def state_forwards(self: Any, app_label: str, state: ProjectState) -> None:
        held: Any = state
        held.reload_model = lambda app, name, delay=False: _set(state, app, name)
        try:
            plain(self, app_label, state)
        finally:
            del held.reload_model

    state_forwards.in_place = True  # type: ignore[attr-defined]
    return state_forwards


def _set(state: ProjectState, app_label: str, name: str) -> None:
    if "apps" not in state.__dict__:  # nothing is rendered yet
        return
    meta = state.apps.get_model(app_label, name)._meta
    options = state.models[app_label, name.lower()].options
    for option in OPTIONS:
        if option in options:
            setattr(meta, option, list(options[option]))
    meta._expire_cache()
