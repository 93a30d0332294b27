"""Every form of joint: areas against shapes put together by an independent polygon library (shapely).

The library builds a groove from rectangles, triangles and discs; the core integrates its walls in
closed form. Nothing is shared but the drawing office's definition of each form.
"""

import json
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.affinity import scale, translate
from shapely.geometry import Point, box
from shapely.geometry import Polygon as Shape
from shapely.ops import unary_union

from tests.welding import samples
from welding.cli import main
from welding.documents.codec import PROCEDURE
from welding.joints.grooves import GOUGE_BEYOND_MM, GOUGE_RADIUS_MM
from welding.joints.section import section_of
from welding.joints.shapes import Polygon

FAR = 1000.0


def mirrored(shape):
    return scale(shape, xfact=-1, origin=(0, 0))


def disc(x, y, radius):
    return Point(x, y).buffer(radius, quad_segs=2000)


def half_band(gap, height):
    return box(0, 0, gap / 2, height)


def straight_flank(gap, foot, top, angle):
    """Right-hand half of a bevelled part, heights from foot to top."""
    out = gap / 2 + (top - foot) * math.tan(math.radians(angle))
    return Shape([(0, foot), (gap / 2, foot), (out, top), (0, top)])


def hollow_flank(gap, foot, top, angle, radius):
    """Right-hand half of a U: a disc on the land's edge, and a straight flank tangent to it."""
    a = math.radians(angle)
    touch = (gap / 2 + radius * math.cos(a), foot + radius - radius * math.sin(a))
    out = touch[0] + (top - touch[1]) * math.tan(a)
    round_part = disc(gap / 2, foot + radius, radius).intersection(box(gap / 2, foot, FAR, touch[1]))
    over = Shape([(gap / 2, touch[1]), touch, (out, top), (gap / 2, top)])
    return unary_union([round_part, over, box(0, foot, gap / 2, top)])


def groove(t, gap, land, half, other, back=None, back_other=None):
    """Both halves of a groove: the land, and a flank each above (and below) it."""
    foot = (t - land) / 2 if back else 0.0
    right = [half_band(gap, t), half(gap, foot + land, t)]
    left = [half_band(gap, t), other(gap, foot + land, t)]
    if back:
        under = [scale(one(gap, t - foot, t), yfact=-1, origin=(0, t / 2)) for one in (back, back_other)]
        right.append(under[0])
        left.append(under[1])
    return unary_union([unary_union(right), mirrored(unary_union(left))])


def upright(gap, foot, top):
    return box(0, foot, gap / 2, top)


def bevel(angle):
    return lambda gap, foot, top: straight_flank(gap, foot, top, angle)


def hollow(angle, radius):
    return lambda gap, foot, top: hollow_flank(gap, foot, top, angle, radius)


def independent(form, t, gap, land, angle, radius):
    v, b = bevel(angle / 2), bevel(angle)
    u, j = hollow(angle / 2, radius), hollow(angle, radius)
    return {
        "square": lambda: box(-gap / 2, 0, gap / 2, t),
        "single-v": lambda: groove(t, gap, land, v, v),
        "double-v": lambda: groove(t, gap, land, v, v, v, v),
        "single-bevel": lambda: groove(t, gap, land, b, upright),
        "double-bevel": lambda: groove(t, gap, land, b, upright, b, upright),
        "single-u": lambda: groove(t, gap, land, u, u),
        "double-u": lambda: groove(t, gap, land, u, u, u, u),
        "single-j": lambda: groove(t, gap, land, j, upright),
        "double-j": lambda: groove(t, gap, land, j, upright, j, upright),
    }[form]()


def document(kind, form, t, gap, land, angle, radius, **more):
    preparation = {"form": form, "root_gap_mm": gap}
    if form != "square":
        preparation |= {"included_angle_deg": angle, "root_face_mm": land}
    if radius:
        preparation["sides"] = [{"radius_mm": radius}]
    joint = {"kind": kind, "weld": "cjp-groove", "preparation": preparation, **more}
    metals = [{"designation": "S355J2+N", "thickness_mm": t}] * 2
    return samples.procedure(joint=joint, base_metals=metals)


FORMS = [
    (kind, form, *numbers)
    for kind, form, numbers in [
        *[("butt", "square", n) for n in [(3, 1, 0, 0, 0), (6, 3, 0, 0, 0), (10, 2, 0, 0, 0)]],
        *[
            ("butt", "single-v", n)
            for n in [
                (6, 2, 1, 60, 0),
                (12, 3, 2, 60, 0),
                (20, 6, 0, 45, 0),
                (25, 10, 0, 20, 0),
                (40, 0, 6, 90, 0),
            ]
        ],
        *[("butt", "double-v", n) for n in [(16, 2, 2, 60, 0), (30, 3, 2, 60, 0), (50, 0, 3, 45, 0)]],
        *[("butt", "single-bevel", n) for n in [(8, 3, 1, 45, 0), (15, 6, 0, 45, 0), (25, 10, 0, 30, 0)]],
        *[("butt", "double-bevel", n) for n in [(20, 2, 2, 45, 0), (40, 3, 3, 50, 0)]],
        *[("butt", "single-u", n) for n in [(25, 2, 3, 20, 6), (40, 0, 3, 45, 6), (60, 3, 2, 16, 8)]],
        *[("butt", "double-u", n) for n in [(40, 2, 3, 20, 6), (60, 3, 3, 20, 8)]],
        *[("butt", "single-j", n) for n in [(25, 2, 3, 30, 10), (40, 0, 3, 45, 10)]],
        *[("butt", "double-j", n) for n in [(40, 2, 3, 30, 10), (60, 3, 3, 20, 8)]],
        *[("t", "single-bevel", n) for n in [(10, 3, 1, 45, 0), (20, 6, 0, 45, 0), (30, 2, 2, 50, 0)]],
        *[("t", "double-bevel", n) for n in [(16, 2, 2, 45, 0), (30, 3, 2, 50, 0)]],
        *[("t", "single-j", n) for n in [(25, 2, 3, 30, 10)]],
        *[("t", "double-j", n) for n in [(40, 2, 3, 30, 10)]],
        *[("corner", "single-bevel", n) for n in [(12, 3, 1, 45, 0), (20, 6, 0, 30, 0)]],
        *[("corner", "single-v", n) for n in [(12, 2, 2, 60, 0), (20, 6, 0, 45, 0)]],
        *[("corner", "single-u", n) for n in [(30, 2, 3, 20, 6)]],
        *[("corner", "single-j", n) for n in [(30, 2, 3, 30, 10)]],
        *[("branch", "single-bevel", n) for n in [(8, 3, 1, 45, 0), (12, 3, 0, 50, 0)]],
    ]
]


def test_there_are_enough_examples():
    assert len(FORMS) >= 35  # with flares, edges, compound bevels and fillets below: well over 40


@pytest.mark.parametrize("kind, form, t, gap, land, angle, radius", FORMS)
def test_area_and_centroid_of_a_groove(kind, form, t, gap, land, angle, radius):
    section = section_of(PROCEDURE.take(document(kind, form, t, gap, land, angle, radius))).section
    shape = independent(form, t, gap, land, angle, radius)
    assert section.area_mm2 == pytest.approx(shape.area, rel=1e-3)
    x, h = shape.centroid.coords[0]
    # Elsewhere the groove lies on its side under the standing member.
    expected = (x, t - h) if kind == "butt" else (-t / 2 + h, -gap / 2 - x)
    assert section.centroid_mm == pytest.approx(expected, abs=2e-3 * t)


@pytest.mark.parametrize("kind, form, t, gap, land, angle, radius", FORMS)
@pytest.mark.parametrize("gouged", [False, True])
def test_beads_tile_every_form_and_stay_out_of_the_plates(kind, form, t, gap, land, angle, radius, gouged):
    if gouged and t < 5:
        pytest.skip("nobody gouges sheet")
    roles = ["root", "hot", "fill", "fill", "fill", "fill", "cap", "cap"]
    passes = [samples.a_pass(i + 1, role) for i, role in enumerate(roles)]
    passes += [samples.a_pass(9 + i, "back", side=2) for i in range(3)]
    whole = {**document(kind, form, t, gap, land, angle, radius, back_gouge=gouged), "passes": passes}
    result = section_of(PROCEDURE.take(whole))
    if kind == "corner" and not gouged and not form.startswith("double"):
        passes = passes[:8]  # nothing is cut at the inside of a corner
    shapes = [shape for shape in result.drawing.shapes if isinstance(shape, Polygon)]
    beads = [Shape(shape.points) for shape in shapes if shape.role == "bead"]
    assert len(beads) == len(passes)
    assert all(bead.is_valid for bead in beads)
    total = result.section.total_mm2
    assert sum(bead.area for bead in beads) == pytest.approx(total, rel=0.01)
    assert unary_union(beads).area == pytest.approx(total, rel=0.01)
    plates = unary_union([Shape(shape.points) for shape in shapes if shape.role == "member"])
    assert plates.intersection(unary_union(beads)).area < 0.01 * total
    told = {one.pass_number: one.area_mm2 for one in result.section.beads}
    assert sum(told.values()) == pytest.approx(total)
    drawn = {s.pass_number: Shape(s.points).area for s in shapes if s.role == "bead"}
    assert max(abs(drawn[n] - told[n]) for n in told) < 0.03 * total


def test_a_gouge_adds_what_it_takes_from_the_plates():
    t, gap, land = 20, 3, 2
    plain = independent("single-v", t, gap, land, 60, 0)
    depth, lean, r = land + GOUGE_BEYOND_MM, math.radians(10), GOUGE_RADIUS_MM
    side = (r * math.cos(lean), depth - r + r * math.sin(lean))
    out = side[0] + side[1] * math.tan(lean)
    sides = Shape([(-out, 0), (out, 0), side, (-side[0], side[1])])
    gouge = unary_union([sides, disc(0, depth - r, r).intersection(box(-FAR, 0, FAR, depth))]).intersection(
        box(-FAR, 0, FAR, depth)
    )
    section = section_of(
        PROCEDURE.take(document("butt", "single-v", t, gap, land, 60, 0, back_gouge=True))
    ).section
    assert section.area_mm2 == pytest.approx(unary_union([plain, gouge]).area, rel=1e-3)
    assert any("gouged from the back" in text for text in section.assumptions)


@pytest.mark.parametrize("gap", [0.0, 2.0])
@pytest.mark.parametrize("form, tubes", [("flare-v", 2), ("flare-bevel", 1)])
@pytest.mark.parametrize("radius, depth", [(20, None), (12, 9)])
def test_flares(form, tubes, radius, depth, gap):
    side = {"radius_mm": radius} | ({"depth_mm": depth} if depth else {})
    joint = {
        "kind": "butt",
        "weld": "pjp-groove",
        "preparation": {"form": form, "root_gap_mm": gap, "sides": [side]},
    }
    section = section_of(PROCEDURE.take(samples.procedure(joint=joint))).section
    height = depth or radius
    window = box(-gap / 2 - (radius if tubes == 2 else 0), 0, gap / 2 + radius, height)
    right = disc(gap / 2 + radius, 0, radius)
    taken = unary_union([right, mirrored(right)] if tubes == 2 else [right])
    assert section.area_mm2 == pytest.approx(window.difference(taken).area, rel=1e-3)
    if depth is None and gap == 0:  # a square corner less a quarter disc, for each tube
        assert section.area_mm2 == pytest.approx(tubes * (1 - math.pi / 4) * radius**2, rel=1e-9)


def test_compound_bevel_of_a_pipe():
    # 37.5° each side for 19 mm above a land of 2, then 10° each side, 40 mm wall, gap 3.
    preparation = {
        "form": "compound-bevel",
        "root_gap_mm": 3,
        "root_face_mm": 2,
        "sides": [{"angle_deg": 75, "depth_mm": 17}, {"angle_deg": 20}],
    }
    joint = {"kind": "butt", "weld": "cjp-groove", "preparation": preparation}
    metals = [{"designation": "A106-B", "thickness_mm": 40}] * 2
    section = section_of(PROCEDURE.take(samples.procedure(joint=joint, base_metals=metals))).section
    mid = 1.5 + 17 * math.tan(math.radians(37.5))
    top = mid + 21 * math.tan(math.radians(10))
    half = Shape([(0, 0), (1.5, 0), (1.5, 2), (mid, 19), (top, 40), (0, 40)])
    assert section.area_mm2 == pytest.approx(2 * half.area, rel=1e-9)


def test_a_partial_weld_fills_its_depth_only():
    preparation = {
        "form": "single-v",
        "root_gap_mm": 0,
        "included_angle_deg": 60,
        "sides": [{"depth_mm": 8}],
    }
    joint = {"kind": "butt", "weld": "pjp-groove", "preparation": preparation}
    section = section_of(PROCEDURE.take(samples.procedure(joint=joint))).section
    assert section.area_mm2 == pytest.approx(64 * math.tan(math.radians(30)))


def test_an_edge_weld():
    joint = {
        "kind": "edge",
        "weld": "cjp-groove",
        "throat_mm": 2,
        "reinforcement_mm": 1,
        "preparation": {"form": "square", "root_gap_mm": 0.5},
    }
    metals = [{"designation": "1.4301", "thickness_mm": 3}] * 2
    result = section_of(PROCEDURE.take(samples.procedure(joint=joint, base_metals=metals)))
    assert result.section.area_mm2 == pytest.approx(1.0)
    bead = [s for s in result.drawing.shapes if isinstance(s, Polygon) and s.role == "bead"][-1]
    left, _, right, _ = Shape(bead.points).bounds
    assert right - left == pytest.approx(6.5)  # from outside to outside


# --- fillets ----------------------------------------------------------------------------------


@pytest.mark.parametrize("kind", ["t", "corner", "lap", "branch"])
@pytest.mark.parametrize("leg1, leg2", [(8, 8), (5, 9), (12, 6)])
@pytest.mark.parametrize("dihedral", [60, 90, 120])
@pytest.mark.parametrize("face, height", [("flat", 0), ("convex", 1.5), ("concave", 1.0)])
def test_fillets(kind, leg1, leg2, dihedral, face, height):
    joint = {"kind": kind, "weld": "fillet", "leg1_mm": leg1, "leg2_mm": leg2, "dihedral_deg": dihedral}
    joint |= {"face": face} | ({"face_height_mm": height} if height else {})
    result = section_of(PROCEDURE.take(samples.procedure(joint=joint)))
    a = math.radians(dihedral)
    toe, top = (leg1, 0.0), (leg2 * math.cos(a), leg2 * math.sin(a))
    triangle = Shape([(0, 0), toe, top])
    chord = math.dist(toe, top)
    expected = triangle.area
    if height:
        radius = (chord**2 / 4 + height**2) / (2 * height)
        segment = disc(0, 0, radius).intersection(box(-FAR, radius - height, FAR, FAR)).area
        expected += segment if face == "convex" else -segment
    assert result.section.total_mm2 == pytest.approx(expected, rel=1e-3)
    throat = 2 * triangle.area / chord - (height if face == "concave" else 0)
    assert result.section.throat_mm == pytest.approx(throat)
    beads = [Shape(s.points) for s in result.drawing.shapes if isinstance(s, Polygon) and s.role == "bead"]
    assert sum(bead.area for bead in beads) == pytest.approx(expected, rel=0.01)
    assert unary_union(beads).area == pytest.approx(expected, rel=0.01)


@pytest.mark.parametrize("dihedral, factor", [(60, 1.1547), (90, 1.4142), (120, 2.0)])
def test_leg_from_throat_by_angle(dihedral, factor):
    # Leg over throat of skewed fillets; plane geometry, printed in structural handbooks.
    joint = {"kind": "t", "weld": "fillet", "throat_mm": 10, "dihedral_deg": dihedral}
    section = section_of(PROCEDURE.take(samples.procedure(joint=joint))).section
    leg = 10 * factor
    assert section.area_mm2 == pytest.approx(leg**2 * math.sin(math.radians(dihedral)) / 2, rel=1e-3)
    assert section.throat_mm == pytest.approx(10)


def test_root_bead_lower_toe_upper_toe():
    """A three-bead fillet lies as welders lay it: in the corner, on the plate, on the stem."""
    passes = [samples.a_pass(1, "root"), samples.a_pass(2), samples.a_pass(3)]
    result = section_of(
        PROCEDURE.take(samples.procedure(joint={"kind": "t", "weld": "fillet", "leg1_mm": 12}, passes=passes))
    )
    corner = min(x for s in result.drawing.shapes if getattr(s, "role", "") == "bead" for x, _ in s.points)
    middle = {
        s.pass_number: translate(Shape(s.points), -corner).centroid.coords[0]
        for s in result.drawing.shapes
        if getattr(s, "role", "") == "bead"
    }
    assert math.hypot(*middle[1]) < min(math.hypot(*middle[2]), math.hypot(*middle[3]))
    assert middle[2][1] > middle[3][1]  # y grows downwards: bead 2 lies lower
    assert middle[2][0] > middle[3][0]


# --- trends -----------------------------------------------------------------------------------

WIDER = st.sampled_from(
    ["single-v", "double-v", "single-bevel", "double-bevel", "single-u", "double-u", "single-j"]
)


def area_of(form, t, gap, land, angle, radius):
    numbers = (form, t, gap, land, angle, radius if form.endswith(("u", "j")) else 0)
    return section_of(PROCEDURE.take(document("butt", *numbers))).section.area_mm2


@given(WIDER, st.floats(20, 80), st.floats(0, 8), st.floats(0, 3), st.floats(10, 60), st.floats(2, 8))
@settings(max_examples=60, deadline=None)
def test_areas_grow_with_angle_gap_and_thickness(form, t, gap, land, angle, radius):
    area = area_of(form, t, gap, land, angle, radius)
    assert area_of(form, t + 5, gap, land, angle, radius) > area
    assert area_of(form, t, gap + 1, land, angle, radius) > area
    # A U's round foot narrows a little as its flanks lean; the flanks win on anything thicker.
    assert area_of(form, t, gap, land, angle + 5, radius) > area


# --- locked beads and weights -----------------------------------------------------------------


def test_a_locked_bead_keeps_its_area_and_the_others_share_the_rest():
    passes = [
        samples.a_pass(1, "root", bead_area_mm2=40),
        *[samples.a_pass(i) for i in (2, 3)],
        samples.a_pass(4, "cap"),
    ]
    section = section_of(PROCEDURE.take(samples.procedure(passes=passes))).section
    areas = [one.area_mm2 for one in section.beads]
    assert areas[0] == pytest.approx(40)
    assert areas[1:] == pytest.approx([(section.total_mm2 - 40) / 3] * 3)
    assert [one.locked for one in section.beads] == [True, False, False, False]


def test_beads_follow_what_is_laid_down():
    # The third pass runs half as fast: twice the metal per length.
    slow = {"travel_mm_min": {"min": 100, "max": 150}}
    passes = [samples.a_pass(1, "root"), samples.a_pass(2), samples.a_pass(3, "cap", **slow)]
    section = section_of(PROCEDURE.take(samples.procedure(passes=passes))).section
    areas = [one.area_mm2 for one in section.beads]
    assert areas[2] == pytest.approx(2 * areas[0])
    assert sum(areas) == pytest.approx(section.total_mm2)


def test_locked_beads_that_are_too_big_still_close():
    passes = [samples.a_pass(1, "root", bead_area_mm2=900), samples.a_pass(2, "cap")]
    section = section_of(PROCEDURE.take(samples.procedure(passes=passes))).section
    assert sum(one.area_mm2 for one in section.beads) == pytest.approx(section.total_mm2)
    assert all(one.area_mm2 > 0 for one in section.beads)


# --- what cannot be ---------------------------------------------------------------------------

BUTT = {"kind": "butt", "weld": "cjp-groove"}
V = {"form": "single-v", "included_angle_deg": 60, "root_gap_mm": 3, "root_face_mm": 2}


@pytest.mark.parametrize(
    "joint, path, words",
    [
        ({**BUTT, "preparation": {**V, "root_face_mm": 30}}, "root_face_mm", "0 to the thickness"),
        ({**BUTT, "preparation": {**V, "included_angle_deg": 0}}, "included_angle_deg", "no bevel"),
        ({**BUTT, "preparation": {**V, "root_gap_mm": 50}}, "root_gap_mm", "cannot be bridged"),
        (
            {**BUTT, "preparation": {**V, "form": "single-bevel", "included_angle_deg": 95}},
            "included_angle_deg",
            "less than 90",
        ),
        ({**BUTT, "preparation": {**V, "sides": [{"depth_mm": 12}]}}, "sides.0.depth_mm", "make 14 mm"),
        (
            {**BUTT, "preparation": {**V, "form": "double-v", "sides": [{"depth_mm": 15}, {"depth_mm": 9}]}},
            "sides.0.depth_mm",
            "make 26 mm",
        ),
        ({"kind": "t", "weld": "cjp-groove", "preparation": V}, "form", "not bevelled"),
        (
            {"kind": "edge", "weld": "cjp-groove", "throat_mm": 3, "preparation": {**V, "form": "double-v"}},
            "form",
            "one side only",
        ),
        (
            {
                **BUTT,
                "preparation": {
                    "form": "flare-v",
                    "root_gap_mm": 0,
                    "sides": [{"radius_mm": 5, "depth_mm": 8}],
                },
            },
            "sides.0.depth_mm",
            "radius",
        ),
        ({"kind": "lap", "weld": "fillet", "leg1_mm": 25}, "leg1_mm", "does not fit on an edge"),
        ({"kind": "t", "weld": "fillet", "leg1_mm": 8, "dihedral_deg": 175}, "dihedral_deg", "175"),
        (
            {"kind": "t", "weld": "fillet", "leg1_mm": 4, "face": "concave", "face_height_mm": 2},
            "face_height_mm",
            "half the throat",
        ),
        ({"kind": "lap", "weld": "cjp-groove", "preparation": V}, "joint.weld", "takes a fillet"),
    ],
)
def test_impossible_joints_are_named(joint, path, words):
    result = section_of(PROCEDURE.take(samples.procedure(joint=joint)))
    assert result.drawing is None
    assert result.section is None
    found = [problem for problem in result.wrong if problem.path.endswith(path)]
    assert found and words in found[0].message


@pytest.mark.parametrize("t", [0.3, 300])
@pytest.mark.parametrize("form", ["square", "single-v", "double-u"])
def test_very_thin_and_very_thick_plates_give_numbers_or_a_reason(form, t):
    result = section_of(
        PROCEDURE.take(document("butt", form, t, 0.2, min(1, t / 3), 40, 6 if form.endswith("u") else 0))
    )
    if result.section is None:
        assert result.wrong
    else:
        assert math.isfinite(result.section.total_mm2) and result.section.total_mm2 > 0


def test_the_command_line_tells_areas(tmp_path, capsys):
    path = tmp_path / "joint.json"
    passes = [samples.a_pass(1, "root"), samples.a_pass(2, "cap"), samples.a_pass(3, "back", side=2)]
    path.write_text(json.dumps({**document("butt", "double-u", 40, 2, 3, 20, 6), "passes": passes}))
    assert main(["evaluate", str(path)]) == 0
    section = json.loads(capsys.readouterr().out)["section"]
    assert section["area_mm2"] == pytest.approx(independent("double-u", 40, 2, 3, 20, 6).area, rel=1e-3)
    assert section["total_mm2"] == pytest.approx(section["area_mm2"] + section["reinforcement_mm2"])
    assert sum(bead["area_mm2"] for bead in section["beads"]) == pytest.approx(section["total_mm2"])
