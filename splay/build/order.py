"""The order of the steps of one piece: as the trade has it, or as its maker does, and what that breaks."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from splay.build.document import Build, OwnStep
from splay.build.known import NOTHING, Record
from splay.build.made import steps_of
from splay.build.needs import carried_over, needs
from splay.build.operations import RANK
from splay.build.step import Need, Step, Unit, Wait
from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show


@dataclass(frozen=True)
class Broken:
    """A reason the maker's order breaks: the step that comes too early, the one it wants before it
    (left out altogether where `skipped`), why, and what it costs."""

    key: str
    wants: str
    wanted: str
    why: str
    costs: str
    skipped: bool


@dataclass(frozen=True)
class Order:
    """The steps in order, those left out, what must stand before what, and what the order breaks."""

    steps: tuple[Step, ...]
    skipped: tuple[Step, ...]
    needs: tuple[Need, ...]
    broken: tuple[Broken, ...]

    def step(self, key: str) -> Step | None:
        """The step of that key, whether it is left out or not."""
        return next((one for one in (*self.steps, *self.skipped) if one.key == key), None)


def order_of(
    piece: Piece,
    plan: Plan,
    build: Build,
    record: Record = NOTHING,
    show: Show | None = None,
    lent: frozenset[str] = frozenset(),
) -> Order:
    """The steps of a piece in the order they are worked in.

    Without an order of the maker's own for this piece, the trade's: nothing before what it needs. Where the
    maker kept an order for such pieces (`record.order`), that, as far as nothing needed comes too late.
    The same input gives the same order.
    """
    made = steps_of(piece, plan, build, record, show, lent)
    found = _kept(needs(made, plan), build, made)
    trade = _sorted(made, found, _ranks(made, build, record))
    steps = _split(_with_own(trade, build), build)
    steps = _merged(_arranged(steps, build.order), build)
    asked = (*carried_over(found, steps), *_own_needs(steps, build))
    left_out = {skip.key for skip in build.skipped}
    going = tuple(step for step in steps if step.key not in left_out)
    out = tuple(step for step in steps if step.key in left_out)
    return Order(going, out, asked, _broken(going, out, asked))


def _kept(found: tuple[Need, ...], build: Build, steps: Iterable[Step]) -> tuple[Need, ...]:
    """The needs, without those that the school followed does away with."""
    if build.outline == "after_boring":
        return found
    cut = {step.key for step in steps if step.operation == "cut_outline"}
    bored = {step.key for step in steps if step.operation == "bore"}
    return tuple(need for need in found if not (need.after in cut and need.before in bored))


def _ranks(steps: tuple[Step, ...], build: Build, record: Record) -> dict[str, float]:
    """Which of two steps that may both come next does so."""
    ranks: dict[str, float] = {name: float(rank) for name, rank in RANK.items()}
    if build.outline == "before_boring":
        ranks["cut_outline"] = ranks["lay_out"] + 0.5
    if record.order:
        # An order kept for such pieces goes before the usual one; what it does not name stays beside
        # what it usually follows.
        place = {name: float(k) for k, name in enumerate(record.order)}
        last = -1.0
        for name in sorted(ranks, key=ranks.__getitem__):
            last = place.get(name, last + 0.001)
            ranks[name] = last
    return {step.key: ranks[step.operation] for step in steps}


def _sorted(steps: tuple[Step, ...], asked: tuple[Need, ...], ranks: dict[str, float]) -> tuple[Step, ...]:
    """The steps so that nothing comes before what it needs; of those that may come next the one of the
    lowest rank, then the one made first."""
    waits = {step.key: {need.before for need in asked if need.after == step.key} for step in steps}
    left, done = list(steps), list[Step]()
    while left:
        free = [step for step in left if not waits[step.key] - {one.key for one in done}]
        assert free, f"a circle of needs among {[step.key for step in left]}"
        first = min(free, key=lambda step: ranks[step.key])
        done.append(first)
        left.remove(first)
    return tuple(done)


def _with_own(steps: tuple[Step, ...], build: Build) -> tuple[Step, ...]:
    """With the steps the maker added, each before the one it names."""
    made = list(steps)
    for own in build.added:
        at = next((k for k, step in enumerate(made) if step.key == own.before), len(made))
        made.insert(at, _own_step(own))
    return tuple(made)


def _own_step(own: OwnStep) -> Step:
    wait = Wait(own.wait_h, own.wait_h, "what was done to settle") if own.wait_h else None
    do = tuple(line for line in own.do.splitlines() if line.strip())
    units = (Unit(own.id, "own", "", own.title),)
    return Step(own.id, "own", own.title, "", units, do=do, wait=wait, setting=own.minutes)


def _own_needs(steps: tuple[Step, ...], build: Build) -> tuple[Need, ...]:
    home = {part.key: step.key for step in steps for part in step.whole}
    return tuple(
        Need(home[after], home[own.id], "you said it waits for that", "it is what you wanted to avoid")
        for own in build.added
        for after in own.after
        if own.id in home and after in home and home[after] != home[own.id]
    )


def _split(steps: tuple[Step, ...], build: Build) -> tuple[Step, ...]:
    """Steps that are done leg by leg become one for each; the readings stay with every one of them."""
    wanted = set(build.split)
    return tuple(one for step in steps for one in (_apart(step) if step.key in wanted else (step,)))


def _apart(step: Step) -> tuple[Step, ...]:
    if len(step.units) < 2:
        return (step,)
    return tuple(
        replace(
            step,
            key=f"{step.key}~{unit.of}",
            split_from=step.key,
            title=f"{step.title}: {unit.name}",
            units=(unit,),
            setting=step.setting if k == 0 else 0.0,
        )
        for k, unit in enumerate(step.units)
    )


def _arranged(steps: tuple[Step, ...], order: tuple[str, ...]) -> tuple[Step, ...]:
    """As the maker ordered them; what the order does not name stays before what it stands before now."""
    by = {step.key: step for step in steps}
    named = [key for key in order if key in by]
    made = list(named)
    for k, step in enumerate(steps):
        if step.key in made:
            continue
        follower = next((later.key for later in steps[k + 1 :] if later.key in named), None)
        made.insert(made.index(follower) if follower else len(made), step.key)
    return tuple(by[key] for key in made)


def _merged(steps: tuple[Step, ...], build: Build) -> tuple[Step, ...]:
    """Steps that are done in one stand where the first of them does."""
    made = list(steps)
    for keys in build.merged:
        # Each only once: a step that is in another of these already stays there.
        mine = [step for step in made if step.key in keys and not step.parts]
        if len(mine) < 2:
            continue
        at = made.index(mine[0])
        made = [step for step in made if step not in mine]
        made.insert(at, _one(mine))
    return tuple(made)


def _one(mine: list[Step]) -> Step:
    """Several steps in one: what is said of each, in their order."""

    def once(lists: Iterable[tuple[str, ...]]) -> tuple[str, ...]:
        return tuple(dict.fromkeys(one for each in lists for one in each))

    waits = [step.wait for step in mine if step.wait]
    return replace(
        mine[0],
        title=", then ".join(
            f"{s.title[0].lower()}{s.title[1:]}" if k else s.title for k, s in enumerate(mine)
        ),
        units=tuple(unit for step in mine for unit in step.units),
        cards=once(step.cards for step in mine),
        proofs=once(step.proofs for step in mine),
        do=once(step.do for step in mine),
        lay_out=once(step.lay_out for step in mine),
        marks=once(step.marks for step in mine),
        caution=" ".join(once((step.caution,) for step in mine if step.caution)),
        wait=max(waits, key=lambda wait: wait.most_h) if waits else None,
        setting=sum(step.setting for step in mine),
        parts=tuple(mine),
    )


def _broken(steps: tuple[Step, ...], out: tuple[Step, ...], asked: tuple[Need, ...]) -> tuple[Broken, ...]:
    place = {step.key: k for k, step in enumerate(steps)}
    titles = {step.key: step.title for step in (*steps, *out)}
    return tuple(
        Broken(need.after, need.before, titles[need.before], need.why, need.costs, need.before not in place)
        for need in asked
        if need.after in place
        and need.before in titles
        and (need.before not in place or place[need.before] > place[need.after])
    )
