"""What a piece needs besides its blanks: screws, washers, dowels, loose tenons, pegs, wedges, pads."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from splay.piece import Battened, Dowels, DowelScrew, Piece, StakedLegs
from splay.piece.kinds import driven_through
from splay.plan import Plan
from splay.quantity import Show
from splay.setups.outside import AIR_MM, PROUD_MM
from splay.setups.through import dowel_long
from splay.stance.buttons import DRAWS_MM, grooves
from splay.stance.holding import fastenings
from splay.stance.outside import driven
from splay.stance.pegs import longest_from_side, pegs_from_above, pegs_from_side
from splay.stance.rods import joined_ends
from splay.stance.splines import splined
from splay.stance.staked import support_of
from splay.stance.underfoot import bearings
from splay.stance.wedges import wedge_made


@dataclass(frozen=True)
class Fixing:
    """One sort: how many for all that are made, what they are called, what size, what they are for."""

    key: str
    count: int
    name: str
    size: str
    what_for: str


def fixings(piece: Piece, plan: Plan, show: Show) -> tuple[Fixing, ...]:
    """All of them, those alike counted together, in the order of the supports."""
    found: dict[tuple[str, str, str], int] = {}
    for name, size, what_for, count in _each(piece, plan, show):
        found[name, size, what_for] = found.get((name, size, what_for), 0) + count
    return tuple(
        Fixing(f"f{k}", count * piece.make, name, size, what_for)
        for k, ((name, size, what_for), count) in enumerate(found.items(), start=1)
    )


Sort = tuple[str, str, str, int]


def _each(piece: Piece, plan: Plan, show: Show) -> Iterator[Sort]:
    yield from _staked(piece, plan, show)
    yield from _inside(piece, plan, show)
    for one in driven(piece):
        size = f"{show.length(one.chosen.size).text} by {show.length(one.deep - AIR_MM + PROUD_MM).text}"
        yield "dowels", size, f"the mitre from outside, {one.runs}", 1
    for screw in fastenings(piece, plan.stance):
        chosen = screw.screw
        size_ = f"{show.length(chosen.size).text} by {show.length(chosen.length).text}"
        yield "screws", size_, "holding the top", 1
        if screw.washer:
            yield "washers", f"{show.length(screw.washer).text} over", "under the top's screws", 1
    for groove in grooves(piece, plan.stance):
        chosen_ = groove.chosen
        long = show.length(chosen_.drop - DRAWS_MM + groove.tongue + chosen_.bite).text
        yield "screws", f"at most {long} long", "the buttons", len(groove.buttons)
    for spline in splined(piece, plan.stance):
        size_ = " by ".join(show.length(mm).text for mm in (spline.thick, spline.chosen.width, spline.long))
        yield "splines", size_, "through the top", 1
    under = piece.underfoot
    if under is not None:
        name = {"pads": "pads", "glides": "glides", "screwed": "screwed feet"}[under.kind]
        size_ = f"{show.length(under.across).text} across, {show.fine(under.thickness).text} thick"
        yield name, size_, "under the feet", len(bearings(piece, plan.stance))


def _staked(piece: Piece, plan: Plan, show: Show) -> Iterator[Sort]:
    """What legs set into the top are held with."""
    for leg in plan.stance.legs:
        joint = support_of(piece, leg).joint
        if isinstance(joint, DowelScrew):
            size = f"{show.length(joint.socket).text} by {show.length(joint.length).text}"
            yield "screws pointed at both ends", size, "the legs", 1
        if (wedge := wedge_made(piece, leg)) is not None:
            # Sizes as the card for making them has them; a hard wood, split or sawn along its grain.
            size = " by ".join(show.length(mm).text for mm in (wedge.wide, wedge.long))
            yield (
                "wedges of a hard wood",
                f"{size}, {show.fine(wedge.butt).text} thick",
                "the legs' tenons",
                1,
            )
    for body in plan.stance.bodies:
        support = piece.supports[body.support]
        held = support.joint if isinstance(support, StakedLegs) else None
        if body.role == "batten" and isinstance(held, Battened):
            yield "screws", f"{show.length(held.screw).text} long", "the battens", held.screws
    for above in pegs_from_above(piece, plan.stance):
        size = f"{show.length(above.peg.diameter).text} by {show.length(above.longest + PROUD_MM).text}"
        yield "pegs", size, "the legs' tenons", 1
    for side in pegs_from_side(piece, plan.stance):
        joint = support_of(piece, side.leg).joint
        assert isinstance(joint, Battened)
        long = show.length(longest_from_side(side.peg, joint) + PROUD_MM).text
        yield "pegs", f"{show.length(side.peg.diameter).text} by {long}", "the legs' tenons", 1


def _inside(piece: Piece, plan: Plan, show: Show) -> Iterator[Sort]:
    """Dowels and loose tenons inside the joints, as long as both their holes less the room for glue."""
    for one in plan.made.through_dowels:
        size = f"{show.length(one.dowels.size).text} by {show.length(dowel_long(one)).text}"
        yield "dowels", size, "the joints, from outside", 1
    for body, _, dowels in joined_ends(piece, plan.stance):
        if driven_through(piece.supports[body.support]):
            continue
        yield (*_loose(dowels, show), dowels.count)


def _loose(dowels: Dowels, show: Show) -> tuple[str, str, str]:
    long = show.length(2.0 * (dowels.depth - dowels.gap)).text
    thick = show.length(dowels.size).text
    if dowels.way == "dowel":
        return "dowels", f"{thick} by {long}", "the joints"
    return "loose tenons", f"{thick} by {show.length(dowels.width).text} by {long}", "the joints"
