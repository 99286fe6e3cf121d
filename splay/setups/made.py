"""What a piece is made of, worked out from its stance: each thing once, and only when it is asked for."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cached_property

from splay.layout import Check, Layout, checks_of, lay_out
from splay.parts import LegPart, SocketPart, leg_part, socket_part
from splay.parts.bent import Bent, bent_sticks
from splay.parts.member import Hooks, MemberPart
from splay.parts.reused import Trim, trims
from splay.parts.rope import RopePart, rope_part
from splay.parts.stick import StickPart, stick_part
from splay.piece import Piece
from splay.quantity import Show
from splay.setups.crosscut import Cut, cuts
from splay.setups.leg_sets import LegSet, leg_sets
from splay.shop import Shop
from splay.stance.buttons import Grooved, grooves
from splay.stance.holding import Fastening, fastenings
from splay.stance.meets import Meets, meets
from splay.stance.members import MemberStance, RopeStance
from splay.stance.splines import Splined, splined
from splay.stance.staked import Stance
from splay.stance.through import Through, through_dowels


@dataclass(frozen=True)
class Made:
    """A piece between its stance and its cards: what cards, proofs, drawings and judgement are made from.

    `planned` is where everything is meant to be, `real` where it is by what was read; holes are bored to
    the one, everything cut later to the other. `runs` and `lines` are the stretchers and ropes of `real`,
    `members` the stretchers to cut, `hooks` where ropes' holes come; `read` are the readings that
    anything follows, by proof (mm; degrees on the scale they were read on).
    """

    piece: Piece
    shop: Shop
    show: Show
    planned: Stance
    real: Stance
    runs: tuple[MemberStance, ...]
    lines: tuple[RopeStance, ...]
    members: tuple[MemberPart, ...]
    hooks: Hooks
    read: dict[str, float] = field(default_factory=dict)

    def checked(self) -> Made:
        """Itself. CannotBuild where a part has no end that could be sawn: said at once, not when it is
        looked at."""
        _ = self.legs, self.sticks
        return self

    @cached_property
    def legs(self) -> tuple[LegPart, ...]:
        """Legs to cut, in the order of their numbers."""
        return tuple(leg_part(self.piece, leg, self.real.floor, self.show) for leg in self.real.legs)

    @cached_property
    def trims(self) -> tuple[Trim, ...]:
        """What comes off sticks that were measured one by one."""
        return trims(self.piece, self.real, self.legs, self.runs, self.lines)

    @cached_property
    def bent(self) -> tuple[Bent, ...]:
        """Of those what is not straight."""
        return tuple(bent_sticks(self.piece, self.trims, self.legs))

    @cached_property
    def sockets(self) -> tuple[SocketPart, ...]:
        """The hole of each leg."""
        return tuple(
            socket_part(self.piece, leg, self.shop.bit_for(leg.bore.size), self.show)
            for leg in self.real.legs
        )

    @cached_property
    def sticks(self) -> tuple[StickPart, ...]:
        """Parts of square stock, one a body of the stance."""
        return tuple(stick_part(body, self.show) for body in self.real.bodies)

    @cached_property
    def ropes(self) -> tuple[RopePart, ...]:
        """Ropes to bore for and to cut."""
        return tuple(rope_part(self.piece, line, self.show, self.hooks) for line in self.lines)

    @cached_property
    def checks(self) -> tuple[Check, ...]:
        """The cross-checks of the marking-out."""
        return checks_of(self.piece, self.planned, self.show)

    @cached_property
    def layout(self) -> Layout:
        """The marking-out of the top."""
        return lay_out(self.piece, self.planned, self.checks, self.show)

    @cached_property
    def cuts(self) -> tuple[Cut, ...]:
        """Sawn ends of square stock, alike ones together."""
        return cuts(self.sticks, self.real.bodies)

    @cached_property
    def sets(self) -> tuple[LegSet, ...]:
        """Legs made alike."""
        return leg_sets(self.piece, self.real, self.legs)

    @cached_property
    def screws(self) -> tuple[Fastening, ...]:
        """What holds the top down with screws."""
        return fastenings(self.piece, self.real)

    @cached_property
    def grooved(self) -> tuple[Grooved, ...]:
        """What holds it with buttons."""
        return grooves(self.piece, self.real)

    @cached_property
    def joins(self) -> tuple[Meets, ...]:
        """Where ends come to lie on the parts they join."""
        return meets(self.piece, self.real)

    @cached_property
    def through_dowels(self) -> tuple[Through, ...]:
        """Dowels driven from outside into sawn ends."""
        return through_dowels(self.piece, self.joins)

    @cached_property
    def through(self) -> tuple[Splined, ...]:
        """Splines through the top."""
        return splined(self.piece, self.real)
