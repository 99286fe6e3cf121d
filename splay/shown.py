"""What one station shows of a plan: the head every station shares, and what is its own."""

from __future__ import annotations

from dataclasses import replace

from splay.draw import Station
from splay.layout import Layout
from splay.plan import Plan
from splay.setups.crosscut import station_of

_OWN: dict[Station, frozenset[str]] = {
    "rack": frozenset(),
    "stance": frozenset({"sizes"}),
    "solid": frozenset({"sizes"}),
    "top": frozenset({"layout"}),
    "boring": frozenset({"sockets"}),
    "legs": frozenset({"parts", "batches", "counts"}),
    "stretchers": frozenset({"members", "ropes", "assembly", "counts"}),
    "level": frozenset({"level"}),
}
"""The fields of a plan that a station shows besides the head: what was chosen, the stations, what was
found, how the legs lean and what readings changed. Its own cards, sticks and proofs come with it."""
_BARE = Layout("underside", (), ())


def shown(plan: Plan, station: Station) -> Plan:
    """The plan with what `station` shows and nothing else; the whole of it for "all"."""
    if station == "all":
        return plan
    own = _OWN[station]
    return replace(
        plan,
        sizes=plan.sizes if "sizes" in own else (),
        layout=plan.layout if "layout" in own else _BARE,
        parts=plan.parts if "parts" in own else (),
        sockets=plan.sockets if "sockets" in own else (),
        sticks=tuple(stick for stick in plan.sticks if station_of(stick.role) == station),
        members=plan.members if "members" in own else (),
        ropes=plan.ropes if "ropes" in own else (),
        batches=plan.batches if "batches" in own else (),
        counts=plan.counts if "counts" in own else (),
        level=plan.level if "level" in own else (),
        assembly=plan.assembly if "assembly" in own else None,
        setups=tuple(card for card in plan.setups if card.station == station),
        proofs=tuple(proof for proof in plan.proofs if proof.station == station),
    )
