"""Code editions, one folder each, found by being there. Editions never import each other."""
