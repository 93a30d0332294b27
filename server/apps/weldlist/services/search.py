"""Searches for the cheapest coupons: asked for, taken up one after the other, watched and ended.

A search of a long list takes a minute of every core. A process of its own does it while the web server goes
on; one at a time, in the order in which they were asked for.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from django.conf import settings
from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.background.work import Watch, answered, carry_out, end, start_process
from apps.qualification.queries import signed_records
from apps.weldlist.models import CouponSearch, WeldList
from apps.weldlist.queries import CODE, PRICES, SHOP, document_of, standing_list
from welding.codebook.book import in_force
from welding.documents.codec import JOINT
from welding.documents.procedure import Code
from welding.documents.weld_list import WeldList as Document
from welding.errors import WeldingError
from welding.language import language, speaking, tr
from welding.weldlist.coupons import FewestCoupons, fewest_coupons
from welding.weldlist.joint_types import joint_types

LONGEST_S = 60.0
"""Time for the solver; drafting comes on top."""
MOST_TYPES = 2000
"""Joint types that one search plans for: more are for the command line."""
KEPT = 30
"""Searches of a list that are kept."""


def ask(
    user: User,
    listed: WeldList,
    *,
    keep: Sequence[str] = (),
    without: Sequence[str] = (),
    code: Code | None = None,
) -> CouponSearch:
    """Ask for the cheapest set; what was asked already is not searched for again.

    Args:
        user: Who asks.
        listed: The list.
        keep: Coupons to keep, by name.
        without: Coupons to do without.
        code: Another code to judge the same joints and records under; the list's own where it is ``None``.

    Raises:
        NotAllowedError: The role does not allow it.
    """
    require(user, Action.WRITE_PROCEDURE)
    asked = {
        "keep": list(keep),
        "without": list(without),
        "code": None if code is None else CODE.plain(code),
    }
    asked_hash = _hash_of(listed, asked)
    with transaction.atomic():
        WeldList.objects.select_for_update().get(pk=listed.pk)
        known = answered(listed.searches.all(), asked_hash)
        if known is not None:
            return known
        search = CouponSearch.objects.create(
            weld_list=listed,
            list_version=listed.version,
            asked=asked,
            asked_hash=asked_hash,
            language=language(),
            asked_by=user,
        )
        kept = listed.searches.order_by("-id").values_list("pk", flat=True)[:KEPT]
        listed.searches.exclude(pk__in=list(kept)).delete()
    if settings.WORK_APART:
        transaction.on_commit(start_searcher)
    else:
        take_up(search)
    search.refresh_from_db()
    return search


def stop(user: User, search: CouponSearch) -> CouponSearch:
    """End a search; one that has its answer keeps it.

    Raises:
        NotAllowedError: The role does not allow it.
    """
    require(user, Action.WRITE_PROCEDURE)
    return end(search)


def is_current(search: CouponSearch) -> bool:
    """Whether the list, the records and the code book are what they were when it was asked for."""
    with speaking(search.language):
        return search.asked_hash == _hash_of(search.weld_list, search.asked)


def _hash_of(listed: WeldList, asked: dict[str, Any]) -> str:
    """Over all that an answer rests on."""
    records = sorted(one.content_hash for one in signed_records(listed.job))
    rests_on = [listed.pk, listed.version, asked, in_force().digest, language(), records]
    return hashlib.sha256(json.dumps(rests_on, sort_keys=True).encode()).hexdigest()


def start_searcher() -> None:
    """Start the process that takes up what waits."""
    start_process("search_coupons")


# --- the process that searches ----------------------------------------------------------------------


def take_up(search: CouponSearch, workers: int = 1, let_go: Callable[[], None] = lambda: None) -> None:
    """Search, and keep the answer or why there is none.

    Args:
        search: The search.
        workers: Processors to use.
        let_go: Gives the connection back; called whenever the search goes on without it.
    """
    carry_out(search, lambda: {"plan": _planned(search, workers, let_go)}, let_go)


def _planned(search: CouponSearch, workers: int, let_go: Callable[[], None]) -> dict[str, Any]:
    listed = search.weld_list
    if not is_current(search):
        raise WeldingError(tr("The list changed since: find the cheapest coupons again."))
    document = _document(search)
    count = len(joint_types(document.joints, document.code))
    if count > MOST_TYPES:
        raise WeldingError(
            tr("{count} joint types: coupons for so many are planned by the command line.", count=count)
        )
    watch = Watch(search, let_go)
    let_go()
    found = fewest_coupons(document, LONGEST_S, workers, watch)
    return _plain(found, document) | {"currency": PRICES.take(listed.prices or {}).currency}


def _document(search: CouponSearch) -> Document:
    """The list as it was asked about: perhaps under another code, with coupons to keep or to do without."""
    asked = search.asked
    document = document_of(search.weld_list, standing_list(search.weld_list))
    if asked["code"] is not None:
        joints = tuple(replace(one, joint=replace(one.joint, code=None)) for one in document.joints)
        document = replace(document, code=CODE.take(asked["code"]), joints=joints)
    shop = SHOP.plain(document.shop)
    for name in ("keep", "without"):
        shop[name] = list(dict.fromkeys((*shop.get(name, ()), *asked[name])))
    return replace(document, shop=SHOP.take(shop))


def _plain(found: FewestCoupons, document: Document) -> dict[str, Any]:
    return {
        "code": CODE.plain(document.code),
        "types": len(found.types),
        "gaps": sum(one.verdict != "covered" for one in found.types),
        "coupons": [one.plain() for one in found.coupons],
        "cost": found.cost,
        "bound": found.bound,
        "optimal": found.optimal,
        "tried": found.tried,
        "uncovered": [
            {"key": one.type.key, "joint": JOINT.plain(one.type.joint), "reasons": list(one.reasons)}
            for one in found.uncovered
        ],
    }
