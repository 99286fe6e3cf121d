"""The untrimmed piece stood, measured in every way as told, its feet marked: do they lie in one floor?"""

from __future__ import annotations

import math
import random
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from scipy.spatial import ConvexHull

from splay.piece import Piece, StakedLegs, Trough, read_piece, write_piece
from splay.plan import Plan, plan
from splay.reading import Reading
from splay.shop import Shop
from splay.stance.outline import rim
from splay.work.marks import leg_key
from tests.bench.frames import Array, unit, vec
from tests.bench.judged import Judge, Tally
from tests.bench.stock import Stick

RING = 360
WAYS = ("bench", "seat", "shims", "standing", "sighted")
STANDS = 0.7
"""The floor under a piece that has not fallen over leans less than 45 degrees to its own (cosine)."""


@dataclass
class Foot:
    """One leg as it really ends: where its side lines run, and the plane its end lies in, top frame."""

    key: str
    number: int
    stick: Stick
    normal: Array
    offset: float
    ring: Array


class Levelled:
    """A piece whose legs came out unlike, levelled once by one way."""

    def __init__(self, piece: Piece, shop: Shop, way: str, rng: random.Random) -> None:
        document = write_piece(piece)
        document["levelling"] = {
            "passes": [
                {"way": way, "places": rng.choice(("edges", "legs")), "raised": rng.choice((0, 20))}
            ],
            "ends": rng.choice(("square", "sawn")),
            "flat": 0,
        }
        if any(getattr(one.joint, "proud", 0.0) for _, one in piece.staked()):
            # On blocks clear of its tenons; on these themselves: test_proud.
            document["levelling"]["passes"][0]["raised"] = 150
        self.piece, self.shop, self.way = read_piece(document), shop, way
        self.plan = plan(self.piece, shop)
        self.judge = Judge(self.piece, self.plan, shop)
        self.judge.all()
        self.floor = self.plan.stance.floor
        self.n = np.array(self.floor.normal)
        self.feet = [self._foot(leg.number, rng) for leg in self.plan.stance.legs]

    def _foot(self, number: int, rng: random.Random) -> Foot:
        """Over its length by its allowance and by what a hand errs; square, or sawn to the floor."""
        leg, part = self.plan.stance.legs[number - 1], self.plan.parts[number - 1]
        stick = self.judge.sticks[leg_key(number)]
        square = self.piece.levelling.ends == "square"
        z = (part.blank if square else part.finished).quantity.value + rng.uniform(0.0, 4.0)
        at = self.judge.leg_point(leg, vec(0, 0, z))
        normal = np.array(leg.d) if square else -self.n
        return Foot(leg.id, number, stick, normal, float(normal @ at), self._ring(leg, stick, normal, at))

    def _ring(self, leg: object, stick: Stick, normal: Array, at: Array) -> Array:
        if stick.flats:
            faces = stick.faces()
            ways = [a + b for k, a in enumerate(faces) for b in faces[k + 1 :]
                    if abs(float(a @ b) - math.cos(2 * math.pi / stick.flats)) < 1e-6]  # fmt: skip
            # Corners: between neighbours, as far out as both flats allow.
            spots = [w / (1.0 + math.cos(2 * math.pi / stick.flats)) for w in ways]
        else:
            turns = np.linspace(0, 2 * np.pi, RING, endpoint=False)
            spots = [vec(math.cos(t), math.sin(t), 0) for t in turns]
        return np.array([self.side_end(leg, stick, way, normal, float(normal @ at)) for way in spots])

    def side_end(self, leg: object, stick: Stick, way: Array, normal: Array, offset: float) -> Array:
        """Where a line down the leg's side, `way` out from its middle, meets a plane."""
        low, high = self._edge(leg, stick, way, 0.0), self._edge(leg, stick, way, 2000.0)
        a, b = float(normal @ low) - offset, float(normal @ high) - offset
        return low + (high - low) * (a / (a - b))

    def _edge(self, leg: object, stick: Stick, way: Array, far: float) -> Array:
        """A point of the side line past the leg's last taper: it is straight from there on."""
        (z0, h0), (z1, h1) = stick.shape[-2], stick.shape[-1]
        z = z1 + far
        half = h1 + (h1 - h0) / (z1 - z0) * (z - z1)
        return self.judge.leg_point(leg, vec(0, 0, z) + way * half)

    # --- standing ---

    @cached_property
    def resting(self) -> tuple[Array, float]:
        """The floor it stands on by itself: the facet of all feet's hull that its weight falls on.

        Plumb on a floor is along that floor's own normal: the facet hit decides the next fall, until
        the same facet is hit again.
        """
        hull = ConvexHull(np.concatenate([foot.ring for foot in self.feet]))
        out, off = hull.equations[:, :3], hull.equations[:, 3]
        weight = vec(0, 0, self.piece.top.thickness / 2)
        fall, seen = -self.n, -1
        for _ in range(40):
            ahead = out @ fall
            runs = np.where(
                ahead > 1e-9, -(out @ weight + off) / np.where(ahead > 1e-9, ahead, 1.0), np.inf
            )
            # The weight lies outside the hull, above it: the last facet entered on the way through.
            hit = int(np.argmin(runs))
            if hit == seen:
                break
            seen, fall = hit, out[hit]
        return -out[seen], -float(off[seen])

    def wood(self, x: float, y: float) -> Array:
        """The upper face at a place, down in its hollow: a trough's arc, or a dish's in every section."""
        top = self.piece.top
        depth = 0.0
        if top.hollow is not None:
            h = top.hollow
            if isinstance(h, Trough):
                chord, away = h.chord, (x if h.across == "length" else y)
            else:
                chord, away = h.length, math.hypot(x, y * h.length / h.width)
            r = (chord**2 / 4 + h.depth**2) / (2 * h.depth)
            if abs(away) < chord / 2:
                depth = math.sqrt(r * r - away * away) - (r - h.depth)
        return vec(x, y, top.thickness - depth)

    def take(self, kind: str, key: str) -> float:
        """One reading of the real piece, the way its words say."""
        top = self.piece.top
        if kind == "stands":
            low = min(float((f.ring @ self.n).min()) for f in self.feet)
            return float(self.n @ vec(0, 0, top.thickness)) - low
        if kind == "top":
            normal, c = self.resting
            x, y = self._place(key)
            return float(normal @ self.wood(x, y)) + c
        foot = next(f for f in self.feet if f.key == key)
        if kind == "bench":
            return top.thickness + self.piece.levelling.passes[0].raised - float(foot.ring[:, 2].min())
        if kind == "under":
            normal, c = self.resting
            return float((foot.ring @ normal).min()) + c
        if kind == "shim":
            low = min(float((f.ring @ self.n).min()) for f in self.feet)
            return float((foot.ring @ self.n).min()) - low
        if kind == "along":
            return self._along(foot)
        assert kind == "sight"
        return self._sight(foot)

    def _place(self, key: str) -> tuple[float, float]:
        leg = next((one for one in self.plan.stance.legs if key == f"over.{one.id}"), None)
        if leg is not None:
            return leg.socket[0], leg.socket[1]
        x, y = rim(self.piece.top.outline, {"front": 270.0, "right": 0.0, "back": 90.0, "left": 180.0}[key])
        inset = self.piece.top.upper_edge.size + 10.0
        k = 1.0 - inset / math.hypot(x, y)
        return x * k, y * k

    def side(self, foot: Foot, name: str) -> Array | None:
        """The way out to a side by name; None where the foot is square and all are alike."""
        if name in foot.stick.lines or " between " in name:
            way = self.judge.side_way(foot.stick, name)
            corner = name.startswith("corner")
            return way * math.sqrt(2.0) if corner else way
        return None

    def _names(self, foot: Foot, plan: Plan) -> tuple[str, str]:
        said = next(f for f in plan.level[0].feet if f.key == foot.key)
        return said.long_side, said.short_side

    def _along(self, foot: Foot) -> float:
        leg = self.plan.stance.legs[foot.number - 1]
        way = self.side(foot, self._names(foot, self.plan)[0])
        if way is None:
            way = vec(1, 0, 0)
        # From the face it leaves: the side of the last taper carried up to the face's plane.
        up = self.side_end(leg, foot.stick, way, vec(0, 0, 1), leg.socket[2])
        down = self.side_end(leg, foot.stick, way, foot.normal, foot.offset)
        return float(np.linalg.norm(down - up))

    def _sight(self, foot: Foot) -> float:
        """Three feet carry two sticks in one plane; so much the fourth stands off it."""
        three = self.feet[:3]
        normal = self.n
        for _ in range(60):
            touch = [f.ring[int(np.argmin(f.ring @ normal))] for f in three]
            fresh = unit(np.cross(touch[1] - touch[0], touch[2] - touch[0]))
            fresh = fresh if float(fresh @ self.n) > 0 else -fresh
            if np.allclose(fresh, normal, atol=1e-12):
                break
            normal = fresh
        level = min(float((f.ring @ normal).min()) for f in three)
        return float((foot.ring @ normal).min()) - level

    # --- told ---

    def told(self, tally: Tally) -> None:
        """Read everything, then mark each foot by its two sides: all marks lie in the wanted floor."""
        readings = []
        for proof in self.plan.proofs:
            if proof.station != "level":
                continue
            value = self.take(proof.kind, proof.of[1])
            value = max(0.0, value) if proof.kind != "sight" else value
            readings.append(Reading(proof.id, value, sure=True, kind=proof.kind))
        made = plan(self.piece, self.shop, readings)
        round_ = made.level[0]
        after = round_.height_after.value
        for foot in self.feet:
            leg = made.stance.legs[foot.number - 1]
            said = next(f for f in round_.feet if f.key == foot.key)
            for name, loses in ((said.long_side, said.long), (said.short_side, said.short)):
                way = self.side(foot, name)
                if way is None:
                    continue
                end = self.side_end(leg, foot.stick, way, foot.normal, foot.offset)
                back = 100.0 * abs(float(foot.normal @ np.array(leg.d)))
                up = self.side_end(leg, foot.stick, way, foot.normal, foot.offset - back)
                mark = end + unit(up - end) * loses.quantity.value * self._slant(foot, way)
                high = float(self.n @ (mark - vec(0, 0, self.piece.top.thickness))) + after
                tally.hold(f"level {self.way} mm", abs(high), f"{foot.key} {name}")
        tally.done["level", self.way] += 1

    def _slant(self, foot: Foot, way: Array) -> float:
        """What comes off is told along the leg's middle; along its slanted side it is a hair longer."""
        (z0, h0), (z1, h1) = foot.stick.shape[-2], foot.stick.shape[-1]
        k = (h1 - h0) / (z1 - z0)
        return math.hypot(1.0, k * float(np.linalg.norm(way)))


def level(piece: Piece, shop: Shop, way: str, seed: int) -> Tally:
    """One hidden piece levelled by one way; nothing held where it cannot be measured so."""
    tally = Tally()
    if not all(isinstance(s, StakedLegs) for s in piece.supports):
        return tally
    build = Levelled(piece, shop, way, random.Random(seed))
    if way == "standing" and float(build.resting[0] @ build.n) < STANDS:
        # As unlike as its feet are before they are trimmed it does not stay on them: it lies on its side.
        tally.done["fell over", way] += 1
        return tally
    build.told(tally)
    return tally
