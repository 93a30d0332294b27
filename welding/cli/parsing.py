"""What the calls share: a parser that raises our errors, and numbers as people type them."""

from __future__ import annotations

import argparse
from fractions import Fraction
from typing import Any, NoReturn

from welding.errors import WeldingError

Calls = Any  # argparse gives its sub-parsers no public type


class Parser(argparse.ArgumentParser):
    """A parser whose mistakes are our errors, so that every refusal looks alike."""

    def error(self, message: str) -> NoReturn:
        """Raise what argparse would print."""
        raise WeldingError(message)


def number(text: str) -> float:
    """A number: ``7.5``, ``7,5``, ``1/2``."""
    try:
        return float(Fraction(text.replace(",", ".")))
    except (ValueError, ZeroDivisionError):
        raise argparse.ArgumentTypeError(f"{text!r} is no number") from None
