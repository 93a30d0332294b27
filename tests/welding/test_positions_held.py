"""Positions of people by process: valid ones, and those that only lapsed certificates cover."""

import pytest

from tests.welding.crew_cases import held
from welding.welders.catalogue import read_designation
from welding.welders.positions_held import positions_held

LONG_AGO = "2026-01-01"


@pytest.mark.parametrize("designation, process, weld, positions", [
    # ISO 9606-1 tables 9 and 10, from memory
    ("ISO 9606-1 135 P BW FM1 S s10 PF ss nb, dip transfer", "138", "butt", "PA PF"),
    ("ISO 9606-1 111 P FW FM1 B t10 PB ml", "111", "fillet", "PA PB"),
    ("ISO 9606-1 141/111 T BW FM1 S/B s12(4/8) D168.3 H-L045 ss nb", "111", "butt", "PA PC PE PF"),
    # AWS D1.1 table 6.10, from memory: a groove test holds fillet welds as well
    ("AWS D1.1 SMAW F4 3G uphill plate T1in backing", "SMAW", "butt", "F H V"),
    ("AWS D1.1 SMAW F4 3G uphill plate T1in backing", "SMAW", "fillet", "F H V"),
    # which positions a test of ISO 9606-2 covers beside its own is not recalled
    ("ISO 9606-2 141 P BW 22 S t5 PF ss nb", "141", "butt", "PF"),
    ("ISO 14732 mechanized 135 PC direct-view multi-run functional-test", "135", "", "PC"),
    ("ISO 14732 automatic 135 unit=cell-7 multi-run functional-test", "135", "", ""),
])  # fmt: skip
def test_positions_of_a_test(designation, process, weld, positions):
    found = {(one.process, one.weld): one for one in positions_held([held(read_designation(designation))])}
    one = found[process, weld]
    assert (" ".join(one.valid), one.lapsed) == (positions, ())


def test_what_only_a_lapsed_certificate_covers_is_told_apart():
    flat = held(read_designation("ISO 9606-1 135 P BW FM1 S s10 PA ss nb"))
    old = held(read_designation("ISO 9606-1 135 P BW FM1 S s10 PC ss nb"), welded=LONG_AGO)
    both = {one.process: (one.valid, one.lapsed) for one in positions_held([old, flat])}
    assert both["135"] == (("PA",), ("PC",))
    assert {one.lapsed for one in positions_held([old])} == {("PA", "PC")}
    assert positions_held([]) == ()
