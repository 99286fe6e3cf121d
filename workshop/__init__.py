"""The web application round the core: accounts, pieces, the shop."""
