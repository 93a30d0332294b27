"""What the organisation confirmed and corrected in the code tables."""
