"""What is left of a piece, as tasks to be laid over working hours."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from splay.build.known import Record, takes
from splay.build.order import Order
from splay.build.progress import Done, Going, progress
from splay.build.schedule import Job, Task
from splay.build.step import Step

AT_ONCE = frozenset({"glue", "wedge", "peg_in", "finish", "prefinish", "glue_boards"})
"""What is not left in the middle."""


def job_of(
    id: str,
    name: str,
    order: Order,
    copies: Iterable[Iterable[Done]],
    record: Record,
    promised: datetime | None,
    now: datetime,
) -> Job:
    """What is left of a piece to do: of several copies what is left of each, step by step.

    A stage that is wedged at once is one task with its wedging.
    """
    states = [progress(order, done, now) for done in copies] or [progress(order, (), now)]
    found: list[Task] = []
    joined: dict[str, str] = {}
    for k, step in enumerate(order.steps):
        left = _left(step, [{one.key: one for one in state.steps}[step.key] for state in states])
        if left <= 0.0:
            continue
        going = [one for state in states for one in state.steps if one.key == step.key and one.until]
        wait = step.wait
        task = Task(
            key=step.key,
            title=step.title,
            minutes=takes(step, record, len(states)).minutes * left,
            wait_h=wait.least_h if wait else 0.0,
            for_what=wait.for_what if wait else "",
            needs=frozenset(_needs(order, step, k)),
            at_once=step.operation in AT_ONCE,
            not_before=max((one.until for one in going if one.until), default=None),
        )
        last = found[-1] if found else None
        if last and last.at_once and not last.wait_h and step.operation in {"wedge", "peg_in"}:
            joined[step.key] = last.key
            found[-1] = _with(last, task)
        else:
            found.append(task)
    return Job(id, name, tuple(_renamed(task, joined) for task in found), promised)


def _left(step: Step, going: list[Going]) -> float:
    """Which share of a step is not done, over all copies."""
    done = sum(len(one.done) for one in going)
    return 1.0 - done / (len(step.units) * len(going))


def _needs(order: Order, step: Step, place: int) -> Iterable[str]:
    yield from (need.before for need in order.needs if need.after == step.key)
    # What rests holds the next in the order too, though nothing else is said of the two.
    if place and order.steps[place - 1].wait:
        yield order.steps[place - 1].key


def _with(first: Task, then: Task) -> Task:
    return Task(
        first.key,
        f"{first.title}; {then.title[0].lower()}{then.title[1:]}",
        first.minutes + then.minutes,
        then.wait_h,
        then.for_what,
        first.needs | (then.needs - {first.key}),
        True,
        first.not_before,
    )


def _renamed(task: Task, joined: dict[str, str]) -> Task:
    needs = frozenset(joined.get(key, key) for key in task.needs) - {task.key}
    return Task(
        task.key,
        task.title,
        task.minutes,
        task.wait_h,
        task.for_what,
        needs,
        task.at_once,
        task.not_before,
    )
