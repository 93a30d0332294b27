"""Errors of the core. All are ``ValueError`` and carry their facts as attributes."""

from dataclasses import dataclass


class WeldingError(ValueError):
    """Something could not be read or computed. The text is fit to show to a user."""


class OutOfRangeError(WeldingError):
    """A value lies outside what a formula or a field accepts."""

    def __init__(self, name: str, value: float, allowed: str) -> None:
        self.name = name
        self.value = value
        self.allowed = allowed
        super().__init__(f"{name} = {value:g}, allowed is {allowed}")


class UnreadableError(WeldingError):
    """A typed quantity could not be understood; ``reason`` says why and what would be."""

    def __init__(self, text: str, reason: str) -> None:
        self.text = text
        self.reason = reason
        super().__init__(reason)


class AmbiguousError(UnreadableError):
    """A text that could mean several things; ``candidates`` are ways to write each of them."""

    def __init__(self, text: str, reason: str, candidates: tuple[str, ...]) -> None:
        self.candidates = candidates
        super().__init__(text, f"{reason}: {', '.join(candidates)}" if candidates else reason)


class TableError(WeldingError):
    """A table file breaks the rules of tables (missing passport, gap, unknown key)."""


class UnknownEntryError(WeldingError):
    """A name that a table or a catalogue does not have."""


@dataclass(frozen=True, slots=True)
class Problem:
    """One mistake in a document: where it stands, what is wrong, what stood there."""

    path: str
    message: str
    value: str = ""


class DocumentError(WeldingError):
    """A document was refused whole; ``problems`` lists every mistake with its path."""

    def __init__(self, problems: tuple[Problem, ...]) -> None:
        self.problems = problems
        first = problems[0]
        more = f" (and {len(problems) - 1} more)" if len(problems) > 1 else ""
        where = f"{first.path}: " if first.path else ""
        super().__init__(f"{where}{first.message}{more}")
