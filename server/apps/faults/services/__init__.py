"""What may be done with faults."""
