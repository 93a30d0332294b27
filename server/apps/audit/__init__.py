"""The audit trail as a chain: every event is linked to the one before by its hash."""
