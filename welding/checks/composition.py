"""The filler's alloy against the metal's: chromium, molybdenum, nickel, niobium, copper; and no filler."""

from __future__ import annotations

import re
from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.checks.saying import ask, of_pass
from welding.consumables.designations.model import Decoded
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.language import tr
from welding.metals.catalogue import Metal
from welding.metals.kinds import copper_kind

NICKEL_SYSTEMS = ("AWS A5.11", "AWS A5.14", "AWS A5.34", "ISO 18274", "ISO 14172")
STAINLESS_SYSTEMS = ("AWS A5.4", "AWS A5.9", "AWS A5.22", "ISO 14343-A", "ISO 3581-A", "ISO 17633-A")
COPPER_SYSTEMS = ("AWS A5.6", "AWS A5.7", "ISO 24373")
_CREEP = (
    (r"B9|CRMO9[12]|CRMOWV12|CRMOWVNB", 9.0), (r"B8|CRMO9", 9.0), (r"B6|CRMO5", 5.0),
    (r"B3|B23|B24|CRMO2", 2.25),
    (r"B2|CRMO1", 1.25), (r"-B1|CRMO0|CRMO\b", 0.5),
)  # fmt: skip
"""Chromium of creep-resisting classes [%], by the letters of AWS and ISO names."""
_NICKEL = ((r"C2|NI3|3NI", 3.4), (r"C1|NI2|2NI", 2.4), (r"C3|NI1|1NI|W2|K[2-7]", 0.9))
HARD_FILLER_MPA = 800.0
COLOUR_PASSES = 3
_OPEN = re.compile(r"-G\b|-G[CM]?\b|\bZ\b|S Z|-GM|-GC")


def composition_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass's alloy, where every stated metal is known."""
    stated = [one for one in draft.procedure.base_metals if one.designation]
    metals = [metal for one in stated if (metal := draft.metal(one))]
    if not metals or len(metals) < len(stated):
        return
    count = len(draft.procedure.passes)
    for index, one in enumerate(draft.procedure.passes):
        filler = decoded_of(one)
        told = _no_filler(one, metals) if filler is None else _trouble(filler, one, metals, count)
        if told is not None:
            title, message, remedy = told
            yield ask(
                "filler.composition",
                f"passes.{index}.filler.designation",
                of_pass(title, one),
                message,
                remedy,
                verdict="violates",
            )


def _share(metal: Metal, element: str) -> float:
    return sum(metal.chemistry.get(element, (0.0, 0.0))) / 2


_Told = tuple[str, str, str]


def _no_filler(one: Pass, metals: list[Metal]) -> _Told | None:
    bare = one.filler is None or not one.filler.designation
    duplex = all(metal.family == "duplex" for metal in metals)
    if bare and duplex and one.process in ("141", "142", "145", "15"):
        return (
            tr("Duplex without filler"),
            tr("Duplex melted without filler becomes almost all ferrite; filler has more nickel against it."),
            tr("Add 2209 or 2594, or anneal it afterwards."),
        )
    return None


def _trouble(filler: Decoded, one: Pass, metals: list[Metal], count: int) -> _Told | None:
    name = filler.designation
    families = {metal.family for metal in metals}
    if filler.system in NICKEL_SYSTEMS:
        return None
    if families == {"cr-mo"} and not any(_share(m, "C") > 0.24 for m in metals):
        return _creep(filler, metals)
    if families == {"ni-steel"}:
        return _cold(filler, metals)
    if families == {"cr-mo", "austenitic"} and filler.system in STAINLESS_SYSTEMS:
        hot = any(_hot(m) for m in metals if m.family == "austenitic")
        strong = any(_share(m, "Cr") > 1.9 for m in metals if m.family == "cr-mo")
        if hot and strong:
            return (
                tr("Stainless filler in a hot joint"),
                tr(
                    "{name} between creep-resisting steel and a grade for heat: carbon moves into it "
                    "in service and the joint fails by creep beside the weld.",
                    name=name,
                ),
                tr("Choose a nickel filler, such as ERNiCr-3 or ENiCrFe-3."),
            )
    if families <= {"austenitic"} and filler.system in STAINLESS_SYSTEMS:
        return _austenitic(name, metals)
    if families == {"duplex"}:
        return _duplex(name, metals)
    if families == {"copper"} and filler.system in COPPER_SYSTEMS:
        return _copper(filler.classed, metals)
    if families == {"weathering"} and count >= COLOUR_PASSES and one.role == "cap":
        weathers = re.search(r"W[12C]?\b|-W\d|NI[123]|1NI|-G\b|C[123]\b|Z", name.upper())
        if not weathers:
            return (
                tr("Filler does not weather like the steel"),
                tr(
                    "{name} at the surface of a weld of {count} passes in weathering steel: it takes "
                    "another colour and rusts faster where the steel stays bare.",
                    name=name,
                    count=count,
                ),
                tr("Choose a weathering class for the cap, or paint the joint."),
            )
    soft = (filler.tensile_mpa or 0.0) < HARD_FILLER_MPA
    hard = all(m.name.startswith("wear plate") for m in metals)
    if hard and not soft and families <= {"carbon", "weathering"}:
        return (
            tr("Hard filler on hard plate"),
            tr(
                "{name} is as strong as wear plate allows to be: cold cracking; a softer filler is usual.",
                name=name,
            ),
            tr("Choose a filler of about 500 MPa, unless strength is asked for."),
        )
    return None


def _creep(filler: Decoded, metals: list[Metal]) -> _Told | None:
    name = filler.designation
    wanted = min(_share(metal, "Cr") for metal in metals)
    if filler.system in STAINLESS_SYSTEMS or _OPEN.search(name):
        return None
    text = name.upper().replace(" ", "")
    found = next((share for shape, share in _CREEP if re.search(shape, text)), 0.0)
    if wanted < 0.3:
        fits = bool(re.search(r"A1|MO|D[12]|B1|70S|7018|7016", text)) or found > 0
    else:
        fits = found >= 0.6 * wanted and found <= max(2.6 * max(_share(m, "Cr") for m in metals), 1.3)
    if fits:
        return None
    grade = " to ".join(dict.fromkeys(metal.name for metal in metals))
    return (
        tr("Filler lacks the alloy of the steel")
        if found < wanted
        else tr("Filler has far more alloy than the steel"),
        tr(
            "{name} has about {found:g} % Cr, {grade} about {wanted:.2g} %: creep strength "
            "and resistance to oxidation are lost at the weld.",
            name=name,
            found=found,
            grade=grade,
            wanted=wanted,
        )
        if found < wanted
        else tr(
            "{name} has about {found:g} % Cr, {grade} about {wanted:.2g} %.",
            name=name,
            found=found,
            grade=grade,
            wanted=wanted,
        ),
        tr("Choose the class of the steel's own chromium and molybdenum."),
    )


def _cold(filler: Decoded, metals: list[Metal]) -> _Told | None:
    name, text = filler.designation, filler.designation.upper().replace(" ", "")
    wanted = min(_share(metal, "Ni") for metal in metals)
    if wanted > 4.5:
        return (
            tr("Filler is not tough enough in the cold"),
            tr(
                "{name} on steel of about {wanted:.2g} % nickel: only nickel fillers are as "
                "tough at its service temperature and expand like it.",
                name=name,
                wanted=wanted,
            ),
            tr("Choose a nickel filler, such as ENiCrMo-6 or ERNiCrMo-3."),
        )
    if filler.system in STAINLESS_SYSTEMS or _OPEN.search(name):
        return None
    found = next((share for shape, share in _NICKEL if re.search(shape, text)), 0.0)
    if found >= 0.6 * wanted:
        return None
    return (
        tr("Filler lacks the nickel of the steel"),
        tr(
            "{name} has about {found:g} % Ni, the steel about {wanted:.2g} %: it is less tough in the cold.",
            name=name,
            found=found,
            wanted=wanted,
        ),
        tr("Choose a class with the steel's nickel, such as E8018-C2 for 3.5 %."),
    )


def _hot(metal: Metal) -> bool:
    return bool(re.search(r"\d{3}H$|1\.4948|1\.4919|1\.4878|321|347|1\.4961", metal.name))


def _austenitic(name: str, metals: list[Metal]) -> _Told | None:
    low_carbon = re.search(r"3\d\dL|19 9 L|19 12 3 L", name)
    if low_carbon and all(re.search(r"\d{3}H$|1\.4948|1\.4919", metal.name) for metal in metals):
        return (
            tr("Low-carbon filler on a grade for heat"),
            tr(
                "{name} has too little carbon for the creep strength of {name2}.",
                name=name,
                name2=metals[0].name,
            ),
            tr("Choose the H class, such as E308H, or 16-8-2."),
        )
    stable = [re.search(r"321|347|1\.4541|1\.4550|1\.4961|1\.4878", metal.name) for metal in metals]
    if all(stable) and re.search(r"30[48]|19 9 L\b|19 9 H|16-8-2", name) and "Nb" not in name:
        return (
            tr("Filler is not stabilised"),
            tr(
                "{name} on {name2}: the weld is not stabilised as the steel is.",
                name=name,
                name2=metals[0].name,
            ),
            tr("Choose 347, which has niobium."),
        )
    full = [m for m in metals if m.chemistry.get("Mo", (0.0, 0.0))[0] >= 3.5]
    if len(full) == len(metals) and re.search(r"3(?:08|16|17|09|47)|19 9|19 12 3|23 12", name):
        return (
            tr("Filler resists less than the steel"),
            tr(
                "{name} has less molybdenum and nickel than {name2}: it pits first.",
                name=name,
                name2=metals[0].name,
            ),
            tr("Choose 385, or ERNiCrMo-3."),
        )
    heat = [m for m in metals if m.chemistry.get("Cr", (0.0, 0.0))[0] >= 23]
    if len(heat) == len(metals) and re.search(r"308|316|19 9|19 12", name):
        return (
            tr("Filler resists heat less than the steel"),
            tr("{name} has less chromium and nickel than {name2}.", name=name, name2=metals[0].name),
            tr("Choose 310."),
        )
    return None


def _duplex(name: str, metals: list[Metal]) -> _Told | None:
    super_grade = all(sum(m.chemistry.get("Cr", (0.0, 0.0))) / 2 >= 24.4 for m in metals)
    if super_grade and re.search(r"2209|22 9 3|2307|23 7", name):
        return (
            tr("Filler resists less than the steel"),
            tr(
                "{name} on {name2}: less chromium, molybdenum and nitrogen; the weld pits first.",
                name=name,
                name2=metals[0].name,
            ),
            tr("Choose 2594."),
        )
    return None


def _copper(name: str, metals: list[Metal]) -> _Told | None:
    kinds = {copper_kind(metal) for metal in metals}
    text = name.upper()
    bronze = (
        "aluminium-bronze" if "CUAL" in text or "CUNIAL" in text or "CUMNNIAL" in text
        else "cuni" if "CUNI" in text
        else "tin-bronze" if "CUSN" in text
        else "silicon-bronze" if "CUSI" in text
        else "copper"
    )  # fmt: skip
    wanted = {"nickel-aluminium-bronze": "aluminium-bronze"}.get(next(iter(kinds)), next(iter(kinds)))
    if len(kinds) > 1 or wanted == bronze or wanted in ("copper", "silicon-bronze", "tin-bronze"):
        return None
    return (
        tr("Filler is another copper alloy"),
        tr(
            "{name} on {name2}: another alloy, with its own colour, strength and cracking.",
            name=name,
            name2=metals[0].name,
        ),
        tr("Choose the filler of the metal's own alloy."),
    )
