"""What can be taken hold of in a view of the piece, and where it is there."""

from __future__ import annotations

from splay.piece import SlabLeg
from splay.stance.board_sides import front_corner
from splay.stance.contacts import on_floor
from splay.stance.holds import facing, holds
from splay.stance.slab_leg import edge_spots, on_face
from splay.stance.vectors import Flat
from splay.views.project import SIDE, Eye
from splay.views.scene import Model, Sight
from splay.views.shapes import Handle


def elevation_handles(model: Model, sight: Sight) -> list[Handle]:
    """Height and lean of the seat, the feet; from the front or the side frames, stretchers, edges and sizes
    of parts as well."""
    eye, legs = sight.eye, model.stance.legs
    handles = [Handle("height", 0, eye.see(model.seat), "height of the sitting surface")]
    handles += _lean_handle(model, eye)
    if eye.name == "sight":
        return handles
    seen: set[Flat] = set()
    nearest = sorted(range(len(legs)), key=lambda k: -sight.depth(legs[k].socket, legs[k].foot))
    for k in nearest:
        at = eye.see(legs[k].foot_floor)
        near = (round(at[0]), round(at[1]))
        if near not in seen:
            seen.add(near)
            handles.append(Handle("foot", legs[k].number, at, f"foot of leg {legs[k].number}"))
    for more in (_frame_handles, _member_handles, _edge_handles, _tread_handles, _size_handles):
        handles += more(model, eye)
    return handles


def _lean_handle(model: Model, eye: Eye) -> list[Handle]:
    if eye is not SIDE or model.piece.lean.toward not in (90.0, 270.0):
        return []
    back = model.place((0.0, model.half[1], model.piece.top.thickness))
    return [Handle("lean", 0, eye.see(back), "back edge of the seat: its lean")]


def _frame_handles(model: Model, eye: Eye) -> list[Handle]:
    """At the outermost foot of each frame that leans the way this view shows."""
    made = []
    field = "rake" if eye is SIDE else "splay"
    for index, support in enumerate(model.piece.supports):
        standing = [b for b in model.stance.bodies if b.support == index and b.stands]
        if not standing or not hasattr(support, field):
            continue
        spots = [eye.see(p) for body in standing for p in on_floor(body, model.stance.floor)]
        if spots:
            far = max(spots, key=lambda p: abs(p[0]))
            made.append(Handle("frame", index, far, f"{field} of support {index + 1}"))
    return made


def _edge_handles(model: Model, eye: Eye) -> list[Handle]:
    """On a slab leg's edges, as they are seen from the side."""
    made = []
    for number, (index, k, side) in enumerate(edge_spots(model.piece) if eye is SIDE else (), start=1):
        support = model.piece.supports[index]
        assert isinstance(support, SlabLeg)
        spot = support.edges[k]
        y = -spot.front if side == "front" else spot.back
        at = eye.see(model.place(on_face(model.piece, support, spot.down, y)))
        made.append(Handle("edge", number, at, f"{side} edge of the slab leg, place {k + 1}"))
    return made


def _tread_handles(model: Model, eye: Eye) -> list[Handle]:
    """A lower tread by its front edge, seen from the side."""
    if eye is not SIDE:
        return []
    return [
        Handle("tread", index, eye.see(model.place(front_corner(sides))), "front edge of the lower tread")
        for index, sides, _ in model.piece.treads()
    ]


def _size_handles(model: Model, eye: Eye) -> list[Handle]:
    """Where a size of a squared part shows square on: the rise of an arc, where a taper begins, its
    foot."""
    floor = model.stance.floor
    every, ways = holds(model.stance), (floor.turn_back(eye.right), floor.turn_back(eye.up))
    return [
        Handle("size", number, eye.see(model.place(one.at)), one.label)
        for number, one in facing(every, *ways)
    ]


def _member_handles(model: Model, eye: Eye) -> list[Handle]:
    """In the middle of each stretcher that stands on legs, and of each rope."""
    made = []
    for run in model.runs:
        if not (run.ends[0].leg or run.ends[1].leg):
            continue
        a, b = (eye.see(model.place(end.at)) for end in run.ends)
        at = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        made.append(Handle("member", run.number, at, f"level of stretcher {run.number}"))
    for rope in model.ropes:
        a, b = (eye.see(model.place(p)) for p in rope.points[:2])
        at = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        made.append(Handle("member", rope.number, at, f"level of rope {rope.number}"))
    return made
