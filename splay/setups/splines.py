"""Set-up cards and proofs for splines through the top: notches, mortises, and the splines themselves."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.stick import StickPart
from splay.piece import Piece
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.crosscut import end_name
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import SplineSeen
from splay.setups.words import counted
from splay.stance.body import Body
from splay.stance.splines import Splined
from splay.work.does import Do, Plain
from splay.work.joinery import EndNotches, MakeSplines, Mortises
from splay.work.marks import Kind, Mark, lettered
from splay.work.phrases import listed
from splay.work.proofs import proof_id
from splay.work.takes import Deep, Mortised

NOTCHER = Bench("notching", "Saw and chisel")
CHOPPER = Bench("chopping", "Drill and chisel")
MAKER = Bench("blocks", "Saw and plane")
_PARE = "Chisel away from the holding hand, the work clamped."
_SMALL = "Saw them from one long strip and part them last: one is too small to hold by hand at a saw."
FACES = ("underside", "upper face")


def _sets(every: tuple[Splined, ...]) -> dict[int, list[Splined]]:
    found: dict[int, list[Splined]] = {}
    for one in every:
        found.setdefault(one.support, []).append(one)
    return found


def spline_cards(
    piece: Piece, sticks: tuple[StickPart, ...], every: tuple[Splined, ...], show: Show
) -> Iterator[SetUp]:
    """For each support with splines: the boards' notches, the top's mortises, then the splines."""
    by_key = {stick.key: stick for stick in sticks}
    for index, mine in _sets(every).items():
        boards = list({one.body.key: one for one in mine}.values())
        parts = [by_key[one.body.key] for one in boards]
        on = piece.supports[index].id
        yield _notches(on, mine, boards[0].body, parts, show)
        yield _mortises(on, mine, show)
        yield _made(on, mine, parts, show)


def _seen(one: Splined, show: Show) -> SplineSeen:
    return SplineSeen(
        show.length(one.chosen.depth).text, show.length(one.thick).text, show.angle(one.lean).text,
        show.length(one.outer - one.inner).text,
    )  # fmt: skip


def _notches(on: str, mine: list[Splined], board: Body, parts: list[StickPart], show: Show) -> SetUp:
    one, key = mine[0], f"spline_notch.{on}"
    sides = board.sides
    # The edge in front: both boards call it so, and splines are counted from there.
    front = -board.width / 2
    cheeks = tuple(
        (show.length(each.low - front), show.length(each.high - front))
        for each in mine if each.body.key == board.key
    )  # fmt: skip
    return plain_card(
        key,
        "legs",
        "spline_notch",
        NOTCHER,
        f"Notch {counted(parts)} for splines",
        show.figure(
            f"{key}.deep",
            "Notch, down the outer face",
            one.chosen.depth,
            "as chosen",
            show.input("d", "down the outer face", one.chosen.depth),
        ),
        "Down the outer face",
        _seen(one, show),
        does=(
            EndNotches(
                tuple(part.key for part in parts), listed(part.name for part in parts),
                end_name(board.role, "start"), "front edge", sides.face, cheeks,
                show.length(one.chosen.depth),
            ),
            Plain("Saw the cheeks inside the lines, clear the waste from both faces, pare flat."),
        ),
        caution=_PARE,
        parts=tuple(part.key for part in parts),
        proofs=(proof_id("spline_notch", on),),
        uses=tuple(Mark(Kind.FACES, part.key) for part in parts),
    )  # fmt: skip


def _mortises(on: str, mine: list[Splined], show: Show) -> SetUp:
    one, key = mine[0], f"spline_mortise.{on}"
    drawn = [Plain("Carry both middle lines over the edges onto the upper face.")]
    does: list[Do] = [*drawn, *(_drawn(mine, face, side, show) for face in FACES for side in (-1, 1))]
    leans = "The walls lean with the boards: on the upper face they lie nearer to the middle"
    return plain_card(
        key,
        "top",
        "spline_mortise",
        CHOPPER,
        f"Mortise the top for {len(mine)} splines",
        show.figure(
            f"{key}.shift",
            "Nearer to the middle on the upper face",
            one.outer - one.outer_up,
            "T · tan ψ",
            show.input("T", "top, thick", one.through),
            show.input("ψ", "the boards' splay", one.lean, "deg"),
        ),
        "Nearer to the middle above, by",
        _seen(one, show),
        does=(
            *does,
            Plain(f"{leans}. Clear them with a drill, then chop from both faces to the middle."),
        ),
        jig=(_walls(key, one, show),),
        caution=_PARE,
        proofs=(proof_id("spline_mortise", on),),
        uses=lettered(),
    )


def _drawn(mine: list[Splined], face: str, side: int, show: Show) -> Mortises:
    here = [one for one in mine if one.side == side]
    above = face != "underside"
    one = here[0]
    near, far = (one.inner_up, one.outer_up) if above else (one.inner, one.outer)
    return Mortises(
        face,
        "RIGHT" if side > 0 else "LEFT",
        show.length(near),
        show.length(far),
        tuple((show.length(each.low), show.length(each.high)) for each in here),
    )


def _walls(key: str, one: Splined, show: Show) -> Figure:
    return show.figure(
        f"{key}.walls",
        "Walls and face, bevel gauge",
        90.0 - one.lean,
        "90° − ψ",
        show.input("ψ", "the boards' splay", one.lean, "deg"),
        unit="deg",
        note="to look down a wall with",
    )


def _made(on: str, mine: list[Splined], parts: list[StickPart], show: Show) -> SetUp:
    one, key = mine[0], f"splines.{on}"
    long = show.figure(
        f"{key}.long",
        "Spline, long",
        one.long,
        "d + T / cos ψ + t · tan ψ + m",
        show.input("d", "notch, down the outer face", one.chosen.depth),
        show.input("T", "top, thick", one.through),
        show.input("ψ", "the boards' splay", one.lean, "deg"),
        show.input("t", "spline, thick", one.thick),
        show.input("m", "to stand out and be sawn off", one.long - one.chosen.depth - one.thick
                   * deg.tan(one.lean) - one.through / deg.cos(one.lean)),
    )  # fmt: skip
    return plain_card(
        key,
        "legs",
        "splines",
        MAKER,
        f"Make {len(mine)} splines for {counted(parts)}",
        long,
        "Spline, long",
        _seen(one, show),
        does=(
            MakeSplines(
                len(mine), show.length(one.chosen.width), show.length(one.thick), long.quantity
            ),
            Plain("Tried in notch and mortise: they go in under the hand, not loose."),
        ),
        caution=_SMALL,
        parts=tuple(part.key for part in parts),
    )  # fmt: skip


def spline_proofs(piece: Piece, every: tuple[Splined, ...], ask: Asker) -> Iterator[Proof]:
    """How deep the notches are and how wide the mortises, once for each support."""
    for index, mine in _sets(every).items():
        on, one = piece.supports[index].id, mine[0]
        words = Words(
            "Notches for splines, deep", Deep(on, "down the outer face, at both cheeks"),
            "too shallow and the top stands off its boards", one.body.key, "legs", "notch, deep",
        )  # fmt: skip
        yield ask.length(("spline_notch", on), ask.show.length(one.chosen.depth), words)
        wide = Words(
            "Mortise for a spline, on the underside", Mortised(on, "underside"),
            "wider than the spline it lets the top rock", "top", "top", "mortise, wide",
        )  # fmt: skip
        yield ask.length(("spline_mortise", on), ask.show.length(one.outer - one.inner), wide)
