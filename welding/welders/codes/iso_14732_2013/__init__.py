"""ISO 14732:2013: welding operators and weld setters for mechanized and automatic welding."""
