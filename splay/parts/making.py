"""What making a leg asks besides its lengths: eight sides, tapers, the tenon's stock."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from splay.piece import Reamed, StakedLegs
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.stance.mouth import has_eased_mouth
from splay.stance.staked import LegStance
from splay.stance.taper import thickest

STRAIGHT_MM = 0.2
"""A leg that grows thinner by less over a length is made straight: no plane can show it (common practice,
no source)."""


@dataclass(frozen=True)
class Taper:
    """One taper of a leg, from its thick place to its thin one: what comes off each face there; `begins`
    and `ends` are those places down from the underside, `towards` what the thin one is called; mm."""

    towards: Literal["top", "foot", "waist"]
    off: Figure
    thick: float
    thin: float
    begins: float
    ends: float

    @property
    def run(self) -> float:
        """How long it is, mm."""
        return abs(self.ends - self.begins)


def making(key: str, support: StakedLegs, leg: LegStance, show: Show) -> tuple[Figure, ...]:
    """Gauge settings, tapers, the tenon and the foot of one leg."""
    return tuple(
        figure
        for figure in (
            eight_sides(key, support, leg, show),
            *(taper.off for taper in tapers(key, support, leg, show)),
            *_tenon(key, support, leg, show),
            _round_over(key, support, leg, show),
            _relief(key, support, leg, show),
        )
        if figure is not None
    )


def stock_size(support: StakedLegs, leg: LegStance) -> float:
    """Square stock a leg comes out of, mm."""
    return max(thickest(support.leg), leg.bore.size if leg.bore.tenon else 0.0)


def eight_sides(key: str, support: StakedLegs, leg: LegStance, show: Show) -> Figure | None:
    """Eight sides from square: mark S (1 - 1/sqrt 2) from each edge; each face S (sqrt 2 - 1)."""
    shape = support.leg
    if shape.section == "square" or (shape.section == "round" and shape.made_by == "turned"):
        return None
    return eight_from(f"{key}.octagon", stock_size(support, leg), show)


def eight_wide(stock: float) -> float:
    """How wide each of eight sides alike is that come out of square stock, mm: S (sqrt 2 - 1)."""
    return stock * (math.sqrt(2.0) - 1.0)


def eight_from(key: str, stock: float, show: Show) -> Figure:
    """The gauge's setting for eight sides alike from square stock, mm."""
    return show.figure(
        key,
        "Eight sides: gauge from each edge",
        stock * (1.0 - math.sqrt(0.5)),
        "S · (1 − 1/√2)",
        show.input("S", "square stock", stock),
        note=f"each of the eight faces is then {show.length(eight_wide(stock)).text} wide",
    )


def tapers(key: str, support: StakedLegs, leg: LegStance, show: Show) -> list[Taper]:
    """How much comes off each face, and over which length."""
    shape, long = support.leg, leg.exposed
    places: list[tuple[Literal["top", "foot", "waist"], float, float]]
    places = [("top", 0.0, shape.at_top), ("foot", long, shape.at_foot)]
    if shape.belly is not None:
        places.insert(1, ("waist", shape.belly.at * long, shape.belly.size))
    made = []
    for one, two in pairwise(places):
        if abs(one[2] - two[2]) < STRAIGHT_MM:
            continue
        (_, begins, thick), (towards, ends, thin) = (one, two) if one[2] > two[2] else (two, one)
        run = abs(ends - begins)
        off = show.figure(
            f"{key}.taper.{towards}" + (f".{one[0]}" if towards == "waist" else ""),
            f"Taper towards the {towards}, off each face",
            (thick - thin) / 2.0,
            "(B − b) / 2",
            show.input("B", "thick end", thick),
            show.input("b", "thin end", thin),
            show.input("l", "tapered length", run),
            note=f"over {show.length(run).text}: {show.angle(_slope(thick, thin, run), 2).text} a face",
        )
        made.append(Taper(towards, off, thick, thin, begins, ends))
    return made


def _slope(thick: float, thin: float, run: float) -> float:
    return deg.atan((thick - thin) / 2.0 / run)


def _tenon(key: str, support: StakedLegs, leg: LegStance, show: Show) -> list[Figure]:
    joint, bore = support.joint, leg.bore
    lean = show.input("ρ", "lean to the top", leg.boring.resultant, "deg")
    if joint.tenon == "none":
        return []
    if joint.tenon == "flat":
        return [
            show.figure(
                f"{key}.shoulder",
                "Shoulders, off square",
                leg.boring.resultant,
                "ρ",
                lean,
                unit="deg",
                note="measured from the foot: the foot's end is the reference for every leg",
            ),
            show.figure(
                f"{key}.shoulder_length",
                "Sloped shoulder to foot, along the middle",
                leg.exposed,
                "exposed",
                show.input("L", "exposed", leg.exposed),
            ),
        ]
    if isinstance(joint, Reamed):
        return [
            show.figure(
                f"{key}.tip",
                "Tapered tenon, diameter at its tip",
                bore.tip,
                "d − 2 · tan (i/2) · in the top",
                show.input("d", "at the underside", bore.size),
                show.input("i", "included angle", joint.included, "deg"),
                show.input("k", "in the top", bore.tenon),
            )
        ]
    if support.leg.tenon_by == "lathe" and support.leg.neck == "plain":
        return []
    return [
        show.figure(
            f"{key}.shoulder_line",
            "Tenon's shoulder from its end",
            bore.tenon,
            "in the top",
            show.input("k", "in the top", bore.tenon),
            note="the cove begins before it, within the eased mouth"
            if has_eased_mouth(support)
            else {
                "plain": "the leg runs into its tenon without a step",
                "cove": "ease the hole's mouth to meet the cove: it breaks here first",
                "shoulder": "cut the shoulder to the lean; it meets the eased mouth",
            }[support.leg.neck],
        )
    ]


BEARING_MM = 3.0
"""Flat a round-over bit's bearing needs on each face (common practice, no source)."""


def _round_over(key: str, support: StakedLegs, leg: LegStance, show: Show) -> Figure | None:
    """The largest round-over the thinnest end's arrises take, its bearing still on the face.

    An arris of a flats' angle takes r · tan((180 - angle) / 2) of each face: r on a square leg,
    r · tan 22.5° on eight sides.
    """
    shape = support.leg
    if shape.section == "round":
        return None
    thin = min(shape.at_top, shape.at_foot, *([shape.belly.size] if shape.belly else []))
    square = shape.section == "square"
    face = thin if square else thin * (math.sqrt(2.0) - 1.0)
    takes = 1.0 if square else deg.tan(22.5)
    return show.figure(
        f"{key}.round_over",
        "Round-over on its arrises, at most",
        max(0.0, (face - BEARING_MM) / 2.0 / takes),
        "(f − b) / 2" if square else "(f − b) / (2 · tan 22.5°)",
        show.input("f", "a face at the thinnest end", face),
        show.input("b", "flat left for the bearing", BEARING_MM),
        note="rounded after the tenon and the joints are cut: a bearing needs a face to run on",
    )


def _relief(key: str, support: StakedLegs, leg: LegStance, show: Show) -> Figure | None:
    size = support.leg.relief
    if size <= 0.0:
        return None
    return show.figure(
        f"{key}.relief",
        "Relief bevel round the foot, up the leg",
        size,
        "as chosen",
        show.input("v", "up the leg", size),
        note="so that the edge does not split when it is dragged",
    )
