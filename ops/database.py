"""Which database: a cluster of our own, or a server that somebody else keeps."""

from __future__ import annotations

from ops import external
from ops.cluster import Cluster
from ops.external import External

Database = Cluster | External
DEMO, SERVED = "bead_demo", "bead"


def database(*, demo: bool = False) -> Database:
    """The demo is always in a cluster of our own."""
    return External() if external.told() and not demo else Cluster()


def name_of(base: Database, *, demo: bool) -> str:
    """What the database is called."""
    return base.name if isinstance(base, External) else DEMO if demo else SERVED
