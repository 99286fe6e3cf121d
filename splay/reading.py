"""Readings: the answers to proofs, and what they change."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from splay.errors import BadInput, Fault, shorten
from splay.parts.member import Built
from splay.quantity import Bare, read_angle, read_length
from splay.setups.scales import off_square, proving_scale, scale_of, stick_scale
from splay.shop import Scale, Shop, reading
from splay.stance.members import MemberStance
from splay.stance.staked import LegStance
from splay.work.proofs import KINDS, ProofKind, proof_id


@dataclass(frozen=True)
class Reading:
    """What was read for one proof: degrees on the proving scale, or mm; `sure` where the maker read it
    again and it stayed, however much it looks like a slip. `kind` is the proof's, where it is known."""

    proof: str
    value: float
    sure: bool = False
    kind: str = ""


def read_reading(
    proof: str, kind: ProofKind, given: object, shop: Shop, bare: Bare, field: str = ""
) -> Reading:
    """A reading from what was typed; BadInput where it cannot be one of its kind."""
    if kind.measures == "length":
        return Reading(proof, _length(kind, given, bare, field), kind=kind.name)
    shown = read_angle(given, field)
    name, scale = scale_of(kind, shop)
    if not kind.least <= off_square(scale, shown) <= kind.most:
        do = f"{name} shows {scale.at_square:g} at square and counts {scale.counts} from there."
        raise BadInput(Fault(field, shorten(given), "a lean outward on that scale", do))
    return Reading(proof, shown, kind=kind.name)


@dataclass(frozen=True)
class HowRead:
    """The scale an angle was read on, for good: what it shows at square, which way it counts, whose."""

    at_square: float
    counts: Literal["up", "down"]
    gauge: str

    @property
    def scale(self) -> Scale:
        """The same as a scale; how far it reaches and how finely it is divided was not kept."""
        return Scale.model_construct(at_square=self.at_square, counts=self.counts)


def how_read(kind: ProofKind, shop: Shop) -> HowRead | None:
    """What a shop reads an angle of that kind with; None for lengths, which read alike everywhere."""
    if kind.measures == "length":
        return None
    name, scale = scale_of(kind, shop)
    return HowRead(scale.at_square, scale.counts, name)


def as_shown_now(value: float, then: HowRead | None, kind: ProofKind, shop: Shop) -> float:
    """What the shop's present scale shows for an angle that was read as `value` on another.

    The lean itself is what was read: another tool, or another scale on it, changes how it is said and
    never what it was.
    """
    now = how_read(kind, shop)
    if now is None or then is None or (then.at_square, then.counts) == (now.at_square, now.counts):
        return value
    return reading(now.scale, off_square(then.scale, value))


def kind_named(name: str, field: str = "") -> ProofKind:
    """A kind of proof by its name; BadInput where there is none such."""
    kind = KINDS.get(name)
    if kind is None:
        do = "Answer one of the proofs on the piece's cards."
        raise BadInput(Fault(field, shorten(name), f"a kind of proof: {', '.join(KINDS)}", do))
    return kind


def with_unit(kind: ProofKind, typed: str, bare: Bare) -> str:
    """What was typed for a length, with the unit it meant: so it means the same whatever is shown."""
    if kind.measures == "angle" or not _BARE.fullmatch(typed):
        return typed
    return f"{typed.strip()} {'in' if bare == 'inch' else 'mm'}"


def written_down(kind: ProofKind, typed: str) -> str:
    """A kept answer as the log has it: an angle bears its sign there, among lengths."""
    return f"{typed.strip()}°" if kind.measures == "angle" and _BARE.fullmatch(typed) else typed


_BARE = re.compile(r"[-\s\d./,⁄½¼¾⅛⅜⅝⅞−]+")


def _length(kind: ProofKind, given: object, bare: Bare, field: str) -> float:
    length = read_length(given, bare, field)
    least = kind.least if kind.nought else max(kind.least, 0.0)
    if least <= length <= kind.most and (length != 0 or kind.nought):
        return length
    allowed = f"a {kind.named} above 0"
    if kind.least < 0:
        allowed = f"a {kind.named} of less than {kind.most:g} mm either way"
    elif kind.nought:
        allowed = f"a {kind.named} of 0 or more"
    do = "A foot that bears has 0." if kind.nought and kind.least == 0 else "Measure it again."
    raise BadInput(Fault(field, shorten(given), allowed, do))


def answers(readings: tuple[Reading, ...]) -> dict[str, float]:
    """Readings by proof, the last one counting."""
    return {r.proof: r.value for r in readings}


def bored(known: Mapping[str, float], shop: Shop, legs: Iterable[LegStance]) -> dict[str, float]:
    """Leg id to bored resultant in degrees, from the readings of its hole.

    Readings of legs that are no longer there rest.
    """
    scale = proving_scale(shop)[1]
    read = {leg.id: known.get(proof_id("bore", leg.id)) for leg in legs}
    return {id: off_square(scale, value) for id, value in read.items() if value is not None}


def built(known: Mapping[str, float], shop: Shop, runs: Iterable[MemberStance]) -> Built:
    """What was found of the stretchers, dry-fitted: gaps, sockets' obtuse walls, acute angles."""
    scale = stick_scale(shop)[1]
    gaps, walls, acutes = {}, {}, {}
    for run in runs:
        if (gap := known.get(proof_id("gap", run.id))) is not None:
            gaps[run.number] = gap
        for e in (0, 1):
            if (wall := known.get(proof_id("depth", run.id, f"{e + 1}"))) is not None:
                walls[run.number, e] = wall
            if (shown := known.get(proof_id("read", run.id, f"{e + 1}"))) is not None:
                acutes[run.number, e] = 90.0 - off_square(scale, shown)
    return Built(gaps, walls, acutes)


def fitted(known: Mapping[str, float], runs: Iterable[MemberStance]) -> bool:
    """Whether anything was read of the stretchers that other figures follow."""
    return any(
        proof_id(kind, run.id, *end) in known
        for run in runs
        for kind, end in (("gap", ()), *((k, (e,)) for k in ("read", "depth") for e in ("1", "2")))
    )
