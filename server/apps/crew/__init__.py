"""The crew: who is qualified for what, until when, and what was signed about it."""
