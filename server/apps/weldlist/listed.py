"""The job and the weld list that a request is about."""

from __future__ import annotations

from typing import Any

from api.errors import NoListError, ProblemOut
from django.shortcuts import get_object_or_404

from apps.jobs.models import Job
from apps.weldlist.models import WeldList
from apps.weldlist.queries import StandingList, standing_list, weld_list_of
from welding.language import tr

REFUSALS: dict[Any, Any] = {403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


def job_of(job_id: int) -> Job:
    """The job."""
    return get_object_or_404(Job, pk=job_id)


def listed_of(job_id: int) -> tuple[Job, WeldList, StandingList]:
    """The job with its list as it stands.

    Raises:
        NoListError: It has none yet.
    """
    job = job_of(job_id)
    listed = weld_list_of(job)
    if listed is None:
        raise NoListError(tr("This job has no weld list yet."))
    return job, listed, standing_list(listed)
