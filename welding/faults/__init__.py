"""From a symptom to its causes: what speaks for each here, how to tell them apart, what to do."""
