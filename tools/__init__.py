"""Programs of the house: screenshots and the bench. They drive a running demo from outside."""
