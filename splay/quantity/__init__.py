"""Lengths and angles as the trade writes and rounds them. Inside: millimetres and degrees."""

from splay.quantity.read import MM_PER_INCH, Bare, read_angle, read_length, read_number
from splay.quantity.show import Figure, Input, Quantity, Show, Units, times

__all__ = [
    "MM_PER_INCH",
    "Bare",
    "Figure",
    "Input",
    "Quantity",
    "Show",
    "Units",
    "read_angle",
    "read_length",
    "read_number",
    "times",
]
