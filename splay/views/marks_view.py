"""The marks to write on the work itself, drawn as they should look."""

from __future__ import annotations

import math

from splay.parts import LegPart
from splay.parts.member import MemberEnd, MemberPart
from splay.piece import Leg, Piece, Stretcher
from splay.stance.member_flats import named_member_faces
from splay.stance.members import MemberStance
from splay.stance.staked import Stance, support_of
from splay.stance.taper import size_at
from splay.views.shapes import Shape, View, area, ellipse, line, text

_MOST_TICKS = 4


def marks_views(
    piece: Piece,
    stance: Stance,
    legs: tuple[LegPart, ...],
    members: tuple[MemberPart, ...],
    runs: tuple[MemberStance, ...],
) -> tuple[View, ...]:
    """One drawing a leg that takes stretchers, one a stretcher; lying down, the piece's top at the left."""
    made = []
    for leg, part in zip(stance.legs, legs, strict=True):
        ends = [(m, e) for m in members for e in m.ends if e.leg == leg.number]
        if ends:
            made.append(_leg(support_of(piece, leg).leg, part, leg.exposed, ends))
    for member, run in zip(members, runs, strict=True):
        chosen = piece.members[member.number - 1]
        assert isinstance(chosen, Stretcher)
        into = [(m, e) for m in members for e in m.ends if e.member == member.number]
        made.append(_member(chosen, member, into, _seen(chosen, run, into)))
    return tuple(made)


def _seen(chosen: Stretcher, run: MemberStance, into: list[tuple[MemberPart, MemberEnd]]) -> str:
    """The face of a stretcher with flats that is drawn: the one with its sockets, else the floor's; none
    where its sockets are on several."""
    if chosen.section == "round":
        return ""
    faces = {end.face for _, end in into} or {named_member_faces(run.u)[0][0]}
    return faces.pop() if len(faces) == 1 else ""


def _leg(
    shape: Leg,
    part: LegPart,
    exposed: float,
    ends: list[tuple[MemberPart, MemberEnd]],
) -> View:
    inside = part.in_top.quantity.value
    name = f"leg.{part.number}"
    r0, r1 = shape.at_top / 2, shape.at_foot / 2
    middle = size_at(shape, exposed, exposed / 2) / 2
    tall = 2.0 * max(r0, r1, middle)
    outline = (
        (0.0, -r0), (exposed / 2, -middle), (exposed, -r1),
        (exposed, r1), (exposed / 2, middle), (0.0, r0),
    )  # fmt: skip
    tenon = 0.7 * r0
    shapes: list[Shape] = [
        area("leg", ((-inside, -tenon), (0.0, -tenon), (0.0, tenon), (-inside, tenon)), name),
        area("leg", outline, name),
        line("cut", (0.0, -r0), (0.0, r0), part=name),
        *_ticks(part.number, 0.05 * exposed, r0, name),
        line("measured", (0.21 * exposed, 0.0), (0.13 * exposed, 0.0)),
        line("measured", (0.145 * exposed, 0.3 * r0), (0.13 * exposed, 0.0), (0.145 * exposed, -0.3 * r0)),
        text("label", (0.225 * exposed, 0.0), "top", anchor="start"),
    ]
    for k, (member, end) in enumerate(sorted(ends, key=lambda one: one[1].mark.quantity.value)):
        at = end.mark.quantity.value - inside
        half = size_at(shape, exposed, at) / 2
        shapes += _socket(name, k, at, half, tall, 0.7 * exposed, member, end, end.hook)
    mark = "its number" if part.number > _MOST_TICKS else _ticked(part.number)
    title = f"Leg {part.number}: {mark}, top to the left"
    box = (-inside - 0.03 * exposed, -1.6 * tall, 1.04 * exposed, 1.6 * tall)
    return View(f"marks.leg.{part.number}", title, box, tuple(shapes))


def _socket(
    name: str,
    k: int,
    at: float,
    half: float,
    tall: float,
    last: float,
    member: MemberPart,
    end: MemberEnd,
    hook: str,
) -> list[Shape]:
    """A socket's mark on a stick lying down: its middle, the arrow to its acute side, what to write.

    `k` counts the sockets along the stick; `half` is half the stick there, `tall` its whole at the
    thickest, `last` the farthest its words may begin; all mm. `hook` names the end measured from.
    """
    shapes: list[Shape] = [
        line("sightline", (at, -half * 1.25), (at, half * 1.25), part=name),
        ellipse("measured", (at, 0.0), (0.35 * half, 0.35 * half), part=name),
    ]
    if end.acute_side:
        sign = 1.0 if end.acute_side == "foot" else -1.0
        tip = at + sign * 1.5 * tall
        # Beside the middle by turns, or one socket's arrow would run through the next.
        beside = half * (0.5 if k % 2 == 0 else -0.5)
        shapes.append(line("pointer", (at + sign * 0.5 * half, beside), (tip, beside), part=name))
        for side in (1.0, -1.0):
            barb = (tip - sign * 0.22 * tall, beside + side * 0.13 * tall)
            shapes.append(line("pointer", (tip, beside), barb, part=name))
    angle = (end.found or end.read.quantity).text
    # Above and below by turns: sockets of one stick lie close together.
    row = (half + 0.5 * tall + (k // 2) * 0.5 * tall) * (1.0 if k % 2 == 0 else -1.0)
    on = f", on its {end.face}" if end.face else ""
    said = f"{angle}  {member.name}, {end.mark.quantity.text} from the {hook}{on}"
    return [*shapes, text("label", (min(at, last), row), said, name)]


def _ticked(number: int) -> str:
    return "one tick" if number == 1 else f"{('two', 'three', 'four')[number - 2]} ticks"


def _ticks(number: int, at: float, half: float, part: str) -> list[Shape]:
    """One to four strokes; from five on the figure itself."""
    if number > _MOST_TICKS:
        return [text("pointer", (at, 0.0), str(number), part)]
    gap = 0.35 * half
    return [
        line("pointer", (at + k * gap, -0.6 * half), (at + k * gap, 0.6 * half), part=part)
        for k in range(number)
    ]


def _member(
    chosen: Stretcher, member: MemberPart, into: list[tuple[MemberPart, MemberEnd]], up: str
) -> View:
    """A stretcher lying with its first end at the left; `into` are the ends that go into it, `up` the face
    of one with flats that is looked at."""
    long = member.total.quantity.value
    r, t = chosen.diameter / 2, chosen.tenon / 2
    name = f"member.{member.number}"
    first, second = (tenon.quantity.value for tenon in member.tenons)
    shapes: list[Shape] = [
        area("leg", ((0.0, -t), (first, -t), (first, t), (0.0, t)), name),
        area("leg", ((long - second, -t), (long, -t), (long, t), (long - second, t)), name),
        area("leg", ((first, -r), (long - second, -r), (long - second, r), (first, r)), name),
    ]
    if chosen.section == "octagon":
        edge = r * math.tan(math.pi / 8)
        shapes += [line("outline", (first, y), (long - second, y), part=name) for y in (-edge, edge)]
    if up:
        sockets = [end.mark.quantity.value for _, end in into]
        free = max(
            (0.3 * long, 0.7 * long), key=lambda x: min((abs(x - at) for at in sockets), default=0.0)
        )
        shapes.append(text("pointer", (free, 0.0), up, name))
    for at, sign, end, tenon in (
        (first, 1.0, member.ends[0], member.tenons[0]),
        (long - second, -1.0, member.ends[1], member.tenons[1]),
    ):
        shapes.append(line("cut", (at, -1.2 * r), (at, 1.2 * r), part=name))
        mark = str(end.leg) if end.leg else f"s{end.member}"
        inward = at + sign * max(1.4 * r, 0.05 * long)
        shapes.append(text("pointer", (inward, 0.0), mark, name))
        shapes.append(text("dimension", (at, -2.4 * r), tenon.quantity.text, name))
    start = member.ends[0]
    at_end = f"end at leg {start.leg}" if start.leg else f"end at stretcher {start.member}"
    for k, (other, end) in enumerate(sorted(into, key=lambda one: one[1].mark.quantity.value)):
        shapes += _socket(name, k, end.mark.quantity.value, r, 2.0 * r, 0.55 * long, other, end, at_end)
    if not into and not up:
        shapes.append(text("label", (long / 2, 0.0), member.name, name))
    above = 3.0 if into else 2.3
    shapes.append(text("dimension", (long / 2, above * r), member.total.quantity.text, name))
    seen = f", seen on its {up}" if up else ""
    title = (
        f"{member.name[0].upper()}{member.name[1:]}{seen}: depth rings all round, at each end where it goes"
    )
    return View(
        f"marks.member.{member.number}",
        title,
        (-0.05 * long, -3.6 * r, 1.05 * long, 3.4 * r),
        tuple(shapes),
    )
