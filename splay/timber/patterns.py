"""The best way to rip and crosscut one section of a board, for what each blank is worth at the moment."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from random import Random

import numpy as np
from numpy.typing import NDArray

from splay.timber.sawing import THIN, Cut, Lane, Ripped, Saw, Section, Want, leftovers

Floats = NDArray[np.float64]
LITRE = 1e6
"""Cubic millimetres in a litre: losses are counted in litres."""
LEFT_COUNTS = 0.25
"""A leftover that is kept counts as lost by this share of it: it is worth less than a whole board (common
practice, no source)."""

EARLY = (0.0, 0.0, 0.0, 0.2)
"""How often a run is left before it is full where luck is tried: not at all, three times of four."""


@dataclass(frozen=True)
class Pattern:
    """One section as it is sawn: how many of each want come out, and what is lost, litres (leftovers by
    their share)."""

    ripped: Ripped
    counts: Mapping[str, int]
    loss: float


@dataclass(frozen=True)
class _Fit:
    """One want in one board: how wide and thick it lies, how long its blank is with its kerf."""

    want: Want
    wide: float
    thick: float
    step: int


class Yields:
    """What the runs of a section's lanes can yield; worked out for whole millimetres, rounded so that what
    fits here fits in the wood."""

    def __init__(self, section: Section, wants: Sequence[Want], saw: Saw) -> None:
        self.section, self.saw = section, saw
        self.fits = [
            _Fit(want, *way, step=int(np.ceil(want.length + saw.kerf - THIN)))
            for want in wants
            if (way := want.lies(section.board)) is not None and want.length <= section.length + THIN
        ]
        self.classes = sorted({round(fit.wide, 3) for fit in self.fits})
        self._most = int(section.length + saw.kerf) + 1

    def fill(self, wide: float, worth: Mapping[str, float]) -> tuple[Floats, NDArray[np.int64]]:
        """The best worth (litres, less what narrower and thinner blanks lose) of exactly so many mm used in
        a lane, by mm; and for each mm which blank was put last (its index, or -1)."""
        mine = [fit for fit in self.fits if fit.wide <= wide + THIN]
        best = np.full(self._most + 1, -np.inf)
        last = np.full(self._most + 1, -1, dtype=np.int64)
        best[0] = 0.0
        if not mine:
            return best, last
        thickness = self.section.board.thickness
        gains = []
        for fit in mine:
            beside = (wide - fit.wide) * thickness + fit.wide * (thickness - fit.thick)
            kerf = self.saw.kerf * wide * thickness
            gains.append(worth.get(fit.want.key, 0.0) - (beside * fit.want.length + kerf) / LITRE)
        least = min(fit.step for fit in mine)
        # Up to the shortest blank ahead everything that is looked back at is known: a stretch at once.
        for begin in range(least, self._most + 1, least):
            end = min(begin + least, self._most + 1)
            for index, (fit, gain) in enumerate(zip(mine, gains, strict=True)):
                low = max(begin, fit.step)
                if low >= end:
                    continue
                tried = best[low - fit.step : end - fit.step] + gain
                better = tried > best[low:end] + 1e-12
                best[low:end] = np.where(better, tried, best[low:end])
                last[low:end] = np.where(better, index, last[low:end])
        return best, last

    def _rest(self, wide: float) -> Floats:
        """What is lost of a lane's rest (litres) by its mm."""
        rest = np.arange(self._most + 1, dtype=np.float64)
        kept = (rest >= self.saw.keep) & (wide >= self.saw.keep_wide)
        return rest * np.where(kept, LEFT_COUNTS, 1.0) * wide * self.section.board.thickness / LITRE

    def best(self, worth: Mapping[str, float]) -> tuple[float, Pattern] | None:
        """The pattern that is worth most after its loss; None where nothing is cut. Lanes are stacked from
        the near edge, or begin where a flaw ends."""
        section, saw, board = self.section, self.saw, self.section.board
        tables = {wide: (self.fill(wide, worth)[0], self._rest(wide)) for wide in self.classes}
        # A lane may begin past a flaw, far enough for the kerf that takes it off.
        begins = sorted({bad.high for bad in section.bad if bad.high < board.width})
        known: dict[float, tuple[float, tuple[tuple[float, float], ...]]] = {}
        seen: dict[tuple[float, float], float | None] = {}

        def strip(low: float, high: float) -> float:
            wide = high - low
            kept = wide >= saw.keep_wide and section.length >= saw.keep
            return wide * section.length * board.thickness * (LEFT_COUNTS if kept else 1.0) / LITRE

        def from_(edge: float) -> tuple[float, tuple[tuple[float, float], ...]]:
            """The best from an edge on: its worth and the lanes (low, width)."""
            at = round(edge, 3)
            if at in known:
                return known[at]
            found: tuple[float, tuple[tuple[float, float], ...]]
            found = (-strip(min(edge, board.width), board.width), ())
            # A strip may be left whole before a lane, as wide as another lane would be.
            skipped = [edge + wide + saw.kerf for wide in self.classes]
            for low in [edge, *skipped, *(b for b in begins if b >= edge + saw.kerf)]:
                for wide in self.classes:
                    high = low + wide
                    if high > board.width + THIN:
                        break
                    place = (low, wide)
                    if place not in seen:
                        seen[place] = self._lane(low, high, tables[wide])
                    here = seen[place]
                    if here is None:
                        continue
                    after, lanes = from_(high + saw.kerf)
                    kerf = saw.kerf * section.length * board.thickness / LITRE
                    before = strip(edge, low - saw.kerf) + kerf if low > edge else 0.0
                    whole = here + after - before - (kerf if high < board.width - THIN else 0.0)
                    if whole > found[0] + 1e-12:
                        found = (whole, ((low, wide), *lanes))
            known[at] = found
            return found

        value, lanes = from_(0.0)
        if not lanes:
            return None
        return value, self._pattern(lanes, worth)

    def _lane(self, low: float, high: float, table: tuple[Floats, Floats]) -> float | None:
        """The worth of one lane; None where nothing can be cut from it."""
        best, rest = table
        total, any_cut, sound = 0.0, False, 0.0
        for begins, ends in self.section.runs(low, high):
            run = int(ends - begins + THIN)
            sound += ends - begins
            value, used = self._run(run, best, rest)
            total, any_cut = total + value, any_cut or used > 0
        if not any_cut:
            return None
        wide = high - low
        return total - (self.section.length - sound) * wide * self.section.board.thickness / LITRE

    def _run(self, run: int, best: Floats, rest: Floats) -> tuple[float, int]:
        """The best worth of a run and how many mm of it are used, kerfs and all."""
        # The last kerf may fall beyond the run's end.
        most = min(run + int(self.saw.kerf), self._most)
        gains = best[: most + 1].copy()
        left = np.maximum(run - np.arange(most + 1), 0)
        gains -= rest[left]
        used = int(np.argmax(gains))
        return float(gains[used]), used

    def _pattern(self, lanes: Sequence[tuple[float, float]], worth: Mapping[str, float]) -> Pattern:
        made = []
        for low, wide in lanes:
            best, last = self.fill(wide, worth)
            mine = [fit for fit in self.fits if fit.wide <= wide + THIN]
            cuts: list[Cut] = []
            for begins, ends in self.section.runs(low, low + wide):
                _, used = self._run(int(ends - begins + THIN), best, self._rest(wide))
                picked = []
                while used > 0 and last[used] >= 0:
                    picked.append(mine[last[used]])
                    used -= picked[-1].step
                x = begins
                for fit in sorted(picked, key=lambda fit: -fit.want.length):
                    cuts.append(self._cut(fit, x, low))
                    x += fit.want.length + self.saw.kerf
            made.append(Lane(low, low + wide, tuple(cuts)))
        return pattern(Ripped(self.section, tuple(made)), self.fits_by_key, self.saw)

    @property
    def fits_by_key(self) -> dict[str, tuple[float, float]]:
        """How wide and thick each want lies here."""
        return {fit.want.key: (fit.wide, fit.thick) for fit in self.fits}

    def _cut(self, fit: _Fit, x: float, low: float) -> Cut:
        return Cut(self.section.board.id, fit.want.key, x, low, fit.want.length, fit.wide)

    def greedy(self, left: Mapping[str, int], luck: Random | None = None) -> Pattern | None:
        """A section filled with what is still wanted and no more: largest first, or as luck has it."""
        still = dict(left)
        section, saw, board = self.section, self.saw, self.section.board
        lanes: list[Lane] = []
        edge = 0.0
        order = sorted(self.fits, key=lambda fit: (-fit.want.length * fit.wide, fit.want.key))
        starts = sorted({bad.high for bad in section.bad})
        early = luck.choice(EARLY) if luck is not None else 0.0
        if luck is not None:
            luck.shuffle(order)
        while True:
            placed: Lane | None = None
            lows = [edge, *(b for b in starts if b >= edge + saw.kerf)]
            if early > 0.0 and luck is not None:
                # A strip left whole before the lane.
                lows += [edge + wide + saw.kerf for wide in self.classes]
                luck.shuffle(lows)
            for low in lows:
                classes = sorted({f.wide for f in order if still.get(f.want.key, 0) > 0}, reverse=True)
                if luck is not None:
                    luck.shuffle(classes)
                for wide in classes:
                    if low + wide > board.width + THIN:
                        continue
                    lane, after = self._greedy_lane(low, wide, order, still, luck, early)
                    if lane.cuts:
                        placed, still = lane, after
                        break
                if placed:
                    break
            if placed is None:
                break
            lanes.append(placed)
            edge = placed.high + saw.kerf
        if not lanes:
            return None
        return pattern(Ripped(section, tuple(lanes)), self.fits_by_key, saw)

    def _greedy_lane(
        self,
        low: float,
        wide: float,
        order: Sequence[_Fit],
        left: Mapping[str, int],
        luck: Random | None,
        early: float,
    ) -> tuple[Lane, dict[str, int]]:
        """A lane filled with what is still wanted; as luck has it, a run is left before it is full."""
        still, cuts = dict(left), []
        for begins, ends in self.section.runs(low, low + wide):
            x = begins
            for fit in order:
                if fit.wide > wide + THIN:
                    continue
                while still.get(fit.want.key, 0) > 0 and x + fit.want.length <= ends + THIN:
                    if luck is not None and luck.random() < early:
                        break
                    cuts.append(self._cut(fit, x, low))
                    x += fit.want.length + self.saw.kerf
                    still[fit.want.key] -= 1
        return Lane(low, low + wide, tuple(cuts)), still


def pattern(ripped: Ripped, fits: Mapping[str, tuple[float, float]], saw: Saw) -> Pattern:
    """A sawn section with what comes out of it and what is lost."""
    section, board = ripped.section, ripped.section.board
    counts: dict[str, int] = {}
    used = 0.0
    for lane in ripped.lanes:
        for cut in lane.cuts:
            counts[cut.key] = counts.get(cut.key, 0) + 1
            used += cut.length * cut.width * fits[cut.key][1]
    kept = sum(one.length * one.width for one in leftovers(ripped, saw)) * board.thickness
    whole = section.length * board.width * board.thickness
    return Pattern(ripped, counts, (whole - used - kept + LEFT_COUNTS * kept) / LITRE)
