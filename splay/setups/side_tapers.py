"""Set-up cards for tapering square legs and boards: on a sled, at a band saw, with a plane."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from splay.parts.stick import SQUARE_DEG, StickPart, TaperedSide
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.crosscut import station_of
from splay.setups.plain_card import plain_card
from splay.setups.scenes import SideTapering
from splay.setups.words import counted
from splay.shop import BandSaw, HandPlane, Shop, TaperJig
from splay.stance.body import Body, SideTaper
from splay.stance.side_taper import against, packing
from splay.stance.vectors import cross, dot
from splay.work.does import Do, Plain
from splay.work.joinery import TaperLine
from splay.work.lays import SideTapered
from splay.work.marks import Kind, Mark
from splay.work.phrases import cap, listed
from splay.work.proofs import proof_id

Mates = list[tuple[StickPart, Body]]
TWO = 2
By = Literal["sled", "band_saw", "plane"]
_TOOLS: dict[type, By] = {TaperJig: "sled", BandSaw: "band_saw", HandPlane: "plane"}
_CAUTIONS: dict[By, str] = {
    "sled": "Hold-downs, both of them: a short taper near a blade kicks; else plane it by hand. Follow the "
    "saw's own manual.",
    "band_saw": "Lower the guide to the work, keep fingers out of the blade's line; follow the saw's own "
    "manual.",
    "plane": "Work against a stop; both hands on the plane.",
}
_SETTINGS: dict[By, str] = {
    "sled": "{To}'s stop nearer the blade by",
    "band_saw": "In from the corner at the {to}",
    "plane": "In from the corner at the {to}",
}


def side_taper_cards(
    sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], shop: Shop, show: Show
) -> Iterator[SetUp]:
    """One card for each owned tool and each set of legs tapered alike: after their joints are cut."""
    groups: dict[str, Mates] = {}
    for stick, body in zip(sticks, bodies, strict=True):
        if body.tapers:
            groups.setdefault(stick.alike, []).append((stick, body))
    for mates in groups.values():
        for tool in shop.owned():
            if isinstance(tool, TaperJig | BandSaw | HandPlane):
                yield _card(mates, tool, _TOOLS[type(tool)], show)


def _card(mates: Mates, tool: TaperJig | BandSaw | HandPlane, by: By, show: Show) -> SetUp:
    stick, body = mates[0]
    first = stick.tapers[0]
    work = f"side_taper.{stick.key}"
    stops = _stops(f"{work}.{tool.id}", body, tool, show) if isinstance(tool, TaperJig) else ()
    keys = tuple(one.key for one, _ in mates)
    figure = stops[0] if stops else first.off
    sides = [taper.side for taper in stick.tapers]
    what = "all four sides" if len(sides) > TWO else " and ".join(f"the {side}" for side in sides)
    return plain_card(
        work,
        station_of(stick.role),
        "side_taper",
        tool,
        f"Taper {what} of {counted(one for one, _ in mates)}",
        figure,
        _SETTINGS[by].format(to=first.to, To=cap(first.to)),
        SideTapering(
            first.begins.quantity.text,
            first.off.quantity.text,
            first.on,
            first.side,
            first.away,
            first.to,
            body.sides.named((-body.tapers[0].on[0], -body.tapers[0].on[1])) if by == "sled" else "",
            _to_right(body, body.tapers[0], by == "sled"),
        ),
        lays=tuple(_lays(mates, by, stops, show)),
        does=tuple(_does(mates, by, show)),
        # The first figure is the card's own.
        jig=(*stops, *(taper.off for taper in stick.tapers))[1:],
        caution=_CAUTIONS[by],
        parts=keys,
        proofs=tuple(proof_id("side_taper", stick.key, str(n)) for n in proved(body)),
        uses=tuple(Mark(Kind.FACES, key) for key in keys),
    )


def _to_right(body: Body, taper: SideTaper, under: bool) -> bool:
    """Whether the end a taper runs to lies at the right of one who looks at the side it is drawn on, or
    at the
    one opposite where that lies `under`, the tapered side away from him."""
    flip = -1.0 if under else 1.0
    seen = body.pose.turn_out((0.0, flip * taper.on[0], flip * taper.on[1]))
    away = body.pose.turn_out((0.0, float(taper.side[0]), float(taper.side[1])))
    to = body.pose.turn_out((1.0 if taper.to == "finish" else -1.0, 0.0, 0.0))
    return dot(cross(away, seen), to) > 0.0


def proved(body: Body) -> tuple[int, ...]:
    """Which of a leg's tapers are read: one of two opposite sides, whose reading is of both."""
    done = [taper.side for taper in body.tapers]
    return tuple(n for n, (a, b) in enumerate(done) if (-a, -b) not in done[:n])


def _stops(key: str, body: Body, sled: TaperJig, show: Show) -> tuple[Figure, ...]:
    """What the stop at the narrower end is set over by for each side, in turn."""
    made = []
    for taper in body.tapers:
        angle = against(body, taper)
        name = body.sides.named(taper.side)
        made.append(
            show.figure(
                f"{key}.stop.{name.replace(' ', '_')}",
                f"Stop set over for the {name}",
                sled.length * deg.tan(angle),
                "J · tan κ",
                show.input("J", "between the sled's stops", sled.length),
                show.input("κ", "the side against the one at the stops", angle, "deg"),
            )
        )
    return tuple(made)


@dataclass(frozen=True)
class _Told:
    """One side of a set of legs that call it and its neighbour the same: what is said in one breath."""

    keys: tuple[str, ...]
    named: str
    body: Body
    n: int
    side: TaperedSide

    @property
    def taper(self) -> SideTaper:
        return self.body.tapers[self.n]


def _told(mates: Mates, stops: bool = False) -> Iterator[_Told]:
    """Side by side in the order they are cut, legs whose sides bear the same names together; the opposite
    side's too where that one lies at `stops`."""
    for n in range(len(mates[0][1].tapers)):
        found: dict[tuple[str, ...], Mates] = {}
        for stick, body in mates:
            one, (across, up) = stick.tapers[n], body.tapers[n].side
            names = (one.side, one.on, *([body.sides.named((-across, -up))] if stops else []))
            found.setdefault(names, []).append((stick, body))
        for same in found.values():
            whole = len(same) == len(mates) > TWO
            named = f"all {len(same)}" if whole else listed(stick.name for stick, _ in same)
            keys = tuple(stick.key for stick, _ in same)
            yield _Told(keys, named, same[0][1], n, same[0][0].tapers[n])


def _lays(mates: Mates, by: By, stops: tuple[Figure, ...], show: Show) -> Iterator[SideTapered]:
    for told in _told(mates, bool(stops)):
        across, up = told.taper.side
        yield SideTapered(
            told.keys,
            told.named,
            by,
            told.side.side,
            told.side.on,
            told.body.sides.named((-across, -up)),
            stops[told.n].quantity if stops else None,
            _pack(told.body, told.taper, by, show),
            _turn(told.taper, show),
            told.side.to,
        )


def _turn(taper: SideTaper, show: Show) -> Quantity | None:
    return show.angle(taper.turn) if abs(taper.turn) > SQUARE_DEG else None


def _pack(body: Body, taper: SideTaper, by: By, show: Show) -> Quantity | None:
    """The packing under the narrower end: the side on the table is cut already; a vice asks for none."""
    if by == "plane":
        return None
    thick = packing(body, taper, taper.on if by == "sled" else taper.beneath)
    return show.length(thick) if thick > 0.0 else None


def _does(mates: Mates, by: By, show: Show) -> Iterator[Do]:
    before: set[str] = set()
    for told in _told(mates):
        one = told.side
        cut = one.on in before
        yield TaperLine(
            told.keys, told.named, one.side, one.on, one.away, one.begins.quantity, one.off.quantity, cut,
            one.to,
        )  # fmt: skip
        before.add(one.side)
    turn, to = _turn(mates[0][1].tapers[0], show), mates[0][0].tapers[0].to
    tried = f", tried with a bevel gauge set {turn.text} off square" if turn is not None else ""
    yield Plain(
        {
            "sled": "The line lies underneath: its beginning on the side to be cut and its mark at the "
            f"sawn {to} both on the sled's edge, before the saw runs.",
            "band_saw": f"Plane the sawn sides down to their lines, towards the {to}{tried}.",
            "plane": f"Plane towards the {to}, the heaviest strokes there.",
        }[by]
    )
