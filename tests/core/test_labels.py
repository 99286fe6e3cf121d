"""What fields and choices are called goes out with the schemas: nothing is missing, nothing is stale."""

from __future__ import annotations

from typing import Any

from django.test import SimpleTestCase
from pydantic import TypeAdapter

from splay.build import build_schema
from splay.build.document import Build
from splay.errors import BadInput
from splay.labelled import forms, labelled
from splay.piece import Piece, piece_schema
from splay.piece.labels import LABELS, TITLES, WISHES
from splay.piece.starters import starter
from splay.shop import Shop, shop_schema
from splay.shop.labels import LABELS as SHOP_LABELS
from splay.shop.labels import TITLES as SHOP_TITLES
from splay.stance.restate import Restate, restate
from splay.timber.choices import read_choice, wood_schema
from splay.timber.stock import Slab, read_pile, stock_schema

KINDS_ALONE = {"kind", "way", "by", "on"}
"""What tells one model from another: chosen by asking for the whole said another way."""
BY_ITSELF = {
    "Piece.name", "Piece.notes",
    "Drawn.smooth", "Corner.x", "Corner.y", "Corner.sharp",
    "LevelPass.places", "LevelPass.way", "Levelling.ends", "StakedLegs.scope",
    "Underfoot.kind", "Trial.name", "Trial.why",
    "Belly.at",
    "Stick.length", "Stick.at_foot", "Stick.note", "OldHole.nearer", "OldHole.farther",
    "Bend.rise", "Bend.at", "Bend.faces",
    "Circle.count", "OnMember.share", "OnMember.member", "OnLeg.leg",
    "Peg.margin", "MitredFrames.dowels",
}  # fmt: skip
"""Filled in by a control of their own, with its own words, or not at all."""
WITHOUT_WORDS = {"Bend.faces"}


def filled(told: dict[str, dict[str, Any]]) -> dict[str, dict[str, Any]]:
    return {
        f"{model}.{field}": about
        for model, fields in told.items()
        for field, about in fields.items()
        if about.get("kind") and field not in KINDS_ALONE | {"id", "legs", "format", "version"}
    }


EVERY = (
    (piece_schema(), "Piece"),
    (shop_schema(), "Shop"),
    (build_schema(), "Build"),
    (stock_schema(), "Pile"),
    (wood_schema(), "WoodChoice"),
)
"""What forms are made for, and the model each begins with."""


class Labels(SimpleTestCase):
    def test_every_choice_of_a_build_and_of_wood_has_words(self) -> None:
        for schema, root in EVERY[2:]:
            for name, about in filled(forms(schema, root)).items():
                if about["kind"] == "choice" and name.split(".")[0] in {root, "Board", "TurnedStick"}:
                    self.assertIn("titles", about, name)

    def test_limits_of_bare_numbers_and_what_they_start_as_are_the_models(self) -> None:
        """A form that sends a number as typed knows from the schema alone what it may be."""
        build = forms(build_schema(), "Build", limits=True)["Build"]
        self.assertEqual({key: build["air_c"][key] for key in ("least", "most", "starts")},
                         {"least": -20, "most": 60, "starts": Build().air_c})  # fmt: skip
        self.assertEqual((build["open_min"]["above"], build["open_min"]["most"]), (0, 600))
        self.assertNotIn("starts", build["open_min"])
        self.assertEqual(build["glue"]["starts"], Build().glue)
        wood = forms(wood_schema(), "WoodChoice", limits=True)["WoodChoice"]
        for field in ("home_c", "home_rh", "shop_rh"):
            with self.assertRaises(BadInput):
                read_choice({field: wood[field]["most"] + 1})
            self.assertEqual(getattr(read_choice({field: wood[field]["most"]}), field), wood[field]["most"])
        # Lengths are read by the core, whatever they are typed in: no form bounds them.
        self.assertNotIn("most", wood["kerf"])

    def test_how_many_letters_and_parts_there_may_be_is_the_models(self) -> None:
        told = forms(piece_schema(), "Piece")
        for model, field, most in (
            ("Top", "hand_holds", 4), ("LowerTread", "rails", 4), ("Piece", "supports", 8),
            ("Piece", "name", 120), ("Trial", "why", 1000),
        ):  # fmt: skip
            self.assertEqual(told[model][field]["most"], most, (model, field))
        # How many there may be of texts is not how long one may be.
        added = forms(build_schema(), "Build", limits=True)
        self.assertEqual((added["Build"]["added"]["most"], added["OwnStep"]["title"]["most"]), (60, 120))
        layers = forms(wood_schema(), "WoodChoice", limits=True)["Layers"]["layers"]
        choice = {"layers": [{"key": "leg", "layers": layers["most"]}]}
        self.assertEqual(read_choice(choice).layers_of("leg"), layers["most"])
        choice["layers"][0]["layers"] += 1
        with self.assertRaises(BadInput):
            read_choice(choice)

    def test_what_a_form_begins_a_slab_with_is_a_slab(self) -> None:
        begins = forms(stock_schema(), "Pile", limits=True)["Slab"]["outline"]["starts"]
        item = {"kind": "slab", "id": "s1", "name": "Slab", "species": "ash, white", "thickness": 50}
        [slab] = read_pile({"items": [{**item, "outline": begins}]}).items
        assert isinstance(slab, Slab)
        self.assertEqual(len(slab.outline), 4)

    def test_every_wish_that_is_offered_is_one_that_can_be_had(self) -> None:
        four, three, sides = (starter(name) for name in ("round_four", "round_three", "board_sides"))
        for what, words in WISHES.items():
            made = set()
            for to in words:
                piece = sides if what == "held" else three if to == "triangle" else four
                made.add(restate(piece, Restate(what, to)).model_dump_json())  # type: ignore[arg-type]
            self.assertEqual(len(made), len(words), what)
            with self.assertRaises(BadInput):
                restate(four, Restate(what, "something else"))  # type: ignore[arg-type]

    def test_every_field_of_a_piece_is_called_something_where_it_is_filled_in(self) -> None:
        told = forms(piece_schema(), "Piece")
        within = {
            f"{model}.{field}.{inner}"
            for model, fields in told.items()
            for field, about in fields.items()
            for inner in about.get("within", {})
        }
        bare = {name for name, about in filled(told).items() if "label" not in about}
        # Called by the part they are in, wherever that is.
        bare -= {"EdgeShape.way", "Peg.entry"}
        self.assertEqual(bare - BY_ITSELF, set())
        self.assertLessEqual({"Top.upper_edge.way", "Blind.peg.entry"}, within)

    def test_a_field_by_itself_is_one_there_is(self) -> None:
        told = forms(piece_schema(), "Piece")
        for name in BY_ITSELF:
            model, field = name.split(".")
            self.assertIn(field, told[model], name)

    def test_every_choice_has_words_for_all_it_can_be_and_no_others(self) -> None:
        for schema, root in EVERY:
            defs = {root: schema, **schema["$defs"]}
            for model, about in defs.items():
                for field, one in about.get("properties", {}).items():
                    said = one.get("x-titles")
                    values = one.get("enum") or (one.get("items") or one).get("discriminator", {}).get(
                        "mapping"
                    )
                    if said is not None and values is not None:
                        self.assertEqual(set(said), {str(value) for value in values}, f"{model}.{field}")

    def test_choices_a_form_shows_have_words(self) -> None:
        for name, about in filled(forms(piece_schema(), "Piece")).items():
            if about["kind"] == "choice" and name not in WITHOUT_WORDS:
                has = "titles" in about or any(
                    key.split(".")[0] in name or "taper.sides" in key for key in TITLES
                )
                self.assertTrue(has, name)

    def test_a_label_of_nothing_is_a_fault(self) -> None:
        for labels, titles in (
            ({**LABELS, "Gap.nothing": "x"}, TITLES),
            (LABELS, {**TITLES, "Nothing.way": {"a": "b"}}),
        ):
            with self.assertRaises(KeyError):
                labelled(TypeAdapter(Piece).json_schema(), "Piece", labels, titles)
        labelled(TypeAdapter(Shop).json_schema(), "Shop", SHOP_LABELS, SHOP_TITLES)

    def test_labels_fit_the_fields_they_stand_in(self) -> None:
        for name, said in (*LABELS.items(), *SHOP_LABELS.items()):
            self.assertEqual(said, said.strip(), name)
            self.assertLessEqual(len(said), 36, name)
