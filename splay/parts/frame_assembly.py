"""How supports of square stock go together: flat halves first, what joins them next, the seat last."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from splay.parts.stages import Stage
from splay.piece import ApronedLegs, BoardSides, MitredFrames, Piece, PlaneFrames, SlabLeg, Support
from splay.piece.kinds import HoldsTop, driven_through
from splay.stance.body import Body

_DRY = "Dry first: every joint closed, no gap at any shoulder, then apart again for the glue."
_FLAT = "On a flat bench, both faces against it."
_SEAT = (
    "Seat upside down, the frame's upper ends on their marks on the underside, FRONT to FRONT. No glue: "
    "the seat moves across its grain.",
    "What holds it down is not chosen yet: screws or buttons, chosen where the piece is shaped.",
)


_SPLINED = (
    "Seat upside down, the frame's upper ends on their marks on the underside, FRONT to FRONT: every "
    "notch over its mortise. Tried dry with the splines in; they are driven from above."
)


_TRIED = (
    "At once, before the glue sets: on its feet, the lower tread dry on the short boards, its back edge "
    "against the long ones, past the outer faces alike at both ends. That tells whether the sides stand "
    "square to the front; then it comes off again."
)


def frame_stages(piece: Piece, bodies: tuple[Body, ...]) -> list[Stage]:
    """The stages of every support of square stock, in the order of the supports."""
    made: list[Stage] = []
    for index, support in enumerate(piece.supports):
        mine = [body for body in bodies if body.support == index]
        told = STAGES.get(type(support))
        if isinstance(support, SlabLeg):
            made += _slab(support, mine)
        elif told is not None:
            stages = told(mine, driven_through(support))
            if isinstance(support, BoardSides) and support.splines is not None:
                stages[-1] = _stage("Under the seat", (_SPLINED,), [b for b in mine if b.stands], 0)
            elif _held_down(support):
                stages.pop()
            made += stages
    return made


def _keys(bodies: list[Body]) -> tuple[str, ...]:
    return tuple(body.key for body in bodies)


def _stage(title: str, steps: tuple[str, ...], bodies: list[Body], joints: int) -> Stage:
    return Stage(title, steps, _keys(bodies), joints)


def _onto_seat(bodies: list[Body]) -> Stage:
    return _stage("Onto the seat", _SEAT, [b for b in bodies if b.stands], 0)


def _held_down(support: Support) -> bool:
    """Whether screws or buttons hold the top: they are driven last of all, in a step of their own."""
    return isinstance(support, HoldsTop) and support.held is not None


def _plane(bodies: list[Body], through: bool) -> list[Stage]:
    inside = "glue on the ends" if through else "dowels in"
    links = [b for b in bodies if b.role == "link"]
    made = []
    for name in ("front", "back"):
        mine = [b for b in bodies if b.role != "link" and b.frame == name]
        crosses = [b for b in mine if b.role == "cross"]
        steps = (
            _FLAT,
            "Cross-pieces between the two legs, each on its lines, upper edge up, outer faces one way; "
            f"{inside}, then both legs pulled on together.",
            "Equal diagonals, no twist, before it sets.",
        )
        made.append(_stage(f"The {name} frame", steps, mine, 2 * len(crosses)))
    joined = (
        _DRY,
        "Both frames upside down, inner faces towards each other; the links between them on "
        "their lines, flush with the legs' upper ends, all started before one is driven.",
    )
    if links:
        made.append(_stage("The links between the frames", joined, links, 2 * len(links)))
    return [*made, _onto_seat(bodies)]


def _mitred(bodies: list[Body], _: bool) -> list[Stage]:
    made = []
    for number in dict.fromkeys(b.frame for b in bodies):
        mine = [b for b in bodies if b.frame == number]
        steps = (
            _FLAT,
            "Each leg's mitre on its end of the rail, marked faces one way; blocks glued or clamped on the "
            "outside so that the clamp pulls square to the mitre.",
            "Both feet the same distance from the rail's middle, before it sets.",
        )
        made.append(_stage(f"Frame {number}", steps, mine, 2))
    rails = [b for b in bodies if b.role == "rail"]
    if len(rails) > 1:
        crossed = (
            "The frame lapped from above stands; the other goes down over it, until the rails lie flush.",
        )
        made.append(_stage("Both frames, crossed", crossed, rails, 1))
    return [*made, _onto_seat(bodies)]


def _boards(bodies: list[Body], _: bool) -> list[Stage]:
    sides = [b for b in bodies if b.role == "side"]
    between = [b for b in bodies if b.role in ("rail", "tread")]
    lower = [b for b in bodies if b.role == "lower_tread"]
    steps = (
        _DRY,
        "The left side on the bench, inner face up; every rail and tread on its lines there by its left "
        "end, upper edge or upper face towards the side's upper end.",
        "The right side down over all their right ends at once, each started before one is driven.",
        *((_TRIED,) if lower else ()),
    )
    made = _stage("Both sides and what runs between", steps, sides + between + lower, 2 * len(between))
    return [made, _onto_seat(bodies)]


def _aproned(bodies: list[Body], _: bool) -> list[Stage]:
    legs = [b for b in bodies if b.role == "leg"]
    made = []
    for name in ("left", "right"):
        mine = [b for b in legs if b.pose.origin[0] * (1 if name == "right" else -1) > 0]
        apron = [b for b in bodies if b.role == "apron" and b.frame == name]
        steps = (
            f"The {name} apron between its two legs, upper edges and upper ends flush, outer faces out; "
            "flat on the bench.",
            "Equal diagonals, no twist, before it sets.",
        )
        made.append(_stage(f"The {name} end", steps, mine + apron, 2))
    rest = [b for b in bodies if b.role == "apron" and b.frame in ("front", "back")]
    steps = (
        _DRY,
        "Front and back aprons into one end, then the other end onto both at once; upper edges flush.",
    )
    made.append(_stage("Both ends, front and back", steps, rest, 4))
    return [*made, _onto_seat(bodies)]


def _slab(support: SlabLeg, bodies: list[Body]) -> list[Stage]:
    inside = "dowels in before it is closed" if support.outside is None else "glue on both faces"
    grown = any(body.grown for body in bodies)
    edges = "show corners and middle lines together" if grown else "edges flush"
    steps = (
        _DRY,
        f"Seat upside down; the slab leg's mitre on the seat's, show face outward, {edges}; {inside}.",
        *(("Where the edges do not meet underneath, fair them when the glue has set.",) if grown else ()),
        "Clamping blocks on both, so that the clamp pulls square to the mitre.",
    )
    return [_stage("The slab leg on its mitre", steps, bodies, 1)]


STAGES: dict[type[Any], Callable[[list[Body], bool], list[Stage]]] = {
    PlaneFrames: _plane,
    MitredFrames: _mitred,
    BoardSides: _boards,
    ApronedLegs: _aproned,
}
