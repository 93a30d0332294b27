"""How the gas gets there: flow, gas after the arc, the back of the root, fields a process does not have."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import TIG
from welding.checks.saying import advise, ask, of_pass
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.language import number, tr
from welding.setup.fields import fields_citation, setup_fields
from welding.setup.flow import PURGE_L_MIN, flow_advice, post_flow_s

FLOW_SLACK = (0.75, 1.6)
"""Schools differ: 30 to 40 ft³/h through a large lens is common too. A word is said beyond this."""
SHORTEST_POST_FLOW = 1 / 3
"""Four to five seconds at 100 A hold for many; below a third of the usual time it is too short."""
STAINLESS = ("austenitic", "ferritic", "martensitic", "ph-stainless", "duplex", "nickel")


def shielding_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass's gas flow, purge, and odd fields."""
    for index, one in enumerate(draft.procedure.passes):
        path = f"passes.{index}"
        yield from _flow(draft, path, one)
        yield from _post_flow(path, one)
        yield from _purge(draft, path, one)
        yield from _odd_fields(path, one)


def _flow(draft: Draft, path: str, one: Pass) -> Iterator[Finding]:
    planned = one.gas.flow_l_min if one.gas else None
    if one.gas is None or planned is None:
        return
    advice = flow_advice(
        one.process,
        one.gas.components_percent,
        transfer=one.transfer,
        cup_number=one.cup.number if one.cup else None,
        lens=one.cup.lens if one.cup else False,
        ac=one.polarity == "AC",
    )
    if advice is None:
        return
    little = planned.max < advice.usual.min * FLOW_SLACK[0]
    much = planned.min > advice.usual.max * FLOW_SLACK[1]
    found, usual = (draft.write_range(value, "flow") for value in (planned, advice.usual))
    trouble = ""
    if little or much:
        trouble = tr(
            "{found} is {value} for {basis}: {usual} is usual. ",
            found=found,
            value=tr("little") if little else tr("much"),
            basis=advice.basis,
            usual=usual,
        ) + (tr("Air gets in.") if little else tr("Too fast a stream swirls air in."))
    yield advise(
        "gas.flow",
        f"{path}.gas.flow_l_min",
        trouble=trouble,
        fine=tr("{usual} is usual by {basis}.", usual=usual, basis=advice.basis),
        titles=(of_pass(tr("Gas flow is unusual"), one), of_pass(tr("Gas flow is usual"), one)),
        actual=found,
        limit=usual,
        remedy=tr("Set {usual}.", usual=usual),
        citations=(advice.citation,),
    )


def _post_flow(path: str, one: Pass) -> Iterator[Finding]:
    stated = one.gas_times.post_flow_s if one.gas_times else None
    if stated is None or one.process not in TIG or one.current_a is None:
        return
    usual = post_flow_s(one.current_a.max)
    yield advise(
        "gas.post-flow",
        f"{path}.gas_times.post_flow_s",
        trouble=tr(
            "{stated:g} s of gas after the arc is short at {max:g} A: tungsten and crater turn grey.",
            stated=stated,
            max=one.current_a.max,
        )
        if stated < usual * SHORTEST_POST_FLOW
        else "",
        fine=tr("A second for every 10 A, at least 5 s, is usual: {usual:.0f} s here.", usual=usual),
        titles=(of_pass(tr("Gas stops early"), one), of_pass(tr("Gas after the arc"), one)),
        actual=f"{number(stated)} s",
        limit=tr("about {usual:.0f} s", usual=usual),
        remedy=tr("Set about {usual:.0f} s.", usual=usual),
    )


def _purge(draft: Draft, path: str, one: Pass) -> Iterator[Finding]:
    joint = draft.procedure.joint
    families = {metal.family for m in draft.procedure.base_metals if (metal := draft.metal(m))}
    metals = [metal for m in draft.procedure.base_metals if (metal := draft.metal(m))]
    bright = bool(families) and (
        families <= set(STAINLESS)
        or all(m.family == "cr-mo" and sum(m.chemistry.get("Cr", (0.0, 0.0))) / 2 > 1.9 for m in metals)
    )
    open_root = (
        joint is not None
        and joint.weld == "cjp-groove"
        and joint.sides == "one"
        and joint.backing in ("none", "gas")
        and one.role == "root"
    )
    if one.purge is None:
        if bright and open_root and one.process in (*TIG, "131", "135"):
            yield ask(
                "purge.root",
                f"{path}.purge",
                of_pass(tr("Back of the root is not purged"), one),
                tr("The back of an open root with chromium or nickel scales to a crust without purge."),
                tr("Add a purge, or say in the notes why none is needed."),
                verdict="violates",
            )
        return
    if one.purge.oxygen_ppm is None:
        yield ask(
            "purge.oxygen",
            f"{path}.purge.oxygen_ppm",
            of_pass(tr("Purge: down to how much oxygen?"), one),
            tr("The oxygen that the purge must fall below is not stated."),
            tr("State it in ppm; 50 ppm leaves straw at most."),
        )
    flow = one.purge.flow_l_min
    if flow is not None:
        off = flow.min > PURGE_L_MIN.max * 3 or flow.max < PURGE_L_MIN.min * 0.5
        yield advise(
            "purge.flow",
            f"{path}.purge.flow_l_min",
            trouble=tr(
                "{write_range} is unusual while welding: too much blows the root out, too little "
                "lets air in.",
                write_range=draft.write_range(flow, "flow"),
            )
            if off
            else "",
            fine=tr(
                "{write_range} is usual while welding.", write_range=draft.write_range(PURGE_L_MIN, "flow")
            ),
            titles=(of_pass(tr("Purge flow is unusual"), one), of_pass(tr("Purge flow is usual"), one)),
            actual=draft.write_range(flow, "flow"),
            limit=draft.write_range(PURGE_L_MIN, "flow"),
            remedy=tr(
                "Set {write_range} once the air is out.", write_range=draft.write_range(PURGE_L_MIN, "flow")
            ),
        )


def _odd_fields(path: str, one: Pass) -> Iterator[Finding]:
    for field in setup_fields():
        if field.path == "gas" or "." in field.path or getattr(one, field.path) is None:
            continue  # gas has a finding of its own, and a part goes with its group
        if one.process not in field.processes:
            why = tr("process {process} has none", process=one.process)
        elif field.polarity and one.polarity not in (field.polarity, None):
            why = tr("the polarity is {polarity}", polarity=one.polarity)
        else:
            continue
        yield advise(
            "setup.field",
            f"{path}.{field.path}",
            trouble=tr(
                "{upper}{words} is stated, and {why}.",
                upper=field.words[:1].upper(),
                words=field.words[1:],
                why=why,
            ),
            fine="",
            titles=(
                of_pass(
                    tr(
                        "{upper}{words} does not belong here",
                        upper=field.words[:1].upper(),
                        words=field.words[1:],
                    ),
                    one,
                ),
                "",
            ),
            remedy=tr("Take it out, or correct the process."),
            citations=(fields_citation(),),
        )
