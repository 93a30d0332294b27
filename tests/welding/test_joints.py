"""Section geometry, checked by numerical integration and by an independent polygon library."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad
from shapely.geometry import Polygon as ShapelyPolygon
from shapely.ops import unary_union

from tests.welding import samples
from welding.documents.codec import PROCEDURE
from welding.documents.procedure import Joint, Preparation
from welding.joints.caps import ArcCap
from welding.joints.fillets import Fillet, equal_legs_mm
from welding.joints.grooves import cut_groove
from welding.joints.layers import layers_of
from welding.joints.section import section_of
from welding.joints.shapes import Polygon, centroid, polygon_area, segment_area


def beads_of(document):
    result = section_of(PROCEDURE.take(document))
    assert result.section is not None
    return result, [
        ShapelyPolygon(shape.points)
        for shape in result.drawing.shapes
        if isinstance(shape, Polygon) and shape.role == "bead"
    ]


def single_v(thickness, gap, land, angle):
    preparation = Preparation(form="single-v", included_angle_deg=angle, root_gap_mm=gap, root_face_mm=land)
    return cut_groove(Joint(kind="butt", weld="cjp-groove", preparation=preparation), thickness).groove


def test_single_v_by_hand():
    # 20 mm, 60°, gap 3, land 2: 3 x 20 + 18² x tan 30° = 247.06 mm².
    groove = single_v(20, 3, 2, 60)
    assert groove.left.area(0, 20) + groove.right.area(0, 20) == pytest.approx(247.0615, abs=1e-3)


@given(st.floats(3, 60), st.floats(0, 8), st.floats(0, 1), st.floats(5, 120))
def test_wall_area_against_integration(thickness, gap, land_share, angle):
    groove = single_v(thickness, gap, land_share * thickness, angle)
    by_integral, _ = quad(groove.right.at, 0, thickness, points=[land_share * thickness])
    assert groove.right.area(0, thickness) == pytest.approx(by_integral, rel=1e-6)


@given(st.floats(1, 40), st.floats(0.1, 6))
def test_segment_against_integration(chord, rise):
    radius = (chord**2 / 4 + rise**2) / (2 * rise)
    if rise > radius:  # more than a half disc: integrate the complement
        expected = math.pi * radius**2 - segment_area(chord, 2 * radius - rise)
    else:
        expected, _ = quad(
            lambda x: math.sqrt(max(radius**2 - x**2, 0)) - (radius - rise), -chord / 2, chord / 2
        )
    assert segment_area(chord, rise) == pytest.approx(expected, rel=1e-6)


ROLES = {
    1: ["root"],
    3: ["root", "fill", "cap"],
    7: ["root", "hot", *["fill"] * 3, "cap", "cap"],
    14: ["root", *["fill"] * 12, "cap"],
    25: ["root", *["fill"] * 21, *["cap"] * 3],
}


@pytest.mark.parametrize("joint", ["v", "square", "t"])
@pytest.mark.parametrize("count", ROLES)
def test_beads_tile_the_section(joint, count):
    shapes = {"v": samples.SINGLE_V, "square": samples.SQUARE, "t": samples.T_FILLET}
    passes = [samples.a_pass(i + 1, role) for i, role in enumerate(ROLES[count])]
    result, beads = beads_of(samples.procedure(joint=shapes[joint], passes=passes))
    total = result.section.total_mm2
    assert len(beads) == count
    assert all(bead.is_valid for bead in beads)
    assert sum(bead.area for bead in beads) == pytest.approx(total, rel=0.01)
    assert unary_union(beads).area == pytest.approx(total, rel=0.01)  # they do not overlap


def test_beads_are_equal_where_nothing_forces_otherwise():
    _, beads = beads_of(
        samples.procedure(passes=[samples.a_pass(i + 1, role) for i, role in enumerate(ROLES[7])])
    )
    areas = [bead.area for bead in beads]
    assert max(areas) / min(areas) < 1.01


@given(st.floats(3, 30), st.floats(3, 30))
@settings(max_examples=40)
def test_fillet_against_shapely(leg1, leg2):
    triangle = ShapelyPolygon([(0, 0), (leg1, 0), (0, leg2)])
    fillet = Fillet(leg1_mm=leg1, leg2_mm=leg2)
    assert fillet.area_mm2 == pytest.approx(triangle.area)
    height = 2 * triangle.area / math.dist((leg1, 0), (0, leg2))
    assert fillet.throat_mm == pytest.approx(height)


def test_throat_and_leg():
    # Plane geometry, common in every handbook: z = a · √2.
    leg = equal_legs_mm(5)
    assert leg == pytest.approx(7.0711, abs=1e-4)
    assert Fillet(leg1_mm=leg, leg2_mm=leg).throat_mm == pytest.approx(5)


@given(st.lists(st.tuples(st.floats(-50, 50), st.floats(-50, 50)), min_size=3, max_size=3))
def test_polygon_area_and_centroid_against_shapely(points):
    triangle = ShapelyPolygon(points)
    assert polygon_area(points) == pytest.approx(triangle.area, abs=1e-9)
    if triangle.area > 1e-3:
        assert centroid(points) == pytest.approx((triangle.centroid.x, triangle.centroid.y), abs=1e-6)


def test_layers_keep_roles_apart():
    layers = layers_of(["root", "fill", "fill", "cap", "cap", "cap"], lambda a, b: (20.0, 12 * (b - a)))
    assert sum(layers) == 6
    assert layers[0] == 1
    assert sum(layers[:-1]) in (3, 4, 5)


@pytest.mark.parametrize(
    "change, path",
    [
        ({"joint": None}, "joint"),
        ({"base_metals": []}, "base_metals.0.thickness_mm"),
        ({"joint": {"kind": "t", "weld": "fillet"}}, "joint.leg1_mm"),
        ({"joint": {"kind": "lap", "weld": "plug"}}, "joint.weld"),
        (
            {"joint": {"kind": "butt", "weld": "cjp-groove", "preparation": {"form": "single-u"}}},
            "joint.preparation.sides.0.radius_mm",
        ),
        ({"joint": {"kind": "t", "weld": "fillet", "leg1_mm": 8, "face": "convex"}}, "joint.face_height_mm"),
    ],
)
def test_what_cannot_be_drawn_says_what_is_missing(change, path):
    result = section_of(PROCEDURE.take(samples.procedure(**change)))
    assert result.drawing is None
    assert path in [problem.path for problem in result.missing]


def test_land_thicker_than_the_plate_is_wrong_not_a_crash():
    joint = {**samples.SINGLE_V, "preparation": {**samples.SINGLE_V["preparation"], "root_face_mm": 30}}
    result = section_of(PROCEDURE.take(samples.procedure(joint=joint)))
    assert [problem.path for problem in result.wrong] == ["joint.preparation.root_face_mm"]


def test_unequal_plates_are_drawn_flush_at_the_root():
    document = samples.procedure()
    document["base_metals"][1]["thickness_mm"] = 25
    result, _ = beads_of(document)
    assert result.section.area_mm2 == pytest.approx(247.0615, abs=1e-3)
    assert any("thinner" in text for text in result.section.assumptions)


def test_the_drawing_holds_all_its_shapes():
    result, _ = beads_of(samples.procedure())
    drawing = result.drawing
    for shape in drawing.shapes:
        for x, y in getattr(shape, "points", [getattr(shape, "at", None)]):
            assert drawing.x <= x <= drawing.x + drawing.width
            assert drawing.y <= y <= drawing.y + drawing.height


def test_cap_is_a_circular_segment():
    cap = ArcCap(left_x=-12, right_x=14, height=20, rise=1.5)
    radius = (13**2 + 1.5**2) / 3
    outline = [-13 + i * 26 / 4000 for i in range(4001)]
    arc = ShapelyPolygon([(x, math.sqrt(radius**2 - x**2) - radius + 1.5) for x in outline])
    assert cap.area == pytest.approx(arc.area, rel=1e-4)
    for share in (0.2, 0.5, 0.9):
        part, _ = quad(lambda x: math.sqrt(radius**2 - x**2) - radius + 1.5, -13, -13 + 26 * share)
        assert cap.area_to(share) == pytest.approx(part, rel=1e-6)


@pytest.mark.parametrize("back", [1, 2, 3])
def test_back_beads_lie_under_the_plate_and_count_as_reinforcement(back):
    passes = [samples.a_pass(1, "root"), samples.a_pass(2, "cap")]
    passes += [samples.a_pass(3 + i, "back", side=2) for i in range(back)]
    one_side, _ = beads_of(samples.procedure(passes=passes[:2]))
    result, beads = beads_of(samples.procedure(passes=passes))
    front, under = beads[:2], beads[2:]
    assert len(under) == back
    # The root lies at the depth of the plate, 20 mm; y grows downwards. The bead is 1.5 mm high.
    assert min(bead.bounds[1] for bead in under) == pytest.approx(20)
    assert max(bead.bounds[3] for bead in under) == pytest.approx(21.5, abs=0.02)
    together = unary_union(under)
    assert together.area == pytest.approx(sum(bead.area for bead in under), rel=1e-9)
    assert together.intersection(unary_union(front)).area == pytest.approx(0, abs=1e-9)
    # By integration of the arc, not by the formula of the code.
    left, _, right, _ = together.bounds
    half = (right - left) / 2
    radius = (half**2 + 1.5**2) / (2 * 1.5)
    by_integral, _ = quad(lambda x: math.sqrt(radius**2 - x**2) - (radius - 1.5), -half, half)
    assert right - left > 3  # it laps the gap on both sides
    added = result.section.reinforcement_mm2 - one_side.section.reinforcement_mm2
    assert added == pytest.approx(by_integral, rel=1e-6)
    assert together.area == pytest.approx(by_integral, rel=0.02)  # drawn with corners
    assert result.section.area_mm2 == one_side.section.area_mm2


@pytest.mark.parametrize(
    "named, area_mm2",
    [
        ({"leg1_mm": 8}, 32),
        ({"leg2_mm": 8}, 32),
        ({"leg1_mm": 6, "leg2_mm": 10}, 30),
        ({"throat_mm": 5}, 25),  # an equal-legged fillet of throat a has a² of metal
    ],
)
@pytest.mark.parametrize("sides", ["one", "both"])
def test_fillet_from_whatever_is_named(named, area_mm2, sides):
    joint = {"kind": "t", "weld": "fillet", "sides": sides, **named}
    passes = [samples.a_pass(1, "root"), samples.a_pass(2, "root", side=2 if sides == "both" else 1)]
    result, beads = beads_of(samples.procedure(joint=joint, passes=passes))
    assert result.section.area_mm2 == pytest.approx(area_mm2)
    drawn = sum(bead.area for bead in beads)
    assert drawn == pytest.approx(area_mm2 * (2 if sides == "both" else 1), rel=1e-6)
    assert any("one side of two" in text for text in result.section.assumptions) == (sides == "both")


@pytest.mark.parametrize(
    "left_out, path",
    [
        ("root_gap_mm", "joint.preparation.root_gap_mm"),
        ("included_angle_deg", "joint.preparation.included_angle_deg"),
        ("root_face_mm", "joint.preparation.root_face_mm"),
        ("form", "joint.preparation"),
    ],
)
def test_each_number_of_the_groove_is_asked_for(left_out, path):
    preparation = {key: value for key, value in samples.SINGLE_V["preparation"].items() if key != left_out}
    joint = {"kind": "butt", "weld": "cjp-groove"}
    if left_out != "form":
        joint["preparation"] = preparation
    result = section_of(PROCEDURE.take(samples.procedure(joint=joint)))
    assert [problem.path for problem in result.missing] == [path]
    assert result.section is None


@pytest.mark.parametrize("thickness, cap", [(1, 0.5), (2, 0.5), (5, 0.75), (10, 1.5), (40, 1.5)])
def test_an_assumed_cap_is_lower_on_sheet_and_is_said(thickness, cap):
    metals = [{"designation": "S355J2+N", "thickness_mm": thickness}] * 2
    document = samples.procedure(base_metals=metals, joint=samples.SQUARE)
    assert section_of(PROCEDURE.take(document)).section.assumptions == (
        f"cap {cap:g} mm high, none is named",
    )
