"""Take up the searches for coupons that wait, one after the other: ``manage.py search_coupons``.

The web server starts it beside itself, with BEAD_ALONE=1. Where one is at work already, another one ends.
"""

from __future__ import annotations

from django.core.management.base import BaseCommand

from apps.background.serve import serve
from apps.weldlist.models import CouponSearch
from apps.weldlist.services.search import take_up


class Command(BaseCommand):
    """``manage.py search_coupons``."""

    help = __doc__ or ""
    # The web server made them; here they would load every page of it first.
    requires_system_checks = ()

    def handle(self, **_: object) -> None:
        """Search until nothing has waited for a while."""
        serve("search", CouponSearch, take_up)
