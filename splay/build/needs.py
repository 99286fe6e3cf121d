"""What must stand before what in one piece: by the rules of the trade, by marks, by readings."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from itertools import pairwise

from splay.build.levels import levels
from splay.build.rule import ON_PARTS, STRETCHERS
from splay.build.rules import CARRIED, READ, RULES, SOCKETS
from splay.build.step import Need, Step
from splay.layout import Step as Marking
from splay.plan import Plan
from splay.setups.card import SetUp
from splay.work.marks import Kind, Mark
from splay.work.phrases import listed

_BRIEF = {
    Kind.LETTERS: "the words FRONT, BACK, LEFT and RIGHT",
    Kind.MIDDLE_LINES: "the two middle lines",
    Kind.MIDDLE_HOLE: "the hole in the middle",
    Kind.CENTRE: "the leg centres",
    Kind.SIGHTLINE: "the sightlines",
    Kind.OUTLINE: "the outline",
    Kind.FOOTPRINT: "the frames' corners on the underside",
    Kind.NUMBER: "the leg's number",
    Kind.TENON: "the tenon",
    Kind.OUTER_LINE: "the outer line",
    Kind.FLOOR_LINE: "the outer line of the floor",
    Kind.FACES: "the names of the faces",
    Kind.SHOULDER: "the depth ring",
    Kind.SLOT: "the wedge slot",
    Kind.SOCKET: "the socket",
    Kind.ENDS: "the ends' numbers",
    Kind.FLOOR_SIDE: "the floor-side line",
    Kind.PEG: "the pegs' marks",
    Kind.BATTEN: "the middle of the batten's end",
    Kind.FIXING: "the places of the top's screws",
    Kind.HOLD: "the ends of the hand-hold",
    Kind.DOWEL: "the dowels' places",
    Kind.JOINS: "the lines of the joints",
    Kind.HOLLOW: "where the hollow begins",
    Kind.SCREW: "the places of the screws",
}
"""The marks in words, without saying which of several."""


def marks_in_words(marks: Iterable[Mark]) -> tuple[str, ...]:
    """What is left on the wood, each kind once."""
    return tuple(dict.fromkeys(_BRIEF[mark.kind] for mark in marks))


def _all_in_words(marks: set[Mark]) -> str:
    """The same in a sentence, in one order whatever order they come in."""
    return listed(words for kind, words in _BRIEF.items() if any(mark.kind is kind for mark in marks))


def needs(steps: tuple[Step, ...], plan: Plan) -> tuple[Need, ...]:
    """Every need among these steps as made, once for each two; the rules of the trade first, since
    their reasons say most."""
    found: dict[tuple[str, str], Need] = {}
    for need in (*_ruled(steps), *_served(steps, plan), *_marked(steps, plan), *_staged(steps)):
        found.setdefault((need.before, need.after), need)
    return tuple(found.values())


def carried_over(asked: tuple[Need, ...], steps: tuple[Step, ...]) -> tuple[Need, ...]:
    """The same needs among steps that were split or merged: what one was made of needs what it needed, and
    nothing of itself; of work on parts, each part needs its own."""
    homes: dict[str, list[tuple[Step, Step]]] = {}
    for step in steps:
        for part in step.whole:
            homes.setdefault(part.first_key, []).append((step, part))
    found: dict[tuple[str, str], Need] = {}
    for need in asked:
        for before, one in homes.get(need.before, ()):
            for after, two in homes.get(need.after, ()):
                apart = {one.operation, two.operation} <= ON_PARTS and not _share(one, two)
                if before.key != after.key and not apart:
                    found.setdefault(
                        (before.key, after.key), replace(need, before=before.key, after=after.key)
                    )
    return tuple(found.values())


def _ruled(steps: tuple[Step, ...]) -> Iterator[Need]:
    for rule in RULES:
        for after in steps:
            if after.operation not in rule.after:
                continue
            for before in steps:
                if before.operation not in rule.before or before.operation == after.operation:
                    continue
                if rule.same and not _share(before, after):
                    continue
                yield Need(before.key, after.key, rule.why, rule.costs)


def _served(steps: tuple[Step, ...], plan: Plan) -> Iterator[Need]:
    """Each stretcher is read dry, its sockets bored, then it is cut; what carries another is made first."""
    level = levels(plan)
    works = [step for step in steps if step.operation in STRETCHERS]
    for dry in (step for step in steps if step.operation == "dry_fit"):
        at = min((level[id] for id in dry.serves), default=0)
        for step in works:
            if at in {level[id] for id in step.serves}:
                yield Need(dry.key, step.key, *READ)
            elif step.operation in {"member_cut", "member_octagon", "floor_side"} and all(
                level[id] < at for id in step.serves
            ):
                yield Need(step.key, dry.key, *CARRIED)
    for bore in (step for step in works if step.operation == "bore_member"):
        for cut in (step for step in works if step.operation == "member_cut"):
            if set(bore.serves) & set(cut.serves):
                yield Need(bore.key, cut.key, *SOCKETS)


def _share(one: Step, two: Step) -> bool:
    """Whether both are done on one part, or either on the whole."""
    a, b = ({unit.of for unit in step.units} for step in (one, two))
    return bool(a & b) or "" in a or "" in b


def _marked(steps: tuple[Step, ...], plan: Plan) -> Iterator[Need]:
    """Marks lean on the step that makes them; what takes a mark away waits for all that lean on it."""
    cards = _by_work(plan.setups)
    told: list[tuple[Step, set[Mark], set[Mark], set[Mark]]] = []
    for step in steps:
        if step.operation in ("lay_out", "lay_out_upper"):
            drawn = {mark for one in marked_out(plan, step.operation) for mark in one.makes}
            told.append((step, set(), drawn, set()))
            continue
        mine = [card for unit in {unit.key for unit in step.units} for card in cards.get(unit, ())]
        uses = {mark for card in mine for mark in card.uses}
        makes = {mark for card in mine for mark in card.makes}
        told.append((step, uses, makes, {mark for card in mine for mark in card.loses}))
    for k, (after, uses, _, loses) in enumerate(told):
        for before, used, makes, _ in told[:k]:
            if leaned := uses & makes:
                words = _all_in_words(leaned)
                cost = f"{words} would have to be found again before it"
                yield Need(before.key, after.key, f"it is measured from {words} made there", cost)
            if gone := loses & used:
                words = _all_in_words(gone)
                yield Need(
                    before.key,
                    after.key,
                    f"it takes away {words}, from which the other is measured",
                    "what is measured from it has nothing left to be measured from",
                )


def marked_out(plan: Plan, operation: str) -> list[Marking]:
    """The steps of the marking-out that are done at one step of the order of work."""
    return [one for one in plan.layout.steps if one.operation == operation]


def _by_work(cards: Iterable[SetUp]) -> Mapping[str, list[SetUp]]:
    found: dict[str, list[SetUp]] = {}
    for card in cards:
        found.setdefault(card.work, []).append(card)
    return found


def _staged(steps: tuple[Step, ...]) -> Iterator[Need]:
    """Stages of one gluing follow each other as they were worked out, and so do coats."""
    coats = [step for step in steps if step.operation == "finish"]
    for before, after in pairwise(coats):
        cost = "a coat on one that is not dry wrinkles and never hardens"
        yield Need(before.key, after.key, "each coat is dry and rubbed down before the next", cost)
    stages = [step for step in steps if step.operation == "glue"]
    for before, after in pairwise(stages):
        yield Need(
            before.key,
            after.key,
            "what is joined first holds what is joined next; what crosses cannot get in earlier",
            "a joint is closed that another still has to pass",
        )
