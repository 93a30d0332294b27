"""The short form in which this program writes an operator's test; the standard has no designation.

``ISO 14732 mechanized 135 PA direct-view tracking single-run backing functional-test``: the kind of machine
welding, the process, and what of these holds: ``unit=NAME``, ``direct-view`` or ``camera-view``,
``arc-length-control``, ``tracking``, ``arc-sensor``, ``joint-sensor``, ``single-run`` or ``multi-run``,
``backing`` or ``no-backing``, ``functional-test`` or ``no-functional-test``.
"""

from __future__ import annotations

import re
from typing import Any

from welding.documents.codec import WELDER_WELD
from welding.documents.welder_weld import Operation, ProcessPart, WelderWeld
from welding.errors import DocumentError, UnreadableError
from welding.language import tr

SHORT = "ISO 14732"
CODE = "iso-14732:2013"
_FLAGS = {
    "arc-length-control": "arc_length_control",
    "tracking": "joint_tracking",
    "arc-sensor": "arc_sensor",
    "joint-sensor": "joint_sensor",
}
_TESTED = {"functional-test": True, "no-functional-test": False}
_VIEWS = {"direct-view": "direct", "camera-view": "remote"}
_BACKINGS = {"backing": "backing", "no-backing": "no backing"}


def read(text: str) -> WelderWeld:
    """The short form without its prefix as a weld.

    Raises:
        UnreadableError: A word is unknown or stands twice, or the kind of welding or the process is missing.
    """
    operation: dict[str, Any] = {}
    weld: dict[str, Any] = {}
    for word in text.replace(",", " ").split():
        into, name, value = _fact(text, word)
        facts = operation if into == "operation" else weld
        if name in facts:
            raise UnreadableError(text, tr("{word!r} is said twice.", word=word))
        facts[name] = value
    if "mode" not in operation:
        raise UnreadableError(text, tr("Whether it is mechanized or automatic is missing."))
    process = weld.pop("process", None)
    if process is None:
        raise UnreadableError(text, tr("The process is missing."))
    made = WelderWeld(
        code=CODE,
        person="operator",
        parts=(ProcessPart(process=process),),
        position=weld.pop("position", "PA"),
        operation=Operation(**operation),
        from_designation=True,
        **weld,
    )
    try:
        return WELDER_WELD.take(WELDER_WELD.plain(made))
    except DocumentError as error:
        raise UnreadableError(text, str(error)) from None


def _fact(text: str, word: str) -> tuple[str, str, Any]:
    lower = word.lower()
    if lower in ("mechanized", "automatic"):
        return "operation", "mode", lower
    if re.fullmatch(r"\d{2,3}", word):
        return "weld", "process", word
    if re.fullmatch(r"P[A-HJ]|[HJ]-L045", word):
        return "weld", "position", word
    if lower.startswith("unit=") and len(word) > 5:
        return "operation", "unit", word[5:]
    if lower in _FLAGS:
        return "operation", _FLAGS[lower], True
    if lower in _TESTED:
        return "operation", "functional_test", _TESTED[lower]
    if lower in _VIEWS:
        return "operation", "view", _VIEWS[lower]
    if lower in ("single-run", "multi-run"):
        return "operation", "runs", lower
    if lower in _BACKINGS:
        return "weld", "backing", _BACKINGS[lower]
    raise UnreadableError(
        text,
        tr(
            "{word!r} is not understood. A short form is such as: {example}",
            word=word,
            example="ISO 14732 mechanized 135 PA direct-view tracking single-run backing functional-test",
        ),
    )


def write(weld: WelderWeld) -> str:
    """The short form of a weld; ``read`` gives back every fact of it."""
    operation = weld.operation or Operation(mode="mechanized")
    words = [SHORT, operation.mode, weld.parts[0].process, weld.position]
    if operation.unit:
        words.append(f"unit={operation.unit}")
    words += [word for word, value in _VIEWS.items() if value == operation.view]
    words += [word for word, name in _FLAGS.items() if getattr(operation, name)]
    words.append(operation.runs or "")
    words += [word for word, value in _BACKINGS.items() if value == weld.backing]
    words += [word for word, value in _TESTED.items() if value == operation.functional_test]
    return " ".join(one for one in words if one)
