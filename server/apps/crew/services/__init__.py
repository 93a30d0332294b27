"""Writing: people, certificates, statements."""
