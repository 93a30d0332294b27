"""Production welds: the log, inspection, release, traceability."""
