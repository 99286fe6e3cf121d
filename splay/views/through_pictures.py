"""Pictures of dowels driven from outside: their places on a joint, the hole on into an end."""

from __future__ import annotations

from splay.setups.scenes import BoredOn, ThroughBored
from splay.views.shapes import Shape, area, ellipse, line, text


def through_bored(scene: ThroughBored) -> list[Shape]:
    """The side lies level, its length to the right, the end's lines drawn on it."""
    wide, half = 150.0, 42.0
    left, right, top, low = -46.0, 74.0, 26.0, -26.0
    at = (left + 30.0, 0.0)
    return [
        area("section", ((-wide, -half), (wide, -half), (wide, half), (-wide, half))),
        line("cut", (left, -half), (left, half)),
        line("hidden", (left, top), (right, top), (right, low), (left, low)),
        ellipse("section", at, (7.0, 7.0)),
        line("axis", (at[0] - 14.0, at[1]), (at[0] + 14.0, at[1])),
        line("axis", (at[0], at[1] - 14.0), (at[0], at[1] + 14.0)),
        line("dimension", (left, low - 30.0), (at[0], low - 30.0)),
        text("pointer", (left - 6.0, low - 52.0), f"{scene.down} off the line", anchor="start"),
        line("dimension", (left - 20.0, at[1]), (left - 20.0, top)),
        text("pointer", (left - 28.0, 6.0), scene.aside, anchor="end"),
        text("label", (left, half + 12.0), f"line of its {scene.lead}"),
        text("label", (wide, half + 12.0), scene.face, anchor="end"),
    ]


def bored_on(scene: BoredOn) -> list[Shape]:
    """Cut along the dowel: what is joined stands to the left, the end to its right, the bit comes in from
    the left."""
    outer, joint, far, half, bore = -84.0, -36.0, 130.0, 34.0, 8.0
    bottom = 26.0
    return [
        area("leg", ((outer, -86.0), (joint, -86.0), (joint, 74.0), (outer, 74.0))),
        area("section", ((joint, -half), (far, -half), (far, half), (joint, half))),
        area("cut", ((outer, -bore), (bottom, -bore), (bottom, bore), (outer, bore))),
        line("cut", (joint, -half), (joint, half)),
        line("axis", (outer - 40.0, 0.0), (bottom + 18.0, 0.0)),
        line("measured", (outer - 36.0, 0.0), (outer - 6.0, 0.0)),
        line("dimension", (outer, -half - 22.0), (bottom, -half - 22.0)),
        text("pointer", ((outer + bottom) / 2.0 + 54.0, -half - 44.0), f"{scene.deep} deep"),
        text("dimension", (bottom + 12.0, bore + 6.0), scene.thick, anchor="start"),
        text("label", (outer, 82.0), scene.mate, anchor="start"),
        text("label", (far, -half - 66.0), scene.what, anchor="end"),
    ]
