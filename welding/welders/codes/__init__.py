"""Codes for the qualification of persons: one folder for one edition."""
