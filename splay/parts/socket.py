"""A socket in the top: where it comes out, how deep its walls are, what is left above it."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.piece import Battened, Blind, DowelScrew, Piece, Reamed, Shouldered
from splay.piece.joints import SPARE_MM
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.shop import Bit
from splay.stance.bore import Bore
from splay.stance.hollow import thickness_at
from splay.stance.outline import edge_distance
from splay.stance.pegs import longest_from_side, peg_from_above
from splay.stance.staked import LegStance, support_of
from splay.stance.vectors import Flat, Vec


@dataclass(frozen=True)
class SocketPart:
    """One socket's figures. Through: `exit_shift`; blind: walls, stop, deepest, left above.

    `exit_at` is where a through hole's middle comes out on the upper face, or the middle of a
    blind hole's floor, top frame x and y, mm. `more` is what its kind of joint asks besides.
    """

    number: int
    through: bool
    mouth: Figure
    exit_shift: Figure | None
    obtuse_wall: Figure | None
    acute_wall: Figure | None
    first_touch: Figure | None
    deepest: Figure | None
    left_above: Figure | None
    edge: Figure
    more: tuple[Figure, ...]
    exit_at: Flat


def socket_part(piece: Piece, stance: LegStance, bit: Bit, show: Show) -> SocketPart:
    """The figures of one leg's socket."""
    bore, key, rho = stance.bore, f"socket.{stance.number}", stance.boring.resultant
    made = _Socket(piece, stance, bore, key, rho, show)
    exit_at = made.end()
    blind = not bore.through
    return SocketPart(
        number=stance.number,
        through=bore.through,
        mouth=show.figure(
            f"{key}.mouth",
            "Mouth, long way",
            bore.mouth / deg.cos(rho),
            "D / cos ρ",
            show.input("D", "recess" if bore.recess else "socket", bore.mouth),
            made.lean,
        ),
        exit_shift=None if blind else made.shift(),
        obtuse_wall=made.wall("obtuse", -1) if blind else None,
        acute_wall=made.wall("acute", 1) if blind else None,
        first_touch=made.stop() if blind else None,
        deepest=made.deepest(bit) if blind else None,
        left_above=made.left(bit) if blind else None,
        edge=made.edge(exit_at),
        more=made.more(),
        exit_at=exit_at,
    )


class _Socket:
    """The figures of one socket, worked out on demand."""

    def __init__(self, piece: Piece, leg: LegStance, bore: Bore, key: str, rho: float, show: Show) -> None:
        self.piece, self.leg, self.bore, self.key, self.rho = piece, leg, bore, key, rho
        self.show = show
        self.lean = show.input("ρ", "lean to the top", rho, "deg")
        self.hole = show.input("D", "socket", bore.size)
        self.deep = show.input("k", "depth along the axis", bore.deep)
        self.slant = bore.size / 2 * deg.tan(rho)

    def end(self) -> Flat:
        """The middle of the hole's far end, seen square to the top."""
        p, d, run = self.leg.socket, self.leg.d, self.bore.deep
        return (p[0] - d[0] * run, p[1] - d[1] * run)

    def shift(self) -> Figure:
        t = self.bore.deep * deg.cos(self.rho)
        return self.show.figure(
            f"{self.key}.exit",
            "Comes out along the sightline by",
            t * deg.tan(self.rho),
            "t · tan ρ",
            self.show.input("t", "thickness where it comes out", t),
            self.lean,
            note="on the far face, from square opposite the mark",
        )

    def wall(self, side: str, sign: int) -> Figure:
        obtuse = sign < 0
        return self.show.figure(
            f"{self.key}.{side}",
            f"Wall on the {side} side",
            self.bore.deep + sign * self.slant,
            "k − D/2 · tan ρ" if obtuse else "k + D/2 · tan ρ",
            self.deep,
            self.hole,
            self.lean,
            note="towards the middle; set a depth ring that must vanish all round from this side"
            if obtuse
            else "towards the rim",
        )

    def stop(self) -> Figure:
        return (
            self.show.figure(
                f"{self.key}.stop",
                "Depth stop from first touch",
                self.bore.deep + self.slant,
                "k + D/2 · tan ρ",
                self.deep,
                self.hole,
                self.lean,
                note="set to nought when the bit first touches the slanted surface",
            )
            if not self.bore.recess
            else self.show.figure(
                f"{self.key}.stop",
                "Depth stop from first touch",
                self.bore.recess + self.bore.wide / 2.0 * deg.tan(self.rho),
                "d + w/2 · tan ρ",
                self.show.input("d", "recess, deep along its middle", self.bore.recess),
                self.show.input("w", "recess, wide", self.bore.wide),
                self.lean,
                note="of the recess: set to nought when its bit first touches the slanted surface",
            )
        )

    def _depth(self, bit: Bit) -> float:
        """The deepest of flat corner, lead point and rim spurs below the face, mm."""
        c, s = deg.cos(self.rho), deg.sin(self.rho)
        k, half = self.bore.deep, self.bore.size / 2
        return max((k + bit.rim_spurs) * c + half * s, (k + bit.centre_spur) * c)

    def deepest(self, bit: Bit) -> Figure:
        return self.show.figure(
            f"{self.key}.deepest",
            "Deepest corner below the underside"
            if self.bore.mouth_z == 0
            else "Deepest corner in the batten",
            self._depth(bit),
            "the larger of (k + q) · cos ρ + D/2 · sin ρ and (k + p) · cos ρ",
            self.deep,
            self.hole,
            self.lean,
            self.show.input("p", "lead point", bit.centre_spur),
            self.show.input("q", "rim spurs", bit.rim_spurs),
        )

    def left(self, bit: Bit) -> Figure:
        show, deepest = self.show, self._depth(bit)
        hollowed = self.piece.top.hollow is not None and self.bore.mouth_z == 0
        left = self._least_left(bit) if hollowed else self._limit() - deepest
        limit = show.input("t", "thickness bored into", self._limit())
        return show.figure(
            f"{self.key}.left",
            "Left above",
            left,
            "least all over the hole's floor" if hollowed else "t − deepest",
            limit,
            show.input("z", "deepest", deepest),
        )

    def _limit(self) -> float:
        """What there is to bore into; under a hollow, at the hole's own place."""
        if self.bore.mouth_z != 0:
            return -self.bore.mouth_z
        return thickness_at(self.piece.top, self.end())

    def _least_left(self, bit: Bit) -> float:
        """Under a hollow the thinnest place need not be over the deepest corner: go all round."""
        p, d = self.leg.socket, self.leg.d
        seen = self.leg.boring.bearing or 0.0
        c, s = deg.cos(seen), deg.sin(seen)
        cr, sr = deg.cos(self.rho), deg.sin(self.rho)
        flat: Vec = (c * cr, s * cr, sr)
        level: Vec = (-s, c, 0.0)
        half, k = self.bore.size / 2, self.bore.deep + bit.rim_spurs
        spots = [(0.0, 0.0, self.bore.deep + bit.centre_spur)]
        spots += [(half * deg.cos(a), half * deg.sin(a), k) for a in range(0, 360, 5)]
        left = math.inf
        for a, b, run in spots:
            x = p[0] - d[0] * run + a * flat[0] + b * level[0]
            y = p[1] - d[1] * run + a * flat[1] + b * level[1]
            z = -d[2] * run + a * flat[2]
            left = min(left, thickness_at(self.piece.top, (x, y)) - z)
        return left

    def edge(self, exit_at: Flat) -> Figure:
        """Wood between the hole and the rim where it is least, on either face.

        A round-over or a chamfer takes its room away from the face it is on.
        """
        half = self.bore.mouth / 2 / deg.cos(self.rho)
        top = self.piece.top
        mouth = edge_distance(top.outline, self.leg.place.at) - top.lower_edge.inward
        out = edge_distance(top.outline, exit_at) - (top.upper_edge.inward if self.bore.through else 0.0)
        return self.show.figure(
            f"{self.key}.edge",
            "Wood to the rim",
            min(mouth, out) - half,
            "least of e − m and f − m",
            self.show.input("e", "middle to edge, underside", mouth),
            self.show.input("f", "middle to edge, where it ends", out),
            self.show.input("m", "half the mouth", half),
        )

    def more(self) -> tuple[Figure, ...]:
        joint = support_of(self.piece, self.leg).joint
        if isinstance(joint, Reamed):
            return self._reamed(joint)
        if isinstance(joint, DowelScrew):
            return self._screw(joint)
        if isinstance(joint, Shouldered):
            return (self._chopped(joint),)
        if isinstance(joint, Battened):
            return self._battened(joint)
        if isinstance(joint, Blind) and joint.peg is not None:
            return self._pegged_from_above(joint)
        return ()

    def _reamed(self, joint: Reamed) -> tuple[Figure, ...]:
        """Sink per millimetre of diameter: 1 / (2 tan (included/2))."""
        show, sink = self.show, 1.0 / joint.thins
        taper = show.input("i", "included angle", joint.included, "deg")
        return (
            show.figure(
                f"{self.key}.pilot",
                "Bore first, before reaming",
                joint.pilot(self.bore.deep),
                "d − 2 · tan (i/2) · k",
                show.input("d", "taper at the underside", self.bore.size),
                taper,
                show.input("k", "through the top along the axis", self.bore.deep),
                note="the taper's diameter at the upper face: nothing wider may be bored",
            ),
            show.figure(
                f"{self.key}.sink",
                f"Sinks for each {show.length(1.0).text} of diameter",
                sink,
                "1 / (2 · tan (i/2))",
                taper,
                note="along the axis",
            ),
            show.figure(
                f"{self.key}.per_turn",
                "Sinks with one turn of the reamer",
                sink * joint.per_turn,
                "p / (2 · tan (i/2))",
                show.input("p", "a turn adds to the diameter", joint.per_turn),
                taper,
                note="try it on scrap first: it depends on the wood and the edge",
            ),
            show.figure(
                f"{self.key}.lowers",
                "Each such turn lowers the height by",
                sink * joint.per_turn * deg.cos(self.leg.standing.resultant),
                "s · cos ρ′",
                show.input("s", "sink of one turn", sink * joint.per_turn),
                show.input("ρ′", "lean to the floor", self.leg.standing.resultant, "deg"),
            ),
        )

    def _screw(self, joint: DowelScrew) -> tuple[Figure, ...]:
        show = self.show
        rest, recess = joint.in_leg, self.bore.recess
        whole = show.input("S", "whole screw", joint.length)
        inside = show.input("k", "in the top", joint.into_top)
        core = show.input("c", "core of the screw", joint.core)
        wide = show.input("w", "as wide as the leg over its corners", self.bore.wide)
        return (
            show.figure(
                f"{self.key}.recess_wide", "Recess for the leg's end, wide", self.bore.wide, "w", wide
            ),
            show.figure(
                f"{self.key}.recess",
                "Recess, deep along its middle",
                recess,
                "w/2 · tan ρ + r",
                wide,
                self.lean,
                show.input("r", "deep on its shallow side", joint.recess),
                note="flat at its bottom: the leg's square end closes on it",
            ),
            show.figure(f"{self.key}.pilot_top", "Pilot in the top", joint.core, "as chosen", core),
            show.figure(
                f"{self.key}.into_leg",
                "Screw in the leg",
                rest,
                "S − k",
                whole,
                inside,
                note="along its axis",
            ),
            show.figure(
                f"{self.key}.pilot_leg",
                "Pilot in the leg, deep",
                rest + SPARE_MM,
                "S − k + 3 mm",
                whole,
                inside,
                note="a little deeper, so that the leg's end closes on the recess's bottom",
            ),
        )

    def _chopped(self, joint: Shouldered) -> Figure:
        show = self.show
        return show.figure(
            f"{self.key}.mortise",
            "Mortise, square to the sightline",
            joint.across,
            "as chosen",
            show.input("b", "tenon's shorter side", joint.across),
            note=f"{self.show.length(joint.socket / deg.cos(self.rho)).text} long on the face, along it",
        )

    def _battened(self, joint: Battened) -> tuple[Figure, ...]:
        show = self.show
        grip = joint.screw - (joint.batten_thickness - joint.counterbore)
        made = [
            show.figure(
                f"{self.key}.grip",
                "Screws reach into the top",
                grip,
                "l − (T − c)",
                show.input("l", "screw under its head", joint.screw),
                show.input("T", "batten", joint.batten_thickness),
                show.input("c", "counterbore", joint.counterbore),
                note="middle screw round, the outer ones in slots along the batten: the top moves",
            )
        ]
        if joint.peg is not None:
            peg = joint.peg
            made.append(
                show.figure(
                    f"{self.key}.peg",
                    "Peg, longest that does not break out",
                    longest_from_side(peg, joint),
                    "least of (b − c − p/2 · sin ε) / cos ε and (T − c − z − p/2 · cos ε) / sin ε",
                    show.input("b", "batten, wide", joint.batten_width),
                    show.input("T", "batten, thick", joint.batten_thickness),
                    show.input("z", "enters below the top", peg.entry),
                    show.input("ε", "slope of the peg", peg.angle, "deg"),
                    show.input("p", "peg", peg.diameter),
                    show.input("c", "margin", peg.margin),
                )
            )
        return tuple(made)

    def _pegged_from_above(self, joint: Blind) -> tuple[Figure, ...]:
        """In the plane of the lean: the peg comes down from the upper face towards the rim."""
        peg = joint.peg
        assert peg is not None
        show, hole = self.show, peg_from_above(self.piece, self.leg, peg)
        t = hole.thickness
        slope = show.input("ε", "slope of the peg", peg.angle, "deg")
        return (
            show.figure(
                f"{self.key}.peg",
                "Peg, longest that stays inside",
                hole.longest,
                "(t − c − p/2 · sin ε) / cos ε",
                show.input("t", "thickness there", t),
                show.input("c", "margin", peg.margin),
                show.input("p", "peg", peg.diameter),
                slope,
            ),
            show.figure(
                f"{self.key}.peg_crosses",
                "It crosses the tenon's middle, above the underside",
                hole.crosses,
                "(t · tan ε − e) / (tan ε − tan ρ)",
                show.input("e", "enters from over the mark, against the arrow", peg.entry),
                show.input("t", "thickness there", t),
                slope,
                self.lean,
            ),
        )
