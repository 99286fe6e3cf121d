"""Set-up cards for sawing the ends of sticks and boards, on every saw the shop owns."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from splay.parts.stick import SQUARE_DEG, StickPart
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.card import Dial, Scene, SetUp
from splay.setups.dial import dial
from splay.setups.jigs import wedge
from splay.setups.words import counted
from splay.shop import BandSaw, Handsaw, MitreSaw, Shop, TableSaw, Tool
from splay.shop.scale import within_reach
from splay.stance.body import Body

SAWS = (MitreSaw, TableSaw, BandSaw, Handsaw)
_MACHINE = (
    "Hold the work to the fence and flat on the table, off-cut free to fall, hands outside the "
    "marked zone, let the blade stop; follow the saw's own manual."
)
_SMALL = "This piece is short: clamp it to a longer one, or saw it by hand."
_BAND = "Lower the guide to the work, keep fingers out of the blade's line; follow the saw's own manual."
_HAND = "Clamp the work; start on the far corner, fingers behind the saw."
SHORT_MM = 150.0
"""Shorter than this is held by something other than a hand (common practice, no source)."""


@dataclass(frozen=True)
class Cut:
    """One setting and everything that is cut at it: (part, body, which end) each."""

    mitre: float
    tilt: float
    on_edge: float
    uses: tuple[tuple[StickPart, Body, str], ...]

    @property
    def first(self) -> StickPart:
        """The part whose figures stand for all."""
        return self.uses[0][0]


def station_of(role: str) -> str:
    """Which station a part is cut at."""
    return "legs" if role in {"leg", "side", "slab_leg", "slab"} else "stretchers"


def cuts(parts: Iterable[StickPart], bodies: Iterable[Body]) -> tuple[Cut, ...]:
    """Ends that are cut at one setting, parts alike together; plain square ends are one of them."""
    found: dict[tuple[str, float, float], list[tuple[StickPart, Body, str]]] = {}
    for part, body in zip(parts, bodies, strict=True):
        if body.role == "batten":
            continue
        for name, end in (("start", part.start), ("finish", part.finish)):
            if body.role == "slab" and name == "start":
                continue
            key = (part.alike, round(abs(end.mitre), 4), round(abs(end.tilt), 4))
            found.setdefault(key, []).append((part, body, name))
    made = []
    for uses in found.values():
        part, _, name = uses[0]
        end = part.start if name == "start" else part.finish
        made.append(Cut(abs(end.mitre), abs(end.tilt), abs(end.on_edge), tuple(uses)))
    return tuple(made)


def crosscut_cards(
    parts: tuple[StickPart, ...], bodies: tuple[Body, ...], shop: Shop, show: Show
) -> tuple[SetUp, ...]:
    """One card for each saw and each setting."""
    saws = [(k, tool) for k, tool in enumerate(shop.tools) if tool.owned and isinstance(tool, SAWS)]
    return tuple(_card(cut, tool, k, show) for cut in cuts(parts, bodies) for k, tool in saws)


def _card(cut: Cut, tool: Tool, index: int, show: Show) -> SetUp:
    part = cut.first
    end = cut.uses[0][2]
    key = f"cut.{part.key}.{end}.{tool.kind}.{index}"
    angle = _angle(cut, show, key)
    if isinstance(tool, Handsaw):
        dials, jig, note = _by_hand(cut, show, key)
        setting, name = angle.quantity, "Line on the face, off square"
    else:
        assert isinstance(tool, MitreSaw | TableSaw | BandSaw)
        dials, jig, note = _on_saw(cut, tool, show, key)
        setting = dials[0].reading
        name = "Swing the saw to" if isinstance(tool, MitreSaw) else "Set the gauge to"
    keys = tuple(dict.fromkeys(use[0].key for use in cut.uses))
    return SetUp(
        id=key,
        station=station_of(part.role),
        operation="crosscut",
        way=tool.kind,
        tool=tool.name,
        legs=(),
        title=_title(cut),
        angle=angle,
        dials=dials,
        setting=setting,
        setting_name=name,
        which_way=_which_way(cut),
        steps=_steps(cut, tool),
        turns=(),
        jig=jig,
        in_reach=not note,
        reach_note=note,
        scene=_scene(cut, tool, dials, setting.text, show),
        proofs=(f"cut.{part.key}.{end}", *(f"long.{k}" for k in keys)),
        checks=(*(figure.length for figure in part.arrises[:2]), *_stock(cut, tool, show, key)),
        cautions=_cautions(cut, tool),
        parts=keys,
    )


def _angle(cut: Cut, show: Show, key: str) -> Figure:
    return show.figure(
        f"{key}.mitre",
        "Mitre on the face, off square",
        cut.mitre,
        "angle between the cut's trace and square across",
        show.input("m", "on the face", cut.mitre, "deg"),
        show.input("t", "blade off square to the face", cut.tilt, "deg"),
        unit="deg",
        note="drawn on the face, with the face flat on the saw",
    )


def _stock(cut: Cut, tool: Tool, show: Show, key: str) -> tuple[Figure, ...]:
    """Stock for all these parts end to end: their lengths, and a kerf for each of them."""
    assert isinstance(tool, MitreSaw | TableSaw | BandSaw | Handsaw)
    parts = {use[0].key: use[0] for use in cut.uses}
    if cut.first.role == "slab":
        return ()
    long = max(part.overall.quantity.value for part in parts.values())
    n = len(parts)
    return (
        show.figure(
            f"{key}.stock",
            f"Stock for {'it' if n == 1 else f'all {n}, end to end'}",
            n * (long + tool.kerf),
            "n · (L + kerf)",
            show.input("n", "parts", float(n), "ratio"),
            show.input("L", "over all, the longest of them", long),
            show.input("w", f"kerf of the {tool.name.lower()}", tool.kerf),
            note="one kerf for each; parts whose ends run parallel share the cut between them",
        ),
    )


_ENDS = {
    "leg": ("upper end", "foot"),
    "side": ("upper end", "foot"),
    "slab_leg": ("mitre", "foot"),
    "slab": ("end", "mitre"),
}


def _title(cut: Cut) -> str:
    ends = {use[2] for use in cut.uses}
    role = cut.first.role
    named = counted(use[0] for use in cut.uses)
    if role == "slab":
        return f"Mitre {named}"
    near, far = _ENDS.get(role, ("left end", "right end"))
    what = "both ends" if len(ends) == 2 else f"the {near if ends == {'start'} else far}"
    return f"Cut {what} of {named}"


def _phrase(part: StickPart, body: Body, name: str) -> str:
    """Which corner comes out longest, in the part's own words."""
    end = part.start if name == "start" else part.finish
    sides = body.sides
    edge = sides.edge if end.mitre > 0 else sides.other_edge
    face = sides.face if end.tilt > 0 else sides.other_face
    long = []
    if abs(end.mitre) > SQUARE_DEG:
        long.append(f"{edge}")
    if abs(end.tilt) > SQUARE_DEG:
        long.append(f"{face}")
    return " and the ".join(long)


def _which_way(cut: Cut) -> tuple[str, ...]:
    if cut.mitre < SQUARE_DEG and cut.tilt < SQUARE_DEG:
        return ("Square, both ways.",)
    near, far = _ENDS.get(cut.first.role, ("left end", "right end"))
    said = dict.fromkeys(
        (near if name == "start" else far, _phrase(part, body, name)) for part, body, name in cut.uses
    )
    lines = [
        f"{end[0].upper()}{end[1:]}: the {phrase} {'come' if ' and ' in phrase else 'comes'} out longer."
        for end, phrase in said
    ]
    parallel = _relation(cut)
    return (*([parallel] if parallel else []), *lines)


def _relation(cut: Cut) -> str:
    part = cut.first
    both = {use[2] for use in cut.uses if use[0].key == part.key}
    if len(both) < 2 or cut.mitre < SQUARE_DEG:
        return ""
    return (
        "The two ends close towards each other."
        if part.start.mitre * part.finish.mitre > 0
        else "The two ends run parallel: do not turn the stick over between them."
    )


def _steps(cut: Cut, tool: Tool) -> tuple[str, ...]:
    sides = cut.uses[0][1].sides
    part = cut.first
    made = [
        f"Mark the {sides.face} and the {sides.edge}: both cuts refer to them.",
        f"Measure along the {part.arrises[0].where}: {part.arrises[0].length.quantity.text}, "
        "long point to long point on that corner.",
    ]
    if isinstance(tool, Handsaw):
        made.append("Knife the line round all four sides; saw so that both lines are seen.")
    names = {use[0].name for use in cut.uses}
    if len(names) > 1 and (cut.mitre > SQUARE_DEG and cut.tilt > SQUARE_DEG):
        made.append("Mirrored parts: swing to the other side; the blade leans the same way.")
    return tuple(made)


def _on_saw(
    cut: Cut, tool: MitreSaw | TableSaw | BandSaw, show: Show, key: str
) -> tuple[tuple[Dial, ...], tuple[Figure, ...], str]:
    """Dials, jigs and, where the saw does not get there, what does."""
    part, notes = cut.first, []
    swing = min(cut.mitre, tool.scale.reach)
    lean = min(cut.tilt, tool.tilt.reach)
    gauge = tool.name if isinstance(tool, MitreSaw) else f"{tool.name}, gauge"
    dials = [dial(gauge, tool.scale, swing, show)]
    jig: tuple[Figure, ...] = ()
    if not within_reach(tool.scale, cut.mitre):
        jig += wedge(cut.mitre, tool.scale.reach, show, f"{key}.swing")
        notes.append(
            f"{show.angle(cut.mitre).text} is past its reach of {show.angle(tool.scale.reach).text}: "
            f"set it to its end and put a wedge of {jig[0].quantity.text} between work and fence."
        )
    if cut.tilt > SQUARE_DEG:
        leans = "table" if isinstance(tool, BandSaw) else "blade"
        dials.append(dial(f"{tool.name}, {leans}", tool.tilt, lean, show))
    if not within_reach(tool.tilt, cut.tilt):
        notes.append(
            f"It leans to {show.angle(tool.tilt.reach).text}, not to {show.angle(cut.tilt).text}: "
            "saw this one by hand to the knifed line."
        )
    wide = part.stock[0].quantity
    if isinstance(tool, MitreSaw) and wide.value > tool.widest:
        notes.append(f"{wide.text} is wider than the {show.length(tool.widest).text} it cuts through.")
    thick = part.stock[1].quantity
    if isinstance(tool, TableSaw | BandSaw):
        high = thick.value / deg.cos(min(cut.tilt, 80.0))
        if high > tool.tallest:
            notes.append(
                f"{show.length(high).text} through the cut is more than the "
                f"{show.length(tool.tallest).text} it passes."
            )
    jig += _mitre_jigs(cut, show, key)
    return tuple(dials), jig, " ".join(notes)


def _mitre_jigs(cut: Cut, show: Show, key: str) -> tuple[Figure, ...]:
    """A block to clamp a mitre square to itself, and a wedge to bore its end under a plumb drill."""
    steep = max(cut.mitre, cut.tilt)
    if steep < 20.0 or cut.first.role not in {"rail", "leg", "slab_leg", "slab"}:
        return ()
    m = show.input("m", "the cut, off square", steep, "deg")
    return (
        show.figure(
            f"{key}.clamping",
            "Clamping block, its slope off the edge",
            90.0 - steep,
            "90° − m",
            m,
            unit="deg",
            note="glued or clamped to the outside, so that the clamp pulls square to the mitre",
        ),
        show.figure(
            f"{key}.dowelling",
            "Wedge under the stick to bore its end plumb",
            steep,
            "m",
            m,
            unit="deg",
            note="the sawn end then lies level under the drill",
        ),
    )


def _by_hand(cut: Cut, show: Show, key: str) -> tuple[tuple[Dial, ...], tuple[Figure, ...], str]:
    jig = [_angle(cut, show, f"{key}.face")]
    if cut.tilt > SQUARE_DEG:
        jig.append(
            show.figure(
                f"{key}.edge",
                "Line on the edge, off square",
                cut.on_edge,
                "tan u = tan t / cos m",
                show.input("t", "off square to the face", cut.tilt, "deg"),
                show.input("m", "on the face", cut.mitre, "deg"),
                unit="deg",
            )
        )
        jig.append(
            show.figure(
                f"{key}.block",
                "Guide block for the saw, sawn at",
                90.0 - cut.tilt,
                "90° − t",
                show.input("t", "off square to the face", cut.tilt, "deg"),
                unit="deg",
                note="clamped on the line; the saw's side rides on it",
            )
        )
    return (), tuple(jig), ""


def _scene(cut: Cut, tool: Tool, dials: tuple[Dial, ...], words: str, show: Show) -> Scene:
    body = cut.uses[0][1]
    part, name = cut.first, cut.uses[0][2]
    end = part.start if name == "start" else part.finish
    # Square on the face neither edge is the longer: then the first is laid against the fence.
    first = end.mitre > -SQUARE_DEG
    longer = body.sides.edge if first else body.sides.other_edge
    shorter = body.sides.other_edge if first else body.sides.edge
    main = dials[0] if dials else None
    scale = (main.at_square, main.counts, main.reach, words) if main else None
    notes = {
        "face": f"{body.sides.face} up",
        "longer": longer,
        "shorter": shorter,
        "part": part.role.replace("_", " "),
    }
    if cut.tilt > SQUARE_DEG:
        up = body.sides.face if end.tilt > 0 else body.sides.other_face
        notes["tilt"] = show.angle(cut.tilt).text
        notes["tilt_longer"] = f"{up} longer"
        notes["up_longer"] = "yes" if end.tilt > 0 else "no"
        notes["edge_line"] = show.angle(cut.on_edge).text
    way = "marked_stick" if isinstance(tool, Handsaw) else "crosscut"
    off = main.off_square if main else cut.mitre
    return Scene(way, off, "", "", scale, notes, cut.tilt)


def _cautions(cut: Cut, tool: Tool) -> tuple[str, ...]:
    if isinstance(tool, Handsaw):
        return (_HAND,)
    said = [_BAND if isinstance(tool, BandSaw) else _MACHINE]
    if min(use[0].overall.quantity.value for use in cut.uses) < SHORT_MM:
        said.append(_SMALL)
    return tuple(said)
