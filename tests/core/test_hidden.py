"""Hidden pieces as judge: made with known errors, read exactly, cut as told; they must fit and stand."""

from __future__ import annotations

import math
import random

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from splay.errors import BadInput
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.reading import Reading
from splay.rehearse import Hidden, really, reveal, take
from splay.shop import workbench
from splay.stance.members import EndStance, MemberStance, members
from splay.stance.staked import Stance, stand, support_of
from splay.stance.taper import size_at
from tests.core.make import planned
from tools.judge import build

SHOP = workbench()


class HiddenPieces(SimpleTestCase):
    """A seeded few of every sort; tools/judge.py runs as many thousands as one likes."""

    def test_stretchers_cut_as_told_fit_the_hidden_piece(self) -> None:
        rng = random.Random(20261124)
        for k in range(8):
            made = starter("bench")
            hidden = Hidden(rng.randrange(2**31), 1.5)
            real = really(made, hidden)
            runs, _ = members(made, real)
            known: tuple[Reading, ...] = ()
            for leg in real.legs:
                id = f"bore.{leg.id}"
                known += (take(made, SHOP, hidden, known, id),)
            for run in runs:
                for id in (f"gap.{run.id}", f"depth.{run.id}.1", f"depth.{run.id}.2"):
                    known += (take(made, SHOP, hidden, known, id),)
            parts = plan(made, SHOP, known).members
            for run, part in zip(runs, parts, strict=True):
                # Independent: surface to surface of the real legs, by stepping along the line.
                inside = [self._leaves(made, real, end, run) for end in run.ends]
                gap = run.centres - sum(inside)
                tenons = sum(t.quantity.value for t in part.tenons)
                with self.subTest(at=k, member=run.number):
                    self.assertAlmostEqual(part.total.quantity.value, gap + tenons, delta=0.05)

    @staticmethod
    def _leaves(made: Piece, real: Stance, end: EndStance, run: MemberStance) -> float:
        if not end.leg:
            return end.leaves
        leg = real.legs[end.leg - 1]
        shape = support_of(made, leg).leg
        sign = 1.0 if end is run.ends[0] else -1.0
        u = np.array(run.u) * sign
        at, s, d = np.array(end.at), np.array(leg.socket), np.array(leg.d)
        low, high = 0.0, 200.0
        for _ in range(60):
            mid = (low + high) / 2
            p = at + u * mid - s
            run_down = float(p @ d)
            off = float(np.linalg.norm(p - d * run_down))
            if off < size_at(shape, leg.exposed, run_down) / 2:
                low = mid
            else:
                high = mid
        return low

    def test_two_passes_level_any_hidden_piece(self) -> None:
        """Bored off, cut off, read exactly, cut as told twice: it stands true however it was hidden."""
        rng = random.Random(7)
        names = ["round_three", "round_four", "bench", "battened", "slab", "aproned", "plane_frames"]
        for k, name in enumerate(names):
            document = write_piece(starter(name))
            way = ("bench", "standing", "shims", "seat")[k % 4]
            document["levelling"] = {"passes": [{"way": way}], "ends": "square", "flat": 0.0}
            hidden = Hidden(rng.randrange(2**31), 1.2)
            known: tuple[Reading, ...] = ()
            made = read_piece(document)
            for leg in stand(made).legs:
                id = f"bore.{leg.id}"
                known += (take(made, SHOP, hidden, known, id),)
            for number in (1, 2):
                made = read_piece(document)
                wanted = [p for p in plan(made, SHOP, known).proofs if p.station == "level"]
                for id in [p.id for p in wanted if p.of[0] == f"p{number}"]:
                    known += (take(made, SHOP, hidden, known, id),)
                document["levelling"]["passes"] = [{"way": way}] * (number + 1)
            made = read_piece(document)
            truth = reveal(made, SHOP, hidden, known)
            with self.subTest(name, way=way):
                self.assertLess(truth.rock.value, 0.05)
                self.assertLess(abs(truth.falls_right.value), 0.02)
                self.assertLess(abs(truth.falls_back.value), 0.02)

    def test_it_is_revealed_which_holes_lean_more_and_which_less_than_they_should(self) -> None:
        piece, ways = starter("round_four"), set()
        for seed in range(6):
            hidden = Hidden(seed, 1.5)
            meant, real = stand(piece), really(piece, hidden)
            for told, a, b in zip(reveal(piece, SHOP, hidden, ()).off, real.legs, meant.legs, strict=True):
                # Measured between the drawn axis and plumb to the seat, not asked of either plan.
                leans = [math.degrees(math.acos(-leg.d[2])) for leg in (a, b)]
                self.assertAlmostEqual(told.off.value, abs(leans[0] - leans[1]), places=6)
                self.assertEqual(told.more, leans[0] > leans[1])
                ways.add(told.more)
        self.assertEqual(ways, {True, False})

    def test_a_piece_read_too_high_is_cut_and_one_too_low_is_left(self) -> None:
        """All feet alike, 6 mm over and 6 mm under what it should stand."""
        document = write_piece(starter("round_four"))
        document["levelling"] = {"passes": [{"way": "bench", "raised": 100}], "flat": 0.0}
        made = read_piece(document)
        asked = [p for p in plan(made, SHOP).proofs if p.station == "level"]
        for off, said in ((6.0, "it stands 6.0 mm too high"), (-6.0, "It stands 6.0 mm too low")):
            known = tuple(Reading(p.id, made.stands + 100.0 + off, sure=True, kind=p.kind) for p in asked)
            (told, *_) = plan(made, SHOP, known).level
            self.assertIn(said, told.said)

    @settings(deadline=None, max_examples=25)
    @given(st.integers(0, 2**31), st.integers(0, 1000))
    def test_any_hidden_piece_cut_as_told_stands_in_the_wanted_plane(self, seed: int, kind: int) -> None:
        """What tools/judge.py does by the thousand: every kind, every way, read once, cut once."""
        foot, fit = build(random.Random(seed), kind)
        self.assertLessEqual(foot, 0.05)
        self.assertLessEqual(fit, 0.05)

    def test_seventy_seeded_ones_do_too(self) -> None:
        rng = random.Random(1126)
        for k in range(70):
            foot, fit = build(rng, k)
            with self.subTest(at=k):
                self.assertLessEqual(max(foot, fit), 0.05)

    def test_every_proof_of_every_kind_can_be_taken(self) -> None:
        hidden = Hidden(3)
        for name in STARTS:
            made = starter(name)
            # One of each kind of proof: they are worked out alike.
            kinds = {proof.kind: proof for proof in planned(made).proofs}
            for proof in kinds.values():
                value = take(made, SHOP, hidden, (), proof.id).value
                with self.subTest(name, proof=proof.id):
                    self.assertTrue(math.isfinite(value))
                    self.assertLess(abs(value - proof.expected.value), 30)
        with self.assertRaises(BadInput):
            take(starter("bench"), SHOP, hidden, (), "bore.l9")
