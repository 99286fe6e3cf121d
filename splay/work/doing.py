"""What is done, in words: the one room that says it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from splay.quantity import Quantity
from splay.work import (
    does,
    joinery_said,  # noqa: F401 (its words are registered)
    tops_said,  # noqa: F401
)
from splay.work.phrases import SHOWN_MM, by_number, cap, listed
from splay.work.saying import do


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
        f"at the {one.end}{one.then}."
    )


@do.register
def _(one: does.Across) -> str:
    each = "each " if len(one.marks) > 1 else ""
    if not one.toward or one.mm.value < SHOWN_MM:
        return f"{cap(one.named)}: {each}on the middle line of its {one.face}."
    return (
        f"{cap(one.named)}: {each}on its {one.face}, {one.mm.text} from the face's middle line towards its "
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
    hook = f"Hook on the {one.end}"
    if one.named:
        hook = f"{cap(one.named)}, {'each ' if len(one.parts) > 1 else ''}hooked on the {one.end}"
    if not one.short_line:
        along = f" along the {one.line}" if one.line else ""
        return f"{hook}: the cut goes through {one.mm.text}{along}."
    return (
        f"{hook}: {one.mm.text} along the {one.line} is the long point, {one.short.text} "
        f"along the {one.short_line} the short one; the cut goes through both."
    )


@do.register
def _(one: does.SawToLine) -> str:
    if len(one.sides) == 1:
        return f"Saw to the line; the leg stays longer along its {one.sides[0][2]}."
    each = "; ".join(
        f"{named} along {'its' if len(parts) == 1 else 'their'} {side}" for named, parts, side in one.sides
    )
    return f"Saw to the line. What stays longer: {each}."


@do.register
def _(one: does.Kerf) -> str:
    return (
        f"Saw down the line {one.deep.text}, stopping {one.stop.text} short of the depth ring; the "
        "tenon's middle in the middle of the cut."
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
            made[k] = replace(first, named=listed(sorted(several, key=by_number)))
    return made
