"""Fillers and gases."""
