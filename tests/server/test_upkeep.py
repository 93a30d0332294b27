"""What a restored database is held against, and migrations that render fewer models."""

import json
from dataclasses import asdict

import pytest
from apps.accounts.models import User
from apps.jobs.models import Job
from apps.upkeep.contents import files, missing, tables
from apps.upkeep.contents import migrations as applied
from apps.upkeep.management.commands.dump import FORMAT
from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from django.core.management import CommandError, call_command
from django.db import connection, migrations, models
from django.db.migrations.state import ModelState, ProjectState

pytestmark = pytest.mark.django_db


@pytest.fixture
def manifest(tmp_path):
    Job.objects.create(number="K-1", title="Weir")
    name = default_storage.save("photos/2026/11/one.png", ContentFile(b"abc"))

    def write(**other):
        told = {
            "format": FORMAT,
            "at": "2026-11-28T10:00:00+00:00",
            "migrations": applied(),
            "tables": {name: asdict(one) for name, one in tables().items()},
            **other,
        }
        (tmp_path / "manifest.json").write_text(json.dumps(told))
        (tmp_path / "files.jsonl").write_text("")
        return tmp_path

    yield write
    default_storage.delete(name)


def faults_of(folder):
    with pytest.raises(CommandError) as found:
        call_command("compare", folder)
    return str(found.value)


def test_a_database_as_it_was_is_told_so(manifest, capsys):
    call_command("compare", manifest())
    assert "are as they were" in capsys.readouterr().out


@pytest.mark.parametrize(
    "spoil, fault",
    [
        (lambda: Job.objects.all().delete(), "jobs_job has 0 rows; the backup was made of 1"),
        (lambda: Job.objects.update(title="weir"), "jobs_job has other contents"),
        (lambda: Job.objects.create(number="K-2", title="x"), "jobs_job has 2 rows"),
    ],
    ids=["lost", "changed", "added"],
)
def test_a_row_that_is_not_what_it_was_is_found(manifest, spoil, fault):
    folder = manifest()
    spoil()
    assert fault in faults_of(folder)


def test_two_rows_that_changed_places_are_found(manifest):
    """A digest over all rows must not be the same where two rows exchange a value."""
    one, two = (User.objects.create(username=name, first_name=name, last_name="V") for name in ("a", "b"))
    folder = manifest()
    User.objects.filter(pk=one.pk).update(first_name="b")
    User.objects.filter(pk=two.pk).update(first_name="a")
    assert "accounts_user has other contents" in faults_of(folder)


def test_tables_and_migrations_are_compared_by_name(manifest):
    kept = {name: asdict(one) for name, one in tables().items()}
    gone = kept.pop("jobs_job")
    said = faults_of(manifest(tables={**kept, "welds_of_old": gone}, migrations=applied()[:-1]))
    assert "jobs_job is not in the backup" in said and "welds_of_old is missing" in said
    assert "migrations are not those" in said


def test_a_backup_of_another_format_is_not_read_as_ours(manifest):
    assert "of the format 'other/9'" in faults_of(manifest(format="other/9"))


def test_files_are_held_against_their_sizes(manifest):
    folder = manifest()
    lines = [{"name": "photos/2026/11/one.png", "bytes": 4}, {"name": "photos/none.png", "bytes": 1}]
    (folder / "files.jsonl").write_text("".join(json.dumps(one) + "\n" for one in lines))
    with pytest.raises(CommandError) as found:
        call_command("compare", folder, "--files")
    assert "one.png has 3 bytes, not 4" in str(found.value) and "none.png is missing" in str(found.value)
    assert "no row names it" in str(found.value)
    assert missing(["photos/none.png", "photos/2026/11/one.png"]) == ["photos/none.png"]


def test_a_table_that_is_not_there_yet_names_no_files():
    """A backup of an earlier version is compared before it is migrated."""
    with connection.cursor() as cursor:
        cursor.execute("ALTER TABLE crew_scan RENAME COLUMN file TO file_of_old")
    assert list(files()) == []


def rendered(operations, *, first):
    """Constraints, indexes and triggers of a rendered model, and whether it is still the same class."""
    state = ProjectState()
    state.add_model(ModelState("jobs", "Probe", [("id", models.AutoField(primary_key=True)),
                                                 ("at", models.IntegerField())]))  # fmt: skip
    before = state.apps.get_model("jobs", "Probe") if first else None
    for operation in operations:
        operation.state_forwards("jobs", state)
    model = state.apps.get_model("jobs", "Probe")
    meta = model._meta
    return (
        ([one.name for one in meta.constraints], [one.name for one in meta.indexes]),
        model is before,
    )


def test_an_option_that_is_set_in_place_is_what_a_new_rendering_has():
    check = models.CheckConstraint(condition=models.Q(at__gt=0), name="at_some_time")
    other = models.CheckConstraint(condition=models.Q(at__gt=1), name="later")
    steps = [
        migrations.AddConstraint("probe", check),
        migrations.AddConstraint("probe", other),
        migrations.AddIndex("probe", models.Index(fields=["at"], name="by_time")),
        migrations.RemoveConstraint("probe", "at_some_time"),
    ]
    in_place, same = rendered(steps, first=True)
    anew, _ = rendered(steps, first=False)
    assert same, "nothing was rendered anew"
    assert in_place == anew == (["later"], ["by_time"])
