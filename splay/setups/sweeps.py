"""Set-up card and proof for a piece between legs that is sawn to an arc."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.stick import StickPart
from splay.quantity import Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import ArcSawn
from splay.setups.words import counted
from splay.stance.body import Body
from splay.stance.sweep import Sweep
from splay.work.does import Do, Plain
from splay.work.joinery import ArcLine
from splay.work.marks import Kind, Mark
from splay.work.phrases import listed
from splay.work.proofs import proof_id
from splay.work.takes import ArcHigh

SAW = Bench("sweeping", "Band saw, or bow saw and spokeshave")
QUARTER = 0.25
"""Besides the middle the line is told a quarter of the chord to either side of it."""
_CARE = (
    "On a band saw the face flat on the table, guide just over the wood, fingers beside the line and never "
    "in front of the blade: relief cuts first where it turns. Follow the saw's own manual."
)
TOUCHES_MM = 1.5
"""A crown this near to what lies over it is meant to touch it."""
Mates = list[tuple[StickPart, Body]]


def _alike(sticks: tuple[StickPart, ...], bodies: tuple[Body, ...]) -> list[tuple[Sweep, Mates]]:
    """Pieces that are sawn to one line, called alike."""
    found: dict[tuple[object, ...], Mates] = {}
    for stick, body in zip(sticks, bodies, strict=True):
        if body.sweep is not None:
            key = (stick.alike, body.sides.face, round(body.sweep.chord, 3), round(body.sweep.rise, 3))
            found.setdefault(key, []).append((stick, body))
    return [(mates[0][1].sweep, mates) for mates in found.values() if mates[0][1].sweep is not None]


def sweep_cards(sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], show: Show) -> Iterator[SetUp]:
    """One card for each set of pieces alike."""
    for sweep, mates in _alike(sticks, bodies):
        stick, body = mates[0]
        lower, upper = body.sides.named((sweep.down, 0)), body.sides.named((-sweep.down, 0))
        rise, radius = stick.arc
        quarter = sweep.chord * QUARTER
        does: list[Do] = [
            ArcLine(
                tuple(one.key for one, _ in mates),
                f"all {len(mates)}" if len(mates) > 2 else listed(one.name for one, _ in mates),
                body.sides.face,
                lower,
                show.length(sweep.chord),
                (
                    (show.length(0.0), show.length(sweep.rise)),
                    (show.length(quarter), show.closely(sweep.up(quarter))),
                ),
                upper,
                ((show.length(quarter), show.closely(sweep.below(quarter))),) if sweep.band else (),
                show.length(sweep.end_up) if sweep.band else None,
                radius.quantity,
            ),
            Plain(
                "Sawn just outside the line, faired to it with a spokeshave from both ends towards the "
                "middle: that is with the grain"
                + ("; the upper edge from its middle towards the ends." if sweep.band else ".")
            ),
            *(
                (
                    Plain(
                        "The first one is the pattern for the rest: its line is drawn round, it is not "
                        "measured again."
                    ),
                )
                if len(mates) > 1
                else ()
            ),
            *_touches(body, sweep, bodies, show),
            Plain("The offcut stays until the glue-up: under a clamp it makes the edge straight again."),
        ]
        yield plain_card(
            f"sweep.{stick.key}",
            "stretchers",
            "sweep",
            SAW,
            f"Saw the arc of {counted(one for one, _ in mates)}",
            radius,
            "Rise in the middle",
            ArcSawn(
                show.length(sweep.chord).text, show.length(sweep.rise).text,
                show.length(body.width - sweep.rise if not sweep.band else sweep.band).text,
                bool(sweep.band), lower,
            ),
            setting=rise.quantity,
            does=tuple(does),
            caution=_CARE,
            parts=tuple(one.key for one, _ in mates),
            proofs=(proof_id("sweep", stick.key),),
            uses=tuple(Mark(Kind.FACES, one.key) for one, _ in mates),
        )  # fmt: skip


def _touches(body: Body, sweep: Sweep, bodies: tuple[Body, ...], show: Show) -> Iterator[Do]:
    """What a bent piece's crown comes to: a piece of its own frame over it, where it touches that."""
    if not sweep.band:
        return
    crown = body.pose.out((sweep.middle, -sweep.down * body.width / 2.0, 0.0))
    for other in bodies:
        if other is body or other.support != body.support or other.frame != body.frame or other.stands:
            continue
        x, y, z = other.pose.within(crown)
        near = abs(abs(y) - other.width / 2.0)
        if (
            near < TOUCHES_MM
            and abs(z) < other.thickness / 2.0
            and other.at(y, z)[0] < x < other.at(y, z)[1]
        ):
            yield Plain(
                f"Its crown touches the {other.name} in the middle of its own length: a flat there as long "
                "as a finger is wide, and a screw or a dowel through both when the ends are in."
            )
            return


def sweep_proofs(sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], ask: Asker) -> Iterator[Proof]:
    """How far an arc rises, once for pieces alike."""
    for sweep, mates in _alike(sticks, bodies):
        stick, body = mates[0]
        words = Words(
            f"Arc of {stick.name}, rise", ArcHigh(stick.key, body.sides.named((sweep.down, 0))),
            "two arcs that are seen side by side must rise alike", stick.key, "stretchers",
            f"rise, {stick.name}",
        )  # fmt: skip
        yield ask.length(("sweep", stick.key), stick.arc[0].quantity, words)
