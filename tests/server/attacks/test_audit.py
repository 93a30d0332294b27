"""The audit trail: nothing in it changes, every row is linked to the one before, and a bent one is found."""

import io
import itertools
import json
import os
import subprocess
import sys
import uuid

import pytest
from apps.accounts.models import User
from apps.audit.models import Link
from apps.audit.triggers import linked_tables
from apps.audit.verify import sha256, verify
from apps.coupons.models import PassLog
from apps.coupons.services.add_photo import add_photo
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.jobs.models import Job
from django.apps import apps
from django.core.management import call_command
from django.core.management.base import CommandError
from django.db import DatabaseError, connection, transaction
from PIL import Image

from tests.server.attacks.test_forgery import with_triggers_off
from welding.documents.codec import PASS_RECORD

ENTRY = {"number": 1, "current_a": 240, "voltage_v": 26, "length_mm": 300, "time_s": 72}


def events():
    return [one for one in apps.get_models() if hasattr(one, "pgh_tracked_model")]


def link_all():
    """Tests run in one transaction, links are made at its end: make them now."""
    with connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        cursor.execute("SET CONSTRAINTS ALL DEFERRED")


@pytest.fixture
def trail(people, draft):
    coupon = start_coupon(people["engineer"], draft, "R. Okafor")
    row = log_pass(people["welder"], coupon, uuid.uuid4(), PASS_RECORD.take(ENTRY))
    link_all()
    return row


def faults():
    link_all()
    return verify().faults


def test_every_table_of_events_is_guarded_and_linked(db):
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT tgrelid::regclass::text, tgname FROM pg_trigger WHERE tgname IN ('audit_stays', 'audit_link')"
        )
        found = set(cursor.fetchall())
    tables = {one._meta.db_table for one in events()} | {
        "qualification_qualificationrecord", "qualification_signature", "qualification_amendment", "codebook_entry",
        "crew_certificate", "crew_statement",
    }  # fmt: skip
    assert set(linked_tables()) == tables
    assert {(name, trigger) for name in tables for trigger in ("audit_stays", "audit_link")} <= found
    assert {("audit_link", "audit_stays"), ("pghistory_context", "audit_stays")} <= found


@pytest.mark.parametrize("name", sorted(one._meta.label for one in events()))
def test_no_row_of_the_trail_is_changed_or_removed(trail, name):
    model = apps.get_model(name)
    for change in (
        lambda: model.objects.update(pgh_label="insert"),
        lambda: model.objects.all()._raw_delete("default"),
    ):
        if not model.objects.exists():
            return
        with pytest.raises(DatabaseError), transaction.atomic():
            change()


def test_links_are_neither_changed_nor_removed(trail):
    for change in (
        lambda: Link.objects.update(hash="0" * 64),
        lambda: Link.objects.all()._raw_delete("default"),
    ):
        with pytest.raises(DatabaseError), transaction.atomic():
            change()


def test_the_chain_holds(trail):
    assert faults() == []
    links = list(Link.objects.all())
    assert len(links) > 8 and links[0].previous == ""
    for before, after in itertools.pairwise(links):
        assert after.previous == before.hash
        assert after.hash == sha256(
            "|".join((after.previous, after.table_name, after.row_id, after.row_hash))
        )


EVENT = "coupons_passlogevent"
BENT = {
    "an event is changed": (EVENT, f"UPDATE {EVENT} SET current_mean_a = 400", "is not what link"),
    "an event is removed": (EVENT, f"DELETE FROM {EVENT}", "is gone"),
    "a row is changed": ("coupons_passlog", "UPDATE coupons_passlog SET current_mean_a = 400", "what the trail says last"),
    "a link is removed": ("audit_link", "DELETE FROM audit_link WHERE id = (SELECT max(id) - 2 FROM audit_link)", "does not follow"),
    "a link is rewritten": ("audit_link", "UPDATE audit_link SET row_hash = repeat('0', 64) WHERE id = (SELECT max(id) FROM audit_link)", "was rewritten"),
}  # fmt: skip


@pytest.mark.parametrize("what", BENT)
def test_whatever_is_bent_past_the_triggers_is_found(trail, what):
    table, statement, word = BENT[what]
    assert faults() == []

    def bend():
        with connection.cursor() as cursor:
            cursor.execute(statement)

    with_triggers_off(table, bend)
    assert any(word in one for one in faults()), faults()


def test_an_event_put_in_past_the_triggers_is_found(trail):
    def forge():
        event = PassLog.events.rel.related_model.objects.first()
        event.pk, event.current_mean_a = None, 400
        event.save(force_insert=True)

    with_triggers_off(EVENT, forge)
    assert any("outside the chain" in one for one in faults())


@pytest.mark.parametrize(
    "done, words", [("kept", ""), ("bent", "bytes were changed"), ("gone", "cannot be read")]
)
def test_the_files_beside_the_database_are_compared(trail, people, settings, tmp_path, done, words):
    settings.MEDIA_ROOT = tmp_path
    picture = io.BytesIO()
    Image.new("RGB", (8, 8), "red").save(picture, "PNG")
    photo = add_photo(people["welder"], trail, uuid.uuid4(), picture.getvalue())
    path = tmp_path / photo.file.name
    if done == "bent":
        path.write_bytes(path.read_bytes()[:-1] + b"x")
    elif done == "gone":
        path.unlink()
    found = faults()
    assert found == [] if done == "kept" else words in found[0] and "pass photo" in found[0]


def test_who_did_it_is_part_of_the_chain(api, draft):
    """The trail says who by the request that an event belongs to: that line is under the hash, too."""
    assert api["engineer"]("POST", f"/revisions/{draft.pk}/coupons", {"welder": "X"})[0] == 201
    assert faults() == []

    def frame():
        with connection.cursor() as cursor:
            cursor.execute(
                "UPDATE pghistory_context SET metadata = jsonb_set(metadata::jsonb, '{user}', '7')"
            )

    with pytest.raises(DatabaseError), transaction.atomic():
        frame()
    with_triggers_off("pghistory_context", frame)
    assert any("is not what link" in one for one in faults())


def test_a_chain_written_anew_from_the_start_is_found_by_its_former_end(trail):
    link_all()
    head = verify().head
    assert verify({head}).faults == []

    def anew():
        with connection.cursor() as cursor:
            cursor.execute("DELETE FROM audit_link")
            for name, key in linked_tables().items():
                cursor.execute("SELECT audit_begin(%s, %s)", [name, key])

    with_triggers_off("audit_link", anew)
    assert verify().faults == [], "it holds in itself"
    assert any("written anew" in one for one in verify({head}).faults)


def test_the_command_says_what_it_found_and_keeps_the_end_outside(trail, settings, tmp_path, capsys):
    settings.HOME = tmp_path
    link_all()
    call_command("audit_verify")
    assert "links hold" in capsys.readouterr().out
    notes = next(tmp_path.glob("audit-heads-*.jsonl"))
    assert json.loads(notes.read_text())["head"] == Link.objects.last().hash
    with_triggers_off("coupons_passlog", lambda: PassLog.objects.update(current_mean_a=1))
    with pytest.raises(CommandError, match="what the trail says last"):
        call_command("audit_verify")


@pytest.mark.django_db(transaction=True)
def test_many_at_once_make_one_chain():
    """Forty commits from four connections: one chain, no link doubled or left out."""
    code = (
        "import django, sys; django.setup()\n"
        "from apps.jobs.models import Job\n"
        "for n in range(10): Job.objects.create(number=f'{sys.argv[1]}-{n}', title='x')\n"
    )
    env = {**os.environ, "BEAD_DATABASE_URL": _this_database()}
    started = [
        subprocess.Popen([sys.executable, "-c", code, str(n)], env=env, cwd="server") for n in range(4)
    ]
    assert [one.wait(60) for one in started] == [0, 0, 0, 0]
    assert Job.objects.count() == 40
    assert verify().faults == []
    assert Link.objects.filter(table_name="jobs_jobevent").count() == 40


def _this_database():
    told = connection.settings_dict
    return f"postgresql://{told['USER']}:{told['PASSWORD']}@{told['HOST']}:{told['PORT']}/{told['NAME']}"


def test_a_person_is_never_told_by_todays_name_alone(trail, people):
    people["welder"].first_name = "Renamed"
    people["welder"].save()
    trail.refresh_from_db()
    assert trail.logged_name == "Welder Test"
    assert User.objects.get(pk=trail.logged_by_id).shown_name == "Renamed Test"
