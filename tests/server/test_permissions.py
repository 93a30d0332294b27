"""Who may do what, asked of the API itself, for every role."""

import uuid

import pytest
from apps.accounts.permissions import ALLOWED, Action
from apps.coupons.services.start_coupon import start_coupon

from tests.server.conftest import Api
from tests.welding import samples

ENGINEERS = {"engineer", "administrator"}
AT_THE_BOOTH = {*ENGINEERS, "inspector"}
LOGGERS = {*AT_THE_BOOTH, "welder"}
ALL = {*LOGGERS, "viewer", "examiner"}


def calls(draft, coupon):
    entry = {"number": 1, "current_a": 240, "voltage_v": 26, "length_mm": 300, "time_s": 72}
    return [
        (ALL, "GET", f"/revisions/{draft.pk}", None),
        (ALL, "GET", f"/revisions/{draft.pk}/print", None),
        (ALL, "GET", f"/jobs/{draft.procedure.job_id}/coupons", None),
        (ALL, "POST", f"/coupons/{coupon.pk}/judge", {"record": entry}),
        (ENGINEERS, "POST", "/jobs", {"number": f"J-{uuid.uuid4()}"[:40], "title": "x"}),
        (
            ENGINEERS,
            "POST",
            f"/jobs/{draft.procedure.job_id}/procedures",
            {"document": {"format": "grounded-bead/procedure", "version": 1}},
        ),
        (ENGINEERS, "PUT", f"/revisions/{draft.pk}", {"version": 1, "document": samples.procedure()}),
        (ENGINEERS, "POST", f"/revisions/{draft.pk}/next", None),
        (
            ENGINEERS,
            "POST",
            f"/jobs/{draft.procedure.job_id}/import?as_number={uuid.uuid4()}",
            samples.procedure(),
        ),
        (AT_THE_BOOTH, "POST", f"/revisions/{draft.pk}/coupons", {"welder": "R. Okafor"}),
        (LOGGERS, "PATCH", f"/coupons/{coupon.pk}", {"version": 1, "welder": "R. Okafor"}),
        (AT_THE_BOOTH, "PATCH", f"/coupons/{coupon.pk}", {"version": 1, "status": "welding"}),
        (LOGGERS, "POST", f"/coupons/{coupon.pk}/passes", {"client_id": str(uuid.uuid4()), "record": entry}),
    ]


@pytest.mark.parametrize("role", sorted(ALL))
def test_each_role_at_each_door(role, people, api, draft):
    coupon = start_coupon(people["engineer"], draft)
    for allowed, method, path, body in calls(draft, coupon):
        status, answer = api[role](method, path, body)
        if role in allowed:
            assert status != 403, (role, method, path)
        else:
            assert status == 403, (role, method, path)
            assert answer["type"] == "/problems/not-allowed"
            assert role in answer["detail"]


def test_nobody_gets_in_unsigned(draft):
    nobody = Api(None)
    for method, path in (
        ("GET", "/jobs"),
        ("GET", f"/revisions/{draft.pk}"),
        ("POST", "/evaluate"),
        ("PUT", f"/revisions/{draft.pk}"),
        ("POST", "/read"),
    ):
        status, answer = nobody(method, path, {})
        assert (status, answer["type"]) == (401, "/problems/signed-out"), path


def test_a_deactivated_person_is_out(people, api, draft):
    people["engineer"].is_active = False
    people["engineer"].save()
    assert api["engineer"]("GET", f"/revisions/{draft.pk}")[0] == 401


def test_every_role_has_a_row_in_the_table():
    assert all(Action.VIEW in actions for actions in ALLOWED.values())
    assert {role.value for role in ALLOWED} == ALL
