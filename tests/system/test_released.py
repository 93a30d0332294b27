"""Data of every released version, brought to this one: nothing is lost, and every document is read.

A sample is a backup's contents (./bead take-out) of the demo as that version made it.
"""

import os
import shutil
import tarfile
from pathlib import Path

import pytest

from ops import backups
from ops.cluster import Cluster
from ops.places import ROOT
from tests.system.conftest import Person, Shop

SAMPLES = sorted((Path(__file__).parent / "released").glob("*.tar.xz"))


@pytest.fixture
def shop(monkeypatch):
    one = Shop(Path(os.environ.get("BEAD_HOME") or ROOT / ".bead" / "test") / "released")
    one.bead("stop")
    shutil.rmtree(one.home, ignore_errors=True)
    one.home.mkdir(parents=True)
    monkeypatch.setenv("BEAD_HOME", str(one.home))
    yield one
    one.bead("stop")


@pytest.mark.parametrize("sample", SAMPLES, ids=lambda path: path.name.removesuffix(".tar.xz"))
def test_data_of_an_earlier_version_are_read_for_ever(shop, sample):
    folder = shop.home / "sample"
    with tarfile.open(sample) as kept:
        kept.extractall(folder, filter="data")
    cluster = Cluster()
    cluster.start()
    assert "are as they were" in backups.load_and_compare(cluster, "bead_demo", folder)
    backups.place_files(folder, "bead_demo")
    shop.start()  # and migrates it
    assert shop.bead("audit", "verify", "--demo").returncode == 0
    person = Person(shop.port).sign_in()
    read = 0

    def get(path):
        nonlocal read
        status, body = person("GET", path)
        assert status == 200, (path, body)
        read += 1
        return body

    for job in get("/jobs"):
        for line in get(f"/jobs/{job['id']}/procedures"):
            revision = get(f"/revisions/{line['id']}")
            assert revision["document"]["number"] == line["number"]
        for line in get(f"/jobs/{job['id']}/coupons"):
            get(f"/coupons/{line['id']}")
            get(f"/coupons/{line['id']}/evidence")
        get(f"/jobs/{job['id']}/weld-list")
        get(f"/jobs/{job['id']}/weld-list/totals")
    for member in get("/crew")["members"]:
        get(f"/crew/{member['id']}")
    assert read > 25
