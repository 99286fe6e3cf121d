"""Battens under a thin top, across its grain, that carry battened legs."""

from __future__ import annotations

from itertools import pairwise

from splay.piece import Battened, Piece, StakedLegs
from splay.quantity import degrees as deg
from splay.stance.body import Body, Sides, body, pose
from splay.stance.convex import Plane
from splay.stance.vectors import Flat, Vec, word

SAME_MM = 0.01
"""Legs nearer than this to one line across the grain share a batten."""


def on_batten(batten: Body, socket: Vec) -> bool:
    """Whether a leg's centre lies on a batten's middle line."""
    o, w = batten.pose.origin, batten.pose.along
    return abs((socket[0] - o[0]) * w[1] - (socket[1] - o[1]) * w[0]) < 2.0 * SAME_MM


def screw_places(long: float, holes: list[tuple[float, float]], count: int) -> tuple[float, ...]:
    """Where a batten's screws stand, from one end, mm: one in the middle of the wood between each end and
    the hole nearest to it, the rest between the holes, as far from one another as they can be (common
    practice, no source). With one hole only, the rest stand beside the first two.

    `holes` are where each leg's hole begins and ends along the batten, from the same end.
    """
    stops = [0.0, *(at for hole in sorted(holes) for at in hole), long]
    free = list(zip(stops[::2], stops[1::2], strict=True))
    held = [1, *(0 for _ in free[1:-1]), 1]
    inner = range(1, len(free) - 1) if len(free) > 2 else range(len(free))
    for _ in range(count - 2):
        widest = max(inner, key=lambda k: (free[k][1] - free[k][0]) / (held[k] + 1))
        held[widest] += 1
    made = []
    for (low, high), n in zip(free, held, strict=True):
        made += [low + (high - low) / (n + 1) * (j + 1) for j in range(n)]
    return tuple(made)


def tightest(long: float, holes: list[tuple[float, float]], count: int) -> float:
    """The least wood along a batten between a screw and its end, a leg's hole or the next screw, mm."""
    at = screw_places(long, holes, count)
    near = [at[0], long - at[-1], *(b - a for a, b in pairwise(at))]
    near += [max(low - one, one - high) for one in at for low, high in holes]
    return min(near)


def battens(piece: Piece, support: StakedLegs, index: int, places: list[Flat]) -> tuple[Body, ...]:
    """One batten for each line across the grain that has legs on it, `places` their sockets."""
    joint = support.joint
    if not isinstance(joint, Battened):
        return ()
    grain = piece.top.grain
    along: Flat = (deg.cos(grain), deg.sin(grain))
    over: Flat = (-along[1], along[0])
    rows: dict[int, list[Flat]] = {}
    for at in places:
        line = round((at[0] * along[0] + at[1] * along[1]) / SAME_MM)
        near = next((known for known in rows if abs(known - line) <= 1), line)
        rows.setdefault(near, []).append(at)
    made = []
    for k, (line, mates) in enumerate(sorted(rows.items())):
        reach = [p[0] * over[0] + p[1] * over[1] for p in mates]
        low, high = min(reach) - joint.end, max(reach) + joint.end
        g, middle = line * SAME_MM, (low + high) / 2
        z = -joint.batten_thickness / 2
        origin: Vec = (g * along[0] + middle * over[0], g * along[1] + middle * over[1], z)
        way: Vec = (over[0], over[1], 0.0)
        from_middle = origin[0] * way[0] + origin[1] * way[1]
        half = (high - low) / 2
        made.append(
            body(
                f"{support.id}.batten.{k + 1}",
                f"batten {k + 1}",
                "batten",
                index,
                f"{support.id}.batten.{round(high - low, 3)}",
                pose(origin, way, (0.0, 0.0, 1.0)),
                (joint.batten_width, joint.batten_thickness),
                # By the words on the seat beside them: "inner" would be nothing for one in the middle.
                Sides(
                    f"{word((-along[0], -along[1], 0.0))} edge",
                    f"{word((*along, 0.0))} edge",
                    "face against the seat",
                    "lower face",
                ),
                (
                    Plane((-way[0], -way[1], 0.0), half - from_middle),
                    Plane(way, half + from_middle),
                ),
            )
        )
    return tuple(made)
