"""plan(): from what was chosen, whose tools and what was measured, to everything to set and cut."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from functools import cached_property

from splay.changes import Change, changes
from splay.judge import Finding, Whole, judge
from splay.layout import Layout
from splay.level.feet import Foot, feet_of
from splay.level.now import State
from splay.level.proofs import level_proofs
from splay.level.rounds import Level, level
from splay.level.told import LevelRound
from splay.level.ways import asks_in_all
from splay.parts import LegPart, SocketPart
from splay.parts.assembly import Assembly, assembly
from splay.parts.member import MemberPart, hooks_of, member_part
from splay.parts.rope import RopePart
from splay.parts.stick import StickPart
from splay.piece import Piece
from splay.piece.lines import lines
from splay.quantity import Figure, Quantity, Show
from splay.reading import Reading, answers, bored, built, fitted
from splay.setups.asker import Asker, Spread
from splay.setups.card import Proof, SetUp
from splay.setups.cards import Cards
from splay.setups.made import Made
from splay.setups.proofs import all_proofs, doubted
from splay.shop import Shop
from splay.stance.members import members
from splay.stance.staked import Stance, stand
from splay.summary import (
    Batch,
    LegFigures,
    Look,
    Size,
    batches,
    chosen,
    counted,
    leg_figures,
    looks,
    numbering,
    sizes,
)
from splay.work.proofs import KINDS


@dataclass(frozen=True)
class Station:
    """A notch of the story stick: how many proofs it asks for and how many are answered."""

    name: str
    title: str
    proofs: int
    answered: int
    off: int


def plan(
    piece: Piece,
    shop: Shop,
    readings: Iterable[Reading] = (),
    *,
    levelling: bool = True,
    live: bool = False,
    spreads: Mapping[str, Spread] | None = None,
) -> Plan:
    """The plan of a piece in a shop, given the readings taken so far.

    Settings and expected values come from the stance as planned; lengths and feet from the
    holes as they were read. The same input gives the same plan. BadInput names a reading that
    answers no proof; CannotBuild a choice that cannot stand. Without `levelling` the passes of
    levelling are only counted, unless one of them was measured: a drag of a leg has no use for them.
    `live` is for a drag under way: no cards, no proofs, no stations, and nothing found that hangs on them.
    `spreads` are the maker's own, by the kind of proof.
    """
    show = Show(shop.rounding.units())
    planned = stand(piece)
    taken = tuple(readings)
    known = answers(taken)
    ask = Asker(shop, show, known, spreads, frozenset(r.proof for r in taken if r.sure))
    wrong = doubted(piece, planned, (), (), ask)
    read = bored(_without(known, wrong), shop, planned.legs)
    real = stand(piece, read) if read else planned
    runs, lines = members(piece, real)
    hooks = hooks_of(piece, real.legs, runs)
    rungs = tuple(member_part(piece, run, runs, show, hooks=hooks) for run in runs)
    if fitted(known, runs):
        wrong |= doubted(piece, planned, runs, rungs, ask)
        found = built(_without(known, wrong), shop, runs)
        hooks = hooks_of(piece, real.legs, runs, found)
        rungs = tuple(member_part(piece, run, runs, show, found, hooks) for run in runs)
    made = Made(piece, shop, show, planned, real, runs, lines, rungs, hooks, _without(known, wrong))
    return Plan(made.checked(), ask, taken, spreads or {}, levelling, live)


@dataclass(frozen=True)
class Plan:
    """Everything worked out for one piece, each thing once and only when it is asked for.

    `made` is what the piece is made of, `taken` the readings; `levelling` and `live` say how far it is
    planned, see plan().
    """

    made: Made
    ask: Asker = field(compare=False)
    taken: tuple[Reading, ...]
    spreads: Mapping[str, Spread] = field(default_factory=dict)
    levelling: bool = True
    live: bool = False

    @property
    def piece(self) -> Piece:
        """What was chosen."""
        return self.made.piece

    @property
    def stance(self) -> Stance:
        """The bare geometry by what was read, for drawings."""
        return self.made.real

    @property
    def known(self) -> Mapping[str, float]:
        """The readings by proof, doubted ones too."""
        return self.ask.answers

    @cached_property
    def chosen(self) -> dict[str, Quantity]:
        """Each typed value of the piece by its path, as the maker reads it."""
        return chosen(self.piece, self.made.show)

    @cached_property
    def lines(self) -> dict[str, str]:
        """What stands in the fields that are typed in lines, by their paths."""
        return lines(self.piece, self.made.show)

    @cached_property
    def sizes(self) -> tuple[Size, ...]:
        """What the whole comes to."""
        return sizes(self.piece, self.stance, self.made.show)

    @cached_property
    def legs(self) -> tuple[LegFigures, ...]:
        """The leans of legs set into the top."""
        return tuple(leg_figures(self.piece, leg, self.made.show) for leg in self.stance.legs)

    @cached_property
    def looks(self) -> tuple[Look, ...]:
        """The directions worth looking along at the whole."""
        return looks(self.stance)

    @cached_property
    def numbering(self) -> str:
        """How legs are numbered, in words."""
        return numbering(self.made.planned)

    @property
    def layout(self) -> Layout:
        """The marking-out."""
        return self.made.layout

    @property
    def parts(self) -> tuple[LegPart, ...]:
        """The legs to cut, in order."""
        return self.made.legs

    @property
    def sockets(self) -> tuple[SocketPart, ...]:
        """The hole of each leg, in order."""
        return self.made.sockets

    @property
    def sticks(self) -> tuple[StickPart, ...]:
        """The parts of square stock."""
        return self.made.sticks

    @property
    def members(self) -> tuple[MemberPart, ...]:
        """The stretchers to cut."""
        return self.made.members

    @property
    def ropes(self) -> tuple[RopePart, ...]:
        """The ropes that run between."""
        return self.made.ropes

    @cached_property
    def batches(self) -> tuple[Batch, ...]:
        """How many legs to make of each kind."""
        return batches(self.piece, self.parts, self.made.trims, self.made.show)

    @cached_property
    def counts(self) -> tuple[Figure, ...]:
        """What there is to make of squared parts and of stretchers, where more than one piece is made."""
        if self.piece.make == 1:
            return ()
        sorts = (
            ("sticks", "Squared parts to make", len(self.sticks)),
            ("members", "Stretchers to make", len(self.members)),
        )
        show = self.made.show
        return tuple(counted(key, label, many, self.piece, show) for key, label, many in sorts if many)

    @cached_property
    def cards(self) -> Cards:
        """The cards, each family of them made when it is asked for."""
        return Cards(self.made)

    @cached_property
    def setups(self) -> tuple[SetUp, ...]:
        """The cards, in the order of hands."""
        return () if self.live else self.cards.all

    def cards_at(self, station: str) -> tuple[SetUp, ...]:
        """The cards one station shows; every card for "all"."""
        return self.setups if self.live or station == "all" else self.cards.at(station)

    @cached_property
    def proofs(self) -> tuple[Proof, ...]:
        """What to measure, in the order of work; levelling's last."""
        return (*self._before_level, *self._levelled[1])

    @property
    def level(self) -> tuple[LevelRound, ...]:
        """The passes of levelling, empty where they were not asked for."""
        return self._levelled[0].rounds

    @cached_property
    def assembly(self) -> Assembly | None:
        """The order it goes together in."""
        made = self.made
        return assembly(
            self.piece, made.real.bodies, made.real.legs, made.legs, made.runs, made.members, made.show
        )

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """What was found, what would spoil the piece first."""
        resting = () if self.live else self._resting
        cards = () if self.live else self.cards.doubtful
        return judge(Whole(self.made, cards, self.proofs, self.level, self.spreads, self.assembly, resting))

    @cached_property
    def stations(self) -> tuple[Station, ...]:
        """The notches of the story stick."""
        return () if self.live else _stations(self.piece, self.stance, self.proofs)

    @property
    def next(self) -> Station | None:
        """The station to carry on at; None where nothing is left to prove."""
        return carry_on(self.stations, self.level)

    @cached_property
    def changes(self) -> tuple[Change, ...]:
        """What readings moved: worked out only where something was read that later figures follow."""
        made, known = self.made, self.known
        if made.real is made.planned and not fitted(known, made.runs):
            return ()
        before = members(self.piece, made.planned)[0] if made.real is not made.planned else made.runs
        was = tuple(member_part(self.piece, run, before, made.show) for run in before)
        return changes(made.planned, made.real, was, made.members, known, made.show)

    @cached_property
    def _before_level(self) -> tuple[Proof, ...]:
        return () if self.live else all_proofs(self.made, self.ask)

    @property
    def states(self) -> tuple[State, ...]:
        """How the piece stands in each pass of levelling, by the readings the passes follow."""
        return self._levelled[2]

    @cached_property
    def _levelled(self) -> tuple[Level, tuple[Proof, ...], tuple[State, ...]]:
        """The passes, what they ask, how the piece stands in each; a reading that a slip explains better
        moves no later pass."""
        wanted = self.levelling or any(r.kind and KINDS[r.kind].station == "level" for r in self.taken)
        if self.live or not wanted:
            return Level((), (), ()), (), ()
        made = self.made
        feet = feet_of(self.piece, made.real)
        slips = _slips(self._before_level)
        passes, states = self._passes(slips, feet)
        asked = tuple(level_proofs(self.piece, passes, feet, self.ask))
        if more := _slips(asked):
            passes, states = self._passes(slips | more, feet)
        return passes, asked, states

    def _passes(self, slips: frozenset[str], feet: tuple[Foot, ...]) -> tuple[Level, tuple[State, ...]]:
        made, read = self.made, _without(self.made.read, slips)
        return level(self.piece, made.real, made.legs, made.sticks, made.shop, made.show, read, feet=feet)

    @property
    def _resting(self) -> tuple[str, ...]:
        """The kinds of the readings that answer nothing asked now."""
        asked = {proof.id for proof in self.proofs}
        return tuple(reading.kind for reading in self.taken if reading.proof not in asked)


def _without(known: Mapping[str, float], ids: frozenset[str]) -> dict[str, float]:
    """What was read, without what waits to be read again: nothing follows that."""
    return {id: value for id, value in known.items() if id not in ids}


def _slips(proofs: Iterable[Proof]) -> frozenset[str]:
    return frozenset(proof.id for proof in proofs if proof.verdict == "slip")


def carry_on(stations: tuple[Station, ...], rounds: tuple[LevelRound, ...]) -> Station | None:
    """The station to go on at: the first with a proof to take, from the last one that was begun. What was
    passed over before it does not hold the work; once the feet are good enough nothing does."""
    if any(one.good for one in rounds):
        return None
    begun = [k for k, one in enumerate(stations) if one.answered]
    ahead = stations[begun[-1] :] if begun else stations
    return next((one for one in ahead if one.answered < one.proofs), None)


def _stations(piece: Piece, stance: Stance, proofs: tuple[Proof, ...]) -> tuple[Station, ...]:
    """The notches this piece has: no boring where nothing is bored, no stretchers where none could be."""
    rails = any(body.role in {"cross", "rail", "link", "apron", "tread"} for body in stance.bodies)
    names = [("stance", "Stance"), ("top", "Top")]
    if stance.legs:
        names.append(("boring", "Boring"))
    names.append(("legs", "Legs"))
    if rails or stance.legs:
        names.append(("stretchers", "Stretchers"))
    made = []
    names.append(("level", "Level"))
    for name, title in names:
        mine = [proof for proof in proofs if proof.station == name]
        answered = sum(proof.answer is not None for proof in mine)
        off = sum(proof.verdict in ("off", "slip") for proof in mine)
        asked = len(mine) or (asks_in_all(piece, stance) if name == "level" else 0)
        # Every foot of a levelling is off before it is cut: that is its job, and no fault.
        made.append(Station(name, title, asked, answered, 0 if name == "level" else off))
    return tuple(made)
