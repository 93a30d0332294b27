"""Energy and heat input of a pass."""
