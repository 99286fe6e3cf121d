"""Why one kind of work stands before another, and what it costs where it does not.

All of these are facts of the trade, handed on by makers who paid for them: common practice, no published
source. What marks lean on which, and which readings later figures follow, is not listed here: that follows
from the cards themselves.
"""

from __future__ import annotations

from splay.build.rule import Rule
from splay.build.rules_joining import JOINING
from splay.build.rules_making import MAKING

READ = (
    "read before stretchers are bored and cut: legs stand where their holes put them",
    "stretchers are cut from the plan, and each degree a hole is off shows as a gap",
)
CARRIED = (
    "what carries another stretcher is in its place before that one is read",
    "it is read from the plan, and each gap of the carrying one adds to it",
)
SOCKETS = (
    "the depth of the sockets goes into the stretcher's length",
    "it is cut for sockets as planned: too long, it holds the legs apart",
)
"""Between one stretcher and what carries it: why, and what it costs."""

RULES: tuple[Rule, ...] = (*MAKING, *JOINING)
