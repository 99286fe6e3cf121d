"""Cards by families: what a station asks for alone is what the whole has there."""

from __future__ import annotations

import random

from django.test import SimpleTestCase

from splay.plan import plan
from splay.setups.cards import FAMILIES
from tests.bench.pieces import buildable

COUNT = 60


class Families(SimpleTestCase):
    def test_each_station_shows_its_own_cards_in_the_order_of_hands(self) -> None:
        seen = set()
        for seed in range(COUNT):
            piece, whole, shop = buildable(random.Random(seed))
            alone = plan(piece, shop)
            for station in ("stance", "top", "boring", "legs", "stretchers", "level"):
                wanted = [card.id for card in whole.setups if card.station == station]
                self.assertEqual([card.id for card in alone.cards_at(station)], wanted)
                seen |= {station} if wanted else set()
            self.assertEqual(alone.cards_at("all"), whole.setups)
        self.assertEqual(seen, {"top", "boring", "legs", "stretchers"})

    def test_a_card_past_its_tools_reach_is_looked_for_at_every_station(self) -> None:
        """Stance makes no card of a family that is said to be within reach: so it had better be."""
        found, spared = 0, 0
        for seed in range(200):
            made = buildable(random.Random(seed))[1]
            for family in FAMILIES:
                if family.may_miss(made.made):
                    found += 1
                    continue
                cards = made.cards.of(family)
                spared += len(cards)
                self.assertEqual([card.title for card in cards if not card.in_reach], [])
        self.assertGreater(found, 100)
        self.assertGreater(spared, 1000)

    def test_what_is_found_at_stance_is_what_is_found_with_every_card_made(self) -> None:
        for seed in range(COUNT):
            piece, whole, shop = buildable(random.Random(seed))
            self.assertTrue(whole.setups)
            self.assertEqual(plan(piece, shop).findings, whole.findings)
