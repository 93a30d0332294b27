"""Pieces of ./bead that need no server: settings, addresses, the log's command, names of backups, units."""

import io
import os
import shutil
import subprocess
import tarfile
from datetime import UTC, datetime

import pytest

from ops import log_archive, point_in_time, units
from ops.borg import Repository
from ops.external import External
from ops.roles import MIGRATES, SERVES
from ops.say import Stop
from ops.settings_file import load_settings
from ops.web import environment


@pytest.fixture
def home(monkeypatch, tmp_path):
    folder = tmp_path / "state"
    folder.mkdir()
    monkeypatch.setenv("BEAD_HOME", str(folder))
    for name in ("BEAD_PUBLIC_URL", "BEAD_TIME_ZONE", "BEAD_LOG_ARCHIVE", "BEAD_DATABASE_URL",
                 "BEAD_DATABASE_OWNER_URL", "BEAD_DATABASE_POOLER"):  # fmt: skip
        monkeypatch.setenv(name, "")
        monkeypatch.delenv(name)
    return folder


# --- settings.env ------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "text, value",
    [
        ("BEAD_TIME_ZONE=Europe/Berlin", "Europe/Berlin"),
        ("  export BEAD_TIME_ZONE='Europe/Berlin'  ", "Europe/Berlin"),
        ('# the shop\n\nBEAD_TIME_ZONE="Europe/Berlin"\n', "Europe/Berlin"),
        ("BEAD_TIME_ZONE=a=b#c", "a=b#c"),
        ("BEAD_TIME_ZONE=", ""),
    ],
)
def test_a_setting_is_read_from_the_file(home, text, value):
    (home / "settings.env").write_text(text)
    load_settings()
    assert os.environ["BEAD_TIME_ZONE"] == value


def test_the_environment_goes_before_the_file(home, monkeypatch):
    monkeypatch.setenv("BEAD_TIME_ZONE", "UTC")
    (home / "settings.env").write_text("BEAD_TIME_ZONE=Europe/Berlin\n")
    load_settings()
    assert os.environ["BEAD_TIME_ZONE"] == "UTC"


@pytest.mark.parametrize(
    "line", ["TIME_ZONE=UTC", "BEAD_TIME_ZONE", "PATH=/tmp", "BEAD_HOME=/tmp", "rm -rf x"]
)
def test_a_line_that_is_no_setting_is_named(home, line):
    (home / "settings.env").write_text(f"# first\n{line}\n")
    with pytest.raises(Stop, match="Line 2 of"):
        load_settings()


def test_passwords_that_others_can_read_are_cautioned_of(home, capsys):
    path = home / "settings.env"
    path.write_text("BEAD_DATABASE_URL=postgresql://a:b@h/d\n")
    path.chmod(0o644)
    load_settings()
    assert "chmod 600" in capsys.readouterr().out
    path.chmod(0o600)
    load_settings()
    assert capsys.readouterr().out == ""


# --- a database that others keep -----------------------------------------------------------------


@pytest.mark.parametrize(
    "address",
    ["mysql://a:secret@h/d", "postgresql:///d", "postgresql://a:secret@h", "postgresql://h/d", "nonsense"],
)
def test_an_address_that_is_none_is_said_without_its_password(home, monkeypatch, address):
    monkeypatch.setenv("BEAD_DATABASE_URL", address)
    with pytest.raises(Stop) as found:
        External()
    assert "BEAD_DATABASE_URL" in str(found.value) and "secret" not in str(found.value)


def test_two_addresses_of_two_databases_are_a_mistake_but_behind_a_pooler(home, monkeypatch):
    monkeypatch.setenv("BEAD_DATABASE_URL", "postgresql://serves@pooler:6432/shop")
    monkeypatch.setenv("BEAD_DATABASE_OWNER_URL", "postgresql://owns@db/shop")
    with pytest.raises(Stop, match="name different databases"):
        External()
    monkeypatch.setenv("BEAD_DATABASE_POOLER", "transaction")
    base = External()
    assert (base.name, base.serving_role) == ("shop", "serves")
    assert base.url("", SERVES).startswith("postgresql://serves@pooler")
    assert base.url("", MIGRATES).startswith("postgresql://owns@db")


def test_whoever_answers_people_is_not_told_the_owners_password(home, monkeypatch):
    monkeypatch.setenv("BEAD_DATABASE_OWNER_URL", "postgresql://owner:hush@db/shop")
    told = environment("postgresql://serves:x@db/shop", demo=False)
    assert "hush" not in str(told) and told["BEAD_DATABASE_URL"] == "postgresql://serves:x@db/shop"


# --- the log of changes --------------------------------------------------------------------------


def keep(archive, source):
    command = log_archive.archive_command(archive).replace("%p", str(source)).replace("%f", "0A")
    return subprocess.run(["sh", "-c", command], check=False, capture_output=True).returncode


def test_a_file_of_the_log_is_kept_once_and_a_second_time_is_well(tmp_path):
    """After a crash PostgreSQL hands the same file over again: refused, nothing would be kept any more."""
    archive = tmp_path / "a place's"
    log_archive.log_folder(archive).mkdir(parents=True)
    source = tmp_path / "wal"
    source.write_bytes(b"first")
    kept = log_archive.log_folder(archive) / "0A"
    assert keep(archive, source) == 0 and kept.read_bytes() == b"first"
    assert keep(archive, source) == 0
    source.write_bytes(b"other")
    assert keep(archive, source) != 0 and kept.read_bytes() == b"first", "none is written over"
    assert [path.name for path in kept.parent.iterdir()] == ["0A"]


def test_a_copy_that_cannot_be_made_is_a_failure_and_leaves_nothing_of_that_name(tmp_path):
    log_archive.log_folder(tmp_path).mkdir()
    assert keep(tmp_path, tmp_path / "missing") != 0
    assert not (log_archive.log_folder(tmp_path) / "0A").exists()


def test_the_log_is_not_kept_beside_the_data(home, monkeypatch):
    monkeypatch.setenv("BEAD_LOG_ARCHIVE", str(home / "log"))
    with pytest.raises(Stop, match="would be lost with it"):
        log_archive.place()
    monkeypatch.setenv("BEAD_LOG_ARCHIVE", "")
    assert log_archive.place() is None


def test_copies_are_found_by_their_moment_and_half_ones_are_none(tmp_path):
    for name in ("copy-20261128T100000Z", "copy-20261127T100000Z", "copy-20261129T100000Z.new", "log"):
        (tmp_path / name).mkdir()
    assert [at for at, _ in point_in_time.copies(tmp_path)] == [
        datetime(2026, 11, day, 10, tzinfo=UTC) for day in (27, 28)
    ]


@pytest.mark.parametrize(
    "label, first",
    [
        ("START WAL LOCATION: 0/2000028 (file 000000010000000000000002)\n", "000000010000000000000002"),
        ("x", None),
    ],
)
def test_the_first_file_of_the_log_that_a_copy_needs(tmp_path, label, first):
    with tarfile.open(tmp_path / "base.tar.gz", "w:gz") as whole:
        entry = tarfile.TarInfo("backup_label")
        entry.size = len(label)
        whole.addfile(entry, io.BytesIO(label.encode()))
    if first is None:
        with pytest.raises(Stop, match="no whole copy"):
            point_in_time.first_log_of(tmp_path)
    else:
        assert point_in_time.first_log_of(tmp_path) == first


# --- names of backups -------------------------------------------------------------------------------


def test_each_database_keeps_and_drops_its_own(home, tmp_path):
    folder = tmp_path / "in"
    folder.mkdir()
    (folder / "one").write_text("x")
    place = Repository(str(tmp_path / "b"))
    place.make(encrypted=False)
    names = [
        "bead-20200101T000000",
        "bead-20200101T000001",
        "bead_demo-20200101T000000",
        "bead-x-20200101T000000",
    ]
    for name in [*names, "bead-20200101T000002.checkpoint"]:
        place.add(name, folder)
    assert place.newest("bead") == "bead-20200101T000001"
    assert place.newest("bead-x") == "bead-x-20200101T000000"
    with pytest.raises(Stop, match="No backup of the database other"):
        place.newest("other")
    place.drop_old("bead")
    left = {name for name, _ in place.names()}
    assert {"bead_demo-20200101T000000", "bead-x-20200101T000000", "bead-20200101T000001"} <= left


def test_a_file_that_changed_back_and_forth_is_kept_as_it_was(home, tmp_path):
    """A file that got a second name and is older than the last backup must not be taken for a known one."""
    folder = tmp_path / "in"
    place = Repository(str(tmp_path / "b"))
    place.make(encrypted=False)
    for number, text in enumerate(("first", "other", "first")):
        shutil.rmtree(folder, ignore_errors=True)
        folder.mkdir()
        (folder / "one").write_text(text)
        place.add(f"bead-2020010{number + 1}T000000", folder)
    found = {name: next(iter(place.entries(name))).sha256 for name, _ in place.names()}
    assert len(found) == 3 and len(set(found.values())) == 2


# --- units ------------------------------------------------------------------------------------------


def test_a_log_that_is_kept_needs_a_new_copy_every_week(home):
    plain, archived = units.files(archived=False), units.files(archived=True)
    assert archived.keys() - plain.keys() == {"bead-copy-data.service", "bead-copy-data.timer"}
    assert "copy-data" in archived["bead.cron"] and "copy-data" not in plain["bead.cron"]
