"""One piece made ready to be looked at from any side."""

from __future__ import annotations

import numpy as np

from splay.judge import Finding
from splay.parts import LegPart, SocketPart
from splay.piece import Piece
from splay.quantity import Show
from splay.stance.outline import extent, points
from splay.stance.staked import LegStance, Stance
from splay.stance.vectors import Flat, Vec
from splay.views.project import DRAWN, Eye, Points, hulls, leg_points, tenon_points, to_floor

_COARSE = 5
"""Every how manieth point of a finely drawn outline is enough for a silhouette."""


class Sight:
    """Everything of the piece as seen by one eye: outlines in the drawing, mm."""

    def __init__(self, model: Model, eye: Eye) -> None:
        self.model, self.eye = model, eye
        feet = np.array([eye.see_all(end) for _, end in model.legs])
        mouths = np.array([eye.see_all(mouth) for mouth, _ in model.legs])
        enters = np.array([eye.see_all(ring) for ring, _ in model.tenons])
        ends = np.array([eye.see_all(end) for _, end in model.tenons])
        body = eye.see_all(model.body)
        stood = np.array([eye.see(leg.foot_floor) for leg in model.stance.legs])
        n = len(feet)
        solids = np.concatenate((mouths, enters)), np.concatenate((feet, ends))
        long = hulls(np.concatenate(solids, axis=1))
        flat = hulls(solids[1])
        self.legs, self.tenons = long[:n], long[n:]
        self.feet, self.tenon_ends = flat[:n], flat[n:]
        self.body, self.footprint = hulls(body[None])[0], hulls(stood[None])[0]

    def outline(self, points_: Points) -> tuple[Flat, ...]:
        """A ring of the floor frame as it is seen."""
        return tuple(map(tuple, self.eye.see_all(points_).round(DRAWN).tolist()))

    def order(self) -> list[int]:
        """Legs from the furthest to the nearest."""
        toward = self.eye.toward()

        def depth(leg: LegStance) -> float:
            top = self.model.place(leg.socket)
            both = (f + t for f, t in zip(leg.foot_floor, top, strict=True))
            return sum(a * b for a, b in zip(toward, both, strict=True))

        legs = self.model.stance.legs
        return sorted(range(len(legs)), key=lambda k: depth(legs[k]))


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
    ) -> None:
        self.findings = findings
        self.piece, self.stance, self.sockets, self.show = piece, stance, sockets, show
        floor = stance.floor
        pairs = list(zip(stance.legs, parts, strict=True))
        self.legs = [leg_points(piece, leg, part, floor) for leg, part in pairs]
        self.tenons = [tenon_points(piece, leg, part, floor) for leg, part in pairs]
        ring = np.array(points(piece.top.outline))
        flat = np.zeros((len(ring), 1))
        self.lower = to_floor(floor, np.hstack((ring, flat)))
        self.upper = to_floor(floor, np.hstack((ring, flat + piece.top.thickness)))
        # A sharp corner must not be skipped: only finely drawn outlines are thinned.
        thin = slice(None, None, _COARSE if len(ring) > 2 * _COARSE**2 else 1)
        self.body = np.concatenate((self.lower[thin], self.upper[thin]))
        self.seat = floor.to_floor((0.0, 0.0, piece.top.thickness))
        self.half = extent(piece.top.outline)

    def place(self, point: Vec) -> Vec:
        """A point of the top frame in the floor frame."""
        return self.stance.floor.to_floor(point)
