"""Documents the schema lets through, scattered about the starting pieces."""

from __future__ import annotations

import random
from collections.abc import Iterator
from contextlib import suppress
from typing import Any

from splay.errors import BadInput, SplayError
from splay.piece import Piece, piece_schema, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from tests.core.from_schema import FromSchema

MOST_CHANGES = 4


def numbers(at: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[tuple[Any, ...], float]]:
    """Every number of a document with the way to it."""
    if isinstance(at, dict):
        for key, below in at.items():
            yield from numbers(below, (*path, key))
    elif isinstance(at, list):
        for key, below in enumerate(at):
            yield from numbers(below, (*path, key))
    elif isinstance(at, int | float) and not isinstance(at, bool):
        yield path, at


def from_schema(rng: random.Random) -> Iterator[Piece]:
    """Pieces made from the published schema alone, of every kind; those it lets through that the rules
    between fields refuse are left out."""
    making = FromSchema(piece_schema(), rng)
    while True:
        with suppress(BadInput):
            yield read_piece(making.make())


def scattered(rng: random.Random, name: str = "") -> tuple[str, Piece]:
    """A starting piece with up to four of its numbers thrown anywhere, that the schema still reads."""
    while True:
        start = name or rng.choice(list(STARTS))
        document = write_piece(starter(start))
        spots = [spot for spot in numbers(document) if spot[0] != ("version",)]
        for (*way, last), value in rng.sample(spots, rng.randint(1, MOST_CHANGES)):
            part: Any = document
            for step in way:
                part = part[step]
            thrown = _thrown(rng, value)
            part[last] = int(thrown) if isinstance(value, int) else thrown
        try:
            return start, read_piece(document)
        except SplayError:
            continue


def _thrown(rng: random.Random, value: float) -> float:
    return rng.choice(
        (
            0.0,
            value * rng.uniform(0.02, 1.0),
            value * rng.uniform(1.0, 12.0),
            rng.uniform(-100.0, 2000.0),
            value + rng.uniform(-40.0, 40.0),
        )
    )
