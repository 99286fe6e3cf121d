"""The top as triangles: its faces and edges, hollowed, pierced, in two boards; floor frame, mm."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import shapely
import shapely.errors

from splay.quantity import degrees as deg
from splay.stance.gapped import slit
from splay.stance.hand_hold import slot
from splay.stance.hollow import hollow_depth
from splay.stance.vectors import Flat
from splay.views.edges import rings_of
from splay.views.project import Points, to_floor
from splay.views.scene import Model
from splay.views.triangles import Mesh, flat

_RINGS = 14
"""Rings from the middle to the edge on which a hollowed face is drawn."""


def top_mesh(model: Model) -> Mesh:
    """Underside flat, edge as shaped, upper face flat or hollowed; in two boards where there is a gap."""
    every = list(rings_of(model.piece))
    thin = slice(None, None, 3 if len(every[0]) > 120 else 1)
    every = [ring[thin] for ring in every]
    opened = slit(model.piece.top)
    points: list[Points] = []
    triangles: list[int] = []
    edges: list[int] = []
    for rings in _halves(every, model.piece.top.grain, opened) if opened else [every]:
        start = sum(len(ring) for ring in points)
        middle = rings[0][:, :2].mean(axis=0) if opened else np.zeros(2)
        more = _board(model, rings, middle)
        triangles += [start + i for i in more[0]]
        edges += [start + i for i in more[1]]
        points += rings
    made = to_floor(model.stance.floor, np.concatenate(points))
    return Mesh("top", "top", flat(made), tuple(triangles), tuple(edges))


def _halves(rings: list[Points], grain: float, opened: Flat) -> list[list[Points]]:
    """The rings of a top on either side of its gap, each closed along it. Where it is crossed is found on
    the lowest ring, as shares of the runs between its points, and is the same on all of them."""
    across = rings[0][:, 1] * deg.cos(grain) - rings[0][:, 0] * deg.sin(grain)
    made = []
    for edge, side in ((opened[0], -1.0), (opened[1], 1.0)):
        out = side * (across - edge)
        kept: list[tuple[int, int, float]] = []
        for k, here in enumerate(out):
            after = (k + 1) % len(out)
            if here >= 0.0:
                kept.append((k, k, 0.0))
            if here * out[after] < 0.0:
                kept.append((k, after, float(here / (here - out[after]))))
        if len(kept) > 2:
            made.append([np.array([r[a] + (r[b] - r[a]) * t for a, b, t in kept]) for r in rings])
    return made


def _board(model: Model, points: list[Points], middle: Points) -> tuple[list[int], list[int]]:
    """The triangles and edges of a top, or of one of its boards, from its rings, lowest first; what more
    points its upper face needs, about its middle, is put behind them."""
    low, high = points[0], points[-1]
    n, last = len(low), (len(points) - 1) * len(low)
    hollow = model.piece.top.hollow
    triangles: list[int] = []
    for k in range(last):
        a, b = k, k - n + 1 if k % n == n - 1 else k + 1
        triangles += [a, b, a + n, b, b + n, a + n]
    edges = [i for r in (0, last) for k in range(n) for i in (r + k, r + (k + 1) % n)]
    if hollow is None:
        holes = [np.array(slot(one).exterior.coords[:-1]) for one in model.piece.top.hand_holds]
        own = shapely.Polygon(low[:, :2])
        holes = [hole for hole in holes if own.contains(shapely.Polygon(hole))]
        more = _pierced(points, holes, model.piece.top.thickness)
        return triangles + more[0], edges + more[1]
    # A hand-hold in a hollowed face is drawn from above and below, not through this one.
    triangles += [i for t in _fill(low) for i in reversed(t)]
    t = model.piece.top.thickness
    inner = []
    for r in range(_RINGS, -1, -1):
        ring = middle + (high[:, :2] - middle) * (r / _RINGS)
        depth = np.array([hollow_depth(hollow, (float(x), float(y))) for x, y in ring])
        inner.append(np.column_stack((ring, t - depth)))
    start = last + n
    points += inner
    for r in range(_RINGS):
        for k in range(n):
            a, b = start + r * n + k, start + r * n + (k + 1) % n
            triangles += [a, b, a + n, b, b + n, a + n]
    # The rim of a hollow that runs out over the edge hangs below the flat rim: close it.
    for k in range(n):
        a, b = last + k, last + (k + 1) % n
        triangles += [a, b, start + k, b, start + (k + 1) % n, start + k]
    return triangles, edges


def _pierced(points: list[Points], holes: list[Points], thick: float) -> tuple[list[int], list[int]]:
    """Both faces of a flat top with its hand-holds, and their walls: triangles and edges. The holes' rings
    are put behind the `points` there are."""
    low, high = points[0], points[-1]
    n, last, start = len(low), (len(points) - 1) * len(low), sum(len(ring) for ring in points)
    below, above = [low], [high]
    triangles, edges = [], []
    for hole in holes:
        m = len(hole)
        below.append(np.column_stack((hole, np.zeros(m))))
        above.append(np.column_stack((hole, np.full(m, thick))))
        for k in range(m):
            a, b = start + k, start + (k + 1) % m
            triangles += [a, a + m, b, b, a + m, b + m]
            edges += [a, b, a + m, b + m]
        start += 2 * m
        points += [below[-1], above[-1]]
    at = last + n
    for rings, first, turned, own in ((below, 0, True, 0), (above, last, False, 1)):
        # Where each point of these rings stands among all.
        where = [first + k for k in range(n)]
        here = at
        for hole in holes:
            where += [here + own * len(hole) + k for k in range(len(hole))]
            here += 2 * len(hole)
        for t in _fill(np.concatenate(rings), [len(ring) for ring in rings[1:]]):
            triangles += [where[i] for i in (reversed(t) if turned else t)]
    return triangles, edges


def _fill(ring: Points, holes: Sequence[int] = ()) -> list[tuple[int, int, int]]:
    """Triangles over a flat ring, by its own points, counter-clockwise from above; the last of the points
    are the rings of so many points each that are holes in it."""
    index: dict[Flat, int] = {(float(x), float(y)): k for k, (x, y, _) in enumerate(ring)}
    first = len(ring) - sum(holes)
    inner, at = [], first
    for count in holes:
        inner.append(ring[at : at + count, :2])
        at += count
    shape = shapely.Polygon(ring[:first, :2], inner)
    made: list[tuple[int, int, int]] = []
    try:
        triangles = shapely.get_parts(shapely.constrained_delaunay_triangles(shape))
    except shapely.errors.GEOSException:
        # An outline pressed flat by its own figures has no face to fill; its edges still show.
        return made
    for triangle in triangles:
        corners = shapely.get_coordinates(triangle)[:3]
        found = [index.get((float(x), float(y))) for x, y in corners]
        if None in found:
            continue
        a, b, c = (int(i) for i in found if i is not None)
        (x0, y0), (x1, y1), (x2, y2) = corners
        ccw = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0) > 0
        made.append((a, b, c) if ccw else (a, c, b))
    return made
