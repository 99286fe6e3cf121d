"""Keeping what the makers made: backups, what is done once a night, how the workshop is."""
