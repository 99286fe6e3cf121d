"""Cautions: what the plan finds, each with its rule, its figure and what to do."""

from splay.judge.finding import Finding
from splay.judge.rules import Whole, judge

__all__ = ["Finding", "Whole", "judge"]
