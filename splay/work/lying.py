"""How the work lies and the tool stands, in words: the one room that says it."""

from __future__ import annotations

from collections.abc import Iterable
from functools import singledispatch

from splay.work import lays
from splay.work.lays import ByHand, OnFloor, OnLines, OnSaw, OnSide, OnTilt, Wedge
from splay.work.phrases import SHOWN_MM, cap, leaning, listed, place, toward, uphill


@singledispatch
def lay(one: lays.Lay) -> tuple[str, ...]:
    """How the work lies and the tool stands, in sentences."""
    raise NotImplementedError(type(one).__name__)


@lay.register
def _(one: OnTilt) -> tuple[str, ...]:
    if not one.down:
        first = "Round stick in a V that runs along the fall, its mark turned straight up under the bit."
        if not one.vee:
            first = (
                "Stick along the fall, wedged under one edge until its mark stands straight over its "
                "middle; the mark under the bit."
            )
        level = "It lies level: the hole runs square to the stick."
        return (first, level if one.uphill is None else uphill(one.uphill))
    first = f"{cap(one.down)} down on the table, the mark under the bit."
    if one.uphill is None:
        return (first, "The table lies level: this hole runs square to the face.")
    return (first, uphill(one.uphill))


_HOLDERS = {
    "gauge": ("Bevel gauge {on}", "its blade leans"),
    "block": ("Guide block {on}, its sloping face to the mark", "its face leans"),
    "guide": ("Drill guide clamped over the mark, its column {on}", "its column leans"),
    "digital": ("Digital angle gauge on the drill, {on}", "the drill leans"),
    "protractor": ("Protractor {on}", "its blade leans"),
}
_ON = {
    "sightline": "in line with the mark's sightline",
    "surface": "along the stick's side, through the mark and in line with the stick's middle",
    "across": "square across the edge, through the mark",
}
_ZERO = {
    "square": "Zero it with the bit standing square to {on}.",
    "flat": "Zero it lying flat on the face.",
}


@lay.register
def _(one: ByHand) -> tuple[str, ...]:
    said = [f"{cap(one.up)} up."] if one.up else []
    if one.holder == "opposite":
        said.append(
            f"Legs dry in the seat{f' and {one.dry} dry in place,' if one.dry else ''} as they will stand. "
            "Bit on the mark; sight along the drill to the mark for the same part at its other end: "
            f"{listed(place(mark) for mark in one.sight)}."
        )
        return tuple(said)
    side = "the face" if one.up else "the stick's side"
    if one.leans is None:
        return (*said, f"Square to {side}: the drill leans no way.")
    on = _ON[one.along]
    how, leans = _HOLDERS[one.holder]
    if one.zero:
        said.append(_ZERO[one.zero].format(on=side))
    said.append(f"{how.format(on=on)}; {leans}, and the bit with it, {leaning(one.leans)}.")
    if one.holder == "block":
        where = {"arrow": "on the arrow's side of the mark", "tail": "on the plain side of the mark"}.get(
            one.leans.by, f"beside the mark, {leaning(one.leans)}"
        )
        said.append(f"The block stands {where}, so that the bit lies on its slope.")
    return tuple(said)


@lay.register
def _(one: OnSaw) -> tuple[str, ...]:
    return on_saws((one,))


def _swing(one: OnSaw, first: OnSaw | None) -> str:
    """How saw and tilt stand for a lay; for a later one only what is changed from the first."""
    if first is not None and one.fence_longer is not None and one.fence_longer != first.fence_longer:
        kept = "; the tilt stays" if one.up_longer is not None else ""
        way = "longer" if one.fence_longer else "shorter"
        return f"Now swing as far to the other side, so that the fence side comes out {way}{kept}."
    said = []
    if one.fence_longer is not None:
        said.append(f"swing so that the fence side comes out {'longer' if one.fence_longer else 'shorter'}")
    if one.up_longer is not None:
        said.append(f"tilt so that the upper side comes out {'longer' if one.up_longer else 'shorter'}")
    return f"{cap(' and '.join(said))}." if said else "Square, both ways."


def on_saws(many: Iterable[OnSaw]) -> tuple[str, ...]:
    """Parts on a saw: how it stands, then how each part lies; what lies alike together."""
    some = list(many)
    settings: dict[tuple[object, ...], list[OnSaw]] = {}
    for one in some:
        settings.setdefault((one.fence_longer, one.up_longer), []).append(one)
    lines: list[str] = []
    first: OnSaw | None = None
    for mates in settings.values():
        lines.append(_swing(mates[0], first))
        first = first or mates[0]
        for one in mates:
            up = f", {one.up} up" if one.up else ", level with its middle"
            fence = f"strip along its {one.fence}" if one.strip else one.fence
            lines.append(f"{cap(one.named)}: {fence} at the fence{up}, {one.end} beyond the blade.")
    return (*lines, *_packed(some))


def _packed(some: list[OnSaw]) -> tuple[str, ...]:
    """What holds tapered parts' middles along the fence: those packed alike together, said once for all."""
    packs: dict[str, list[OnSaw]] = {}
    for one in some:
        thin = [f"{mm.text} at the {end}" for end, mm in one.thin if mm.value >= SHOWN_MM]
        if thin:
            packs.setdefault(" and ".join(thin), []).append(one)
    lines = []
    for pack, those in packs.items():
        parts = {part for one in those for part in one.parts}
        which = "each of them" if len(parts) > 1 else "it"
        if len(packs) > 1 or len(those) < len(some):
            which = listed(dict.fromkeys(one.named for one in those))
        lines.append(
            f"Pack {which} off the fence and off the table alike, {pack}: the middle runs straight."
        )
    return tuple(lines)


@lay.register
def _(one: OnLines) -> tuple[str, ...]:
    if one.grown:
        return (_grown(one),)
    knifed = []
    if one.longer_edge:
        knifed.append(f"the {one.face} at {one.on_face.text} off square, its {one.longer_edge} left longer")
    elif one.longer_face:
        knifed.append(f"the {one.face} square across")
    if one.longer_face:
        knifed.append(f"the {one.edge} at {one.on_edge.text} off square, its {one.longer_face} left longer")
    if not knifed:
        return (f"{cap(one.named)}, {one.end}: knife it square round all four sides.",)
    return (
        f"{cap(one.named)}, {one.end}: knife {', and '.join(knifed)}; join the lines on the other sides.",
    )


def _grown(one: OnLines) -> str:
    """A cut by hand on a part whose edges are the tree's own: no line is knifed on those."""
    said = f"{cap(one.named)}, {one.end}: knife "
    if one.longer_edge:
        said += (
            f"the {one.face} at {one.on_face.text} off square to the middle line, its {one.longer_edge} "
            "left longer"
        )
    elif one.longer_face:
        said += f"the {one.face} square to the middle line"
    else:
        return f"{said}both faces square to the middle line, and saw from one line to the other."
    if one.longer_face:
        said += (
            f"; saw from there to a bevel gauge at {one.on_edge.text} off square, its stock on the "
            f"{one.face} along the middle line, the {one.longer_face} left longer"
        )
    return f"{said}."


@lay.register
def _(one: OnFloor) -> tuple[str, ...]:
    said = [
        "Legs dry in the seat, the piece standing on a flat floor.",
        f"Pencil flat on a block {one.block.text} high, slid on the floor all round each foot.",
    ]
    shims = [f"{mm.text} under leg {number}" for number, mm in one.shims if mm.value >= SHOWN_MM]
    if shims:
        said.insert(1, f"First slide in {' and '.join(shims)}.")
    return tuple(said)


@lay.register
def _(one: OnSide) -> tuple[str, ...]:
    if one.planed:
        return (
            f"{cap(one.named)}, {one.edge}: plane it {one.angle.text} off square, the {one.down} left the "
            "wider." + (f" Done when it is {one.fence.text} wide there." if one.fence is not None else ""),
        )
    width = (
        f"Fence {one.fence.text} from the blade, measured along the table; the opposite edge along it."
        if one.fence is not None
        else "The opposite edge along the fence: take off no more than makes the bevel whole."
    )
    return (
        f"{cap(one.named)}, {one.edge}: {one.down} down, tilted {one.angle.text} so that the face on the "
        "table is left the wider.",
        width,
    )


@lay.register
def _(one: lays.EndUp) -> tuple[str, ...]:
    lean = f", its top leaning towards its {' and its '.join(one.leans)}," if one.leans else ""
    return (f"{cap(one.named)}: {one.end} up{lean} until the sawn end lies level; bit plumb.",)


@lay.register
def _(one: lays.EndDown) -> tuple[str, ...]:
    lean = f", leaning along it towards its {one.along}" if one.along else ""
    return (f"{cap(one.named)}: sawn {one.end} flat on the table, its {one.face} on the fence{lean}.",)


@lay.register
def _(one: lays.Upright) -> tuple[str, ...]:
    return (f"{cap(one.named)}: {one.end} up, the stick itself plumb; bit plumb over its middle.",)


@lay.register
def _(one: lays.Tapered) -> tuple[str, ...]:
    return (
        f"First the {one.first[0]} and the {one.first[1]}: stop at {one.stop.text}, thin end {one.thin}.",
        f"Then the {one.then[0]} and the {one.then[1]}, each lying on a face already tapered: stop at "
        f"{one.stop_then.text}.",
    )


@lay.register
def _(one: lays.SideTapered) -> tuple[str, ...]:
    pack = f"{one.packing.text} packed under its {one.to}" if one.packing is not None else ""
    named = f"{cap(one.named)}, {one.side}"
    if one.by == "sled":
        assert one.stop is not None
        said = [
            f"{one.on} down",
            *([pack] if pack else []),
            f"{one.against} at the stops, the {one.to}'s stop {one.stop.text} nearer the blade than the "
            "other",
        ]
        lines = [f"{named}: {', '.join(said)}."]
        if one.turn is not None:
            lines.append(f"Tilt the blade {one.turn.text}, so that the side on the sled is left the wider.")
        return tuple(lines)
    if one.by == "band_saw":
        said = [f"{one.on} up", *([pack] if pack else []), "table square; saw just outside the line"]
        return (f"{named}: {', '.join(said)}.",)
    tried = (
        "a square"
        if one.turn is None
        else f"a bevel gauge set {one.turn.text} off square, the corner sharper than square"
    )
    return (f"{named}: down to the line; tried from the {one.on} with {tried}.",)


@lay.register
def _(one: lays.IntoSide) -> tuple[str, ...]:
    if not one.toward:
        return (f"{cap(one.up)} up; the drill square to it.",)
    if one.endwise:
        return (
            f"{cap(one.up)} towards you; a bevel gauge on it, along the middle line, set to "
            f"{one.between.text} between stock and blade, the blade leaning towards the {one.toward} as it "
            "leaves the face: drill in along it.",
        )
    return (
        f"{cap(one.up)} up; a bevel gauge on it set to {one.between.text} between stock and blade, the "
        f"blade leaning towards the {one.toward} as it leaves the face: drill in along it, square across "
        "the stick.",
    )


def wedge(one: Wedge) -> str:
    """What makes up for a tool's reach."""
    if one.under == "guide":
        side = {"arrow": "the arrow's side", "tail": "the side away from the arrow"}.get(
            one.thick.by, toward(one.thick)
        )
        return (
            f"set it to its end and put a wedge of {one.angle.text} between guide and work, thick end on "
            f"{side}."
        )
    what = "the cradle" if one.under == "cradle" else "the work"
    return f"set it to its end and put a wedge of {one.angle.text} under {what}, thick end uphill."


def fence_wedges(many: tuple[Wedge, ...]) -> str:
    """Wedges at a fence, one for each way the saw is swung."""
    said = (
        f"set it to its end and put a wedge of {many[0].angle.text} between work and fence, its thick end "
        f"at the {many[0].thick.name}"
    )
    if len(many) > 1:
        said += f"; swung to the other side, its thick end at the {many[1].thick.name}"
    return f"{said}."


def which_way(many: Iterable[lays.Lay]) -> tuple[str, ...]:
    """The sentences of every lay, none twice."""
    some = list(many)
    saws = [one for one in some if isinstance(one, OnSaw)]
    return tuple(
        dict.fromkeys(
            (
                *on_saws(saws),
                *(
                    line
                    for one in some
                    if not isinstance(one, OnSaw)
                    for line in lay.registry[type(one)](one)
                ),
            )
        )
    )
