"""What cannot be built as it was chosen: parts thicker, taller or longer than what holds them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from splay.judge.finding import Finding
from splay.parts.member import MemberPart
from splay.piece import (
    ApronedLegs,
    Battened,
    BoardSides,
    CrossPiece,
    DowelScrew,
    MitredFrames,
    Piece,
    PlaneFrames,
    Shouldered,
    StakedLegs,
    Stretcher,
)
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.board_sides import front_back
from splay.stance.member_flats import half_over_corners
from splay.stance.members import MemberStance
from splay.stance.side_taper import MET_MM, joined_to
from splay.stance.staked import Stance
from splay.stance.vectors import between, cross, dot, length

SHOULDER_MM = 1.0
"""Least wood a stretcher keeps round its tenon for a shoulder to be one (common practice, no source)."""
LEG_SHARE = 0.6
"""A socket wider than this share of its leg weakens it (common practice, no source)."""
CLEAR_MM = 1.0


@dataclass(frozen=True)
class _Against:
    """One size held against what bounds it, mm, in words and with its field."""

    code: str
    station: str
    text: str
    mend: str
    size: float
    limit: float
    field: str

    def found(self, show: Show) -> Iterator[Finding]:
        """A stop where the size is past its limit."""
        if self.size > self.limit + 1e-9:
            yield Finding(
                self.code,
                "stop",
                self.station,
                self.text,
                self.mend,
                (),
                show.length(self.size),
                show.length(self.limit),
                None,
                self.field,
            )


def buildable(
    piece: Piece,
    stance: Stance,
    runs: tuple[MemberStance, ...],
    members: tuple[MemberPart, ...],
    show: Show,
) -> Iterator[Finding]:
    """Every size of the document that is past what bounds it, with the choice that mends it."""
    for one in (*_supports(piece, stance), *_members(piece, members)):
        yield from one.found(show)
    yield from _tapers(stance, show)
    yield from _crossing(piece, runs, show)


def _supports(piece: Piece, stance: Stance) -> Iterator[_Against]:
    high = stance.floor.h0_mm
    top = piece.top
    for edge, name in ((top.upper_edge, "upper"), (top.lower_edge, "lower")):
        down = edge.size * deg.tan(edge.angle) if edge.way == "chamfer" else edge.size
        yield _Against(
            "edge_deep", "top", f"What is shaped off the {name} edge is deeper than the top is thick.",
            "Make it smaller, or the top thicker.", down, top.thickness, f"top.{name}_edge.size",
        )  # fmt: skip
    for k, support in enumerate(piece.supports):
        base = f"supports.{k}"
        if isinstance(support, StakedLegs):
            yield from _staked(support, base)
        elif isinstance(support, PlaneFrames):
            for j, cross_piece in enumerate(support.cross):
                yield _low(cross_piece, high, f"{base}.cross.{j}", "cross-piece")
        elif isinstance(support, BoardSides):
            yield from _boards(support, high, base)
        elif isinstance(support, ApronedLegs):
            yield from _aproned(support, high, base)
        elif isinstance(support, MitredFrames):
            yield _Against(
                "rail_low", "stance", "The rail is deeper than the base is high: it stands on the floor.",
                "Take a shallower rail, or raise it.", support.rail, high - CLEAR_MM, f"{base}.rail",
            )  # fmt: skip
            yield _Against(
                "legs_meet_rail", "stance", "Both legs of a frame are wider than its rail is long.",
                "Make the frame longer, or its legs narrower.", 2 * support.leg, support.length,
                f"{base}.leg",
            )  # fmt: skip


def _staked(support: StakedLegs, base: str) -> Iterator[_Against]:
    leg, joint = support.leg, support.joint
    if isinstance(joint, Shouldered):
        yield _Against(
            "tenon_over_leg", "legs", "The tenon is wider than the leg it is cut on.",
            "Make its shorter side smaller, or thicken the leg at the top.", joint.across, leg.at_top,
            f"{base}.joint.across",
        )  # fmt: skip
    if isinstance(joint, DowelScrew):
        yield _Against(
            "pilot_wide", "boring", "The pilot is as wide as the screw: its thread finds no wood.",
            "Bore the pilot thinner than the screw over its thread.", joint.core, joint.socket - 0.1,
            f"{base}.joint.core",
        )  # fmt: skip
        yield _Against(
            "screw_thick", "legs", "The screw is thicker than the leg it goes into.",
            "Take a thinner screw, or a thicker leg.", joint.socket, LEG_SHARE * leg.at_top,
            f"{base}.joint.socket",
        )  # fmt: skip
    if isinstance(joint, Battened):
        yield _Against(
            "batten_narrow", "boring", "The socket is wider than its batten.",
            "Make the batten wider, or the socket smaller.", joint.socket, joint.batten_width,
            f"{base}.joint.batten_width",
        )  # fmt: skip
        yield _Against(
            "counterbore_through", "boring", "The screws' heads are let in through the batten.",
            "Let them in less deep, or take a thicker batten.", joint.counterbore,
            joint.batten_thickness - CLEAR_MM, f"{base}.joint.counterbore",
        )  # fmt: skip


def _low(cross_piece: CrossPiece, high: float, field: str, named: str) -> _Against:
    return _Against(
        "piece_low",
        "stance",
        f"The {named} reaches below the floor.",
        "Set it higher, or make it shallower.",
        cross_piece.drop + cross_piece.stands,
        high - CLEAR_MM,
        f"{field}.drop",
    )


LEAST_OVER_ARCH_MM = 25.0
"""Wood left over the arch of an apron (common practice, no source)."""
LEAST_BOARD_MM = 40.0
"""A short board under a lower tread is at least so high (common practice, no source)."""


def _boards(support: BoardSides, high: float, base: str) -> Iterator[_Against]:
    lower = support.lower
    front, back = front_back(support)
    low = high
    if lower is not None:
        under = lower.drop + lower.thickness
        low = high - under
        yield _Against(
            "tread_low", "stance", "The lower tread leaves its boards no height above the floor.",
            "Set it higher, or raise the height.", under, high - LEAST_BOARD_MM, f"{base}.lower.drop",
        )  # fmt: skip
        for j, rail in enumerate(lower.rails):
            field = f"{base}.lower.rails.{j}"
            yield _low(rail, low, field, "rail under the lower tread")
            first = _tapered_in(support, "front", rail, low) - lower.board / 2.0
            yield _beside(rail, (first, lower.board / 2.0), field)
        edge = lower.upper_edge
        down = edge.size * deg.tan(edge.angle) if edge.way == "chamfer" else edge.size
        yield _Against(
            "edge_deep", "stance", "What is shaped off the lower tread's edge is deeper than it is thick.",
            "Make it smaller, or the tread thicker.", down, lower.thickness,
            f"{base}.lower.upper_edge.size",
        )  # fmt: skip
    for j, rail in enumerate(support.rails):
        field = f"{base}.rails.{j}"
        yield _low(rail, high, field, "tread" if rail.lies == "flat" else "rail")
        last = back - _tapered_in(support, "back", rail, high)
        first = -support.width / 2.0
        if lower is None:
            first += _tapered_in(support, "front", rail, high)
        elif rail.drop >= high - low:
            # Below the lower tread's underside there are the short boards too.
            below = rail.model_copy(update={"drop": rail.drop - (high - low)})
            first = front + _tapered_in(support, "front", below, low)
        yield _beside(rail, (first, last), field)
    cut = support.cut_out
    if cut is None:
        return
    yield _Against(
        "cut_out_high", "legs", "What is cut out between the feet is as high as the board.",
        "Cut it lower.", cut.height, low / deg.cos(support.splay) - CLEAR_MM, f"{base}.cut_out.height",
    )  # fmt: skip
    yield _Against(
        "cut_out_wide", "legs", "What is cut out is as wide as the board: no feet are left.",
        "Cut it narrower, or make the board wider.", cut.width, back - front - CLEAR_MM,
        f"{base}.cut_out.width",
    )  # fmt: skip


def _beside(rail: CrossPiece, room: tuple[float, float], field: str) -> _Against:
    """A piece between boards against their edges, from where to where front to back they go there."""
    half = (rail.depth if rail.lies == "flat" else rail.thickness) / 2.0
    first, last = room
    middle = (first + last) / 2.0
    return _Against(
        "rail_outside", "stance", "A piece between the boards lies past their edges.",
        "Move it nearer the middle, or make the boards wider.", abs(rail.offset - middle) + half,
        last - middle, f"{field}.offset",
    )  # fmt: skip


def _tapered_in(support: BoardSides, edge: str, rail: CrossPiece, tall: float) -> float:
    """How far in a board's edge comes beside a piece between the boards, where it is narrowest there, mm:
    evenly over the board's whole height (`tall`)."""
    taper = support.taper
    if taper is None or taper.sides not in (edge, "both") or tall <= 0.0:
        return 0.0
    deep = rail.stands
    share = 1.0 - rail.drop / tall if taper.narrower == "top" else (rail.drop + deep) / tall
    return taper.off * max(0.0, min(1.0, share))


def _aproned(support: ApronedLegs, high: float, base: str) -> Iterator[_Against]:
    lean = max(support.splay, support.rake)
    yield _Against(
        "apron_tall", "stance", "The aprons are taller than the legs stand.",
        "Make the aprons lower, or raise the height.", support.apron * deg.cos(lean), high - CLEAR_MM,
        f"{base}.apron",
    )  # fmt: skip
    if support.arch:
        yield _Against(
            "arch_high", "stance", "The arch takes nearly all of the aprons' height in the middle.",
            "Let it rise less, or make the aprons higher.", support.arch,
            support.apron - LEAST_OVER_ARCH_MM, f"{base}.arch",
        )  # fmt: skip
    yield _Against(
        "apron_thick", "stance", "The aprons are thicker than their legs behind the setback.",
        "Take thinner aprons, thicker legs, or less setback.", support.setback + support.thickness,
        support.face, f"{base}.thickness",
    )  # fmt: skip
    for size, field in ((support.length, "length"), (support.width, "width")):
        yield _Against(
            "legs_over_table", "stance", "Two legs side by side are wider than the frame is.",
            "Make the frame longer and wider, or its legs thinner.", 2 * support.face, size - CLEAR_MM,
            f"{base}.{field}",
        )  # fmt: skip


def _tapers(stance: Stance, show: Show) -> Iterator[Finding]:
    """Of each support the joint that reaches furthest down a side that is tapered, and the taper there."""
    worst: dict[int, tuple[float, float, str]] = {}
    for leg in stance.bodies:
        for taper in leg.tapers:
            for other in stance.bodies:
                if other is leg or other.support != leg.support:
                    continue
                low = joined_to(leg, taper.side, other)
                # What the joint asks for, down the same corner as the taper's beginning.
                need = taper.after + low - taper.begins
                if low > taper.begins + MET_MM and need > worst.get(leg.support, (0.0,))[0]:
                    worst[leg.support] = (need, taper.after, other.name)
    for support, (need, after, name) in worst.items():
        yield Finding(
            "taper_in_joint",
            "stop",
            "stance",
            f"The legs' taper begins above the foot of a joint: the {name} stands open.",
            f"Let it begin {show.length(need).text} down or more, or taper other sides of the leg.",
            (),
            show.length(after),
            show.length(need),
            None,
            f"supports.{support}.taper.begins",
        )


def _members(piece: Piece, members: tuple[MemberPart, ...]) -> Iterator[_Against]:
    for part in members:
        chosen = piece.members[part.number - 1]
        assert isinstance(chosen, Stretcher)
        field = f"members.{part.number - 1}"
        yield _Against(
            "tenon_over_stretcher", "stretchers",
            f"The tenon of {part.name} is thicker than the stick itself.",
            "Bore a smaller socket, or take a thicker stick.", chosen.tenon, chosen.diameter,
            f"{field}.tenon",
        )  # fmt: skip
        for end in part.ends:
            yield _Against(
                "socket_over_stick", "stretchers",
                f"The socket of {part.name} is too wide for {end.into}: it weakens it.",
                "Make its tenon thinner, or what it goes into thicker.", chosen.tenon,
                2.0 * end.radius * (1.0 if end.member else 0.9), f"{field}.tenon",
            )  # fmt: skip


def _crossing(piece: Piece, runs: tuple[MemberStance, ...], show: Show) -> Iterator[Finding]:
    """Stretchers that run through one another between their legs."""
    for k, one in enumerate(runs):
        for two in runs[k + 1 :]:
            if any(e.member == one.number for e in two.ends) or any(
                e.member == two.number for e in one.ends
            ):
                continue
            a, b = piece.members[one.number - 1], piece.members[two.number - 1]
            assert isinstance(a, Stretcher) and isinstance(b, Stretcher)
            apart = _nearest(one, two)
            room = half_over_corners(a) + half_over_corners(b)
            if apart is None or apart >= room:
                continue
            yield Finding(
                "stretchers_cross",
                "stop",
                "stretchers",
                f"Stretchers {one.number} and {two.number} meet between their legs: their middles pass "
                f"{show.length(apart).text} apart, and they want {show.length(room).text}.",
                "Set one higher than the other, or let one end in the other.",
                tuple(sorted({e.leg for run in (one, two) for e in run.ends if e.leg})),
                show.length(apart),
                show.length(room),
                None,
                f"members.{two.number - 1}",
            )


def _nearest(one: MemberStance, two: MemberStance) -> float | None:
    """How near two stretchers' axes pass between their ends, mm; None where that is not between them."""
    p, q = one.ends[0].at, two.ends[0].at
    normal = cross(one.u, two.u)
    size = length(normal)
    if size < 1e-6:
        return None
    w = between(p, q)
    s = dot(cross(w, two.u), normal) / size**2
    t = dot(cross(w, one.u), normal) / size**2
    inside = one.ends[0].leaves < s < one.centres - one.ends[1].leaves
    inside &= two.ends[0].leaves < t < two.centres - two.ends[1].leaves
    return abs(dot(w, normal)) / size if inside else None
