"""Every figure can say how it came about: its formula, worked out from its own inputs, gives its value."""

from __future__ import annotations

import dataclasses
import json
import random
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from django.test import SimpleTestCase

import workshop
from splay.piece import read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.quantity import Figure, Show
from splay.quick import quick_lean, quick_mitre
from splay.reading import Reading
from splay.shop import workbench
from splay.shown import shown
from splay.stance.lean import solve
from splay.timber.choices import WoodChoice
from splay.timber.effects import effects
from tests.bench.pieces import buildable, framed
from tests.core.worked import Unread, worked

AS_IT_IS = {
    "acute angle between the two axes",
    "along it, from its first end",
    "along the axis, from the underside",
    "angle between the cut's trace and square across",
    "as chosen",
    "as the rails cross",
    "at mid length",
    "centre to centre",
    "from axis to axis",
    "from the sawn end, along the corner",
    "halfway between where the rope comes from and where it goes to",
    "least distance to the outline",
    "the angle between the edge and square to the face",
    "the thickest of leg and tenon",
}
"""Words for what is chosen or measured in the geometry itself: one of the inputs is the figure."""
BY_GEOMETRY = {
    "where its middle line runs along the string",
    "at the mouth's rim, from the cove",
    "from end to end",
    "from the end to the line",
    "from rim to rim, where the face cuts the round",
    "from the middle to where the bit meets the table, along the fall",
    "its end above the longest one's",
    "least all over the hole's floor",
    "least over all feet of the short edge's height",
    "longest that does not break out",
    "none",
}
"""Words for what has no line of arithmetic: found by going over a surface or over all feet."""
FEW = 60
DEMO = sorted((Path(workshop.__file__).parent / "demo" / "pieces").glob("*.json"))


def figures(inside: Any) -> Iterator[Figure]:
    """Every figure in an answer."""
    if isinstance(inside, Figure):
        yield inside
    elif dataclasses.is_dataclass(inside):
        for field in dataclasses.fields(inside):
            yield from figures(getattr(inside, field.name))
    elif isinstance(inside, tuple | list):
        for one in inside:
            yield from figures(one)
    elif isinstance(inside, dict):
        for one in inside.values():
            yield from figures(one)


class Why(SimpleTestCase):
    def hold(self, answer: Any, words: set[str], where: str) -> int:
        """Every figure of an answer worked out again; how many were arithmetic."""
        done = 0
        for one in figures(answer):
            with self.subTest(where, key=one.key, formula=one.formula):
                try:
                    got, wanted = worked(one)
                except Unread:
                    words.add(one.formula)
                    self.assertIn(one.formula, AS_IT_IS | BY_GEOMETRY, "no arithmetic of its inputs")
                    if one.formula in AS_IT_IS:
                        value = float(one.quantity.value)
                        near = min(abs(float(put.quantity.value) - value) for put in one.inputs)
                        self.assertLess(near, 1e-9, "none of its inputs is the figure")
                else:
                    done += 1
                    self.assertAlmostEqual(got, wanted, delta=1e-7 * max(1.0, abs(wanted)))
        return done

    def test_every_formula_gives_the_figure_beside_it(self) -> None:
        words: set[str] = set()
        plans = {name: plan(starter(name), workbench()) for name in STARTS}
        plans |= {path.stem: plan(read_piece(json.loads(path.read_bytes())), workbench()) for path in DEMO}
        plans |= {
            f"crossed {seed}": plan(framed(random.Random(seed), "crossed"), workbench())
            for seed in range(3)
        }
        plans |= {f"seed {seed}": buildable(random.Random(seed))[1] for seed in range(FEW)}
        done = sum(self.hold(shown(made, "all"), words, name) for name, made in plans.items())
        self.assertGreater(done, 10_000)
        self.assertEqual(AS_IT_IS - words, set(), "no figure says these any more: strike them")

    def test_so_it_does_where_readings_were_taken(self) -> None:
        rng = random.Random(7)
        for name in STARTS:
            document = write_piece(starter(name))
            document["levelling"] = {"passes": [{"way": "bench"}, {"way": "bench"}]}
            made = read_piece(document)
            asked = plan(made, workbench()).proofs
            readings = [Reading(p.id, p.expected.value + rng.gauss(0.0, 0.3), kind=p.kind) for p in asked]
            self.hold(shown(plan(made, workbench(), readings), "all"), set(), name)

    def test_so_do_quick_answers_and_the_wood(self) -> None:
        shop, words = workbench(), set[str]()
        show = Show(shop.rounding.units())
        for splay in (0.0, 7.5, 30.0):
            self.hold(quick_mitre(shop, splay, 80.0, 44.0), words, f"mitre {splay}")
            self.hold(quick_lean(shop, solve(splay=splay, rake=4.0)), words, f"lean {splay}")
        made = starter("bench")
        for home in (20.0, 50.0, 85.0):
            choice = WoodChoice(home_rh=home)
            for moisture in (None, 8.0, 45.0):
                self.hold(
                    effects(made, plan(made, shop), choice, {}, moisture, show), words, f"{home} {moisture}"
                )

    def test_a_wrong_formula_is_found(self) -> None:
        show = Show(workbench().rounding.units())
        height, lean = show.input("h", "height", 410.0), show.input("ρ", "lean", 14.0, "deg")
        right = show.figure("x", "Long", 422.5515880334582, "h / cos ρ", height, lean)
        got, wanted = worked(right)
        self.assertAlmostEqual(got, wanted)
        for formula in ("h · cos ρ", "h / sin ρ", "h"):
            got, wanted = worked(dataclasses.replace(right, formula=formula))
            self.assertGreater(abs(got - wanted), 1.0, formula)
        for formula in ("height of it / cos ρ", "along the leg", "h / cos σ"):
            with self.assertRaises(Unread):
                worked(dataclasses.replace(right, formula=formula))
