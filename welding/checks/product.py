"""The filler as bought: whether the draft keeps what its maker's sheet gives."""

from __future__ import annotations

from collections.abc import Iterator

from welding.checks.context import Draft
from welding.checks.filler import decoded_of
from welding.checks.saying import advise, of_pass
from welding.citation import Citation
from welding.consumables.designations.decode import decode
from welding.documents.procedure import Pass
from welding.documents.shelf import Product
from welding.finding import Finding
from welding.ranges import Range

_FIELDS = (
    ("current_a", "current", "current"),
    ("voltage_v", "voltage", "volts"),
    ("wire_feed_m_min", "wire_feed", "wire feed"),
    ("extension_mm", "gap", "tip distance"),
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
        trouble=f"{product.name} is {bought.designation} on its record; "
        f"the pass states {stated.designation}.",
        fine="",
        titles=(of_pass("Product is of another class", one), ""),
        actual=stated.designation,
        limit=bought.designation,
        remedy="Correct the class, or choose another product.",
        citations=(sheet,),
    )


def _ranges(draft: Draft, path: str, one: Pass, product: Product, sheet: Citation) -> Iterator[Finding]:
    given = draft.maker_range(one)
    if given is None:
        return
    for field, kind, words in _FIELDS:
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
            else f"The sheet of {product.name} gives {usual} for this diameter and position; "
            f"{found} is planned.",
            fine=f"The sheet of {product.name} gives {usual}.",
            titles=(
                of_pass(f"Outside the manufacturer's {words}", one),
                of_pass(f"Inside the manufacturer's {words}", one),
            ),
            actual=found,
            limit=usual,
            remedy="Come back into the sheet's range, or keep it with a trial behind it.",
            citations=(sheet,),
        )
