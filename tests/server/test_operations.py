"""What an administrator sees of the server: nothing that is missing is told as good."""

import json
from datetime import UTC, datetime, timedelta

import pytest
from apps.recordings.models import Recorder
from apps.upkeep import state
from django.db import connection
from django.utils import timezone

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 28, 12, 0, tzinfo=UTC)


@pytest.fixture
def home(settings, tmp_path):
    settings.HOME = tmp_path
    return tmp_path


def place(home, what):
    return home / f"last-{what}-{connection.settings_dict['NAME']}.json"


def note(home, what, **told):
    place(home, what).write_text(json.dumps(told))


def told(what):
    return {one.mark: one.said for one in state.facts(NOW) if one.what == what}


def test_only_an_administrator_sees_it(api):
    assert {name: one("GET", "/operations")[0] for name, one in api.items()} == {
        name: 200 if name == "administrator" else 403 for name in api
    }


def test_what_was_never_done_is_said_so(home):
    assert told("Backup") == {"breach": "None has been taken."}
    assert list(told("Audit trail")) == ["caution"]
    assert state.facts(NOW)[0].what == "Backup", "what has to be done stands first"


@pytest.mark.parametrize(
    "hours, mark", [(1, "holds"), (35, "holds"), (37, "caution"), (24 * 6, "caution"), (24 * 8, "breach")]
)
def test_a_backup_grows_old(home, hours, mark):
    at = (NOW - timedelta(hours=hours)).isoformat()
    note(home, "backup", at=at, rows=10, files=2, place="/mnt/b", lost=0)
    assert list(told("Backup")) == [mark]
    assert list(told("Proof of the backup")) == ["caution"]


def test_a_backup_that_lacks_files_and_a_proof_that_failed_are_breaches(home):
    at = NOW.isoformat()
    note(home, "backup", at=at, rows=10, files=2, place="/mnt/b", lost=3)
    note(home, "proof", at=at, backup="bead-1", held=False)
    assert "3 files" in told("Backup")["breach"]
    assert "bead-1 did not come back" in told("Proof of the backup")["breach"]
    note(home, "proof", at=at, backup="bead-1", held=True)
    assert "bead-1 brought back" in told("Proof of the backup")["holds"]


def test_a_backup_of_another_database_is_none_of_this_one(home):
    """The demo and the shop may share a state folder: the demo's backup must not stand for the shop's."""
    told_of = {"at": NOW.isoformat(), "rows": 1, "files": 0, "place": "/mnt/b", "lost": 0}
    (home / "last-backup-bead_demo.json").write_text(json.dumps(told_of))
    assert told("Backup") == {"breach": "None has been taken."}


@pytest.mark.parametrize(
    "text",
    [
        "",
        "{",
        "[]",
        '{"at": "2026-11-28T10:00:00"}',
        '{"at": "2026-11-28T10:00:00Z"}',
        '{"at": "yesterday"}',
        '{"at": 3}',
        "null",
    ],
)
def test_a_note_that_cannot_be_read_counts_as_none(home, text):
    place(home, "backup").write_text(text)
    assert told("Backup") == {"breach": "None has been taken."}


def test_room_on_the_disk(home, monkeypatch):
    for free, mark in ((50, "holds"), (9, "caution"), (1, "breach")):
        usage = type("Usage", (), {"free": free * 1e9, "total": 100e9})
        monkeypatch.setattr(state.shutil, "disk_usage", lambda _, usage=usage: usage)
        assert list(told("Disk")) == [mark]


def test_recorders_that_are_silent_are_named(home, people):
    for name, heard in (("near", NOW), ("far", NOW - timedelta(days=2)), ("new", None), ("old", NOW)):
        Recorder.objects.create(
            name=name, token_hash=name, created_by=people["engineer"], heard_at=heard, retired=name == "old"
        )
    marks = {name: list(told(f"Recorder {name}")) for name in ("near", "far", "new", "old")}
    assert marks == {"near": ["holds"], "far": ["unknown"], "new": ["unknown"], "old": []}


def test_the_answer_names_the_version(api, home):
    _, answer = api["administrator"]("GET", "/operations")
    assert answer["version"] == state.version() and answer["at"][:4] == str(timezone.now().year)
    assert any("PostgreSQL" in one["said"] for one in answer["facts"])
