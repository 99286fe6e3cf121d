"""What to set on which tool, the jig if one is needed, and the proof of the cut."""
