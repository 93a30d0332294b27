"""Installing, starting, stopping and checking. Standard library only: it runs before anything else."""
