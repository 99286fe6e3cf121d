"""A top held down: by screws or buttons, support by support, two boards each for itself."""

from __future__ import annotations

from collections.abc import Iterator

from splay.build.plainly import told
from splay.build.step import Step
from splay.piece import BoardSides, Piece, Support
from splay.plan import Plan
from splay.quantity import Show
from splay.setups.crosscut import end_name
from splay.setups.held import PILOT_SHARE
from splay.stance.buttons import Button, Grooved, grooves
from splay.stance.gapped import across_at, top_boards
from splay.stance.holding import STILL_MM, Fastening, fastenings
from splay.work.phrases import cap, listed

MIDDLE_MM = 0.5
"""Nearer than this it stands in the middle."""
SAME_MM = 0.05
"""What stands off its part by no more difference than this stands off alike."""


def hold_top(piece: Piece, plan: Plan, show: Show) -> Iterator[Step]:
    """The top held to what stands, support by support, by screws or by buttons."""
    screws, grooved = fastenings(piece, plan.stance), grooves(piece, plan.stance)
    for index, support in enumerate(piece.supports):
        how = _screwed([one for one in screws if one.body.support == index], show)
        how = how or _buttoned([one for one in grooved if one.body.support == index], show)
        if how:
            yield told(
                "hold_top",
                "Hold the top down" if not _lower(support, show) else "Hold both treads down",
                "stretchers",
                key=f"hold_top.{support.id}",
                do=(
                    "The whole upside down on something soft."
                    if isinstance(support, BoardSides) and support.splines is not None
                    else "The top face down on something soft, the frame upside down on it, on its marks.",
                    *_lower(support, show),
                    *_gapped(piece, index, screws, grooved, show),
                    *how,
                    "Feel the top over every point before the last turn.",
                ),
            )


def _gapped(
    piece: Piece, index: int, screws: tuple[Fastening, ...], grooved: tuple[Grooved, ...], show: Show
) -> Iterator[str]:
    """Who holds each of two boards, where, and what it may move there."""
    gap = piece.top.gap
    if gap is None:
        return
    yield (
        f"Strips {show.length(gap.width).text} thick stay between the boards, near both ends, until all is "
        "screwed."
    )
    for board in top_boards(piece.top):
        mine = [one for one in screws if one.body.support == index and one.into.key == board.key]
        if mine:
            held = listed(dict.fromkeys(one.body.name for one in mine))
            most = max(one.travel for one in mine)
            moves = f"; it moves {show.fine(most).text} in its slots at most" if most >= STILL_MM else ""
            yield (
                f"{cap(board.name)}: held by {held}. The screws in round holes first, they keep it where "
                f"it is{moves}."
            )
        by = [
            one.body.name
            for one in grooved
            if one.body.support == index
            and any(board.over(across_at(piece.top, one.at(each.along, 0.0, 0.0))) for each in one.buttons)
        ]
        if by:
            yield f"{cap(board.name)}: held by {listed(dict.fromkeys(by))}, by buttons that let it move."


def _lower(support: Support, show: Show) -> tuple[str, ...]:
    """Where a lower tread is held, which is screwed on with the top."""
    lower = support.lower if isinstance(support, BoardSides) else None
    if lower is None:
        return ()
    front = show.length(lower.past_front).text
    return (
        f"The lower tread first, its upper face down too: back edge against the long boards, {front} "
        f"past the short ones in front, {show.length(lower.past_ends).text} past their outer faces at "
        "either end; a clamp on each end.",
    )


def _screwed(mine: list[Fastening], show: Show) -> tuple[str, ...]:
    """Pilots through the holes that are there, then the screws."""
    if not mine:
        return ()
    screw = mine[0].screw
    into = mine[0].into.name if len({one.into.name for one in mine}) == 1 else "tread over it"
    moving = any(one.travel >= STILL_MM for one in mine)
    return (
        f"Pilots through the holes, {show.length(PILOT_SHARE * screw.size).text} thick. Tape on "
        f"the bit {show.length(screw.length).text} from its point, as long as the screw: stop when "
        f"it reaches the bottom of the head's hole, {show.length(screw.bite).text} into the {into}.",
        *(("Each in the middle of its wider hole, so that the top may go either way.",) if moving else ()),
        f"{len(mine)} screws {show.length(screw.size).text} by {show.length(screw.length).text}: "
        "home, then those whose holes are wider a quarter turn back.",
    )


def _buttoned(mine: list[Grooved], show: Show) -> tuple[str, ...]:
    """Where each button stands along its part and how far off it, then its screw."""
    if not mine:
        return ()
    places: dict[str, dict[str, None]] = {}
    for one in mine:
        for each in one.buttons:
            off, along = show.fine(each.off).text, abs(each.along)
            to = f"{show.length(along).text} {_side(one, each)} the middle of its length"
            if along < MIDDLE_MM:
                to = "in the middle of its length"
            where = f"shoulders {off} off it, {to}"
            places.setdefault(where, {})[one.body.name] = None
    count = sum(len(one.buttons) for one in mine)
    return (
        f"{count} buttons, tongues in the grooves, upper faces on the top.",
        *(f"{cap(listed(names))}: {where}." for where, names in places.items()),
        f"Pilots through the buttons' holes: tape on the bit as far from its point as the screw is long, "
        f"stop when it reaches the button, {show.length(mine[0].chosen.bite).text} into the top at most. "
        "A screw through each.",
    )


def _side(groove: Grooved, each: Button) -> str:
    """To which side of a part's middle a button stands: to both, or to the end nearer to it."""
    if any(
        abs(one.along + each.along) < MIDDLE_MM and abs(one.off - each.off) < SAME_MM
        for one in groove.buttons
    ):
        return "to either side of"
    return f"towards its {end_name(groove.body.role, 'start' if each.along < 0.0 else 'finish')} from"
