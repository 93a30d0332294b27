"""Prove the trail: each link holds, each row is what it was, none stands outside, nothing signed is bent,
and the files of recordings and photos are those that were kept."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterator, Set
from dataclasses import dataclass, field

from django.apps import apps
from django.db import connection
from django.db.models import Model
from psycopg import sql

from apps.audit.triggers import linked_tables

AT_A_TIME = 2000
PIECE_BYTES = 1 << 20
FILES = (("recordings.Recording", "original"), ("coupons.PassPhoto", "file"), ("crew.Scan", "file"))
"""Models with a file and the SHA-256 of its bytes."""
MOST_TOLD = 50


@dataclass(slots=True)
class Proof:
    """What was found: how many links, the last hash, and every fault in a sentence."""

    links: int = 0
    head: str = ""
    faults: list[str] = field(default_factory=list)
    heads_seen: set[str] = field(default_factory=set)

    def add(self, text: str) -> None:
        """Note a fault; after many only their number is of use."""
        if len(self.faults) < MOST_TOLD:
            self.faults.append(text)


def sha256(text: str) -> str:
    """As the database reckons it, and independent of it."""
    return hashlib.sha256(text.encode()).hexdigest()


def verify(known_heads: Set[str] = frozenset()) -> Proof:
    """Walk the whole chain and compare every row with its link.

    Args:
        known_heads: Hashes that were the chain's end before, kept outside of the database: each must
            still stand in the chain, so that a chain written anew is noticed.
    """
    proof = Proof()
    before = ""
    for link in _links():
        ident, name, row, row_hash, previous, digest = link
        proof.links += 1
        if previous != before:
            proof.add(f"link {ident} does not follow the one before it: links are missing or were rewritten")
        if digest != sha256("|".join((previous, name, row, row_hash))):
            proof.add(f"link {ident} ({name} {row}) was rewritten")
        before = digest
        if digest in known_heads:
            proof.heads_seen.add(digest)
    proof.head = before
    for head in sorted(known_heads - proof.heads_seen):
        proof.add(f"the chain once ended with {head[:16]}…, which stands in it no more: it was written anew")
    for name, key in linked_tables().items():
        _compare(name, key, proof)
    for model in apps.get_models():
        if hasattr(model, "pgh_tracked_model"):
            _newest(model, proof)
    _signed(proof)
    for label, name in FILES:
        _files(apps.get_model(label), name, proof)
    return proof


def _links() -> Iterator[tuple[int, str, str, str, str, str]]:
    last = 0
    while True:
        with connection.cursor() as cursor:
            cursor.execute(
                "SELECT id, table_name, row_id, row_hash, previous, hash FROM audit_link "
                "WHERE id > %s ORDER BY id LIMIT %s",
                [last, AT_A_TIME],
            )
            rows = cursor.fetchall()
        if not rows:
            return
        yield from rows
        last = rows[-1][0]


def _compare(name: str, key: str, proof: Proof) -> None:
    """Every link of a table against its row, and every row against its link."""
    table, column = sql.Identifier(name), sql.Identifier(key)
    joined = sql.SQL(
        "SELECT l.id, l.row_id, l.row_hash, audit_content(to_jsonb(t), l.columns), l.columns, to_jsonb(t) "
        "FROM audit_link l LEFT JOIN {table} t ON t.{column}::text = l.row_id "
        "WHERE l.table_name = %s ORDER BY l.id"
    ).format(table=table, column=column)
    unlinked = sql.SQL(
        "SELECT {column}::text FROM {table} t WHERE NOT EXISTS "
        "(SELECT 1 FROM audit_link l WHERE l.table_name = %s AND l.row_id = t.{column}::text) LIMIT 20"
    ).format(table=table, column=column)
    seen: set[str] = set()
    with connection.cursor() as cursor:
        cursor.execute(joined, [name])
        while rows := cursor.fetchmany(AT_A_TIME):
            for ident, row, row_hash, content, columns, whole in rows:
                if whole is None:
                    proof.add(f"{name} {row} of link {ident} is gone")
                elif row in seen:
                    proof.add(f"{name} {row} has two links")
                elif sha256(content) != row_hash:
                    lost = set(columns) - _keys(whole)
                    why = f"columns are gone: {', '.join(sorted(lost))}" if lost else "it was changed"
                    proof.add(f"{name} {row} is not what link {ident} says: {why}")
                seen.add(row)
        cursor.execute(unlinked, [name])
        for (row,) in cursor.fetchall():
            proof.add(f"{name} {row} stands outside the chain: it was put in past the triggers")


def _newest(event: type[Model], proof: Proof) -> None:
    """Every row that is tracked against the last event of the trail about it."""
    tracked = event.pgh_tracked_model  # type: ignore[attr-defined]
    if "update_update" not in {one.name for one in tracked._meta.triggers}:
        return  # never changed: its own links tell
    shared = {one.column for one in event._meta.local_concrete_fields} & {
        one.column for one in tracked._meta.local_concrete_fields
    }
    compared = sql.SQL(
        "SELECT m.id::text, e.pgh_id IS NULL FROM {table} m LEFT JOIN LATERAL "
        "(SELECT * FROM {events} e WHERE e.pgh_obj_id = m.id ORDER BY e.pgh_id DESC LIMIT 1) e ON true "
        "WHERE audit_part(to_jsonb(m), %s) IS DISTINCT FROM audit_part(to_jsonb(e), %s) LIMIT 20"
    ).format(table=sql.Identifier(tracked._meta.db_table), events=sql.Identifier(event._meta.db_table))
    with connection.cursor() as cursor:
        cursor.execute(compared, [sorted(shared), sorted(shared)])
        for row, missing in cursor.fetchall():
            why = "nothing in the trail tells of it" if missing else "it is not what the trail says last"
            proof.add(f"{tracked._meta.db_table} {row}: {why}")


def _keys(whole: object) -> set[str]:
    found = json.loads(whole) if isinstance(whole, str) else whole
    return set(found) if isinstance(found, dict) else set()


def _files(model: type[Model], field: str, proof: Proof) -> None:
    """Every file that a row names against the hash that the row keeps of it."""
    what = model._meta.verbose_name
    named = model._default_manager.exclude(**{field: ""}).exclude(sha256="")  # a stream has none yet
    for row in named.only(field, "sha256").order_by("pk").iterator(AT_A_TIME):
        file, digest = getattr(row, field), hashlib.sha256()
        try:
            with file.open("rb") as stream:
                while piece := stream.read(PIECE_BYTES):
                    digest.update(piece)
        except OSError as error:
            proof.add(f"the file of {what} {row.pk} cannot be read: {error.strerror or error}")
            continue
        if digest.hexdigest() != vars(row)["sha256"]:
            proof.add(f"the file of {what} {row.pk} is not what was kept: its bytes were changed")


def _signed(proof: Proof) -> None:
    """Bytes of signed records, certificates and frozen revisions against their hashes; signatures too."""
    with connection.cursor() as cursor:
        for what, statement in (
            (
                "record",
                "SELECT number, body, content_hash FROM qualification_qualificationrecord ORDER BY id",
            ),
            ("certificate", "SELECT number, body, content_hash FROM crew_certificate ORDER BY id"),
            (
                "statement",
                "SELECT c.number || ' ' || s.kind, s.body, s.content_hash FROM crew_statement s "
                "JOIN crew_certificate c ON c.id = s.certificate_id ORDER BY s.id",
            ),
            (
                "revision",
                "SELECT p.number || ' ' || r.letter, r.body, r.content_hash FROM procedures_revision r "
                "JOIN procedures_procedure p ON p.id = r.procedure_id WHERE r.body <> '' ORDER BY r.id",
            ),
        ):
            cursor.execute(statement)
            while rows := cursor.fetchmany(AT_A_TIME):
                for number, body, digest in rows:
                    if sha256(body) != digest:
                        proof.add(f"{what} {number} is not what its hash says")
        cursor.execute(
            "SELECT r.number, s.name FROM qualification_signature s "
            "JOIN qualification_qualificationrecord r ON r.id = s.record_id "
            "WHERE s.content_hash <> r.content_hash"
        )
        for number, name in cursor.fetchall():
            proof.add(f"the signature of {name} is not over record {number} as it stands")
        cursor.execute(
            "SELECT p.number || ' ' || r.letter, s.name FROM qualification_signature s "
            "JOIN procedures_revision r ON r.id = s.revision_id "
            "JOIN procedures_procedure p ON p.id = r.procedure_id WHERE s.content_hash <> r.content_hash"
        )
        for number, name in cursor.fetchall():
            proof.add(f"the signature of {name} is not over revision {number} as it stands")
