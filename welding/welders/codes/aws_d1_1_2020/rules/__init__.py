"""Rules of clause 6 part C and of clause 10 for pipe."""
