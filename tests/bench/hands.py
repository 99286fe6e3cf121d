"""The hands: they mark, lay, tilt, bore and saw as the data says, each in the frame of its own tool."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from splay.setups.card import SetUp
from splay.shop import GuideBlock, Ramp, Scale, Shop, Tool
from splay.work.does import (
    Across,
    Along,
    DrawLine,
    FromEdge,
    LongPoint,
    NameFaces,
    OnEnd,
    OverEnd,
    Round,
    Turned,
    TwoWay,
)
from splay.work.joinery import Notch
from splay.work.lays import ByHand, OnLines, OnSaw, OnSide, OnTilt, Toward
from splay.work.marks import Kind, Mark
from splay.work.seat import Act, Letters, Prick, Rim, Ring, Row, Sightline
from tests.bench.frames import Array, laid, spun, square_to, unit, vec
from tests.bench.hollowed import strike_rim
from tests.bench.stock import Board, Seat, Stick, arc_deg

UP = vec(0, 0, 1)


class NotTold(AssertionError):
    """Something an instruction leans on was never made, or cannot be found on the wood."""


@dataclass(frozen=True)
class Hole:
    """Where a hole's middle enters and the way out of it, in the part's own frame."""

    mark: Mark
    at: Array
    out: Array
    diameter: float
    deep: float | None


@dataclass(frozen=True)
class Cut:
    """A sawn end: the plane's normal out of the part, its own frame, and a point it goes through."""

    part: str
    end: str
    normal: Array
    through: Array | None = None


# --- the seat marked out -------------------------------------------------------------------------


def mark_seat(seat: Seat, acts: tuple[Act, ...]) -> None:
    """Strikes what a step says. The seat lies with the face up and FRONT towards the maker."""
    for act in acts:
        if isinstance(act, Letters):
            _letters(act)
        elif isinstance(act, Prick):
            seat.points[act.mark] = _at(seat, act)
            if act.mark.kind is Kind.PEG:
                # Marked when the hollow is cut: square down from the rule held across it.
                x, y, _ = seat.points[act.mark]
                seat.points[act.mark] = seat.points[act.mark] - UP * seat.sunk(float(x), float(y))
        elif isinstance(act, Ring):
            _ring(seat, act)
        elif isinstance(act, Row):
            seat.rows[act.mark] = (act.end, tuple(one.value for one in act.at))
        elif isinstance(act, Sightline):
            if act.through not in seat.points:
                raise NotTold(act)
            way = word_way(act.along) * act.run.value + word_way(act.toward) * act.over.value
            seat.far[act.mark] = seat.points[act.through] + way
            seat.arrows[act.mark] = unit(-way if act.back else way)
        elif isinstance(act, Rim):
            strike_rim(seat, act)
        else:
            raise NotTold(act)


def word_way(letter: str) -> Array:
    return {"RIGHT": vec(1, 0, 0), "LEFT": vec(-1, 0, 0), "BACK": vec(0, 1, 0), "FRONT": vec(0, -1, 0)}[
        letter
    ]


def _letters(act: Letters) -> None:
    """The maker sees x to the right hand, y away, z up; a real seat cannot be mirrored."""
    right = vec(1 if act.right_at == "right hand" else -1, 0, 0)
    back = vec(0, 1, 0)
    upper = UP if act.face == "upper face" else -UP
    assert np.allclose(np.cross(right, back), upper), act


def _at(seat: Seat, act: Prick) -> Array:
    flat = word_way(act.side) * act.aside.value + word_way(act.end) * act.along.value
    return flat + UP * seat.level(act.face)


def _ring(seat: Seat, act: Ring) -> None:
    start = word_way(act.start)
    if act.run is not None and act.over is not None and act.start_over is not None:
        begun = start * act.run.value + word_way(act.start_over) * act.over.value
        seat.far[act.marks[0]] = begun
        start = unit(begun)
    # Compasses set to a chord turn by 2 asin(c / 2R).
    turn = 2.0 * math.degrees(math.asin(min(1.0, act.chord.value / (2.0 * act.radius.value)))) * act.stride
    # One who looks at a face looks against its outward normal; clockwise is left-handed about that.
    about = seat.outward(act.face)
    for k, mark in enumerate(act.marks):
        way = spun(start, about, -turn * k if act.way == "clockwise" else turn * k)
        seat.points[mark] = way * act.radius.value + UP * seat.level(act.face)


# --- sticks marked -------------------------------------------------------------------------------


def mark_stick(sticks: dict[str, Stick], card: SetUp) -> None:
    """Draws and measures on sticks as a card says, in its order."""
    for do in card.does:
        if isinstance(do, DrawLine):
            for mark in do.marks:
                stick = sticks[mark.on]
                if do.over == "floor":
                    stick.lines["floor-side line"] = vec(1, 0, 0)
                    continue
                stick.lines["outer line"], stick.lines["inner line"] = vec(1, 0, 0), vec(-1, 0, 0)
                stick.over = do.over
        elif isinstance(do, NameFaces):
            for mark in do.marks:
                _name_faces(sticks[mark.on], do)
        elif isinstance(do, Round) and any(mark.kind is Kind.FLOOR_LINE for mark in do.marks):
            for mark in do.marks:
                stick = sticks[mark.on]
                foot = stick.shape[-1][1]
                way = stick.turned(do.line, arc_deg(do.mm.value, foot), do.way)
                stick.lines["outer line of the floor"], stick.lines["inner line of the floor"] = way, -way
        elif isinstance(do, Along):
            for mark in do.marks:
                sticks[mark.on].ends[f"{mark}"] = _hooked(sticks[mark.on], do)
        elif isinstance(do, Round):
            for mark in do.marks:
                stick = sticks[mark.on]
                z = stick.ends[f"{mark}"]
                way = stick.turned(do.line, arc_deg(do.mm.value, stick.half(z)), do.way)
                stick.points[mark] = stick.surface(z, way)
        elif isinstance(do, Across):
            for mark in do.marks:
                stick = sticks[mark.on]
                z = stick.ends[f"{mark}"]
                face = face_of(stick, do.face)
                aside = square_to(face, stick.lines[do.toward]) if do.toward else vec(0, 0, 0)
                stick.points[mark] = vec(0, 0, z) + face * stick.half(z) + aside * do.mm.value


def face_of(stick: Stick, name: str) -> Array:
    if name in stick.lines:
        return stick.lines[name]
    for a, v in stick.lines.items():
        for b, w in stick.lines.items():
            if name == f"face between {a.removesuffix(' face')} and {b.removesuffix(' face')}":
                return unit(v + w)
    raise NotTold(name)


def _name_faces(stick: Stick, do: NameFaces) -> None:
    """Looking at the tenon's end one looks along +z: clockwise is right-handed about it."""
    for k, name in enumerate(do.faces):
        stick.lines[name] = spun(vec(1, 0, 0), UP, 90.0 * k)


def _hooked(stick: Stick, do: Along) -> float:
    """A length along the stick's middle from the end a rule is hooked on."""
    if do.end != stick.first:
        raise NotTold(do, stick.first)
    if do.line != "leg" and do.line not in stick.lines:
        face_of(stick, do.line)
    return stick.ends.get("hook", 0.0) + do.mm.value


def slots(sticks: dict[str, Stick], card: SetUp) -> Iterator[tuple[Mark, Array]]:
    """The lines of wedge slots over tenons' ends, as directions square to the leg."""
    for do in card.does:
        if isinstance(do, OnEnd):
            stick = sticks[do.mark.on]
            line = do.line.removeprefix("middle of the ")
            yield do.mark, stick.turned(line, arc_deg(do.mm.value, stick.half(0.0)), do.way)


# --- tools ---------------------------------------------------------------------------------------


def off_square(scale: Scale, shown: float) -> float:
    return (shown - scale.at_square) * (1.0 if scale.counts == "up" else -1.0)


def set_to(card: SetUp, tool: Tool) -> float:
    """How far a tool stands off square as it is set, degrees: from its own scale or its jig."""
    assert card.setting is not None
    shown = card.setting.value
    if isinstance(tool, Ramp):
        return _ramp(tool, shown)
    if isinstance(tool, GuideBlock):
        return 90.0 - shown
    return off_square(tool.scale, shown)


def _ramp(tool: Ramp, spacer: float) -> float:
    """The ramp's slope over a spacer, by the triangle each way of measuring makes."""
    b = tool.base
    if tool.spacer == "plumb_ramp":
        return math.degrees(math.asin(spacer / b))
    if tool.spacer == "bar":
        return 2.0 * math.degrees(math.atan2(spacer / 2.0, b))
    return math.degrees(math.atan2(spacer, b))


def tool_of(shop: Shop, card: SetUp) -> Tool:
    for tool in shop.tools:
        if tool.kind == card.way and tool.name == card.tool:
            return tool
    raise NotTold(card.tool)


# --- holes ---------------------------------------------------------------------------------------


def bore_seat(seat: Seat, card: SetUp, shop: Shop) -> Iterator[Hole]:
    """Every hole of a card, each mark in its turn."""
    (lay,) = card.lays
    off = set_to(card, tool_of(shop, card))
    off += sum(w.angle.value for w in card.wedges if w.under == "work")
    for mark in lay.at:
        if mark not in seat.points:
            raise NotTold(mark)
        at = seat.points[mark]
        if isinstance(lay, OnTilt):
            up = -seat.outward(lay.down)
            out = _spindle(up, _seat_way(seat, mark, lay.uphill), off)
        else:
            assert isinstance(lay, ByHand)
            up = seat.outward(lay.up)
            out = _held(up, _seat_way(seat, mark, lay.leans), off, card)
        yield Hole(mark, at, out, *_bit(card))


def _seat_way(seat: Seat, mark: Mark, way: Toward | None) -> Array | None:
    """A direction along the face by the sightline's arrow drawn through the mark."""
    if way is None:
        return None
    line = Mark(Kind.SIGHTLINE, mark.on, mark.which)
    if line not in seat.arrows:
        raise NotTold(line)
    return seat.arrows[line] * {"arrow": 1.0, "tail": -1.0}[way.by]


def _spindle(up: Array, uphill: Array | None, tilt: float) -> Array:
    """The plumb spindle in the part's frame: the surface tilted by rotation about its level line."""
    if uphill is None:
        assert abs(tilt) < 1e-9
        return up
    # The part lies level, its uphill side to the shop's x; then the table lifts that side.
    level = laid((up, uphill), (UP, vec(1, 0, 0)))
    lifted = level.from_rotvec([0.0, -math.radians(tilt), 0.0]) * level
    made: Array = lifted.inv().apply(UP)
    return made


def _held(up: Array, leans: Array | None, off: float, card: SetUp) -> Array:
    """A drill held over a level face, leaning by what the gauge shows; a wedge under a guide adds to it
    where its thick end lies on the side leaned away from."""
    if leans is None:
        assert abs(off) < 1e-9
        return up
    lay = card.lays[0]
    assert isinstance(lay, ByHand) and lay.leans is not None
    for wedge in card.wedges:
        away = {"arrow": "tail", "tail": "arrow"}[lay.leans.by]
        off += wedge.angle.value * (1.0 if wedge.under == "guide" and wedge.thick.by == away else -1.0)
    return up * math.cos(math.radians(off)) + leans * math.sin(math.radians(off))


def _bit(card: SetUp) -> tuple[float, float | None]:
    from splay.work.does import Bit
    from splay.work.joinery import Recessed

    for do in card.does:
        if isinstance(do, Recessed):
            return do.pilot.value, do.deep.value + do.on.value
        if isinstance(do, Bit):
            return do.diameter.value, None if do.deep is None else do.deep.value
    return 0.0, None


def bore_stick(sticks: dict[str, Stick], card: SetUp, shop: Shop) -> Iterator[Hole]:
    """Every hole of a card into sticks, each by its own mark."""
    (lay,) = card.lays
    tool = tool_of(shop, card)
    for mark in lay.at:
        stick = sticks[mark.on]
        if mark not in stick.points:
            raise NotTold(mark)
        at = stick.points[mark]
        if isinstance(lay, OnTilt):
            off = set_to(card, tool) + sum(w.angle.value for w in card.wedges if w.under == "cradle")
            out = _in_vee(stick, at, lay.uphill, off)
        else:
            assert isinstance(lay, ByHand)
            out = _beside(stick, at, lay.leans, set_to(card, tool))
        yield Hole(mark, at, out, *_bit(card))


def _end(stick: Stick, way: Toward) -> float:
    """+1 towards the last end, -1 towards the first."""
    if way.by != "end" or way.name not in (stick.first, stick.last, "first end", "second end"):
        raise NotTold(way, stick.first, stick.last)
    return -1.0 if way.name in (stick.first, "first end") else 1.0


def _in_vee(stick: Stick, at: Array, uphill: Toward | None, tilt: float) -> Array:
    """The stick's middle along the fall, its mark straight up over it."""
    over = square_to(UP, vec(at[0], at[1], 0))
    if uphill is None:
        assert abs(tilt) < 1e-9
        return over
    return _spindle(over, UP * _end(stick, uphill), tilt)


def _beside(stick: Stick, at: Array, leans: Toward | None, off: float) -> Array:
    """A gauge along the surface at the mark, in the plane of the mark and the stick's middle."""
    radial = square_to(UP, vec(at[0], at[1], 0))
    beside = np.cross(UP, radial)
    # The line in which that plane meets the surface there, and square to it in the plane.
    along = unit(np.cross(beside, stick.normal(at)))
    if along[2] < 0:
        along = -along
    out = unit(np.cross(along, beside))
    if float(out @ radial) < 0:
        out = -out
    if leans is None:
        assert abs(off) < 1e-6, off
        return out
    lean = along * _end(stick, leans)
    return out * math.cos(math.radians(off)) + lean * math.sin(math.radians(off))


def bore_board(boards: dict[str, Board], card: SetUp, shop: Shop) -> Iterator[Hole]:
    """Holes into the sides of square stock, each marked along it from an end and from one of its edges."""
    (lay,) = card.lays
    assert isinstance(lay, ByHand)
    for do in card.does:
        if isinstance(do, Along):
            for mark in do.marks:
                board = boards[mark.on]
                end = board.ends[do.end]
                board.points[mark] = end * (board.half - do.mm.value) + board.sides[do.line]
        elif isinstance(do, FromEdge):
            for mark in do.marks:
                board = boards[mark.on]
                side, edge = board.sides[do.side], board.sides[do.edge]
                if not np.allclose(board.points[mark] @ side, 1.0):
                    raise NotTold(do)
                width, thick = board.size
                out = width / 2 if abs(float(side @ vec(0, 1, 0))) > 0.5 else thick / 2
                deep = thick / 2 if abs(float(edge @ vec(0, 0, 1))) > 0.5 else width / 2
                along = board.points[mark] - side
                board.points[mark] = along + side * out + edge * (deep - do.mm.value)
    for mark in lay.at:
        board = boards[mark.on]
        if mark not in board.points:
            raise NotTold(mark)
        at = board.points[mark]
        up = next(
            side for side in board.sides.values()
            if np.isclose(float(at @ side), board.size[0] / 2) and abs(float(side @ vec(0, 1, 0))) > 0.5
        )  # fmt: skip
        way = board.sides[lay.leans.name] if lay.leans is not None else None
        off = set_to(card, tool_of(shop, card))
        off += sum(w.angle.value for w in card.wedges if w.under == "guide")
        out = up if way is None else up * math.cos(math.radians(off)) + way * math.sin(math.radians(off))
        yield Hole(mark, at, out, *_bit(card))


# --- saws ----------------------------------------------------------------------------------------


def saw(card: SetUp, shop: Shop, boards: dict[str, Board]) -> Iterator[Cut]:
    """Every end a card saws: the blade's plane carried back into each part."""
    tool = tool_of(shop, card)
    swing, tilt = 0.0, 0.0
    for dial in card.dials:
        if dial.name.endswith((", blade", ", table")):
            tilt = off_square(tool.tilt, dial.reading.value)
        else:
            swing = off_square(tool.scale, dial.reading.value)
    for lay in card.lays:
        assert isinstance(lay, OnSaw)
        for key in lay.parts:
            board = boards[key]
            fence = board.sides[lay.fence]
            beyond = board.ends[lay.end]
            # The end beyond the blade lies to the right, the fence behind; up is then what is left.
            held = laid((beyond, fence), (vec(1, 0, 0), vec(0, 1, 0)))
            if lay.up:
                assert float(held.apply(board.sides[lay.up]) @ UP) > 0.9, lay
            for wedge in card.wedges:
                if wedge.fence_longer is not lay.fence_longer:
                    continue
                # A wedge at the fence turns the work about the upright: its thick end stands off it.
                here = {"end beyond the blade": -1.0, "end away from the blade": 1.0}[wedge.thick.name]
                held = held.from_rotvec([0, 0, math.radians(wedge.angle.value * here)]) * held
            yield Cut(key, lay.end, held.inv().apply(_blade(lay, swing, tilt)))


def _blade(lay: OnSaw, swing: float, tilt: float) -> Array:
    """The blade's plane, its normal to the right, from standing square: swung, then leaned."""
    if lay.fence_longer is None:
        assert abs(swing) < 1e-6
    if lay.up_longer is None:
        assert abs(tilt) < 1e-6
    # The fence side left longer: the blade runs away from the fence towards the maker's left.
    turn = -swing if lay.fence_longer else swing
    normal = spun(vec(1, 0, 0), UP, turn)
    along = np.cross(UP, normal)
    # The upper side left longer: the blade leans over to the right as it rises.
    return spun(normal, along, tilt if lay.up_longer else -tilt)


def knife(card: SetUp, boards: dict[str, Board]) -> Iterator[Cut]:
    """Two knifed lines, one on a face and one on an edge, fix the plane sawn to."""
    for lay in card.lays:
        assert isinstance(lay, OnLines)
        for key in lay.parts:
            board = boards[key]
            face, edge, out = board.sides[lay.face], board.sides[lay.edge], board.ends[lay.end]
            across = _line(out, edge, lay.on_face.value, board.sides.get(lay.longer_edge))
            down = _line(out, face, lay.on_edge.value, board.sides.get(lay.longer_face))
            normal = unit(np.cross(across, down))
            yield Cut(key, lay.end, normal if float(normal @ out) > 0 else -normal)


def _line(out: Array, side: Array, off: float, longer: Array | None) -> Array:
    """A line square across to `side`, or turned so that the stick runs on longer towards one end of it."""
    if longer is None:
        return side
    return longer + out * math.tan(math.radians(off))


def long_points(card: SetUp) -> tuple[LongPoint, ...]:
    return tuple(do for do in card.does if isinstance(do, LongPoint))


def pins(card: SetUp) -> tuple[Turned, ...]:
    return tuple(do for do in card.does if isinstance(do, Turned))


def two_ways(card: SetUp) -> tuple[TwoWay, ...]:
    return tuple(do for do in card.does if isinstance(do, TwoWay))


def on_pin(seat: Seat, card: SetUp, hole: Hole) -> Array:
    """Where the pin in the tilted table holds the seat: a point of its lower face."""
    (lay,) = card.lays
    assert isinstance(lay, OnTilt) and lay.uphill is not None
    (turned,) = [one for one in pins(card) if one.pin]
    assert turned.pin is not None
    up = -seat.outward(lay.down)
    uphill = _seat_way(seat, hole.mark, lay.uphill)
    assert uphill is not None
    # The lowered bit meets the table where its line leaves the lower face.
    low = seat.level(lay.down)
    met = hole.at + hole.out * ((low - hole.at[2]) / hole.out[2])
    right = np.cross(uphill, up)
    return met - uphill * turned.pin.downhill.value + right * turned.pin.right.value


def two_tilts(seat: Seat, card: SetUp, number: int) -> Array:
    """The way out of a hole bored on a table that tilts two ways, one tilt carried by the other."""
    (lay,) = card.lays
    assert isinstance(lay, OnTilt)
    (two,) = two_ways(card)
    side, end = next((a, b) for n, a, b in two.legs if n == number)
    up = -seat.outward(lay.down)
    a, b = word_way(side), word_way(end)
    # Lying level with `side` to the shop's x; the tilt next to the seat lifts `side`, then the one below
    # that carries it lifts `end`.
    level = laid((up, a), (UP, vec(1, 0, 0)))
    y = math.copysign(1.0, level.apply(b)[1])
    upper = level.from_rotvec([0.0, -math.radians(two.first.value), 0.0])
    lower = level.from_rotvec([y * math.radians(two.second.value), 0.0, 0.0])
    made: Array = (lower * upper * level).inv().apply(UP)
    return made


# --- shaping -------------------------------------------------------------------------------------


def bevels(card: SetUp, boards: dict[str, Board]) -> Iterator[tuple[str, str, Array]]:
    """Every edge a card bevels: the normal of the new edge, out of the stick."""
    for lay in card.lays:
        assert isinstance(lay, OnSide)
        for key in lay.parts:
            edge, wide = boards[key].sides[lay.edge], boards[key].sides[lay.down]
            # The face on the table is left the wider: the new edge leans back from it as it rises.
            off = math.radians(lay.angle.value)
            yield key, lay.edge, edge * math.cos(off) - wide * math.sin(off)


def notch(do: Notch, board: Board) -> list[tuple[Array, float]]:
    """A lap's planes, normals out of the wood taken away: both cheeks, and its bottom."""
    width = board.size[0]
    edge = board.sides[do.edge]
    end, face = board.ends[do.end], board.sides[do.face]
    t = math.radians(do.turn.value)
    # On `face` both cheeks lie nearer to `end`: they run with it as they come up to that face.
    cheek = end * math.cos(t) - face * math.sin(t)
    half = do.wide.value / 2 * math.cos(t)
    return [(cheek, half), (-cheek, half), (-edge, do.deep.value - width / 2)]


def end_lines(sticks: dict[str, Stick], card: SetUp) -> Iterator[tuple[Mark, Array]]:
    """Lines over the ends of sticks: by an arc from a line, or by where they cross a face's edge."""
    yield from slots(sticks, card)
    for do in card.does:
        if isinstance(do, OverEnd):
            stick = sticks[do.mark.on]
            half = stick.shape[2][1] if len(stick.shape) > 2 else stick.half(0.0)
            yield do.mark, unit(stick.lines[do.face] * half + stick.lines[do.toward] * do.mm.value)
