"""What may be done with production welds."""
