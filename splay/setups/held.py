"""Set-up cards and proofs for holding the top: screws from below, their holes, slots and depths."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.stick import StickPart
from splay.quantity import Figure, Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.crosscut import end_name
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import TopHeld
from splay.setups.slips import Slip
from splay.setups.words import counted
from splay.stance.body import Side
from splay.stance.holding import Fastening
from splay.work.does import Bit, Do, FromEdge, FromMiddle, Plain, Widened
from splay.work.lays import IntoSide
from splay.work.marks import Kind, Mark
from splay.work.phrases import listed
from splay.work.proofs import proof_id
from splay.work.takes import StandsOut

DRILL = Bench("drilling", "Drill, and a stop on the bit")
PILOT_SHARE = 0.7
"""A pilot in the top is this share of the thread (common practice, no source): tight enough to pull."""
SKATES_DEG = 60.0
"""A bit that meets a face flatter than this does not start by itself (common practice, no source)."""
_CARE = "Clamp the part; the wider bit first: after the thin one it has nothing to centre on."
Mates = list[tuple[StickPart, list[Fastening]]]


def fixing(one: Fastening) -> Mark:
    """A screw's place on its part."""
    return Mark(Kind.FIXING, one.body.key, str(one.number))


def _alike(sticks: tuple[StickPart, ...], screws: tuple[Fastening, ...]) -> list[Mates]:
    """Parts whose screws are told in one breath: alike, named alike, with the same slots."""
    by_key = {stick.key: stick for stick in sticks}
    own: dict[str, list[Fastening]] = {}
    for one in screws:
        own.setdefault(one.body.key, []).append(one)
    found: dict[tuple[object, ...], Mates] = {}
    for key, mine in own.items():
        names = mine[0].body.sides
        told = tuple((round(one.along, 3), round(one.wide, 3), one.slot) for one in mine)
        alike = (by_key[key].alike, names.named(mine[0].entry), names.named(mine[0].upper), told)
        found.setdefault(alike, []).append((by_key[key], mine))
    return list(found.values())


def held_cards(sticks: tuple[StickPart, ...], screws: tuple[Fastening, ...], show: Show) -> Iterator[SetUp]:
    """One card for each set of parts alike that the top is screwed to."""
    for mates in _alike(sticks, screws):
        stick, mine = mates[0]
        one = mine[0]
        names = one.body.sides
        key = f"hold.{stick.key}"
        leans = one.toward is not None
        yield plain_card(
            key,
            "stretchers",
            "hold",
            DRILL,
            f"Bore {counted(part for part, _ in mates)} for the {one.into.name}'s screws",
            _sunk(key, one, show),
            "Head let in, along the screw",
            TopHeld(
                show.length(max(0.0, one.sunk)).text,
                show.length(one.screw.bite).text,
                show.length(one.clear if one.slot else one.wide).text,
                names.named(one.entry),
                show.angle(one.between).text if leans else "",
                one.into.name,
            ),
            setting=show.length(max(0.0, one.sunk)),
            lays=(
                IntoSide(
                    tuple(fixing(screw) for _, some in mates for screw in some),
                    names.named(one.entry),
                    show.angle(one.between),
                    names.named(one.toward) if one.toward is not None else "",
                ),
            ),
            does=tuple(_does(mates, show)),
            jig=(_through(key, one, show), _pilot(key, one, show)),
            caution=_CARE,
            parts=tuple(part.key for part, _ in mates),
            proofs=(proof_id("held", stick.key),),
            uses=tuple(Mark(Kind.FACES, part.key) for part, _ in mates),
            makes=tuple(fixing(screw) for _, some in mates for screw in some),
        )


def _sunk(key: str, one: Fastening, show: Show) -> Figure:
    screw = one.screw
    return show.figure(
        f"{key}.sunk",
        "Head let in, along the screw",
        one.sunk,
        "w − (L − b)",
        show.input("w", "wood along it, to the underside", one.through),
        show.input("L", "screw, under its head", screw.length),
        show.input("b", f"into the {one.into.name}", screw.bite),
    )


def _through(key: str, one: Fastening, show: Show) -> Figure:
    left = one.through - one.sunk
    return show.figure(
        f"{key}.left",
        "Wood left under the head",
        left,
        "L − b",
        show.input("L", "screw, under its head", one.screw.length),
        show.input("b", f"into the {one.into.name}", one.screw.bite),
    )


def _pilot(key: str, one: Fastening, show: Show) -> Figure:
    return show.figure(
        f"{key}.pilot",
        f"Pilot in the {one.into.name}, thick",
        PILOT_SHARE * one.screw.size,
        "0.7 · d",
        show.input("d", "screw over its thread", one.screw.size),
        note=f"no deeper than {show.length(one.screw.bite).text}, along the screw",
    )


def _does(mates: Mates, show: Show) -> Iterator[Do]:
    stick, mine = mates[0]
    one, names = mine[0], mine[0].body.sides
    named = f"all {len(mates)}" if len(mates) > 2 else listed(part.name for part, _ in mates)
    entry, upper = names.named(one.entry), names.named(one.upper)
    ends = (end_name(stick.role, "start"), end_name(stick.role, "finish"))
    for out, marks in _by_distance(mates):
        toward = tuple((mark, ends[0] if along < 0.0 else ends[1]) for mark, along in marks)
        yield FromMiddle(toward, named, entry, upper, show.length(out))
    every = tuple(fixing(screw) for _, some in mates for screw in some)
    yield FromEdge(every, named, entry, names.named(one.marked_from), show.length(one.edge))
    # Where all are alike the bits are as wide as the room to move asks for; slots are filed afterwards.
    alike = len({(screw.wide, screw.slot) for _, some in mates for screw in some}) == 1
    round_ = alike and not one.slot
    if one.between < SKATES_DEG:
        yield Plain(
            "So flat on the face a bit skates: start it in a hole bored through a scrap block at this "
            "slant, clamped over the mark."
        )
    yield Bit(show.length(one.seat if round_ else one.screw.head), show.length(max(0.0, one.sunk)), None)
    yield Bit(show.length(one.wide if round_ else one.clear), None, None)
    yield from _slots(mates, alike, show)
    yield Plain(
        f"The screw falls through: its thread holds in the {one.into.name} alone, and its head pulls that "
        "down."
    )


def _by_distance(mates: Mates) -> list[tuple[float, list[tuple[Mark, float]]]]:
    """Marks by how far they lie from the middle, nearest first."""
    found: dict[float, list[tuple[Mark, float]]] = {}
    for _, some in mates:
        for screw in some:
            found.setdefault(round(abs(screw.along), 6), []).append((fixing(screw), screw.along))
    return sorted(found.items())


def _slots(mates: Mates, alike: bool, show: Show) -> Iterator[Widened]:
    """Holes that leave the top room to move, those of one width and distance together."""
    found: dict[tuple[float, float, bool], list[Fastening]] = {}
    for _, some in mates:
        for screw in some:
            if screw.room > 0.0:
                found.setdefault((round(abs(screw.along), 6), screw.wide, screw.slot), []).append(screw)
    for (out, wide, slot), screws in sorted(found.items(), key=lambda one: one[0]):
        one = screws[0]
        yield Widened(
            tuple(fixing(screw) for screw in screws),
            show.length(wide),
            show.length(one.seat),
            None if slot else show.length(one.washer),
            show.length(out),
            alike,
        )


def held_proofs(
    sticks: tuple[StickPart, ...], screws: tuple[Fastening, ...], ask: Asker
) -> Iterator[Proof]:
    """What a screw put in dry stands out: that much goes into the top, once for parts alike."""
    for mates in _alike(sticks, screws):
        stick, mine = mates[0]
        screw = mine[0].screw
        words = Words(
            f"Screw in the {stick.name}, standing out", StandsOut(stick.key, _upper(mine[0])),
            f"too far and its point comes through the {mine[0].into.name}", stick.key, "stretchers",
            "screw stands out",
        )  # fmt: skip
        slips = [Slip(screw.length, "that is the whole screw")]
        yield ask.length(("held", stick.key), ask.show.length(screw.bite), words, slips)


def _upper(one: Fastening) -> str:
    side: Side = one.upper
    return one.body.sides.named(side)
