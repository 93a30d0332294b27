"""evaluate_coupon(document): every pass as welded, and what is wrong or missing around them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from welding.checks.certificate import certificate_findings
from welding.checks.context import Draft
from welding.documents.coupon import Coupon
from welding.evaluate.fit_up import set_up_findings
from welding.evaluate.one_pass import PassResult, evaluate_pass
from welding.finding import Finding
from welding.joints.section import section_of
from welding.quantities.writing import System


@dataclass(frozen=True, slots=True, kw_only=True)
class CouponEvaluation:
    """All passes as welded, in order of their numbers, and the planned ones still to weld.

    ``piece`` holds findings on the metals that the piece was really made of, where they were recorded.
    """

    passes: tuple[PassResult, ...]
    to_weld: tuple[int, ...]
    piece: tuple[Finding, ...]


def evaluate_coupon(coupon: Coupon, system: System = "si") -> CouponEvaluation:
    """Judge a coupon's log against its procedure.

    Args:
        coupon: The coupon.
        system: Unit system of the sentences; numbers in fields stay SI.
    """
    records = sorted(coupon.coupon.passes, key=lambda one: one.number)
    done = {one.number for one in records}
    return CouponEvaluation(
        passes=tuple(evaluate_pass(coupon.procedure, one, system, coupon.coupon) for one in records),
        to_weld=tuple(one.number for one in coupon.procedure.passes if one.number not in done),
        piece=(*set_up_findings(coupon, system), *_piece_findings(coupon, system)),
    )


def _piece_findings(coupon: Coupon, system: System) -> Iterator[Finding]:
    """What the certificates of the piece's own metals say against their grades."""
    if not coupon.coupon.base_metals:
        return
    procedure = replace(coupon.procedure, base_metals=coupon.coupon.base_metals)
    draft = Draft(procedure=procedure, heat=(), sectioned=section_of(procedure), system=system)
    yield from certificate_findings(draft)
