"""Every card of a piece, in the order of hands: a mark is made before anything leans on it.

A family of cards is one entry of `FAMILIES`; only what a station shows is made for it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from functools import cached_property

from splay.setups import reach
from splay.setups.bent import bent_cards
from splay.setups.boring import boring_cards
from splay.setups.buttons import button_cards, groove_cards
from splay.setups.card import SetUp
from splay.setups.crosscut import crosscut_cards
from splay.setups.dress import dress_cards
from splay.setups.foot import foot_cards
from splay.setups.hand_holds import hand_hold_cards
from splay.setups.held import held_cards
from splay.setups.hollows import hollow_cards
from splay.setups.joins import join_cards, on_lines
from splay.setups.leg_ends import leg_end_cards
from splay.setups.leg_marks import leg_mark_cards, slot_cards
from splay.setups.leg_shapes import leg_shape_cards
from splay.setups.made import Made
from splay.setups.member_cards import member_cards
from splay.setups.member_cuts import member_cut_cards
from splay.setups.mouths import mouth_cards
from splay.setups.outside import outside_cards
from splay.setups.pegs import peg_cards, peg_find_cards
from splay.setups.reused import reused_cards
from splay.setups.rope_cards import rope_cards
from splay.setups.shaping import shaping_cards
from splay.setups.side_tapers import side_taper_cards
from splay.setups.splines import spline_cards
from splay.setups.stick_tenons import stick_tenon_cards
from splay.setups.sweeps import sweep_cards
from splay.setups.through import through_cards
from splay.setups.wedge_cards import wedge_cards


@dataclass(frozen=True)
class Cards:
    """The cards of a piece on the tools of its shop, each family made once and when it is asked for.
    CannotBuild, then, where no jig could be made."""

    made: Made
    _done: dict[Family, tuple[SetUp, ...]] = field(default_factory=dict, compare=False)

    @cached_property
    def all(self) -> tuple[SetUp, ...]:
        """Every card there is, in the order of hands."""
        return tuple(card for family in FAMILIES for card in self.of(family))

    @property
    def doubtful(self) -> tuple[SetUp, ...]:
        """All there are of those families of which some card may be past its tool's reach."""
        doubted = (family for family in FAMILIES if family in self._done or family.may_miss(self.made))
        return tuple(card for family in doubted for card in self.of(family))

    def at(self, station: str) -> tuple[SetUp, ...]:
        """What one station shows."""
        mine = (family for family in FAMILIES if station in family.stations)
        return tuple(card for family in mine for card in self.of(family) if card.station == station)

    def of(self, family: Family) -> tuple[SetUp, ...]:
        """One family's."""
        if family not in self._done:
            self._done[family] = tuple(family.cards(self))
        return self._done[family]

    @cached_property
    def shaped(self) -> tuple[SetUp, ...]:
        """What is ripped, bevelled, notched and jointed of square stock."""
        made = self.made
        return shaping_cards(made.piece, made.sticks, made.real.bodies, made.shop, made.show)

    @cached_property
    def met(self) -> tuple[SetUp, ...]:
        """Sockets that stretchers go into."""
        return member_cards(self.made.piece, self.made.members, self.made.shop, self.made.show)


@dataclass(frozen=True, eq=False)
class Family:
    """Cards of one sort: the `stations` they may stand at, whether one may be past its tool's reach."""

    stations: tuple[str, ...]
    cards: Callable[[Cards], Iterable[SetUp]]
    may_miss: Callable[[Made], bool] = reach.never


def _of_piece(cards: Callable[..., Iterable[SetUp]], *asks: str) -> Callable[[Cards], Iterable[SetUp]]:
    """A family made from the piece and what a Made has by those names, shown as the maker rounds."""

    def family(all_: Cards) -> Iterable[SetUp]:
        made = all_.made
        return cards(made.piece, *(getattr(made, name) for name in asks), made.show)

    return family


def _of_legs(cards: Callable[..., Iterable[SetUp]], *asks: str) -> Callable[[Cards], Iterable[SetUp]]:
    return _of_piece(cards, "real", "legs", *asks)


def _ripped(all_: Cards) -> Iterable[SetUp]:
    return (card for card in all_.shaped if card.operation == "rip")


def _jointed(all_: Cards) -> Iterable[SetUp]:
    return on_lines((card for card in all_.shaped if card.operation != "rip"), all_.made.joins)


def _crosscut(all_: Cards) -> Iterable[SetUp]:
    made = all_.made
    return crosscut_cards(made.sticks, made.real.bodies, made.shop, made.show)


def _stick_tenons(all_: Cards) -> Iterable[SetUp]:
    made = all_.made
    return stick_tenon_cards(made.piece, made.sticks, made.real.bodies, made.show)


def _tapered(all_: Cards) -> Iterable[SetUp]:
    made = all_.made
    return side_taper_cards(made.sticks, made.real.bodies, made.shop, made.show)


def _through(all_: Cards) -> Iterable[SetUp]:
    return through_cards(all_.made.sticks, all_.made.through_dowels, all_.made.show)


def _ropes(all_: Cards) -> Iterable[SetUp]:
    return rope_cards(all_.made.ropes, all_.made.shop, all_.made.show)


_EITHER = ("legs", "stretchers")

FAMILIES = (
    Family(("top",), _of_piece(hand_hold_cards), reach.hand_holds),
    Family(("boring",), _of_piece(boring_cards, "planned", "shop"), reach.boring),
    Family(("boring",), _of_piece(mouth_cards, "planned", "shop")),
    Family(("top",), _of_piece(dress_cards)),
    Family(("top",), _of_piece(hollow_cards)),
    Family(("boring",), _of_piece(peg_find_cards, "planned")),
    Family(("boring",), _of_piece(peg_cards, "planned", "shop"), reach.pegs),
    Family(("legs",), _of_piece(reused_cards, "trims")),
    Family(("legs",), _of_piece(bent_cards, "bent")),
    Family(("legs",), _of_legs(leg_shape_cards, "shop"), reach.tenons),
    Family(("legs",), _of_legs(leg_mark_cards, "shop")),
    Family(("legs",), _of_legs(leg_end_cards, "shop"), reach.leg_ends),
    Family(("legs",), _of_legs(slot_cards, "shop")),
    Family(("legs",), _of_legs(wedge_cards)),
    Family(("legs",), _of_legs(foot_cards, "shop"), reach.feet),
    # Ripped first: lengths are taken along the bevelled corners.
    Family(_EITHER, _ripped, reach.bevels),
    Family(_EITHER, _crosscut, reach.ends),
    Family(_EITHER, _stick_tenons),
    Family(_EITHER, lambda all_: join_cards(all_.made.sticks, all_.made.joins, all_.made.show)),
    Family(_EITHER, _jointed, reach.slots),
    Family(("top", *_EITHER), _of_piece(spline_cards, "sticks", "through")),
    Family(_EITHER, lambda all_: held_cards(all_.made.sticks, all_.made.screws, all_.made.show)),
    Family(_EITHER, lambda all_: groove_cards(all_.made.sticks, all_.made.grooved, all_.made.show)),
    Family(_EITHER, _of_piece(outside_cards, "sticks")),
    Family(_EITHER, _through),
    Family(_EITHER, lambda all_: sweep_cards(all_.made.sticks, all_.made.real.bodies, all_.made.show)),
    # Tapered last: joints are cut from sides that run straight.
    Family(_EITHER, _tapered),
    Family(("stretchers",), lambda all_: (card for card in all_.met if card.legs), reach.members),
    Family(("stretchers",), _ropes, reach.members),
    Family(("stretchers",), _of_piece(member_cut_cards, "members", "runs", "shop")),
    Family(("stretchers",), lambda all_: (card for card in all_.met if not card.legs), reach.members),
    Family(_EITHER, _of_piece(button_cards, "sticks", "grooved", "read")),
)
"""In the order of hands."""
