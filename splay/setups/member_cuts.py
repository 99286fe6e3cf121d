"""Cards for the stretchers themselves: their length and tenons, their ends' numbers, their own lines."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.member import MemberPart
from splay.piece import Piece, Stretcher
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.member_cards import end_called
from splay.setups.plain_card import PENCIL, Bench, plain_card
from splay.setups.scenes import Marked, StretcherMade
from splay.stance.members import acute
from splay.work.does import Along, Cut, Do, DrawLine, Plain, Write
from splay.work.joinery import Tenon
from splay.work.marks import Kind, Mark, member_key
from splay.work.proofs import proof_id

_SAW = "Hold round stock in a V; hands 150 mm from a blade; follow the tool's own manual."
MAKER = Bench("making", "Saw, and what makes its tenons")


def member_cut_cards(piece: Piece, parts: tuple[MemberPart, ...], show: Show) -> Iterator[SetUp]:
    """Each stretcher cut to its own length, tenoned and numbered; a line on those that carry others."""
    carries = {end.member for part in parts for end in part.ends if end.member}
    for part in parts:
        chosen = piece.members[part.number - 1]
        assert isinstance(chosen, Stretcher)
        yield _cut(part, chosen, show)
        if part.number in carries:
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
        extra = chosen.diameter / 2.0 / deg.tan(on) if on < 90.0 - 1e-9 else 0.0
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
        caution=_SAW,
        parts=(key,),
        legs=tuple(sorted({end.leg for end in part.ends if end.leg})),
        proofs=(proof_id("rail", part.id),),
        makes=(
            Mark(Kind.ENDS, key),
            *(Mark(Kind.SHOULDER, key, str(e + 1)) for e in (0, 1)),
        ),
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
