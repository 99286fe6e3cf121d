"""Proofs of stretchers and ropes: both angles, the gap, the sockets, the stick as it was cut."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import chain

from splay.parts.making import eight_wide
from splay.parts.member import MemberPart
from splay.parts.rope import RopePart
from splay.piece import Piece, Stretcher
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof
from splay.setups.member_cards import socket_mark
from splay.setups.rope_cards import hole_mark
from splay.setups.slips import (
    Slip,
    angle_slips,
    gap_slips,
    length_slips,
    read_slips,
)
from splay.stance.members import MemberStance, acute
from splay.work.marks import member_key
from splay.work.takes import (
    EndToEnd,
    Gap,
    OneFace,
    Sticks,
    Wall,
)


def between_proofs(
    piece: Piece, members: tuple[MemberPart, ...], runs: tuple[MemberStance, ...], ask: Asker
) -> Iterator[Proof]:
    """Of each stretcher, dry-fitted: both angles, the gap, both sockets; and the stick as it was cut."""
    pairs = list(zip(members, runs, strict=True))
    for part, run in pairs:
        for e in (0, 1):
            yield _read(part, run, e, ask)
    for part, _ in pairs:
        words = Words(
            what=f"Clear gap for {part.name}",
            how=Gap(socket_mark(part, 0), socket_mark(part, 1)),
            matters="the stretcher is cut to this, not to the drawing",
            part=f"member.{part.number}",
            station="stretchers",
            short=part.name,
        )
        yield ask.length(("gap", part.id), part.gap.quantity, words, gap_slips(part, members))
    for part, _ in pairs:
        for e, end in enumerate(part.ends):
            words = Words(
                what=f"Socket of {part.name} in {end.into}, deep at its obtuse side",
                how=Wall(socket_mark(part, e)),
                matters="the tenon is as long as the hole is deep, not as it should be",
                part=f"member.{part.number}",
                station="stretchers",
                short=f"{part.name}, {end.into}",
            )
            yield ask.length(("depth", part.id, f"{e + 1}"), end.obtuse_wall.quantity, words)
    for part, _ in pairs:
        words = Words(
            what=f"{part.name[0].upper()}{part.name[1:]}, over all, as it was cut",
            how=EndToEnd(member_key(part.number)),
            matters="too long spreads the legs, too short leaves the socket empty",
            part=f"member.{part.number}",
            station="stretchers",
            short=part.name,
        )
        total = part.total.quantity
        slips = [Slip(part.gap.quantity.value, "that is the gap alone: without the sockets")]
        yield ask.length(("rail", part.id), total, words, chain(slips, length_slips(total.value)))
        chosen = piece.members[part.number - 1]
        if isinstance(chosen, Stretcher) and chosen.section == "octagon":
            words = Words(
                f"One of the eight faces of {part.name}, wide",
                OneFace(member_key(part.number)),
                "uneven faces are seen, and lie askew in the dry fit", f"member.{part.number}",
                "stretchers", f"{part.name}, a face",
            )  # fmt: skip
            yield ask.length(("octagon", part.id), ask.show.length(eight_wide(chosen.diameter)), words)


def _read(part: MemberPart, run: MemberStance, e: int, ask: Asker) -> Proof:
    """The acute angle between a stretcher and what it goes into, dry-fitted."""
    end = part.ends[e]
    words = Words(
        what=f"Angle between {part.name} and {end.into}, acute side",
        how=Sticks(socket_mark(part, e), False),
        matters="always the acute angle: one habit, no slips",
        part=f"member.{part.number}",
        station="stretchers",
        short=f"{part.name}, {end.into}",
    )
    slips = read_slips(ask.stick_scale, run, e)
    return ask.between(("read", part.id, f"{e + 1}"), acute(end.opening_on), words, slips)


def rope_proofs(ropes: tuple[RopePart, ...], ask: Asker) -> Iterator[Proof]:
    """A rod through each hole of a rope, against its leg."""
    for rope in ropes:
        for k, hole in enumerate(rope.holes):
            words = Words(
                what=f"Angle between a rod in the hole of {rope.name} and leg {hole.leg}, acute side",
                how=Sticks(hole_mark(rope, hole), True),
                matters="a hole that points past its neighbour chafes the rope",
                part=f"member.{rope.number}",
                station="stretchers",
                short=f"{rope.name}, leg {hole.leg}",
            )
            on = acute(hole.opening_on)
            slips = angle_slips(ask.stick_scale, 90.0 - on) if on < 89.0 else ()
            yield ask.between(("read", rope.id, rope.through[k]), on, words, slips)
