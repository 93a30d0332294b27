"""Somebody from outside sees the jobs that an administrator named, and nothing else of the shop.

Asked before any call is answered, by the ids in its address. What is not known to lie inside of a job is
closed: a new call stays closed to people from outside until somebody says here what it shows.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from api.errors import problem
from apps.accounts.models import User
from apps.coupons.models import Coupon, PassLog, PassPhoto
from apps.crew.models import Certificate
from apps.procedures.models import Revision
from apps.production.models import Inspection, Weld
from apps.qualification.models import QualificationRecord, Specimen
from apps.recordings.models import Recording
from django.db.models import Model
from django.http import HttpRequest, HttpResponse, JsonResponse

from welding.language import tr

JOB_OF: dict[str, tuple[type[Model] | None, str]] = {
    "job_id": (None, ""),
    "revision_id": (Revision, "procedure__job_id"),
    "other_id": (Revision, "procedure__job_id"),
    "coupon_id": (Coupon, "job_id"),
    "pass_id": (PassLog, "coupon__job_id"),
    "photo_id": (PassPhoto, "row__coupon__job_id"),
    "specimen_id": (Specimen, "coupon__job_id"),
    "recording_id": (Recording, "coupon__job_id"),
    "weld_id": (Weld, "job_id"),
    "result_id": (Inspection, "weld__job_id"),
}
"""Ids in an address, and how the job is found from each."""
RECORDS = "api/records/"
"""Under this address ``record_id`` is a qualification record; elsewhere it is one of the library."""
WITH_A_JOB = {"run_id", "search_id", "assignment_id", "key"}
"""Ids that only stand in an address beside the job, which the call compares."""
OPEN = {
    "api/session",
    "api/session/password",
    "api/session/demo",
    "api/session/all",
    "api/session/all/<int:session_id>",
    "api/session/factor",
    "api/session/factor/removal",
    "api/invitations/look",
    "api/invitations",
    "api/units",
    "api/codes",
    "api/terms",
    "api/read",
    "api/evaluate",
    "api/calculators/decode",
    "api/calculators/gas",
    "api/calculators/equivalents",
    "api/pulse-schools",
    "api/calculators/pulse",
    "api/calculators/ac",
    "api/calculators/balance",
    "api/calculators/dial",
    "api/calculators/cup",
    "api/setup-fields",
    "api/calculators/bead",
    "api/calculators/bead/cure",
    "api/calculators/bead/of-pass",
    "api/metals",
    "api/fillers",
    "api/gases",
    "api/tungstens",
    "api/tungsten-carries",
    "api/heat-chart",
    "api/book",
    "api/faults/symptoms",
}
"""Calls that show nothing of the shop, or only what codes and physics say."""
LISTED = {"api/jobs": ("GET",)}
"""Lists that show of the shop what this person may see."""
PAST_THE_JOB = {
    "api/jobs/<int:job_id>/crew",
    "api/jobs/<int:job_id>/welder-tests",
    "api/jobs/<int:job_id>/welds/welders",
    "api/jobs/<int:job_id>/welds/who-may",
    "api/coupons/<int:coupon_id>/who-may",
    "api/revisions/<int:revision_id>/who-may",
    "api/revisions/<int:revision_id>/trials",
    "api/faults/passes/<int:pass_id>",
}
"""Calls about a job that tell of the whole shop: its welders, its trials, its faults."""


OWN_CERTIFICATE = {
    "api/certificates/<int:certificate_id>/print",
    "api/certificates/<int:certificate_id>/file",
}
"""An examiner from outside has the certificates that he signed himself."""


class OnlyNamedJobs:
    """Refuse what lies outside of the jobs of a person who sees only some."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Nothing before the address is known."""
        return self._get_response(request)

    def process_view(
        self, request: HttpRequest, _view: Any, _args: Any, kwargs: dict[str, Any]
    ) -> HttpResponse | None:
        """Let the call through, or refuse it."""
        match = request.resolver_match
        if match is None or not match.route.startswith(("api/", "admin/")):
            return None
        user = request.user
        if not isinstance(user, User) or user.only_jobs is None:
            return None
        return _refusal(user, user.only_jobs, request.method or "", match.route, kwargs)


def _refusal(
    user: User, jobs: list[int], method: str, route: str, ids: dict[str, Any]
) -> JsonResponse | None:
    if route in OPEN or method in LISTED.get(route, ()):
        return None
    wanted = {name: value for name, value in ids.items() if name not in WITH_A_JOB}
    if route in PAST_THE_JOB or not wanted:
        return _closed()
    if route in OWN_CERTIFICATE:
        own = Certificate.objects.filter(pk=ids["certificate_id"], by=user).exists()
        return None if own else _nothing()
    for name, value in wanted.items():
        known = JOB_OF.get(name)
        if name == "record_id" and route.startswith(RECORDS):
            known = (QualificationRecord, "coupon__job_id")
        if known is None:
            return _closed()
        model, way = known
        job = value if model is None else _job(model, way, value)
        if job not in jobs:
            return _nothing()
    return None


def _job(model: type[Model], way: str, ident: int) -> int | None:
    found: int | None = model._default_manager.filter(pk=ident).values_list(way, flat=True).first()
    return found


def _nothing() -> JsonResponse:
    return problem(404, "not-found", tr("Not found"), tr("There is nothing at this address (any more)."))


def _closed() -> JsonResponse:
    detail = tr("You see only the jobs that you were invited to, and nothing else of the shop.")
    return problem(403, "not-allowed", tr("Not allowed"), detail)
