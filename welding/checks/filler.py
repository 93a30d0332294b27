"""The filler's class against process, polarity, gas, position, runs, thickness and transfer."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from welding.checks.context import Draft
from welding.citation import COMMON_PRACTICE
from welding.codebook.table import load_table
from welding.consumables.designations.decode import decode
from welding.consumables.designations.model import Decoded
from welding.consumables.gas import gas_text
from welding.consumables.gas_symbol import MetalFamily, gas_symbol, transfer_modes
from welding.documents.procedure import Pass
from welding.finding import Finding, Obligation, Verdict
from welding.glossary.values import in_words
from welding.language import tr, tr_noop

WIRE = ("131", "132", "133", "135", "136", "138")
TIG = ("141", "142", "143", "145", "146")
_SAME_WIRE = {"131": "135", "132": "136", "133": "138"}
"""Inert-gas processes by the active-gas one that takes the same wire."""

FAMILIES: dict[str, MetalFamily] = {
    "AWS A5.18": "steel",
    "AWS A5.28": "steel",
    "ISO 14341-A": "steel",
    "ISO 16834-A": "steel",
    "ISO 21952-A": "steel",
    "AWS A5.9": "stainless",
    "ISO 14343-A": "stainless",
    "AWS A5.10": "aluminium",
    "ISO 18273": "aluminium",
}


def decoded_of(one: Pass) -> Decoded | None:
    """What the pass's filler says; ``None`` where none is stated or it is not understood."""
    if one.filler is None or not one.filler.designation:
        return None
    found = decode(one.filler.designation)
    return found if found.valid else None


def polarities_of(draft: Draft, one: Pass) -> tuple[str, ...]:
    """Polarities that the filler allows with this pass's process; empty where none is named.

    A maker's sheet that was entered for the product outranks the class.
    """
    sheet = draft.maker_range(one)
    if sheet is not None and sheet.polarity is not None:
        return (sheet.polarity,)
    filler = decoded_of(one)
    if filler is None:
        return ()
    if filler.product.startswith("solid wire") and set(filler.polarities) >= {"DCEP", "DCEN"}:
        if one.process in TIG:
            return ("AC", "DCEN") if FAMILIES.get(filler.system) == "aluminium" else ("DCEN",)
        return ("DCEP",) if one.process in WIRE else ()
    return filler.polarities


def filler_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass's filler."""
    for index, one in enumerate(draft.procedure.passes):
        if one.filler is None or not one.filler.designation:
            continue
        filler = decode(one.filler.designation)
        check = _Check(draft, index, one, filler)
        if not filler.valid:
            yield check.unknown()
            continue
        yield from check.findings()


@dataclass(frozen=True, slots=True)
class _Check:
    draft: Draft
    index: int
    one: Pass
    filler: Decoded

    def findings(self) -> Iterator[Finding]:
        yield from self._process()
        yield from self._polarity()
        yield from self._gas()
        yield from self._position()
        yield from self._runs()
        yield from self._thickness()
        yield from self._transfer()

    def _say(
        self,
        rule: str,
        verdict: Verdict,
        field: str,
        title: str,
        message: str,
        *,
        actual: str = "",
        limit: str = "",
        remedy: str = "",
        obligation: Obligation = "requirement",
        path: str = "",
        practice: bool = False,
    ) -> Finding:
        sources = self.filler.sources
        return Finding(
            rule=rule,
            verdict=verdict,
            obligation=obligation,
            path=path or f"passes.{self.index}.{field}",
            title=tr("{title}, pass {number}", title=title, number=self.one.number),
            message=message,
            actual=actual,
            limit=limit,
            remedy=remedy,
            citations=(COMMON_PRACTICE,) if practice else sources.citations,
            unchecked=() if practice else sources.unchecked,
        )

    def unknown(self) -> Finding:
        near = self.filler.suggestions
        return self._say(
            "filler.class",
            "undecided",
            "filler.designation",
            tr("Filler is not understood"),
            f"{self.filler.reason[:1].upper()}{self.filler.reason[1:]}{'' if near else '.'}",
            obligation="recommendation",
            actual=self.filler.designation,
            remedy="" if near else tr("Check the spelling; nothing about this filler is judged."),
            practice=True,
        )

    def _process(self) -> Iterator[Finding]:
        said, filler = self.one.process, self.filler
        fits = said in filler.processes or _SAME_WIRE.get(said) in filler.processes
        if not fits and said in TIG and "141" in filler.processes:
            fits = True
        if not fits and (said, filler.process) in (("136", "138"), ("135", "131")):
            fits = True  # older editions count metal-cored wire as 136; the gas decides 131 or 135
        if said.startswith("12") or said in ("15", "311"):
            return
        usual = " or ".join(filler.processes)
        yield self._say(
            "filler.process",
            "complies" if fits else "violates",
            "process",
            tr("Filler suits the process") if fits else tr("Filler is of another process"),
            tr(
                "{designation} is {a} for process {usual}; the pass is {said}.",
                designation=filler.designation,
                a=product_words(filler.product),
                usual=usual,
                said=said,
            ),
            actual=said,
            limit=usual,
            remedy=""
            if fits
            else tr("Choose process {usual}, or a filler for {said}.", usual=usual, said=said),
        )

    def _polarity(self) -> Iterator[Finding]:
        allowed, said = polarities_of(self.draft, self.one), self.one.polarity
        if not allowed or said is None:
            return
        fits = said in allowed
        expected = " or ".join(allowed)
        product, sheet = self.draft.product(self.one), self.draft.maker_range(self.one)
        ruled = ""
        if product and sheet and sheet.polarity and sheet.polarity not in self.filler.polarities:
            ruled = tr(" The sheet of {name} rules here, not the class.", name=product.name)
        yield self._say(
            "polarity.class",
            "complies" if fits else "violates",
            "polarity",
            tr("Polarity is the filler's") if fits else tr("Wrong polarity"),
            tr(
                "{designation} runs on {expected}; {said} is stated.",
                designation=self.filler.designation,
                expected=expected,
                said=said,
            )
            + ("" if fits else tr(" The arc would be harsh and shallow."))
            + ruled,
            actual=said,
            limit=expected,
            remedy="" if fits else tr("Set {allowed}.", allowed=allowed[0]),
        )

    def _gas(self) -> Iterator[Finding]:
        filler, gas = self.filler, self.one.gas
        if filler.shielding == "self" and gas is not None:
            yield self._say(
                "gas.class",
                "violates",
                "gas",
                tr("Self-shielded wire with gas"),
                tr(
                    "{designation} shields itself; {gas_text} is stated.",
                    designation=filler.designation,
                    gas_text=gas_text(gas.components_percent),
                ),
                actual=gas_text(gas.components_percent),
                limit=tr("no gas"),
                remedy=tr("Remove the gas, or choose a gas-shielded wire."),
            )
            return
        if gas is None or not filler.gases or filler.shielding != "gas":
            return
        text = gas_text(gas.components_percent)
        symbol = gas_symbol(gas.components_percent).iso_14175
        fits = any(_is_of(one, symbol, gas.components_percent) for one in filler.gases)
        inert_only = set(filler.gases) <= {"I1", "I2", "I3"}
        allowed = " or ".join(_words(one) for one in filler.gases)
        yield self._say(
            "gas.class",
            "complies" if fits else "violates",
            "gas",
            tr("Gas is the class's") if fits else tr("Gas is not the class's"),
            tr(
                "{designation} was classified with {allowed}; {text} ({symbol}) is stated.",
                designation=filler.designation,
                allowed=allowed,
                text=text,
                symbol=symbol,
            )
            + (
                ""
                if fits or inert_only
                else tr(" Strength and toughness of the deposit change with the gas.")
            ),
            actual=f"{text} ({symbol})",
            limit=allowed,
            remedy=""
            if fits
            else tr("Use {allowed}, or a wire classified with {symbol}.", allowed=allowed, symbol=symbol),
            obligation="requirement" if inert_only else "recommendation",
        )

    def _position(self) -> Iterator[Finding]:
        if not self.filler.positions:
            return
        rows = {row["position"]: row for row in load_table("welding.joints", "positions").rows}
        for number, position in enumerate(self.draft.procedure.positions):
            row = rows[position]
            why = _refuses(
                self.filler, row["attitude"], "groove" in row["welds"], self._way(row["progression"])
            )
            yield self._say(
                "position.class",
                "violates" if why else "complies",
                "",
                tr("Filler is not for {position}", position=position)
                if why
                else tr("Filler suits {position}", position=position),
                tr(
                    "{designation} is {why}; {position} is {row}.",
                    designation=self.filler.designation,
                    why=why,
                    position=position,
                    row=tr(row["words"]),
                )
                if why
                else tr(
                    "{designation} may be used in {position}, {row}.",
                    designation=self.filler.designation,
                    position=position,
                    row=tr(row["words"]),
                ),
                actual=position,
                limit=in_words(self.filler.positions),
                remedy=tr("Choose a filler for this position.") if why else "",
                obligation="recommendation" if _runs_upwards(self.filler) else "requirement",
                path=f"positions.{number}",
            )

    def _way(self, progression: str) -> str:
        return self.one.progression or (progression if progression in ("up", "down") else "")

    def _runs(self) -> Iterator[Finding]:
        if self.filler.runs != "single":
            return
        mates = sum(other.side == self.one.side for other in self.draft.procedure.passes)
        yield self._say(
            "runs.class",
            "violates" if mates > 1 else "complies",
            "filler.designation",
            tr("Single-run filler in several passes")
            if mates > 1
            else tr("Single-run filler in a single pass"),
            tr(
                "{designation} is for single runs only; this side has {mates} {value}.",
                designation=self.filler.designation,
                mates=mates,
                value=tr("pass") if mates == 1 else tr("passes"),
            ),
            actual=tr("{mates} passes", mates=mates),
            limit=tr("one pass"),
            remedy=tr("Choose a multi-run class.") if mates > 1 else "",
        )

    def _thickness(self) -> Iterator[Finding]:
        limit = self.filler.thickness_max_mm
        thickest = max(
            (m.thickness_mm for m in self.draft.procedure.base_metals if m.thickness_mm), default=None
        )
        if limit is None or thickest is None:
            return
        over = thickest > limit * (1 + 1e-9)
        found, allowed = (self.draft.write(value, "thickness") for value in (thickest, limit))
        yield self._say(
            "thickness.class",
            "violates" if over else "complies",
            "filler.designation",
            tr("Metal is thicker than the class is meant for") if over else tr("Thickness suits the class"),
            tr(
                "{designation} is meant for up to {allowed}; the thickest metal is {found}.",
                designation=self.filler.designation,
                allowed=allowed,
                found=found,
            ),
            actual=found,
            limit=allowed,
            remedy=tr("Control preheat and interpass, or choose another class.") if over else "",
            obligation="recommendation",
        )

    def _transfer(self) -> Iterator[Finding]:
        one, gas = self.one, self.one.gas
        family = FAMILIES.get(self.filler.system)
        wanted = "short-circuit" if one.transfer == "controlled-short-circuit" else one.transfer
        if family is None or gas is None or wanted is None or one.process not in ("131", "135", "138"):
            return
        modes = transfer_modes(gas.components_percent, family)
        fits = wanted in modes.all
        possible = ", ".join(in_words(mode) for mode in modes.all) or tr("no mode that is sound")
        text, shown = gas_text(gas.components_percent), in_words(wanted)
        yield self._say(
            "transfer.gas",
            "complies" if fits else "violates",
            "transfer",
            tr("{upper}{shown} suits the gas", upper=shown[:1].upper(), shown=shown[1:])
            if fits
            else tr("No {shown} in this gas", shown=shown),
            tr(
                "{text} on {family} gives {possible}; {shown} is stated.",
                text=text,
                family=in_words(family),
                possible=possible,
                shown=shown,
            ),
            actual=shown,
            limit=possible,
            remedy="" if fits else tr("Change the gas or the transfer."),
            obligation="recommendation",
            practice=True,
        )


PRODUCTS = (
    *(
        tr_noop("a covered electrode"),
        tr_noop("a solid wire or rod"),
        tr_noop("a solid wire"),
        tr_noop("a rod"),
    ),
    *(tr_noop("a flux-cored wire"), tr_noop("a metal-cored wire"), tr_noop("a flux-cored rod")),
    *(tr_noop("a strip"), tr_noop("a plasma wire"), tr_noop("a wire for laser")),
    *(tr_noop("a wire for submerged arc"), tr_noop("a cored wire for submerged arc")),
)
"""What a designation can name."""


def product_words(product: str) -> str:
    """A product with its article."""
    with_article = f"{'an' if product[0] in 'aeiou' else 'a'} {product}"
    return tr(with_article)


def _is_of(classified: str, symbol: str, components: dict[str, float] | object) -> bool:
    if classified == "CO2":
        return symbol == "C1"
    if classified == "Ar+20-25CO2":
        # A5.20 prints 75 to 80 % Ar; its later edition and ISO 14175 take the whole of M21.
        return symbol == "M21"
    return symbol == classified or (classified == "M2" and symbol.startswith("M2"))


def _words(classified: str) -> str:
    return {
        "I1": tr("argon"),
        "I2": tr("helium"),
        "I3": tr("argon-helium"),
        "Ar+20-25CO2": tr("75 to 80 % Ar, rest CO2"),
    }.get(classified, classified)


def _runs_upwards(filler: Decoded) -> bool:
    """Stainless and nickel electrodes of AWS classes, which say nothing of it (common practice)."""
    return filler.system in ("AWS A5.4", "AWS A5.11") and filler.positions == "all"


def _refuses(filler: Decoded, attitude: str, groove: bool, way: str) -> str:
    """Why the class is not for this position; empty where it is."""
    where = filler.positions
    upward_only = tr("vertical welds upwards only") in filler.notes
    downhill = attitude in ("vertical", "several") and way == "down"
    if downhill and (upward_only or where == "all-but-vertical-down"):
        return tr("not for vertical downwards")
    if downhill and _runs_upwards(filler):
        return tr("not for vertical downwards: electrodes of its covering are welded upwards")
    if where in ("all", "all-but-vertical-down"):
        return ""
    if where == "flat-horizontal-overhead-vertical-down":
        uphill = attitude in ("vertical", "several") and way == "up"
        return tr("for vertical downwards only, not upwards") if uphill else ""
    if where == "flat-horizontal-vertical-down" and attitude == "vertical" and way == "down":
        return ""
    if attitude == "flat" or (where != "flat" and attitude == "horizontal"):
        horizontal_groove = attitude == "horizontal" and groove and filler.product == "covered electrode"
        return tr("for horizontal fillets, not for horizontal butts") if horizontal_groove else ""
    return tr("for {value} only", value=tr("flat") if where == "flat" else tr("flat and horizontal"))
