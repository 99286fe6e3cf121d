"""Set-up cards for sawing the ends of sticks and boards, on every saw the shop owns."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from splay.parts.stick import SQUARE_DEG, EndCut, StickPart
from splay.quantity import Figure, Show
from splay.setups.card import SetUp
from splay.setups.dial import Dial
from splay.setups.saws import SAWS as MACHINES
from splay.setups.saws import SawMet, set_saw
from splay.setups.scenes import Scene, StickSawn, Tilted, arc_of
from splay.setups.words import counted
from splay.shop import BandSaw, Handsaw, MitreSaw, Shop, TableSaw, Tool
from splay.stance.body import Body
from splay.stance.vectors import Vec
from splay.work.does import Do, LongPoint, Plain, Write
from splay.work.doing import steps
from splay.work.lays import Lay, OnLines, OnSaw
from splay.work.lying import which_way
from splay.work.marks import Kind, Mark
from splay.work.meet import on_saw
from splay.work.phrases import cap, listed
from splay.work.proofs import proof_id

SAWS = (*MACHINES, Handsaw)
_MACHINE = (
    "Hold the work to the fence and flat on the table, off-cut free to fall, hands 150 mm from the "
    "blade, let it stop; follow the saw's own manual."
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
    def compound(self) -> bool:
        """Whether the sawn end is out of square on both its sides."""
        return self.mitre > SQUARE_DEG and self.tilt > SQUARE_DEG

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
    saws = [tool for tool in shop.owned() if isinstance(tool, SAWS)]
    made: list[SetUp] = []
    for cut in cuts(parts, bodies):
        # The same at every saw, so worked out once.
        sawn, does, relation = _together(cut.uses), _does(cut), _relation(cut)
        made += [_card(cut, sawn, does, relation, tool, show) for tool in saws]
    return tuple(made)


def _card(
    cut: Cut,
    sawn: tuple[OnSaw, ...],
    does: tuple[Do, ...],
    relation: tuple[str, ...],
    tool: Tool,
    show: Show,
) -> SetUp:
    part = cut.first
    end = cut.uses[0][2]
    work = f"cut.{part.key}.{end}"
    key = f"{work}.{tool.id}"
    angle = _angle(cut, show, key)
    keys = tuple(dict.fromkeys(use[0].key for use in cut.uses))
    lays: tuple[Lay, ...]
    met: SawMet | None = None
    if isinstance(tool, Handsaw):
        lays = tuple(_lines(*use, show) for use in cut.uses)
        jig = _by_hand(cut, show, key)
        setting, name, note = angle.quantity, "Line on the face, off square", ""
        dials: tuple[Dial, ...] = ()
        if cut.mitre < SQUARE_DEG < cut.tilt:
            setting, name = show.angle(cut.on_edge), _edge_line(cut)
    else:
        assert isinstance(tool, MACHINES)
        lays = sawn
        stock = (part.stock[0].quantity.value, part.stock[1].quantity.value)
        met = set_saw(tool, cut.mitre, cut.tilt, sawn, stock, show, key)
        dials, note, setting, name = met.dials, met.note, met.setting, met.name
        jig = (*met.jig, *_mitre_jigs(cut, show, key))
    return SetUp(
        work=work,
        by=tool.id,
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
        which_way=(*which_way(lays), *relation),
        steps=steps(does),
        turns=(),
        jig=jig,
        in_reach=not note,
        reach_note=note,
        wedges=met.wedges if met else (),
        scene=_scene(cut, tool, met, lays[0], show),
        proofs=(
            proof_id("cut", part.key, end),
            *((proof_id("bevel", part.key, end),) if cut.compound else ()),
            *(proof_id("long", k) for k in keys if part.role not in UNMEASURED),
        ),
        checks=(*_along(cut), *_stock(cut, tool, show, key)),
        cautions=_cautions(cut, tool),
        parts=keys,
        lays=lays,
        does=does,
        makes=tuple(Mark(Kind.FACES, k) for k in keys),
    )


UNMEASURED = {"batten", "slab"}
"""Roles whose length no proof asks for: a batten runs over, a slab is the seat itself."""
Use = tuple[StickPart, Body, str]


def _end(part: StickPart, name: str) -> EndCut:
    return part.start if name == "start" else part.finish


def _ways(body: Body, name: str) -> tuple[Vec, Vec]:
    """A stick's end in its own frame: the cut's normal and the stick's own way, both out of it."""
    plane = body.start if name == "start" else body.finish
    return plane.normal, (-1.0 if name == "start" else 1.0, 0.0, 0.0)


def saw_lay(part: StickPart, body: Body, name: str, up_longer: bool = True) -> OnSaw:
    """How one end of a stick lies on a saw, tilted so that its upper side comes out longer, or shorter."""
    normal, out = _ways(body, name)
    sides = body.sides
    lie = on_saw(
        normal,
        out,
        ((sides.face, (0.0, 0.0, 1.0)), (sides.other_face, (0.0, 0.0, -1.0))),
        ((sides.edge, (0.0, 1.0, 0.0)), (sides.other_edge, (0.0, -1.0, 0.0))),
        up_longer,
    )
    return OnSaw(
        (part.key,),
        part.name,
        end_name(part.role, name),
        lie.up,
        lie.fence,
        lie.fence_longer,
        lie.up_longer,
        strip=body.grown,
    )


def _together(uses: tuple[Use, ...]) -> tuple[OnSaw, ...]:
    """Ends that lie alike share one lay; those for which the saw is swung to the other side come last.

    The first is laid with its longer edge at the fence: the tilt that asks for stays for all.
    """
    first = saw_lay(*uses[0])
    up_longer = first.fence_longer is not False
    found: dict[tuple[object, ...], list[OnSaw]] = {}
    for use in uses:
        lay = saw_lay(*use, up_longer)
        key = (lay.end, lay.up, lay.fence, lay.fence_longer, lay.up_longer)
        found.setdefault(key, []).append(lay)
    made = []
    for mates in found.values():
        one = mates[0]
        keys = tuple(key for lay in mates for key in lay.parts)
        named = listed(lay.named for lay in mates)
        made.append(replace(one, parts=keys, named=named))
    return tuple(sorted(made, key=lambda lay: lay.fence_longer is False))


def _lines(part: StickPart, body: Body, name: str, show: Show) -> OnLines:
    end, sides = _end(part, name), body.sides
    edge = sides.edge if end.mitre > 0 else sides.other_edge
    face = sides.face if end.tilt > 0 else sides.other_face
    return OnLines(
        (part.key,),
        part.name,
        end_name(part.role, name),
        sides.face,
        sides.edge,
        show.angle(abs(end.mitre)),
        edge if abs(end.mitre) > SQUARE_DEG else "",
        show.angle(abs(end.on_edge)),
        face if abs(end.tilt) > SQUARE_DEG else "",
        body.grown,
    )


def end_name(role: str, name: str) -> str:
    """What an end of a stick is called."""
    near, far = _ENDS.get(role, ("left end", "right end"))
    return near if name == "start" else far


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
            "n · (L + w)",
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


def _relation(cut: Cut) -> tuple[str, ...]:
    part = cut.first
    both = {use[2] for use in cut.uses if use[0].key == part.key}
    if len(both) < 2 or cut.mitre < SQUARE_DEG:
        return ()
    if part.start.mitre * part.finish.mitre > 0:
        return ("Its two ends close towards each other.",)
    return ("Its two ends run parallel.",)


def _does(cut: Cut) -> tuple[Do, ...]:
    """The sides are marked before anything leans on them; then the length, long point to long point."""
    part, body, _ = cut.uses[0]
    keys = tuple(dict.fromkeys(use[0].key for use in cut.uses))
    names: dict[tuple[str, ...], dict[str, None]] = {}
    for one, own, _ in cut.uses:
        names.setdefault(tuple(sorted(set(_all_sides(own)))), {})[one.name] = None
    each = "; ".join(
        f"on {'each' if len(names) == 1 else listed(many)}: {listed(said)}" for said, many in names.items()
    )
    first, last = end_name(part.role, "start"), end_name(part.role, "finish")
    write = Write(
        tuple(Mark(Kind.FACES, key) for key in keys), f"Write {each}; at its ends {first} and {last}."
    )
    ends = {name for _, _, name in cut.uses}
    if body.grown:
        write = replace(write, text=f"{write.text} {_STRIP}")
    if ends == {"start"}:
        return write, Plain(f"This end first, just inside the blank's end: the {last} is measured from it.")
    both = () if ends == {"finish"} else (Plain(f"The {first} first, just inside the blank's end."),)
    hook = OTHER_END if body.grown and part.role == "slab" else f"long point of its {first}"
    return (write, *both, *_long_points(cut, hook))


def _along(cut: Cut) -> tuple[Figure, ...]:
    """The first part's length along its long corner and the next; said to be its own where others name
    their sides otherwise."""
    figures = tuple(one.length for one in cut.first.arrises[:2])
    if len({long_line(use[0]) for use in cut.uses}) == 1:
        return figures
    name = cap(cut.first.name)
    return tuple(replace(one, label=f"{name}, {one.label[0].lower()}{one.label[1:]}") for one in figures)


def _long_points(cut: Cut, hook: str) -> tuple[Do, ...]:
    """The long corner that each part's length is measured along: mirrored ones have other names for it."""
    found: dict[tuple[str, str], list[StickPart]] = {}
    for part in {use[0].key: use[0] for use in cut.uses}.values():
        found.setdefault((long_line(part), part.arrises[0].length.quantity.text), []).append(part)
    made = []
    for (line, _), parts in found.items():
        mm = parts[0].arrises[0].length.quantity
        of = tuple(part.key for part in parts) if len(found) > 1 else ()
        named = listed(part.name for part in parts) if of else ""
        made.append(LongPoint(hook, line, mm, "", mm, of, named))
    return tuple(made)


_STRIP = (
    "Its edges do not run straight: carry the seat's middle line on over both faces; where an edge goes to "
    "a fence, fix a straight strip on the upper side that stands over it, parallel to that line. Fence, "
    "rule and gauge go by strip and line, never by the edges."
)


OTHER_END = "other end, where the middle line leaves it"
"""Where a slab's length is hooked whose ends the tree or the saw left as they are."""


def _edge_line(cut: Cut) -> str:
    grown = cut.uses[0][1].grown
    return "Bevel gauge over the end, off square" if grown else "Line on the edge, off square"


def long_line(part: StickPart) -> str:
    """The long line that a stick's length is measured along."""
    face, edge = part.arrises[0].between
    return f"corner between its {face} and its {edge}" if edge else part.arrises[0].where


def _all_sides(body: Body) -> tuple[str, ...]:
    return body.sides.face, body.sides.other_face, body.sides.edge, body.sides.other_edge


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


def _by_hand(cut: Cut, show: Show, key: str) -> tuple[Figure, ...]:
    jig = [_angle(cut, show, f"{key}.face")] if cut.mitre > SQUARE_DEG else []
    if cut.tilt > SQUARE_DEG:
        jig.append(
            show.figure(
                f"{key}.edge",
                _edge_line(cut),
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
    return tuple(jig)


def _scene(cut: Cut, tool: Tool, met: SawMet | None, lay: Lay, show: Show) -> Scene:
    """The first part as it lies: its fence side longer, or square."""
    sides = cut.uses[0][1].sides
    opposite = {
        sides.face: sides.other_face,
        sides.other_face: sides.face,
        sides.edge: sides.other_edge,
        sides.other_edge: sides.edge,
    }
    if isinstance(lay, OnSaw):
        face, longer = f"{lay.up} up", lay.fence
        up_longer = bool(lay.up_longer)
        named = lay.up if up_longer else opposite[lay.up]
    else:
        assert isinstance(lay, OnLines)
        face, longer = lay.face, lay.longer_edge or sides.edge
        up_longer, named = lay.longer_face == sides.face, lay.longer_face
    tilted = None
    if cut.tilt > SQUARE_DEG:
        on_edge = show.angle(cut.on_edge).text
        tilted = Tilted(cut.tilt, show.angle(cut.tilt).text, on_edge, f"{named} longer", up_longer)
    main = met.swing if met else None
    return StickSawn(
        main.off_square if main else cut.mitre,
        arc_of(main) if main else None,
        face,
        longer,
        opposite[longer],
        tilted,
        isinstance(tool, Handsaw),
    )


def _cautions(cut: Cut, tool: Tool) -> tuple[str, ...]:
    if isinstance(tool, Handsaw):
        return (_HAND,)
    said = [_BAND if isinstance(tool, BandSaw) else _MACHINE]
    if min(use[0].overall.quantity.value for use in cut.uses) < SHORT_MM:
        said.append(_SMALL)
    return tuple(said)
