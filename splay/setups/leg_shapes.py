"""Set-up cards for making legs set into the seat: tenons, eight sides, tapers."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from splay.parts.leg import LegPart
from splay.parts.making import Taper
from splay.piece import Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.leg_sets import LegSet, leg_sets
from splay.setups.plain_card import plain_card
from splay.setups.scenes import EightSides, Scene, Tapering
from splay.setups.tenons import GAUGE, LATHE, LATHE_CARE, tenons
from splay.shop import HandPlane, Shop, TaperJig, Tool
from splay.stance.lines import named_faces
from splay.stance.staked import Stance
from splay.stance.taper import size_at
from splay.work.does import Do, Plain
from splay.work.joinery import EightAlong, Stations
from splay.work.lays import Tapered
from splay.work.marks import Kind, Mark, leg_key
from splay.work.phrases import SHOWN_MM, listed
from splay.work.proofs import proof_id

_TAPER = "Hold-downs, both of them: a short taper near a blade kicks; else plane it by hand."
APART_MM = 110.0
"""About so far apart calipers are tried along a turned leg (common practice, no source)."""
_PLANE = "Work against a stop; both hands on the plane."


def leg_shape_cards(
    piece: Piece, stance: Stance, parts: tuple[LegPart, ...], shop: Shop, show: Show
) -> Iterator[SetUp]:
    """Every card that shapes a leg before lines are drawn on it, in the order of work."""
    owned = shop.owned()
    for one in leg_sets(piece, stance, parts):
        yield from tenons(one, owned, show)
        yield from _turned(one, show)
        for tool in owned:
            yield from _taper(one, tool, show)
        for tool in owned:
            yield from _octagon(one, tool, show)


def _octagon(one: LegSet, tool: Tool, show: Show) -> Iterator[SetUp]:
    gauge = one.part.eight
    if gauge is None or not isinstance(tool, HandPlane):
        return
    yield plain_card(
        f"{one.key}.octagon",
        "legs",
        "octagon",
        tool,
        f"Eight sides on {one.named}",
        gauge,
        "Gauge from each edge",
        EightSides(gauge.quantity.text, one.part.stock.quantity.text),
        does=(
            _eight(one, show),
            Plain("Two neighbouring faces equally wide, and so all round: then it is an even eight."),
        ),
        caution=_PLANE,
        legs=one.numbers,
        proofs=(proof_id("facet", *one.proof),),
    )  # fmt: skip


def _eight(one: LegSet, show: Show) -> Do:
    """The gauge along a leg: at one figure where it is as thick all along, else at each place where its
    taper changes."""
    leg, first = one.support.leg, one.legs[0]
    if not one.part.tapers:
        return Plain("Gauge from both edges of all four faces; plane the corners off to the lines.")
    inside = one.part.in_top.quantity.value
    waist = [first.exposed * leg.belly.at] if leg.belly is not None else []
    places = tuple(
        (show.length(inside + down), show.fine(size_at(leg, first.exposed, down) * GAUGE))
        for down in (0.0, *waist, first.exposed)
    )
    return EightAlong("tenon end" if first.bore.tenon else "upper end", places)


def _turned(one: LegSet, show: Show) -> Iterator[SetUp]:
    """Turned legs by calipers at places along them, every one where the shape changes and some between."""
    leg, first = one.support.leg, one.legs[0]
    if leg.made_by != "turned" or leg.section != "round" or not one.part.tapers:
        return
    inside = one.part.in_top.quantity.value
    waist = [first.exposed * leg.belly.at] if leg.belly is not None else []
    downs: list[float] = []
    for begins, ends in pairwise((0.0, *waist, first.exposed)):
        parts = max(1, round((ends - begins) / APART_MM))
        downs += [begins + (ends - begins) * k / parts for k in range(parts)]
    downs.append(first.exposed)
    places = tuple(
        (show.length(inside + down), show.length(size_at(leg, first.exposed, down))) for down in downs
    )
    rest = [f"leg {number}" for number in one.numbers[1:]]
    yield plain_card(
        f"{one.key}.turned",
        "legs",
        "taper",
        LATHE,
        f"Turn {one.named} to shape",
        one.part.tapers[-1].off,
        f"At the {one.part.tapers[-1].towards}",
        _taper_scene(one, one.part.tapers[-1], show),
        setting=show.length(one.part.tapers[-1].thin),
        does=(
            Stations(
                f"leg {one.numbers[0]}", listed(rest) if rest else "",
                "tenon end" if first.bore.tenon else "upper end", places,
            ),
        ),
        caution=LATHE_CARE,
        legs=one.numbers,
        proofs=(proof_id("taper", *one.proof),),
    )  # fmt: skip


def _taper(one: LegSet, tool: Tool, show: Show) -> Iterator[SetUp]:
    leg = one.support.leg
    if leg.made_by == "turned" and leg.section == "round":
        return
    if not isinstance(tool, HandPlane | TaperJig) or (
        isinstance(tool, TaperJig) and leg.section != "square"
    ):
        return
    for n, taper in enumerate(one.part.tapers, start=1):
        key = f"{one.key}.taper.{n}"
        if isinstance(tool, TaperJig):
            yield _on_sled(one, taper, tool, key, show)
        else:
            yield _planed(one, taper, tool, key, show)


def _taper_scene(one: LegSet, taper: Taper, show: Show) -> Scene:
    thick, thin = show.length(taper.thick).text, show.length(taper.thin).text
    foot = taper.ends > taper.begins
    return Tapering(
        thick if foot else thin,
        thin if foot else thick,
        show.length(taper.run).text,
        taper.off.quantity.text,
        foot,
    )


def _where(one: LegSet, taper: Taper, show: Show) -> str:
    """Where a taper begins and ends, from the tenon's end."""
    inside = one.part.in_top.quantity.value
    start, end = inside + taper.begins, inside + taper.ends
    hook = "tenon end" if one.legs[0].bore.tenon else "upper end"
    begins, there = f"at {show.length(start).text} from the {hook}", "from it"
    if start < SHOWN_MM:
        begins, there = f"at the {hook} itself", "down the leg"
    on = "; the slope runs on to the blank's end" if taper.towards == "foot" else ""
    return (
        f"From nothing {begins} to {taper.off.quantity.text} off each "
        f"face at {show.length(end).text} {there}{on}."
    )


def _planed(one: LegSet, taper: Taper, tool: HandPlane, key: str, show: Show) -> SetUp:
    return plain_card(
        key,
        "legs",
        "taper",
        tool,
        f"Taper {one.named} towards the {taper.towards}",
        taper.off,
        "Off each face",
        _taper_scene(one, taper, show),
        does=(
            Plain(_where(one, taper, show)),
            Plain("Plane two opposite faces to their lines, then draw and plane the other two."),
        ),
        caution=_PLANE,
        legs=one.numbers,
        proofs=(proof_id("taper", *one.proof),),
    )


def _on_sled(one: LegSet, taper: Taper, tool: TaperJig, key: str, show: Show) -> SetUp:
    """Two neighbouring faces at one stop; the two opposite lie on a tapered face: twice the slope."""
    leg = one.legs[0]
    slope = deg.atan((taper.thick - taper.thin) / 2.0 / taper.run)
    stop = show.figure(
        f"{key}.stop",
        "Stop set over, first two faces",
        tool.length * deg.tan(slope),
        "J · tan κ",
        show.input("J", "between the sled's stops", tool.length),
        show.input("κ", "taper of a face", slope, "deg"),
    )
    then = show.figure(
        f"{key}.then",
        "Stop set over, the two opposite",
        tool.length * deg.tan(2.0 * slope),
        "J · tan (2 · κ)",
        show.input("J", "between the sled's stops", tool.length),
        show.input("κ", "taper of a face", slope, "deg"),
    )
    faces = [name for name, _ in named_faces(one.support.leg, leg)]
    lay = Tapered(
        (faces[0], faces[2]),
        (faces[1], faces[3]),
        stop.quantity,
        then.quantity,
        f"towards the {taper.towards}",
    )
    return plain_card(
        key,
        "legs",
        "taper",
        tool,
        f"Taper {one.named} towards the {taper.towards}",
        stop,
        "Set the stop over by",
        _taper_scene(one, taper, show),
        jig=(stop, then, taper.off),
        lays=(lay,),
        does=(Plain(_where(one, taper, show)),),
        caution=_TAPER,
        legs=one.numbers,
        proofs=(proof_id("taper", *one.proof),),
        uses=tuple(Mark(Kind.FACES, leg_key(number)) for number in one.numbers),
    )
