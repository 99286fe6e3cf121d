"""Cards for the stretchers themselves: their length and tenons, their ends' numbers, their own lines."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.making import eight_from
from splay.parts.member import MemberPart
from splay.piece import Piece, Stretcher
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.member_cards import end_called
from splay.setups.plain_card import PENCIL, Bench, plain_card
from splay.setups.scenes import EightSides, Marked, StretcherMade
from splay.shop import HandPlane, Shop
from splay.stance.member_flats import half_over_corners, named_member_faces
from splay.stance.members import MemberStance, acute
from splay.work.does import Along, Cut, Do, DrawLine, NameFaces, Plain, Write
from splay.work.joinery import Tenon
from splay.work.marks import Kind, Mark, member_key
from splay.work.proofs import proof_id

_ROUND = "Hold round stock in a V; hands 150 mm from a blade; follow the tool's own manual."
_FLAT = "Hold it flat and to the fence; hands 150 mm from a blade; follow the tool's own manual."
_PLANE = "Work against a stop; both hands on the plane."
MAKER = Bench("making", "Saw, and what makes its tenons")


def member_cut_cards(
    piece: Piece,
    parts: tuple[MemberPart, ...],
    stances: tuple[MemberStance, ...],
    shop: Shop,
    show: Show,
) -> Iterator[SetUp]:
    """Each stretcher cut to its own length, tenoned and numbered; the faces of one with flats named, a
    line on round ones that carry others."""
    runs = {run.number: run for run in stances}
    carries = {end.member for part in parts for end in part.ends if end.member}
    for part in parts:
        chosen = piece.members[part.number - 1]
        assert isinstance(chosen, Stretcher)
        yield _cut(part, chosen, show)
        yield from _eight_sides(part, chosen, shop, show)
        if chosen.section != "round":
            yield _faces(part, chosen, runs[part.number])
        elif part.number in carries:
            yield _line(part, show)


def ring_deep(part: MemberPart, chosen: Stretcher, e: int) -> float:
    """From a stretcher's end to its depth ring: it vanishes first at the socket's shallow wall, mm."""
    on = acute(part.ends[e].opening_on)
    slant = chosen.tenon / 2.0 / deg.tan(on) if on < 90.0 - 1e-9 else 0.0
    return part.tenons[e].quantity.value - slant


def _cut(part: MemberPart, chosen: Stretcher, show: Show) -> SetUp:
    key = member_key(part.number)
    ends = [end_called(part, e) for e in (0, 1)]
    does: list[Do] = [
        Cut(part.name, part.total.quantity),
        Write(
            (Mark(Kind.ENDS, key),),
            f"Write on both ends which stretcher it is; on one “first, {ends[0]}”, on the other “second, "
            f"{ends[1]}”.",
        ),
    ]
    for e in (0, 1):
        on = acute(part.ends[e].opening_on)
        # A shoulder square to the stick must clear the slanted mouth on its shallow side.
        extra = half_over_corners(chosen) / deg.tan(on) if on < 90.0 - 1e-9 else 0.0
        thicker = chosen.diameter > chosen.tenon + 0.5
        long = part.tenons[e].quantity.value + (extra if thicker else 0.0)
        does.append(Tenon(part.name, ends[e], show.length(chosen.tenon), show.length(long)))
    for e in (0, 1):
        mark = Mark(Kind.SHOULDER, key, str(e + 1))
        at = show.length(ring_deep(part, chosen, e))
        does.append(Along((mark,), part.name, ends[e], "stretcher", at, ring=True, what="depth ring"))
    does.append(Plain("Each tenon tried in its own socket: half way by hand, the rest driven."))
    return plain_card(
        f"member.{part.id}.making",
        "stretchers",
        "member_cut",
        MAKER,
        f"Cut and tenon {part.name}",
        part.total,
        "Cut it to, over all",
        StretcherMade(
            part.total.quantity.text,
            part.tenons[0].quantity.text,
            part.tenons[1].quantity.text,
            ends[0],
            ends[1],
        ),
        does=tuple(does),
        caution=_ROUND if chosen.section == "round" else _FLAT,
        parts=(key,),
        legs=tuple(sorted({end.leg for end in part.ends if end.leg})),
        proofs=(proof_id("rail", part.id),),
        makes=(
            Mark(Kind.ENDS, key),
            *(Mark(Kind.SHOULDER, key, str(e + 1)) for e in (0, 1)),
        ),
    )


def _eight_sides(part: MemberPart, chosen: Stretcher, shop: Shop, show: Show) -> Iterator[SetUp]:
    """Eight sides alike on a stretcher, planed from square stock as on a leg."""
    if chosen.section != "octagon":
        return
    gauge = eight_from(f"member.{part.number}.octagon", chosen.diameter, show)
    for tool in shop.owned():
        if isinstance(tool, HandPlane):
            yield plain_card(
                f"member.{part.id}.octagon", "stretchers", "member_octagon", tool,
                f"Eight sides on {part.name}", gauge, "Gauge from each edge",
                EightSides(gauge.quantity.text, show.length(chosen.diameter).text),
                does=(
                    Plain("Gauge from both edges of all four faces; plane the corners off to the lines."),
                    Plain("Its tenons first, while the stock is square."),
                ),
                caution=_PLANE,
                parts=(member_key(part.number),),
                proofs=(proof_id("octagon", part.id),),
            )  # fmt: skip


def _faces(part: MemberPart, chosen: Stretcher, run: MemberStance) -> SetUp:
    """The names of a stretcher's faces, written where it lies, dry, the seat upside down."""
    key = member_key(part.number)
    mark = Mark(Kind.FACES, key)
    a, b, c, d = (name for name, _ in named_member_faces(run.u))
    flat = "eight sides" if chosen.section == "octagon" else "sides"
    return plain_card(
        f"member.{part.id}.line",
        "stretchers",
        "floor_side",
        PENCIL,
        f"Name the faces of {part.name}",
        part.total,
        "From end to end",
        Marked(a, 2, end_called(part, 0), end_called(part, 1)),
        does=(
            Plain(
                "Seat upside down on a flat bench, the legs dry in it, this stretcher dry in its legs, "
                f"turned until one of its {flat} looks straight up."
            ),
            NameFaces(
                (mark,),
                part.name,
                (a, b, c, d),
                end_called(part, 0),
                chosen.section == "octagon",
                f"The {a} is the one on top, away from the seat.",
            ),
        ),
        parts=(key,),
        uses=(Mark(Kind.ENDS, key),),
        makes=(mark,),
    )


def _line(part: MemberPart, show: Show) -> SetUp:
    """The line of a stretcher that faces the floor: drawn where it lies, dry, the seat upside down."""
    key = member_key(part.number)
    mark = Mark(Kind.FLOOR_SIDE, key)
    figure = part.total
    return plain_card(
        f"member.{part.id}.line",
        "stretchers",
        "floor_side",
        PENCIL,
        f"Draw the floor-side line on {part.name}",
        figure,
        "From end to end",
        Marked("floor-side line", 2, end_called(part, 0), end_called(part, 1)),
        does=(
            Plain("Seat upside down on a flat bench, the legs dry in it, this stretcher dry in its legs."),
            DrawLine(
                (mark,),
                part.name,
                "floor",
                "a pencil laid level along its top, end to end: the floor-side line, away from the seat.",
            ),
        ),
        parts=(key,),
        uses=(Mark(Kind.ENDS, key),),
        makes=(mark,),
    )  # fmt: skip
