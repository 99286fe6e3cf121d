"""Set-up cards for cutting the feet: mitre saw, or scribe and handsaw."""

from __future__ import annotations

from splay.parts import LegPart
from splay.piece import Piece
from splay.quantity import Figure, Show
from splay.setups.card import Dial, Scene, SetUp
from splay.setups.compound import Compound, compound
from splay.setups.dial import dial
from splay.setups.groups import Group, foot_groups, turn
from splay.setups.jigs import wedge
from splay.shop import BandSaw, Handsaw, MitreSaw, Shop, TableSaw
from splay.shop.scale import within_reach
from splay.stance.aim import faces
from splay.stance.staked import LegStance, Stance, support_of

_ROLLS = (
    "Round stock rolls under a blade: hold it in a V for its whole length, keep hands outside the "
    "marked zone, let the blade stop; follow the saw's own manual."
)
_SAW = (
    "Hold the work to the fence, hands outside the marked zone, let the blade stop; follow the "
    "saw's own manual."
)
_HAND = "Hold the piece so that it cannot rock; start on the far edge, fingers behind the saw."
LEAST_SAW_MM = 1.0
"""Less than this is rubbed away, not sawn (common practice, no source)."""


def foot_cards(
    piece: Piece,
    stance: Stance,
    parts: tuple[LegPart, ...],
    shop: Shop,
    show: Show,
) -> tuple[SetUp, ...]:
    """Every card for cutting this piece's feet, from the stance as it is now known."""
    cuts = {leg.number: plane_cut(piece, leg, stance) for leg in stance.legs}
    by_number = {part.number: part for part in parts}
    keys: dict[int, tuple[float, ...]] = {
        number: (
            round(cut.mitre, 6),
            round(cut.tilt, 6),
            round(by_number[number].finished.quantity.value, 4),
        )
        for number, cut in cuts.items()
    }
    made: list[SetUp] = []
    for group in foot_groups(stance, keys):
        part, cut = by_number[group.first.number], cuts[group.first.number]
        for index, tool in enumerate(shop.tools):
            if not tool.owned:
                continue
            if isinstance(tool, MitreSaw | TableSaw | BandSaw):
                made.append(_mitre(piece, group, part, cut, tool, index, show))
            elif isinstance(tool, Handsaw):
                made.append(_scribe(group, part, parts, tool, index, show))
    return tuple(made)


def plane_cut(piece: Piece, leg: LegStance, stance: Stance) -> Compound:
    """The foot cut as mitre and blade tilt, each 0 or more.

    A round leg is laid with the plane of its lean flat: one plain cut at the lean. A square leg
    is laid on its front face.
    """
    shape = support_of(piece, leg).leg
    front = faces(shape, leg.d)[1]
    if shape.section != "round":
        cut = compound(front, leg.d, stance.floor.normal)
        return Compound(cut.mitre, abs(cut.tilt))
    return Compound(leg.standing.resultant, 0.0)


def _angle(group: Group, show: Show, key: str) -> Figure:
    lean = group.first.standing
    return show.figure(
        f"{key}.lean",
        "Lean to the floor",
        lean.resultant,
        "tan² ρ′ = tan² splay′ + tan² rake′",
        show.input("splay′", "off plumb, from the front", abs(lean.splay), "deg"),
        show.input("rake′", "off plumb, from the side", abs(lean.rake), "deg"),
        unit="deg",
        note="the foot is cut to the floor, not to the top",
    )


def _mitre(
    piece: Piece,
    group: Group,
    part: LegPart,
    cut: Compound,
    tool: MitreSaw | TableSaw | BandSaw,
    index: int,
    show: Show,
) -> SetUp:
    key = f"foot.{group.first.number}.{tool.kind}.{index}"
    square = support_of(piece, group.first).leg.section != "round"
    reaches = within_reach(tool.scale, cut.mitre) and within_reach(tool.tilt, cut.tilt)
    dials, jig, note = _dials(tool, cut, show, key)
    title = f"Cut the foot of {group.named()}"
    lean = group.first.standing
    if cut.mitre < 1e-9 and cut.tilt < 1e-9:
        way: tuple[str, ...] = ("The leg stands plumb: cut its foot square.",)
    elif square:
        way = (
            "Front face flat on the saw's table, outer side to the fence, foot beyond the blade.",
            "The outer side, and the face turned outward, come out longer.",
        )
    else:
        way = (
            "Marks of the sightline level: the outer one against the fence, foot beyond the blade.",
            "The outer side, the one the leg leans to, comes out longer.",
        )
    leans = "table" if isinstance(tool, BandSaw) else "blade"
    tilt_note = {"tilt": f"{leans} leans {dials[1].reading.text}"} if len(dials) > 1 else {}
    main = dials[0]
    return SetUp(
        id=key,
        station="legs",
        operation="foot_cut",
        way=tool.kind,
        tool=tool.name,
        legs=group.numbers,
        title=title,
        angle=_angle(group, show, key),
        dials=dials,
        setting=main.reading,
        setting_name="Swing the saw to" if isinstance(tool, MitreSaw) else "Set the gauge to",
        which_way=way,
        steps=(
            f"Mark the finished length, {part.finished.quantity.text}, on the leg's middle line.",
            f"Long side over short side: {part.high_low.quantity.text}.",
        ),
        turns=tuple(turn(leg.number, leg.standing, show) for leg in group.legs),
        jig=jig,
        in_reach=reaches,
        reach_note=note,
        scene=Scene(
            tool.kind,
            main.off_square,
            "",
            "",
            (main.at_square, main.counts, main.reach, main.reading.text),
            {
                "fence": "fence: outer side" if lean.bearing is not None else "fence",
                "front": "inner side" if lean.bearing is not None else "",
                "leg": f"leg {group.first.number}",
                **tilt_note,
            },
        ),
        proofs=tuple(f"foot.{number}" for number in group.numbers),
        checks=(part.high_low, part.foot_long),
        cautions=(_SAW if square else _ROLLS,),
    )


def _dials(
    tool: MitreSaw | TableSaw | BandSaw, cut: Compound, show: Show, key: str
) -> tuple[tuple[Dial, ...], tuple[Figure, ...], str]:
    swing, lean = min(cut.mitre, tool.scale.reach), min(cut.tilt, tool.tilt.reach)
    dials = [dial(tool.name, tool.scale, swing, show)]
    jig: tuple[Figure, ...] = ()
    notes = []
    if cut.mitre > tool.scale.reach:
        jig += wedge(cut.mitre, tool.scale.reach, show, f"{key}.swing")
        notes.append(
            f"{show.angle(cut.mitre).text} is past this saw's reach of "
            f"{show.angle(tool.scale.reach).text}: swing it to its end and put a wedge of "
            f"{jig[0].quantity.text} between leg and fence, or scribe it and saw by hand."
        )
    if cut.tilt > 1e-9:
        leans = "table" if isinstance(tool, BandSaw) else "blade"
        dials.append(dial(f"{tool.name}, {leans}", tool.tilt, lean, show))
    if cut.tilt > tool.tilt.reach:
        notes.append(
            f"The blade leans to {show.angle(tool.tilt.reach).text}, not to "
            f"{show.angle(cut.tilt).text}: scribe this one and saw by hand."
        )
    return tuple(dials), jig, " ".join(notes)


def _scribe(
    group: Group,
    part: LegPart,
    parts: tuple[LegPart, ...],
    tool: Handsaw,
    index: int,
    show: Show,
) -> SetUp:
    key = f"foot.{group.first.number}.{tool.kind}.{index}"
    tallest = max(parts, key=lambda p: p.block.quantity.value).block
    shim = tallest.quantity.value - part.block.quantity.value
    steps = [
        "With the joints home, stand the untrimmed piece on a flat floor.",
        "Slide a flat pencil on the block round each foot, then saw on the waste side.",
    ]
    jig: tuple[Figure, ...] = (tallest,)
    if shim > 0.05:
        shim_figure = show.figure(
            f"{key}.shim",
            f"Shim under {group.named()}",
            shim,
            "tallest block − this leg's",
            show.input("B", "scribing block", tallest.quantity.value),
            show.input("b", "this leg's own", part.block.quantity.value),
            note="these feet come to the floor sooner: shim them while you scribe",
        )
        jig = (tallest, shim_figure)
        steps.insert(1, f"Shim {group.named()} up by {shim_figure.quantity.text}.")
    elif tallest.quantity.value < LEAST_SAW_MM:
        steps.append("There is too little to saw: rub the feet on abrasive laid on a flat.")
    lean = group.first.standing
    outer = lean.bearing is not None
    return SetUp(
        id=key,
        station="legs",
        operation="foot_cut",
        way=tool.kind,
        tool=tool.name,
        legs=group.numbers,
        title=f"Scribe and saw the foot of {group.named()}",
        angle=_angle(group, show, key),
        dials=(),
        setting=tallest.quantity,
        setting_name=tallest.label,
        which_way=(
            "Every leg is marked by the one block, all on the same floor.",
            "The leg stands plumb: the line runs square round it.",
        )
        if not outer
        else (
            "Every leg is marked by the one block, all on the same floor.",
            "Saw level with the floor: the outer side of the leg is left the longer.",
        ),
        steps=tuple(steps),
        turns=tuple(turn(leg.number, leg.standing, show) for leg in group.legs),
        jig=jig,
        in_reach=True,
        reach_note="",
        scene=Scene(
            tool.kind,
            lean.resultant,
            "outer side" if outer else "",
            "inner side" if outer else "",
            None,
            {"block": tallest.quantity.text},
        ),
        proofs=tuple(f"foot.{number}" for number in group.numbers),
        checks=(part.high_low, part.foot_long),
        cautions=(_HAND,),
    )
