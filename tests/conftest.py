"""What all tests share."""

from hypothesis import settings

from tests.rows_read import (  # noqa: F401  (hooks of pytest)
    pytest_collection_finish,
    pytest_configure,
    pytest_sessionfinish,
    pytest_terminal_summary,
    pytest_testnodedown,
)

# A busy machine is no failure: speed is measured by ./bead bench.
settings.register_profile("no-deadline", deadline=None)
settings.load_profile("no-deadline")
