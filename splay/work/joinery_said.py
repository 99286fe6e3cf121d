"""What is done in joinery, in words: registered with the rest where all of it is said."""

from __future__ import annotations

from splay.quantity import Quantity
from splay.work import joinery
from splay.work.phrases import SHOWN_MM, cap, listed
from splay.work.saying import do


@do.register
def _(one: joinery.Groove) -> str:
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
def _(one: joinery.Buttons) -> str:
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
def _(one: joinery.Tenon) -> str:
    return (
        f"{cap(one.named)}: on the {one.end} a tenon {one.diameter.text} thick; it keeps that for "
        f"{one.long.text} from the end."
    )


@do.register
def _(one: joinery.ArcLine) -> str:
    (_, rise), *beside = one.places
    also = listed(f"{up.text} up {at.text} to either side of it" for at, up in beside)
    said = (
        f"{cap(one.named)}, {one.face}: from the line of the {one.edge}, which is {one.chord.text} from "
        f"corner to corner, {rise.text} up in its middle and {also}; a lath bent through those and both "
        f"corners draws the arc. Its radius is {one.radius.text}."
    )
    if one.end_up is None:
        return said
    there = listed(f"{down.text} down {at.text} to either side of its middle" for at, down in one.down)
    return (
        f"{said} The upper one begins in the middle of the {one.upper}, is {there}, and ends "
        f"{one.end_up.text} up either sawn end from its lower corner."
    )


@do.register
def _(one: joinery.Cove) -> str:
    return (
        f"Behind the tenon a cove of {one.radius.text} radius: it begins {one.begins.text} from the end "
        f"and comes out at the leg's thickness at {one.ends.text}."
    )


@do.register
def _(one: joinery.FlatsLeft) -> str:
    return (
        f"Plane the end square to {one.over.text}; gauge {one.gauge.text} in from each edge, the corners "
        f"off to the lines: eight sides. Then the eight ridges, until {one.left.text} of each flat stays. "
        "Round the ridges and leave the flats: they carry the tenon in its hole, and while they are there "
        "it is nowhere too thin."
    )


@do.register
def _(one: joinery.Eased) -> str:
    named = listed(f"leg {number}" for number in one.legs)
    how = (
        f"a cutter of {one.radius.text} radius, its pilot in the hole"
        if one.by_cutter
        else f"rasp and file, to a radius of {one.radius.text} all about the hole's own axis"
    )
    way = " the longer way, which is the way the leg leans" if one.leans else ""
    return f"{cap(named)}, {one.face}: {how}; in until the mouth is {one.long.text} over all{way}."


@do.register
def _(one: joinery.Shortened) -> str:
    named = f"Stick {one.stick}{f' ({one.note})' if one.note else ''}, for leg {one.leg}: "
    said = f"saw {one.off.text} square off its {one.end}" if one.off else f"its {one.end} stays as it is"
    if one.begins is not None:
        there = "there" if one.off else "it"
        return f"{named}{said}; its first old hole then begins {one.begins.text} from {there}."
    return f"{named}{said}{', and its old holes with it' if one.off else ''}."


_OUTER = {
    "along": "along that back",
    "opposite": "straight across from that back",
    "clockwise": "a quarter round from that back, clockwise looking at the {end}",
    "anticlockwise": "a quarter round from that back, anticlockwise looking at the {end}",
}


@do.register
def _(one: joinery.BentLine) -> str:
    named = f"Stick {one.stick}{f' ({one.note})' if one.note else ''}, for leg {one.leg}"
    outer = _OUTER[one.outer].format(end=one.end)
    return (
        f"{named}: its foot comes {one.long.text} from the {one.end}; a string from the middle of that end "
        f"to the middle of the wood at the foot is its line. The wood stands {one.off.text} off it at the "
        f"most, {one.at.text} from the {one.end}: there, on the side it bulges to, is its back. At the "
        f"{one.end} it runs {one.slope.text} off the string. Its outer line goes {outer}."
    )


@do.register
def _(one: joinery.Parted) -> str:
    places = ", ".join(q.text for q in one.places[:-1])
    return (
        f"Caliper set to {one.caliper.text}: a parting tool in until it slips over, {places} and "
        f"{one.places[-1].text} from the tenon end."
    )


@do.register
def _(one: joinery.SawnSquare) -> str:
    return (
        f"While the stock is square: saw in on all four faces, {one.at.text} from the tenon end, "
        f"{one.deep.text} deep; split the waste off from the end, pare flat: {one.left.text} square is "
        f"left. Lines {one.gauge.text} in from every edge, the corners off to them: eight sides."
    )


@do.register
def _(one: joinery.JigOver) -> str:
    return (
        f"Two holes in line, {one.wide.text} in front and {one.narrow.text} behind; the bit's top "
        f"between them, {one.below.text} below their middle: a dowel through the hole behind just "
        f"touches it. Turned slowly and fed in from the front until the tenon stands {one.long.text} "
        "from the bit's middle."
    )


@do.register
def _(one: joinery.Shoulders) -> str:
    return (
        f"{cap(one.named)}: at both ends a line all round, {one.back.text} back from the sawn end along "
        "each long corner: the shoulder."
    )


@do.register
def _(one: joinery.Transferred) -> str:
    where = f"{one.behind.text} behind" if one.behind.value >= SHOWN_MM else "flush with"
    return (
        "Mortises from the tenons: hold each end to its leg, upper edge flush with the leg's upper end, "
        f"its {one.side} {where} the leg's {one.faces}; knife round the tenon."
    )


@do.register
def _(one: joinery.Between) -> str:
    return (
        f"{cap(one.named)}: {one.what} through {one.mm.text} from the {one.end} along the {one.line} and "
        f"{one.other_mm.text} along the {one.other}."
    )


@do.register
def _(one: joinery.Spots) -> str:
    if one.sides:
        told = [f"{listed(mm.text for mm in at)} towards its {side}" for side, at in one.sides if at]
        if one.on_line:
            told.insert(0, "on it")
        return (
            f"{cap(one.named)}: from the middle line {listed(told)}; halfway through its thickness. "
            f"{one.mates}"
        )
    at = listed(mm.text for mm in one.at)
    edge = f"its {one.edge}" if one.edge else "either edge"
    return f"{cap(one.named)}: middles {at} from {edge}, halfway through its thickness. {one.mates}"


@do.register
def _(one: joinery.Slots) -> str:
    back = f"leaning back {one.back.text} off plumb" if one.back else "plumb"
    said = f"The fence's face {back}, {one.off.text} from its foot to the cutter's middle. "
    if one.along:
        said += (
            f"A block that slides along the fence, its edge {one.along.text} off plumb, carries the part "
            "and is pushed with it. "
        )
    return f"{said}Slots {one.deep.text} deep, in passes."


@do.register
def _(one: joinery.Places) -> str:
    told = []
    for side in dict.fromkeys(side for _, side, _ in one.marks):
        at = listed(mm.text for _, its, mm in one.marks if its == side)
        told.append(f"{at} towards the {side}" if side else "on it")
    return (
        f"{cap(one.named)}, on the {one.face}, {one.mm.text} from the {one.of}; from the middle line "
        f"{listed(told)}: prick each."
    )


@do.register
def _(one: joinery.Notch) -> str:
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
def _(one: joinery.CutOut) -> str:
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
def _(one: joinery.TaperLine) -> str:
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
def _(one: joinery.EndNotches) -> str:
    # Said one by one: figures alike at their ends are not to be run together.
    places = ", and ".join(f"{a.text} to {b.text}" for a, b in one.cheeks)
    return (
        f"{cap(one.named)}, {one.end}: cut out from {places} from the {one.edge}, down both faces; the "
        f"bottom {one.deep.text} down the {one.face}, square through to the other."
    )


@do.register
def _(one: joinery.Mortises) -> str:
    places = ", and ".join(_from_to(a, b) for a, b in one.places)
    return (
        f"{cap(one.face)}: {one.near.text} and {one.far.text} from the front-back line towards {one.side}; "
        f"between those two lines, from the left-right line, {places}."
    )


@do.register
def _(one: joinery.MakeSplines) -> str:
    return (
        f"{one.count} of them, {one.wide.text} wide, {one.thick.text} thick like the boards and "
        f"{one.long.text} long, grain along them, ends square."
    )


@do.register
def _(one: joinery.Joins) -> str:
    said = f"{cap(one.named)}, {one.face}, for {one.what}: "
    away = f"{one.across.text} from" if one.across else "flush with"
    edge = f"its {one.beside} {away} the {one.of}'s {one.edge}"
    if one.down is None:
        return f"{said}its {one.lead} flush with the {one.start}, {edge}."
    line = f"{one.down.text} from the {one.start} along the corner with the {one.edge}"
    if one.far is None or one.far.text == one.down.text:
        return f"{said}a line square across, {line}, for its {one.lead}; {edge}."
    far = f"{one.far.text} from it along the corner with the {one.opposite}"
    return f"{said}a line from {line} to {far}, for its {one.lead}; {edge}."


@do.register
def _(one: joinery.ThroughPlaces) -> str:
    by_place: dict[str, list[str]] = {}
    for aside, down in one.spots:
        by_place.setdefault(aside.text, []).append(down.text)
    (first, downs), *more = by_place.items()
    places = [f"{first} along it and {listed(downs)} square off it"]
    places += [f"{aside} along and {listed(off)} off" for aside, off in more]
    return (
        f"{cap(one.named)}, {one.face}, within the lines for {one.what}: on the line for its {one.lead}, "
        f"from where its {one.beside} comes, {'; '.join(places)}, where the cross is: prick each."
    )


@do.register
def _(one: joinery.Onward) -> str:
    return (
        f"When the glue has set: through the holes in {one.named} from outside, on into {one.what}. The "
        "hole that is there leads the bit; hold it in line all the way."
    )


@do.register
def _(one: joinery.Stations) -> str:
    (down, thick), *more = one.places
    places = [f"{thick.text} thick {down.text} from the {one.end}"]
    places += [f"{thick.text} at {down.text}" for down, thick in more]
    said = f"{cap(one.first)}: a parting tool in to the calipers, {', '.join(places)}"
    said += "; turn it even between them."
    if one.rest:
        said += (
            f" It is the pattern for {one.rest}: the places struck off from it, the calipers set to it; "
            "legs alike matter more than legs to the drawing."
        )
    return said


@do.register
def _(one: joinery.MakeWedge) -> str:
    return (
        f"{one.wide.text} wide, {one.long.text} long, from {one.edge.text} at its edge to {one.butt.text} "
        "at its butt, both faces alike."
    )


@do.register
def _(one: joinery.Recessed) -> str:
    return (
        f"First a flat-bottomed bit {one.wide.text}, as wide as the leg: {one.deep.text} deep along its "
        f"middle, depth stop {one.touch.text} from where it first touches. Then, nothing moved, a bit "
        f"{one.pilot.text} on from the middle of its bottom, {one.on.text} deeper."
    )


@do.register
def _(one: joinery.EightAlong) -> str:
    first, *rest = one.places
    said = f"From the {one.hook}: at {first[0].text} a mark {first[1].text} in from each edge"
    said += "".join(f", at {at.text} {gauge.text}" for at, gauge in rest)
    return (
        f"{said}, on all four faces. Lines from mark to mark, carried on to both ends; plane the corners "
        "off to the lines."
    )


def _from_to(a: Quantity, b: Quantity) -> str:
    """From one place to another front to back, towards words that are on the top."""
    one, two = a.text.lstrip("-−"), b.text.lstrip("-−")
    if a.value < 0.0 < b.value:
        return f"{one} towards FRONT to {two} towards BACK"
    return f"{two} to {one} towards FRONT" if b.value <= 0.0 else f"{one} to {two} towards BACK"
