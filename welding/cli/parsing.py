"""What the calls share: a parser that raises our errors, and numbers as people type them."""

from __future__ import annotations

import argparse
from fractions import Fraction
from typing import Any, NoReturn

from welding.errors import AmbiguousError, WeldingError
from welding.heat.energy import Efficiency, thermal_efficiency
from welding.setup.process_names import processes_called

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


def efficiency_of(process: str) -> Efficiency:
    """Thermal efficiency k of a process by its number, its AWS letters or what it is called.

    Raises:
        AmbiguousError: The name stands for several processes, and k is not the same for all of them.
        UnreadableError: No process is called that.
        UnknownEntryError: The table gives no k for it.
    """
    numbers = processes_called(process)
    found = [thermal_efficiency(number) for number in numbers]
    if len({one.k for one in found}) > 1:
        raise AmbiguousError(process, f"k of {process} depends on which process it is", numbers)
    return found[0]
