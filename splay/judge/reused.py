"""Sticks that were used before: an old hole that meets a new one whatever is sawn off."""

from __future__ import annotations

from collections.abc import Iterator

from splay.judge.finding import Finding
from splay.parts.reused import KEEP_MM, Trim
from splay.quantity import Show


def reused(trims: tuple[Trim, ...], show: Show) -> Iterator[Finding]:
    """Of each stick that has an old hole where its leg wants sound wood, and no way to saw it clear."""
    for one in trims:
        if one.meets is None:
            continue
        yield Finding(
            "old_hole_meets", "stop", "legs",
            f"Stick {one.index + 1}, for leg {one.leg.number}: however much comes off its upper end, an "
            f"old hole lies {show.closely(one.short).text} nearer to {one.meets.what} than it may.",
            "Take another stick for it, move what is bored there along the leg, or lower the piece, so "
            "that more may come off. Or plug the old hole first, and call it sound.",
            (one.leg.number,), show.closely(one.short), show.length(KEEP_MM), None,
            f"supports.{one.support}.leg.sticks.{one.index}",
        )  # fmt: skip
