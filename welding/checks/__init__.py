"""Check bodies. They yield findings; editions bind some of them with their own tables."""
