"""Verbs of qualification."""
