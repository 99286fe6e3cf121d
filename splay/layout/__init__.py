"""Marking out the top with rule and compasses: the steps, drawn, and the cross-checks."""

from splay.layout.checks import Check, checks_of
from splay.layout.marks import Mark
from splay.layout.step import Step
from splay.layout.steps import Layout, lay_out

__all__ = ["Check", "Layout", "Mark", "Step", "checks_of", "lay_out"]
