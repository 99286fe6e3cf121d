"""The build of a piece: its order, what is done, what runs, what went wrong, and the log of all that."""
