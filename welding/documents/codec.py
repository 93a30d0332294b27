"""JSON in and out. Strict: unknown fields, wrong types and odd values are refused with their path."""

from __future__ import annotations

import dataclasses
import json
import re
from functools import cached_property
from typing import Any, Generic, TypeVar

import orjson
from pydantic import ConfigDict, TypeAdapter, ValidationError

from welding.documents import bead_settings as _bead_settings
from welding.documents import corrections as _corrections
from welding.documents import coupon as _coupon
from welding.documents import fault_case as _fault_case
from welding.documents import fields as _fields
from welding.documents import intent as _intent
from welding.documents import joint_list as _joint_list
from welding.documents import library as _library
from welding.documents import machine as _machine
from welding.documents import procedure as _procedure
from welding.documents import record as _record
from welding.documents import setup as _setup
from welding.documents import weld_list as _weld_list
from welding.documents import welder_certificate as _welder_certificate
from welding.documents import welder_weld as _welder_weld
from welding.documents.bead_settings import BeadSettings
from welding.documents.chart import SettingsChart
from welding.documents.corrections import BookCorrections
from welding.documents.coupon import Coupon, CouponPiece, PassRecord, Person
from welding.documents.fault_case import FaultCase
from welding.documents.intent import Intent, Trial
from welding.documents.joint_list import JointList, JointToWeld
from welding.documents.library import OwnMetal, Product
from welding.documents.machine import Machine
from welding.documents.procedure import Pass, Procedure
from welding.documents.record import KINDS, QualificationRecord, Test
from welding.documents.weld_list import WeldList
from welding.documents.welder_certificate import CertificateStatement, WelderCertificate
from welding.documents.welder_weld import WelderWeld
from welding.errors import DocumentError, Problem
from welding.language import tr
from welding.ranges import Range

LARGEST_BYTES = 2_000_000
_TEXT = re.compile(rb'"(?:[^"\\]|\\.)*"', re.DOTALL)
_BRACKET = re.compile(rb"[\[\]{}]")
_ODD = re.compile("[\x00\ud800-\udfff]")
# Where a number may be too long or too large to be taken as it stands, and where the two writers of JSON
# may write one differently.
_LARGE = re.compile(rb"[0-9.]{60}|[0-9][eE]")
_SMALL_OR_LARGE = re.compile(rb"[0-9][eE]|0\.0000|null")
DEEPEST = 40
MOST_PROBLEMS = 50

T = TypeVar("T")

_CLOSED = ConfigDict(extra="forbid", allow_inf_nan=False)
for _module in (
    _bead_settings,
    _fault_case,
    _fields,
    _setup,
    _machine,
    _library,
    _procedure,
    _coupon,
    _record,
    _intent,
    _joint_list,
    _weld_list,
    _welder_weld,
    _welder_certificate,
    _corrections,
):
    for _value in list(vars(_module).values()):
        if dataclasses.is_dataclass(_value) and isinstance(_value, type):
            _value.__pydantic_config__ = _CLOSED  # type: ignore[attr-defined]
Range.__pydantic_config__ = _CLOSED  # type: ignore[attr-defined]


_made: list[Codec[Any]] = []


def all_ready() -> None:
    """Make every reader now: a server does it once, before its workers part."""
    for one in _made:
        one.ready()


class Codec(Generic[T]):
    """Reads and writes one kind of document."""

    def __init__(self, kind: type[T], largest_bytes: int = LARGEST_BYTES) -> None:
        self._kind = kind
        _made.append(self)
        self.largest_bytes = largest_bytes

    @cached_property
    def _adapter(self) -> TypeAdapter[T]:
        """Made when the first document of the kind comes: all of them together take half a second."""
        return TypeAdapter(self._kind)

    def ready(self) -> None:
        """Make the reader now, so that the first document need not wait for it."""
        _ = self._adapter

    def read(self, data: bytes | str) -> T:
        """Read a document.

        Raises:
            DocumentError: Not JSON, too large, too deep, or any field is wrong; all mistakes that
                were found are listed with their paths.
        """
        raw = data.encode("utf-8", "surrogatepass") if isinstance(data, str) else data
        parsed = parse_json(raw, self.largest_bytes)
        if b"null" in raw:
            raw = json.dumps(_said(parsed)).encode()
        return self._validated(raw)

    def take(self, value: Any) -> T:
        """Read a document that has already been parsed from JSON into plain Python values.

        Raises:
            DocumentError: As for ``read``; depth and twins were seen to when it was parsed.
        """
        raw = json.dumps(_said(value), allow_nan=False).encode()
        _not_too_large(raw, self.largest_bytes)
        return self._validated(raw)

    def _validated(self, raw: bytes) -> T:
        try:
            return self._adapter.validate_json(raw, strict=True)
        except ValidationError as error:
            raise DocumentError(_problems(error)) from None

    def plain(self, document: T) -> Any:
        """The document as plain JSON values, in the order of its fields, absent fields left out."""
        return _tidy(self._adapter.dump_python(document, mode="json", exclude_none=True))

    def write(self, document: T) -> bytes:
        """The document as canonical JSON: reading and writing again gives the same bytes."""
        return canonical(self.plain(document))

    def kept(self, document: T) -> Any:
        """The plain values to store. They are read back first: what cannot be read is never stored.

        Raises:
            DocumentError: Written and read again it would be refused, such as text with control characters
                in a document that was put together by code.
        """
        return self.kept_with_bytes(document)[0]

    def kept_with_bytes(self, document: T) -> tuple[Any, bytes]:
        """The plain values to store and their canonical bytes, which are what is read back.

        Raises:
            DocumentError: As for ``kept``.
        """
        plain = self.plain(document)
        try:
            body = canonical(plain)
        except ValueError:  # half a surrogate pair, NaN: told with its path
            self.take(plain)
            raise
        if len(body) > self.largest_bytes or b"null" in body:
            self.take(plain)
        else:
            self._validated(body)
        return plain, body

    def schema(self) -> dict[str, Any]:
        """JSON Schema of the document."""
        return self._adapter.json_schema()


def canonical(plain: Any) -> bytes:
    """Plain values of a document as its canonical bytes: those of the standard library's writer.

    The compiled one is fifty times as fast and writes the same, save numbers with exponents and what it
    would write as ``null``; where such a thing may stand, the standard library writes.
    """
    try:
        raw = orjson.dumps(plain, option=orjson.OPT_INDENT_2)
        if not _SMALL_OR_LARGE.search(raw):
            return raw + b"\n"
    except TypeError:
        pass
    return (json.dumps(plain, ensure_ascii=False, indent=2, allow_nan=False) + "\n").encode()


def _is_too_deep(raw: bytes) -> bool:
    """Whether brackets outside of texts are nested too deep; a text that does not end counts as none."""
    if raw.count(b"[") + raw.count(b"{") <= DEEPEST:
        return False
    depth = 0
    for found in _BRACKET.finditer(_TEXT.sub(b"", raw)):
        depth += 1 if found[0] in b"[{" else -1
        if depth > DEEPEST:
            return True
    return False


def _not_too_large(raw: bytes, largest_bytes: int) -> None:
    if len(raw) > largest_bytes:
        raise _refused(
            tr(
                "{count:,} bytes are too many; a document has at most {largest_bytes:,}",
                count=len(raw),
                largest_bytes=largest_bytes,
            )
        )


def parse_json(raw: bytes, largest_bytes: int = LARGEST_BYTES) -> Any:
    """Parse JSON, refusing what no document needs: too many bytes, too deep, a key twice, NaN.

    Raises:
        DocumentError: One of these, or not JSON at all.
    """
    _not_too_large(raw, largest_bytes)
    if _is_too_deep(raw):
        raise _refused(tr("nested deeper than {deepest} levels", deepest=DEEPEST))
    looked_at: dict[str, Any] = {"parse_int": _short_int, "parse_float": _finite}
    try:
        parsed = json.loads(
            raw.decode("utf-8"),
            object_pairs_hook=_no_twins,
            parse_constant=_no_constant,
            **(looked_at if _LARGE.search(raw) else {}),
        )
        if b"\\u" in raw:  # written out, a text may hold what no text may hold
            _no_odd_text(parsed)
        return parsed
    except UnicodeDecodeError:
        raise _refused(tr("not UTF-8")) from None
    except json.JSONDecodeError as error:
        raise _refused(
            tr(
                "not JSON: {msg} at line {lineno}, column {colno}",
                msg=error.msg,
                lineno=error.lineno,
                colno=error.colno,
            )
        ) from None


def _said(value: Any) -> Any:
    """The same without members that are ``null``: nothing was said of them. A ``null`` in a list stays."""
    if isinstance(value, dict):
        return {key: _said(item) for key, item in value.items() if item is not None}
    if isinstance(value, list):
        return [_said(item) for item in value]
    return value


def _no_twins(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found = dict(pairs)
    if len(found) < len(pairs):
        seen: set[str] = set()
        for key, _ in pairs:
            if key in seen:
                raise _refused(tr("the key {excerpt!r} stands twice in one object", excerpt=_excerpt(key)))
            seen.add(key)
    return found


LONGEST_NUMBER = 60


def _short_int(text: str) -> int:
    if len(text) > LONGEST_NUMBER:
        raise _refused(tr("a number of {count:,} digits is too long", count=len(text)))
    return int(text)


def _finite(text: str) -> float:
    value = float(text) if len(text) <= LONGEST_NUMBER else float("inf")
    if value in (float("inf"), float("-inf")):
        raise _refused(tr("{excerpt} is too large or too long a number", excerpt=_excerpt(text)))
    return value


def _no_odd_text(value: Any) -> None:
    """Refuse NUL and halves of surrogate pairs, in keys too: no database and no file takes them."""
    waiting: list[tuple[tuple[str, ...], Any]] = [((), value)]
    while waiting:
        path, one = waiting.pop()
        if isinstance(one, dict):
            # A document in the body of a request has paths of its own.
            inner = [
                (key, () if not path and isinstance(item, dict) else (*path, key))
                for key, item in one.items()
            ]
            waiting += [(path, key) for key in one]
            waiting += [(below, one[key]) for key, below in inner]
        elif isinstance(one, list):
            waiting += [((*path, str(at)), item) for at, item in enumerate(one)]
        elif isinstance(one, str) and (odd := _ODD.search(one)):
            what = (
                tr("no JSON: half a surrogate pair")
                if odd[0] > "\ud7ff"
                else tr("the control character U+0000")
            )
            raise DocumentError((Problem(".".join(path), tr("holds {what}", what=what)),))


def _no_constant(name: str) -> Any:
    raise _refused(tr("{name} is no JSON number", name=name))


def _refused(message: str) -> DocumentError:
    return DocumentError((Problem("", message),))


def _problems(error: ValidationError) -> tuple[Problem, ...]:
    problems: list[Problem] = []
    for item in error.errors(include_url=False, include_context=False)[:MOST_PROBLEMS]:
        path = _path(item["loc"])
        message = item["msg"].removeprefix("Value error, ").removeprefix("Input should be ")
        if item["type"] in ("unexpected_keyword_argument", "extra_forbidden"):
            message = tr("this field is not known")
        elif item["msg"].startswith("Input should be "):
            message = tr("should be ") + message
        elif item["type"] == "union_tag_invalid":
            message = tr("no test of this kind is known; there are {kinds}", kinds=", ".join(KINDS))
        elif item["type"] in ("missing", "missing_argument", "union_tag_not_found"):
            message = tr("this field is needed")
        problems.append(Problem(path, message, _excerpt(item.get("input"))))
    return tuple(dict.fromkeys(problems))


def _path(location: tuple[str | int, ...]) -> str:
    """Path of a field, without the names of the branches that a union tried on the way."""
    parts = [
        str(part)
        for index, part in enumerate(location)
        if not _is_branch(part) and not (part in KINDS and index >= 2 and location[index - 2] == "tests")
    ]
    return ".".join(parts)


def _is_branch(part: str | int) -> bool:
    """Whether a path part names a branch of a union and not a field of the document."""
    text = str(part)
    return text in ("float", "bool", "Spread", "ImpactRequirement", "Range") or "[" in text


def _excerpt(value: Any) -> str:
    if isinstance(value, (dict, list, tuple)) or value is None:
        return ""
    text = str(value)
    return text if len(text) <= 60 else text[:57] + "…"


_EMPTY_COUNTS = ("openings_mm", "flaws_mm")
"""Lists that say something when they are empty: that one looked and found nothing."""


def _tidy(value: Any) -> Any:
    """Whole floats as integers, empty lists and objects of optional fields left out."""
    if isinstance(value, dict):
        tidy = {key: _tidy(item) for key, item in value.items()}
        return {key: item for key, item in tidy.items() if item not in ([], {}) or key in _EMPTY_COUNTS}
    if isinstance(value, list):
        return [_tidy(item) for item in value]
    if isinstance(value, float) and value.is_integer() and abs(value) < 2**53:
        return int(value)
    return value


PROCEDURE = Codec(Procedure)
COUPON = Codec(Coupon)
PASS = Codec(Pass)
PASS_RECORD = Codec(PassRecord)
PIECE = Codec(CouponPiece)
PERSON = Codec(Person)
MACHINE = Codec(Machine)
PRODUCT = Codec(Product)
OWN_METAL = Codec(OwnMetal)
CHART = Codec(SettingsChart)
INTENT = Codec(Intent)
BEAD_SETTINGS = Codec(BeadSettings)
FAULT_CASE = Codec(FaultCase)
TRIAL = Codec(Trial)
RECORD = Codec(QualificationRecord)
TEST: Codec[Any] = Codec(Test)  # type: ignore[arg-type]
JOINT_LIST = Codec(JointList)
WELD_LIST = Codec(WeldList, 20_000_000)
JOINT = Codec(JointToWeld)
WELDER_WELD = Codec(WelderWeld)
WELDER_CERTIFICATE = Codec(WelderCertificate)
CERTIFICATE_STATEMENT = Codec(CertificateStatement)
CORRECTIONS = Codec(BookCorrections)

CODECS: dict[str, Codec[Any]] = {
    "procedure": PROCEDURE,
    "coupon": COUPON,
    "qualification-record": RECORD,
    "machine": MACHINE,
    "product": PRODUCT,
    "metal": OWN_METAL,
    "chart": CHART,
    "intent": INTENT,
    "bead-settings": BEAD_SETTINGS,
    "fault-case": FAULT_CASE,
    "joint-list": JOINT_LIST,
    "weld-list": WELD_LIST,
    "joint": JOINT,
    "welder-certificate": WELDER_CERTIFICATE,
    "certificate-statement": CERTIFICATE_STATEMENT,
    "book-corrections": CORRECTIONS,
}
