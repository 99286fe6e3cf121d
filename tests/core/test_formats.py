"""Open formats, read back by other libraries than those that wrote them."""

from __future__ import annotations

import csv
import io
import json
import math
import os
import struct
import subprocess
import sys
import zipfile
from functools import cache
from typing import Any

import ezdxf
import ezdxf.path
import numpy as np
import openpyxl
import shapely
import svgelements
import trimesh
from django.test import SimpleTestCase
from hypothesis import example, given, settings
from hypothesis import strategies as st
from manifold3d import Manifold
from shapely import affinity

from splay.draw import draw
from splay.errors import BadInput
from splay.formats.flat import dxf, svg
from splay.formats.models import gltf, stl
from splay.formats.tables import Table, from_csv, markdown, to_csv, workbook
from splay.patterns import patterns_of
from splay.patterns.legs import developed
from splay.piece import Piece, Shouldered, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.quantity import Show
from splay.shop import workbench
from splay.solids import Part, solids_of
from splay.stance.aim import faces
from splay.stance.hollow import hollow_depth
from splay.stance.lines import socket_line
from splay.stance.members import members
from splay.stance.outline import points
from splay.stance.staked import support_of
from splay.stance.taper import size_at, taper_at
from splay.stance.vectors import Vec, along, between, cross, dot
from splay.views.shapes import View, Words, ellipse

SHOP = workbench()


def made(start: str, **change: Any) -> tuple[Piece, Plan]:
    """A start, or one with its one set of legs said otherwise."""
    document = write_piece(starter(start))
    for path, value in change.items():
        document["supports"][0][path] = value
    piece = read_piece(document)
    return piece, plan(piece, SHOP)


def runs(view: View) -> list[tuple[str, tuple[tuple[float, float], ...]]]:
    """Every run of lines of a drawing with its layer."""
    return [(shape.layer, shape.points) for shape in view.shapes if shape.kind == "line"]


class Flat(SimpleTestCase):
    """Patterns as DXF (read by trimesh) and SVG (by svgelements) agree with the plan within 0.01 mm."""

    def every(self) -> list[tuple[str, View]]:
        found = []
        for start in ("bench", "slab", "plane_frames", "board_sides", "tall", "triangle"):
            piece, planned = made(start)
            found += [(f"{start} {one.id}", one.view) for one in patterns_of(piece, SHOP, planned)]
        return found

    def test_dxf_holds_every_point_and_circle_in_millimetres(self) -> None:
        for name, view in self.every():
            with self.subTest(name):
                raw = dxf(view, name)
                self.assertIn(
                    b"$INSUNITS\r\n 70\r\n4\r\n".replace(b"\r\n", b"\n"), raw.replace(b"\r\n", b"\n")
                )
                path: Any = trimesh.load_path(io.BytesIO(raw), file_type="dxf")
                corners = np.asarray(path.vertices)
                for _, points_ in runs(view):
                    for point in points_:
                        near = np.abs(corners - np.array(point)).max(axis=1).min()
                        self.assertLess(near, 0.01)

    def test_dxf_layers_are_named_for_what_they_are(self) -> None:
        piece, planned = made("bench")
        view = patterns_of(piece, SHOP, planned)[0].view
        raw = dxf(view, "x").decode()
        for layer in {shape.layer for shape in view.shapes}:
            self.assertIn(f"\n{layer.upper()}\n", raw.replace("\r\n", "\n"))

    def test_the_same_pattern_is_the_same_file_in_every_process(self) -> None:
        write = (
            "import hashlib; from tests.core.test_formats import *; piece, planned = made('slab');"
            "[print(one.id, hashlib.sha256(turn(one.view, 'x')).hexdigest())"
            " for one in patterns_of(piece, SHOP, planned) for turn in (dxf, svg)]"
        )
        files = {
            subprocess.run(
                [sys.executable, "-c", write],
                env={**os.environ, "PYTHONHASHSEED": str(seed)},
                check=True,
                capture_output=True,
            ).stdout
            for seed in (1, 4)  # two that the library put in two orders
        }
        self.assertEqual(len(files), 1)
        self.assertIn(b"top ", files.pop())

    def test_svg_holds_every_point_at_its_physical_size(self) -> None:
        for name, view in self.every():
            with self.subTest(name):
                read = svgelements.SVG.parse(io.BytesIO(svg(view, name)), ppi=25.4)
                left, _, _, high = view.box
                seen = [
                    (point.x, point.y)
                    for element in read.elements()
                    if isinstance(element, svgelements.Polyline | svgelements.Polygon)
                    for point in element
                ]
                cloud = np.array(seen)
                for _, points_ in runs(view):
                    for x, y in points_:
                        self.assertLess(np.abs(cloud - (x - left, high - y)).max(axis=1).min(), 0.01)
                self.assertAlmostEqual(float(read.width), view.box[2] - left, delta=0.01)

    def test_ellipses_slant_as_they_are_said_to_whichever_axis_is_the_longer(self) -> None:
        """Points of what is read back fulfil the ellipse's own equation."""
        for sizes in ((40.0, 10.0), (10.0, 40.0), (25.0, 25.0)):
            shape = ellipse("cut", (120.0, 70.0), sizes, 30.0)
            view = View("x", "x", (0.0, 0.0, 200.0, 150.0), (shape,))
            read: Any = ezdxf.read(io.StringIO(dxf(view, "x").decode()))  # type: ignore[attr-defined]
            (entity,) = read.modelspace()
            found = [(p.x, p.y) for p in ezdxf.path.make_path(entity).flattening(0.001)]  # type: ignore
            drawing = svgelements.SVG.parse(io.BytesIO(svg(view, "x")), ppi=25.4)
            (curve,) = [e for e in drawing.elements() if isinstance(e, svgelements.Shape)]
            path = abs(svgelements.Path(curve))
            found += [(p.x, 150.0 - p.y) for p in (path.point(k / 40) for k in range(41))]
            c, s = math.cos(math.radians(30.0)), math.sin(math.radians(30.0))
            for x, y in found:
                u, v = (x - 120.0) * c + (y - 70.0) * s, (y - 70.0) * c - (x - 120.0) * s
                self.assertAlmostEqual((u / sizes[0]) ** 2 + (v / sizes[1]) ** 2, 1.0, delta=0.002)

    def test_drawings_of_every_side_are_read_back_too(self) -> None:
        piece, planned = made("bench")
        for view in draw(piece, SHOP, planned, "all").piece:
            trimesh.load_path(io.BytesIO(dxf(view, "x")), file_type="dxf")
            svgelements.SVG.parse(io.BytesIO(svg(view, "x")))

    def test_words_that_would_end_an_entry_stay_words(self) -> None:
        bad = "a\n0\nEOF\r\n</svg><script>\x00"
        view = View("x", "x", (0, 0, 10, 10), (Words("label", ((1.0, 2.0),), bad),))
        self.assertNotIn(b"\nEOF\r\n</svg>", dxf(view, bad))
        self.assertNotIn(b"<script>", svg(view, bad))
        svgelements.SVG.parse(io.BytesIO(svg(view, bad)))


class Wrapped(SimpleTestCase):
    """A card wrapped round its leg brings its cross to where the stretcher comes out."""

    def test_the_card_s_cross_lies_on_the_place_in_the_round(self) -> None:
        for start in ("bench",):
            piece, planned = made(start)
            stance = planned.stance
            runs_, _ = members(piece, stance)
            for run in runs_:
                for end, sign in zip(run.ends, (1.0, -1.0), strict=True):
                    if not end.leg:
                        continue
                    leg = stance.legs[end.leg - 1]
                    out = along(end.at, run.u, sign * end.leaves)
                    way = between(leg.socket, out)
                    down = dot(way, leg.d)
                    first = socket_line(leg)
                    off = between(along(leg.socket, leg.d, down), out)
                    turn = math.degrees(math.atan2(dot(off, cross(leg.d, first)), dot(off, first)))
                    shape = support_of(piece, leg).leg
                    radius = size_at(shape, leg.exposed, down) / 2.0
                    taper = taper_at(shape, leg.exposed, down)
                    x, y = developed(radius, taper, 0.0, turn)
                    card = next(
                        one
                        for one in patterns_of(piece, SHOP, planned)
                        if one.id == f"wrap.{leg.id}.{run.id}"
                    )
                    crosses = [s for s in card.view.shapes if s.layer == "cut" and len(s.points) == 2]
                    middles = [
                        ((s.points[0][0] + s.points[1][0]) / 2, (s.points[0][1] + s.points[1][1]) / 2)
                        for s in crosses
                    ]
                    self.assertLess(min(math.dist(at, (x, y)) for at in middles), 0.02)

    def test_printed_side_out_and_top_up_the_card_turns_the_way_the_leg_does(self) -> None:
        """Looking at the outer line from outside, the foot down, the card's right goes round the leg's
        right: worked out from the eye alone."""
        piece, planned = made("bench")
        stance = planned.stance
        runs_, _ = members(piece, stance)
        cards = {one.id: one for one in patterns_of(piece, SHOP, planned)}
        for run in runs_:
            for end, sign in zip(run.ends, (1.0, -1.0), strict=True):
                if not end.leg:
                    continue
                leg = stance.legs[end.leg - 1]
                into: Vec = (sign * run.u[0], sign * run.u[1], sign * run.u[2])
                out = along(end.at, into, end.leaves)
                first = socket_line(leg)
                down = dot(between(leg.socket, out), leg.d)
                off = between(along(leg.socket, leg.d, down), out)
                right = cross(first, leg.d)
                turn = math.degrees(math.atan2(dot(off, right), dot(off, first)))
                radius = size_at(support_of(piece, leg).leg, leg.exposed, down) / 2.0
                card = cards[f"wrap.{leg.id}.{run.id}"]
                pointers = [shape.points for shape in card.view.shapes if shape.layer == "pointer"]
                tail, tip = max(pointers, key=lambda points: math.dist(points[0], points[-1]))
                self.assertAlmostEqual(tail[0], math.radians(turn) * radius, delta=0.02 * radius)
                # The arrow: towards the foot where the stretcher leaves the leg downward, else to the top.
                self.assertEqual(tip[1] < tail[1], dot(into, leg.d) > 0.0)
                upper = SHOP.rounding.units()
                edge = Show(upper).length(leg.bore.tenon + down - 26.0).text
                self.assertIn(f"its upper edge {edge} from the tenon end", card.told[0])
                way = "clockwise" if turn < 0.0 else "anticlockwise"
                self.assertIn(f"({abs(turn):.1f}°), {way} looking at the tenon end", card.told[1])

    @given(
        radius=st.floats(8, 40),
        taper=st.floats(-0.05, 0.05),
        down=st.floats(-30, 30),
        turn=st.floats(-180, 180),
        other=st.floats(-30, 30),
    )
    @example(radius=9.0, taper=1e-9, down=0.0, turn=0.0, other=1.652867081918341)
    @settings(max_examples=60, deadline=None)
    def test_a_cone_lies_flat_without_stretching(
        self, radius: float, taper: float, down: float, turn: float, other: float
    ) -> None:
        """Along its side and round it, lengths on the card are lengths on the leg."""
        a, b = developed(radius, taper, down, turn), developed(radius, taper, other, turn)
        self.assertAlmostEqual(math.dist(a, b), abs(down - other) * math.sqrt(1 + taper * taper), places=6)
        c = developed(radius, taper, down, turn + 0.01)
        self.assertAlmostEqual(math.dist(a, c), math.radians(0.01) * (radius - taper * down), delta=1e-6)


JOINTS: dict[str, dict[str, Any]] = {
    "through": {"joint": {"way": "through", "socket": 26}},
    "proud": {"joint": {"way": "through", "socket": 26, "proud": 6}},
    "blind": {"joint": {"way": "blind", "socket": 26, "depth": 26}},
    "reamed": {"joint": {"way": "reamed", "socket": 30, "included": 11}},
    "shouldered": {"joint": {"way": "shouldered", "socket": 30, "across": 14, "depth": 24}},
    "dowel screw": {"joint": {"way": "dowel_screw"}},
    "square leg": {"leg": {"section": "square", "at_top": 38, "at_foot": 28}},
    "octagon leg": {"leg": {"section": "octagon", "at_top": 40, "at_foot": 30}},
    "belly": {"leg": {"at_top": 32, "at_foot": 26, "belly": {"at": 0.35, "size": 40}}},
    "waist": {"leg": {"at_top": 40, "at_foot": 34, "belly": {"at": 0.5, "size": 28}}},
}


def mesh(part: Part) -> Any:
    """A part as trimesh sees it, equal corners taken together."""
    return trimesh.Trimesh(part.points, part.triangles, process=True)


@cache
def _kinds() -> tuple[tuple[str, Piece, Plan], ...]:
    """Every kind of piece and of leg, planned once for all that is held against it."""
    found = [(start, *made(start)) for start in STARTS]
    return (*found, *((name, *made("round_four", **change)) for name, change in JOINTS.items()))


@cache
def _solids(name: str) -> tuple[Part, ...]:
    piece, planned = next((one, plan_) for kind, one, plan_ in _kinds() if kind == name)
    return solids_of(piece, planned)


class Solids(SimpleTestCase):
    """Every kind of piece and of leg: closed, and of the volume another way of reckoning gives."""

    def kinds(self) -> list[tuple[str, Piece, Plan]]:
        return list(_kinds())

    def test_every_part_is_closed_and_one(self) -> None:
        for name, *_ in self.kinds():
            for part in _solids(name):
                with self.subTest(f"{name}, {part.name}"):
                    solid = mesh(part)
                    self.assertTrue(solid.is_watertight)
                    self.assertTrue(solid.is_winding_consistent)
                    self.assertGreater(solid.volume, 0.0)
                    self.assertEqual(solid.body_count, 1)

    def test_a_leg_has_the_volume_of_its_own_figures(self) -> None:
        """Discs across the axis summed up by shapely and Simpson's rule: an independent reckoning, within
        0.1 %. Each disc is cut by the planes of seat and floor."""
        for name, piece, planned in self.kinds():
            if name not in JOINTS and name not in ("round_three", "triangle", "log_slice", "tall"):
                continue
            stance = planned.stance
            parts = {part.key: part for part in _solids(name)}
            leg = stance.legs[0]
            with self.subTest(name):
                volume = mesh(parts[f"leg.{leg.id}"]).volume
                self.assertAlmostEqual(volume / leg_volume(piece, planned), 1.0, delta=0.001)

    def test_a_top_has_the_volume_of_its_slices_less_its_holes(self) -> None:
        for name, piece, planned in self.kinds():
            top = piece.top
            shaped = any(edge.way != "square" for edge in (top.upper_edge, top.lower_edge))
            if shaped or any(s.kind == "slab_leg" for s in piece.supports):
                continue
            with self.subTest(name):
                volume = mesh(_solids(name)[0]).volume
                self.assertAlmostEqual(volume / top_volume(piece, planned), 1.0, delta=0.001)

    def test_squared_parts_have_the_volume_of_their_convex_pieces(self) -> None:
        """Each part's pieces, as hulls of their own, summed up."""
        for name, _, planned in self.kinds():
            parts = {part.key: part for part in _solids(name)}
            for body in planned.stance.bodies:
                if not body.drawn or body.role == "batten":
                    continue
                with self.subTest(f"{name}, {body.name}"):
                    pieces = [
                        Manifold.hull_points(np.array([p for face in solid for p in face.corners]))
                        for solid in body.pieces
                    ]
                    whole = sum(one.volume() for one in pieces)
                    self.assertAlmostEqual(mesh(parts[body.key]).volume / whole, 1.0, delta=0.001)

    def test_tenons_fill_their_sockets_and_nothing_else_overlaps_a_top(self) -> None:
        """A leg and the top it is let into share no wood: the tenon lies in its hole."""
        for name in ("round_three", "bench", "tall"):
            piece, planned = made(name)
            parts = {part.key: part for part in solids_of(piece, planned)}
            top = mesh(parts["top"])
            for leg in planned.stance.legs:
                both = trimesh.boolean.intersection([top, mesh(parts[f"leg.{leg.id}"])])
                if both.is_empty:
                    continue
                self.assertLess(both.volume, 0.004 * top.volume, name)

    def test_stretchers_lie_in_their_sockets(self) -> None:
        """A tenon shares no wood with the leg or stretcher it enters: without a hole it would share all of
        itself. What a shoulder presses into a slanted side is less than a quarter of that."""
        piece, planned = made("bench")
        parts = {part.key: mesh(part) for part in solids_of(piece, planned)}
        runs_, _ = members(piece, planned.stance)
        into_members = 0
        for run in runs_:
            chosen = piece.members[run.number - 1]
            assert chosen.kind == "stretcher"
            tenon = math.pi / 4 * chosen.tenon**2 * chosen.depth
            for end in run.ends:
                other = f"leg.{planned.stance.legs[end.leg - 1].id}" if end.leg else ""
                other = other or f"member.{runs_[end.member - 1].id}"
                into_members += not end.leg
                both = trimesh.boolean.intersection([parts[f"member.{run.id}"], parts[other]])
                shared = 0.0 if both.is_empty else both.volume
                self.assertLess(shared, 0.25 * tenon, other)
        self.assertGreater(into_members, 0)

    def test_they_stand_on_the_floor_and_reach_their_height(self) -> None:
        for name, *_ in self.kinds():
            parts = _solids(name)
            lows = [part.points[:, 2].min() for part in parts]
            self.assertAlmostEqual(min(lows), 0.0, delta=0.05, msg=name)

    def test_gltf_is_read_back_part_by_part_in_metres_and_follows_its_format(self) -> None:
        for name in ("bench", "aproned"):
            piece, planned = made(name)
            parts = solids_of(piece, planned)
            raw = gltf(parts)
            magic, version, length = struct.unpack("<4sII", raw[:12])
            self.assertEqual((magic, version, length), (b"glTF", 2, len(raw)))
            size, kind = struct.unpack("<I4s", raw[12:20])
            said = json.loads(raw[20 : 20 + size])
            self.assertEqual((kind, said["asset"]["version"]), (b"JSON", "2.0"))
            names = {node.get("name") for node in said["nodes"]}
            self.assertTrue({part.name for part in parts} <= names)
            scene: Any = trimesh.load(io.BytesIO(raw), file_type="glb")
            read = sum(one.volume for one in scene.geometry.values()) * 1e9
            self.assertAlmostEqual(read / sum(mesh(part).volume for part in parts), 1.0, delta=0.001)
            # y is up there: the piece's height is its extent along y.
            high = max(part.points[:, 2].max() for part in parts)
            self.assertAlmostEqual(float(scene.bounds[1][1]) * 1000.0, float(high), delta=0.01)

    def test_stl_is_a_closed_file_a_part_in_millimetres(self) -> None:
        piece, planned = made("round_three")
        parts = solids_of(piece, planned)
        with zipfile.ZipFile(io.BytesIO(stl(parts))) as archive:
            self.assertEqual(len(archive.namelist()), len(parts))
            for name, part in zip(archive.namelist(), parts, strict=True):
                read: Any = trimesh.load(io.BytesIO(archive.read(name)), file_type="stl")
                self.assertTrue(read.is_watertight, name)
                self.assertAlmostEqual(read.volume / mesh(part).volume, 1.0, delta=0.001)


def disc(half: float, section: str) -> shapely.Polygon:
    """A leg's section across its axis: x to the side it leans to."""
    if section == "round":
        return shapely.Point(0.0, 0.0).buffer(half, quad_segs=90)
    square = shapely.box(-half, -half, half, half)
    if section == "square":
        return square
    turned = affinity.rotate(square, 45.0)
    return square.intersection(affinity.scale(turned, 1.0, 1.0))


def leg_volume(piece: Piece, planned: Plan) -> float:
    """A leg's volume from its figures alone: discs every half millimetre along its axis, each cut by the
    planes of seat and floor where it leans, the tenon a cylinder, a cone or a bar over it."""
    leg = planned.stance.legs[0]
    support = support_of(piece, leg)
    shape, bore, floor = support.leg, leg.bore, planned.stance.floor
    first = socket_line(leg)
    second = cross(leg.d, first)
    far = 400.0
    step = 0.5

    def side(point: Any, normal: Any, offset: float, above: bool) -> shapely.Polygon:
        """Where on a disc about a point of the axis the plane n·p = offset leaves wood."""
        a, b = dot(normal, first), dot(normal, second)
        c = offset - dot(normal, point)
        size = math.hypot(a, b)
        if size < 1e-12:
            whole = (c <= 0.0) if above else (c >= 0.0)
            return shapely.box(-far, -far, far, far) if whole else shapely.Polygon()
        u = (a / size, b / size)
        reach = c / size
        box = shapely.box(reach, -far, far, far) if above else shapely.box(-far, -far, reach, far)
        return affinity.rotate(box, math.degrees(math.atan2(u[1], u[0])), origin=(0, 0))

    total = 0.0
    slack = 80.0
    for k in range(round((leg.exposed + 2 * slack) / step)):
        down = -slack + (k + 0.5) * step
        inside = min(max(down, 0.0), leg.exposed)
        half = size_at(shape, leg.exposed, inside) / 2 - taper_at(shape, leg.exposed, inside) * (
            down - inside
        )
        at = along(leg.socket, leg.d, down)
        wood = disc(half, shape.section)
        if shape.section != "round":
            one, _ = faces(shape, leg.d)
            turn = math.degrees(math.atan2(dot(one, second), dot(one, first)))
            wood = affinity.rotate(wood, turn, origin=(0, 0))
        wood = wood.intersection(side(at, (0.0, 0.0, 1.0), bore.mouth_z, above=False))
        wood = wood.intersection(side(at, floor.normal, -floor.h0_mm, above=True))
        total += wood.area * step
        if bore.tenon > 0.0 and down > -bore.tenon:
            if isinstance(support.joint, Shouldered):
                pin = shapely.box(-bore.size / 2, -bore.across / 2, bore.size / 2, bore.across / 2)
            else:
                slope = (bore.size - bore.tip) / 2.0 / bore.tenon
                pin = shapely.Point(0.0, 0.0).buffer(bore.size / 2 + slope * down, quad_segs=90)
            pin = pin.intersection(side(at, (0.0, 0.0, 1.0), bore.mouth_z, above=True))
            if bore.left_on:
                sawn = along(leg.socket, leg.d, -bore.done)[2]
                pin = pin.intersection(side(at, (0.0, 0.0, 1.0), sawn, above=False))
            total += pin.area * step
    if bore.recess:
        # Its own end in the recess, as thick as it leaves the seat.
        for k in range(round(4 * slack / step)):
            down = -bore.recess + (k + 0.5) * step
            if down < slack:
                at = along(leg.socket, leg.d, down)
                own = disc(shape.at_top / 2.0, shape.section)
                total += own.intersection(side(at, (0.0, 0.0, 1.0), bore.mouth_z, above=True)).area * step
    tip = 0.0
    if bore.tenon > slack:
        tip = (bore.tenon - slack) * math.pi * bore.tip**2 / 4
    return total + tip


def top_volume(piece: Piece, planned: Plan) -> float:
    """A top's volume from slices across its thickness: outline, less the hollow there, less each hole."""
    top = piece.top
    outline = shapely.Polygon(points(top.outline))
    steps = 200
    total = 0.0
    for k in range(steps):
        z = (k + 0.5) * top.thickness / steps
        level = outline
        if top.hollow is not None:
            level = outline.difference(_hollow_at(piece, top.thickness - z))
        for leg in planned.stance.legs:
            bore = leg.bore
            if bore.mouth_z != 0.0:
                continue
            level = level.difference(_hole_at(piece, leg, z))
        total += level.area * top.thickness / steps
    return total


def _hollow_at(piece: Piece, deep: float) -> shapely.Polygon:
    """Where the hollow is deeper than that: an ellipse or a band, found by halving along x and y."""
    hollow = piece.top.hollow
    reach = []
    for axis in (0, 1):
        low, high = 0.0, 3000.0
        for _ in range(60):
            middle = (low + high) / 2
            at = (middle, 0.0) if axis == 0 else (0.0, middle)
            low, high = (middle, high) if hollow_depth(hollow, at) > deep else (low, middle)
        reach.append(low)
    if hollow is not None and hollow.way == "dish":
        return affinity.scale(shapely.Point(0, 0).buffer(1.0, quad_segs=90), *reach)
    return shapely.box(-reach[0], -reach[1], reach[0], reach[1])


def _hole_at(piece: Piece, leg: Any, z: float) -> shapely.Polygon:
    """A socket cut by the level plane at z above the underside: an ellipse, or a slanted bar's section."""
    bore, joint = leg.bore, support_of(piece, leg).joint
    run = z / -leg.d[2]
    rho = math.radians(leg.boring.resultant)
    bearing = leg.boring.bearing or 0.0
    centre = (leg.socket[0] - leg.d[0] * run, leg.socket[1] - leg.d[1] * run)
    size = bore.size
    if bore.tip != bore.size and bore.tenon:
        size -= (bore.size - bore.tip) / bore.tenon * run
    if isinstance(joint, Shouldered):
        shape = shapely.box(
            -size / 2 / math.cos(rho), -bore.across / 2, size / 2 / math.cos(rho), bore.across / 2
        )
    else:
        shape = affinity.scale(
            shapely.Point(0, 0).buffer(1.0, quad_segs=90), size / 2 / math.cos(rho), size / 2
        )
    if bore.recess:
        wide = shapely.Point(0, 0).buffer(1.0, quad_segs=90)
        wide = affinity.scale(wide, bore.wide / 2 / math.cos(rho), bore.wide / 2)
        floor = (bore.recess - run) / math.sin(rho)
        shape = shape.union(wide.intersection(shapely.box(-floor, -1000.0, 1000.0, 1000.0)))
    if not bore.through:
        # The flat floor of the hole, square to its axis, cuts the level plane along a line across the lean.
        # A point (a along the lean, in the level plane) lies deep: run·1 + … ; wood stays beyond `deep`.
        limit = (bore.deep - run) / math.sin(rho) if math.sin(rho) > 1e-9 else math.inf
        far = 1000.0
        if limit == math.inf:
            shape = shape if run <= bore.deep else shapely.Polygon()
        else:
            # Going against the lean (towards -a) is further up the hole.
            shape = shape.intersection(shapely.box(-limit, -far, far, far))
    turned = affinity.rotate(shape, bearing, origin=(0, 0))
    return affinity.translate(turned, *centre)


class Tables(SimpleTestCase):
    """Tables keep what is in them, and nothing in them is reckoned."""

    cells = st.one_of(
        st.text(alphabet=st.characters(blacklist_categories=("Cs", "Cc")), max_size=30),
        st.floats(allow_nan=False, allow_infinity=False, width=32),
        st.integers(-1000, 1000),
    )

    @given(rows=st.lists(st.tuples(cells, cells, cells), max_size=6))
    @settings(max_examples=80, deadline=None)
    def test_csv_comes_back_as_it_was(self, rows: list[tuple[Any, ...]]) -> None:
        table = Table("x", ("a", "b", "c"), tuple(rows))
        with self.assertRaises(BadInput) as refused:
            from_csv("a,b\n1,2\n", ("a", "b", "c"))
        (fault,) = refused.exception.faults
        self.assertEqual(fault.allowed, "a column called c")
        self.assertEqual(fault.do, "Give the first row the names of the columns: a, b, c.")
        read = from_csv(to_csv(table).decode("utf-8-sig"), ("a", "b", "c"))
        kept = [row for row in rows if any(str(cell).strip() for cell in row)]
        self.assertEqual(len(read), len(kept))
        for (_, cells), row in zip(read, kept, strict=True):
            for name, was in zip("abc", row, strict=True):
                if isinstance(was, str):
                    self.assertEqual(cells[name], was.strip())
                else:
                    self.assertEqual(float(cells[name]), float(was))

    def test_what_a_table_program_would_reckon_stays_a_text(self) -> None:
        table = Table("x", ("a",), (("=1+1",), ("+49",), ("-3",), ("@here",)))
        for (cell,) in list(csv.reader(io.StringIO(to_csv(table).decode("utf-8-sig"))))[1:]:
            self.assertTrue(cell.startswith("'"), cell)
        sheet: Any = openpyxl.load_workbook(io.BytesIO(workbook([table])))["x"]
        self.assertEqual(
            [row[0].value for row in sheet.iter_rows(min_row=2)], ["=1+1", "+49", "-3", "@here"]
        )
        self.assertEqual({row[0].data_type for row in sheet.iter_rows(min_row=2)}, {"s"})

    def test_a_log_as_markdown_shows_words_as_they_are(self) -> None:
        rows = (
            ("2026-11-20T09:30:00+00:00", "ash", "note", "Bore", "# 1 *not* <b>bold</b>\n- list", 12.0, 1),
        )
        said = markdown("Log", Table("Log", ("at", "by", "sort", "title", "says", "minutes", "copy"), rows))
        self.assertIn(b"## 2026-11-20", said)
        self.assertIn(rb"\# 1 \*not\* \<b\>bold\</b\> - list", said)
        self.assertIn(b"12.0 min", said)
