"""Base metals: carbon and other equivalents of a composition."""
