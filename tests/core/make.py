"""Pieces for the tests, said in as few words as they differ by."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Any

import numpy as np
from manifold3d import Manifold, Mesh64

from splay.piece import Piece, read_piece
from splay.plan import Plan, plan
from splay.setups.card import Proof, SetUp
from splay.shop import Shop, workbench
from splay.solids import Part
from splay.views.shapes import View

ROUND = {"kind": "round", "diameter": 360}


def piece(
    outline: dict[str, Any] | None = None,
    placement: dict[str, Any] | None = None,
    angles: list[dict[str, Any]] | None = None,
    leg: dict[str, Any] | None = None,
    joint: dict[str, Any] | None = None,
    **choices: Any,
) -> Piece:
    """A four-legged staked piece, or whatever is said otherwise."""
    support = {
        "kind": "staked_legs",
        "placement": placement or {"way": "insets", "from_ends": 50, "from_edges": 40},
        "angles": angles or [{"by": "splay_rake", "splay": 10, "rake": 6}],
        "leg": leg or {"at_top": 32, "at_foot": 32},
        "joint": joint or {"way": "through", "socket": 25.4},
        "allowance": choices.pop("allowance", 20),
        "scope": choices.pop("scope", "alike"),
    }
    top = {
        "outline": outline or {"kind": "rectangle", "length": 400, "width": 300},
        "thickness": choices.pop("thickness", 38),
    }
    # Written as version 1 wrote it: members name legs by their numbers.
    document = {
        "version": 1,
        "name": "A piece",
        "height": 430,
        "top": top,
        "supports": [support],
        **choices,
    }
    return read_piece(document)


def round_stool(resultant: float, **choices: Any) -> Piece:
    """Three legs leaning straight out from a round top."""
    return piece(
        outline=ROUND,
        placement=choices.pop("placement", {"way": "circle", "count": 3, "radius": 80}),
        angles=[{"by": "resultant", "resultant": resultant}],
        **choices,
    )


def planned(made: Piece, shop: Shop | None = None) -> Plan:
    """The plan of a piece in a shop with one tool of every kind."""
    return plan(made, shop or workbench())


def proof_of(made: Plan, id: str) -> Proof:
    """The proof of that id."""
    return next(proof for proof in made.proofs if proof.id == id)


def with_cards(made: Plan, cards: Iterable[SetUp]) -> Plan:
    """The same plan telling the hands something else."""
    other = replace(made)
    # Cards are worked out when they are first asked for: these are there before.
    vars(other)["setups"] = tuple(cards)
    return other


def solid(part: Part) -> Manifold:
    """A part as the solid library takes it in."""
    return Manifold(
        Mesh64(np.array(part.points, order="C"), np.array(part.triangles, np.uint64, order="C"))
    )


def texts(view: View) -> list[str]:
    """The words of a drawing."""
    return [shape.text for shape in view.shapes if shape.kind == "text"]
