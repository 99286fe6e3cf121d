"""What can go wrong in joints: screws too long, pegs that break out, dowels that meet."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import combinations

from splay.judge.finding import Finding
from splay.parts import SocketPart
from splay.piece import (
    ApronedLegs,
    Battened,
    Blind,
    DowelScrew,
    Peg,
    Piece,
    Stretcher,
)
from splay.piece.kinds import driven_through
from splay.quantity import Figure, Show
from splay.stance.battens import tightest
from splay.stance.body import Body
from splay.stance.convex import Plane, Solid, clip, plane_at, volume
from splay.stance.hollow import thickness_at
from splay.stance.pegs import THIN_MM, holes_along, peg_from_above
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.vectors import Vec

POINT_MM = 3.0
"""Least wood left in front of a screw's point (common practice, no source)."""
DOWEL_SHARE = 0.6
"""A dowel or loose tenon thicker than this share of its part weakens it (common practice, no source)."""
SCREW_ROOM_MM = 10.0
"""Least wood beside a batten's screw: to its end, a hole, the next screw (common practice, no source)."""
TOUCH_MM = 0.01
SHARED_MM3 = 1.0
"""Less than this in common is a touch, not an overlap."""


def turned_home(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """Legs on screws that cannot be turned home, or that stop where they please."""
    for index, support in piece.staked():
        if not isinstance(support.joint, DowelScrew):
            continue
        legs = tuple(leg for leg in stance.legs if leg.support == index)
        numbers, ids = tuple(leg.number for leg in legs), {leg.id for leg in legs}
        tied = [
            one for one in piece.members
            if isinstance(one, Stretcher) and any(getattr(end, "leg", None) in ids for end in one.ends)
        ]  # fmt: skip
        if tied:
            yield Finding(
                "screw_tied", "stop", "legs",
                "A leg on a screw is turned home: held by a stretcher it cannot be turned, and once it is "
                "home "
                "no stretcher goes in.",
                "Leave the stretchers out, or set these legs into the seat with tenons.",
                numbers, show.count(len(tied)), show.count(0), None, f"supports.{index}.joint",
            )  # fmt: skip
        if support.leg.section != "round":
            yield Finding(
                "screw_flats", "caution", "legs",
                "A leg on a screw stops where the screw is tight, not where its faces should look.",
                "Make it round, or take off its end a shaving at a time until its face looks right.",
                numbers, show.count(len(numbers)), None, None, f"supports.{index}.leg.section",
            )  # fmt: skip


def screws(piece: Piece, sockets: tuple[SocketPart, ...], stance: Stance, show: Show) -> Iterator[Finding]:
    """Screws through battens and double-ended ones that come out, or hold nothing."""
    done: set[int] = set()
    for socket, leg in zip(sockets, stance.legs, strict=True):
        joint = support_of(piece, leg).joint
        if isinstance(joint, DowelScrew) and leg.support not in done:
            done.add(leg.support)
            if joint.into_top >= joint.length - POINT_MM:
                yield Finding(
                    "screw_short",
                    "stop",
                    "legs",
                    "The double-ended screw leaves nothing for the leg.",
                    "Take a longer screw, or let less of it into the top.",
                    (leg.number,),
                    show.length(joint.length - joint.into_top),
                    show.length(POINT_MM),
                    None,
                    f"supports.{leg.support}.joint.length",
                )
        if not isinstance(joint, Battened) or leg.support in done:
            continue
        done.add(leg.support)
        yield from _crowded(joint, leg, stance, show)
        grip = _named(socket, "grip").quantity
        room = thickness_at(piece.top, leg.place.at) - POINT_MM
        if grip.value > room:
            yield Finding(
                "screw_through",
                "stop",
                "boring",
                f"The battens' screws reach {grip.text} into the top: they come out, or nearly.",
                f"Take screws {show.length(grip.value - room).text} shorter, or sink them less deep.",
                (leg.number,),
                grip,
                show.length(room),
                leg.place.at,
                f"supports.{leg.support}.joint.screw",
            )
        elif grip.value < 8.0:
            yield Finding(
                "screw_short",
                "caution",
                "boring",
                f"The battens' screws reach only {grip.text} into the top.",
                "Take longer screws, or sink their heads deeper.",
                (leg.number,),
                grip,
                show.length(8.0),
                None,
                f"supports.{leg.support}.joint.screw",
            )


def _crowded(joint: Battened, leg: LegStance, stance: Stance, show: Show) -> Iterator[Finding]:
    """Screws of a batten too near its ends, its legs' holes or one another."""
    battens = [body for body in stance.bodies if body.role == "batten" and body.support == leg.support]
    room = min(
        tightest(high - low, holes_along(body, stance), joint.screws)
        for body in battens
        for low, high in [body.at(0.0, 0.0)]
    )
    if room < SCREW_ROOM_MM:
        yield Finding(
            "screws_crowded",
            "caution",
            "boring",
            f"A batten's screws have only {show.length(room).text} of wood beside them.",
            "Take fewer screws, or let the battens run on further past their legs.",
            (leg.number,),
            show.length(room),
            show.length(SCREW_ROOM_MM),
            None,
            f"supports.{leg.support}.joint.{'screws' if joint.screws > 2 else 'end'}",
        )


def _named(socket: SocketPart, what: str) -> Figure:
    return next(figure for figure in socket.more if figure.key == f"socket.{socket.number}.{what}")


def pegs(piece: Piece, sockets: tuple[SocketPart, ...], stance: Stance, show: Show) -> Iterator[Finding]:
    """Pegs that cannot stay inside, or miss their tenon; tapers that run to a point."""
    for socket, leg in zip(sockets, stance.legs, strict=True):
        joint = support_of(piece, leg).joint
        base = f"supports.{leg.support}.joint"
        if joint.tenon == "tapered" and leg.bore.tip <= 0.3 * leg.bore.size:
            yield Finding(
                "taper_to_a_point",
                "stop",
                "legs",
                f"The tapered tenon of leg {leg.number} runs out to {show.length(leg.bore.tip).text}.",
                "Ream at a smaller angle, or start thicker.",
                (leg.number,),
                show.length(leg.bore.tip),
                show.length(0.3 * leg.bore.size),
                None,
                f"{base}.included",
            )
        if isinstance(joint, Battened) and joint.peg is not None:
            longest = _named(socket, "peg").quantity
            need = joint.batten_width / 2.0 + leg.bore.size / 2.0
            if longest.value < need:
                yield Finding(
                    "peg_short",
                    "caution",
                    "boring",
                    f"The peg may be {longest.text} long before it breaks out: it does not cross tenon "
                    f"{leg.number}.",
                    "Slope it less, or enter it nearer the top.",
                    (leg.number,),
                    longest,
                    show.length(need),
                    leg.place.at,
                    f"{base}.peg.angle",
                )
        if isinstance(joint, Blind) and joint.peg is not None:
            crosses = _named(socket, "peg_crosses").quantity
            high = leg.bore.deep * -leg.d[2]
            if not joint.peg.diameter < crosses.value < high - joint.peg.diameter / 2.0:
                yield Finding(
                    "peg_misses",
                    "caution",
                    "boring",
                    f"The peg from above meets the middle of tenon {leg.number} {crosses.text} above "
                    f"the underside; the tenon stands {show.length(high).text} high.",
                    "Enter it nearer to, or further from, the mark, or change its slope.",
                    (leg.number,),
                    crosses,
                    show.length(high),
                    leg.place.at,
                    f"{base}.peg.entry",
                )
            if joint.peg.place == "through_socket":
                yield from _beside(piece, leg, joint.peg, f"{base}.peg.entry", show)


def _beside(piece: Piece, leg: LegStance, peg: Peg, field: str, show: Show) -> Iterator[Finding]:
    """The thin hole a peg's place is found by, where the peg does not cover it."""
    one = peg_from_above(piece, leg, peg)
    covered = (peg.diameter - THIN_MM) / 2.0
    if abs(one.on) > covered:
        x, y = one.through
        entry = math.hypot(x - leg.socket[0], y - leg.socket[1])
        yield Finding(
            "peg_pilot_shows", "note", "boring",
            f"The thin hole through the socket of leg {leg.number} comes out "
            f"{show.closely(abs(one.on)).text} beside its peg, and shows.",
            f"Enter the peg {show.length(entry).text} off the leg's centre, and it covers it.",
            (leg.number,), show.closely(abs(one.on)), show.closely(covered), one.through, field,
        )  # fmt: skip


def dowels(piece: Piece, show: Show) -> Iterator[Finding]:
    """Dowels and loose tenons too thick for their parts, or deeper than there is wood."""
    for index, joined in piece.joined():
        chosen, thin, what = joined.dowels, joined.thinnest, joined.named
        base = f"supports.{index}.dowels"
        if chosen.size > DOWEL_SHARE * thin:
            yield Finding(
                "dowel_thick",
                "caution",
                "stretchers",
                f"{show.length(chosen.size).text} is thick for the {what}, "
                f"{show.length(thin).text} through.",
                "Take thinner ones: about a third of the thickness.",
                (),
                show.length(chosen.size),
                show.length(DOWEL_SHARE * thin),
                None,
                f"{base}.size",
            )
        if chosen.gap >= chosen.depth:
            yield Finding(
                "dowel_short",
                "stop",
                "stretchers",
                "The room for glue leaves no dowel.",
                "Bore deeper, or leave less room.",
                (),
                show.length(chosen.depth - chosen.gap),
                show.length(0.0),
                None,
                f"{base}.depth",
            )
        # What is driven from outside goes right through on purpose.
        deep = joined.room
        if not driven_through(piece.supports[index]) and chosen.depth > deep - POINT_MM:
            yield Finding(
                "dowels_meet",
                "stop",
                "stretchers",
                f"{show.length(chosen.depth).text} deep in the {what}: they come out, or meet.",
                f"At most {show.length(deep - POINT_MM).text} deep.",
                (),
                show.length(chosen.depth),
                show.length(deep - POINT_MM),
                None,
                f"{base}.depth",
            )


def apron_tenons(piece: Piece, show: Show) -> Iterator[Finding]:
    """Tenons of two aprons that meet inside the leg."""
    for index, support in enumerate(piece.supports):
        if not isinstance(support, ApronedLegs) or support.tenon == 0.0:
            continue
        # The other apron's tenon begins behind the setback, at most as thick as its apron.
        room = support.face - support.setback - support.thickness
        if support.tenon > support.face - POINT_MM:
            code, level, limit = "tenon_through", "stop", support.face - POINT_MM
            text = "The aprons' tenons come out of the legs."
        elif support.tenon > room:
            code, level, limit = "tenons_meet", "note", room
            text = "The tenons of two aprons meet inside the leg."
        else:
            continue
        yield Finding(
            code,
            "stop" if level == "stop" else "note",
            "stretchers",
            text,
            "Mitre their ends, or make them shorter.",
            (),
            show.length(support.tenon),
            show.length(limit),
            None,
            f"supports.{index}.tenon",
        )


def overlaps(stance: Stance, show: Show) -> Iterator[Finding]:
    """Parts of square stock that would be in each other's way."""
    drawn = [body for body in stance.bodies if body.drawn]
    for one, two in combinations(drawn, 2):
        if _apart(one.around, two.around):
            continue
        shared = _shared(one, two)
        if shared > SHARED_MM3:
            yield Finding(
                "parts_overlap",
                "stop",
                "stance",
                f"{one.name[0].upper()}{one.name[1:]} and {two.name} are in each other's way.",
                "Move one of them, or make it thinner or shorter.",
                (),
                show.length(shared ** (1.0 / 3.0)),
                show.length(0.0),
                None,
                f"supports.{one.support}",
            )


def _apart(near: tuple[Vec, Vec], far: tuple[Vec, Vec]) -> bool:
    """Whether two boxes share no more than a touch."""
    return any(near[0][k] > far[1][k] - TOUCH_MM or far[0][k] > near[1][k] - TOUCH_MM for k in range(3))


def _shared(one: Body, two: Body) -> float:
    """Volume two parts have in common, mm³: the pieces of one clipped by the faces of the other."""
    # Of an arc's many strips none needs looking at where the stock it is sawn from keeps clear.
    if (one.sweep or two.sweep) and _parted(one.stood_plain, two.stood_plain):
        return 0.0
    return sum(_common(a, b) for a in one.stood for b in two.stood)


def _parted(a: Solid, b: Solid) -> bool:
    """Whether one lies all on the far side of a face of the other, as parts do that meet in a joint."""
    return any(_all_beyond(plane_at(face.normal, face.corners[0]), a) for face in b) or any(
        _all_beyond(plane_at(face.normal, face.corners[0]), b) for face in a
    )


def _common(a: Solid, b: Solid) -> float:
    # Nothing to clip then.
    if _parted(a, b):
        return 0.0
    planes = [plane_at(face.normal, face.corners[0]) for face in b]
    left = a
    for plane in planes:
        left = clip(left, plane)
        if not left:
            return 0.0
    return abs(volume(left))


def _all_beyond(plane: Plane, solid: Solid) -> bool:
    return all(plane.beyond(p) > -TOUCH_MM for face in solid for p in face.corners)
