"""The searched columns of a revision, taken from its document."""

from __future__ import annotations

import dataclasses
import hashlib
from typing import Any

from welding.documents.codec import PROCEDURE
from welding.documents.identity import with_pass_ids
from welding.documents.procedure import Procedure as Document


def named(document: Document, number: str, letter: str) -> Document:
    """The document under the number and letter it is kept by, each pass with its id."""
    return with_pass_ids(dataclasses.replace(document, number=number, revision=letter))


def columns_of(document: Document) -> dict[str, Any]:
    """Field values of a ``Revision`` for this document; the hash is over its canonical bytes."""
    plain, body = PROCEDURE.kept_with_bytes(document)
    thicknesses = [metal.thickness_mm for metal in document.base_metals if metal.thickness_mm]
    return {
        "document": plain,
        "body": body.decode(),
        "content_hash": hashlib.sha256(body).hexdigest(),
        "title": document.title or "",
        "code_id": document.code.id if document.code else "",
        "code_level": document.code.level if document.code else None,
        "processes": list(dict.fromkeys(one.process for one in document.passes)),
        "positions": list(document.positions),
        "thickness_min_mm": min(thicknesses, default=None),
        "thickness_max_mm": max(thicknesses, default=None),
        "pass_count": len(document.passes),
    }
