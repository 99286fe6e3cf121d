"""Which blank out of which board: the least that can be lost, with a bound that says how near it is.

Patterns (one section as it is sawn) are made where they are worth something and chosen among as a whole:
column generation, its linear programme and the choice of whole patterns by scipy (HiGHS). The bound is the
Lagrangian one, which holds at any moment the work is stopped.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from random import Random
from time import monotonic

import numpy as np

from splay.errors import BadInput, Fault
from splay.timber.patterns import LITRE, Pattern, Yields, pattern
from splay.timber.sawing import Cut, Lane, Left, Ripped, Saw, Section, Want, leftovers, sections
from splay.timber.stock import Board

MISSING = 50.0
"""A blank that is not cut counts as so many times its own wood lost: everything is cut that can be."""
MOST_WANTED = 600
MOST_BOARDS = 120
NEAR = 1e-6


@dataclass(frozen=True)
class CutPlan:
    """What is cut from what. `missing` says how many of each want could not be cut; `lost` is what goes to
    waste, litres, `kept` what goes back to the store; `loss` what the choice was made by (waste, and
    leftovers by a share) and `bound` what no plan of such cuts goes under."""

    sawn: tuple[Ripped, ...]
    missing: Mapping[str, int]
    left: tuple[Left, ...]
    lost: float
    kept: float
    loss: float
    bound: float

    @property
    def cuts(self) -> tuple[Cut, ...]:
        """Every blank."""
        return tuple(cut for one in self.sawn for lane in one.lanes for cut in lane.cuts)

    @property
    def off(self) -> float:
        """How far at most the loss lies above the least there can be, a share of itself."""
        return max(0.0, (self.loss - self.bound) / self.loss) if self.loss > NEAR else 0.0


def cut_plan(wants: Sequence[Want], boards: Sequence[Board], saw: Saw, seconds: float = 1.6) -> CutPlan:
    """The plan that loses least within a time; the best found so far when it is over.

    With no time at all it is the first plan a maker would make: each board filled in turn. BadInput where
    there is more than can be laid out at once.
    """
    _bounded(wants, boards)
    ends = monotonic() + seconds
    wants = [want for want in wants if want.count > 0]
    yields = _yields(wants, boards, saw)
    best = _chosen(_greedily(yields, wants), yields, wants, saw, 0.0)
    if seconds <= 0.0 or not yields or not wants:
        return best
    found = _Search(yields, wants, saw, ends)
    found.offer(best.sawn)
    bound = found.grow()
    for picked in (found.whole(), found.dive()):
        plan = _chosen(picked, yields, wants, saw, bound)
        if _worth(plan, wants) < _worth(best, wants) - NEAR:
            best = plan
    best = _bettered(best, yields, wants, saw, bound, ends)
    return replace(best, bound=min(bound, best.loss))


def _bounded(wants: Sequence[Want], boards: Sequence[Board]) -> None:
    many = sum(want.count for want in wants)
    if many > MOST_WANTED:
        do = "Lay out fewer pieces at a time."
        raise BadInput(Fault("make", f"{many} blanks", f"at most {MOST_WANTED} blanks at once", do))
    if len(boards) > MOST_BOARDS:
        do = "Choose the boards it may come from."
        raise BadInput(
            Fault("boards", f"{len(boards)} boards", f"at most {MOST_BOARDS} boards at once", do)
        )


def _yields(wants: Sequence[Want], boards: Sequence[Board], saw: Saw) -> list[Yields]:
    made = []
    for board in boards:
        mine = [way for want in wants if (way := want.lies(board))]
        if mine:
            narrowest = min(way[0] for way in mine)
            made += [Yields(section, wants, saw) for section in sections(board, narrowest, saw)]
    return [one for one in made if one.fits]


def _greedily(yields: Sequence[Yields], wants: Sequence[Want]) -> list[Pattern]:
    """Every section filled in turn, the thinnest and shortest that will do first."""
    left = {want.key: want.count for want in wants}
    picked = []
    order = sorted(
        yields, key=lambda y: (y.section.board.thickness, y.section.board.width, y.section.length)
    )
    for one in order:
        made = one.greedy(left)
        if made is not None:
            picked.append(made)
            for key, count in made.counts.items():
                left[key] -= count
    return picked


class _Search:
    """The patterns found so far, and the choice among them."""

    def __init__(self, yields: Sequence[Yields], wants: Sequence[Want], saw: Saw, ends: float) -> None:
        self.yields, self.wants, self.saw, self.ends = yields, wants, saw, ends
        self.row = {want.key: k for k, want in enumerate(wants)}
        self.of = {_name(one.section): k for k, one in enumerate(yields)}
        self.patterns: list[Pattern] = []
        self.penalty = np.array([_size(want) * MISSING for want in wants])

    def offer(self, sawn: Sequence[Ripped]) -> None:
        """Take in patterns that were found another way."""
        for one in sawn:
            fits = self.yields[self.of[_name(one.section)]].fits_by_key
            self.patterns.append(pattern(one, fits, self.saw))

    def _late(self, share: float) -> bool:
        return monotonic() > self.ends - (1.0 - share)

    def grow(self) -> float:
        """Make patterns until none is worth it or half the time is over; what the loss cannot go under."""
        bound = 0.0
        until = monotonic() + (self.ends - monotonic()) * 0.6
        for _ in range(60):
            value, duals, sections_ = self._relaxed()
            over, fresh = 0.0, []
            worth = dict(zip(self.row, duals, strict=True))
            for k, one in enumerate(self.yields):
                if monotonic() > until:
                    return bound
                got = one.best(worth)
                if got is None:
                    continue
                # What it is worth after its loss, beyond what its section is held at.
                gain = sum(worth[key] * n for key, n in got[1].counts.items()) - got[1].loss + sections_[k]
                if gain > NEAR:
                    over += gain
                    fresh.append(got[1])
            bound = max(bound, value - over)
            if not fresh:
                return max(bound, value)
            self.patterns += fresh
        return bound

    def _matrix(self) -> np.ndarray:
        """Rows: each want, then each section; columns: the patterns."""
        made = np.zeros((len(self.wants) + len(self.yields), len(self.patterns)))
        for j, one in enumerate(self.patterns):
            for key, count in one.counts.items():
                made[self.row[key], j] = float(count)
            made[len(self.wants) + self.of[_name(one.ripped.section)], j] = 1.0
        return made

    def _relaxed(self) -> tuple[float, np.ndarray, np.ndarray]:
        """The loss with shares of patterns, what each blank is worth by it, what each section is held
        at."""
        from scipy.optimize import linprog

        n, m = len(self.patterns), len(self.wants)
        matrix = self._matrix()
        above = np.hstack([-matrix[:m], -np.eye(m)])
        once = np.hstack([matrix[m:], np.zeros((len(self.yields), m))])
        cost = np.concatenate([[p.loss for p in self.patterns], self.penalty])
        wanted = np.array([-float(w.count) for w in self.wants])
        limits = np.concatenate([wanted, np.ones(len(self.yields))])
        done = linprog(cost, A_ub=np.vstack([above, once]), b_ub=limits, method="highs")
        held = done.ineqlin.marginals
        assert n + m == len(cost)
        return float(done.fun or 0.0), -held[:m], held[m:]

    def whole(self) -> list[Pattern]:
        """The best choice of whole patterns among those found."""
        from scipy.optimize import Bounds, LinearConstraint, milp

        m = len(self.wants)
        matrix = self._matrix()
        full = np.hstack([matrix, np.vstack([np.eye(m), np.zeros((len(self.yields), m))])])
        cost = np.concatenate([[p.loss for p in self.patterns], self.penalty])
        low = np.concatenate([[float(w.count) for w in self.wants], np.full(len(self.yields), -np.inf)])
        high = np.concatenate([np.full(m, np.inf), np.ones(len(self.yields))])
        limit = max(0.1, (self.ends - monotonic()) * 0.7)
        done = milp(
            cost,
            constraints=LinearConstraint(full, low, high),
            integrality=np.ones(len(cost), dtype=np.int64),
            bounds=Bounds(0, np.concatenate([np.ones(len(self.patterns)), np.full(m, np.inf)])),
            options={"time_limit": limit},
        )
        if done.x is None:
            return []
        return [p for p, x in zip(self.patterns, done.x, strict=False) if x > 0.5]

    def dive(self) -> list[Pattern]:
        """Sections filled one after the other, each time the one that loses least for what it yields, with
        what is still wanted worth its own wood."""
        left = {want.key: want.count for want in self.wants}
        free, picked = list(range(len(self.yields))), []
        sizes = {want.key: _size(want) for want in self.wants}
        while free and any(left.values()):
            tried = []
            for k in free:
                if monotonic() > self.ends:
                    return []
                made = self.yields[k].greedy(left)
                if made is not None:
                    got = sum(sizes[key] * count for key, count in made.counts.items())
                    tried.append((made.loss / got, k, made))
            if not tried:
                break
            _, k, made = min(tried, key=lambda one: one[:2])
            free.remove(k)
            picked.append(made)
            for key, count in made.counts.items():
                left[key] -= count
        return picked


WARM = 0.06
"""How much worse a plan may be at the beginning of its bettering, as a share of its loss."""
MOST_TURNS = 4_000
"""Attempts to better a plan: as many on any machine that is quick enough, so that the plan is the same."""


def _bettered(
    plan: CutPlan, yields: Sequence[Yields], wants: Sequence[Want], saw: Saw, bound: float, ends: float
) -> CutPlan:
    """The plan after a few of its sections were emptied and filled otherwise, again and again, for as long
    as there is time and something to gain."""
    luck = Random(1)
    by_name = {_name(one.section): one for one in yields}
    sizes = {want.key: _size(want) * MISSING for want in wants}
    state = {_name(r.section): pattern(r, by_name[_name(r.section)].fits_by_key, saw) for r in plan.sawn}
    left = dict(plan.missing)
    names = sorted(by_name)
    fits = {name: by_name[name].fits_by_key for name in names}
    total0 = total = least = plan.loss
    best = (state, left)
    for turn in range(MOST_TURNS):
        if monotonic() > ends or least <= bound + NEAR:
            break
        taken = luck.sample(names, min(len(names), luck.choice((1, 2, 2, 3, 4))))
        had = [state[name] for name in taken if name in state]
        want = Counter(left)
        for one in had:
            want.update(one.counts)
        fresh: dict[tuple[str, float], Pattern] = {}
        for name in taken:
            if turn % 8 == 0:
                # As it would be best sawn if each blank were worth this or that, what is over not cut.
                worth = {key: sizes[key] * luck.choice((0.0, 0.02, 0.04)) for key in want if want[key] > 0}
                made = _no_more(by_name[name].best(worth), want, fits[name], saw)
            else:
                made = by_name[name].greedy(want, luck)
            if made is not None:
                fresh[name] = made
                want.subtract(made.counts)
        was = sum(one.loss for one in had) + sum(sizes[key] * n for key, n in left.items())
        becomes = sum(one.loss for one in fresh.values()) + sum(sizes[key] * n for key, n in want.items())
        # At first a little is given away, so that it does not stay with the first good plan.
        heat = WARM * total0 * max(0.0, 1.0 - 1.5 * turn / MOST_TURNS)
        if becomes <= was + heat * luck.random() ** 3 + NEAR:
            state = {**{k: v for k, v in state.items() if k not in taken}, **fresh}
            left = {key: n for key, n in want.items() if n > 0}
            total += becomes - was
            if total < least - NEAR:
                least, best = total, (dict(state), dict(left))
    return _chosen(list(best[0].values()), yields, wants, saw, bound)


def _no_more(
    found: tuple[float, Pattern] | None,
    want: Mapping[str, int],
    fits: Mapping[str, tuple[float, float]],
    saw: Saw,
) -> Pattern | None:
    """A pattern without the blanks that are more than wanted; None where nothing is left of it."""
    if found is None:
        return None
    ripped = _cut_back(found[1].ripped, Counter(want), saw)
    return pattern(ripped, fits, saw) if ripped.lanes else None


def _cut_back(ripped: Ripped, left: Counter[str], saw: Saw) -> Ripped:
    """A sawn section with no more blanks than are `left` to cut; those it has are taken from them."""
    lanes = []
    for lane in ripped.lanes:
        kept = []
        for cut in lane.cuts:
            if left[cut.key] > 0:
                left[cut.key] -= 1
                kept.append(cut)
        if kept:
            lanes.append(Lane(lane.low, lane.high, _closed_up(kept, ripped.section, lane, saw)))
    return Ripped(ripped.section, tuple(lanes))


def _name(section: Section) -> tuple[str, float]:
    return section.board.id, section.begins


def _size(want: Want) -> float:
    return want.length * want.width * want.thickness / LITRE


def _worth(plan: CutPlan, wants: Sequence[Want]) -> float:
    """What a plan is chosen by: what it loses, and what it leaves uncut."""
    sizes = {want.key: _size(want) * MISSING for want in wants}
    return plan.loss + sum(sizes[key] * count for key, count in plan.missing.items())


def _chosen(
    picked: Sequence[Pattern], yields: Sequence[Yields], wants: Sequence[Want], saw: Saw, bound: float
) -> CutPlan:
    """A plan of whole patterns: what is more than wanted is not cut."""
    left = Counter({want.key: want.count for want in wants})
    fits = {_name(one.section): one.fits_by_key for one in yields}
    order = sorted(picked, key=lambda p: (p.ripped.section.board.id, p.ripped.section.begins))
    sawn: list[Pattern] = []
    for one in order:
        ripped = _cut_back(one.ripped, left, saw)
        if ripped.lanes:
            sawn.append(pattern(ripped, fits[_name(ripped.section)], saw))
    loss = sum(p.loss for p in sawn)
    rests = tuple(rest for p in sawn for rest in leftovers(p.ripped, saw))
    thick = {p.ripped.section.board.id: p.ripped.section.board.thickness for p in sawn}
    kept_ = sum(rest.length * rest.width * thick[rest.stock] for rest in rests) / LITRE
    whole = sum(
        p.ripped.section.length * p.ripped.section.board.width * p.ripped.section.board.thickness
        for p in sawn
    )
    used = sum(
        cut.length * cut.width * fits[_name(p.ripped.section)][cut.key][1]
        for p in sawn
        for lane in p.ripped.lanes
        for cut in lane.cuts
    )
    missing = {key: count for key, count in left.items() if count > 0}
    lost = (whole - used) / LITRE - kept_
    return CutPlan(tuple(p.ripped for p in sawn), missing, rests, lost, kept_, loss, min(bound, loss))


def _closed_up(cuts: Sequence[Cut], section: Section, lane: Lane, saw: Saw) -> tuple[Cut, ...]:
    """Blanks moved up where one before them in the same run is not cut after all."""
    made: list[Cut] = []
    for begins, ends in section.runs(lane.low, lane.high):
        x = begins
        for cut in cuts:
            if begins - NEAR <= cut.x < ends:
                made.append(Cut(cut.stock, cut.key, x, cut.y, cut.length, cut.width))
                x += cut.length + saw.kerf
    return tuple(made)
