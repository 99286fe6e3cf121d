"""Drawings at full size that are laid on the wood, on a jig or against a gauge."""

from splay.patterns.pattern import Pattern
from splay.patterns.whole import patterns_of

__all__ = ["Pattern", "patterns_of"]
