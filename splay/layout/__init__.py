"""Marking out the top with rule and compasses: the steps, drawn, and the cross-checks."""

from splay.layout.marks import Mark
from splay.layout.steps import Layout, Step, lay_out

__all__ = ["Layout", "Mark", "Step", "lay_out"]
