"""The one room where instructions become words: each fact has one phrase, none is read back."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import singledispatch

from splay.quantity import Quantity
from splay.work import does, lays
from splay.work.lays import ByHand, OnFloor, OnLines, OnSaw, OnSide, OnTilt, Toward, Wedge
from splay.work.marks import Kind, Mark

SHOWN_MM = 0.25
"""Less than this is shown as nought on a rule and is not said."""


def listed(words: Iterable[str]) -> str:
    """Names as a list; those that differ only in their last word share the rest ("legs 1, 2 and 3")."""
    said = list(dict.fromkeys(words))
    heads = {word.rpartition(" ")[0] for word in said}
    if len(said) > 1 and len(heads) == 1 and "" not in heads:
        head = heads.pop()
        said = [word.rpartition(" ")[2] for word in said]
        return f"{head}s {', '.join(said[:-1])} and {said[-1]}"
    return said[0] if len(said) == 1 else f"{', '.join(said[:-1])} and {said[-1]}"


def cap(text: str) -> str:
    """With a capital letter at its beginning."""
    return text[:1].upper() + text[1:]


def toward(way: Toward) -> str:
    """A direction along the work, as a noun."""
    if way.by == "arrow":
        return "the arrow on its sightline"
    if way.by == "tail":
        return "the plain end of its sightline, away from the arrow"
    return f"the {way.name}" if way.by in ("end", "side") else way.name


def uphill(way: Toward) -> str:
    """What lies uphill."""
    if way.by == "arrow":
        return "Its sightline along the fall, the arrow pointing UPHILL."
    if way.by == "tail":
        return "Its sightline along the fall, the arrow pointing DOWNHILL."
    return f"{cap(toward(way))} lies UPHILL."


def leaning(way: Toward) -> str:
    """What a drill leans to."""
    if way.by == "arrow":
        return "the way the arrow points"
    return "against the arrow" if way.by == "tail" else f"towards {toward(way)}"


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
    "square": "Zero it with the bit standing square on the face.",
    "flat": "Zero it lying flat on the face.",
}


@lay.register
def _(one: ByHand) -> tuple[str, ...]:
    said = [f"{cap(one.up)} up."] if one.up else []
    if one.holder == "opposite":
        said.append(
            "Legs dry in the seat as they will stand. Bit on the mark; sight along the drill to the "
            f"mark it points at: {listed(place(mark) for mark in one.sight)}."
        )
        return tuple(said)
    if one.leans is None:
        on = "the face" if one.up else "the stick's side"
        return (*said, f"Square to {on}: the drill leans no way.")
    on = _ON[one.along]
    how, leans = _HOLDERS[one.holder]
    if one.zero:
        said.append(_ZERO[one.zero])
    said.append(f"{how.format(on=on)}; {leans}, and the bit with it, {leaning(one.leans)}.")
    if one.holder == "block":
        side = {"arrow": "arrow's side", "tail": "plain side"}.get(
            one.leans.by, f"side of the {one.leans.name}"
        )
        said.append(f"The block stands on the {side} of the mark, so that the bit lies on its slope.")
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
    settings: dict[tuple[object, ...], list[OnSaw]] = {}
    for one in many:
        settings.setdefault((one.fence_longer, one.up_longer), []).append(one)
    lines: list[str] = []
    first: OnSaw | None = None
    for mates in settings.values():
        lines.append(_swing(mates[0], first))
        first = first or mates[0]
        for one in mates:
            up = f", {one.up} up" if one.up else ", level with its middle"
            lines.append(f"{cap(one.named)}: {one.fence} at the fence{up}, {one.end} beyond the blade.")
            thin = [(end, mm) for end, mm in one.thin if mm.value >= SHOWN_MM]
            if thin:
                packs = " and ".join(f"{mm.text} at the {end}" for end, mm in thin)
                lines.append(
                    f"Pack it off the fence and off the table alike, {packs}: its middle runs straight."
                )
    return tuple(dict.fromkeys(lines))


@lay.register
def _(one: OnLines) -> tuple[str, ...]:
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
            "wider.",
        )
    return (
        f"{cap(one.named)}, {one.edge}: {one.down} down, tilted {one.angle.text} so that the face on the "
        "table is left the wider.",
    )


@lay.register
def _(one: lays.EndUp) -> tuple[str, ...]:
    if one.down:
        return (
            f"{cap(one.named)}: sawn {one.end} flat on the table, the part held against the fence's "
            "bevelled face.",
        )
    lean = f", its top leaning towards its {' and its '.join(one.leans)}," if one.leans else ""
    return (f"{cap(one.named)}: {one.end} up{lean} until the sawn end lies level; bit plumb.",)


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


_PLACES = {
    Kind.CENTRE: "centre of leg {0}",
    Kind.SIGHTLINE: "sightline of leg {0}",
    Kind.PEG: "peg's mark of leg {0}",
}


def place(mark: Mark) -> str:
    """A mark by name, with its part."""
    if mark.kind is Kind.SOCKET:
        return f"{part_name(mark.on)}'s mark for {part_name(mark.which.partition('/')[0])}"
    if mark.kind in _PLACES:
        return _PLACES[mark.kind].format(mark.which.partition(".")[0])
    return mark.kind.value


def part_name(key: str) -> str:
    """A leg or a stretcher by its key."""
    kind, _, number = key.partition(".")
    return f"{'leg' if kind == 'leg' else 'stretcher'} {number}"


@singledispatch
def do(one: does.Do) -> str:
    """What is done, as a sentence."""
    raise NotImplementedError(type(one).__name__)


def _named(one: does.Along | does.Round | does.OnEnd | does.OverEnd) -> str:
    """What is marked on what: the part, and the mark's own name where it has one."""
    return f"{cap(one.named)}, {one.what}" if one.what else cap(one.named)


@do.register
def _(one: does.Along) -> str:
    ring = "; square it all round" if one.ring else ""
    return f"{_named(one)}: hook on the {one.end}, mark {one.mm.text} along the {one.line}{ring}."


@do.register
def _(one: does.Round) -> str:
    return (
        f"{_named(one)}: from the {one.line} {one.mm.text} round ({one.turn.text}), {one.way} looking "
        f"at the {one.end}."
    )


@do.register
def _(one: does.Across) -> str:
    if not one.toward or one.mm.value < SHOWN_MM:
        return f"{cap(one.named)}: on the middle line of its {one.face}."
    return (
        f"{cap(one.named)}: on its {one.face}, {one.mm.text} from the face's middle line towards its "
        f"{one.toward}."
    )


@do.register
def _(one: does.FromEdge) -> str:
    return f"{cap(one.named)}: on that {one.side}, {one.mm.text} from the {one.edge}."


@do.register
def _(one: does.Transferred) -> str:
    where = f"{one.behind.text} behind" if one.behind.value >= SHOWN_MM else "flush with"
    return (
        "Mortises from the tenons: hold each end to its leg, upper edge flush with the leg's upper end, "
        f"its {one.side} {where} the leg's {one.faces}; knife round the tenon."
    )


@do.register
def _(one: does.OnEnd) -> str:
    if one.mm.value < 0.05:
        return f"{_named(one)}: over the {one.end} through its middle, from the {one.line}."
    return (
        f"{_named(one)}: from the {one.line} {one.mm.text} round the rim of the {one.end} "
        f"({one.turn.text}), {one.way} looking at that end; from there through the middle."
    )


@do.register
def _(one: does.OverEnd) -> str:
    if one.mm.value < 0.05:
        return f"{_named(one)}: over the {one.end} through its middle, square to the {one.face}."
    return (
        f"{_named(one)}: over the {one.end} through its middle, crossing the edge of the {one.face} "
        f"{one.mm.text} from its middle, towards the {one.toward}."
    )


@do.register
def _(one: does.DrawLine) -> str:
    return f"{cap(one.named)}: {one.says}"


@do.register
def _(one: does.NameFaces) -> str:
    eight = ", on every second of the eight" if one.eight else ""
    return (
        f"{cap(one.named)}: write {', '.join(one.faces)} on the faces in this order{eight}, clockwise "
        f"looking at the {one.end}. {one.stands}"
    )


@do.register
def _(one: does.Write) -> str:
    return one.text


@do.register
def _(one: does.Bit) -> str:
    if one.deep is None:
        return f"Bit {one.diameter.text}, right through."
    touch = (
        f": depth stop {one.touch.text} from where the bit first touches" if one.touch is not None else ""
    )
    return f"Bit {one.diameter.text}, {one.deep.text} deep along its middle{touch}."


@do.register
def _(one: does.WallDepth) -> str:
    where = "the shallow wall, the obtuse side," if one.slanted else "its wall"
    return f"Deep enough when a rule down {where} reads {one.obtuse.text}."


@do.register
def _(one: does.Back) -> str:
    return "Clamp scrap behind, or stop when the lead point shows and finish from the other face."


@do.register
def _(one: does.Ream) -> str:
    return (
        f"Bore {one.pilot.text} or a little under; then from the underside a reamer that tapers "
        f"{one.included.text} in all, at the same lean, trying the tenon as it sinks."
    )


@do.register
def _(one: does.Chop) -> str:
    return (
        f"Bore the waste, then chop the mortise {one.long.text} along the sightline by {one.wide.text} "
        "square to it, the chisel held at the same lean."
    )


@do.register
def _(one: does.Turned) -> str:
    if one.way == "pin" and one.pin is not None:
        p = one.pin
        side = ""
        if abs(p.right.value) > 0.05:
            side = (
                f" and {_size(p.right)} to the {'right' if p.right.value > 0 else 'left'}, looking uphill"
            )
        where = "downhill" if p.downhill.value >= 0 else "uphill"
        return (
            f"Or on a pin: lower the bit onto the tilted table and prick it; pin {_size(p.downhill)} "
            f"{where} of that{side}. The hole in the middle of the seat's lower face on the pin, turn "
            f"{p.turn:g}° from leg to leg."
        )
    if one.way == "diagonal":
        first, *rest = one.pairs
        said = (
            f"Fence so that leg {first[0]}'s arrow lies so. Bore {first[0]}; turn the seat end for end; "
            f"bore {first[1]}."
        )
        if rest:
            other = rest[0]
            said += (
                f" Swing only the fence until leg {other[0]}'s arrow lies so; bore {other[0]} and "
                f"{other[1]} alike."
            )
        return said
    return "Each leg on its own sightline; the setting stays."


def _size(quantity: Quantity) -> str:
    return quantity.text.lstrip("-−")


@do.register
def _(one: does.TwoWay) -> str:
    sides = "; ".join(f"leg {n} {a} and {b}" for n, a, b in one.legs)
    return (
        f"Or on a table that tilts two ways: the tilt next to the seat {one.first.text}, along the "
        f"left-right line; the tilt below that carries it {one.second.text}, along the front-back line. "
        f"Uphill on the first and on the second: {sides}."
    )


@do.register
def _(one: does.Plain) -> str:
    return one.text


@do.register
def _(one: does.LongPoint) -> str:
    if not one.short_line:
        along = f" along the {one.line}" if one.line else ""
        return f"Hook on the {one.end}: the cut goes through {one.mm.text}{along}."
    return (
        f"Hook on the {one.end}: {one.mm.text} along the {one.line} is the long point, {one.short.text} "
        f"along the {one.short_line} the short one; the cut goes through both."
    )


@do.register
def _(one: does.Kerf) -> str:
    return (
        f"Saw down the line {one.deep.text}, stopping {one.stop.text} short of the depth ring; the "
        "tenon's middle in the middle of the cut."
    )


@do.register
def _(one: does.Tenon) -> str:
    return (
        f"{cap(one.named)}: on the {one.end} a tenon {one.diameter.text} thick; it keeps that for "
        f"{one.long.text} from the end."
    )


@do.register
def _(one: does.Shoulders) -> str:
    return (
        f"{cap(one.named)}: at both ends a line all round, {one.back.text} back from the sawn end along "
        "each long corner: the shoulder."
    )


@do.register
def _(one: does.Between) -> str:
    return (
        f"{cap(one.named)}: {one.what} through {one.mm.text} from the {one.end} along the {one.line} and "
        f"{one.other_mm.text} along the {one.other}."
    )


@do.register
def _(one: does.Spots) -> str:
    at = listed(mm.text for mm in one.at)
    return f"{cap(one.named)}: middles {at} from its {one.edge}, halfway through its thickness. {one.mates}"


@do.register
def _(one: does.Notch) -> str:
    turn = (
        f" Its cheeks turned {one.turn.text} off square, nearer to the {one.end} on the {one.face}."
        if one.turn.value > 0.005
        else ""
    )
    return (
        f"{cap(one.named)}: at mid length, from the {one.edge}, {one.wide.text} wide and {one.deep.text} "
        f"deep.{turn}"
    )


@do.register
def _(one: does.CutOut) -> str:
    return (
        f"{cap(one.named)}: in the middle of its width at the foot, {one.wide.text} wide and "
        f"{one.high.text} high up its {one.face}, sawn with the foot's own slope."
    )


@do.register
def _(one: does.Cut) -> str:
    return f"{cap(one.named)}: cut it square to {one.mm.text}, end to end."


def which_way(many: Iterable[lays.Lay]) -> tuple[str, ...]:
    """The sentences of every lay, none twice."""
    some = list(many)
    saws = [one for one in some if isinstance(one, OnSaw)]
    return tuple(
        dict.fromkeys(
            (*on_saws(saws), *(line for one in some if not isinstance(one, OnSaw) for line in lay(one)))
        )
    )


def steps(many: Iterable[does.Do]) -> tuple[str, ...]:
    """The sentences of what is done, none twice; what is done alike to several parts said once."""
    return tuple(dict.fromkeys(do(one) for one in together(many)))


MERGED = (does.Along, does.Round, does.Across, does.DrawLine, does.NameFaces)
"""What is done alike to several parts and said once for all of them."""


def together(many: Iterable[does.Do]) -> list[does.Do]:
    """Things done alike to several parts as one, where the first of them stood."""
    made: list[does.Do] = []
    at: dict[tuple[object, ...], int] = {}
    names: dict[int, dict[str, None]] = {}
    for one in many:
        if not isinstance(one, MERGED):
            made.append(one)
            continue
        said = (
            value.text if isinstance(value, Quantity) else value
            for name, value in vars(one).items()
            if name not in ("marks", "named")
        )
        key = (type(one), *said)
        if key in at:
            first = made[at[key]]
            assert isinstance(first, MERGED)
            names[at[key]][one.named] = None
            made[at[key]] = replace(first, marks=(*first.marks, *one.marks))
            continue
        at[key] = len(made)
        names[at[key]] = {one.named: None}
        made.append(one)
    for k, several in names.items():
        if len(several) > 1:
            first = made[k]
            assert isinstance(first, MERGED)
            made[k] = replace(first, named=listed(sorted(several, key=_by_number)))
    return made


def _by_number(named: str) -> tuple[str, int]:
    """ "leg 10" after "leg 2"."""
    words, _, last = named.rpartition(" ")
    return (words, int(last)) if last.isdigit() else (named, 0)
