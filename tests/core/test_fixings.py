"""What a piece needs besides its wood: counted by hand."""

from __future__ import annotations

from typing import Any

from django.test import SimpleTestCase

from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.quantity import Show, Units
from splay.stance.restate import Restate, restate
from splay.timber.fixings import fixings
from splay.work.joinery import MakeWedge
from tests.core.make import planned, round_stool


def needed(piece: Piece) -> dict[tuple[str, str], tuple[int, str]]:
    found = fixings(piece, planned(piece), Show(Units()))
    return {(one.name, one.what_for): (one.count, one.size) for one in found}


def changed(kind: str, **more: Any) -> Piece:
    return read_piece({**write_piece(starter(kind)), **more})


class Counted(SimpleTestCase):
    def test_dowels_and_loose_tenons_by_joints(self) -> None:
        # Two frames of two legs and two cross-pieces, two links: 8 + 4 ends, two dowels in each.
        frames = starter("plane_frames")
        ends = 2 * 2 * len(frames.supports[0].cross) + 2 * frames.supports[0].links  # type: ignore[union-attr]
        self.assertEqual(needed(frames)["dowels", "the joints"], (2 * ends, "10 mm by 34 mm"))
        # Two frames that cross have four mitres.
        self.assertEqual(needed(starter("crossed"))["loose tenons", "the joints"][0], 4)
        # A slab leg has one mitre: what it runs into is the same dowels.
        self.assertEqual(needed(starter("slab"))["dowels", "the joints"][0], 4)

    def test_a_wedge_for_every_leg_that_has_one_of_the_size_its_card_tells(self) -> None:
        made = starter("round_three")
        count, size = needed(made)["wedges of a hard wood", "the legs' tenons"]
        self.assertEqual(count, 3)
        card = next(card for card in planned(made).setups if card.operation == "wedges")
        told = next(do for do in card.does if isinstance(do, MakeWedge))
        self.assertEqual(size, f"{told.wide.text} by {told.long.text}, {told.butt.text} thick")
        # A plumb leg leans no way: nothing says where its slot lies, and it has none.
        plumb = round_stool(0.0, joint={"way": "through", "socket": 25.4})
        self.assertNotIn(("wedges of a hard wood", "the legs' tenons"), needed(plumb))

    def test_screws_washers_and_as_many_as_are_made(self) -> None:
        crossed = restate(starter("crossed"), Restate("held", "screws"))
        once = needed(crossed)
        self.assertEqual(once["screws", "holding the top"][0], 4)
        # A rail aslant to the grain wants wider holes, and a washer on each.
        self.assertEqual(once["washers", "under the top's screws"][0], 4)
        still = restate(changed("crossed", make=1), Restate("held", "screws"))
        document = write_piece(still)
        document["supports"][0]["held"]["moves"] = 0.0
        self.assertNotIn(("washers", "under the top's screws"), needed(read_piece(document)))
        made = read_piece({**write_piece(crossed), "make": 3})
        for key, (count, size) in needed(made).items():
            self.assertEqual((count, size), (3 * once[key][0], once[key][1]))
        aproned = restate(starter("aproned"), Restate("held", "buttons"))
        self.assertEqual(needed(aproned)["screws", "the buttons"][0], 8)

    def test_battens_pegs_screwed_legs_and_feet(self) -> None:
        battened = needed(starter("battened"))
        self.assertEqual(battened["screws", "the battens"][0], 6)
        self.assertEqual(battened["pegs", "the legs' tenons"][0], 4)
        self.assertEqual(needed(starter("log_slice"))["screws pointed at both ends", "the legs"][0], 3)
        padded = changed("round_three", underfoot={"kind": "pads", "thickness": 6, "across": 24})
        self.assertEqual(needed(padded)["pads", "under the feet"], (3, "24 mm across, 6.0 mm thick"))

    def test_dowels_from_outside_take_the_place_of_those_inside(self) -> None:
        found = needed(restate(starter("slab"), Restate("outside", "on")))
        self.assertNotIn(("dowels", "the joints"), found)
        self.assertEqual(found["dowels", "the mitre from outside, level"][0], 2)
        self.assertEqual(found["dowels", "the mitre from outside, plumb"][0], 3)

    def test_every_start_can_be_asked(self) -> None:
        for name in STARTS:
            for one in fixings(starter(name), planned(starter(name)), Show(Units())):
                self.assertGreater(one.count, 0)
