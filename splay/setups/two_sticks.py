"""What every card for boring into a round stick says alike: for a stretcher's end or for a rope."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.quantity import Figure, Quantity, Show
from splay.setups.card import Dial, Scene, SetUp
from splay.setups.dial import dial
from splay.setups.jigs import wedge
from splay.shop import BevelGauge, DigitalGauge, OppositeLeg, Protractor, TiltingTable, Tool
from splay.shop.scale import within_reach

TOOLS = (OppositeLeg, Protractor, BevelGauge, TiltingTable, DigitalGauge)
CRADLE = (
    "Round stock rolls: lay the leg in a V for its whole length and clamp it; follow the drill's "
    "own manual."
)
HAND = "Clamp the legs, brace for the bit to catch, keep the other hand out of its way."
NAMES = {
    "protractor": "The protractor reads",
    "bevel_gauge": "Set the bevel gauge to",
    "tilting_table": "Tilt the table to",
    "digital_gauge": "Bore when the gauge shows",
}


@dataclass(frozen=True)
class Into:
    """What is bored into a stick: `angle` the acute angle to bore at, `acute_side` the side it lies on
    ("" where square); `stick` what it is bored into, `leg` its number (0 for none), `radius` half of it
    there, mm; `other` what runs along the hole."""

    key: str
    operation: str
    title: str
    angle: Figure
    acute_side: str
    stick: str
    leg: int
    radius: float
    other: str
    legs: tuple[int, ...]
    steps: tuple[str, ...]
    proofs: tuple[str, ...]
    checks: tuple[Figure, ...]
    parts: tuple[str, ...]


def boring_card(bore: Into, tool: Tool, index: int, show: Show) -> SetUp:
    """The card of one tool for what is bored; `index` is the tool's place in the shop."""
    key = f"{bore.key}.{tool.kind}.{index}"
    off = 90.0 - bore.angle.quantity.value
    dials, setting, jig, note = _setting(tool, off, bore.angle, show, key)
    scale = (dials[0].at_square, dials[0].counts, dials[0].reach, setting.text) if dials else None
    notes = {
        "leg": bore.stick,
        "member": bore.other,
        "acute": bore.acute_side or "square",
        "angle": bore.angle.quantity.text,
        "tool": tool.kind,
    }
    return SetUp(
        id=key,
        station="stretchers",
        operation=bore.operation,
        way=tool.kind,
        tool=tool.name,
        legs=bore.legs,
        title=bore.title,
        angle=bore.angle,
        dials=dials,
        setting=setting,
        setting_name=NAMES.get(tool.kind, "Between the sticks, acute"),
        which_way=_which_way(bore.acute_side, bool(bore.leg), tool),
        steps=bore.steps,
        turns=(),
        jig=(*jig, *_vee(bore, tool, show, key)),
        in_reach=not note,
        reach_note=note,
        scene=Scene("two_sticks", off, "", "", scale, notes),
        proofs=bore.proofs,
        checks=bore.checks,
        cautions=(CRADLE if isinstance(tool, TiltingTable) else HAND,),
        parts=bore.parts,
    )


def _setting(
    tool: Tool, off: float, at: Figure, show: Show, key: str
) -> tuple[tuple[Dial, ...], Quantity, tuple[Figure, ...], str]:
    """A tool's dials, its setting, its jig and, past its reach, what to do; `off` square, degrees."""
    if isinstance(tool, OppositeLeg):
        return (), at.quantity, (), ""
    assert isinstance(tool, Protractor | BevelGauge | TiltingTable | DigitalGauge)
    made = dial(tool.name, tool.scale, min(off, tool.scale.reach), show)
    if within_reach(tool.scale, off):
        return (made,), made.reading, (), ""
    jig = wedge(off, tool.scale.reach, show, key)
    note = (
        f"{show.angle(off).text} off square is past its reach of {show.angle(tool.scale.reach).text}: "
        f"set it to its end and put a wedge of {jig[0].quantity.text} under the cradle."
    )
    return (made,), made.reading, jig, note


def _vee(bore: Into, tool: Tool, show: Show, key: str) -> tuple[Figure, ...]:
    """The V a round leg lies in under the drill: it touches at 45 degrees, D / sqrt 2 apart."""
    if not isinstance(tool, TiltingTable) or not bore.leg:
        return ()
    thick = 2.0 * bore.radius
    return (
        show.figure(
            f"{key}.vee",
            "V for the leg, sides at 45°: its mouth more than",
            thick / math.sqrt(2.0),
            "D / √2",
            show.input("D", "leg there", thick),
            note="as long as the leg; under a tapered leg shim the thin end until its middle is level",
        ),
    )


def listed(words: list[str]) -> str:
    """In words: names that differ only in their number share it ("legs 1, 2 and 3")."""
    heads = {word.rpartition(" ")[0] for word in words}
    if len(words) > 1 and len(heads) == 1 and "" not in heads:
        head = heads.pop()
        words = [word.rpartition(" ")[2] for word in words]
        return f"{head}s {', '.join(words[:-1])} and {words[-1]}"
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def marked(places: list[tuple[str, Figure, Figure]]) -> str:
    """Where sockets are marked: into what, how far down it, how far round it; those alike together."""
    alike: dict[str, list[str]] = {}
    for into, down, turn in places:
        way = turn.note.partition(",")[0]
        said = f"{down.quantity.text} down, {turn.quantity.text} {way}"
        alike.setdefault(said, []).append(into)
    return "; ".join(f"{listed(names)}: {said}" for said, names in alike.items())


def _which_way(acute_side: str, into_leg: bool, tool: Tool) -> tuple[str, ...]:
    """How the tool is held, and on which side of the stick the acute angle lies ("" where it is square)."""
    if not acute_side:
        return ("Square to the leg, in the plane of the two sticks.",)
    acute = f"The acute side is towards the {acute_side} of the leg."
    if not into_leg:
        acute = "The acute side is towards its {} end.".format(
            "second" if acute_side == "foot" else "first"
        )
    if isinstance(tool, OppositeLeg):
        return (
            "Clamp the legs as they stand; lay the drill's shank over the mark on the opposite leg.",
            acute,
        )
    if isinstance(tool, TiltingTable):
        return ("Leg in a V along the tilt.", acute.replace("The acute side is", "Downhill is"))
    if isinstance(tool, Protractor):
        return ("Hold it along the leg, in the plane of the two sticks, on the acute side.", acute)
    return ("In the plane of the two sticks.", acute)
