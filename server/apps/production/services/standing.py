"""How far a weld has come, kept beside it whenever something about it changes."""

from __future__ import annotations

from apps.production.models import Weld
from welding.production.state import Found, state_of


def results_of(weld: Weld) -> list[Found]:
    """What was found on a weld, in the order of entry; struck results do not count."""
    return [
        Found(one.method, one.accepted) for one in weld.inspections.order_by("id") if not one.struck_reason
    ]


def is_repaired(weld: Weld) -> bool:
    """Whether a repair of it was welded."""
    return weld.repairs.filter(struck_reason="").exists()


def restate(weld: Weld) -> None:
    """Derive the state anew and keep it."""
    weld.state = state_of(
        results_of(weld),
        struck=bool(weld.struck_reason),
        repaired=is_repaired(weld),
        released=weld.released_at is not None,
    )
    weld.save(update_fields=["state"])
