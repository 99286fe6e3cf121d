"""Where what is done becomes words: each sort of it registers how it is said."""

from __future__ import annotations

from functools import singledispatch

from splay.work.does import Do


@singledispatch
def do(one: Do) -> str:
    """What is done, as a sentence."""
    raise NotImplementedError(type(one).__name__)
