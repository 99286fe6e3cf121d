"""What is done, in words: the one room that says it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import singledispatch

from splay.quantity import Quantity
from splay.work import does
from splay.work.phrases import SHOWN_MM, cap, listed


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
def _(one: does.FromMiddle) -> str:
    ends = list(dict.fromkeys(end for _, end in one.marks))
    if one.mm.value < SHOWN_MM:
        where = f"at the middle of the {one.of}'s length"
    else:
        toward = "each end" if len(ends) > 1 else f"its {ends[0]}"
        where = f"{one.mm.text} from the middle of the {one.of}'s length towards {toward}"
    return f"{cap(one.named)}, {one.side}: {where}."


@do.register
def _(one: does.Widened) -> str:
    what = "in the middle" if one.out.value < SHOWN_MM else f"{one.out.text} from the middle"
    if one.washer is None:
        which = "All" if one.bored else f"Those {what}"
        return (
            f"{which}: widened to slots along the stick, the thin hole to {one.hole.text} and the head's "
            f"to {one.seat.text}."
        )
    if one.bored:
        return (
            f"A washer {one.washer.text} over under each head covers the hole wherever the screw comes to "
            "stand."
        )
    return (
        f"Those {what}: bits {one.seat.text} and {one.hole.text} instead, and a washer {one.washer.text} "
        "over under each head."
    )


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
def _(one: does.Parted) -> str:
    places = ", ".join(q.text for q in one.places[:-1])
    return (
        f"Caliper set to {one.caliper.text}: a parting tool in until it slips over, {places} and "
        f"{one.places[-1].text} from the tenon end."
    )


@do.register
def _(one: does.SawnSquare) -> str:
    return (
        f"While the stock is square: saw in on all four faces, {one.at.text} from the tenon end, "
        f"{one.deep.text} "
        f"deep; split the waste off from the end, pare flat: {one.left.text} square is left. Lines "
        f"{one.gauge.text} in from every edge, the corners off to them: eight sides."
    )


@do.register
def _(one: does.JigOver) -> str:
    return (
        f"Two holes in line, {one.wide.text} in front and {one.narrow.text} behind; the bit's top between "
        "them, "
        f"{one.below.text} below their middle: a dowel through the hole behind just touches it. Turned "
        "slowly "
        f"and fed in from the front until the tenon stands {one.long.text} from the bit's middle."
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
    if one.sides:
        told = [f"{listed(mm.text for mm in at)} towards its {side}" for side, at in one.sides if at]
        if one.on_line:
            told.insert(0, "on it")
        return (
            f"{cap(one.named)}: from the middle line {listed(told)}; halfway through its thickness. "
            f"{one.mates}"
        )
    at = listed(mm.text for mm in one.at)
    return f"{cap(one.named)}: middles {at} from its {one.edge}, halfway through its thickness. {one.mates}"


@do.register
def _(one: does.Groove) -> str:
    said = (
        f"{cap(one.named)}, {one.side}: a groove along the {one.upper}, its nearer edge {one.edge.text} "
        f"from it, {one.wide.text} wide there and {one.deep.text} deep, square to that side"
    )
    if one.begins is not None:
        end = f"to {one.ends.text}" if one.ends is not None else "to the ends"
        said += f", only from {one.begins.text} {end} to either side of the middle of its length"
    elif one.ends is not None:
        said += f", {one.ends.text} to either side of the middle of its length"
    else:
        said += ", from end to end"
    if one.turn is not None:
        way = "nearer to" if one.nearer else "further from"
        said += (
            f". Blade or fence tilted {one.turn.text}, so that its bottom comes {way} the {one.upper} than "
            "a square groove's"
        )
    return f"{said}."


@do.register
def _(one: does.Buttons) -> str:
    said = (
        f"Blocks {one.thick.text} thick, {one.wide.text} wide, {one.long.text} long with the grain. From "
        f"one end {one.out.text} in and from the upper face {one.step.text} down saw away the corner: a "
        f"tongue {one.tongue.text} thick is left below."
    )
    if one.turn is not None:
        how = "longer" if one.longer else "shorter"
        said += (
            f" The shoulder {one.turn.text} off square, the block {how} at its upper face: so it lies "
            "along the part."
        )
    return said


@do.register
def _(one: does.Places) -> str:
    told = []
    for side in dict.fromkeys(side for _, side, _ in one.marks):
        at = listed(mm.text for _, its, mm in one.marks if its == side)
        told.append(f"{at} towards the {side}" if side else "on it")
    return (
        f"{cap(one.named)}, on the {one.face}, {one.mm.text} from the {one.of}; from the middle line "
        f"{listed(told)}: prick each."
    )


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
    if one.seam is not None:
        front, back = one.seam
        if front.value < 0.0 < back.value:
            where = f"from {front.text.lstrip('-−')} in front of the seam to {back.text} behind it"
        elif back.value <= 0.0:
            far, near = front.text.lstrip("-−"), back.text.lstrip("-−")
            where = f"from {far} to {near} in front of the seam"
        else:
            where = f"from {front.text} to {back.text} behind the seam"
        return (
            f"{cap(one.named)}, glued up: {where}, at the foot, and {one.high.text} high up the "
            f"{one.face}, sawn with the foot's own slope."
        )
    return (
        f"{cap(one.named)}: in the middle of its width at the foot, {one.wide.text} wide and "
        f"{one.high.text} high up its {one.face}, sawn with the foot's own slope."
    )


@do.register
def _(one: does.TaperLine) -> str:
    when = ", once that is cut: " if one.cut else ": "
    drawn = f"{cap(one.named)}, {one.side}, drawn on the {one.on}{when}"
    mark = f"{one.off.text} in from that corner at the sawn {one.to}"
    if one.begins.value == 0.0:
        return f"{drawn}from the corner between the two, at the very {one.end}, to {mark}."
    return (
        f"{drawn}{one.begins.text} down the corner between the two, from the {one.end}, to {mark}; "
        f"square its beginning across the {one.side}."
    )


@do.register
def _(one: does.EndNotches) -> str:
    # Said one by one: figures alike at their ends are not to be run together.
    places = ", and ".join(f"{a.text} to {b.text}" for a, b in one.cheeks)
    return (
        f"{cap(one.named)}, {one.end}: out from {places} from the {one.edge}, down both faces; the bottom "
        f"{one.deep.text} down the {one.face}, square through to the other."
    )


@do.register
def _(one: does.Mortises) -> str:
    places = ", and ".join(_from_to(a, b) for a, b in one.places)
    return (
        f"{cap(one.face)}: {one.near.text} and {one.far.text} from the front-back line towards {one.side}; "
        f"between those two lines, from the left-right line, {places}."
    )


def _from_to(a: Quantity, b: Quantity) -> str:
    """From one place to another front to back, towards words that are on the top."""
    one, two = a.text.lstrip("-−"), b.text.lstrip("-−")
    if a.value < 0.0 < b.value:
        return f"{one} towards FRONT to {two} towards BACK"
    return f"{two} to {one} towards FRONT" if b.value <= 0.0 else f"{one} to {two} towards BACK"


@do.register
def _(one: does.MakeSplines) -> str:
    return (
        f"{one.count} of them, {one.wide.text} wide, {one.thick.text} thick like the boards and "
        f"{one.long.text} long, grain along them, ends square."
    )


@do.register
def _(one: does.Joins) -> str:
    said = f"{cap(one.named)}, {one.face}, for {one.what}: "
    away = f"{one.across.text} from" if one.across else "flush with"
    edge = f"its {one.beside} {away} the {one.of}'s {one.edge}"
    if one.down is None:
        return f"{said}its {one.lead} flush with the {one.start}, {edge}."
    line = f"{one.down.text} from the {one.start} along the corner with the {one.edge}"
    if one.far is None:
        return f"{said}a line square across, {line}, for its {one.lead}; {edge}."
    far = f"{one.far.text} from it along the corner with the {one.opposite}"
    return f"{said}a line from {line} to {far}, for its {one.lead}; {edge}."


@do.register
def _(one: does.MakeWedge) -> str:
    return (
        f"{one.wide.text} wide, {one.long.text} long, from {one.edge.text} at its edge to {one.butt.text} "
        "at its butt, both faces alike."
    )


@do.register
def _(one: does.Cut) -> str:
    return f"{cap(one.named)}: cut it square to {one.mm.text}, end to end."


def steps(many: Iterable[does.Do]) -> tuple[str, ...]:
    """The sentences of what is done, none twice; what is done alike to several parts said once."""
    # By the register itself: dispatch looks for base classes there are none of, at every sentence.
    return tuple(dict.fromkeys(do.registry[type(one)](one) for one in together(many)))


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
