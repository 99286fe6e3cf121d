"""A leg to cut: exposed, in the top, finished and blank, and the end that stands on the floor."""

from __future__ import annotations

from dataclasses import dataclass

from splay.parts.foot import FootCut, foot_cut, foot_figures
from splay.parts.making import Taper, eight_sides, making, tapers
from splay.piece import DowelScrew, Joint, Piece, Reamed, StakedLegs, Through
from splay.piece.joints import LEFT_MM
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.stance.floor import Floor
from splay.stance.staked import LegStance, support_of
from splay.stance.taper import thickest
from splay.stance.wedges import slot_bearing, wedge_of


@dataclass(frozen=True)
class LegPart:
    """One leg's figures, each with its working; `cut` keeps the bare numbers for drawings."""

    id: str
    number: int
    support: int
    exposed: Figure
    in_top: Figure
    finished: Figure
    blank: Figure
    foot_long: Figure
    foot_short: Figure
    high_low: Figure
    section: str
    stock: Figure
    making: tuple[Figure, ...]
    eight: Figure | None
    tapers: tuple[Taper, ...]
    wedge: Figure | None
    block: Figure
    cut: FootCut


LEAST_DEG = 1e-6
"""Less lean than this is none."""
_SQUARE_DEG = 90.0 - 1e-9


def has_ring(joint: Joint) -> bool:
    """Whether a joint's tenon bears a depth ring: not a tapered or shouldered one, nor a screw."""
    return joint.ring


def upper_end_name(joint: Joint) -> str:
    """What the end of a leg at the seat is called: a leg on a screw has no tenon."""
    return joint.upper_end


def leg_part(piece: Piece, stance: LegStance, floor: Floor, show: Show) -> LegPart:
    """The figures of one leg."""
    support = support_of(piece, stance)
    leg, _joint = support.leg, support.joint
    key = f"leg.{stance.number}"
    cut = foot_cut(leg, stance, floor)
    foot = foot_figures(key, leg, stance, cut, show)
    exposed = _exposed(key, stance, floor, show)
    in_top = _in_top(key, piece, stance, show)
    finished = show.figure(
        f"{key}.finished",
        "Finished length",
        stance.exposed + in_top.quantity.value,
        "exposed + in the top",
        show.input("L", "exposed", stance.exposed),
        show.input("i", "in the top", in_top.quantity.value),
        note="along the axis, to the middle of the slanted foot"
        + ("; with what is sawn off its tenon once it is home" if stance.bore.left_on else ""),
    )
    blank = show.figure(
        f"{key}.blank",
        "Blank, cut square",
        finished.quantity.value + cut.below + support.allowance,
        "F + b + a",
        show.input("F", "finished", finished.quantity.value),
        show.input("b", "to make the slanted cut full", cut.below),
        show.input("a", "trim allowance", support.allowance),
    )
    return LegPart(
        id=stance.id,
        number=stance.number,
        support=stance.support,
        exposed=exposed,
        in_top=in_top,
        finished=finished,
        blank=blank,
        foot_long=foot.long,
        foot_short=foot.short,
        high_low=foot.high_low,
        section=leg.section,
        stock=_stock(key, piece, stance, show),
        making=making(key, support, stance, show),
        eight=eight_sides(key, support, stance, show),
        tapers=tuple(tapers(key, support, stance, show)),
        wedge=_wedge(key, piece, stance, show),
        block=_block(key, piece, stance, cut, show),
        cut=cut,
    )


def _exposed(key: str, stance: LegStance, floor: Floor, show: Show) -> Figure:
    level = floor.fall_deg == 0.0
    where = floor.h0_mm + sum(n * p for n, p in zip(floor.normal, stance.socket, strict=True))
    return show.figure(
        f"{key}.exposed",
        "Exposed, underside to floor",
        stance.exposed,
        "h / cos ρ′" if level else "(h₀ + n·P) / cos ρ′",
        show.input("h" if level else "h₀ + n·P", "plumb height of the socket", where),
        show.input("ρ′", "lean to the floor", stance.standing.resultant, "deg"),
        note="along the axis",
    )


def _in_top(key: str, piece: Piece, stance: LegStance, show: Show) -> Figure:
    joint = support_of(piece, stance).joint
    label, rho, bore = "Tenon, in the top", stance.boring.resultant, stance.bore
    if isinstance(joint, DowelScrew):
        return show.figure(
            f"{key}.in_top",
            "Let into its recess",
            bore.recess,
            "w/2 · tan ρ + r",
            show.input("w", "recess, wide", bore.wide),
            show.input("ρ", "lean to the top", rho, "deg"),
            show.input("r", "deep on its shallow side", joint.recess),
            note="the leg's own end, square, closes on the recess's bottom",
        )
    if not bore.through:
        bored = show.input("k", "depth along the axis", bore.tenon)
        return show.figure(f"{key}.in_top", label, bore.tenon, "k", bored)
    through = (
        show.input("t", "thickness of the top there", bore.deep * deg.cos(rho)),
        show.input("ρ", "lean to the top", rho, "deg"),
        show.input("p", "proud, along the axis", bore.proud),
    )
    if not bore.left_on:
        return show.figure(f"{key}.in_top", label, bore.tenon, "t / cos ρ + p", *through)
    left = joint.left if isinstance(joint, Through | Reamed) else LEFT_MM
    return show.figure(
        f"{key}.in_top",
        "Tenon, through the top, as it is cut",
        bore.tenon,
        "t / cos ρ + p + d/2 · tan ρ + s",
        *through,
        show.input("d", "tenon where it comes out", 2.0 * (bore.left_on - left) / deg.tan(rho))
        if rho > LEAST_DEG
        else show.input("d", "tenon where it comes out", bore.size),
        show.input("s", "for the saw", left),
        note=f"{show.length(bore.left_on).text} of it is sawn off once it is home: a square end cut to "
        "nothing more leaves a pit on the side it leans away from"
        if rho > LEAST_DEG
        else f"{show.length(bore.left_on).text} of it is sawn off once it is home",
    )


def _stock(key: str, piece: Piece, stance: LegStance, show: Show) -> Figure:
    """Square stock the leg comes out of: its thickest place, tenon included."""
    support = support_of(piece, stance)
    leg = support.leg
    tenon = stance.bore.size if stance.bore.tenon else 0.0
    return show.figure(
        f"{key}.stock",
        "Square stock",
        max(thickest(leg), tenon),
        "the thickest of leg and tenon",
        show.input("T", "at the top", leg.at_top),
        show.input("D", "at the foot", leg.at_foot),
        *((show.input("B", "at its thickest between", leg.belly.size),) if leg.belly else ()),
        show.input("d", "tenon", tenon),
        note="finished size; add what your planing and turning take",
    )


def _wedge(key: str, piece: Piece, stance: LegStance, show: Show) -> Figure | None:
    """The wedge's slot, as an angle on the tenon's own square end.

    The end is square to the leg, so a plan angle psi off the sightline is wider on it:
    tan psi' = tan psi / cos rho.
    """
    lean = stance.boring
    wedge = wedge_of(support_of(piece, stance).joint)
    if wedge is None or lean.bearing is None:
        return None
    plan_angle = deg.fold(slot_bearing(piece, stance) - lean.bearing)
    across = wedge.lies == "across_grain"
    on_end = 90.0 if plan_angle > _SQUARE_DEG else deg.atan(deg.tan(plan_angle) / deg.cos(lean.resultant))
    return show.figure(
        f"{key}.wedge",
        "Wedge slot, off the sightline mark",
        on_end,
        "ψ" if plan_angle > _SQUARE_DEG else "tan ψ′ = tan ψ / cos ρ",
        show.input(
            "ψ",
            f"{'across the grain' if across else 'towards the middle'}, off the sightline in plan",
            plan_angle,
            "deg",
        ),
        show.input("ρ", "lean to the top", lean.resultant, "deg"),
        unit="deg",
        note="drawn on the tenon's end"
        + (", so that the wedge pushes on end grain and cannot split the top" if across else ""),
    )


def _block(key: str, piece: Piece, stance: LegStance, cut: FootCut, show: Show) -> Figure:
    """Height of the block that marks an untrimmed, square-ended leg for the floor.

    Square-ended, it stands on its lowest edge: (L + extra) cos rho' + (D/2) sin rho' below the
    socket; less the wanted height L cos rho', that is extra · cos rho' + (D/2) · sin rho'.
    """
    support = support_of(piece, stance)
    rho = stance.standing.resultant
    extra = cut.below + support.allowance
    # The square end is thinner (or thicker) than the foot by what the taper takes over `extra`.
    at_end = support.leg.at_foot / 2 - cut.taper * extra
    edge = (
        at_end * deg.sin(rho) if support.leg.section == "round" else _corner_drop(at_end, cut, rho, support)
    )
    return show.figure(
        f"{key}.block",
        "Scribing block",
        extra * deg.cos(rho) + edge,
        "e · cos ρ′ + D / 2 · sin ρ′" if support.leg.section == "round" else "e · cos ρ′ + c",
        show.input("e", "blank over finished", extra),
        show.input("ρ′", "lean to the floor", rho, "deg"),
        show.input("D", "blank's end across", 2.0 * at_end)
        if support.leg.section == "round"
        else show.input("c", "its lowest corner hangs below its middle", edge),
        note="stood on the floor beside the untrimmed leg, its top edge draws the cut",
    )


def _corner_drop(at_end: float, cut: FootCut, rho: float, support: StakedLegs) -> float:
    """How far the lowest corner of a square-ended leg hangs below its middle, plumb, mm.

    `cut.below` is that corner's slant along the leg at the foot; turned to a lean per half width.
    """
    half = support.leg.at_foot / 2
    lean = cut.below / (half - cut.taper * cut.below)
    return at_end * lean * deg.cos(rho)
