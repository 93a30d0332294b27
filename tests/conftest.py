"""What all tests share."""

from hypothesis import settings

pytest_plugins = ["tests.whole_run", "tests.rows_read", "tests.rules_said"]

# A busy machine is no failure: speed is measured by ./bead bench.
settings.register_profile("no-deadline", deadline=None)
settings.load_profile("no-deadline")
