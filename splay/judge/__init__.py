"""Cautions: what the plan finds, each with its rule, its figure and what to do."""

from splay.judge.finding import Finding
from splay.judge.rules import judge

__all__ = ["Finding", "judge"]
