"""Faults: their causes here, and what cured them in this shop."""
