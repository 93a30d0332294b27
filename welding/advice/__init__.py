"""What the program advises beside the checks: cautions."""
