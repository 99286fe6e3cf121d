"""Finishes: coats, waits, rubbing down, how much of it; by what the piece is used for.

All of it common practice with no published source; the tin says what holds for its own finish, and it goes
before anything said here.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.build.document import Build
from splay.build.glues import AT_C, DOUBLE_C
from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show
from splay.views.surface import surface

UseOf = Literal["indoors", "feet", "outdoors", "child"]
FinishName = Literal["hard_wax_oil", "wiping_varnish", "exterior_varnish", "lacquer", "soap", "bare"]


@dataclass(frozen=True)
class Coat:
    """One coat: what goes on and how, minutes until the rest is wiped off (0: not wiped), hours to dry in
    usual air from and to, the grit it is rubbed down with when dry ("" for none)."""

    what: str
    how: str
    wiped_after: float
    dry_h: tuple[float, float]
    then: str


@dataclass(frozen=True)
class Finish:
    """One kind of finish: what it is fit for, its coats for each use, square metres a litre covers once."""

    name: str
    fit: frozenset[UseOf]
    coats: dict[UseOf, tuple[Coat, ...]]
    covers: float
    oily: bool
    care: str
    never: str = ""


def _coats(coat: Coat, many: int, last: Coat | None = None) -> tuple[Coat, ...]:
    """The same coat so many times; the last one is not rubbed down."""
    final = last or Coat(coat.what, coat.how, coat.wiped_after, coat.dry_h, "")
    return (*([coat] * (many - 1)), final)


_OIL = Coat(
    "hard-wax oil", "rubbed in thin with a pad, along the grain", 8.0, (8.0, 24.0), "400 grit or a grey pad"
)
_WIPED = Coat("wiping varnish", "flooded on with a rag, left to soak", 10.0, (8.0, 24.0), "320 grit")
_SEALER = Coat("exterior sealer", "brushed along the grain", 0.0, (12.0, 24.0), "240 grit")
_SATIN = Coat("exterior satin varnish", "brushed thin, wet edge kept", 0.0, (12.0, 24.0), "320 grit")
_LACQUER = Coat("lacquer", "sprayed thin, from above down", 0.0, (1.0, 4.0), "400 grit")
_SOAP = Coat("soap flakes in hot water", "worked in with a cloth", 5.0, (4.0, 12.0), "a white pad")
_ALL: frozenset[UseOf] = frozenset({"indoors", "feet", "outdoors", "child"})
FINISHES: dict[FinishName, Finish] = {
    "hard_wax_oil": Finish(
        "Hard-wax oil", _ALL - {"outdoors"},
        {"indoors": _coats(_OIL, 2), "feet": _coats(_OIL, 3), "child": _coats(_OIL, 2)},
        24.0, True, "Wipe with a damp cloth and dry it. Rub a little of the same oil into dull places.",
    ),
    "wiping_varnish": Finish(
        "Wiping varnish", _ALL - {"outdoors"},
        {"indoors": _coats(_WIPED, 2), "feet": _coats(_WIPED, 3), "child": _coats(_WIPED, 2)},
        16.0, True, "Wipe with a damp cloth. Worn: rub it dull and wipe on one more coat.",
    ),
    "exterior_varnish": Finish(
        "Exterior varnish", frozenset({"outdoors", "indoors", "feet"}),
        {use: (*([_SEALER] * 3), *_coats(_SATIN, 2)) for use in ("outdoors", "indoors", "feet")},
        12.0, True,
        "Look it over every spring: where it is dull or lifted, rub down and coat before the wood greys. "
        "Feet off wet stone.",
    ),
    "lacquer": Finish(
        "Lacquer, sprayed", frozenset({"indoors"}), {"indoors": _coats(_LACQUER, 3)}, 8.0, False,
        "Wipe with a damp cloth; no alcohol, no hot pots.",
    ),
    "soap": Finish(
        "Soap", frozenset({"indoors", "child"}), {"indoors": _coats(_SOAP, 3), "child": _coats(_SOAP, 3)},
        10.0, False, "Wash it with the same soap when it is dirty, and let it dry.",
    ),
    "bare": Finish(
        "None", _ALL, {}, 0.0, False, "It greys and takes stains; scrub it with soap, along the grain."
    ),
}  # fmt: skip
RAGS = (
    "Cloths wet with oil or varnish heat up and catch fire by themselves: lay them out flat outdoors to "
    "dry, or keep them under water in a tin with a lid."
)
AIR = (
    "Air the room, no flame; gloves, and a mask where the tin asks for one. The tin goes before this page."
)
OLD = "An old finish of unknown kind may hold lead: scrape it damp, no sanding, mask on; local rules hold."
CHILD = "Read on the tin that it is fit for toys (EN 71-3), and let it harden as long as it says."
SPRAY = "Spray outdoors or in a booth, never near a flame; mask for vapours."
GREY = "Feet stand in the wet: soak their end grain until it takes no more, and pad them off the ground."


@dataclass(frozen=True)
class CoatStep:
    """One coat of this piece: hours to dry in today's air, litres of it."""

    number: int
    what: str
    how: str
    wiped_after: float
    dry_h: tuple[float, float]
    then: str
    litres: float


@dataclass(frozen=True)
class Finishing:
    """The finishing of a piece: the surface, the coats, what is masked, what it stands on, cautions, care
    to hand over; `unfit` says where a finish is not for this use."""

    finish: str
    use: UseOf
    area_m2: float
    area_parts: tuple[tuple[str, float], ...]
    coats: tuple[CoatStep, ...]
    litres: float
    days: float
    mask: tuple[str, ...]
    stands_on: str
    cautions: tuple[str, ...]
    care: str
    unfit: str


def dries(coat: Coat, air_c: float) -> tuple[float, float]:
    """Hours a coat dries in this air, from and to: twice as long for every `DOUBLE_C` colder."""
    slow = 2.0 ** ((AT_C - air_c) / DOUBLE_C)
    return coat.dry_h[0] * slow, coat.dry_h[1] * slow


def use_of(piece: Piece, build: Build) -> UseOf:
    """What the piece is used for: as said, else by its kind."""
    if build.used:
        return build.used
    stepped_on = any(support.stepped_on for support in piece.supports)
    return "child" if piece.use == "child" else "feet" if stepped_on else "indoors"


def finishing(piece: Piece, plan: Plan, build: Build, show: Show) -> Finishing:
    """The finishing of a piece, in the air its build names."""
    use, finish = use_of(piece, build), FINISHES[build.finish]
    covered = surface(piece, plan, show)
    coats = tuple(
        CoatStep(
            number,
            coat.what,
            coat.how,
            coat.wiped_after,
            dries(coat, build.air_c),
            coat.then,
            covered.all / finish.covers,
        )
        for number, coat in enumerate(finish.coats.get(use, ()), 1)
    )
    fit = "" if use in finish.fit else f"{finish.name} is not for {_USES[use]}: choose another."
    return Finishing(
        finish=finish.name,
        use=use,
        area_m2=covered.all,
        area_parts=(("seat", covered.top), ("legs", covered.legs), ("the rest", covered.rest)),
        coats=coats,
        litres=sum(coat.litres for coat in coats) * piece.make,
        days=sum(coat.dry_h[0] for coat in coats) / 24.0,
        mask=tuple(_masked(piece, plan, build)),
        stands_on="Pins in the feet, or three blocks under the seat: no foot in its own puddle.",
        cautions=tuple(_cautions(build, finish, use)) if coats else (),
        care=finish.care,
        unfit=fit,
    )


_USES: dict[UseOf, str] = {
    "indoors": "indoors",
    "feet": "what is stepped on",
    "outdoors": "outdoors",
    "child": "a child's piece",
}


def _masked(piece: Piece, plan: Plan, build: Build) -> list[str]:
    """What stays bare: what is glued, what is cut off later."""
    if not build.prefinish:
        return []
    found = []
    if any(piece.staked()):
        found += ["every tenon up to its ring, and the sockets", "the foot, to above where it is cut level"]
    if plan.members:
        found.append("stretchers' ends up to their rings, and the sockets in the legs")
    if plan.sticks:
        found.append("the faces that close a joint")
    return found


def _cautions(build: Build, finish: Finish, use: UseOf) -> list[str]:
    found = [RAGS] if finish.oily else []
    found.append(AIR)
    if build.finish == "lacquer":
        found.append(SPRAY)
    if use == "child":
        found.append(CHILD)
    if use == "outdoors":
        found.append(GREY)
    if build.reused:
        found.append(OLD)
    return found
