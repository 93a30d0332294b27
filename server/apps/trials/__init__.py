"""Trials on scrap: what was set, what was seen, kept or rejected."""
