"""The Django project: HTTP, makers, and what is kept."""

VERSION = "0.2.0"
"""Of the program, as in pyproject.toml."""
