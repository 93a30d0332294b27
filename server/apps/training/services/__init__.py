"""What may be done with exercises."""
