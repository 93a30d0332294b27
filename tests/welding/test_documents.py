"""The open documents: strict reading, every mistake with its path, identical round trips."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from tests.welding import samples
from welding.documents.codec import COUPON, LARGEST_BYTES, PROCEDURE, canonical, parse_json
from welding.errors import DocumentError

ROUND_TRIPS = {
    "whole": samples.procedure(),
    "no code": samples.procedure(code=None),
    "empty draft": {"format": "grounded-bead/procedure", "version": 1},
    "impact": samples.procedure(requirements={"impact": {"temperature_c": -20, "average_j": 27}}),
    "pulse": samples.procedure(
        passes=[
            samples.a_pass(
                1,
                pulse={"peak_a": 380, "background_a": 60, "peak_share": 0.25},
                sources={"current_a": "own-trial", "gas.flow_l_min": "practice"},
            )
        ]
    ),
}


@pytest.mark.parametrize("name", ROUND_TRIPS)
def test_round_trip_is_identical(name):
    first = PROCEDURE.take(ROUND_TRIPS[name])
    written = PROCEDURE.write(first)
    assert PROCEDURE.read(written) == first
    assert PROCEDURE.write(PROCEDURE.read(written)) == written


_JSON = st.recursive(
    st.none()
    | st.booleans()
    | st.integers(-(10**30), 10**30)
    | st.floats(allow_nan=False, allow_infinity=False)
    | st.floats(-1e-3, 1e-3)
    | st.text(st.characters(exclude_categories=["Cs"])),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=8), inner, max_size=4),
    max_leaves=20,
)


@given(_JSON)
def test_canonical_bytes_are_those_of_the_standard_library(value):
    """A signed hash is over these bytes: which writer wrote them must not be seen."""
    assert canonical(value) == (json.dumps(value, ensure_ascii=False, indent=2) + "\n").encode()


@pytest.mark.parametrize(
    "value", [1e16, 1e-5, 0.00001234, -1e22, 2**64, 1e15, 123456789012345680.0, 0.1 + 0.2]
)
def test_numbers_that_two_writers_write_differently(value):
    assert canonical({"a": value}) == (json.dumps({"a": value}, indent=2) + "\n").encode()


@pytest.mark.parametrize("text", ["1" * 61, "0." + "1" * 61, "1e400", "-1E999", "1" * 5000, "[1e308, 1e309]"])
def test_numbers_too_long_or_too_large_are_refused_however_they_are_written(text):
    with pytest.raises(DocumentError, match="too l"):
        parse_json(text.encode())


def test_nothing_of_a_document_is_lost():
    given_document = samples.procedure()
    plain = PROCEDURE.plain(PROCEDURE.take(given_document))
    for field, value in given_document.items():
        if field not in ("code", "joint", "passes"):
            assert plain[field] == value, field
    for planned, kept in zip(given_document["passes"], plain["passes"], strict=True):
        assert planned.items() <= kept.items()


def test_coupon_round_trip():
    document = samples.coupon(
        [
            {
                "number": 1,
                "current_a": 240,
                "length_mm": 300,
                "time_s": 80,
                "voltage_v": {"mean": 25.2, "min": 24.9, "max": 25.6},
            }
        ]
    )
    written = COUPON.write(COUPON.take(document))
    assert COUPON.write(COUPON.read(written)) == written
    assert json.loads(written)["coupon"]["passes"][0]["voltage_v"] == {"mean": 25.2, "min": 24.9, "max": 25.6}


def test_every_mistake_is_listed_with_its_path():
    wrong = samples.procedure(title="x" * 10_000, zap=1)
    wrong["passes"][0]["current_a"] = {"min": 300, "max": 100}
    wrong["passes"][1]["voltage_v"] = {"min": 20, "max": 5000}
    wrong["passes"][2]["gas"]["components_percent"] = {"Ar": 50}
    wrong["base_metals"][0]["thickness_mm"] = "20"
    with pytest.raises(DocumentError) as caught:
        PROCEDURE.take(wrong)
    paths = {problem.path for problem in caught.value.problems}
    assert paths == {
        "title",
        "zap",
        "passes.0.current_a",
        "passes.1.voltage_v",
        "passes.2.gas",
        "base_metals.0.thickness_mm",
    }


@pytest.mark.parametrize(
    "raw, reason",
    [
        (b"", "not JSON"),
        (b"{", "not JSON"),
        (b"\xff\xfe", "UTF-8"),
        (b'{"a":1,"a":2}', "twice"),
        (b"[" * 10_000, "deeper"),
        (b'{"version": NaN}', "NaN"),
        (b'{"version": Infinity}', "Infinity"),
        (b"[]", "object"),
        (b'"x"', "object"),
        (b'{"title": "\\ud800"}', "JSON"),
        (b" " * (LARGEST_BYTES + 1), "too many"),
        (b'{"title": "a\\u0000b"}', "control character"),
        (b'{"version": 2}', "1"),
        (b'{"format": "grounded-bead/coupon"}', "procedure"),
        (b'{"passes": [{"number": 2, "process": "135"}]}', "number them 1, 2, 3"),
        (b'{"passes": [{"number": 1, "process": "999"}]}', "135"),
    ],
)
def test_refused_whole(raw, reason):
    with pytest.raises(DocumentError, match=reason):
        PROCEDURE.read(raw)


def test_a_pass_logged_twice_is_refused():
    with pytest.raises(DocumentError, match="stands twice"):
        COUPON.take(samples.coupon([{"number": 1}, {"number": 1}]))


JSON_VALUES = st.recursive(
    st.none() | st.booleans() | st.floats(allow_nan=False, allow_infinity=False) | st.text(max_size=8),
    lambda inner: (
        st.lists(inner, max_size=3)
        | st.dictionaries(
            st.sampled_from(["passes", "joint", "number", "thermal", "kind", "min"]), inner, max_size=4
        )
    ),
    max_leaves=12,
)


@given(JSON_VALUES)
def test_no_json_breaks_the_codec(value):
    try:
        PROCEDURE.take(value)
    except DocumentError as error:
        assert error.problems  # noqa: PT017


def test_the_schema_accepts_what_the_codec_writes():
    # jsonschema is an independent reader of the schema that is shipped.
    validator = Draft202012Validator(PROCEDURE.schema())
    for document in ROUND_TRIPS.values():
        validator.validate(PROCEDURE.plain(PROCEDURE.take(document)))
    assert not validator.is_valid({"zap": 1})


def test_null_says_nothing_and_is_taken_for_an_absent_field():
    plain = samples.coupon([{"number": 1, "segments": None, "interpass": None, "travel_mm_min": None}])
    plain["coupon"].update(base_metals=None, pwht=None)
    plain["procedure"]["passes"][0].update(pulse=None, purge=None)
    document = COUPON.take(plain)
    assert document.coupon.passes[0].segments == () and document.coupon.base_metals == ()
    assert b"null" not in COUPON.write(document)
