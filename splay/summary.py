"""The figures the Stance station shows: leans, sizes over all, and the choices as read back."""

from __future__ import annotations

import math
from dataclasses import dataclass

from pydantic import BaseModel

from splay.document import Angle, Length
from splay.piece import Piece
from splay.quantity import Figure, Quantity, Show
from splay.setups.groups import toward
from splay.stance.aim import foot_reach
from splay.stance.lean import LeanAngles
from splay.stance.outline import extent
from splay.stance.staked import LegStance, Stance


@dataclass(frozen=True)
class LeanFigures:
    """One lean in all its names; the sightline from both lines, None where there is none."""

    splay: Quantity
    rake: Quantity
    resultant: Figure
    from_side: Figure | None
    from_centre: Figure | None
    toward: str


@dataclass(frozen=True)
class LegFigures:
    """One leg's leans off the top and off plumb, its socket (x, y) and where its foot stands."""

    number: int
    support: int
    pair: int
    place: tuple[Quantity, Quantity]
    foot: tuple[Quantity, Quantity]
    boring: LeanFigures
    standing: LeanFigures
    measured: bool


@dataclass(frozen=True)
class Size:
    """One size over all."""

    figure: Figure


def lean_figures(lean: LeanAngles, key: str, outward: tuple[float, float], show: Show) -> LeanFigures:
    """A lean for showing: splay and rake positive outward."""
    s, r = lean.splay * outward[0], lean.rake * outward[1]
    inputs = (show.input("s", "splay", s, "deg"), show.input("r", "rake", r, "deg"))
    side = centre = None
    if lean.from_side is not None and lean.from_centre is not None:
        side = show.figure(
            f"{key}.from_side",
            "Sightline from the side line",
            lean.from_side,
            "tan a = tan r / tan s",
            *inputs,
            unit="deg",
            note="the line joining a pair of legs, side to side",
        )
        centre = show.figure(
            f"{key}.from_centre",
            "Sightline from the centre line",
            lean.from_centre,
            "90° − a",
            show.input("a", "from the side line", lean.from_side, "deg"),
            unit="deg",
            note="the line from front to back",
        )
    return LeanFigures(
        splay=show.angle(s),
        rake=show.angle(r),
        resultant=show.figure(
            f"{key}.resultant",
            "Resultant, the true lean",
            lean.resultant,
            "tan² ρ = tan² s + tan² r",
            *inputs,
            unit="deg",
        ),
        from_side=side,
        from_centre=centre,
        toward=toward(lean),
    )


def leg_figures(leg: LegStance, show: Show) -> LegFigures:
    """One leg's line of the Stance station."""
    outward = tuple(-1.0 if at < -1e-6 else 1.0 for at in leg.socket[:2])
    out = (outward[0], outward[1])
    key = f"lean.{leg.number}"
    return LegFigures(
        number=leg.number,
        support=leg.support,
        pair=leg.pair,
        place=(show.length(leg.socket[0]), show.length(leg.socket[1])),
        foot=(show.length(leg.foot_floor[0]), show.length(leg.foot_floor[1])),
        boring=lean_figures(leg.boring, key, out, show),
        standing=lean_figures(leg.standing, f"{key}.floor", out, show),
        measured=leg.measured,
    )


def sizes(piece: Piece, stance: Stance, show: Show) -> tuple[Size, ...]:
    """Over the outsides of the feet, and the top for comparison."""
    made = []
    a, b = extent(piece.top.outline)
    for axis, name, top in ((0, "side to side", a), (1, "front to back", b)):
        low, high = math.inf, -math.inf
        for leg in stance.legs:
            u = (1.0, 0.0) if axis == 0 else (0.0, 1.0)
            reach = foot_reach(piece.supports[leg.support].leg, leg.d, stance.floor, u)
            low = min(low, leg.foot_floor[axis] - reach)
            high = max(high, leg.foot_floor[axis] + reach)
        made.append(
            Size(
                show.figure(
                    f"size.{axis}",
                    f"Feet over all, {name}",
                    high - low,
                    "outermost − innermost edge of the cut feet",
                    show.input("+", "outermost edge from the middle", high),
                    show.input("−", "the other edge from the middle", low),
                    show.input("top", "the top itself", 2 * top),
                )
            )
        )
    return tuple(made)


def chosen(document: BaseModel, show: Show) -> dict[str, Quantity]:
    """Every length and angle of a document by its path, as the maker reads it."""
    found: dict[str, Quantity] = {}
    _walk(document, "", found, show)
    return found


def _walk(part: object, path: str, found: dict[str, Quantity], show: Show) -> None:
    if isinstance(part, tuple):
        for index, item in enumerate(part):
            _walk(item, f"{path}.{index}", found, show)
    if not isinstance(part, BaseModel):
        return
    for name, info in type(part).model_fields.items():
        value, at = getattr(part, name), f"{path}.{name}" if path else name
        for rule in info.metadata:
            if isinstance(rule, Length):
                found[at] = show.length(value)
            elif isinstance(rule, Angle):
                found[at] = show.angle(value)
        if isinstance(value, BaseModel | tuple):
            _walk(value, at, found, show)
