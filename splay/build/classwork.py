"""The order of work as an exercise: handed out mixed up, put in order by a learner, judged by reasons."""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from splay.build.order import Order
from splay.build.step import Need, Step


@dataclass(frozen=True)
class Wrong:
    """A reason a learner's order breaks: what came too early, what it wants before it, why, the cost."""

    too_early: str
    wanted: str
    why: str
    costs: str


@dataclass(frozen=True)
class Common:
    """A reason that so many learners broke."""

    why: str
    example: str
    learners: int


def mixed(order: Order, seed: str) -> tuple[Step, ...]:
    """The steps out of order: for one seed always the same way, and never as they should be."""
    steps = list(order.steps)
    rng = random.Random(seed)
    for _ in range(10):
        rng.shuffle(steps)
        if len(steps) < 2 or judged(order, [step.key for step in steps]):
            break
    return tuple(steps)


def judged(order: Order, keys: Sequence[str]) -> tuple[Wrong, ...]:
    """What is wrong with an order of the steps: every reason once, with the first two steps that break it.
    Any order that breaks no reason is right, however unlike the usual one it is."""
    place = {key: k for k, key in enumerate(keys)}
    titles = {step.key: step.title for step in order.steps}
    found: dict[str, Wrong] = {}
    for need in order.needs:
        if _broken(need, place):
            wrong = Wrong(titles[need.after], titles[need.before], need.why, need.costs)
            found.setdefault(need.why, wrong)
    return tuple(found.values())


def _broken(need: Need, place: dict[str, int]) -> bool:
    return need.before in place and need.after in place and place[need.before] > place[need.after]


def common(orders: Iterable[tuple[Wrong, ...]]) -> tuple[Common, ...]:
    """What most learners got wrong, the commonest first."""
    counts: Counter[str] = Counter()
    examples: dict[str, str] = {}
    for wrongs in orders:
        for wrong in wrongs:
            counts[wrong.why] += 1
            examples.setdefault(wrong.why, f"{wrong.too_early}, before: {wrong.wanted}")
    return tuple(Common(why, examples[why], many) for why, many in counts.most_common())
