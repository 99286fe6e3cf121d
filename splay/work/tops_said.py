"""What is done to the upper face of a top, in words."""

from __future__ import annotations

from splay.work import tops
from splay.work.phrases import SHOWN_MM, cap, listed
from splay.work.saying import do
from splay.work.seat import MIDDLE, across_from


@do.register
def _(one: tops.DepthHoles) -> str:
    places = [
        f"in the middle {hole.deep.text} deep"
        if hole.out.value < MIDDLE
        else f"{hole.out.text} from the middle on either side {hole.deep.text} deep"
        for hole in one.holes
    ]
    where = f"along the {one.line} of the {one.face}"
    said = f"Depth holes, {one.bit.text}, square to it, {where}: {'; '.join(places)}."
    if one.beside is not None and one.towards is not None:
        said += (
            f" The same along two lines beside it, {one.beside.text} towards {' and '.join(one.towards)}."
        )
    return said


@do.register
def _(one: tops.Runners) -> str:
    towards = " and ".join(across_from(one.line))
    return (
        f"Two runners alike, their upper edges hollowed to a radius of {one.radius.text}: {one.low.text} "
        f"high in their middle, {one.high.text} over the hollow's rim. Fixed upright on the {one.face}, "
        f"their length towards {towards}, one at either end of the hollow, their middles over the other "
        "middle line. A flat sled lies across both and slides along them, the router runs along the sled. "
        f"The sled in the runners' middle, the bit reaches {one.deep.text} below the {one.face} in the "
        f"last pass; each pass takes {one.at_once.text} at most."
    )


@do.register
def _(one: tops.HollowLine) -> str:
    return (
        f"On the {' and the '.join(one.ends)} edge: the middle line squared down, {one.deep.text} on it "
        "from the upper face; the template through there and through the rim's lines, "
        f"{one.half.text} to either side, draws the line."
    )


@do.register
def _(one: tops.PegFound) -> str:
    line = one.line
    over = ""
    if line.over.value >= MIDDLE:
        over = f" and square to that {line.over.text} towards {line.toward}"
    said = (
        f"Leg {one.leg}, before it goes in: a {one.bit.text} bit on from the small hole that the large "
        "bit's point left in the middle of the socket's floor, held in the middle of the socket by a bush, "
        f"out of the upper face. From there {line.run.text} towards {line.along}{over}, a second place; a "
        f"line through both, its arrowhead {'pointing away from' if line.back else 'at'} the second."
    )
    if one.away.value < MIDDLE:
        return f"{said} Where the bit came out is the peg's mark."
    way = "against the arrow" if one.against else "along the arrow"
    return f"{said} On the line, {one.away.text} {way} from where the bit came out: the peg's mark."


@do.register
def _(one: tops.PlanedOff) -> str:
    return (
        f"The {one.face} planed down by {one.off.text} all over, until {one.left.text} is left everywhere; "
        f"the {one.other} stays as it is: marks and holes are measured on it."
    )


@do.register
def _(one: tops.StripsLaid) -> str:
    said = (
        f"Lay the {one.many} strips side by side as they will be glued, upper faces up, and number them on "
        f"their ends from {one.first} to {one.last}."
    )
    if one.line is not None:
        said += (
            f" Square a line across all of them, halfway along: it stands for the {one.line}, and goes "
            "down the sides of each."
        )
    return said


def _deep(one: tops.HoleDeep) -> str:
    return one.deep.text if one.deep.value >= SHOWN_MM else "nothing"


def _line(one: tops.StripSide, where: str) -> str:
    if not one.places:
        return f"{where} it stays whole"
    middle, *more = one.places
    if not more:
        return f"{where} a line {middle.deep.text} down from end to end"
    told = [f"{_deep(place)} at {place.out.text}" for place in more]
    return f"{where} {middle.deep.text} down on that line, to either side of it {', '.join(told)}"


@do.register
def _(one: tops.StripSides) -> str:
    named = cap(listed(f"strip {number}" for number in one.strips))
    first, second = one.sides
    if first.places == second.places:
        return f"{named}: {_line(first, 'on both long sides')}."
    told = [_line(side, f"on the side towards {side.towards}") for side in one.sides]
    return f"{named}: {'; '.join(told)}."


@do.register
def _(one: tops.StripEnds) -> str:
    if all(place.deep.value < SHOWN_MM for place in one.places):
        return f"Strip {one.strip} stays whole."
    first, *more = one.places
    told = [f"{_deep(first)} at its side towards {one.towards}"]
    told += [f"{_deep(place)} at {place.out.text} from there" for place in more]
    said = (
        f"Strip {one.strip}, on both ends, down from the upper face: {', '.join(told)}; straight between."
    )
    if one.left is not None:
        said += f" {one.left.text} at most stays for the scraper."
    return said
