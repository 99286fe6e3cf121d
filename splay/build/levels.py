"""What hangs on what: stretchers on others that carry them, a stage of gluing on the one before."""

from __future__ import annotations

from splay.parts.member import MemberPart
from splay.parts.rope import RopePart
from splay.plan import Plan


def between(plan: Plan) -> tuple[MemberPart | RopePart, ...]:
    """All that runs between legs: stretchers, then ropes."""
    return (*plan.members, *plan.ropes)


def levels(plan: Plan) -> dict[str, int]:
    """0 for a stretcher or rope between legs, one more than what carries it for any other, by its id."""
    numbers = {part.number: part.id for part in plan.members}
    found = {rope.id: 0 for rope in plan.ropes}
    for part in plan.members:
        carried = [found[numbers[end.member]] for end in part.ends if end.member]
        found[part.id] = max(carried, default=-1) + 1
    return found


def stage_key(number: int) -> str:
    """The key of the step that glues a stage of the assembly, counted from 1."""
    return f"glue.{number}"
