"""The filler as bought: whether the draft keeps what its maker's sheet gives."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.checks.saying import advise, of_pass
from welding.citation import Citation
from welding.consumables.designations.decode import decode
from welding.documents.library import Product
from welding.documents.procedure import Pass
from welding.finding import Finding
from welding.language import tr, tr_noop
from welding.ranges import Range

_FIELDS = (
    ("current_a", "current", "current"),
    ("voltage_v", "voltage", "volts"),
    ("wire_feed_m_min", "wire_feed", tr_noop("wire feed")),
    ("extension_mm", "gap", tr_noop("tip distance")),
)


def product_findings(draft: Draft) -> Iterator[Finding]:
    """Findings on each pass whose filler names a product that the procedure takes along."""
    for index, one in enumerate(draft.procedure.passes):
        product = draft.product(one)
        if product is None:
            continue
        sheet = Citation(
            document=f"sheet of {product.name}",
            edition=product.sheet_date or "",
            provenance="practice",
            confidence="medium",
        )
        yield from _class(f"passes.{index}", one, product, sheet)
        yield from _ranges(draft, f"passes.{index}", one, product, sheet)


def _class(path: str, one: Pass, product: Product, sheet: Citation) -> Iterator[Finding]:
    stated, bought = decoded_of(one), decode(product.designation)
    if stated is None or not bought.valid or stated.designation == bought.designation:
        return
    yield advise(
        "product.class",
        f"{path}.filler.designation",
        trouble=tr(
            "{name} is {designation} on its record; the pass states {designation2}.",
            name=product.name,
            designation=bought.designation,
            designation2=stated.designation,
        ),
        fine="",
        titles=(of_pass(tr("Product is of another class"), one), ""),
        actual=stated.designation,
        limit=bought.designation,
        remedy=tr("Correct the class, or choose another product."),
        citations=(sheet,),
    )


def _ranges(draft: Draft, path: str, one: Pass, product: Product, sheet: Citation) -> Iterator[Finding]:
    given = draft.maker_range(one)
    if given is None:
        return
    for field, kind, named in _FIELDS:
        words = tr(named)
        planned: Range | None = getattr(one, field)
        limits: Range | None = getattr(given, field)
        if planned is None or limits is None:
            continue
        fits = limits.holds(planned.min) and limits.holds(planned.max)
        found, usual = (draft.write_range(value, kind) for value in (planned, limits))
        yield advise(
            "product.range",
            f"{path}.{field}",
            trouble=""
            if fits
            else tr(
                "The sheet of {name} gives {usual} for this diameter and position; {found} is planned.",
                name=product.name,
                usual=usual,
                found=found,
            ),
            fine=tr("The sheet of {name} gives {usual}.", name=product.name, usual=usual),
            titles=(
                of_pass(tr("Outside the manufacturer's {words}", words=words), one),
                of_pass(tr("Inside the manufacturer's {words}", words=words), one),
            ),
            actual=found,
            limit=usual,
            remedy=tr("Come back into the sheet's range, or keep it with a trial behind it."),
            citations=(sheet,),
        )
