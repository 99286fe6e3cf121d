"""What readings changed: figures of parts as they were planned and as they are now."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from splay.parts.member import MemberPart
from splay.quantity import Quantity, Show
from splay.stance.staked import Stance
from splay.work.proofs import proof_id

NOTICED_MM = 0.05
NOTICED_DEG = 0.05


@dataclass(frozen=True)
class Change:
    """One figure moved by readings. `because` names the readings, `cut` says that the part is cut
    already and so stays as it is, `said` what follows from that; `of` is the sort of part that moved."""

    of: Literal["leg", "member"]
    part: str
    what: str
    was: Quantity
    now: Quantity
    because: tuple[str, ...]
    cut: bool
    said: str


def changes(
    planned: Stance,
    real: Stance,
    before: tuple[MemberPart, ...],
    after: tuple[MemberPart, ...],
    known: Mapping[str, float],
    show: Show,
) -> tuple[Change, ...]:
    """Everything downstream of the readings that is no longer as it was planned."""
    return (*_legs(planned, real, known, show), *_members(real, before, after, known, show))


def _legs(planned: Stance, real: Stance, known: Mapping[str, float], show: Show) -> Iterator[Change]:
    for was, now in zip(planned.legs, real.legs, strict=True):
        id = proof_id("bore", was.id)
        if id not in known:
            continue
        cut = proof_id("foot", was.id) in known
        if abs(now.exposed - was.exposed) >= NOTICED_MM:
            yield Change(
                "leg",
                f"leg.{was.number}",
                f"leg {was.number}, from underside to floor",
                show.fine(was.exposed),
                show.fine(now.exposed),
                (id,),
                cut,
                "cut already: levelling takes it up" if cut else "cut it to the new length",
            )
        moved = math.dist(was.foot_floor[:2], now.foot_floor[:2])
        if moved >= NOTICED_MM:
            yield Change(
                "leg",
                f"leg.{was.number}",
                f"foot of leg {was.number}, from the middle",
                show.fine(math.hypot(*was.foot_floor[:2])),
                show.fine(math.hypot(*now.foot_floor[:2])),
                (id,),
                False,
                f"it stands {show.fine(moved).text} from where it was drawn",
            )


def _members(
    real: Stance,
    before: tuple[MemberPart, ...],
    after: tuple[MemberPart, ...],
    known: Mapping[str, float],
    show: Show,
) -> Iterator[Change]:
    bored = {leg.number for leg in real.legs if leg.measured}
    ids = {leg.number: leg.id for leg in real.legs}
    for was, now in zip(before, after, strict=True):
        gap = proof_id("gap", now.id)
        own = [gap, proof_id("depth", now.id, "1"), proof_id("depth", now.id, "2")]
        because = [id for id in own if id in known]
        if gap not in known:
            because += [proof_id("bore", ids[end.leg]) for end in now.ends if end.leg in bored]
        cut = proof_id("rail", now.id) in known
        off = now.total.quantity.value - was.total.quantity.value
        if because and abs(off) >= NOTICED_MM:
            yield Change(
                "member",
                f"member.{now.number}",
                f"{now.name}, over all",
                show.fine(was.total.quantity.value),
                show.fine(now.total.quantity.value),
                tuple(because),
                cut,
                "cut already: see what it came out to" if cut else "cut it to this",
            )
        for e in (0, 1):
            a, b = was.ends[e].read.quantity, now.ends[e].read.quantity
            moved = [proof_id("bore", ids[end.leg]) for end in now.ends if end.leg in bored]
            if moved and abs(a.value - b.value) >= NOTICED_DEG:
                yield Change(
                    "member",
                    f"member.{now.number}",
                    f"{now.name} at {now.ends[e].into}, acute angle",
                    show.angle(a.value, 2),
                    show.angle(b.value, 2),
                    tuple(moved),
                    proof_id("read", now.id, f"{e + 1}") in known,
                    "read it dry-fitted before boring",
                )
