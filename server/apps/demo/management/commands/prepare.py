"""Migrate, and in the demo load the invented shop where the database has none yet. One process."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from apps.accounts.models import User
from apps.audit.grants import grant_serving
from apps.codebook.services.say import say
from apps.coupons.models import Coupon
from apps.coupons.services.edit_piece import edit_piece
from apps.coupons.services.log_pass import log_pass
from apps.coupons.services.start_coupon import start_coupon
from apps.demo import data
from apps.demo.crew import take_on_the_crew
from apps.demo.people import PASSWORD, PEOPLE, RECORDER
from apps.demo.production import weld_production
from apps.jobs.models import Job
from apps.library.services.add_record import add_record
from apps.procedures.models import Revision
from apps.procedures.services.create_procedure import create_procedure
from apps.qualification.services.make_procedure import make_procedure
from apps.qualification.services.release import qualify_revision, release_revision
from apps.qualification.services.signing import sign_record, witness_record
from apps.qualification.services.specimens import enter_test
from apps.recordings.services.receive_file import receive_file
from apps.recordings.services.recorders import add_recorder
from apps.trials.services.enter_trial import enter_trial
from apps.weldlist.queries import CODE, USUAL_CODE, standing_list
from apps.weldlist.services.assign_wps import assign_wps
from apps.weldlist.services.files import grid_of
from apps.weldlist.services.save_settings import save_settings
from apps.weldlist.services.take_list import look_at, take_list
from apps.weldlist.wps import applied_table, released_wps, suggestions
from recorder.waveforms import Setting
from recorder.welding_day import COLUMNS, Plan, Trouble, samples, text_of
from welding.documents.codec import PASS_RECORD, PROCEDURE, TEST


class Command(BaseCommand):
    """``manage.py prepare [--demo]``."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Two switches."""
        parser.add_argument("--demo", action="store_true", help="load the demo where nothing is")
        parser.add_argument("--serving", metavar="ROLE", help="the database role that serves people")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it."""
        call_command("migrate", interactive=False, verbosity=0)
        if options["serving"]:
            grant_serving(options["serving"])
        if not settings.STATIC_ROOT.is_dir() or not any(settings.STATIC_ROOT.iterdir()):
            call_command("collectstatic", interactive=False, verbosity=0, ignore_patterns=["ninja"])
        if options["demo"] and not Job.objects.filter(number=data.JOB[0]).exists():
            load_demo()
            self.stdout.write("The demo's data is loaded.")


@transaction.atomic
def load_demo() -> Job:
    """Load people, job, trials, procedures and coupons, through the services that people use."""
    users = {}
    for username, first, last, role in PEOPLE:
        user, _ = User.objects.get_or_create(
            username=username,
            defaults={
                "first_name": first,
                "last_name": last,
                "role": role,
                "is_staff": role == "administrator",
                "is_superuser": role == "administrator",
            },
        )
        user.set_own_password(PASSWORD)
        user.save()
        users[role] = user
    number, title, customer = data.JOB
    job = Job.objects.create(
        number=number, title=title, customer=customer, coordinator=users["engineer"].shown_name
    )
    for record in data.library():
        add_record(users["engineer"], record)
    for trial in data.trials():
        enter_trial(users["welder"], trial)
    for document in data.procedures():
        create_procedure(users["engineer"], job, document)
    add_recorder(users["engineer"], *RECORDER)
    for sample in data.coupons():
        revision = Revision.objects.get(procedure__job=job, procedure__number=sample["procedure"])
        coupon = start_coupon(users["engineer"], revision, sample["welder"])
        _fill(coupon, sample, users)
    _prove(job, users)
    _list_joints(job, users["engineer"])
    take_on_the_crew(users)
    weld_production(job, users)
    return job


def _list_joints(job: Job, user: User) -> None:
    """The job's weld list, taken as a file is. The shop welds with solid wire, and with electrodes."""
    grid = grid_of(data.weld_list())
    code = CODE.take(USUAL_CODE)
    mapping = look_at(job, code, grid, None).read.mapping
    listed = take_list(user, job, code, grid, mapping, 0, remove_gone=False)
    listed = save_settings(user, job, listed.version, shop={"processes": ["135", "111"]})
    standing = standing_list(listed)
    wps = released_wps(job)
    offered = suggestions(wps, applied_table(standing, wps), [])
    wanted = {standing.types[at].key: wps[one.procedure].revision.pk for at, one in offered.items()}
    assign_wps(user, job, listed.version, wanted, {})


def _prove(job: Job, users: dict[str, User]) -> None:
    """Tests, a signed record, the procedure made from it and released, and two words on the code book."""
    engineer = users["engineer"]
    for number, proof in data.tests().items():
        coupon = Coupon.objects.get(job=job, revision__procedure__number=number)
        for test in proof["tests"]:
            enter_test(users["inspector"], coupon, TEST.take(test))
        if not proof["sign"]:
            continue
        record = sign_record(engineer, coupon, "Log and tests compared.")
        witness_record(users["examiner"], record, "Welding and bends seen.")
        made = make_procedure(engineer, record).revision
        qualify_revision(engineer, made, [record])
        release_revision(engineer, made, "For the flange splices.")
    for number_id, said, value, reason in data.BOOK:
        say(engineer, number_id, said, value, reason)


def _record(coupon: Coupon, how: dict[str, Any], user: User) -> None:
    """A recording of the stand-in recorder, as if the booth had sent its file."""
    plan = Plan(
        Setting(how["mode"], how["voltage_v"], how["current_a"]),
        passes=how["passes"],
        arc_s=how["arc_s"],
        pause_s=25,
        wire_feed_m_min=how["wire_feed_m_min"],
        gas_l_min=how["gas_l_min"],
        trouble=Trouble(dropout=(how["dropout_at_s"], 0.4)),
    )
    parts = [text_of(rows) for rows in samples(plan, how["rate_hz"])]
    head = (",".join(COLUMNS) + "\n").encode()
    receive_file(user, coupon, iter([head, *parts]), client_id=uuid4(), name=how["name"])


def _fill(coupon: Coupon, sample: dict[str, Any], users: dict[str, User]) -> None:
    edit_piece(users["inspector"], coupon, coupon.version, {"piece": {**coupon.piece, **sample["piece"]}})
    for entry in sample["passes"]:
        log_pass(users["inspector"], coupon, uuid4(), PASS_RECORD.take(entry))
    if sample.get("recording"):
        _record(coupon, sample["recording"], users["inspector"])
    planned = len(PROCEDURE.take(coupon.procedure_document).passes)
    if len(sample["passes"]) == planned:
        coupon.refresh_from_db()
        edit_piece(users["inspector"], coupon, coupon.version, {"status": "welded"})
