"""Marking out a hollow on the upper face: where it begins, and its template."""

from __future__ import annotations

import math

from splay.layout.marks import Mark, arc, line
from splay.layout.step import Step, carried_over
from splay.piece import Dish, Piece, Trough
from splay.quantity import Figure, Show
from splay.stance.hollow import arc_radius
from splay.stance.outline import extent
from splay.stance.strips import in_strips
from splay.work import marks as work
from splay.work.seat import Rim, said

ROUND_MM = 0.05
"""A dish whose two sizes differ by less is round."""


def radius_figure(key: str, label: str, chord: float, depth: float, show: Show) -> Figure:
    """The radius of a hollow's arc, by which its template is struck."""
    return show.figure(
        key,
        label,
        arc_radius(chord, depth),
        "(c² / 4 + g²) / (2 · g)",
        show.input("c", "chord", chord),
        show.input("g", "depth", depth),
    )


def hollow_steps(piece: Piece, before: list[Step], show: Show) -> list[Step]:
    """Where the hollow begins, from the middle lines on the upper face."""
    hollow = piece.top.hollow
    if hollow is None or in_strips(piece.top):
        return []
    if isinstance(hollow, Trough):
        half, (a, b) = hollow.chord / 2, extent(piece.top.outline)
        marks = tuple(
            line((i * half, -b), (i * half, b))
            if hollow.across == "length"
            else line((-a, i * half), (a, i * half))
            for i in (-1.0, 1.0)
        )
        chord = hollow.chord
    else:
        ring = arc((0.0, 0.0), 1.0).points
        marks = (Mark("arc", tuple((hollow.length / 2 * x, hollow.width / 2 * y) for x, y in ring)),)
        chord = hollow.length
    figure = radius_figure("layout.hollow", "Radius of the hollow's template", chord, hollow.depth, show)
    face = "upper face"
    mark = work.Mark(work.Kind.HOLLOW, work.SEAT)
    rim = _rim(hollow, mark, face, show)
    words = f"{said(rim)} Hollowed after boring. Strike the template on thin stuff and try it as you go."
    step = Step(
        "Mark where the hollow begins", words, (figure,), marks, (rim,), work.lettered(face), (mark,), face
    )
    there = any(one in step.makes for step in before for one in work.lettered(face))
    return [step] if there else [carried_over(piece, face, show), step]


def _rim(hollow: Trough | Dish, mark: work.Mark, face: str, show: Show) -> Rim:
    if isinstance(hollow, Trough):
        line_of = "front-back line" if hollow.across == "length" else "left-right line"
        return Rim(mark, face, line_of, show.length(hollow.chord / 2.0))
    a, b = hollow.length / 2.0, hollow.width / 2.0
    if abs(a - b) < ROUND_MM:
        return Rim(mark, face, "", show.length(a), trough=False)
    longer, shorter = max(a, b), min(a, b)
    pin = math.sqrt(longer * longer - shorter * shorter)
    line_of = "left-right line" if a > b else "front-back line"
    return Rim(mark, face, line_of, None, show.length(pin), show.length(2.0 * (longer + pin)), trough=False)
