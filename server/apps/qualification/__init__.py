"""Evidence, verdicts, signed records, what they cover, release of procedures."""
