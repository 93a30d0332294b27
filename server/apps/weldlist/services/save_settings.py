"""Change what holds for a whole list: its code, answers for all rows, the shop and its prices."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from apps.accounts.models import User
from apps.accounts.permissions import Action, require
from apps.jobs.models import Job
from apps.weldlist.models import WeldList
from apps.weldlist.services.take_list import raise_version, require_version


@transaction.atomic
def save_settings(user: User, job: Job, version: int, **changes: Any) -> WeldList:
    """Save the settings if ``version`` is still the one that stands.

    Args:
        user: Who saves.
        job: Whose list; made where there is none.
        version: The version that was changed.
        changes: ``code``, ``answers``, ``shop``, ``prices`` as they are kept.

    Raises:
        NotAllowedError: The role does not allow it.
        StaleError: Somebody changed the list in the meantime.
    """
    require(user, Action.WRITE_PROCEDURE)
    Job.objects.select_for_update(no_key=True).get(pk=job.pk)
    listed = WeldList.objects.select_for_update().filter(job=job).first()
    if listed is None:
        return WeldList.objects.create(job=job, saved_by=user, **changes)
    require_version(listed, version)
    raise_version(listed, user, **changes)
    return listed
