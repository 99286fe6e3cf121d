"""What the wood of a piece does and weighs: density, movement between two airs, fits, what must be let
move."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from splay.piece import Piece, TopScrews
from splay.piece.kinds import HoldsTop
from splay.plan import Plan
from splay.quantity import Figure, Input, Quantity, Show
from splay.stance.buttons import buttons_by
from splay.stance.holding import across_grain, held_by
from splay.stance.members import members
from splay.timber.choices import WoodChoice
from splay.timber.moisture import Fitted, fit, is_linear, led_to, lies_out, movement
from splay.timber.species import GREEN, WOODS, Wood, density
from splay.timber.told import weight_said
from splay.views.mesh import Mesh, seen_meshes
from splay.views.scene import Model

USUAL = "ash, white"
"""What is reckoned with where no kind of wood was chosen."""
DRIER_BY = 2.0
"""How much drier than its seat a tenon goes in, percentage points at least (common practice, no source)."""


@dataclass(frozen=True)
class Air:
    """An air and the moisture it leads wood to, percent."""

    celsius: float
    humidity: float
    leads_to: float


@dataclass(frozen=True)
class Moves:
    """What the seat does across its grain on its way from the shop's air to the home's: mm, shrinking
    negative; flat- and quarter-sawn, and `holes` what the furthest leg holes move apart."""

    across: Quantity
    flat: Figure
    quarter: Figure
    holes: Quantity
    told: tuple[str, ...]


@dataclass(frozen=True)
class Tenons:
    """A dry tenon in the seat: how moist it should be (percent), how long it may lie out in the shop's air
    (minutes, from and to), what its fit gains once both agree (mm)."""

    diameter: Quantity
    wanted: float
    out_min: tuple[float, float]
    tighter: Quantity
    told: str


@dataclass(frozen=True)
class Effects:
    """What was reckoned with (`woods`: of the top and of the rest), weight (in kilograms and as it is
    said), the two airs."""

    woods: tuple[str, str]
    weight_kg: float
    weight: Quantity
    shop: Air
    home: Air
    moves: Moves | None
    tenons: Tenons | None
    moisture: float


def volumes(piece: Piece, plan: Plan, show: Show) -> Mapping[str, float]:
    """Litres of the top and of all else, as they will stand; tenons fill what is bored away for them."""
    runs, ropes = members(piece, plan.stance)
    model = Model(piece, plan.stance, plan.parts, plan.sockets, show, (), runs, ropes)
    found = {"top": 0.0, "rest": 0.0}
    for mesh in seen_meshes(model):
        if mesh.stuff != "rope":
            found["top" if mesh.stuff == "top" else "rest"] += abs(volume(mesh)) / 1e6
    return found


def volume(mesh: Mesh) -> float:
    """Cubic millimetres within a closed mesh: its triangles' tetrahedra with the origin."""
    points = np.array(mesh.points).reshape(-1, 3)
    a, b, c = (points[np.array(mesh.triangles).reshape(-1, 3)[:, k]] for k in range(3))
    return float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6.0)


def effects(
    piece: Piece,
    plan: Plan,
    choice: WoodChoice,
    woods: Mapping[str, Wood],
    moisture: float | None,
    show: Show,
) -> Effects:
    """What the wood does. `woods` are those laid out, by "top" and "rest"; `moisture` what was read of the
    seat's wood, percent: where nobody knows, what the shop's air leads to."""
    top = woods.get("top") or WOODS.get(choice.top_species, WOODS[USUAL])
    rest = woods.get("rest") or WOODS.get(choice.species, WOODS[USUAL])
    shop = Air(choice.shop_c, choice.shop_rh, led_to(choice.shop_c, choice.shop_rh))
    home = Air(choice.home_c, choice.home_rh, led_to(choice.home_c, choice.home_rh))
    wet = shop.leads_to if moisture is None else moisture
    litres = volumes(piece, plan, show)
    weight = (
        litres["top"] * density(top.gravity, home.leads_to)
        + litres["rest"] * density(rest.gravity, home.leads_to)
    ) / 1000.0
    return Effects(
        (top.name, rest.name),
        weight,
        weight_said(weight, show),
        shop,
        home,
        _moves(piece, plan, top, wet, home, show),
        _tenons(plan, rest, top, wet, shop, home, show),
        wet,
    )


def _moves(piece: Piece, plan: Plan, wood: Wood, wet: float, home: Air, show: Show) -> Moves | None:
    wide = across_grain(piece.top.outline, piece.top.grain)

    def one(tangential: bool, label: str) -> Figure:
        was, becomes = min(wet, GREEN), min(home.leads_to, GREEN)
        change = show.input("ΔM", "change, percentage points", becomes - was, "ratio")
        whole = wood.shrinks(tangential)
        if is_linear(was, becomes):
            formula = "w · C · ΔM / 1000"
            a_metre = 1000.0 * wood.coefficient(tangential)
            working: tuple[Input, ...] = (
                show.input("C", "mm a metre moves for each point", a_metre, "ratio"),
                change,
            )
        else:
            formula = "w · ΔM / (3000 / S − 30 + M)" if whole else "w · S"
            working = (
                show.input("S", "shrinks from green to dry, %", whole, "ratio"),
                show.input("M", "moisture now, %", was, "ratio"),
                change,
            )
        return show.figure(
            f"wood.moves.{'flat' if tangential else 'quarter'}",
            label,
            movement(wide, wood, tangential, wet, home.leads_to),
            formula,
            show.input("w", "across the grain", wide),
            *working,
            fine=True,
        )

    flat, quarter = one(True, "Across the grain, flat-sawn"), one(False, "Across the grain, quarter-sawn")
    holes = [leg.socket for leg in plan.stance.legs]
    grain = np.radians(piece.top.grain)
    sides = [-x * np.sin(grain) + y * np.cos(grain) for x, y, *_ in holes]
    apart = max(sides) - min(sides) if sides else 0.0
    change = movement(apart, wood, True, wet, home.leads_to)
    way = "narrower" if flat.quantity.value < 0 else "wider"
    told = [
        f"From {wet:.1f} % to {home.leads_to:.1f} % it becomes "
        f"{show.fine(abs(flat.quantity.value)).text} {way} "
        f"flat-sawn, {show.fine(abs(quarter.quantity.value)).text} quarter-sawn."
    ]
    told += _let_move(piece, flat.quantity.value, wide, show)
    return Moves(show.length(wide), flat, quarter, show.fine(change), tuple(told))


FIXING_ROOM = 1.5
"""Slots are made longer than the reckoned movement by this factor: the air may go further than was said
(common practice, no source)."""


def _let_move(piece: Piece, change: float, wide: float, show: Show) -> list[str]:
    """What holds the top and must let it move: battens, frames, aprons; a slab leg moves along."""
    told: list[str] = []
    far = abs(change) / wide if wide else 0.0
    if any(s.joint.face == "battens' lower face" for _, s in piece.staked()):
        slot = show.length(max(1.0, far * wide * FIXING_ROOM)).text
        told.append(
            f"Screws through the battens: the middle one in a round hole, the outer ones in slots {slot} "
            "longer than the screw is thick, across the grain of the seat."
        )
    ways = [held_by(piece, k) or buttons_by(piece, k) for k in range(len(piece.supports))]
    screwed = [way for way in ways if way is not None]
    if screwed:
        need, room = show.length(max(1.0, abs(change) * FIXING_ROOM)), min(one.moves for one in screwed)
        enough = "that is enough" if room >= need.value else f"make it {need.text} at least"
        by = "screws" if any(isinstance(way, TopScrews) for way in screwed) else "buttons"
        told.append(f"The top's {by} leave it {show.length(room).text} to move in: {enough}.")
    elif any(isinstance(support, HoldsTop) for support in piece.supports):
        slot = show.length(max(1.0, far * wide * FIXING_ROOM / 2.0)).text
        told.append(
            f"Fastened to what stands under it: fixed in the middle of its width, slots {slot} longer "
            "than the screw is thick at either edge."
        )
    if any(piece.slab_legs()):
        told.append(
            "Seat and slab leg come out of one slab, their grain in line: they move alike at the mitre."
        )
    return told


def _tenons(
    plan: Plan, wood: Wood, seat: Wood, wet: float, shop: Air, home: Air, show: Show
) -> Tenons | None:
    sizes = [leg.bore.size for leg in plan.stance.legs if leg.bore.tenon]
    if not sizes:
        return None
    diameter = max(sizes)
    wanted = max(min(wet, home.leads_to) - DRIER_BY, 3.0)
    low, high = lies_out(diameter)
    gained: Fitted = fit(diameter, wood, wanted, wet, home.leads_to, seat)
    if wanted >= shop.leads_to:
        out = "In this air dry tenons may lie out: they swell no further."
    else:
        out = (
            f"In this air a tenon swells by a tenth of what it will in {_minutes(low)} to "
            f"{_minutes(high)}: fit "
            "and glue it straight from the box where it was kept dry. A range: how fast depends on the "
            "wood."
        )
    return Tenons(show.length(diameter), wanted, (low, high), show.fine(gained.tighter), out)


def _minutes(minutes: float) -> str:
    return f"{minutes:.0f} min" if minutes < 90.0 else f"{minutes / 60.0:.0f} h"
