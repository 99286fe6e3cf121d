"""Answers about pieces that other apps give too."""

from datetime import datetime

from ninja import Schema


class PhotoOut(Schema):
    """A kept photograph: its size in pixels, and when it was sent."""

    width: int
    height: int
    taken: datetime
