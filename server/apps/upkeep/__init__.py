"""What keeps the data over years: dumps, their comparison after a restore, the whole as open files."""
