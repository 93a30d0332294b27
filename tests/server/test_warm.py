"""What workers share is made ready before they part."""

import logging

from config.warm import warm

from welding.codebook.table import _as_entered


def test_the_core_is_ready_before_the_first_request(caplog):
    _as_entered.cache_clear()
    with caplog.at_level(logging.ERROR, logger="warm"):
        warm()
    assert not caplog.records
    # What other tests have read stays in caches of its own.
    assert _as_entered.cache_info().currsize > 20, "tables of both codes are read"
