"""A leg at full size: its taper, tenon and foot, its end with eight sides, and the cards that wrap it."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts import LegPart
from splay.parts.making import eight_sides, stock_size
from splay.parts.member import MemberEnd, MemberPart
from splay.patterns.pattern import Pattern, arrow, cross_at, pattern, ring, words
from splay.piece import Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.groups import Group, foot_groups
from splay.stance.members import EndStance, MemberStance
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.taper import corners, size_at, taper_at
from splay.stance.vectors import Flat
from splay.views.shapes import Shape, ellipse, line, text
from splay.work.phrases import cap

WRAP_MM = 26.0
"""A wrapping card reaches so far above and below its socket."""
LAP_MM = 12.0
"""What of a wrapping card is glued under its other end."""
SLANTED_DEG = 3.0
"""The developed card is drawn in strips of this turn."""


def leg_patterns(piece: Piece, stance: Stance, parts: tuple[LegPart, ...], show: Show) -> Iterator[Pattern]:
    """One profile and one end for each sort of leg."""
    lengths: dict[int, tuple[float, ...]] = {
        leg.number: (
            round(leg.exposed, 2),
            round(leg.standing.resultant, 3),
            round(leg.boring.resultant, 3),
        )
        for leg in stance.legs
    }
    for group in foot_groups(stance, lengths):
        yield _profile(piece, group, parts[group.first.number - 1], show)
        yield _end(piece, group, show)


def half_at(piece: Piece, leg: LegStance, down: float) -> float:
    """Half a leg's thickness `down` from the underside, mm; past its ends its taper runs on."""
    shape = support_of(piece, leg).leg
    inside = min(max(down, 0.0), leg.exposed)
    return size_at(shape, leg.exposed, inside) / 2.0 - taper_at(shape, leg.exposed, inside) * (
        down - inside
    )


def _profile(piece: Piece, group: Group, part: LegPart, show: Show) -> Pattern:
    """In the plane it leans in, the side it leans to above; from the tenon's end at the left."""
    leg, support = group.first, support_of(piece, group.first)
    joint, shape = support.joint, support.leg
    inside, blank = part.in_top.quantity.value, part.blank.quantity.value
    finish = inside + leg.exposed
    tan = deg.tan(leg.boring.resultant) if joint.tenon == "flat" else 0.0
    slanted = shape.section == "round" or shape.facing == "sightline"
    upper, lower = (finish + part.cut.below, finish - part.cut.above) if slanted else (finish, finish)
    r0 = half_at(piece, leg, 0.0)
    knees = [shape.belly.at * leg.exposed] if shape.belly is not None else []
    middle = [(inside + q, half_at(piece, leg, q)) for q in knees]
    ends = half_at(piece, leg, upper - inside), half_at(piece, leg, lower - inside)
    tenon, tip = leg.bore.size / 2.0, leg.bore.tip / 2.0
    if not leg.bore.tenon:
        # Its own end goes into a recess, as thick as it leaves the seat.
        tenon = tip = r0
    body: list[Flat] = [(inside - r0 * tan, -r0)]
    body += [(x, -y) for x, y in middle]
    body += [(lower, -ends[1]), (upper, ends[0]), *reversed(middle), (inside + r0 * tan, r0)]
    if inside > 0.0:
        body += [(inside + tenon * tan, tenon), (0.0, tip), (0.0, -tip), (inside - tenon * tan, -tenon)]
    foot = half_at(piece, leg, blank - inside)
    named = group.named()
    shapes: list[Shape] = [
        ring("cut", body, part=f"leg.{leg.number}"),
        line("axis", (0.0, 0.0), (blank, 0.0)),
        line("hidden", (upper, ends[0]), (blank, foot), (blank, -foot), (lower, -ends[1])),
        words(
            (inside + 0.35 * leg.exposed, 0.4 * r0),
            f"{named}: the side it leans to" if slanted else f"{named}, one face",
        ),
        words(
            (inside + 0.35 * leg.exposed, -0.55 * r0),
            f"finished {part.finished.quantity.text}, blank {part.blank.quantity.text}",
        ),
    ]
    if inside > 0.0:
        shapes.append(line("tenon", (inside - r0 * tan, -r0), (inside + r0 * tan, r0)))
    told = [
        "Lay it along the stick, its middle line on the stick's: taper, tenon and foot at once.",
        "The foot is drawn as planned. Cut it after levelling: the dashed end is the blank's.",
    ]
    if not slanted:
        told.append("The foot is drawn square: this leg leans over a corner.")
    return pattern(f"leg.{leg.id}", "legs", f"{cap(named)}, along the middle", told, shapes)


def _end(piece: Piece, group: Group, show: Show) -> Pattern:
    """The end of the stock with what is gauged on it: eight sides, the tenon, the foot."""
    leg, support = group.first, support_of(piece, group.first)
    half = stock_size(support, leg) / 2.0
    gauge = eight_sides(f"leg.{leg.number}", support, leg, show)
    square = [(-half, -half), (half, -half), (half, half), (-half, half)]
    shapes: list[Shape] = [ring("outline", square), *cross_at((0.0, 0.0), half)]
    if gauge is not None:
        k = half - gauge.quantity.value
        eight = [(half, k), (k, half), (-k, half), (-half, k), (-half, -k), (-k, -half), (k, -half)]
        shapes.append(ring("cut", [*eight, (half, -k)]))
    if leg.bore.tenon > 0.0:
        if support.joint.tenon == "flat":
            a, b = leg.bore.size / 2.0, leg.bore.across / 2.0
            shapes.append(ring("tenon", [(-b, -a), (b, -a), (b, a), (-b, a)]))
        else:
            shapes.append(ellipse("tenon", (0.0, 0.0), (leg.bore.size / 2.0,) * 2))
    foot = support.leg.at_foot / 2.0
    if support.leg.section == "round":
        shapes.append(ellipse("hidden", (0.0, 0.0), (foot, foot)))
    else:
        shapes.append(ring("hidden", [(foot * i, foot * j) for i, j in corners(support.leg)]))
    if gauge is not None:
        shapes.append(words((0.0, -half - 6.0), f"gauge {gauge.quantity.text} from each edge"))
    shapes.append(words((0.0, half + 5.0), f"{group.named()}: end of the stock"))
    return pattern(
        f"end.{leg.id}",
        "legs",
        f"End of {group.named()}",
        ("Paste it on the end: stock, eight sides, tenon; the dashed line is the foot.",),
        shapes,
    )


def wrap_patterns(
    piece: Piece,
    stance: Stance,
    runs: tuple[MemberStance, ...],
    members: tuple[MemberPart, ...],
    show: Show,
) -> Iterator[Pattern]:
    """For each socket in a round leg a card that wraps the leg there."""
    legs = {leg.number: leg for leg in stance.legs}
    for run, part in zip(runs, members, strict=True):
        for end, said in zip(run.ends, part.ends, strict=True):
            leg = legs.get(end.leg)
            if leg is not None and support_of(piece, leg).leg.section == "round":
                yield _wrap(piece, leg, end, said, part, show)


def developed(radius: float, taper: float, down: float, turn: float) -> Flat:
    """Where a place on a cone lies on the flat card, mm: y up towards the leg's top, x to the right as one
    sees the card outside.

    `radius` is the cone's at the card's middle line, `taper` the radius lost per length down, `down` the
    place below that line along the axis, `turn` round it clockwise seen at the tenon's end, degrees. A cone
    lies flat as a sector: slant distances stay, an angle about the axis becomes that times k / √(1 + k²).
    """
    if abs(taper) < 1e-12:
        return (-math.radians(turn) * radius, -down)
    slope = math.sqrt(1.0 + taper * taper)
    whole = radius * slope / taper
    apex = whole - down * slope
    angle = math.radians(turn) * taper / slope
    # Not apex · cos − whole: of an almost even leg both are kilometres, and their difference is lost.
    return (-apex * math.sin(angle), -down * slope - 2.0 * apex * math.sin(angle / 2.0) ** 2)


def _wrap(
    piece: Piece, leg: LegStance, end: EndStance, said: MemberEnd, member: MemberPart, show: Show
) -> Pattern:
    down = end.mark_down
    radius = half_at(piece, leg, down)
    taper = taper_at(support_of(piece, leg).leg, leg.exposed, down)

    def put(below: float, turn: float) -> Flat:
        return developed(radius, taper, below, turn)

    turns = [-180.0 + SLANTED_DEG * k for k in range(round(360.0 / SLANTED_DEG) + 1)]
    high, low = [put(-WRAP_MM, t) for t in turns], [put(WRAP_MM, t) for t in turns]
    lap = math.degrees(LAP_MM / radius)
    tab = [put(-WRAP_MM * 0.8, 180.0 + lap), put(WRAP_MM * 0.8, 180.0 + lap)]
    at = put(0.0, end.turn)
    part = f"leg.{leg.number}"
    shapes: list[Shape] = [
        line("cut", low[-1], *reversed(low[:-1]), *high, part=part),
        line("cut", high[-1], low[-1], part=part),
        line("hidden", high[-1], tab[0], tab[1], low[-1]),
        line("sightline", put(-WRAP_MM, 0.0), put(WRAP_MM, 0.0), part=part),
        *cross_at(at, part=part),
        text("label", put(-WRAP_MM + 5.0, 12.0), "TOP", anchor="middle"),
        text("label", put(WRAP_MM - 4.0, 12.0), "outer line", anchor="middle"),
        words((at[0], at[1] + 8.0), f"{member.name}"),
    ]
    if said.acute_side:
        sign = 1.0 if said.acute_side == "foot" else -1.0
        shapes += arrow("pointer", at, put(sign * 18.0, end.turn), part=part)
    upper = said.mark.quantity.value - WRAP_MM
    way = "clockwise" if said.clockwise else "anticlockwise"
    return pattern(
        f"wrap.{leg.id}.{member.id}",
        "wraps",
        f"Card round leg {leg.number}, for {member.name}",
        (
            f"Wrap it round leg {leg.number}, words outside, TOP towards the top, its line on the leg's "
            f"outer line, its upper edge {show.length(upper).text} from the {said.hook}.",
            f"Prick the cross, the middle of the hole: {said.round_.quantity.text} round from the outer "
            f"line ({said.turn.quantity.text}), {way} looking at the {said.hook}. The arrow points to the "
            f"acute side, {said.read.quantity.text}.",
        ),
        shapes,
    )
