"""A stick or board to cut: lengths along its four arrises, its ends, its bevels, its stock."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.quantity import Figure, Show
from splay.stance.body import Body, SideTaper
from splay.stance.convex import Plane
from splay.stance.side_taper import end_across

SAWING_MM = 20.0
"""Left on a blank for squaring and sawing both ends (common practice, no source)."""
SQUARE_DEG = 1e-6


@dataclass(frozen=True)
class EndCut:
    """One end, laid with its `up` face showing. Bare numbers, degrees and mm.

    `mitre` is on that face between the cut and square across, positive where the end runs
    longer towards the first edge (across); `tilt` is of the blade off square to the face,
    positive where it runs longer towards the face itself; `on_edge` is the line on the edge.
    """

    mitre: float
    tilt: float
    on_edge: float

    @property
    def square(self) -> bool:
        """Whether it is cut square both ways."""
        return abs(self.mitre) < SQUARE_DEG and abs(self.tilt) < SQUARE_DEG


@dataclass(frozen=True)
class Arris:
    """The length along one long corner, named by the face and the edge it lies between (`between`).

    `across` and `up` are the signs of its place in the stick's own frame. Where the tree grew the edges it
    is the middle line of a face: without an edge, `across` nought.
    """

    where: str
    between: tuple[str, str]
    length: Figure
    across: int
    up: int


@dataclass(frozen=True)
class TaperedSide:
    """One tapered side by name: where it begins along the corner between it and `on`, the side it is drawn
    on; how far in it ends at the sawn end it runs to; and how wide `on` is there once it, and the side
    opposite where that is tapered too, are cut. `away` and `to` are those ends by name."""

    side: str
    on: str
    begins: Figure
    off: Figure
    left: Figure
    away: str
    to: str


@dataclass(frozen=True)
class StickPart:
    """One part's figures; `alike` names the parts cut to one setting, mirrored perhaps."""

    key: str
    name: str
    role: str
    support: int
    alike: str
    overall: Figure
    shoulders: Figure | None
    arrises: tuple[Arris, ...]
    stock: tuple[Figure, Figure]
    blank: Figure
    start: EndCut
    finish: EndCut
    bevels: tuple[Figure, ...]
    notches: tuple[Figure, ...]
    tapers: tuple[TaperedSide, ...]
    arc: tuple[Figure, ...]
    """The rise and the radius of the arc it is sawn to."""
    noun: str
    """What one of its sort is called where that is not its role."""


def end_cut(plane: Plane) -> EndCut:
    """A stick's end as mitre and tilt; `plane` in the stick's own frame.

    tan m = n_across / n_along on the face, sin t = n_up: the signed form of the compound cut.
    """
    x, y, z = plane.normal
    along = abs(x)
    return EndCut(
        mitre=math.degrees(math.atan2(-y, along)),
        tilt=math.degrees(math.atan2(-z, math.hypot(x, y))),
        on_edge=math.degrees(math.atan2(-z, along)),
    )


def stick_part(body: Body, show: Show) -> StickPart:
    """The figures of one part."""
    key, arrises = body.key, _arrises(body, show)
    (low, high), half = body.span, body.thickness / 2
    over = [(y, z) for y in (low, high) for z in (-half, half)] if body.grown else body.arrises().values()
    ends = [body.at(y, z) for y, z in over]
    first, last = min(a for a, _ in ends), max(b for _, b in ends)
    between = last - first
    tenons = sum(body.tenons)
    overall = between + tenons
    inputs = [show.input("L", "long point to long point", between)]
    if tenons:
        inputs.append(show.input("T", "both tenons", tenons))
    wide, thick = high - low, body.thickness
    return StickPart(
        key=key,
        name=body.name,
        role=body.role,
        support=body.support,
        alike=body.alike,
        overall=show.figure(
            f"{key}.overall",
            "Over all, tenons and all" if tenons else "Over all, long point to long point",
            overall,
            "L + T" if tenons else "L",
            *inputs,
            note="along the stick",
        ),
        shoulders=show.figure(
            f"{key}.shoulders",
            "Between shoulders, long point to long point",
            between,
            "L",
            show.input("L", "long point to long point", between),
        )
        if tenons
        else None,
        arrises=arrises,
        stock=(
            show.figure(f"{key}.width", "Stock, width", wide, "w", show.input("w", "width", wide)),
            show.figure(
                f"{key}.thick", "Stock, thickness", thick, "t", show.input("t", "thickness", thick)
            ),
        ),
        blank=show.figure(
            f"{key}.blank",
            "Blank",
            overall + body.allowance + SAWING_MM,
            "A + a + s",
            show.input("A", "over all", overall),
            show.input("a", "trim allowance", body.allowance),
            show.input("s", "for sawing both ends", SAWING_MM),
        ),
        start=end_cut(body.start),
        finish=end_cut(body.finish),
        bevels=_bevels(body, show),
        notches=_notches(body, show),
        tapers=tuple(_tapered(body, taper, show) for taper in body.tapers),
        arc=_arc(body, show),
        # A side that is glued up is two boards until then.
        noun="board" if body.glued else "",
    )


def _arc(body: Body, show: Show) -> tuple[Figure, ...]:
    """How far a piece between legs rises over its corners, and the radius that makes."""
    sweep = body.sweep
    if sweep is None:
        return ()
    chord, rise = show.input("c", "from corner to corner", sweep.chord), show.input("g", "rise", sweep.rise)
    return (
        show.figure(f"{body.key}.rise", "Arc, rise in the middle", sweep.rise, "as chosen", rise),
        show.figure(
            f"{body.key}.radius", "Arc, radius", sweep.radius, "(c² / 4 + g²) / (2 · g)", chord, rise
        ),
    )


def arris_sides(body: Body, i: int, k: int) -> tuple[str, str]:
    """A long corner by its face and its edge; without an edge where it is the face's middle line."""
    sides = body.sides
    edge = {1: sides.edge, -1: sides.other_edge, 0: ""}[i]
    return sides.face if k > 0 else sides.other_face, edge


def _arrises(body: Body, show: Show) -> tuple[Arris, ...]:
    """The long corners from sawn end to sawn end: what is sawn to, tenons and all."""
    tenons = sum(body.tenons)
    more = (show.input("T", "both tenons", tenons),) if tenons else ()
    made = []
    for (i, k), (y, z) in sorted(body.arrises().items(), reverse=True):
        a, b = body.at(y, z)
        face, edge = arris_sides(body, i, k)
        where = f"{face}, {edge}" if edge else f"middle line of its {face}"
        made.append(
            Arris(
                where,
                (face, edge),
                show.figure(
                    f"{body.key}.arris.{i}.{k}",
                    f"Along the {where}",
                    b - a + tenons,
                    "x₂ − x₁ + T" if tenons else "x₂ − x₁",
                    show.input("x₂", "far end, along the stick", b),
                    show.input("x₁", "near end", a),
                    *more,
                ),
                i,
                k,
            )
        )
    # The longest first: it is the one that is measured; mirrored parts then agree by name.
    made.sort(key=lambda arris: (-round(arris.length.quantity.value, 3), arris.where))
    return tuple(made)


def _tapered(body: Body, taper: SideTaper, show: Show) -> TaperedSide:
    side, on = body.sides.named(taper.side), body.sides.named(taper.on)
    key = f"{body.key}.taper.{side.replace(' ', '_')}"
    run = abs(taper.mark - taper.begins)
    wide = end_across(body, taper)
    away, to = ("upper end", "foot") if taper.to == "finish" else ("foot", "upper end")
    return TaperedSide(
        side,
        on,
        show.figure(
            f"{key}.begins",
            f"Taper of the {side} begins, from the {away}",
            taper.after,
            "as chosen",
            show.input("b", "along the corner", taper.after),
            note=f"along the corner between the {side} and the {on}",
        ),
        show.figure(
            f"{key}.off",
            f"Taper of the {side}, in from its corner at the {to}",
            taper.off,
            "o",
            show.input("o", f"in from the corner at the {to}", taper.off),
            show.input("l", f"along it, from its beginning to the sawn {to}", run),
            note=f"on the {on}; {show.angle(math.degrees(math.atan2(taper.off, run)), 2).text} there",
        ),
        show.figure(
            f"{key}.left",
            f"Across the {on} at the {to}",
            wide,
            "w",
            show.input("w", f"between both sides where the {to} is sawn shorter", wide),
        ),
        away,
        to,
    )


def _bevels(body: Body, show: Show) -> tuple[Figure, ...]:
    made = []
    for rip in body.rips:
        edge = body.sides.edge if rip.normal[1] > 0 else body.sides.other_edge
        angle = math.degrees(math.atan2(abs(rip.normal[2]), abs(rip.normal[1])))
        if angle < SQUARE_DEG:
            continue
        wide = body.sides.face if rip.normal[2] < 0 else body.sides.other_face
        made.append(
            show.figure(
                f"{body.key}.bevel.{edge.replace(' ', '_')}",
                f"Bevel of the {edge}, off square",
                angle,
                "the angle between the edge and square to the face",
                show.input("b", "off square", angle, "deg"),
                unit="deg",
                note=f"the {wide} comes out the wider",
            )
        )
    return tuple(made)


def _notches(body: Body, show: Show) -> tuple[Figure, ...]:
    """Half laps and cut-outs: where they begin, how wide, how deep."""
    made: list[Figure] = []
    for void in body.voids:
        if void.kind == "grown":
            continue
        key = f"{body.key}.{void.name.replace(' ', '_')}"
        cross = [p for p in void.planes if abs(p.normal[0]) > 0.5]
        flat = [p for p in void.planes if abs(p.normal[0]) <= 0.5]
        if len(cross) == 2:
            spots = sorted(p.offset / p.normal[0] for p in cross)
            turn = math.degrees(math.atan2(abs(cross[0].normal[2]), abs(cross[0].normal[0])))
            depth = body.width / 2 - abs(flat[0].offset) if flat else 0.0
            named = void.name
            made += [
                show.figure(
                    f"{key}.wide",
                    f"{named.capitalize()}: wide, along the stick",
                    spots[1] - spots[0],
                    "at mid length",
                    show.input("w", "along the stick", spots[1] - spots[0]),
                    note="scribe it from the other rail itself",
                ),
                show.figure(
                    f"{key}.deep",
                    f"{named.capitalize()}: deep",
                    depth,
                    "d / 2",
                    show.input("d", "depth of the rail", body.width),
                ),
            ]
            if turn > SQUARE_DEG:
                made.append(
                    show.figure(
                        f"{key}.turn",
                        "Its cheeks off square across",
                        turn,
                        "as the rails cross",
                        show.input("c", "off square", turn, "deg"),
                        unit="deg",
                    )
                )
            continue
        across = sorted(p.offset / p.normal[1] for p in void.planes if abs(p.normal[1]) > 0.5)
        top = [p for p in void.planes if abs(p.normal[0]) > 0.5]
        if len(across) == 2 and top:
            begin = top[0].offset / top[0].normal[0]
            end = body.at(0.0, 0.0)[1]
            made += [
                show.figure(
                    f"{key}.wide",
                    f"{void.name.capitalize()}: wide",
                    across[1] - across[0],
                    "as chosen",
                    show.input("w", "between the feet", across[1] - across[0]),
                ),
                show.figure(
                    f"{key}.high",
                    f"{void.name.capitalize()}: high, on the board",
                    end - begin,
                    "as chosen",
                    show.input("h", "up the board", end - begin),
                ),
            ]
    return tuple(made)
