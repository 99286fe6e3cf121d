"""One piece made ready to be looked at from any side."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

import numpy as np
import shapely

from splay.judge import Finding
from splay.parts import LegPart, SocketPart
from splay.piece import Piece, Stretcher
from splay.piece.kinds import driven_through
from splay.quantity import Show
from splay.setups.made import Made
from splay.stance.body import Body
from splay.stance.buttons import grooves
from splay.stance.edge_profile import profile
from splay.stance.floor import Floor
from splay.stance.holding import fastenings
from splay.stance.meets import meets
from splay.stance.member_flats import section_ring
from splay.stance.members import MemberStance, RopeStance
from splay.stance.outline import extent
from splay.stance.outside import driven
from splay.stance.splines import splined
from splay.stance.staked import Stance
from splay.stance.through import through_dowels
from splay.stance.vectors import Flat, Vec, along, dot, unit
from splay.views.edges import rings_of
from splay.views.leg_rings import Neck, leg_rings
from splay.views.project import Eye, Points, hulls, rod_points, tenon_points, to_floor
from splay.views.shapes import DRAWN, Layer, Shape, area, fewer, line

_COARSE = 5
"""Every how manieth point of a finely drawn outline is enough for a silhouette."""
_FINE = 150
"""From this many points on an outline is finely drawn."""
_FACING = 1e-6
_ON_MM = 0.01
_ALONG_EDGE = 0.8
_SEAM_MM = 0.02
_FLAT = 1e-9
_SAME_PLACE = 4
"""Decimals of a millimetre to which corners in one place agree."""
_SQUARE_ON = 1.0 - 1e-9
_STRAIGHT = 3
"""Rings of a leg that is neither bent nor coved, at most."""


class Sight:
    """Everything of the piece as seen by one eye: outlines in the drawing, mm."""

    def __init__(self, model: Model, eye: Eye) -> None:
        self.model, self.eye = model, eye
        self.legs: list[tuple[Flat, ...]] = []
        self.tenons: list[tuple[Flat, ...]] = []
        self.feet: list[tuple[Flat, ...]] = []
        self.tenon_ends: list[tuple[Flat, ...]] = []
        if model.legs:
            self._see_legs()
        self.body = hulls(eye.see_all(model.body)[None])[0]
        stood = np.array([eye.see(p) for p in model.stood])
        self.footprint = hulls(stood[None])[0]

    def _see_legs(self) -> None:
        model, eye = self.model, self.eye
        feet = np.array([eye.see_all(rings[-1]) for rings in model.legs])
        mouths = np.array([eye.see_all(rings[0]) for rings in model.legs])
        enters = np.array([eye.see_all(ring) for ring, _ in model.tenons])
        ends = np.array([eye.see_all(end) for _, end in model.tenons])
        n = len(feet)
        solids = np.concatenate((mouths, enters)), np.concatenate((feet, ends))
        middles = np.concatenate([np.array([eye.see_all(rings[1]) for rings in model.legs]), enters])
        long = hulls(np.concatenate((*solids, middles), axis=1))
        flat = hulls(solids[1])
        self.legs, self.tenons = long[:n], long[n:]
        for k, rings in enumerate(model.legs):
            if len(rings) > _STRAIGHT:
                self.legs[k] = self._bowed(rings)
        self.feet, self.tenon_ends = flat[:n], flat[n:]

    def _bowed(self, rings: list[Points]) -> tuple[Flat, ...]:
        """The silhouette of a leg that is no convex solid: what its lengths cover together."""
        flat = [self.eye.see_all(ring) for ring in rings]
        lengths = [hulls(np.concatenate(pair)[None])[0] for pair in pairwise(flat)]
        whole = shapely.union_all([shapely.Polygon(ring) for ring in lengths if len(ring) > 2])
        if not isinstance(whole, shapely.Polygon):
            return hulls(np.concatenate(flat)[None])[0]
        return fewer(whole.exterior.coords[:-1])

    def outline(self, points_: Points) -> tuple[Flat, ...]:
        """A ring of the floor frame as it is seen."""
        return fewer(self.eye.see_all(points_).round(DRAWN).tolist())

    def depth(self, *ends: Vec) -> float:
        """How near to the eye the middle of some points of the top frame is."""
        return dot(self.eye.toward(), self.model.place(_middle(ends)))

    def solids(self) -> list[Shape]:
        """Legs, sticks and members, the furthest first, so that the nearer hide what is behind."""
        made: list[tuple[float, list[Shape]]] = []
        for k, leg in enumerate(self.model.stance.legs):
            shape = area("leg", self.legs[k], f"leg.{leg.number}")
            made.append((self.depth(leg.socket, leg.foot), [shape]))
        drawn = [(body, *self._body(body)) for body in self.model.stance.bodies if body.drawn]
        depths = {body.key: depth for body, depth, _ in drawn}
        for body, depth, shapes in drawn:
            made.append((self._lying(body, depth, depths) if body.role == "lower_tread" else depth, shapes))
        for run, rings in zip(self.model.runs, self.model.rods, strict=True):
            seen = hulls(np.concatenate([self.eye.see_all(ring) for ring in rings])[None])[0]
            where = self.depth(run.ends[0].at, run.ends[1].at)
            made.append((where, [area("leg", seen, f"member.{run.number}")]))
        for rope in self.model.ropes:
            ends = [self.eye.see(self.model.place(p)) for p in rope.points]
            closed = getattr(self.model.piece.members[rope.number - 1], "closed", False)
            ring = (*ends, ends[0]) if closed else tuple(ends)
            nearest = max(self.depth(p) for p in rope.points)
            made.append((nearest, [line("rope", *ring, part=f"member.{rope.number}")]))
        # As near as one another they stand as they are listed, not by the last bit.
        return [shape for _, shapes in sorted(made, key=lambda one: round(one[0], 6)) for shape in shapes]

    def _lying(self, tread: Body, depth: float, depths: dict[str, float]) -> float:
        """The depth of a tread that is drawn over the boards it lies on, seen from above; under them, seen
        from below."""
        up = dot(self.eye.toward(), self.model.stance.floor.turn((0.0, 0.0, 1.0)))
        low = tread.around[0][2]
        boards = [
            depths[body.key] for body in self.model.stance.bodies
            if body.key in depths and body.stands and abs(body.around[1][2] - low) < _ON_MM
        ]  # fmt: skip
        if abs(up) < _FACING or not boards:
            return depth
        return max(depth, *boards) + _ON_MM if up > 0.0 else min(depth, *boards) - _ON_MM

    def _body(self, body: Body) -> tuple[float, list[Shape]]:
        """The faces turned to the eye, drawn as one solid though it was worked out in pieces."""
        toward = np.array(self.eye.toward())
        faces = self.model.standing(body)
        # As near as one another they stand as they are listed, not by the last bit.
        near, facing = (faces.middles @ toward).round(6), faces.looks @ toward > _FACING
        flat: list[list[float]] = self.eye.see_all(faces.corners).tolist()
        # Of a part sawn to an arc no face that looks away is drawn.
        arc = body.sweep is not None and not body.voids
        seen = {
            key: [k for k in those if facing[k]] if arc else those for key, those in faces.of_side.items()
        }
        layer: Layer = "board" if body.role in {"side", "slab_leg", "tread", "lower_tread"} else "leg"
        shapes = []
        drawn = [key for key, those in seen.items() if those and faces.turned[key] @ toward > _FACING]
        for key in sorted(drawn, key=lambda one: max(near[k] for k in seen[one])):
            against = seen.get(_plane_key((-key[0], -key[1], -key[2]), -key[3]), [])
            rings = faces.joined(seen[key], against, flat, apart=arc)
            shapes += [area(layer, ring, body.key) for ring in rings]
        return self.depth(self.model.middle(body)), shapes


@dataclass(frozen=True)
class Faces:
    """The faces of a part as they stand, in the floor frame, mm: every corner (n by 3), from which to which
    are each face's own (`spans`), and by which number those of each face are told that lie in one place
    (`same`); each one's middle and the way it looks; which belong to one side, by that side's plane in the
    top frame, and the way that side looks."""

    corners: Points
    spans: list[tuple[int, int]]
    same: list[list[int]]
    middles: Points
    looks: Points
    of_side: dict[tuple[float, ...], list[int]]
    turned: dict[tuple[float, ...], Points]

    def joined(
        self, mine: list[int], against: list[int], flat: list[list[float]], *, apart: bool
    ) -> list[tuple[Flat, ...]]:
        """Faces of one side as one or a few outlines where the corners are seen `flat`, less those that lie
        `against` them; `apart` where none of them lies over another as they are seen."""
        if len(mine) == 1 and not against:
            return [self._ring(mine[0], flat)]
        # Faces of a round some of which look away lie over one another.
        if not against and (apart or float(np.ptp(self.looks[mine], axis=0).max()) < _FLAT):
            round_all = _round_all([self.same[k] for k in mine])
            if round_all is not None:
                return [fewer([(flat[k][0], flat[k][1]) for k in round_all])]
        return _outer([self._ring(k, flat) for k in mine], [self._ring(k, flat) for k in against])

    def _ring(self, face: int, flat: list[list[float]]) -> tuple[Flat, ...]:
        a, b = self.spans[face]
        return tuple((x, y) for x, y in flat[a:b])


def _stood(body: Body, floor: Floor) -> Faces:
    # In the part's own frame, and from there on all at once: an arc has more than a hundred faces.
    own = (face for solid in body.pieces for face in solid)
    faces = [face for face, within in zip(own, _within(body), strict=True) if not within]
    frame = np.array((body.pose.along, body.pose.across, body.pose.up))
    placed = np.array([p for face in faces for p in face.corners]) @ frame + body.pose.origin
    normals = np.array([face.normal for face in faces]) @ frame
    corners = to_floor(floor, placed)
    ends = np.cumsum([len(face.corners) for face in faces])
    starts = np.concatenate(([0], ends[:-1]))
    middles = np.add.reduceat(corners, starts) / (ends - starts)[:, None]
    rows = np.array(floor.rows)
    looks = normals @ rows.T
    of_side: dict[tuple[float, ...], list[int]] = {}
    for k, key in enumerate(_side_keys(body, normals, placed[starts])):
        of_side.setdefault(key, []).append(k)
    turned = {key: rows @ np.array(key[:3]) for key in of_side}
    spans = list(pairwise((0, *ends.tolist())))
    first: dict[tuple[float, ...], int] = {}
    places = map(tuple, corners.round(_SAME_PLACE).tolist())
    told = [first.setdefault(place, k) for k, place in enumerate(places)]
    return Faces(corners, spans, [told[a:b] for a, b in spans], middles, looks, of_side, turned)


def _side_keys(body: Body, normals: Points, on: Points) -> list[tuple[float, ...]]:
    """Of each face in turn, by the way it looks and a place on it in the top frame, what is the same for
    all faces of one side of a part."""
    levels = (normals * on).sum(axis=1)
    rounded = np.column_stack((normals.round(5), levels.round(2))) + 0.0
    keys: list[tuple[float, ...]] = list(map(tuple, rounded.tolist()))
    if body.grown:
        # An edge as the tree grew it is one side, however many places it was drawn by.
        x, y, z = body.pose.across
        for k, beside in enumerate((normals @ np.array(body.pose.across)).tolist()):
            if abs(beside) > _ALONG_EDGE:
                side = math.copysign(1.0, beside)
                keys[k] = _plane_key((side * x, side * y, side * z), body.width)
    if body.rounded:
        # A round drawn in chords is one side.
        rounds: dict[Vec, tuple[float, ...]] = {}
        for k, eased in enumerate(body.eased_all(normals.tolist())):
            if eased is not None:
                if eased not in rounds:
                    way = body.pose.turn_out(unit((eased[0], eased[1], 1.0)))
                    rounds[eased] = _plane_key(way, body.width)
                keys[k] = rounds[eased]
    return keys


def _within(body: Body) -> Iterator[bool]:
    """Of each face of a part in turn, whether it lies between two strips of an arc."""
    chords = body.sweep.chords if body.sweep is not None and not body.voids else ()
    between = {round(x, 6) for a, b, *_ in chords for x in (a, b)}
    for solid in body.pieces:
        for bare in solid:
            yield abs(bare.normal[0]) > _SQUARE_ON and round(bare.corners[0][0], 6) in between


def _middle(points: Sequence[Vec]) -> Vec:
    n = len(points)
    return (sum(p[0] for p in points) / n, sum(p[1] for p in points) / n, sum(p[2] for p in points) / n)


def _plane_key(normal: Vec, level: float) -> tuple[float, ...]:
    """The same for all faces of one plane; adding nought does away with negative noughts."""
    return (*(round(n, 5) + 0.0 for n in normal), round(level, 2) + 0.0)


def together(rings: list[tuple[Flat, ...]]) -> list[tuple[Flat, ...]]:
    """One or a few outlines of what a part's pieces cover; a sliver of one, seen on its edge, is none."""
    seen = [ring for ring in rings if len(ring) > 2]
    return rings if len(seen) < 2 else _outer(seen, [])


def _swollen(rings: list[tuple[Flat, ...]], by: float) -> Any:
    """Areas a hair larger, so that they join."""
    of = np.repeat(np.arange(len(rings)), [len(ring) for ring in rings])
    areas = shapely.polygons(shapely.linearrings(np.array([p for ring in rings for p in ring]), indices=of))
    return shapely.buffer(areas, by, quad_segs=1, join_style="mitre")


def _round_all(rings: list[list[int]]) -> list[int] | None:
    """The one ring round faces of a side that meet edge to edge: what two of them share is within. None
    where they do not, or more than one ring is left."""
    edges = {edge for ring in rings for edge in pairwise((*ring, ring[0]))}
    after = {a: b for a, b in edges if (b, a) not in edges}
    if len(after) != sum((b, a) not in edges for a, b in edges):
        return None
    ring = [next(iter(sorted(after)), -1)]
    while len(ring) <= len(after) and (there := after.get(ring[-1], -1)) != ring[0]:
        ring.append(there)
    return ring if len(ring) == len(after) else None


def _outer(rings: list[tuple[Flat, ...]], against: list[tuple[Flat, ...]]) -> list[tuple[Flat, ...]]:
    """Faces of one plane joined, less where another piece of the same part lies against them."""
    whole = shapely.union_all(_swollen(rings, _SEAM_MM))
    if against:
        whole = whole.difference(shapely.union_all(_swollen(against, 2 * _SEAM_MM)))
    parts = whole.geoms if hasattr(whole, "geoms") else [whole]
    return [
        fewer(part.exterior.coords[:-1])
        for part in parts
        if isinstance(part, shapely.Polygon) and part.area > 1.0
    ]


class Model:
    """The piece's solids as rings in the floor frame, worked out once for all views."""

    def __init__(
        self,
        piece: Piece,
        stance: Stance,
        parts: tuple[LegPart, ...],
        sockets: tuple[SocketPart, ...],
        show: Show,
        findings: tuple[Finding, ...] = (),
        runs: tuple[MemberStance, ...] = (),
        ropes: tuple[RopeStance, ...] = (),
        necks: Mapping[int, Neck] | None = None,
        made: Made | None = None,
    ) -> None:
        """`necks` are the legs that are bent or coved, by number; `made` what the plan knows of what the
        piece is made of, worked out here where nothing is given."""
        self._standing: dict[str, Faces] = {}
        self._middles: dict[str, Vec] = {}
        self.findings, self.runs, self.ropes = findings, runs, ropes
        self.piece, self.stance, self.sockets, self.show = piece, stance, sockets, show
        self.screws = made.screws if made else fastenings(piece, stance)
        self.dowels = driven(piece)
        through = any(driven_through(support) for support in piece.supports)
        joins = (made.joins if made else meets(piece, stance)) if through else ()
        self.through = through_dowels(piece, joins)
        self.grooved = made.grooved if made else grooves(piece, stance)
        self.splines = made.through if made else splined(piece, stance)
        floor = stance.floor
        pairs = list(zip(stance.legs, parts, strict=True))
        self.legs = [
            leg_rings(piece, leg, floor, (necks or {}).get(leg.number, Neck())) for leg in stance.legs
        ]
        self.tenons = [tenon_points(leg, part, floor) for leg, part in pairs]
        self.rods = [self._rod(run) for run in runs]
        rings = [to_floor(floor, ring) for ring in rings_of(piece)]
        self.lower, self.upper = rings[0], rings[-1]
        self.rim = rings[len(profile(piece.top.lower_edge, piece.top.thickness)) - 1]
        """The outline itself, where no edge is shaped away."""
        # A sharp corner must not be skipped: only finely drawn outlines are thinned.
        thin = slice(None, None, _COARSE if len(self.lower) > _FINE else 1)
        self.body = np.concatenate([ring[thin] for ring in rings])
        self.seat = floor.to_floor((0.0, 0.0, piece.top.thickness))
        self.half = extent(piece.top.outline)
        stood = [leg.foot_floor for leg in stance.legs]
        for body in stance.bodies:
            if body.stands:
                stood += [floor.to_floor(p) for p in body.corners]
        self.stood = [p for p in stood if abs(p[2]) < 0.01] or [(0.0, 0.0, 0.0)]

    def standing(self, body: Body) -> Faces:
        """The faces of a part as they stand, but for those between two strips of an arc: the same for
        whoever looks."""
        if body.key not in self._standing:
            self._standing[body.key] = _stood(body, self.stance.floor)
        return self._standing[body.key]

    def middle(self, body: Body) -> Vec:
        """The middle of a part's corners, top frame; of one sawn to an arc, as if it were not."""
        if body.key not in self._middles:
            solids = (body.stood_plain,) if body.sweep is not None else body.stood
            corners = [p for solid in solids for face in solid for p in face.corners]
            self._middles[body.key] = _middle(corners)
        return self._middles[body.key]

    def place(self, point: Vec) -> Vec:
        """A point of the top frame in the floor frame."""
        return self.stance.floor.to_floor(point)

    def _rod(self, run: MemberStance) -> tuple[Points, Points]:
        chosen = self.piece.members[run.number - 1]
        assert isinstance(chosen, Stretcher)
        a, b = run.ends
        start = along(a.at, run.u, a.leaves)
        end = along(a.at, run.u, run.centres - b.leaves)
        if chosen.section != "round":
            first, last = (np.array(section_ring(chosen, run.u, at)) for at in (start, end))
            return to_floor(self.stance.floor, first), to_floor(self.stance.floor, last)
        return rod_points(start, end, run.u, chosen.diameter / 2.0, self.stance.floor)
