"""What makes long prints."""
