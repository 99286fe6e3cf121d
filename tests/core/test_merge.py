"""Two changes of one piece put together, what differs said in words, and what each place is called."""

from __future__ import annotations

from copy import deepcopy
from itertools import combinations
from typing import Any

from django.test import SimpleTestCase

from splay.differences import differences, in_words
from splay.piece import Piece, piece_schema, read_piece, write_piece
from splay.piece.merge import merge
from splay.piece.naming import FIELDS, PARTS, called
from splay.piece.starters import STARTS, starter
from splay.quantity import Show, Units

SHOW = Show(Units(system="metric", step_mm=0.1, fraction=64))


def changed(piece: Piece, **values: Any) -> Piece:
    """The piece with other values; a double underline for the dot of a path."""
    document = deepcopy(write_piece(piece))
    for path, value in values.items():
        *way, last = path.split("__")
        here: Any = document
        for step in way:
            here = here[int(step)] if isinstance(here, list) else here[step]
        here[int(last) if isinstance(here, list) else last] = value
    return read_piece(document)


def leaves(value: Any, path: str = "") -> list[str]:
    """The dotted paths of every figure in a document."""
    items = (
        value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else None
    )
    if items is None:
        return [path] if isinstance(value, float) else []
    return [leaf for key, inner in items for leaf in leaves(inner, f"{path}.{key}".lstrip("."))]


_UP = {"by": "height", "value": 150.0}


class MergeTest(SimpleTestCase):
    """Another's change to another field is kept, and only the same field is a clash."""

    def test_two_fields_both_stand(self) -> None:
        """Whatever two figures of any start are changed, each by one maker: both changes stand."""
        for start in STARTS:
            base = starter(start)
            document = write_piece(base)
            paths = [path for path in leaves(document) if "photo" not in path]
            made = 0
            for one, other in list(combinations(paths, 2))[:: max(1, len(paths) ** 2 // 120)]:
                try:
                    mine, theirs = (
                        changed(base, **{p.replace(".", "__"): _at(document, p) + 1.0})
                        for p in (one, other)
                    )
                    both = changed(mine, **{other.replace(".", "__"): _at(document, other) + 1.0})
                except ValueError:
                    continue
                with self.subTest(start, one=one, other=other):
                    found = merge(base, mine, theirs)
                    self.assertEqual(found.clashes, ())
                    self.assertEqual(found.piece, both)
                    self.assertEqual(merge(base, theirs, mine).piece, both)
                made += 1
            self.assertGreater(made, 5, start)

    def test_the_same_field_clashes(self) -> None:
        """Both values are to be had, and all the rest is put together."""
        base = starter("bench")
        mine = changed(base, top__thickness=50.0, height=470.0)
        theirs = changed(base, top__thickness=52.0, name="Hall bench")
        found = merge(base, mine, theirs)
        self.assertEqual([clash.mine for clash in found.clashes], ["top.thickness"])
        self.assertEqual(
            (found.piece.top.thickness, found.piece.height, found.piece.name), (50.0, 470.0, "Hall bench")
        )
        taken = merge(base, mine, theirs, frozenset(["top.thickness"])).piece
        self.assertEqual((taken.top.thickness, taken.height), (52.0, 470.0))

    def test_the_same_value_is_no_clash(self) -> None:
        base = starter("bench")
        both = changed(base, height=470.0)
        self.assertEqual(merge(base, both, both), merge(base, both, base))

    def test_parts_are_told_by_their_ids(self) -> None:
        """One maker takes the first stretcher away, another thickens the second: the second is thickened,
        though it is the first by now; and what a change was made to is not taken away with it."""
        base = starter("bench")
        stretcher = write_piece(base)["members"][0]
        other = {**stretcher, "id": "m9", "name": "second", "ends": list(reversed(stretcher["ends"]))}
        other["ends"] = [{**end, "leg": leg} for end, leg in zip(other["ends"], _free(base), strict=True)]
        base = read_piece({**write_piece(base), "members": [stretcher, other]})
        without_first = read_piece({**write_piece(base), "members": [other]})
        thick = changed(base, members__1__diameter=41.0)
        found = merge(base, without_first, thick)
        self.assertEqual(found.clashes, ())
        self.assertEqual([(m.id, m.diameter) for m in found.piece.members], [("m9", 41.0)])
        first = changed(base, members__0__diameter=42.0)
        kept = merge(base, without_first, first).piece
        self.assertEqual(
            {m.id: m.diameter for m in kept.members}, {"m9": other["diameter"], stretcher["id"]: 42.0}
        )

    def test_both_add_a_part(self) -> None:
        base = starter("round_three")
        legs = list(write_piece(base)["supports"][0]["placement"]["legs"])
        stick = {"kind": "stretcher", "ends": [{"on": "leg", "leg": leg, "level": _UP} for leg in legs[:2]]}
        other = {"kind": "stretcher", "ends": [{"on": "leg", "leg": leg, "level": _UP} for leg in legs[1:]]}
        mine = read_piece({**write_piece(base), "members": [{**stick, "id": "ma"}]})
        theirs = read_piece({**write_piece(base), "members": [{**other, "id": "mb"}]})
        found = merge(base, mine, theirs)
        self.assertEqual([m.id for m in found.piece.members], ["ma", "mb"])

    def test_possible_each_impossible_together(self) -> None:
        """A thicker top and a lower seat can each be; the top thicker than the seat is high cannot."""
        base = changed(starter("round_three"), height=100.0)
        mine, theirs = changed(base, height=70.0), changed(base, top__thickness=90.0)
        found = merge(base, mine, theirs)
        self.assertEqual([clash.mine for clash in found.clashes], [""])
        self.assertEqual(found.piece, mine)
        self.assertEqual(merge(base, mine, theirs, frozenset([""])).piece, theirs)

    def test_another_kind_is_one_clash(self) -> None:
        """An outline made oval by one and wider by the other: one thing to choose, not a mixture."""
        base = starter("round_three")
        mine = changed(base, top__outline={"kind": "oval", "length": 400.0, "width": 300.0})
        theirs = changed(base, top__outline__diameter=380.0)
        self.assertEqual([clash.mine for clash in merge(base, mine, theirs).clashes], ["top.outline"])


def _at(document: Any, path: str) -> Any:
    for step in path.split("."):
        document = document[int(step)] if isinstance(document, list) else document[step]
    return document


def _free(piece: Piece) -> list[str]:
    """Two legs that the piece's first stretcher does not stand in, or in the other order."""
    document = write_piece(piece)
    used = {end.get("leg") for end in document["members"][0]["ends"]}
    legs = [leg for leg in document["supports"][0]["placement"]["legs"] if leg not in used]
    return legs[:2]


class DifferencesTest(SimpleTestCase):
    """What differs is said in the maker's words."""

    def test_words(self) -> None:
        base = starter("bench")
        cases = {
            "height 450.0 mm → 470.0 mm": changed(base, height=470.0),
            "top, thickness 44.0 mm → 50.0 mm": changed(base, top__thickness=50.0),
            "stretcher 3 taken away": changed(base, members=write_piece(base)["members"][:-1]),
            "name Bench → Hall bench": changed(base, name="Hall bench"),
            "legs, practice legs 0 → 1": changed(base, supports__0__leg__practice=1),
        }
        for words, piece in cases.items():
            self.assertEqual(in_words(differences(base, piece, SHOW)), words)
        two = changed(base, height=470.0, name="Hall bench")
        self.assertEqual(in_words(differences(base, two, SHOW)), "name Bench → Hall bench and 1 more")
        self.assertEqual(in_words(differences(base, base, SHOW)), "")

    def test_legs_are_named_by_their_numbers(self) -> None:
        base = starter("bench")
        document = write_piece(base)
        document["members"][0]["ends"][1]["leg"] = _free(base)[0]
        words = in_words(differences(base, read_piece(document), SHOW))
        self.assertRegex(words, r"^stretcher 1, end 2, stands in leg \d → leg \d$")

    def test_whatever_is_changed_is_said(self) -> None:
        """No figure of any start can change without a word."""
        for start in STARTS:
            base = starter(start)
            for path in leaves(write_piece(base)):
                value = _at(write_piece(base), path)
                try:
                    other = changed(base, **{path.replace(".", "__"): value + 1.0})
                except ValueError:
                    continue
                with self.subTest(start, path=path):
                    found = differences(base, other, SHOW)
                    self.assertEqual([one.path for one in found], [path])

    def test_every_field_has_a_name(self) -> None:
        """The table of names against the published schema: nothing is called by its field's name."""
        fields = {
            name for model in piece_schema()["$defs"].values() for name in model.get("properties", {})
        }
        unnamed = {name for name in fields - set(FIELDS) - set(PARTS) if called({}, name) == name}
        self.assertEqual(unnamed - {"top", "lean", "levelling"}, set())
