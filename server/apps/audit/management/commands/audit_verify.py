"""Prove the audit trail and everything signed; exit 1 with every fault named."""

from __future__ import annotations

import json
from datetime import UTC, datetime
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from apps.audit.verify import verify


class Command(BaseCommand):
    """``manage.py audit_verify``."""

    help = __doc__ or ""
    requires_system_checks = ()

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it; the chain's end is noted outside of the database, for the next time."""
        notes = settings.HOME / f"audit-heads-{settings.DATABASES['default']['NAME']}.jsonl"
        known = (
            {json.loads(line)["head"] for line in notes.read_text().splitlines()} if notes.exists() else set()
        )
        proof = verify(known)
        if proof.faults:
            raise CommandError("\n".join(proof.faults))
        if proof.head and proof.head not in known:
            note = {
                "at": datetime.now(UTC).isoformat(timespec="seconds"),
                "head": proof.head,
                "links": proof.links,
            }
            with notes.open("a") as stream:
                stream.write(json.dumps(note) + "\n")
        self.stdout.write(f"{proof.links} links hold; nothing was changed. The chain ends with {proof.head}")
