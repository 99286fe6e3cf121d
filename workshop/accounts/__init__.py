"""The makers of this shop."""
