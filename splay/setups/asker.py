"""Makes proofs: the question in one maker's units, the answer it has, what is to be thought of it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass

from splay.quantity import Quantity, Show
from splay.setups.card import Proof
from splay.setups.scales import proving_scale, sawn_scale, stick_scale
from splay.setups.slips import LIKE_DEG, LIKE_MM, Slip, angle_slips, far_off, length_slips, slip_of
from splay.shop import Scale, Shop, reading
from splay.work.proofs import KINDS, proof_id
from splay.work.takes import Take
from splay.work.takes_said import how

Key = tuple[str, ...]
"""A proof's kind, and the ids of what it is taken on."""
NEAR_DEG = 0.5
"""A bored hole within half a degree counts as true (common practice, no source)."""
NEAR_MM = 1.0
"""A leg within a millimetre counts as true, since levelling comes after (common practice, no source)."""
ENOUGH = 4
"""From this many readings of one kind on a maker has a spread of their own (common practice, no source)."""
UNUSUAL = 3.0
"""A reading off by this many times the maker's own spread is unusual for them."""


@dataclass(frozen=True)
class Spread:
    """How far one maker's readings of one kind lie from what was expected: root mean square, and how
    many they were; mm or degrees."""

    rms: float
    count: int


@dataclass(frozen=True)
class Words:
    """The words of a proof and where it belongs: what is measured, how (words, or how it is taken as
    data), why it matters, on which part, at which station, what its field is called, which leg."""

    what: str
    how: str | Take
    matters: str
    part: str
    station: str
    short: str
    leg: int = 0


class Asker:
    """Makes one proof after another from a shop's gauges, a maker's units, answers and spreads; answers
    that are `sure` are no slips."""

    def __init__(
        self,
        shop: Shop,
        show: Show,
        answers: Mapping[str, float],
        spreads: Mapping[str, Spread] | None = None,
        sure: frozenset[str] = frozenset(),
    ) -> None:
        self.show, self.answers, self.spreads, self.sure = show, answers, spreads or {}, sure
        self.gauge, self.scale = proving_scale(shop)
        self.sticks, self.stick_scale = stick_scale(shop)
        self.sawn_on, self.sawn_scale = sawn_scale(shop)

    def length(
        self, key: Key, expected: Quantity, words: Words, slips: Iterable[Slip] | None = None
    ) -> Proof:
        """Measured with a rule; `expected` in mm."""
        near = self.show.length(NEAR_MM)
        found = length_slips(expected.value) if slips is None else slips
        # What is expected is said as that length is said everywhere; what was read, as closely as it was.
        told = self.show.length(expected.value)
        return self._proof(key, "rule", told, near, self.show.closely, words, LIKE_MM, found)

    def hair(self, key: Key, expected_mm: float, near_mm: float, words: Words) -> Proof:
        """Measured with a gauge or a caliper, where a hair matters; mm."""
        expected, near = self.show.fine(expected_mm), self.show.fine(near_mm)
        on, slips = "rule, height gauge or caliper", length_slips(expected_mm)
        return self._proof(key, on, expected, near, self.show.fine, words, LIKE_MM, slips)

    def angle(self, key: Key, lean: float, words: Words, slips: Iterable[Slip] | None) -> Proof:
        """Read on whatever the shop proves angles with; `lean` off square, degrees."""
        found = angle_slips(self.scale, lean) if slips is None else slips
        return self._angle(key, self.gauge, self.scale, lean, words, found)

    def sawn(self, key: Key, lean: float, words: Words) -> Proof:
        """Read with a bevel gauge on a sawn line, `lean` degrees off square."""
        slips = angle_slips(self.sawn_scale, lean)
        return self._angle(key, self.sawn_on, self.sawn_scale, lean, words, slips)

    def between(self, key: Key, acute: float, words: Words, slips: Iterable[Slip]) -> Proof:
        """The angle between two sticks, read with a protractor; `acute` in degrees."""
        return self._angle(key, self.sticks, self.stick_scale, 90.0 - acute, words, slips)

    def _angle(
        self, key: Key, gauge: str, scale: Scale, lean: float, words: Words, slips: Iterable[Slip]
    ) -> Proof:
        expected, near = self.show.angle(reading(scale, lean)), self.show.angle(NEAR_DEG)
        return self._proof(key, gauge, expected, near, self.show.angle, words, LIKE_DEG, slips)

    def _proof(
        self,
        key: Key,
        read_on: str,
        expected: Quantity,
        near: Quantity,
        shown: Callable[[float], Quantity],
        words: Words,
        like: float,
        slips: Iterable[Slip],
    ) -> Proof:
        id = proof_id(*key)
        value = self.answers.get(id)
        answer = None if value is None else shown(value)
        off = None if answer is None else shown(answer.value - expected.value)
        spread = self.spreads.get(key[0])
        known = spread is not None and spread.count >= ENOUGH
        slip = ""
        if answer is not None and id not in self.sure:
            slip = slip_of(answer.value, expected.value, near.value, like, slips)
            rms = spread.rms if spread and known else None
            if off is not None and not slip and far_off(off.value, near.value, KINDS[key[0]].measures, rms):
                slip = f"that is {shown(abs(off.value)).text} off, more than work goes wrong by"
        return Proof(
            id=id,
            kind=key[0],
            dry=KINDS[key[0]].dry,
            of=key[1:],
            leg=words.leg,
            what=words.what,
            how=words.how if isinstance(words.how, str) else how.registry[type(words.how)](words.how),
            take=None if isinstance(words.how, str) else words.how,
            read_on=read_on,
            expected=expected,
            near=near,
            matters=words.matters,
            answer=answer,
            off=off,
            verdict="slip" if slip else _verdict(off, near),
            part=words.part,
            station=words.station,
            short=words.short,
            slip=slip,
            usual=self.show.fine(spread.rms)
            if spread and known and near.unit == "mm"
            else self.show.angle(spread.rms, 2)
            if spread and known
            else None,
            unusual=bool(
                off and spread and known and abs(off.value) > max(near.value, UNUSUAL * spread.rms)
            ),
        )


def _verdict(off: Quantity | None, near: Quantity) -> str:
    if off is None:
        return ""
    return "fine" if abs(off.value) <= near.value + 1e-9 else "off"
