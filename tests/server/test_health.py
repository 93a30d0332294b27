"""Whether the server lives and whether it is ready, as a proxy or an alarm asks."""

import pytest
from config import health
from django.db import OperationalError
from django.test import Client


@pytest.fixture(autouse=True)
def built(tmp_path, settings):
    (tmp_path / "index.html").write_text("<!doctype html>")
    settings.WEB_DIST = tmp_path
    health._migrated.clear()


def ask(what):
    answer = Client().get(f"/health/{what}")
    return answer.status_code, answer.json()


def test_it_lives_without_a_database():
    # No test that touches the database: one query would be an error here.
    assert ask("live") == (200, {"live": True})


@pytest.mark.django_db
def test_it_is_ready_and_says_so_to_strangers_and_to_no_cache():
    answer = Client().get("/health/ready")
    assert (answer.status_code, answer.json()) == (200, {"ready": True, "failing": []})
    assert "no-cache" in answer["Cache-Control"] and Client().post("/health/ready").status_code == 405
    assert Client().get("/health/else").status_code == 404


@pytest.mark.django_db
def test_a_dead_database_is_not_ready(monkeypatch):
    def dead(*_, **__):
        raise OperationalError("connection refused")

    monkeypatch.setattr("django.db.backends.postgresql.base.DatabaseWrapper.cursor", dead)
    status, answer = ask("ready")
    assert status == 503 and "database" in answer["failing"] and "files" not in answer["failing"]
    assert "refused" not in str(answer)


@pytest.mark.django_db
def test_a_migration_that_is_not_applied_is_not_ready(monkeypatch):
    monkeypatch.setattr("django.db.migrations.executor.MigrationExecutor.migration_plan", lambda *_: ["one"])
    assert ask("ready") == (503, {"ready": False, "failing": ["migrations"]})
    monkeypatch.undo()
    assert ask("ready")[0] == 200


@pytest.mark.django_db
def test_files_that_cannot_be_written_and_a_screen_that_is_not_built_are_not_ready(settings, tmp_path):
    (tmp_path / "plain").write_text("a file")
    settings.MEDIA_ROOT = tmp_path / "plain" / "files"
    assert ask("ready") == (503, {"ready": False, "failing": ["files"]})
    settings.MEDIA_ROOT, settings.WEB_DIST = tmp_path / "files", tmp_path / "nowhere"
    assert ask("ready") == (503, {"ready": False, "failing": ["screen"]})
