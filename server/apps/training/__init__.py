"""Exercises: who learned what, and what is due again."""
