"""Set-up cards for cutting the feet of legs set into the seat: on a saw, or scribed on the floor."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from splay.parts import LegPart
from splay.parts.sides import down, foot_sides, line_name, long_flats
from splay.piece import Leg, Piece
from splay.quantity import Figure, Quantity, Show
from splay.setups.card import SetUp, Turn
from splay.setups.groups import Group, foot_groups, turn
from splay.setups.saws import SAWS, Saw, set_saw
from splay.setups.scenes import LegOnSaw, Scribed, arc_of
from splay.shop import Handsaw, Shop
from splay.stance.lines import floor_line, lines_apart, named_faces, outer_is_long
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.taper import foot_taper, thickest
from splay.stance.vectors import Vec
from splay.work.does import Do, LongPoint, Plain, SawToLine
from splay.work.doing import steps
from splay.work.lays import Lay, OnFloor, OnSaw
from splay.work.lying import which_way
from splay.work.marks import Kind, Mark, leg_key
from splay.work.meet import SawSides, longer, on_saw
from splay.work.phrases import listed
from splay.work.proofs import proof_id

_ROLLS = (
    "Round stock rolls under a blade: hold it in a V for its whole length, hands 150 mm from the blade, "
    "let it stop; follow the saw's own manual."
)
_SAW = "Hold the work to the fence, hands 150 mm from the blade, let it stop; follow the saw's own manual."
_HAND = "Hold the piece so that it cannot rock; start on the far edge, fingers behind the saw."
LEAST_SAW_MM = 1.0
"""Less than this is rubbed away, not sawn (common practice, no source)."""
FOOT, TENON_END = "foot", "tenon end"
EVEN_MM = 0.05


def foot_cards(
    piece: Piece,
    stance: Stance,
    parts: tuple[LegPart, ...],
    shop: Shop,
    show: Show,
) -> tuple[SetUp, ...]:
    """Every card for cutting this piece's feet, from the stance as it is now known."""
    cuts = {leg.number: plane_cut(piece, leg, stance) for leg in stance.legs}
    by_number = {part.number: part for part in parts}
    keys: dict[int, tuple[float, ...]] = {
        number: (
            round(mitre, 6),
            round(tilt, 6),
            round(by_number[number].finished.quantity.value, 4),
        )
        for number, (mitre, tilt) in cuts.items()
    }
    made: list[SetUp] = []
    for group in foot_groups(stance, keys):
        part, cut = by_number[group.first.number], cuts[group.first.number]
        told = _told(piece, stance, group, part, show)
        for tool in shop.owned():
            if isinstance(tool, SAWS):
                made.append(_sawn(piece, group, part, cut, told, tool, show))
            elif isinstance(tool, Handsaw):
                made.append(_scribe(piece, stance, group, part, parts, tool, show))
    return tuple(made)


def plane_cut(piece: Piece, leg: LegStance, stance: Stance) -> tuple[float, float]:
    """The foot's cut as swing and tilt, degrees, each 0 or more.

    A round leg is laid with the outer line of the floor at the fence: one plain cut at the lean. One
    with flats lies on a face: both come from how the floor's plane leans along its faces.
    """
    shape = support_of(piece, leg).leg
    if shape.section == "round":
        return leg.standing.resultant, 0.0
    return flat_cut(shape, leg, down(stance.floor), leg.d)


def flat_cut(shape: Leg, leg: LegStance, normal: Vec, out: Vec) -> tuple[float, float]:
    """Swing and tilt for an end of a leg with flats; `normal` is the cut's, `out` the leg's way there."""
    (_, face), _, (_, side), _ = _faces(shape, leg)
    swing = math.atan(abs(longer(normal, out, side)))
    rise = longer(normal, out, face)
    return math.degrees(swing), math.degrees(math.atan(abs(rise) * math.cos(swing)))


def flat_sides(shape: Leg, leg: LegStance, normal: Vec, out: Vec, up_longer: bool) -> SawSides:
    """How a leg with flats lies on a saw for that end."""
    up_a, up_b, edge_a, edge_b = _faces(shape, leg)
    return on_saw(normal, out, (up_a, up_b), (edge_a, edge_b), up_longer)


def _faces(shape: Leg, leg: LegStance) -> tuple[tuple[str, Vec], ...]:
    """Two opposite faces that lie on the saw, then the two at the fence.

    Facing its sightline the leg lies on a hand's side, so that its lean is the swing.
    """
    named = named_faces(shape, leg)
    return named if named[0][0] == "FRONT face" else (*named[2:], *named[:2])


def saw_lay(piece: Piece, stance: Stance, leg: LegStance, up_longer: bool, show: Show) -> OnSaw:
    """How one leg lies on a saw for the cut of its foot."""
    shape, floor = support_of(piece, leg).leg, stance.floor
    named, key = f"leg {leg.number}", (leg_key(leg.number),)
    packing = packed(shape, leg, show)
    if shape.section == "round":
        if floor_line(leg, floor) is None:
            return OnSaw(key, named, FOOT, "", line_name(leg, floor, True), None, None, packing)
        fence = line_name(leg, floor, outer_is_long(leg, floor))
        return OnSaw(key, named, FOOT, "", fence, True, None, packing)
    sides = flat_sides(shape, leg, down(floor), leg.d, up_longer)
    return OnSaw(key, named, FOOT, sides.up, sides.fence, sides.fence_longer, sides.up_longer, packing)


def packed(shape: Leg, leg: LegStance, show: Show) -> tuple[tuple[str, Quantity], ...]:
    """What holds a tapered leg's middle along the fence: its thickest place touches, the ends are packed.

    At each end so much as its half thickness is less than the thickest; none for an even leg.
    """
    ends = (("place where it meets the seat", shape.at_top), ("finished foot", shape.at_foot))
    thick = thickest(shape)
    packs = ((name, show.length((thick - size) / 2.0)) for name, size in ends if thick - size > EVEN_MM)
    return tuple(packs)


def together(legs: Iterable[LegStance], lay_of: Callable[[LegStance, bool], OnSaw]) -> tuple[OnSaw, ...]:
    """Legs that lie alike share one lay; those for which the saw is swung to the other side come last.

    `lay_of` lays one leg with the saw tilted so that its upper side comes out longer, or shorter: the
    first is laid with its longer side at the fence, and the tilt that asks for stays for all.
    """
    many = tuple(legs)
    up_longer = lay_of(many[0], True).fence_longer is not False
    found: dict[tuple[object, ...], list[OnSaw]] = {}
    for leg in many:
        lay = lay_of(leg, up_longer)
        found.setdefault((lay.up, lay.fence, lay.fence_longer, lay.up_longer), []).append(lay)
    made = []
    for mates in found.values():
        keys = tuple(key for lay in mates for key in lay.parts)
        made.append(replace(mates[0], parts=keys, named=listed(lay.named for lay in mates)))
    return tuple(sorted(made, key=lambda lay: lay.fence_longer is False))


def _angle(group: Group, show: Show, key: str) -> Figure:
    lean = group.first.standing
    return show.figure(
        f"{key}.lean",
        "Lean to the floor",
        lean.resultant,
        "tan² ρ′ = tan² splay′ + tan² rake′",
        show.input("splay′", "off plumb, from the front", abs(lean.splay), "deg"),
        show.input("rake′", "off plumb, from the side", abs(lean.rake), "deg"),
        unit="deg",
        note="the foot is cut to the floor, not to the seat",
    )


@dataclass(frozen=True)
class _Told:
    """What is said alike at every saw: how the legs lie, where they are cut, by which marks."""

    lays: tuple[OnSaw, ...]
    front: str
    does: tuple[Do, ...]
    turns: tuple[Turn, ...]
    uses: tuple[Mark, ...]


def _told(piece: Piece, stance: Stance, group: Group, part: LegPart, show: Show) -> _Told:
    lays = together(group.legs, lambda leg, up: saw_lay(piece, stance, leg, up, show))
    return _Told(
        lays,
        _opposite(piece, stance, group.first, lays[0].fence),
        _points(piece, stance, group, part, show),
        tuple(turn(leg.number, leg.standing, show) for leg in group.legs),
        tuple(mark for leg in group.legs for mark in foot_marks(piece, stance, leg)),
    )


def _opposite(piece: Piece, stance: Stance, leg: LegStance, fence: str) -> str:
    """What lies towards the maker when that line or face of the leg lies at the fence."""
    shape, floor = support_of(piece, leg).leg, stance.floor
    if shape.section == "round":
        return line_name(leg, floor, fence != line_name(leg, floor, True))
    (up_a, _), (up_b, _), (edge_a, _), (edge_b, _) = _faces(shape, leg)
    return {up_a: up_b, up_b: up_a, edge_a: edge_b, edge_b: edge_a}[fence]


def _sawn(
    piece: Piece,
    group: Group,
    part: LegPart,
    cut: tuple[float, float],
    told: _Told,
    tool: Saw,
    show: Show,
) -> SetUp:
    work = f"foot.{group.first.id}"
    key = f"{work}.{tool.id}"
    shape = support_of(piece, group.first).leg
    lays = told.lays
    stock = (part.stock.quantity.value, part.stock.quantity.value)
    met = set_saw(tool, cut[0], cut[1], lays, stock, show, key)
    main = met.swing
    leans = "table" if tool.kind == "band_saw" else "blade"
    other_dial = next((d for d in met.dials if d is not main), None)
    fence = lays[0].fence
    return SetUp(
        work=work,
        by=tool.id,
        station="legs",
        operation="foot_cut",
        way=tool.kind,
        tool=tool.name,
        legs=group.numbers,
        title=f"Cut the foot of {group.named()}",
        angle=_angle(group, show, key),
        dials=met.dials,
        setting=met.setting,
        setting_name=met.name,
        which_way=which_way(lays),
        steps=steps(told.does),
        turns=told.turns,
        jig=met.jig,
        in_reach=not met.note,
        reach_note=met.note,
        wedges=met.wedges,
        scene=LegOnSaw(
            main.off_square,
            arc_of(main),
            f"fence: {fence}",
            told.front,
            f"leg {group.first.number}",
            tilt=f"{leans} leans {other_dial.reading.text}" if other_dial else "",
        ),
        proofs=tuple(proof_id("foot", id) for id in group.ids),
        checks=(part.high_low, part.foot_long),
        cautions=(_ROLLS if shape.section == "round" else _SAW,),
        lays=lays,
        does=told.does,
        uses=told.uses,
    )


def foot_marks(piece: Piece, stance: Stance, leg: LegStance) -> tuple[Mark, ...]:
    """What a foot's cut on a saw leans on."""
    key = leg_key(leg.number)
    if support_of(piece, leg).leg.section != "round":
        return (Mark(Kind.FACES, key), Mark(Kind.TENON, key))
    line = Kind.FLOOR_LINE if lines_apart(leg, stance.floor) else Kind.OUTER_LINE
    return (Mark(line, key), Mark(Kind.TENON, key))


def long_point(piece: Piece, stance: Stance, leg: LegStance, part: LegPart, show: Show) -> LongPoint:
    """Where the foot's cut goes through its longest and its shortest side, from the tenon's end.

    Measured along the leg's middle. A leg without a tenon is hooked at its upper end.
    """
    finished, cut = part.finished.quantity.value, part.cut
    long, short = show.length(finished + cut.below), show.length(finished - cut.above)
    shape = support_of(piece, leg).leg
    end = TENON_END if leg.bore.tenon else "upper end"
    far, near = foot_sides(piece, leg, stance.floor)
    if far and shape.section == "octagon":
        n = down(stance.floor)
        long, short = (
            show.length(finished + _reach(shape, leg, stance, longer(n, leg.d, way)))
            for _, way in long_flats(shape, leg, stance.floor)
        )
    return LongPoint(end, far, long, near, short)


def _points(piece: Piece, stance: Stance, group: Group, part: LegPart, show: Show) -> tuple[Do, ...]:
    """The same for a group of legs: mirrored ones have corners of other names, so each is named."""
    found: dict[LongPoint, list[LegStance]] = {}
    for leg in group.legs:
        found.setdefault(long_point(piece, stance, leg, part, show), []).append(leg)
    if len(found) == 1:
        return tuple(found)
    return tuple(
        replace(point, parts=tuple(leg_key(leg.number) for leg in legs), named=_named(legs))
        for point, legs in found.items()
    )


def _longer(piece: Piece, stance: Stance, group: Group) -> SawToLine:
    """Along which side each leg of a group stays longer."""
    found: dict[str, list[LegStance]] = {}
    for leg in group.legs:
        found.setdefault(foot_sides(piece, leg, stance.floor)[0], []).append(leg)
    return SawToLine(
        tuple(
            (_named(legs), tuple(leg_key(leg.number) for leg in legs), side) for side, legs in found.items()
        )
    )


def _named(legs: list[LegStance]) -> str:
    return listed(f"leg {leg.number}" for leg in legs)


def sides_halved(point: LongPoint, part: LegPart) -> float:
    """What a leg reads along its long and its short side, halved, mm; its middle where it is cut square.

    A tapered foot's sides do not lie alike about its middle.
    """
    if not point.line:
        return part.finished.quantity.value
    return (point.mm.value + point.short.value) / 2.0


def _reach(shape: Leg, leg: LegStance, stance: Stance, lean: float) -> float:
    """How far past the axis, along it, the floor cuts the middle of a flat; its half width shrinks by k."""
    half, k = shape.at_foot / 2.0, foot_taper(shape, leg.exposed)
    return half * lean / (1.0 + k * lean)


def _scribe(
    piece: Piece,
    stance: Stance,
    group: Group,
    part: LegPart,
    parts: tuple[LegPart, ...],
    tool: Handsaw,
    show: Show,
) -> SetUp:
    work = f"foot.{group.first.id}"
    key = f"{work}.{tool.id}"
    tallest = max(parts, key=lambda p: p.block.quantity.value).block
    shims = tuple(
        (one.number, show.length(tallest.quantity.value - one.block.quantity.value))
        for one in parts
        if tallest.quantity.value - one.block.quantity.value > EVEN_MM
    )
    lay: Lay = OnFloor(group.numbers, tallest.quantity, shims)
    plumb = group.first.standing.bearing is None
    does: list[Do] = [
        Plain("The leg stands plumb: the line runs square round it.")
        if plumb
        else _longer(piece, stance, group)
    ]
    if tallest.quantity.value < LEAST_SAW_MM:
        does = [Plain("There is too little to saw: rub the feet on abrasive laid on a flat.")]
    jig: tuple[Figure, ...] = (tallest,)
    own = tallest.quantity.value - part.block.quantity.value
    if own > EVEN_MM:
        jig = (
            tallest,
            show.figure(
                f"{key}.shim",
                f"Shim under {group.named()}",
                own,
                "B − b",
                show.input("B", "scribing block", tallest.quantity.value),
                show.input("b", "this leg's own", part.block.quantity.value),
                note="these feet come to the floor sooner: shim them while you scribe",
            ),
        )
    outer = group.first.standing.bearing is not None
    long = outer and outer_is_long(group.first, stance.floor)
    right, left = ("outer side", "inner side") if long else ("inner side", "outer side")
    return SetUp(
        work=work,
        by=tool.id,
        station="legs",
        operation="foot_cut",
        way=tool.kind,
        tool=tool.name,
        legs=group.numbers,
        title=f"Scribe and saw the foot of {group.named()}",
        angle=_angle(group, show, key),
        dials=(),
        setting=tallest.quantity,
        setting_name=tallest.label,
        which_way=which_way((lay,)),
        steps=steps(does),
        turns=tuple(turn(leg.number, leg.standing, show) for leg in group.legs),
        jig=jig,
        in_reach=True,
        reach_note="",
        scene=Scribed(
            group.first.standing.resultant,
            right if outer else "",
            left if outer else "",
            tallest.quantity.text,
        ),
        proofs=tuple(proof_id("foot", id) for id in group.ids),
        checks=(part.high_low, part.foot_long),
        cautions=(_HAND,),
        lays=(lay,),
        does=tuple(does),
        uses=tuple(Mark(Kind.NUMBER, leg_key(number)) for number in group.numbers),
    )
