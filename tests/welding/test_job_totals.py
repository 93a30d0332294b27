"""What a job takes: against weights of weld metal per metre, and sums by hand."""

from dataclasses import replace
from math import ceil, pi

import pytest

from tests.welding.test_wps_applied import LIST, WPS, joint
from welding.documents.procedure import Joint
from welding.documents.weld_list import ListedJoint, Prices
from welding.joints.section import section_of
from welding.ranges import Range
from welding.weldlist.applying import written_for
from welding.weldlist.joint_types import joint_types
from welding.weldlist.totals import job_totals, per_metre

FILLET = replace(WPS, joint=Joint(kind="t", weld="fillet", throat_mm=5.0), applies_to=None)
PRICES = Prices(hour=60, weld_metal_kg=8)


def fillet(throat, **more):
    return joint(12.0, weld={"kind": "t", "weld": "fillet", "throat_mm": throat} | more, positions=["PB"])


def totals(*lines, wps=WPS, prices=PRICES):
    types = joint_types(lines, LIST.code)
    return job_totals(types, {one.mark: one for one in lines}, {one.key: wps for one in types if wps}, prices)


def line(mark="W1", one=None, **more):
    return ListedJoint(mark=mark, joint=one or joint(20.0), **({"length_mm": 1000.0} | more))


@pytest.mark.parametrize("throat", [3.0, 5.0, 8.0])
def test_weld_metal_of_a_flat_fillet_is_its_triangle(throat):
    """A flat equal-leg fillet of throat a has the section a²: 0.196 kg/m of steel at a = 5 mm (common practice)."""
    shares = per_metre(FILLET, fillet(throat)).shares
    kg = sum(one.weld_metal_kg for one in shares)
    assert kg == pytest.approx(throat**2 * 7.85e-3, rel=0.25)  # caps are counted too
    assert kg >= throat**2 * 7.85e-3 * 0.99
    both = per_metre(FILLET, fillet(throat, sides="both")).shares
    assert sum(one.weld_metal_kg for one in both) == pytest.approx(2 * kg)


@pytest.mark.parametrize("mm", [12.0, 20.0, 30.0])
def test_a_butt_takes_its_section_and_no_more(mm):
    section = section_of(written_for(WPS, joint(mm))).section
    shares = per_metre(WPS, joint(mm)).shares
    assert sum(one.weld_metal_kg for one in shares) == pytest.approx(section.total_mm2 * 7.85e-3, rel=0.01)


def test_time_gas_and_filler_follow_the_metal_laid_down():
    """Wire of 1.2 mm at 8 m/min: π/4 · 1.2² · 8000 · 7.85e-6 kg/min are melted, of which a few percent are lost."""
    shares = per_metre(WPS, joint(20.0)).shares
    melted_kg_min = pi / 4 * 1.2**2 * 8000 * 7.85e-6
    for one in shares:
        assert one.filler_kg / one.arc_min == pytest.approx(melted_kg_min, rel=0.02)
        assert 0.85 < one.weld_metal_kg / one.filler_kg < 1
        flow = WPS.passes[0].gas.flow_l_min
        assert (
            one.gas_l / one.arc_min == pytest.approx((flow.min + flow.max) / 2) if flow else one.gas_l is None
        )
        assert one.at_joint_min > one.arc_min


def test_root_passes_are_laid_once_whatever_the_thickness():
    root = [replace(WPS.passes[0], role="root")]
    wps = replace(WPS, passes=(*root, *(replace(one, role="fill") for one in WPS.passes[1:])))
    thin, thick = (per_metre(wps, joint(mm)).shares for mm in (15.0, 30.0))
    assert thin[0].weld_metal_kg == pytest.approx(thick[0].weld_metal_kg)
    assert thick[1].weld_metal_kg > 2 * thin[1].weld_metal_kg


def test_sums_by_hand():
    one = sum(share.weld_metal_kg for share in per_metre(WPS, joint(20.0)).shares)
    minutes = sum(share.at_joint_min for share in per_metre(WPS, joint(20.0)).shares)
    found = totals(line("W1", count=3, length_mm=2000.0, part="deck"), line("W2", part="mast"))
    assert (found.welds, found.length_m) == (4, 7.0)
    assert found.weld_metal_kg == pytest.approx(7 * one)
    assert found.cost == pytest.approx(7 * (one * 8 + minutes / 60 * 60))
    assert [(row.of, row.welds) for row in found.parts] == [("deck", 3), ("mast", 1)]
    assert sum(row.cost for row in found.parts) == pytest.approx(found.cost)
    assert [(row.of, row.welds) for row in found.hours] == [("135 PF", 4)]
    (filler,) = found.fillers
    assert filler.diameter_mm == 1.2 and filler.pack == "spool"
    assert filler.packs == ceil(filler.used_kg * 1.03 / 15)


def test_what_is_not_known_is_left_out_and_said():
    found = totals(line("W1", length_mm=None), line("W2"))
    assert found.welds == 1
    assert [(one.welds, one.reason) for one in found.left_out] == [(1, "the list states no length")]
    none = totals(line("W1"), wps=None)
    assert none.welds == 0 and none.cost == 0
    assert [(one.welds, one.types) for one in none.left_out] == [(1, ("T1",))]
    blank = replace(WPS, passes=(replace(WPS.passes[0], travel_mm_min=None),))
    assert "does not state" in totals(line("W1"), wps=blank).left_out[0].reason
    assert (
        "section"
        in totals(line("W1"), wps=replace(WPS, joint=replace(WPS.joint, preparation=None))).left_out[0].reason
    )


def test_a_gas_without_its_flow_has_no_sum():
    still = tuple(replace(one, gas=replace(one.gas, flow_l_min=None)) for one in WPS.passes)
    assert list(totals(line("W1"), wps=replace(WPS, passes=still)).gas_l.values()) == [None]
    given = tuple(replace(one, gas=replace(one.gas, flow_l_min=Range(12, 18))) for one in WPS.passes)
    (litres,) = totals(line("W1"), wps=replace(WPS, passes=given)).gas_l.values()
    minutes = sum(one.arc_min for one in per_metre(WPS, joint(20.0)).shares)
    assert litres == pytest.approx(15 * minutes)
