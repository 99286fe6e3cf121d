"""Angle cards: this piece's own angles as edges a bevel gauge is set against."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from textwrap import wrap

from splay.parts.member import MemberPart
from splay.parts.stick import SQUARE_DEG, StickPart
from splay.patterns.pattern import Pattern, pattern, ring
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.groups import boring_groups
from splay.stance.members import acute
from splay.stance.staked import Stance
from splay.stance.vectors import Flat
from splay.views.shapes import Shape, line, text
from splay.work.phrases import cap, listed

WIDE_MM, HIGH_MM = 150.0, 100.0
"""A card's size: a gauge's stock lies along its lower edge, its blade along the slanted one."""
SAME_DEG = 0.005
LINE_MM = 6.0
LETTERS = 48
"""So many letters stand on a line of a card."""
LEAST_OFF_DEG = 0.05
"""So near square no card is wanted: a square is at hand."""


@dataclass(frozen=True)
class Edge:
    """One angle to set: degrees from the card's lower edge, whose it is, what of it, where it leans."""

    angle: float
    who: str
    what: str
    leans: str = ""


def card_patterns(
    stance: Stance, members: tuple[MemberPart, ...], sticks: tuple[StickPart, ...], show: Show
) -> Iterator[Pattern]:
    """One card an angle; parts that share it are named on it together."""
    for k, (angle, whose) in enumerate(_shared(_edges(stance, members, sticks)), 1):
        yield _card(k, angle, whose, show)


def _edges(
    stance: Stance, members: tuple[MemberPart, ...], sticks: tuple[StickPart, ...]
) -> Iterator[Edge]:
    for group in boring_groups(stance):
        # To the seat it stands on its sightline; the acute side is where the foot goes.
        lean = "leans out from the middle" if group.side > 0 else "leans towards the middle"
        yield Edge(
            90.0 - group.first.boring.resultant,
            group.named(),
            "to the seat, on the sightline",
            lean if group.side else "leans the way its arrow points",
        )
    for leg in stance.legs:
        yield Edge(90.0 - leg.standing.resultant, f"leg {leg.number}", "foot cut, to its middle line")
    for member in members:
        for end in member.ends:
            side = f"the acute side towards the {end.acute_side}" if end.acute_side else ""
            # A gauge stands on the stick's side, which a taper turns off its middle line.
            on = acute(end.opening_on)
            yield Edge(on, end.into, f"{member.name} comes in, to its side", side)
            if abs(on - end.read.quantity.value) > SAME_DEG:
                between = f"{member.name} comes in, to its middle line"
                yield Edge(end.read.quantity.value, end.into, between, side)
    for stick in sticks:
        for cut, which in ((stick.start, "first end"), (stick.finish, "other end")):
            if abs(cut.mitre) > SQUARE_DEG:
                yield Edge(90.0 - abs(cut.mitre), stick.name, f"{which}, across its face")
            if abs(cut.on_edge) > SQUARE_DEG:
                yield Edge(90.0 - abs(cut.on_edge), stick.name, f"{which}, on its edge")


def _shared(edges: Iterator[Edge]) -> list[tuple[float, list[Edge]]]:
    found: list[tuple[float, list[Edge]]] = []
    for edge in edges:
        if edge.angle > 90.0 - LEAST_OFF_DEG or edge.angle < 5.0:
            continue
        mates = next((m for angle, m in found if abs(angle - edge.angle) < SAME_DEG), None)
        if mates is None:
            found.append((edge.angle, [edge]))
        elif edge not in mates:
            mates.append(edge)
    return found


def _said(whose: list[Edge]) -> list[str]:
    """Whose angle it is, parts of which the same is true named together."""
    found: dict[tuple[str, str], list[str]] = {}
    for edge in whose:
        found.setdefault((edge.what, edge.leans), []).append(edge.who)
    lines: list[str] = []
    for (what, leans), who in found.items():
        # What runs over the card's edge is cut off with it.
        lines += wrap(f"{cap(listed(who))}: {what}{f', {leans}' if leans else ''}", LETTERS)
    return lines


def _card(k: int, angle: float, whose: list[Edge], show: Show) -> Pattern:
    start = 25.0
    u = (deg.cos(angle), deg.sin(angle))
    far = min(HIGH_MM / u[1], (WIDE_MM - start) / u[0] if u[0] > 1e-9 else HIGH_MM / u[1])
    tip = (start + far * u[0], far * u[1])
    corners: list[Flat] = [(start, 0.0), (WIDE_MM, 0.0)]
    corners += [(WIDE_MM, HIGH_MM), tip] if tip[1] > HIGH_MM - 1e-6 else [tip]
    shapes: list[Shape] = [ring("cut", corners)]
    shapes += [
        line("hatch", (start - 16.0 + 4.0 * n, 0.0), (start - 22.0 + 4.0 * n, 8.0)) for n in range(4)
    ]
    shapes.append(text("pointer", (start + 26.0, 4.0), show.angle(angle).text, anchor="start"))
    exact = f"{angle:.2f}°; {show.angle(90.0 - angle, 2).text} off square"
    shapes.append(text("label", (start + 44.0, 4.0), exact, anchor="start"))
    lines = _said(whose)
    room = max(2, int((tip[1] - 20.0) / LINE_MM))
    if len(lines) > room:
        lines = [*lines[: room - 1], f"and {len(lines) - room + 1} more alike"]
    for n, one in enumerate(lines):
        y = 10.0 + LINE_MM * (len(lines) - n)
        shapes.append(text("label", (start + y * u[0] / u[1] + 8.0, y), one, anchor="start"))
    return pattern(
        f"card.{k}",
        "cards",
        f"Angle card, {show.angle(angle).text}",
        ("Cut it out. The gauge's stock along its lower edge, the blade along the slanted one.",),
        shapes,
    )
