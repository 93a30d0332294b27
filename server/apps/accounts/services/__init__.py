"""Verbs of people: sign in, change the password."""
