"""The open documents: frozen dataclasses, and the strict codec that is JSON's only way in."""
