"""What may be done with trials."""
