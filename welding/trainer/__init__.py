"""Exercises: short tasks made from the model and the tables, marked with numbers and sources."""
