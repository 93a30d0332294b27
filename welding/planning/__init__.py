"""From an intent to a whole draft: preparation, passes, starting settings, temperatures, with reasons."""
