"""Which released procedures a change of the book, or a withdrawn proof, reaches."""

from __future__ import annotations

from dataclasses import dataclass

from api.errors import DamagedError

from apps.procedures.models import Revision, Stage
from apps.qualification.models import NOT_COUNTING
from welding.codebook.book import Book, using
from welding.coverage.covers import covers
from welding.coverage.record import range_of
from welding.documents.procedure import Procedure
from welding.documents.record import QualificationRecord as Document
from welding.language import tr
from welding.qualification.items import QualifiedRange, RangeItem
from welding.qualification.variables import VARIABLES


@dataclass(frozen=True, slots=True, kw_only=True)
class Touched:
    """A procedure whose proof reads differently.

    Attributes:
        revision_id: The revision.
        number: Procedure number.
        letter: Revision letter.
        stage: Its stage.
        covered_before: Whether its records cover it as things stand.
        covered_after: Whether they would cover it.
        changes: What changes in the ranges of its records, in words.
        blocking: What would block it.
    """

    revision_id: int
    number: str
    letter: str
    stage: str
    covered_before: bool
    covered_after: bool
    changes: tuple[str, ...]
    blocking: tuple[str, ...]


def touched_by(before: Book, after: Book) -> list[Touched]:
    """Procedures in production whose records read differently under another book."""
    found = []
    revisions = (
        Revision.objects.filter(stage__in=(Stage.RELEASED, Stage.QUALIFIED))
        .select_related("procedure")
        .prefetch_related("supports__record__signatures", "supports__record__coupon__job")
        .order_by("procedure__number", "id")
    )
    for revision in revisions:
        told = []
        records, counting = [], []
        for support in revision.supports.all():
            try:
                document_of_record = support.record.document()
            except DamagedError:
                told.append(tr("{number} is damaged", number=support.record.number))
                continue
            records.append(document_of_record)
            if support.record.counts:
                counting.append(document_of_record)
            else:
                told.append(f"{support.record.number} {NOT_COUNTING[support.record.state]}")
        try:
            document = revision.contents()
        except DamagedError:
            continue  # said where it is opened; nothing can be asked of it
        with using(before):
            old = [range_of(one) for one in records]
            was = _covered(records, document)
        with using(after):
            new = [range_of(one) for one in records]
            now = _covered(counting, document)
        changes = tuple(text for one, other in zip(old, new, strict=True) for text in _changes(one, other))
        changes += tuple(told)
        if changes or was != now:
            found.append(
                Touched(
                    revision_id=revision.pk,
                    number=revision.procedure.number,
                    letter=revision.letter,
                    stage=revision.stage,
                    covered_before=was[0],
                    covered_after=now[0],
                    changes=changes,
                    blocking=now[1],
                )
            )
    return found


def _covered(records: list[Document], document: Procedure) -> tuple[bool, tuple[str, ...]]:
    found = covers(records, document)
    return found.covered, () if found.covered else tuple(one.message for one in found.findings[:5])


def _changes(before: QualifiedRange, after: QualifiedRange) -> list[str]:
    known = {_key(item): item for item in before.items}
    said = []
    for item in after.items:
        old = known.get(_key(item))
        if old is not None and _bare(old) != _bare(item):
            title = VARIABLES[item.variable].title
            said.append(
                tr(
                    "{number}: {title} {text} becomes {text2}",
                    number=after.number,
                    title=title,
                    text=_text(old),
                    text2=_text(item),
                )
            )
    if before.valid != after.valid:
        said.append(
            tr(
                "{number}: the tests are {value}",
                number=after.number,
                value=tr("accepted") if after.valid else tr("no longer accepted"),
            )
        )
    return list(dict.fromkeys(said))


def _key(item: RangeItem) -> tuple[object, ...]:
    return item.variable, item.process, item.role, item.weld, item.member, item.filler_diameter_mm


def _bare(item: RangeItem) -> tuple[object, ...]:
    return item.kind, item.min, item.max, item.values, item.numbers


def _text(item: RangeItem) -> str:
    if item.kind == "span":
        low = tr("no limit") if item.min is None else f"{item.min:g}"
        high = tr("no limit") if item.max is None else f"{item.max:g}"
        return tr("{low} to {high}", low=low, high=high)
    return ", ".join(item.values) or item.kind
