"""What is said of bad input: what was got, what is wanted, what to do, and which thing it is about."""

from __future__ import annotations

import re
from collections.abc import Iterator
from copy import deepcopy
from typing import Any

from django.test import SimpleTestCase

from splay.build import read_build
from splay.document import wanted
from splay.errors import BadInput, Fault
from splay.piece import read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.quantity import Bare
from splay.shop import read_shop, workbench, write_shop
from splay.timber.choices import read_choice
from splay.timber.stock import read_stock

BAD: tuple[Any, ...] = (
    "abc", "", "-5", "1e99", "5 5 5", "12 in 3", "9" * 90, None, True, -7, 0, 1e6, float("nan"),
    {}, [], [{}], {"way": "x"},
)  # fmt: skip
LIBRARY = re.compile(r"[Ii]nput|\bshould\b|valid |instance|or equal|string|pydantic|ctx|\{|_", re.ASCII)
DOUBLED = re.compile(r"\.\.|\s\s|\. \.|,\.|:\.")
FINE = re.compile(r"\d \d+/(32|64)\"")


ASH = {
    "species": "ash, white",
    "moisture": 9,
    "seen": [{"on": "2026-03-02", "moisture": 9.5, "weight": 11}],
}
STOCK: tuple[dict[str, Any], ...] = (
    {"kind": "board", "name": "A", "length": 900, "width": 90, "thickness": 20, **ASH,
     "flaws": [{"kind": "knot", "start": 10, "end": 60, "low": 5, "high": 40}]},
    {"kind": "slab", "name": "B", "thickness": 60, **ASH,
     "outline": [{"x": 0, "y": 0}, {"x": 900, "y": 0}, {"x": 900, "y": 400}],
     "spots": [{"kind": "bark", "points": [{"x": 600, "y": 90}], "across": 30}]},
    {"kind": "log", "name": "C", "length": 900, "small_end": 300, **ASH},
)  # fmt: skip
CHOICE: dict[str, Any] = {
    "species": "ash, white", "kerf": 3, "layers": [{"key": "k1", "layers": 2}],
    "laid": [{"key": "k1", "stock": "s1", "x": 20, "y": 30}],
}  # fmt: skip
BUILD: dict[str, Any] = {
    "order": ["ready"], "skipped": [{"key": "practice", "why": "known"}], "split": ["bore.l1"],
    "added": [{"id": "o1", "title": "Stamp it", "before": "finish", "minutes": 5}],
    "merged": [["bore.l1", "cut_outline"]], "promised": "2026-04-01", "air_c": 18, "glue": "hide",
    "spent": [{"what": "ash", "amount": 24}],
}  # fmt: skip


def places(value: Any, way: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    """The way to every value in a document, parts and lists included."""
    if way:
        yield way
    items = (
        value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    )
    for key, inner in items:
        yield from places(inner, (*way, key))


def put(document: dict[str, Any], way: tuple[Any, ...], value: Any) -> dict[str, Any]:
    made = deepcopy(document)
    here: Any = made
    for step in way[:-1]:
        here = here[step]
    here[way[-1]] = value
    return made


def _kinds(document: Any, way: tuple[Any, ...]) -> list[str]:
    """The kinds of the parts on the way to a value."""
    found, here = [], document
    for step in way:
        here = here[step]
        if isinstance(here, dict):
            found += [str(here[tag]) for tag in ("kind", "way", "by", "on") if tag in here]
    return found


def _of_parts(document: Any, field: str) -> bool:
    """Whether a fault is about something made of several parts that are all there."""
    here = document
    for step in field.split("."):
        try:
            here = here[int(step)] if isinstance(here, list) else here[step]
        except (KeyError, IndexError, TypeError, ValueError):
            return False
    return isinstance(here, dict | list) and bool(field)


class SaidTest(SimpleTestCase):
    """Every field of every start and of the shop, with every bad value: no word of a library."""

    def setUp(self) -> None:
        self.seen: set[tuple[Any, ...]] = set()

    def faults(self, read: Any, document: dict[str, Any], bare: Bare) -> Iterator[tuple[Any, Fault]]:
        for way in places(document):
            # The same field of another leg or another start is said in the same way.
            field = (bare, *(step for step in way if not isinstance(step, int)), *_kinds(document, way))
            if field in self.seen:
                continue
            self.seen.add(field)
            for value in BAD:
                try:
                    read(put(document, way, value), bare)
                except BadInput as bad:
                    for fault in bad.faults:
                        yield (way, value), fault

    def check(self, document: dict[str, Any], case: Any, fault: Fault) -> None:
        said = fault.said()
        with self.subTest(case=case, said=said):
            self.assertTrue(fault.allowed and fault.do)
            # Only what is made of parts, and all there, is not said as it was given.
            # Figures of wood that is in no table are wanted where none are given.
            self.assertTrue(
                fault.got or fault.field == "own" or _of_parts(put(document, *case[-1]), fault.field)
            )
            words = said.replace(f"Got {fault.got}", "", 1)
            self.assertNotRegex(words, LIBRARY)
            self.assertNotRegex(words, DOUBLED)
            self.assertRegex(said, r"^[A-Z].*[.]$")
            self.assertNotIn("something else", words)
            # A limit in 64ths is a figure of the program's, not of a maker's; but for what is under 1/8.
            self.assertNotRegex(fault.allowed, FINE)

    def test_pieces(self) -> None:
        seen = 0
        for start in STARTS:
            document = write_piece(starter(start))
            for bare in ("inch", "metric"):
                for case, fault in self.faults(read_piece, document, bare):
                    self.check(document, (start, case), fault)
                    at_all = case[0][0] in ("format", "version")
                    self.assertTrue(fault.what or at_all or not fault.field, (case, fault))
                    seen += 1
        self.assertGreater(seen, 3000)

    def test_the_shop(self) -> None:
        document = write_shop(workbench())
        seen = 0
        for bare in ("inch", "metric"):
            for case, fault in self.faults(read_shop, document, bare):
                self.check(document, ("shop", case), fault)
                seen += 1
        self.assertGreater(seen, 1000)

    def test_wood_and_what_is_chosen_of_it_and_of_the_build(self) -> None:
        readers: tuple[tuple[Any, tuple[dict[str, Any], ...]], ...] = (
            (lambda given, bare: read_stock(given, bare, ""), STOCK),
            (read_choice, (CHOICE,)),
            (lambda given, bare: read_build(given), (BUILD,)),
        )
        seen = 0
        for read, documents in readers:
            for document in documents:
                read(document, "metric")
                for bare in ("inch", "metric"):
                    for case, fault in self.faults(read, document, bare):
                        self.check(document, (document.get("kind"), case), fault)
                        seen += 1
        self.assertGreater(seen, 700)

    def test_limits_are_round_and_within(self) -> None:
        """A thickness asked in inches is limited in round inches that are allowed themselves."""
        document = write_piece(starter("round_three"))
        with self.assertRaises(BadInput) as caught:
            read_piece({**document, "height": "1 in"}, "inch")
        fault = caught.exception.faults[0]
        self.assertEqual(fault.allowed, '2 1/2" to 118"')
        self.assertEqual(fault.said(), 'Got 1 in; wanted: 2 1/2" to 118". Give a larger one.')
        self.assertEqual(fault.what, "height")
        for limit in ('2 1/2"', '118"'):
            # The top is thinner than any height it is given here.
            thin = {**document["top"], "thickness": 12.0}
            read_piece({**document, "height": limit, "top": thin}, "inch")

    def test_unknown_faults_are_worded_too(self) -> None:
        self.assertEqual(wanted("never heard of", {}), ("something else", "Choose another."))
