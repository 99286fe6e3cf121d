"""Wood: what it is, what it does, what a piece needs of it and out of what it is cut."""
