"""The piece's solids as triangles, for the view that can be turned: floor frame, mm."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise

import numpy as np

from splay.quantity import degrees as deg
from splay.stance.body import Body
from splay.stance.convex import Face, Solid
from splay.stance.outside import Driven
from splay.stance.splines import Splined
from splay.stance.through import Through
from splay.stance.underfoot import bearings
from splay.stance.vectors import Vec, along, between, cross, dot, unit
from splay.views.project import Points
from splay.views.scene import Model
from splay.views.top_mesh import top_mesh
from splay.views.triangles import Mesh, Stuff, flat

_JUST_MM = 0.05
"""Just beside an edge, to see whether the wood goes on there."""
_ROPE_SIDES = 8
_ROUND, _FLUSH_MM, _STEEP = 24, 0.3, 0.9
"""Sides a dowel's end is drawn with, and how far it stands out so that it is seen."""

_SPOT_MM = 9.0
"""Half the size of what shows a place in the wood where something was found."""


def meshes(model: Model) -> tuple[Mesh, ...]:
    """Every solid of the piece."""
    ends = (
        *(_dowel_end(model, one) for one in model.dowels),
        *(_through_end(model, one) for one in model.through),
    )
    return (*seen_meshes(model), *_tenons(model), *ends, *_spots(model))


def _spots(model: Model) -> Iterator[Mesh]:
    """Where something was found inside the wood: an eight-sided lump round the place."""
    for finding in model.findings:
        if finding.spot is None:
            continue
        at, r = np.array(model.place(finding.spot)), _SPOT_MM
        points = np.array([(r, 0, 0), (0, r, 0), (-r, 0, 0), (0, -r, 0), (0, 0, r), (0, 0, -r)]) + at
        caps = [(k, (k + 1) % 4, 4) for k in range(4)] + [((k + 1) % 4, k, 5) for k in range(4)]
        edges = [i for k in range(4) for i in (k, (k + 1) % 4, k, 4, k, 5)]
        yield Mesh("", "warning", flat(points), tuple(i for t in caps for i in t), tuple(edges))


def _tenons(model: Model) -> Iterator[Mesh]:
    """What of the legs is let into the top."""
    for k, leg in enumerate(model.stance.legs):
        enters, tip = model.tenons[k]
        yield _tube(f"leg.{leg.number}", "leg", [tip, enters])


def seen_meshes(model: Model) -> tuple[Mesh, ...]:
    """The solids without the legs' tenons: what can be seen and touched of the piece."""
    made = [top_mesh(model)]
    for k, leg in enumerate(model.stance.legs):
        made.append(_tube(f"leg.{leg.number}", "leg", model.legs[k]))
    for body in model.stance.bodies:
        if body.drawn:
            made += _body(model, body)
    for run, rod in zip(model.runs, model.rods, strict=True):
        made.append(_tube(f"member.{run.number}", "member", list(rod)))
    made += [_spline(model, one) for one in model.splines]
    under = model.piece.underfoot
    for one in bearings(model.piece, model.stance) if under else ():
        turns = np.linspace(0.0, 2.0 * np.pi, 24, endpoint=False)
        assert under is not None
        rim = np.column_stack((np.cos(turns), np.sin(turns), np.zeros(24))) * (under.across / 2.0)
        rim[:, :2] += one.at
        made.append(_tube(one.part, "stick", [rim, rim - (0.0, 0.0, under.thickness)]))
    for rope in model.ropes:
        chosen = model.piece.members[rope.number - 1]
        half = getattr(chosen, "diameter", 10.0) / 2.0
        ring = [*rope.points, rope.points[0]] if getattr(chosen, "closed", False) else list(rope.points)
        for a, b in pairwise(ring):
            made.append(_cord(model, rope.number, a, b, half))
    return tuple(made)


def _tube(part: str, stuff: Stuff, rings: list[Points]) -> Mesh:
    """Rings of as many points each, joined round, the first and the last closed."""
    n = len(rings[0])
    points = np.concatenate(rings)
    count = len(rings)
    triangles: list[int] = []
    for r in range(count - 1):
        for k in range(n):
            a, b = r * n + k, r * n + (k + 1) % n
            triangles += [a, a + n, b, b, a + n, b + n]
    last = (count - 1) * n
    for k in range(1, n - 1):
        triangles += [0, k, k + 1, last, last + k + 1, last + k]
    triangles = _outward(points, triangles)
    edges = [i for r in (0, last) for k in range(n) for i in (r + k, r + (k + 1) % n)]
    return Mesh(part, stuff, flat(points), tuple(triangles), tuple(edges))


def _outward(points: Points, triangles: list[int]) -> list[int]:
    """Turned over if the solid's volume comes out negative."""
    t = points[np.array(triangles).reshape(-1, 3)]
    volume = np.einsum("ij,ij->i", t[:, 0], np.cross(t[:, 1], t[:, 2])).sum()
    if volume >= 0.0:
        return triangles
    turned = np.array(triangles).reshape(-1, 3)[:, ::-1]
    return [int(i) for i in turned.ravel()]


def _body(model: Model, body: Body) -> list[Mesh]:
    made = []
    for solid in body.stood:
        points: list[Vec] = []
        triangles: list[int] = []
        edges: list[int] = []
        for face in solid:
            corners = face.corners
            start = len(points)
            points += [model.place(p) for p in corners]
            n = len(corners)
            for k in range(1, n - 1):
                triangles += [start, start + k, start + k + 1]
            if len(body.stood) == 1:
                shown = [
                    k for k in range(n) if not (body.eased and _within_a_round(body, face, k, (solid,)))
                ]
                edges += [i for k in shown for i in (start + k, start + (k + 1) % n)]
                continue
            for k, a, b in _shown(face, solid, body.stood):
                if not (body.rounded and _within_a_round(body, face, k, body.stood)):
                    edges += [len(points), len(points) + 1]
                    points += [model.place(a), model.place(b)]
        made.append(Mesh(body.key, "stick", flat(np.array(points)), tuple(triangles), tuple(edges)))
    return made


def _spline(model: Model, one: Splined) -> Mesh:
    """A spline from its notch to a hair out of the top, so that its end is seen there."""
    corners = one.corners()
    lift = (0.0, 0.0, max(0.0, _FLUSH_MM - one.chosen.proud))
    bottom, top = (
        np.array([model.place(corners[k]) for k in which]) for which in ((0, 2, 6, 4), (1, 3, 7, 5))
    )
    return _tube(one.body.key, "stick", [bottom, top + np.array(lift)])


def _dowel_end(model: Model, one: Driven) -> Mesh:
    """The end of a dowel from outside, sawn flush with the face it went in at."""
    half = one.chosen.size / 2.0
    sign = -1.0 if one.of.end == "left" else 1.0
    s = one.of.splay if one.runs == "level" else 0.0
    # On a leaning face it shows as an oval, longer down the leg.
    down: Vec = (sign * deg.sin(s), 0.0, -deg.cos(s)) if one.runs == "level" else (1.0, 0.0, 0.0)
    out: Vec = (sign * deg.cos(s), 0.0, deg.sin(s)) if one.runs == "level" else (0.0, 0.0, 1.0)
    rings = []
    for off in (-half, _FLUSH_MM):
        at = along(one.at, out, off)
        spots = [
            along(
                along(at, down, half / deg.cos(s) * math.cos(turn)), (0.0, 1.0, 0.0), half * math.sin(turn)
            )
            for turn in (2.0 * math.pi * k / _ROUND for k in range(_ROUND))
        ]
        rings.append(np.array([model.place(p) for p in spots]))
    return _tube(one.leg, "leg", rings)


def _through_end(model: Model, one: Through) -> Mesh:
    """The end of a dowel that runs through a part into an end, where it shows outside."""
    half, way = one.dowels.size / 2.0, one.way
    first = unit(cross(way, (0.0, 0.0, 1.0) if abs(way[2]) < _STEEP else (1.0, 0.0, 0.0)))
    second = cross(way, first)
    rings = []
    for off in (half, -_FLUSH_MM):
        at = along(one.outside, way, off)
        spots = [
            along(along(at, first, half * math.cos(turn)), second, half * math.sin(turn))
            for turn in (2.0 * math.pi * k / _ROUND for k in range(_ROUND))
        ]
        rings.append(np.array([model.place(p) for p in spots]))
    return _tube(one.meets.mate.key, "leg", rings)


def _shown(face: Face, own: Solid, stood: tuple[Solid, ...]) -> Iterator[tuple[int, Vec, Vec]]:
    """The edges of a face, or what of them is the part's own, each with its place round the face: not where
    it was only worked out in pieces, for there the wood goes on."""
    others = [solid for solid in stood if solid is not own]
    corners = {c for solid in others for other in solid for c in other.corners}
    n, ring = face.normal, face.corners
    for k, p in enumerate(ring):
        q = ring[(k + 1) % len(ring)]
        run = between(p, q)
        if math.hypot(*run) < _JUST_MM:
            continue
        out = unit(cross(run, n))
        begun: Vec | None = None
        stops = [0.0, *sorted(_along_edge(p, run, corners)), 1.0]
        for a, b in pairwise(stops):
            half = along(p, run, (a + b) / 2)
            # Wood that lies on the face there, or goes on flat beyond its edge; not where it rises there.
            on = _inside(along(half, out, -_JUST_MM), n, _JUST_MM, others)
            past = along(half, out, _JUST_MM)
            flat = _inside(past, n, -_JUST_MM, others) and not _inside(past, n, _JUST_MM, others)
            hidden = on or flat
            if not hidden and begun is None:
                begun = along(p, run, a)
            if hidden and begun is not None:
                yield k, begun, along(p, run, a)
                begun = None
        if begun is not None:
            yield k, begun, q


def _along_edge(p: Vec, run: Vec, corners: set[Vec]) -> Iterator[float]:
    """Where along an edge, as shares of it, corners of other pieces lie on it."""
    long = math.hypot(*run)
    for c in corners:
        t = dot(between(p, c), run) / long**2
        within = _JUST_MM < t * long < long - _JUST_MM
        if within and math.dist(c, along(p, run, t)) < _JUST_MM:
            yield t


def _within_a_round(body: Body, face: Face, k: int, solids: tuple[Solid, ...]) -> bool:
    """Whether an edge of a face only parts two chords of one round."""
    mine = body.eased_along(face.normal)
    if mine is None:
        return False
    p, q = face.corners[k], face.corners[(k + 1) % len(face.corners)]
    return any(
        other is not face
        and all(min(math.dist(r, c) for c in other.corners) < _JUST_MM for r in (p, q))
        and body.eased_along(other.normal) == mine
        for solid in solids
        for other in solid
    )


def _inside(at: Vec, way: Vec, by: float, solids: list[Solid]) -> bool:
    """Whether the place so far along `way` lies in any of these solids."""
    p = along(at, way, by)
    return any(
        all(dot(face.normal, between(face.corners[0], p)) < 0.0 for face in solid) for solid in solids
    )


def _cord(model: Model, number: int, a: Vec, b: Vec, half: float) -> Mesh:
    p, q = np.array(model.place(a)), np.array(model.place(b))
    u = (q - p) / np.linalg.norm(q - p)
    seed = np.array((0.0, 0.0, 1.0)) if abs(u[2]) < 0.9 else np.array((1.0, 0.0, 0.0))
    v = np.cross(u, seed)
    v /= np.linalg.norm(v)
    w = np.cross(u, v)
    turns = np.linspace(0.0, 2.0 * np.pi, _ROPE_SIDES, endpoint=False)
    ring = np.outer(np.cos(turns), v * half) + np.outer(np.sin(turns), w * half)
    return _tube(f"member.{number}", "rope", [p + ring, q + ring])


__all__ = ["Mesh", "meshes", "seen_meshes"]
