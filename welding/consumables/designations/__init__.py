"""Filler designations of AWS and ISO system A: grammar, meaning, and helpful refusals."""
