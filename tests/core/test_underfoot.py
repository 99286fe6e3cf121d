"""What is put under the feet: part of the height, nothing to the levelling."""

from __future__ import annotations

from typing import Any

import numpy as np
from django.test import SimpleTestCase

from splay.build import Build, order_of
from splay.build.order import Record
from splay.errors import BadInput
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.quantity import Show, Units
from splay.shop import workbench
from splay.solids import solids_of
from splay.stance.moves import Move, move
from splay.stance.underfoot import bearings

SHOP = workbench()


def padded(start: str, height: float = 0.0, **under: Any) -> tuple[Piece, Plan]:
    document = write_piece(starter(start))
    document["height"] += height
    # What is given above the floor goes up with it.
    ends = [end for member in document["members"] for end in member.get("ends", ())]
    for level in (end["level"] for end in ends if "level" in end):
        level["value"] += height if level["by"] == "height" else 0.0
    under = {"kind": "pads", "thickness": 6, "across": 20, **under}
    piece = read_piece({**document, "underfoot": under})
    return piece, plan(piece, SHOP)


class Underfoot(SimpleTestCase):
    def test_a_piece_that_much_higher_on_pads_has_the_same_legs(self) -> None:
        """450 on bare feet and 456 on 6 mm pads are sawn alike: every card, length and reading expected."""
        for start in STARTS:
            bare = plan(starter(start), SHOP)
            _, on_pads = padded(start, height=6.0)
            with self.subTest(start):
                legs = [part.finished.quantity.value for part in bare.parts]
                now = [part.finished.quantity.value for part in on_pads.parts]
                self.assertTrue(np.allclose(legs, now, atol=1e-9))
                self.assertEqual(
                    [card.which_way + card.steps for card in bare.setups],
                    [card.which_way + card.steps for card in on_pads.setups],
                )
                self.assertEqual(
                    [(proof.id, proof.expected.text) for proof in bare.proofs],
                    [(proof.id, proof.expected.text) for proof in on_pads.proofs],
                )

    def test_a_level_above_the_floor_is_measured_from_under_the_pads(self) -> None:
        document = write_piece(starter("round_three"))
        ends = [{"on": "leg", "leg": id, "level": {"by": "height", "value": 180}} for id in ("l1", "l2")]
        document["members"] = [{"kind": "stretcher", "ends": ends}]
        piece = read_piece({**document, "underfoot": {"kind": "glides", "thickness": 10, "across": 18}})
        made = plan(piece, SHOP)
        floor, leg = made.stance.floor, made.stance.legs[0]
        down = made.members[0].ends[0].down.quantity.value
        at = tuple(p + d * down for p, d in zip(leg.socket, leg.d, strict=True))
        self.assertAlmostEqual(floor.to_floor((at[0], at[1], at[2]))[2] + 10.0, 180.0, places=6)

    def test_one_lies_under_every_foot_and_the_whole_is_as_high_as_wanted(self) -> None:
        counts = {"round_three": 3, "bench": 4, "board_sides": 4, "aproned": 4, "slab": 3, "crossed": 4}
        for start, count in counts.items():
            piece, made = padded(start)
            with self.subTest(start):
                self.assertEqual(len(bearings(piece, made.stance)), count)
                parts = solids_of(piece, made)
                self.assertEqual(sum(part.key.startswith("underfoot") for part in parts), count)
                low = min(float(part.points[:, 2].min()) for part in parts)
                self.assertAlmostEqual(low, -6.0, delta=0.05)
                seat = made.stance.floor.to_floor((0.0, 0.0, piece.top.thickness))[2]
                self.assertAlmostEqual(seat - low, piece.height, delta=0.05)

    def test_one_wider_than_its_foot_is_found_with_both_figures(self) -> None:
        _, made = padded("round_three", across=44)
        found = next(f for f in made.findings if f.code == "underfoot_wide")
        assert found.limit is not None
        self.assertEqual((found.number.value, found.limit.value, found.legs), (44.0, 30.0, (1, 2, 3)))
        _, fits = padded("round_three", across=20)
        self.assertFalse(any(f.code == "underfoot_wide" for f in fits.findings))

    def test_they_go_on_after_the_finish_and_nothing_is_told_of_bare_feet(self) -> None:
        piece, made = padded("round_three")
        order = order_of(piece, made, Build(), Record(), Show(Units()))
        names = [step.operation for step in order.steps]
        last = max(k for k, name in enumerate(names) if name == "finish")
        self.assertGreater(names.index("underfoot"), last)
        self.assertGreater(names.index("write_down"), names.index("underfoot"))
        told = " ".join(order.steps[names.index("underfoot")].do)
        self.assertIn("3 of them, 20 mm across and 6.0 mm thick", told)
        bare = order_of(starter("round_three"), plan(starter("round_three"), SHOP), Build(), Record())
        self.assertNotIn("underfoot", [step.operation for step in bare.steps])

    def test_the_seat_is_dragged_to_where_it_shall_be_on_its_pads(self) -> None:
        piece, _ = padded("round_three")
        moved = move(piece, Move("height", "front", (0.0, 414.0), 0), 0.5)
        self.assertEqual(moved.height, 420.0)

    def test_pads_higher_than_the_piece_leave_no_room(self) -> None:
        document = write_piece(starter("round_three"))
        document |= {"height": 80, "underfoot": {"thickness": 60}}
        with self.assertRaises(BadInput) as caught:
            read_piece(document)
        self.assertIn("under the feet, 60 mm", caught.exception.faults[0].allowed)
