"""Addresses: the API, the admin pages, and the one page that the browser application lives in."""

from api.api import api
from api.calculators import router as calculators
from api.calculators_arc import router as calculators_arc
from api.calculators_bead import router as calculators_bead
from api.core import router as core
from apps.accounts.api import router as accounts
from apps.accounts.factor_api import router as second_factor
from apps.accounts.people_api import router as people
from apps.codebook.api import router as codebook
from apps.coupons.api import router as coupons
from apps.crew.api import router as crew
from apps.crew.due_api import router as crew_due
from apps.crew.positions_api import router as crew_positions
from apps.crew.scans_api import router as crew_scans
from apps.faults.api import router as faults
from apps.jobs.api import router as jobs
from apps.library.api import router as library
from apps.printing.api import router as printing
from apps.printing.certificate_api import router as certificate_printing
from apps.printing.job_documentation import router as job_documentation
from apps.printing.joint_cards import router as joint_cards
from apps.printing.joint_sheets import router as joint_sheets
from apps.printing.print_runs_api import router as print_runs
from apps.printing.record_api import router as record_printing
from apps.procedures.api import router as procedures
from apps.production.api import router as production
from apps.production.dossier_api import router as dossier
from apps.production.job_crew_api import router as job_crew
from apps.production.register_api import router as register
from apps.qualification.api import router as qualification
from apps.qualification.release_api import router as release
from apps.qualification.signing_api import router as signing
from apps.qualification.welder_test_api import router as welder_test
from apps.recordings.api import router as recordings
from apps.recordings.gateway import router as gateway
from apps.training.api import router as training
from apps.trials.api import router as trials
from apps.upkeep.api import router as operations
from apps.weldlist.api import router as weld_list
from apps.weldlist.coupons_api import router as coupons_of_list
from apps.weldlist.totals_api import router as totals
from apps.weldlist.wps_api import router as wps_of_list
from django.contrib import admin
from django.urls import path, re_path

from config.health import live, ready
from config.views import page

for _router in (
    accounts,
    second_factor,
    people,
    core,
    calculators,
    calculators_arc,
    calculators_bead,
    jobs,
    procedures,
    library,
    trials,
    faults,
    training,
    coupons,
    codebook,
    qualification,
    release,
    signing,
    welder_test,
    recordings,
    gateway,
    weld_list,
    coupons_of_list,
    wps_of_list,
    totals,
    crew,
    crew_due,
    crew_positions,
    crew_scans,
    production,
    job_crew,
    register,
    dossier,
    printing,
    certificate_printing,
    record_printing,
    joint_cards,
    joint_sheets,
    print_runs,
    job_documentation,
    operations,
):
    api.add_router("", _router)

urlpatterns = [
    path("api/", api.urls),
    path("admin/", admin.site.urls),
    path("health/live", live),
    path("health/ready", ready),
    re_path(r"^(?!api/|health/|static/|assets/|fonts/|admin/).*$", page),
]

handler500 = "api.errors.server_error"
