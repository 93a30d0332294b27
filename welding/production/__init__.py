"""Welds made in production: how far each has come, and how many were rejected."""
