"""Steps and waits of several pieces laid over one maker's hours: one pair of hands, drying overnight.

Pieces are worked by a priority among them. Of few pieces every priority is tried; of many some that are
likely, and the best is bettered by exchanging two neighbours as long as that helps. That search is bounded:
it is not proved to be the best there is, and says when all could end at the earliest.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta, tzinfo
from itertools import pairwise, permutations

from splay.errors import BadInput, Fault

HORIZON_DAYS = 3 * 366
"""Further ahead nothing is laid out."""
MOST_TRIES = 120
LEAST_BIT_MIN = 5.0
"""No step is begun for less than this before the end of a stretch (common practice, no source)."""


@dataclass(frozen=True)
class Stretch:
    """A stretch of working time on a day of the week (0 Monday), hours from midnight from and to."""

    weekday: int
    begins_h: float
    ends_h: float


@dataclass(frozen=True)
class Hours:
    """When a maker works: stretches of the week, and days off."""

    stretches: tuple[Stretch, ...]
    off: frozenset[date] = frozenset()

    def checked(self) -> Hours:
        """Itself; BadInput where there is no time in it, or stretches of a day lie over each other."""
        if not self.stretches:
            do = "Say when you work: one stretch of one day is enough."
            raise BadInput(Fault("hours", "none", "working hours", do))
        by_day: dict[int, list[Stretch]] = {}
        for one in self.stretches:
            by_day.setdefault(one.weekday, []).append(one)
        for those in by_day.values():
            ordered = sorted(those, key=lambda one: one.begins_h)
            for one in ordered:
                if one.ends_h <= one.begins_h:
                    got = f"{one.begins_h:g} to {one.ends_h:g}"
                    raise BadInput(
                        Fault("hours", got, "a stretch that ends after it begins", "Turn it round.")
                    )
            for a, b in pairwise(ordered):
                if b.begins_h < a.ends_h:
                    got = f"{a.begins_h:g} to {a.ends_h:g} and {b.begins_h:g} to {b.ends_h:g}"
                    do = "Make one stretch of them."
                    raise BadInput(Fault("hours", got, "stretches that do not lie over each other", do))
        return self

    def ahead(self, start: datetime, zone: tzinfo) -> Iterator[tuple[datetime, datetime]]:
        """The stretches from `start` on, the first cut off at it; the hours are the wall clock's."""
        day = start.astimezone(zone).date()
        for _ in range(HORIZON_DAYS):
            if day not in self.off:
                for one in sorted(self.stretches, key=lambda one: one.begins_h):
                    if one.weekday != day.weekday():
                        continue
                    begins, ends = (_at(day, hour, zone) for hour in (one.begins_h, one.ends_h))
                    if ends > start:
                        yield max(begins, start), ends
            day += timedelta(days=1)


def _at(day: date, hour: float, zone: tzinfo) -> datetime:
    whole = min(round(hour * 60), 24 * 60)
    if whole == 24 * 60:
        return datetime.combine(day + timedelta(days=1), time(0), zone)
    return datetime.combine(day, time(whole // 60, whole % 60), zone)


@dataclass(frozen=True)
class Task:
    """A step that is not done: what it takes, how long it rests then (`wait_h`, for `for_what`), the keys
    of steps it needs, whether it is done in one go; `not_before` where something holds it already."""

    key: str
    title: str
    minutes: float
    wait_h: float
    for_what: str
    needs: frozenset[str]
    at_once: bool
    not_before: datetime | None = None


@dataclass(frozen=True)
class Job:
    """One piece: its tasks in the order of work, and the day it is promised for."""

    id: str
    name: str
    tasks: tuple[Task, ...]
    promised: datetime | None = None


@dataclass(frozen=True)
class Slot:
    """A stretch of work on a step; a step that is interrupted has several. `rests_until` after its last."""

    job: str
    key: str
    title: str
    begins: datetime
    ends: datetime
    rests_until: datetime | None
    for_what: str


@dataclass(frozen=True)
class Ends:
    """When a piece is done in this schedule, how late that is (hours, 0 for in time), what holds it
    longest, in words."""

    job: str
    ends: datetime | None
    late_h: float
    why: str


@dataclass(frozen=True)
class Schedule:
    """The slots in order, when each piece ends, the working hours it all takes; `least` when all could end
    at the earliest: no sooner than each alone, nor than all the work without a gap; `unplaced` what found
    no room."""

    slots: tuple[Slot, ...]
    ends: tuple[Ends, ...]
    work_h: float
    least: datetime | None
    unplaced: tuple[str, ...]


def schedule(jobs: Sequence[Job], hours: Hours, now: datetime, zone: tzinfo) -> Schedule:
    """The pieces laid over the working hours from `now` on: as little lateness as the search finds, then
    the earliest ends. The same input gives the same schedule. BadInput where there are no working hours."""
    hours.checked()
    if not jobs:
        return Schedule((), (), 0.0, None, ())
    few = math.factorial(len(jobs)) <= MOST_TRIES
    orders: Iterable[Sequence[int]] = permutations(range(len(jobs))) if few else _priorities(jobs)
    tried = {tuple(order): _Laying(jobs, order, hours, now, zone).laid() for order in orders}
    order = min(tried, key=lambda one: _cost(tried[one]))
    better = True
    while better and len(tried) < MOST_TRIES:
        better = False
        for k in range(len(order) - 1):
            turned = (*order[:k], order[k + 1], order[k], *order[k + 2 :])
            if turned not in tried and len(tried) < MOST_TRIES:
                tried[turned] = _Laying(jobs, turned, hours, now, zone).laid()
                if _cost(tried[turned]) < _cost(tried[order]):
                    order, better = turned, True
    work = sum(task.minutes for job in jobs for task in job.tasks) / 60.0
    alone = [_Laying([job], (0,), hours, now, zone).laid().ends[0].ends for job in jobs]
    least = max((one for one in (*alone, _after(hours, now, zone, work)) if one is not None), default=None)
    return replace(tried[order], work_h=work, least=least)


def _priorities(jobs: Sequence[Job]) -> list[list[int]]:
    """Orders worth trying: the first promised, the longest rests, the shortest work, as they come."""

    def promised(k: int) -> float:
        day = jobs[k].promised
        return day.timestamp() if day else math.inf

    def rests(k: int) -> float:
        return -sum(task.wait_h for task in jobs[k].tasks)

    def work(k: int) -> float:
        return sum(task.minutes for task in jobs[k].tasks)

    every = range(len(jobs))
    return [
        sorted(every, key=lambda k: (promised(k), rests(k), k)),
        sorted(every, key=lambda k: (rests(k), promised(k), k)),
        sorted(every, key=lambda k: (work(k), promised(k), k)),
        list(every),
    ]


def _cost(made: Schedule) -> tuple[int, float, float]:
    late = sum(one.late_h for one in made.ends)
    ends = math.fsum(one.ends.timestamp() for one in made.ends if one.ends)
    return len(made.unplaced), round(late, 6), round(ends, 3)


class _Laying:
    """One pass: at every moment the piece of the highest priority that has something to do is worked on."""

    def __init__(
        self, jobs: Sequence[Job], order: Sequence[int], hours: Hours, now: datetime, zone: tzinfo
    ) -> None:
        self.jobs, self.order, self.now = jobs, order, now
        self.left = {k: list(jobs[k].tasks) for k in order}
        self.done: dict[int, dict[str, datetime]] = {k: {} for k in order}
        self.slots: list[Slot] = []
        self.stretches = hours.ahead(now, zone)
        self.longest = max(60.0 * (one.ends_h - one.begins_h) for one in hours.stretches)

    def laid(self) -> Schedule:
        """The pieces laid in this order of priority."""
        begun: tuple[int, Task, float] | None = None
        for at, end in self.stretches:
            while at < end and (begun or any(self.left.values())):
                if begun is None:
                    found = self._next(at, (end - at).total_seconds() / 60.0)
                    if found is None:
                        waits = self._soonest(at)
                        at = end if waits is None else min(waits, end)
                        continue
                    begun = (*found, found[1].minutes)
                at, begun = self._work(*begun, at, end)
            if begun is None and not any(self.left.values()):
                break
        return Schedule(
            tuple(self.slots),
            tuple(_ends(self.jobs[k], self.done[k], self.left[k]) for k in sorted(self.order)),
            0.0,
            None,
            tuple(self.jobs[k].id for k in self.order if self.left[k]),
        )

    def _work(
        self, k: int, task: Task, minutes: float, at: datetime, end: datetime
    ) -> tuple[datetime, tuple[int, Task, float] | None]:
        """Work on a task from `at`, to its end or that of the stretch; what is left of it."""
        room = (end - at).total_seconds() / 60.0
        worked = minutes if task.at_once else min(minutes, room)
        stop, over = at + timedelta(minutes=worked), worked >= minutes - 1e-9
        rests = stop + timedelta(hours=task.wait_h) if over and task.wait_h else None
        why = task.for_what if rests else ""
        self.slots.append(Slot(self.jobs[k].id, task.key, task.title, at, stop, rests, why))
        if not over:
            return stop, (k, task, minutes - worked)
        self.left[k].remove(task)
        self.done[k][task.key] = rests or stop
        return stop, None

    def _next(self, at: datetime, room: float) -> tuple[int, Task] | None:
        """What is worked on now: the first step of the first piece whose needs stand and rest no more."""
        for k in self.order:
            for task in self.left[k]:
                ready = self._ready(k, task)
                if ready is None or ready > at:
                    continue
                # What is longer than any stretch there is runs over the end of a whole one.
                if task.at_once and room < min(task.minutes, self.longest):
                    continue
                if not task.at_once and room < min(LEAST_BIT_MIN, task.minutes):
                    continue
                return k, task
        return None

    def _ready(self, k: int, task: Task) -> datetime | None:
        """From when a task can be worked on; None while something it needs is not done."""
        if task.needs & {one.key for one in self.left[k]}:
            return None
        times = [self.done[k][key] for key in task.needs if key in self.done[k]]
        return max((*times, task.not_before or self.now), default=self.now)

    def _soonest(self, at: datetime) -> datetime | None:
        """When the next thing rests no more."""
        times = (self._ready(k, task) for k in self.order for task in self.left[k])
        return min((one for one in times if one is not None and one > at), default=None)


def _ends(job: Job, done: Mapping[str, datetime], left: Sequence[Task]) -> Ends:
    if left:
        return Ends(job.id, None, 0.0, f"{left[0].title} finds no room in the hours you work")
    ends = max(done.values(), default=None)
    late = 0.0
    if ends is not None and job.promised is not None:
        late = max(0.0, (ends - job.promised).total_seconds() / 3600.0)
    longest = max(job.tasks, key=lambda task: task.wait_h, default=None)
    if longest is None or not longest.wait_h:
        return Ends(job.id, ends, late, "nothing of it rests")
    rests = sum(task.wait_h for task in job.tasks)
    why = f"it rests {rests:.0f} h in all, {longest.wait_h:.0f} of them for {longest.for_what}"
    return Ends(job.id, ends, late, why)


def _after(hours: Hours, now: datetime, zone: tzinfo, work_h: float) -> datetime | None:
    """When so many hours of work are over if they follow each other without a gap."""
    left = timedelta(hours=work_h)
    for begins, ends in hours.ahead(now, zone):
        if ends - begins >= left:
            return begins + left
        left -= ends - begins
    return None


@dataclass(frozen=True)
class Moved:
    """What becomes of a piece when something slips: how much later it ends, hours, and late by how much."""

    job: str
    name: str
    by_h: float
    late_h: float


def moved(jobs: Iterable[Job], before: Schedule, after: Schedule) -> tuple[Moved, ...]:
    """The pieces that end at another time in the second schedule, the most moved first."""
    was = {one.job: one for one in before.ends}
    names = {job.id: job.name for job in jobs}
    found = []
    for one in after.ends:
        had = was.get(one.job)
        if had is None or had.ends is None or one.ends is None:
            continue
        by = (one.ends - had.ends).total_seconds() / 3600.0
        if abs(by) > 1e-6:
            found.append(Moved(one.job, names[one.job], by, one.late_h))
    return tuple(sorted(found, key=lambda one: -one.by_h))


def slipped(jobs: Sequence[Job], job: str, hours: float) -> tuple[Job, ...]:
    """The jobs with the next step of one taking so many hours longer."""
    return tuple(
        replace(
            one,
            tasks=(replace(one.tasks[0], minutes=one.tasks[0].minutes + 60.0 * hours), *one.tasks[1:]),
        )
        if one.id == job and one.tasks
        else one
        for one in jobs
    )
