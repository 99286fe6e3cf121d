"""Set-up cards and proofs for a top held by buttons: the groove in its parts, and the blocks themselves."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from splay.parts.stick import StickPart
from splay.piece import Piece
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import ButtonMade, Grooving
from splay.setups.slips import Slip
from splay.setups.words import counted
from splay.stance.buttons import BODY_MM, DRAWS_MM, SNUG_MM, Grooved
from splay.work.does import Do, Plain
from splay.work.joinery import Buttons, Groove
from splay.work.marks import Kind, Mark
from splay.work.phrases import listed
from splay.work.proofs import proof_id
from splay.work.takes import Deep, ToGroove

GROOVER = Bench("grooving", "Saw, router or plough plane")
BLOCKS = Bench("blocks", "Saw and chisel")
SQUARE_DEG = 0.005
NEAR_MM = 0.3
"""A step this near is near enough: it draws by a millimetre (common practice, no source)."""
_CARE = (
    "Several shallow passes; work held down and against the fence, never by hand over the cutter. Follow "
    "the tool's own manual."
)
_SMALL = "Saw them as one long strip and part them last: a button is too small to hold by hand at a saw."
Mates = list[tuple[StickPart, Grooved]]


def _alike(sticks: tuple[StickPart, ...], every: tuple[Grooved, ...]) -> list[Mates]:
    """Parts that are grooved in one breath: alike, and called alike on both sides."""
    by_key = {stick.key: stick for stick in sticks}
    found: dict[tuple[object, ...], Mates] = {}
    for one in every:
        names, stick = one.body.sides, by_key[one.body.key]
        key = (stick.alike, names.named(one.entry), names.named(one.upper), one.sharp, one.ends, one.begins)
        found.setdefault(key, []).append((stick, one))
    return list(found.values())


def groove_cards(sticks: tuple[StickPart, ...], every: tuple[Grooved, ...], show: Show) -> Iterator[SetUp]:
    """One card for each set of parts alike that are grooved."""
    for mates in _alike(sticks, every):
        stick, one = mates[0]
        names, key = one.body.sides, f"groove.{stick.key}"
        upper, turned = names.named(one.upper), one.turn > SQUARE_DEG
        edge = _edge(key, upper, one, show)
        told = f"all {len(mates)}" if len(mates) > 2 else listed(part.name for part, _ in mates)
        ends = show.length(one.ends) if one.ends is not None else None
        yield plain_card(
            key,
            "stretchers",
            "groove",
            GROOVER,
            f"Groove {counted(part for part, _ in mates)} for the {one.into.name}'s buttons",
            edge,
            f"Groove, from the {upper}",
            Grooving(
                edge.quantity.text, show.length(one.mouth).text, show.length(one.square).text,
                names.named(one.entry), upper, show.angle(one.turn).text if turned else "", one.sharp,
                one.into.name,
            ),
            setting=edge.quantity,
            does=(
                Groove(
                    tuple(part.key for part, _ in mates), told, names.named(one.entry), upper,
                    edge.quantity, show.length(one.mouth), show.length(one.square),
                    show.angle(one.turn) if turned else None, not one.sharp, ends,
                    show.length(one.begins) if one.begins else None,
                ),
                *((Plain("Stopped there, square or round as the cutter leaves it: joints lie beyond."),)
                  if ends else ()),
            ),
            caution=_CARE,
            parts=tuple(part.key for part, _ in mates),
            proofs=(proof_id("groove", stick.key),),
            uses=tuple(Mark(Kind.FACES, part.key) for part, _ in mates),
        )  # fmt: skip


def _edge(key: str, upper: str, one: Grooved, show: Show) -> Figure:
    return show.figure(
        f"{key}.edge",
        f"Groove's nearer edge, from the {upper}",
        one.edge,
        "d / cos λ",
        show.input("d", f"below the {one.into.name}", one.chosen.drop),
        show.input("λ", "the side, off square to the upper one", one.turn, "deg"),
        note="along the side it is cut in",
    )


def button_cards(
    piece: Piece,
    sticks: tuple[StickPart, ...],
    every: tuple[Grooved, ...],
    read: Mapping[str, float],
    show: Show,
) -> Iterator[SetUp]:
    """One card for each sort of button; its step follows the grooves as they were read."""
    for mates in _alike(sticks, every):
        stick, one = mates[0]
        key = f"buttons.{stick.key}"
        down, follows = _down(mates, read), _was_read(mates, read)
        step = show.figure(
            f"{key}.step",
            "Step, from its upper face to its tongue",
            down - DRAWS_MM,
            "d − f",
            show.input("d", f"groove below the {one.into.name}", down),
            show.input("f", "drawn down by", DRAWS_MM),
            note="from the groove as it was read" if follows else "",
        )
        count = sum(len(each.buttons) for _, each in mates)
        thick = down - DRAWS_MM + one.tongue
        turned = one.turn > SQUARE_DEG
        yield plain_card(
            key,
            "stretchers",
            "buttons",
            BLOCKS,
            f"Make {count} buttons for {counted(part for part, _ in mates)}",
            step,
            "Step, down to the tongue",
            ButtonMade(
                step.quantity.text, show.length(one.tongue).text, show.length(one.chosen.deep).text,
                show.length(thick).text, show.length(one.chosen.deep + BODY_MM).text,
            ),
            setting=step.quantity,
            does=(
                *((Plain("Made to the groove as it was read, not to the drawing."),) if follows else ()),
                *_made(one, step, thick, turned, show),
            ),
            jig=(_tongue(key, one, show), _screw(key, one, thick, show)),
            caution=_SMALL,
            parts=tuple(part.key for part, _ in mates),
            proofs=(proof_id("button", stick.key),),
        )  # fmt: skip


def _made(one: Grooved, step: Figure, thick: float, turned: bool, show: Show) -> Iterator[Do]:
    chosen = one.chosen
    yield Buttons(
        show.length(thick), show.length(chosen.wide), show.length(chosen.deep + BODY_MM),
        step.quantity, show.length(one.tongue), show.length(chosen.deep),
        show.angle(one.turn) if turned else None, not one.sharp,
    )  # fmt: skip
    yield Plain("A clear hole for the screw in the middle of what is left behind the tongue.")


def _tongue(key: str, one: Grooved, show: Show) -> Figure:
    return show.figure(
        f"{key}.tongue",
        "Tongue, thick",
        one.tongue,
        "g − s",
        show.input("g", "groove, wide", one.chosen.groove),
        show.input("s", "so that it slides", SNUG_MM),
    )


def _screw(key: str, one: Grooved, thick: float, show: Show) -> Figure:
    return show.figure(
        f"{key}.screw",
        "Its screw, under the head",
        thick + one.chosen.bite,
        "t + b",
        show.input("t", "button, thick", thick),
        show.input("b", f"into the {one.into.name}", one.chosen.bite),
        note="at most; a head let in asks for so much less",
    )


def _was_read(mates: Mates, read: Mapping[str, float]) -> bool:
    return any(proof_id("groove", part.key) in read for part, _ in mates)


def _down(mates: Mates, read: Mapping[str, float]) -> float:
    """How far the groove lies below the top, square to it: as it was read, else as chosen."""
    stick, one = mates[0]
    found = read.get(proof_id("groove", stick.key))
    return one.chosen.drop if found is None else found * deg.cos(one.turn)


def button_proofs(
    sticks: tuple[StickPart, ...], every: tuple[Grooved, ...], read: Mapping[str, float], ask: Asker
) -> Iterator[Proof]:
    """Where a groove came to lie, and a button's step after that; once for parts alike."""
    for mates in _alike(sticks, every):
        stick, one = mates[0]
        side, upper = one.body.sides.named(one.entry), one.body.sides.named(one.upper)
        edge = ask.show.length(one.edge)
        words = Words(
            f"Groove of the {stick.name}, from its {upper}", ToGroove(stick.key, side, upper),
            "the buttons' step is made after it", stick.key, "stretchers", "to the groove",
        )  # fmt: skip
        slips = [Slip(one.edge + one.mouth, "that is to its further edge")]
        yield ask.length(("groove", stick.key), edge, words, slips)
        down = _down(mates, read)
        step = Words(
            f"Button for the {stick.name}, its step",
            Deep(stick.key, "or of a caliper, from its upper face to its tongue"),
            "too deep a step draws nothing", stick.key, "stretchers", "button's step",
        )  # fmt: skip
        yield ask.hair(("button", stick.key), down - DRAWS_MM, NEAR_MM, step)
