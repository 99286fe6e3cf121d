"""The stance: sockets, axes and feet of legs, against the top and against the floor."""

from __future__ import annotations

from dataclasses import dataclass

from splay.errors import CannotBuild
from splay.piece import Circle, Piece, StakedLegs, Triangle
from splay.stance.aim import aim
from splay.stance.battens import battens
from splay.stance.bodies import bodies
from splay.stance.body import Body
from splay.stance.bore import Bore, bore_of, mouth_level
from splay.stance.floor import STEEPEST_COS, Floor, floor_under
from splay.stance.lean import LeanAngles, direction_on, lean_of
from splay.stance.places import Place, numbered, pairs, places
from splay.stance.vectors import Vec, along


@dataclass(frozen=True)
class LegStance:
    """One leg. Points in the top frame unless named, mm; angles in degrees.

    `socket` is the middle of the hole's mouth, in the underside or in the batten under it;
    `id` stays the leg's own; `number` counts from 1 through the whole piece, set by set, and is for
    show; `index` is its place among its support's legs as the piece file has them; `boring` is
    the lean off the top's normal, `standing` off plumb; `exposed` the length along the axis from
    underside to floor.
    """

    id: str
    number: int
    index: int
    support: int
    place: Place
    pair: int
    socket: Vec
    d: Vec
    foot: Vec
    foot_floor: Vec
    boring: LeanAngles
    standing: LeanAngles
    exposed: float
    measured: bool
    bore: Bore


@dataclass(frozen=True)
class Stance:
    """The piece's floor, its legs set into the top, and its parts of square stock."""

    floor: Floor
    legs: tuple[LegStance, ...]
    bodies: tuple[Body, ...]


def support_of(piece: Piece, leg: LegStance) -> StakedLegs:
    """The set of legs a leg belongs to."""
    support = piece.supports[leg.support]
    assert isinstance(support, StakedLegs)
    return support


def stand(piece: Piece, measured: dict[str, float] | None = None) -> Stance:
    """Where everything of a piece is.

    `measured` gives bored resultants read in the holes (leg id to degrees): those legs stand
    as they were bored, on the sightline they were meant to have. CannotBuild as for `aim`.
    """
    floor = floor_under(piece.lean, piece.stands, piece.top.thickness)
    legs: list[LegStance] = []
    carried: list[Body] = []
    for index, support in piece.staked():
        sockets = places(support, piece.top.outline)
        carried += battens(piece, support, index, [place.at for place in sockets])
        mates = pairs(sockets)
        for k in numbered(sockets):
            place, number = sockets[k], len(legs) + 1
            read = (measured or {}).get(place.id)
            d = _direction(piece, support, k, place, mates[k], floor)
            # A plumb leg has no sightline, so a reading cannot say which way it went.
            known = read is not None and lean_of(d).bearing is not None
            if read is not None and known:
                d = _as_bored(d, read)
            legs.append(_leg(piece, number, k, index, place, mates[k], d, floor, known))
    return Stance(floor, tuple(legs), (*carried, *bodies(piece, floor)))


def spec_index(support: StakedLegs, k: int, pair: int) -> int:
    """Which of the support's angles serves its leg k; the last serves those that have none."""
    wanted = {"alike": 0, "pairs": pair, "each": k}[support.scope]
    return min(wanted, len(support.angles) - 1)


def _direction(piece: Piece, support: StakedLegs, k: int, place: Place, pair: int, floor: Floor) -> Vec:
    spec = support.angles[spec_index(support, k, pair)]
    ring = isinstance(support.placement, Circle | Triangle)
    level = mouth_level(support.joint)
    return aim(spec, place.at, support.leg, piece.top.outline, floor, ring, level)


def _as_bored(d: Vec, read: float) -> Vec:
    bearing = lean_of(d).bearing
    return direction_on(read, 0.0 if bearing is None else bearing)


def _leg(
    piece: Piece,
    number: int,
    index: int,
    support: int,
    place: Place,
    pair: int,
    d: Vec,
    floor: Floor,
    measured: bool,
) -> LegStance:
    model = piece.supports[support]
    assert isinstance(model, StakedLegs)
    socket: Vec = (place.at[0], place.at[1], mouth_level(model.joint))
    if -d[2] < STEEPEST_COS:
        raise CannotBuild(
            "A leg leans so far from square to the top that no hole in it takes the leg.",
            "Give it less splay and rake, or the seat less lean.",
            "supports",
        )
    exposed = floor.reach(socket, d)
    foot = along(socket, d, exposed)
    return LegStance(
        id=place.id,
        number=number,
        index=index,
        support=support,
        place=place,
        pair=pair,
        socket=socket,
        d=d,
        foot=foot,
        foot_floor=floor.to_floor(foot),
        boring=lean_of(d),
        standing=lean_of(floor.turn(d)),
        exposed=exposed,
        measured=measured,
        bore=bore_of(piece.top, model.joint, model.leg, place.at, d),
    )
