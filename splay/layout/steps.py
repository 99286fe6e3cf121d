"""The order of marking out: face, centre lines, outline, legs, sightlines, hollow, cross-checks."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from splay.layout.checks import Check
from splay.layout.hollows import hollow_steps
from splay.layout.marks import line
from splay.layout.outlines import strike
from splay.layout.pegs import peg_steps
from splay.layout.placing import Placed, letters, marked_face, place, prick, sightlines
from splay.layout.step import Step, carried_over, middle_lines
from splay.piece import Battened, Piece, SlabLeg, StakedLegs
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.battens import screw_places
from splay.stance.body import Body
from splay.stance.gapped import slit
from splay.stance.hand_hold import end_holes, slot
from splay.stance.outline import extent
from splay.stance.pegs import holes_along
from splay.stance.slab_leg import end_of, slab_mitre
from splay.stance.staked import LegStance, Stance
from splay.stance.strips import in_strips, strips
from splay.stance.vectors import word
from splay.work import marks as work
from splay.work.seat import Act, Prick, Row, said


@dataclass(frozen=True)
class Layout:
    """The whole marking-out: the face it is done on, the steps, the cross-checks."""

    face: str
    steps: tuple[Step, ...]
    checks: tuple[Check, ...]


def lay_out(piece: Piece, stance: Stance, checks: tuple[Check, ...], show: Show) -> Layout:
    """Mark out the underside, which will not show, before any edge is shaped or hollowed; `checks` are
    those of checks_of()."""
    there = in_strips(piece.top)
    shaped = (piece.top.hollow is not None and not there) or piece.top.upper_edge.inward > 0.0
    before = "before any edge is rounded or any hollow cut" if shaped else "before any edge is rounded"
    middle = f" {_under_the_hollow(piece)}" if there else ""
    first = letters(piece, "underside", show)
    steps = [
        Step(
            "Choose the face and draw the middle lines",
            f"{said(first)}{middle} The underside will not show; do it {before}.",
            (),
            middle_lines(piece),
            (first,),
            (),
            work.lettered(),
        )
    ]
    steps += _boards(piece, show)
    outline = Step(
        *strike(piece, show), uses=work.lettered(), makes=(work.Mark(work.Kind.OUTLINE, work.SEAT),)
    )
    steps.append(outline)
    for index, support in enumerate(piece.supports):
        legs = tuple(leg for leg in stance.legs if leg.support == index)
        if isinstance(support, StakedLegs):
            steps += _battens(support, stance, index, show)
            steps += _legs(piece, support, legs, stance, show)
        elif isinstance(support, SlabLeg):
            steps.append(_mitre(piece, support, show))
    steps += _frames(stance, show)
    steps += _hand_holds(piece, show)
    steps += hollow_steps(piece, steps, show)
    steps += peg_steps(piece, stance, show)
    if piece.top.left_on:
        steps = [_once_planed(step) if step.face == "upper face" else step for step in steps]
    return Layout("underside", tuple(steps), checks)


def _once_planed(step: Step) -> Step:
    """What is drawn on a face that wood is left on until it is bored."""
    words = f"Once that face is planed to thickness. {step.words}"
    return replace(step, words=words, operation="lay_out_upper")


def _under_the_hollow(piece: Piece) -> str:
    """Where the middle is of a seat that was hollowed before it was glued."""
    said = "The middle is under the middle of the hollow: halfway across all strips"
    if strips(piece.top)[0].across is None:
        said += ", and on the line squared over them, carried down from the outer sides"
    return f"{said}."


def _boards(piece: Piece, show: Show) -> list[Step]:
    top = piece.top
    lines = slit(top) or glue_lines(piece)
    if not lines:
        return []
    c, s = deg.cos(piece.top.grain), deg.sin(piece.top.grain)
    a, b = extent(piece.top.outline)
    reach = math.hypot(a, b)
    marks = tuple(
        line((-reach * c - off * s, -reach * s + off * c), (reach * c - off * s, reach * s + off * c))
        for off in lines
    )
    gap = top.gap.width if top.gap else 0.0
    signs = {f"w{chr(0x2081 + k)}": width for k, width in enumerate(top.boards)}
    inputs = [show.input(sign, f"board {k + 1}", width) for k, (sign, width) in enumerate(signs.items())]
    if top.gap:
        signs["g"] = gap
        inputs.append(show.input("g", "gap", gap))
    figure = show.figure(
        "layout.boards",
        "Boards together, across the grain",
        sum(top.boards) + gap,
        " + ".join(signs),
        *inputs,
    )
    if top.gap:
        words = (
            f"Side by side with strips {show.length(gap).text} thick between them near both ends, their "
            "ends level, clamped so: they are marked out as one, and stay clamped until they are held."
        )
        return [Step("Lay the two boards with their gap", words, (figure,), marks)]
    return [Step("Note the glue lines", "Keep legs and screws clear of them.", (figure,), marks)]


def glue_lines(piece: Piece) -> tuple[float, ...]:
    """Where the boards meet: offset from the middle across the grain, to the left of its bearing, mm."""
    boards = piece.top.boards
    if len(boards) < 2 or piece.top.gap is not None:
        return ()
    at, made = -sum(boards) / 2.0, []
    for width in boards[:-1]:
        at += width
        made.append(at)
    return tuple(made)


def _legs(
    piece: Piece, support: StakedLegs, legs: tuple[LegStance, ...], stance: Stance, show: Show
) -> list[Step]:
    """Centres and sightlines on the face the legs are bored from, its own middle lines first."""
    face = marked_face(support)
    uses = work.lettered(face)
    made = [] if face == "underside" else [carried_over(piece, face, show)]
    centres = tuple(work.centre(leg.number, face) for leg in legs)
    made.append(_struck(place(piece, support, legs, show), uses, centres, face))
    lines = tuple(work.sightline(leg.number, face) for leg in legs if leg.boring.bearing is not None)
    made.append(_struck(sightlines(piece, support, legs, stance, show), (*uses, *centres), lines, face))
    return made


def _struck(placed: Placed, uses: tuple[work.Mark, ...], makes: tuple[work.Mark, ...], face: str) -> Step:
    title, words, figures, marks, acts = placed
    told = "\n".join((*(said(act)[:1].upper() + said(act)[1:] for act in acts), words))
    return Step(title, told, figures, marks, acts, uses, makes, face)


def _battens(support: StakedLegs, stance: Stance, index: int, show: Show) -> list[Step]:
    if not isinstance(support.joint, Battened):
        return []
    marks, figures = [], []
    acts: list[Act] = []
    for body in stance.bodies:
        if body.support != index or body.role != "batten":
            continue
        acts += _placed(body, support.joint, stance, show)
        low, high = body.at(0.0, 0.0)
        half = body.width / 2
        ring = tuple(
            body.pose.out((x, y, 0.0))[:2]
            for x, y in ((low, -half), (high, -half), (high, half), (low, half), (low, -half))
        )
        marks.append(line(*ring))
        figures.append(
            show.figure(
                f"layout.{body.key}",
                f"{body.name.capitalize()}, long",
                high - low,
                "from end to end",
                show.input("e", "each end beyond its leg", support.joint.end),
            )
        )
    told = "\n".join(said(act)[:1].upper() + said(act)[1:] for act in acts)
    words = (
        f"{told}\nThe battens lie on those points, square across the grain. Heads let in "
        f"{show.length(support.joint.counterbore).text}: a round hole for the screw nearest the middle, "
        "slots along the batten for the others, for the seat moves across its grain."
    )
    made = tuple(act.mark for act in acts if isinstance(act, Prick | Row))
    return [
        Step("Place the battens", words, tuple(figures), tuple(marks), tuple(acts), work.lettered(), made)
    ]


def _placed(body: Body, joint: Battened, stance: Stance, show: Show) -> list[Act]:
    """Both ends of a batten's middle line on the seat, and its screws along it."""
    low, high = body.at(0.0, 0.0)
    o, w = body.pose.origin, body.pose.along
    acts: list[Act] = []
    for k, (run, way) in enumerate(((low, (-w[0], -w[1], 0.0)), (high, w))):
        mark = work.Mark(work.Kind.BATTEN, work.SEAT, f"{body.key}/{k + 1}")
        named = f"{body.name}, the middle of its {word(way)} end"
        acts.append(prick(mark, named, "underside", (o[0] + w[0] * run, o[1] + w[1] * run), show))
    places = screw_places(high - low, holes_along(body, stance), joint.screws)
    at = tuple(show.length(one) for one in places)
    mark = work.Mark(work.Kind.SCREW, work.SEAT, body.key)
    acts.append(Row(mark, body.name, f"{word((-w[0], -w[1], 0.0))} end", at))
    return acts


def _mitre(piece: Piece, support: SlabLeg, show: Show) -> Step:
    """The mitre's line on both faces: at the end above, that much in below."""
    mitre = slab_mitre(piece, support)
    over, front, back = end_of(piece, support)
    x = mitre.offset / mitre.normal[0]
    figure = show.figure(
        "layout.mitre",
        "Mitre's line on the underside, in from the show corner",
        abs(over) - abs(x),
        "t · tan ((90° − s) / 2)",
        show.input("t", "thickness", piece.top.thickness),
        show.input("s", "splay of the slab leg", support.splay, "deg"),
    )
    words = "Square across; knife it on both faces and both edges before the saw touches it."
    if piece.top.outline.kind == "drawn" or piece.top.bark:
        words = (
            "Square to the middle line, for the edges are no guide; knife it on both faces before the saw "
            "touches it."
        )
    return Step(f"Knife the mitre at the {support.end}", words, (figure,), (line((x, front), (x, back)),))


def _frames(stance: Stance, show: Show) -> list[Step]:
    """Where legs and sides of square stock meet the underside: their outline, and its outermost corner."""
    rings, acts = [], []
    for body in stance.bodies:
        # Legs and sides; of mitred frames, whose legs end below it, the rails.
        if not (body.stands or (body.role == "rail" and body.frame)):
            continue
        for face in body.plain:
            ring = [body.pose.out(p) for p in face.corners]
            if max(abs(p[2]) for p in ring) < 1e-6:
                rings.append(line(*((p[0], p[1]) for p in (*ring, ring[0]))))
                far = max(ring, key=lambda p: (round(math.hypot(p[0], p[1]), 6), p[0], p[1]))
                mark = work.Mark(work.Kind.FOOTPRINT, work.SEAT, body.key)
                named = f"{body.name}, its outermost corner"
                acts.append(prick(mark, named, "underside", (far[0], far[1]), show))
                if body.role == "rail":
                    # Two corners of one rail, across the middle: they fix its direction.
                    other = work.Mark(work.Kind.FOOTPRINT, work.SEAT, f"{body.key}/2")
                    again = f"{body.name}, the corner opposite"
                    acts.append(prick(other, again, "underside", (-far[0], -far[1]), show))
    if not rings:
        return []
    told = " ".join(said(act)[:1].upper() + said(act)[1:] for act in acts)
    words = (
        f"{told} Set the finished frame on these corners, FRONT to FRONT, trace round it, and bore for its "
        "screws inside the lines."
    )
    uses, makes = work.lettered(), tuple(act.mark for act in acts)
    return [Step("Mark where the frame stands", words, (), tuple(rings), tuple(acts), uses, makes)]


def _hand_holds(piece: Piece, show: Show) -> list[Step]:
    """The two end holes of every hand-hold, and its sides."""
    steps = []
    for k, one in enumerate(piece.top.hand_holds):
        named = f"hand-hold {k + 1}" if len(piece.top.hand_holds) > 1 else "hand-hold"
        acts = [
            prick(mark, f"{named}, {which} hole", "underside", at, show)
            for mark, at, which in zip(
                work.hold_marks(k + 1), end_holes(one), ("first", "other"), strict=True
            )
        ]
        told = " ".join(said(act)[:1].upper() + said(act)[1:] for act in acts)
        wide = show.length(one.width).text
        words = f"{told} A circle {wide} across about each, and two lines that touch both."
        ring = line(*((x, y) for x, y in slot(one).exterior.coords))
        makes = tuple(act.mark for act in acts)
        steps.append(Step(f"Mark the {named}", words, (), (ring,), tuple(acts), work.lettered(), makes))
    return steps
