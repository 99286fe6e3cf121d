"""What is done to a server of its own to see whether it can be trusted."""
