"""What one station shows of a plan: the head every station shares, and what is its own."""

from __future__ import annotations

from dataclasses import dataclass, field

from splay.changes import Change
from splay.draw import Station
from splay.judge import Finding
from splay.layout import Layout
from splay.level.told import LevelRound
from splay.opened import Opened, Work, open_cards, works
from splay.parts import LegPart, SocketPart
from splay.parts.assembly import Assembly
from splay.parts.member import MemberPart
from splay.parts.rope import RopePart
from splay.parts.stick import StickPart
from splay.plan import Plan
from splay.plan import Station as Notch
from splay.quantity import Figure, Quantity
from splay.setups.card import Proof, SetUp, Turn
from splay.setups.crosscut import station_of
from splay.summary import Batch, LegFigures, Look, Size

_BARE = Layout("underside", (), ())


@dataclass(frozen=True)
class Shown:
    """What a station shows of a plan; what belongs to another station is empty.

    The head: `chosen` holds each typed value of the piece by its path, as the maker reads it; `legs` the
    leans of legs set into the top; `numbering` how they are numbered, in words; `findings`, `stations`,
    `next` (the station to carry on at, None where nothing is left to prove) and `changes` (what readings
    moved). The rest is the station's own: `works` the list of its cards, `setups` those of the work that
    is open, all where nothing is said of that; `turns` what each leg's bit is turned by; `sizes` what the
    whole comes to, `looks` along which it is worth looking at; `layout` the marking-out; `parts` and
    `sockets` one entry a leg, in order; `sticks` the parts of square stock; `members` and `ropes` what runs
    between; `batches` how many legs to make of each kind, `counts` of other parts where several pieces are
    made; `assembly` the order it goes together in; `level` the passes of levelling; `lines` what stands in
    fields that are typed in lines, by their paths.
    """

    chosen: dict[str, Quantity]
    legs: tuple[LegFigures, ...]
    numbering: str
    findings: tuple[Finding, ...]
    stations: tuple[Notch, ...]
    next: Notch | None
    changes: tuple[Change, ...]
    works: tuple[Work, ...]
    setups: tuple[SetUp, ...]
    proofs: tuple[Proof, ...]
    sticks: tuple[StickPart, ...]
    sizes: tuple[Size, ...] = ()
    layout: Layout = _BARE
    parts: tuple[LegPart, ...] = ()
    sockets: tuple[SocketPart, ...] = ()
    turns: tuple[Turn, ...] = ()
    members: tuple[MemberPart, ...] = ()
    ropes: tuple[RopePart, ...] = ()
    batches: tuple[Batch, ...] = ()
    counts: tuple[Figure, ...] = ()
    assembly: Assembly | None = None
    level: tuple[LevelRound, ...] = ()
    looks: tuple[Look, ...] = ()
    lines: dict[str, str] = field(default_factory=dict)


_OWN: dict[Station, tuple[str, ...]] = {
    "rack": (),
    "stance": ("sizes", "looks"),
    "solid": ("sizes", "looks"),
    "top": ("layout", "lines"),
    "boring": ("sockets",),
    "legs": ("parts", "batches", "counts", "lines"),
    "stretchers": ("members", "ropes", "assembly", "counts"),
    "level": ("level",),
    "all": (
        "sizes", "layout", "parts", "sockets", "members", "ropes", "batches", "counts", "assembly", "level",
        "lines", "looks",
    ),
}  # fmt: skip
"""What a station shows besides the head. Its own cards, sticks and proofs come with it."""


def shown(plan: Plan, station: Station, opened: Opened | None = None) -> Shown:
    """What `station` shows of a plan and nothing else, worked out now; the whole of it for "all". Of its
    cards the one that is `opened`, all where nothing is said of that."""
    everything = station == "all"
    cards = plan.cards_at(station)
    closed = {"assembly"} if opened is not None and not opened.more else set()
    return Shown(
        chosen=plan.chosen,
        legs=plan.legs,
        numbering=plan.numbering,
        findings=plan.findings,
        stations=plan.stations,
        next=plan.next,
        changes=plan.changes,
        works=works(cards, opened),
        setups=open_cards(plan, station, opened),
        proofs=tuple(proof for proof in plan.proofs if everything or proof.station == station),
        sticks=tuple(stick for stick in plan.sticks if everything or station_of(stick.role) == station),
        turns=_turns(cards),
        **{name: getattr(plan, name) for name in _OWN[station] if name not in closed},
    )


def _turns(cards: tuple[SetUp, ...]) -> tuple[Turn, ...]:
    """What the cards of a station turn each leg by, once a leg, in order."""
    found = {turn.leg: turn for card in cards if card.station == "boring" for turn in card.turns}
    return tuple(found[leg] for leg in sorted(found))
