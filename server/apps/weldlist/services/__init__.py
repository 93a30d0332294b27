"""What changes a weld list."""
