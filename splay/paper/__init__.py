"""Sheets for the bench, the wall and the client: from a plan to a page."""
