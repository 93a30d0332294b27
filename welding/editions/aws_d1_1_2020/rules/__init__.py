"""Rules of AWS D1.1:2020, by topic."""
