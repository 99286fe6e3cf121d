"""No instruction leans on a mark nobody was told to make, or that is gone by then."""

from __future__ import annotations

import random
from dataclasses import replace

from django.test import SimpleTestCase

from splay.piece.starters import STARTS, starter
from splay.plan import Plan
from splay.work.ledger import Entry, Ledger
from splay.work.marks import Kind, Mark, centre
from tests.bench.pieces import buildable
from tests.core.make import planned


def entries(made: Plan) -> list[Entry]:
    """The marking-out, then one card of every work: tools are alternatives."""
    found = [Entry(step.title, step.uses, step.makes) for step in made.layout.steps]
    done: set[tuple[str, tuple[int, ...], tuple[str, ...]]] = set()
    for card in made.setups:
        work = (card.operation, card.legs, card.parts)
        if work not in done:
            done.add(work)
            found.append(Entry(card.id, card.uses, card.makes, card.loses))
    return found


class Marks(SimpleTestCase):
    def test_every_mark_an_instruction_leans_on_was_made_before_it(self) -> None:
        plans = [planned(starter(name)) for name in STARTS]
        plans += [buildable(random.Random(seed))[1] for seed in range(60)]
        for made in plans:
            self.assertEqual(Ledger().follow(entries(made)).missing, [])

    def test_edges_are_bevelled_before_a_length_is_taken_along_them(self) -> None:
        for name in STARTS:
            order = [
                (part, card.operation) for card in planned(starter(name)).setups for part in card.parts
            ]
            for part in {part for part, operation in order if operation == "rip"}:
                mine = [operation for other, operation in order if other == part]
                if "crosscut" in mine:
                    last = len(mine) - 1 - mine[::-1].index("rip")
                    self.assertLess(last, mine.index("crosscut"), part)

    def test_a_step_left_out_is_missed_by_what_leans_on_it(self) -> None:
        kept = [e for e in entries(planned(starter("bench"))) if e.name != "Draw the sightlines"]
        missed = {mark.kind for _, mark in Ledger().follow(kept).missing}
        self.assertEqual(missed, {Kind.SIGHTLINE})

    def test_a_mark_that_was_bored_away_cannot_be_used_again(self) -> None:
        made = entries(planned(starter("bench")))
        late = Entry("measured afterwards", (centre(1),), ())
        self.assertEqual(Ledger().follow([*made, late]).missing, [("measured afterwards", centre(1))])

    def test_what_an_instruction_makes_is_there_for_itself(self) -> None:
        mark = Mark(Kind.NUMBER, "leg.1")
        own = Entry("both", (mark,), (mark,))
        self.assertEqual(Ledger().follow([own]).missing, [])
        self.assertEqual(Ledger().follow([replace(own, makes=())]).missing, [("both", mark)])
