"""Which joints go together when: pairs in one plane first, what crosses them last, the top on top."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from splay.parts.frame_assembly import frame_stages
from splay.parts.leg import LegPart, has_ring
from splay.parts.member import MemberPart
from splay.parts.stages import Stage
from splay.piece import Piece, Stretcher
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.stance.body import Body
from splay.stance.lines import leans_outward
from splay.stance.member_flats import named_member_faces
from splay.stance.members import MemberStance
from splay.stance.staked import LegStance, support_of
from splay.stance.vectors import angle
from splay.work.phrases import listed

TOGETHER_DEG = 10.0
"""Tenons that close at once enter their sockets within this of one direction without being forced (common
practice, no source)."""


@dataclass(frozen=True)
class Assembly:
    """The order of assembly. `spread` is how far each tenon must be drawn outward as it enters the
    top; `apart` how far from one direction the pieces of a stage close, where that is a strain."""

    stages: tuple[Stage, ...]
    spread: tuple[Figure, ...]
    apart: Quantity | None


def assembly(
    piece: Piece,
    bodies: tuple[Body, ...],
    legs: tuple[LegStance, ...],
    parts: tuple[LegPart, ...],
    runs: tuple[MemberStance, ...],
    members: tuple[MemberPart, ...],
    show: Show,
) -> Assembly | None:
    """The order in which a piece can be put together; None where there is nothing to join.

    Supports of square stock are made up first, each by itself. Stretchers between two legs that share a
    plane make stiff pairs first; all that then joins one pair to another goes in at once, each started
    lightly; last the legs enter the seat together.
    """
    frames = frame_stages(piece, bodies)
    if not legs:
        return Assembly(tuple(frames), (), None) if frames else None
    groups = {leg.number: leg.number for leg in legs}
    names = {part.number: part for part in members}
    first = _pairs(runs, groups)
    stages = [*frames]
    for run in first:
        a, b = (end.leg for end in run.ends)
        lone = f"{names[run.number].name} into legs {a} and {b}"
        mates = [r for r in first if {e.leg for e in r.ends} == {a, b}]
        if mates[0] is not run:
            continue
        stages.append(
            Stage(
                f"Legs {a} and {b}",
                (
                    f"{lone[0].upper()}{lone[1:]}: turn each leg until its socket faces "
                    "the other leg, and lay both flat on the bench.",
                    *_turned(piece, mates, runs, names),
                    "Each end into the leg whose number it bears, half way by hand, then driven home.",
                    f"Tenon ends of both legs one way, and {_lines_of(piece, legs, {a, b})} the way they "
                    "were dry. Lay a straight stick over both legs: no twist, before it sets.",
                ),
                (f"leg.{a}", f"leg.{b}", *(f"member.{r.number}" for r in mates)),
                2 * len(mates),
            )
        )
    rest = [run for run in runs if run not in first]
    apart = None
    if rest and not _loops(runs):
        stages.append(_one_by_one(piece, rest, runs, names, bool(first)))
    elif rest:
        apart = _widest(rest)
        said = ", ".join(names[run.number].name for run in rest)
        strained = apart > TOGETHER_DEG
        steps = [
            f"All at once: {said}. Start each lightly at both ends, then close them turn by turn.",
            "Drive none of them home before the last has started: it could not go in any more.",
        ]
        steps = [*_turned(piece, rest, runs, names), *steps]
        if strained:
            steps.append(
                f"They close {show.angle(apart).text} from one direction: ease the tenons' ends, and "
                "draw the legs together by hand before any clamp."
            )
        stages.append(
            Stage(
                "What crosses" if first else "The ring",
                tuple(steps),
                tuple(f"member.{run.number}" for run in rest),
                2 * len(rest),
            )
        )
    spread = tuple(_spread(leg, part, show) for leg, part in zip(legs, parts, strict=True)) if runs else ()
    stages += _into_seat(piece, legs, runs)
    strain = show.angle(apart) if apart is not None and apart > TOGETHER_DEG else None
    return Assembly(tuple(stages), spread, strain)


def _loops(runs: tuple[MemberStance, ...]) -> bool:
    """Whether any stretchers and legs make a ring. Without one each joint is driven straight in by itself;
    the last stretcher of a ring finds both its ends taken, and can only be started with the others."""
    knot: dict[tuple[int, int], tuple[int, int]] = {}

    def root(one: tuple[int, int]) -> tuple[int, int]:
        while knot.get(one, one) != one:
            one = knot[one]
        return one

    for run in runs:
        for end in run.ends:
            a, b = root((0, run.number)), root((end.leg, end.member))
            if a == b:
                return True
            knot[a] = b
    return False


def _one_by_one(
    piece: Piece,
    rest: list[MemberStance],
    runs: tuple[MemberStance, ...],
    names: dict[int, MemberPart],
    paired: bool,
) -> Stage:
    """Stretchers that make no ring: each driven home by itself, what carries another before that."""
    order = sorted(rest, key=lambda run: any(end.member for end in run.ends))
    steps = list(_turned(piece, rest, runs, names))
    for run in order:
        # Into what it is carried by first: there its place cannot be missed.
        ends = sorted(run.ends, key=lambda end: not end.member)
        into = [names[end.member].name if end.member else f"leg {end.leg}" for end in ends]
        name = names[run.number].name
        steps.append(
            f"{name[0].upper()}{name[1:]}: one end into {into[0]}, half way by hand, then driven home; "
            "then "
            f"{into[1]} onto its other end, straight along it."
        )
    steps.append("One joint after the other, each home before the next: nothing here closes a ring.")
    return Stage(
        "What crosses" if paired else "The stretcher" if len(rest) == 1 else "The stretchers",
        tuple(steps),
        tuple(f"member.{run.number}" for run in rest),
        2 * len(rest),
    )


def _knit(legs: tuple[LegStance, ...], runs: tuple[MemberStance, ...]) -> list[list[LegStance]]:
    """The legs that stretchers hold together, each lot by itself."""
    lots: list[set[tuple[int, int]]] = [{(leg.number, 0)} for leg in legs]
    for run in runs:
        mine = {(0, run.number)} | {(end.leg, end.member) for end in run.ends}
        met = [lot for lot in lots if lot & mine]
        lots = [lot for lot in lots if not lot & mine] + [set().union(mine, *met)]
    made = [[leg for leg in legs if (leg.number, 0) in lot] for lot in lots]
    return sorted((lot for lot in made if lot), key=lambda lot: lot[0].number)


def _into_seat(piece: Piece, legs: tuple[LegStance, ...], runs: tuple[MemberStance, ...]) -> list[Stage]:
    """Legs that stretchers hold together go into the seat at once; any other leg by itself, with an open
    time of its own: told in one stage where none are held together."""
    lots = _knit(legs, runs)
    single = tuple(leg for lot in lots if len(lot) == 1 for leg in lot)
    made = []
    for lot in (lot for lot in lots if len(lot) > 1):
        named = listed(f"leg {leg.number}" for leg in lot)
        made.append(
            _seat_stage(
                "Into the seat" if len(lot) == len(legs) else f"Into the seat: {named}",
                (
                    "It looks too narrow, and should: spread the legs until every tenon stands over its "
                    "hole.",
                    "All tenons into the seat together, each over its own number and started; the seat "
                    "tapped down evenly all round.",
                    _lined(piece, tuple(lot)),
                ),
                tuple(lot),
            )
        )
    turned = tuple(leg for leg in single if support_of(piece, leg).joint.tenon == "none")
    plain = tuple(leg for leg in single if leg not in turned)
    if plain:
        parallel = any(support_of(piece, leg).joint.tenon != "tapered" for leg in plain)
        steps = [
            "One leg after the other, each into the hole that bears its number: glue in one hole and on "
            "its "
            "tenon, the leg home, then the next.",
            _lined(piece, plain),
            "Snug and pushed, never hammered where the tenon is parallel."
            if parallel
            else "Driven until it sounds solid: a tapered tenon holds by being driven.",
        ]
        named = listed(f"leg {leg.number}" for leg in plain)
        whole = len(plain) == len(legs)
        made.append(
            _seat_stage("Into the seat" if whole else f"Into the seat: {named}", steps, plain, apart=True)
        )
    if turned:
        named = listed(f"leg {leg.number}" for leg in turned)
        whole = len(turned) == len(legs)
        steps = [
            "Each leg over the hole that bears its number: glue on the bottom of its recess and on the "
            "leg's end, none on the thread.",
            "Turned by hand, the last turns by a strap, until its end closes all round and its outer line "
            "stands where it stood dry.",
        ]
        made.append(
            _seat_stage("Into the seat" if whole else f"Into the seat: {named}", steps, turned, apart=True)
        )
    return made


def _seat_stage(
    title: str, steps: Iterable[str], legs: tuple[LegStance, ...], *, apart: bool = False
) -> Stage:
    return Stage(title, tuple(steps), tuple(f"leg.{leg.number}" for leg in legs), len(legs), apart)


def _lines_of(piece: Piece, legs: tuple[LegStance, ...], numbers: set[int]) -> str:
    """What is drawn on two legs that tells how they stood: outer lines on round ones, else named faces."""
    round_ = {support_of(piece, leg).leg.section == "round" for leg in legs if leg.number in numbers}
    said = {frozenset({True}): "both outer lines", frozenset({False}): "the faces named on both"}
    return said.get(frozenset(round_), "outer line and named faces")


def _turned(
    piece: Piece, mates: list[MemberStance], runs: tuple[MemberStance, ...], names: dict[int, MemberPart]
) -> list[str]:
    """How stretchers are turned that take others, so that their sockets face what goes into them, and
    those with flats."""
    carries = {end.member for run in runs for end in run.ends if end.member}
    made = []
    for run in mates:
        chosen, name = piece.members[run.number - 1], names[run.number].name
        assert isinstance(chosen, Stretcher)
        side = "floor-side line"
        if chosen.section != "round":
            side = named_member_faces(run.u)[0][0]
        elif run.number not in carries:
            continue
        so = ", its socket the way it was dry" if run.number in carries else ""
        made.append(f"{name[0].upper()}{name[1:]}: its {side} towards the feet{so}.")
    return made


def _lined(piece: Piece, legs: tuple[LegStance, ...]) -> str:
    """How legs are turned in their sockets before they are driven, and when they are home."""
    ringed = all(has_ring(support_of(piece, leg).joint) for leg in legs)
    home = "; home when its ring touches the seat." if ringed else "; home when it bears all round."
    if any(support_of(piece, leg).leg.section != "round" for leg in legs):
        words = "Turn each by the words on its faces: FRONT to FRONT, or outer face away from the middle"
        return f"{words}{home}"
    inward = [leg.number for leg in legs if not leans_outward(leg) and leg.boring.bearing is not None]
    said = "Turn each until its outer line stands over the arrow"
    if inward:
        said += f" ({listed(f'leg {number}' for number in inward)}, leaning inward, over the plain end)"
    return f"{said}{home}"


def _pairs(runs: tuple[MemberStance, ...], groups: dict[int, int]) -> list[MemberStance]:
    """Stretchers that make pairs of legs, no leg in two of them."""
    taken: dict[int, frozenset[int]] = {}
    found = []
    for run in runs:
        ends = frozenset(end.leg for end in run.ends)
        if 0 in ends or len(ends) < 2 or not ends <= set(groups):
            continue
        if all(taken.get(leg, ends) == ends for leg in ends):
            found.append(run)
            for leg in ends:
                taken[leg] = ends
    # A lone pair of a ring of three is no stage of its own: its third leg hangs on both others.
    legs_left = set(groups) - set(taken)
    return found if len(set(taken.values())) > 1 or not legs_left or not _loops(runs) else []


def _widest(runs: list[MemberStance]) -> float:
    """The widest angle between any two of the directions, 0 to 90 degrees."""
    wide = 0.0
    for k, a in enumerate(runs):
        for b in runs[k + 1 :]:
            apart = angle(a.u, b.u)
            wide = max(wide, min(apart, 180.0 - apart))
    return wide


def _spread(leg: LegStance, part: LegPart, show: Show) -> Figure:
    inside = part.in_top.quantity.value
    return show.figure(
        f"assembly.{leg.number}.spread",
        f"Leg {leg.number}: its tenon starts nearer the middle by",
        inside * deg.sin(leg.boring.resultant),
        "in the top · sin ρ",
        show.input("i", "in the top", inside),
        show.input("ρ", "lean to the top", leg.boring.resultant, "deg"),
        note="along its sightline: what the legs are spread by to enter",
    )
