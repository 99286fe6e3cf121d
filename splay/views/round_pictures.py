"""Pictures of what is rounded or sawn round: a socket's eased mouth, an arc between legs."""

from __future__ import annotations

import math

from splay.setups.scenes import ArcSawn, MouthEased
from splay.stance.vectors import Flat
from splay.views.shapes import Shape, area, line, text


def mouth_eased(scene: MouthEased) -> list[Shape]:
    """The wood cut along the lean, its face up as it is worked on: the hole slants, its rims are round."""
    wide, face, foot, lean, half, radius = 118.0, 26.0, -54.0, 0.3, 22.0, 26.0
    left: list[Flat] = []
    right: list[Flat] = []
    for k in range(9):
        turn = math.pi / 2.0 * k / 8.0
        # Out from the wall and up to the face; the wall slants, the face is level.
        out, down = radius * (1.0 - math.cos(turn)), radius * (1.0 - math.sin(turn))
        y = face - down
        left.append((-half - out + lean * (y - face), y))
        right.append((half + out + lean * (y - face), y))
    bottom = lean * (foot - face)
    return [
        area("section", ((-wide, foot), (bottom - half, foot), *left, (-wide, face))),
        area("section", ((wide, foot), (bottom + half, foot), *right, (wide, face))),
        line("cut", *left),
        line("cut", *right),
        line("axis", (lean * (foot - 12.0 - face), foot - 12.0), (lean * 26.0, face + 26.0)),
        line("dimension", (left[-1][0], face + 16.0), (right[-1][0], face + 16.0)),
        text("pointer", (0.0, face + 34.0), scene.long),
        text("pointer", (right[4][0] + 6.0, right[4][1] - 26.0), f"round {scene.radius}", anchor="start"),
        text("label", (-wide, face + 10.0), scene.face, anchor="start"),
    ]


def arc_sawn(scene: ArcSawn) -> list[Shape]:
    """A piece on its face, its lower edge down: the arc over the chord, the waste below it, and above it
    where the upper edge follows."""
    half, foot, rise, deep = 112.0, -30.0, 34.0, 34.0
    radius = (half * half + rise * rise) / (2.0 * rise)
    middle = foot + rise - radius
    turn = math.asin(half / radius)

    def arc(out: float, share: float = 1.0) -> tuple[Flat, ...]:
        turns = (turn * share * (k / 12.0 - 1.0) for k in range(25))
        return tuple(((radius + out) * math.sin(t), middle + (radius + out) * math.cos(t)) for t in turns)

    lower, top = arc(0.0), foot + rise + deep
    upper = arc(deep, 0.9) if scene.follows else ((-half + 8.0, top), (half - 8.0, top))
    made = [
        area("waste", (*lower, (half, foot), (-half, foot))),
        area("section", (*lower, *reversed(upper))),
        line("cut", *lower),
    ]
    if scene.follows:
        made += [area("waste", (*upper, (upper[-1][0], top), (upper[0][0], top))), line("cut", *upper)]
    return [
        *made,
        line("dimension", (-half, foot - 10.0), (half, foot - 10.0)),
        text("dimension", (0.0, foot - 30.0), scene.chord),
        line("dimension", (0.0, foot), (0.0, foot + rise)),
        text("pointer", (6.0, foot + 6.0), scene.rise, anchor="start"),
        text("dimension", (6.0, foot + rise + deep / 2.0 - 4.0), scene.left, anchor="start"),
        text("label", (-half, foot - 30.0), scene.edge, anchor="start"),
    ]
