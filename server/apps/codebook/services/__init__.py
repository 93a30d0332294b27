"""Verbs of the code book."""
