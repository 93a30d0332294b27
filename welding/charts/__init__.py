"""Printed charts of settings beside a procedure: which lines are meant for a pass, and where they differ."""
