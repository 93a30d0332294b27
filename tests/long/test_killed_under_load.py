"""Minutes of kill -9 while people work: nothing acknowledged is lost, and nothing is there twice.

Run by ``./bead test --long``. The figures are printed, and stand in docs/reliability.md.
"""

import http.client
import os
import random
import shutil
import threading
import time
import uuid
from pathlib import Path

import pytest

from ops.places import ROOT
from tests.system.conftest import Person, Shop

ROUNDS = int(os.environ.get("BEAD_LONG_ROUNDS", "20"))
PEOPLE = 6
PASS = {"current_a": 200, "voltage_v": 24, "length_mm": 300, "time_s": 72}


class Logger(threading.Thread):
    """Logs pass after pass on a coupon of its own, sending each again under its id until it is acknowledged."""

    def __init__(self, port, coupon):
        super().__init__(daemon=True)
        self.person, self.coupon = Person(port).sign_in(), coupon
        self.acknowledged, self.again, self.refused = [], 0, []
        self.halt = False

    def run(self):
        number = 0
        while not self.halt:
            number += 1
            body = {"client_id": str(uuid.uuid4()), "record": {**PASS, "number": number}}
            while not self._sent(body):
                self.again += 1
                time.sleep(0.2)
            self.acknowledged.append(number)

    def _sent(self, body):
        try:
            status, answer = self.person("POST", f"/coupons/{self.coupon}/passes", body)
        except (OSError, http.client.HTTPException, ValueError):
            return False  # no answer, or half of one
        if status not in (200, 201, 503):
            self.refused.append((status, answer))
        return status in (200, 201)


@pytest.fixture
def shop():
    one = Shop(Path(os.environ.get("BEAD_HOME") or ROOT / ".bead" / "test") / "long")
    one.bead("stop")
    shutil.rmtree(one.home, ignore_errors=True)
    yield one
    one.bead("stop")


def test_passes_logged_while_server_and_database_are_killed(shop):
    shop.start()
    person = Person(shop.port).sign_in()
    job = person("GET", "/jobs")[1][0]["id"]
    lines = person("GET", f"/jobs/{job}/procedures")[1]
    revision = next(one["id"] for one in lines if one["number"] == "FB-27-P01")
    coupons = []
    for one in range(PEOPLE):
        status, made = person("POST", f"/revisions/{revision}/coupons", {"welder": f"Welder {one}"})
        assert status == 201, made
        coupons.append(made["id"])
    loggers = [Logger(shop.port, coupon) for coupon in coupons]
    for one in loggers:
        one.start()
    chance, kills = random.Random(27), {"web server": 0, "database": 0}
    for _ in range(ROUNDS):
        time.sleep(chance.uniform(0.5, 4))
        what = chance.choice(sorted(kills))
        kills[what] += 1
        (shop.kill_server if what == "web server" else shop.kill_database)()
        shop.start()
    time.sleep(2)
    for one in loggers:
        one.halt = True
    for one in loggers:
        one.join(60)
    # Each web worker finds the database again in its own time.
    there = {
        one.coupon: person.wait_for(f"/coupons/{one.coupon}", 200, patience_s=90)["rows"] for one in loggers
    }
    kept = {coupon: [row["record"]["number"] for row in rows] for coupon, rows in there.items()}
    acknowledged = sum(len(one.acknowledged) for one in loggers)
    lost = sum(len(set(one.acknowledged) - set(kept[one.coupon])) for one in loggers)
    doubled = sum(len(rows) - len(set(rows)) for rows in kept.values())
    unknown = sum(len(set(kept[one.coupon]) - set(one.acknowledged)) for one in loggers)
    sent_again = sum(one.again for one in loggers)
    print(
        f"\nkilled: {kills}; passes acknowledged {acknowledged}, sent again {sent_again}, "
        f"lost {lost}, doubled {doubled}"
    )
    assert not any(one.is_alive() for one in loggers)
    assert not [one.refused for one in loggers if one.refused]
    assert acknowledged > ROUNDS * PEOPLE and sent_again > 0
    assert (lost, doubled, unknown) == (0, 0, 0)
    assert shop.bead("audit", "verify", "--demo").returncode == 0
