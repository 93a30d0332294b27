"""Qualification of welders, welding operators and tack welders: what a test covers, and until when."""
