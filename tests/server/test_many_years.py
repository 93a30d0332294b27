"""Lists of a shop after many years: as many questions to the database for many rows as for few."""

from io import StringIO

import pytest
from api.kept import Kept
from apps.coupons import welder_log
from apps.coupons.models import Coupon, PassLog
from apps.crew.evidence import days_of
from apps.crew.queries import _uses
from apps.demo.management.commands.many_years import PASSES, TO_A_JOB, TO_THE_LARGEST
from apps.demo.management.commands.prepare import load_demo
from apps.jobs.models import Job
from apps.procedures.models import Procedure, Revision
from apps.production.models import Weld
from django.core.management import CommandError, call_command
from django.db import connection
from django.test.utils import CaptureQueriesContext

pytestmark = pytest.mark.django_db
COPIES = TO_THE_LARGEST + TO_A_JOB
LISTS = ("procedures", "coupons", "records", "register", "welds")


@pytest.fixture
def job(api):
    """The demo's."""
    return load_demo()


@pytest.fixture
def years(job):
    """The ids of the largest job and of an ordinary one."""
    said = StringIO()
    call_command("many_years", str(COPIES), stdout=said)
    largest = int(said.getvalue())
    return largest, Job.objects.exclude(pk__in=[job.pk, largest]).get().pk


def asked(api, path):
    """Rows of an answer, and how many questions the database was asked for them."""
    api("GET", path)  # what is kept in mind is kept from here on
    with CaptureQueriesContext(connection) as queries:
        status, answer = api("GET", path)
    assert status == 200, answer
    rows = answer if isinstance(answer, list) else answer.get("welds", answer.get("lines"))
    return len(rows), len(queries)


def test_a_long_list_asks_the_database_no_more_often_than_a_short_one(api, job, years):
    largest, ordinary = years
    assert Procedure.objects.filter(job=largest).count() == TO_THE_LARGEST * job.procedures.count()
    assert Procedure.objects.filter(job=ordinary).count() == TO_A_JOB * job.procedures.count()
    one = PassLog.objects.filter(coupon__job=job).count()
    assert PassLog.objects.count() == one * (1 + PASSES * COPIES)
    for name in LISTS:
        few, little = asked(api["engineer"], f"/jobs/{ordinary}/{name}")
        many, much = asked(api["engineer"], f"/jobs/{largest}/{name}")
        assert many > few or (name == "welds" and many == 50), name  # that list comes in pages
        assert much == little, name


def test_a_copy_says_what_its_pattern_says(api, job, years):
    _, ordinary = years
    listed = {
        one["number"]: (one["breaches"], one["cautions"], one["open_questions"], one["next_step"])
        for one in api["engineer"]("GET", f"/jobs/{job.pk}/procedures")[1]
    }
    copied = api["engineer"]("GET", f"/jobs/{ordinary}/procedures")[1]
    assert len(set(listed.values())) > 1
    for one in copied:
        pattern = one["number"].rpartition("-")[0]
        said = (one["breaches"], one["cautions"], one["open_questions"], one["next_step"])
        assert said == listed[pattern], one["number"]


def test_what_is_kept_in_mind_of_a_list_is_heard_anew_when_it_changes(api, job):
    path = f"/jobs/{job.pk}/coupons"
    open_one = Coupon.objects.filter(job=job, record=None, passes__struck=False).distinct().first()

    def line():
        return next(one for one in api["engineer"]("GET", path)[1] if one["id"] == open_one.pk)

    before = line()
    last = open_one.passes.filter(struck=False).order_by("number").last()
    status, _ = api["welder"](
        "POST", f"/passes/{last.pk}/strike", {"version": last.version, "reason": "never welded"}
    )
    assert status in (200, 204)
    assert line()["logged"] == before["logged"] - 1
    assert before["flagged"] < before["logged"] - 1
    open_one.passes.update(current_mean_a=900, current_min_a=None, current_max_a=None)
    assert line()["flagged"] == line()["logged"]


def test_bytes_that_changed_are_damaged_however_well_they_were_known(api, job):
    engineer = api["engineer"]
    signed = Coupon.objects.get(job=job, record__isnull=False)
    engineer("GET", f"/jobs/{job.pk}/coupons"), engineer("GET", f"/jobs/{job.pk}/procedures")
    with connection.cursor() as cursor:
        cursor.execute("SET LOCAL session_replication_role = replica")
        cursor.execute(
            "UPDATE qualification_qualificationrecord SET body = body || ' ' WHERE coupon_id = %s",
            [signed.pk],
        )
        cursor.execute(
            "UPDATE procedures_revision SET body = body || ' ' WHERE id = %s", [signed.revision_id]
        )
        cursor.execute("SET LOCAL session_replication_role = DEFAULT")
    lines = {one["id"]: one for one in engineer("GET", f"/jobs/{job.pk}/coupons")[1]}
    assert lines[signed.pk]["damaged"]
    assert not any(one["damaged"] for pk, one in lines.items() if pk != signed.pk)
    damaged = [one["id"] for one in engineer("GET", f"/jobs/{job.pk}/procedures")[1] if one["damaged"]]
    newest = Revision.objects.filter(procedure=signed.revision.procedure_id).order_by("-id").first()
    assert damaged == ([newest.pk] if newest.pk == signed.revision_id else [])


def test_nothing_is_made_beside_the_records_of_a_real_shop(settings, job):
    settings.DEMO = False
    for name in ("many_years", "many_welds", "many_crew"):
        with pytest.raises(CommandError):
            call_command(name, "1")
    assert Job.objects.get() == job


def test_days_at_work_are_the_same_however_they_are_asked_for(monkeypatch, job):
    second, third = (f"{job.number}-C{number:02d}" for number in (2, 3))
    helper = {"role": "inspector", "name": "Rell Okafor"}
    Coupon.objects.filter(number=second).update(people=[helper, {"role": "welder", "name": "Tove Lind"}])
    Coupon.objects.filter(number=third).update(people=[{"role": "welder", "name": "Somebody else"}])
    names = {"Rell Okafor", "Tove Lind"}
    found = set(days_of(names))
    assert {one.name for one in found} == names
    monkeypatch.setattr(welder_log, "FEW", 0)
    assert set(days_of(names)) == found
    monkeypatch.setattr(welder_log, "MANY", 0)
    assert set(days_of(names)) == found
    for name in names:
        assert set(days_of([name])) == {one for one in found if one.name == name}


def test_a_day_at_work_to_a_procedure_whose_bytes_changed_says_nothing_however_well_known(job):
    code, name = "aws-d1.1-welders:2020", "Rell Okafor"
    before = _uses({name}, {code})
    assert before
    coupons = Coupon.objects.filter(people__contains=[{"role": "welder", "name": name}])
    welds = Weld.objects.filter(welders__contains=[name])
    revisions = {*coupons.values_list("revision", flat=True), *welds.values_list("revision", flat=True)}
    with connection.cursor() as cursor:
        cursor.execute("SET LOCAL session_replication_role = replica")
        cursor.execute(
            "UPDATE procedures_revision SET body = body || ' ' WHERE id = ANY(%s)", [list(revisions)]
        )
        cursor.execute("SET LOCAL session_replication_role = DEFAULT")
    assert _uses({name}, {code}) == {}


def test_no_more_is_kept_in_mind_than_is_meant():
    kept = Kept(2)
    made = []

    def ask(key):
        return kept.answer(key, lambda: made.append(key) or (key,))

    assert [ask(key) for key in "aabab"] == [("a",), ("a",), ("b",), ("a",), ("b",)]
    assert made == ["a", "b"]
    assert ask("c") == ("c",) and len(kept) == 1, "full, it is emptied and not grown"
    assert ask("a") == ("a",) and made == ["a", "b", "c", "a"]
    assert kept.look("b") is None
