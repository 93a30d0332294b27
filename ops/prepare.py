"""The database brought to this version of the program: roles, migrations, rights, and the demo's data."""

from __future__ import annotations

from ops.database import Database
from ops.environment import LOCKS, digest
from ops.places import SERVER, home
from ops.roles import MIGRATES
from ops.say import Step
from ops.web import manage


def _of_this_version() -> str:
    """Digest of all that a database is prepared from."""
    sources = [*SERVER.glob("apps/*/migrations/*.py"), *(SERVER / "apps" / "audit").rglob("*")]
    sources = [path for path in sources if path.suffix in (".py", ".sql")]
    demo_data = [path for path in (SERVER / "apps" / "demo").rglob("*") if path.suffix in (".py", ".json")]
    return digest([*sources, *demo_data, LOCKS / "app.txt"])


def prepare(base: Database, name: str, *, demo: bool) -> None:
    """Migrate and load, unless this very code has done it to this very database."""
    wanted = _of_this_version()
    if base.prepared_for(name) == wanted and (home() / "static").is_dir():
        return
    with Step("preparing the database"):
        base.make_roles(name)
        role = base.serving_role
        serving = ["--serving", role] if role else []
        manage(base.url(name, MIGRATES), "prepare", *serving, *(["--demo"] if demo else []), demo=demo)
        base.note_prepared(name, wanted)
