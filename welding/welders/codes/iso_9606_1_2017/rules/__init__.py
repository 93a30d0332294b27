"""Rules of ISO 9606-1."""
