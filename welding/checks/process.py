"""Process, gas and polarity against one another: the gross errors of a set-up."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import polarities_of
from welding.citation import Citation
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.language import tr

ISO_4063 = Citation(
    document="ISO 4063", clause="definitions of processes", provenance="memory", confidence="high"
)
POLARITY = Citation(
    document="common practice", clause="polarity by process", provenance="practice", confidence="high"
)

SELF_SHIELDED = ("111", "112", "114")
TIG = ("141", "142", "143", "145", "146")
ACTIVE_WIRE = ("135", "136", "138")
INERT_WIRE = ("131", "132", "133")

_USUAL_POLARITY = {
    **dict.fromkeys(("131", "132", "133", "135", "136", "138"), ("DCEP",)),
    "114": ("DCEN", "DCEP"),
    **dict.fromkeys(TIG, ("DCEN", "AC")),
}


def process_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass's gas and polarity."""
    for index, one in enumerate(draft.procedure.passes):
        yield from _gas(index, one)
        yield from _polarity(index, one, named=bool(polarities_of(draft, one)))


def _gas(index: int, one: Pass) -> Iterator[Finding]:
    path = f"passes.{index}.gas"
    if one.gas is None:
        return
    parts = {name: share for name, share in one.gas.components_percent.items() if share > 0}
    active = sum(parts.get(name, 0) for name in ("CO2", "O2"))
    text = "+".join(f"{name} {share:g}" for name, share in parts.items())
    bad, remedy = "", ""
    if one.process in SELF_SHIELDED:
        bad = tr("process {process} shields itself; no gas is used with it", process=one.process)
        remedy = tr("Remove the gas, or choose the gas-shielded process.")
    elif one.process in ACTIVE_WIRE and active == 0:
        bad = tr("process {process} is active-gas welding, {text} is inert", process=one.process, text=text)
        remedy = (
            tr("Call it 131, or choose an active gas.")
            if one.process == "135"
            else tr("Choose an active gas.")
        )
    elif one.process in INERT_WIRE and active > 0:
        bad = tr("process {process} is inert-gas welding, {text} is active", process=one.process, text=text)
        remedy = tr("Call it 135, or choose an inert gas.")
    elif one.process in TIG and active > 0:
        bad = tr("{text} burns the tungsten away; TIG needs an inert gas", text=text)
        remedy = tr("Choose argon or an argon-helium mix.")
    yield Finding(
        rule="gas.process",
        verdict="violates" if bad else "complies",
        path=path,
        title=tr("Gas does not fit the process, pass {number}", number=one.number)
        if bad
        else tr("Gas fits the process, pass {number}", number=one.number),
        message=f"{bad[:1].upper()}{bad[1:]}."
        if bad
        else tr("{text} fits process {process}.", text=text, process=one.process),
        actual=text,
        limit=tr("process {process}", process=one.process),
        remedy=remedy,
        citations=(ISO_4063,),
    )


def _polarity(index: int, one: Pass, *, named: bool) -> Iterator[Finding]:
    usual = _USUAL_POLARITY.get(one.process)
    if usual is None or one.polarity is None or named:
        return  # where the filler's class names the polarity, that is what counts
    fits = one.polarity in usual
    expected = " or ".join(usual)
    yield Finding(
        rule="polarity.process",
        verdict="complies" if fits else "violates",
        obligation="recommendation",
        path=f"passes.{index}.polarity",
        title=tr("Polarity is the usual one, pass {number}", number=one.number)
        if fits
        else tr("Polarity is unusual, pass {number}", number=one.number),
        message=tr(
            "Process {process} runs on {expected}; {polarity} is stated.",
            process=one.process,
            expected=expected,
            polarity=one.polarity,
        )
        + ("" if fits else tr(" Wrong polarity gives a harsh, shallow arc.")),
        actual=one.polarity,
        limit=expected,
        remedy="" if fits else tr("Check the filler's class, then set {usual}.", usual=usual[0]),
        citations=(POLARITY,),
    )
