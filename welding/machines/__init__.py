"""Power sources: what they deliver, for how long, and what their dials mean."""
