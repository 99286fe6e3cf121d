"""Planning without keeping: the plan of a piece, any two angles, a bench question."""

from secrets import token_hex
from typing import Annotated, Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field, TypeAdapter

from splay.differences import differences, in_words, worded
from splay.draw import Drawings, Station, draw, tidied
from splay.errors import BadInput, Fault, shorten
from splay.opened import Opened
from splay.piece import Piece, read_piece
from splay.piece.merge import merge
from splay.piece.naming import called
from splay.quantity import Bare, Show, read_angle, read_length
from splay.quick import QuickLean, QuickMitre, quick_lean, quick_mitre
from splay.shop import Shop, read_shop
from splay.shown import Shown, shown
from splay.stance.handled import Handled
from splay.stance.lean import LeanAngles, solve
from splay.stance.moves import Move, move
from splay.stance.restate import Restate, What, restate
from splay.summary import LeanFigures, lean_figures
from splay.views.pictures import picture
from splay.views.shapes import View
from workshop.pieces.actions import spreads_of
from workshop.pieces.planned import planned
from workshop.pieces.readings_sent import ReadingIn, read_readings
from workshop.sent import Sent
from workshop.shop.models import the_shop

router = Router()
Finite = Annotated[float, Field(ge=-20000, le=20000)]


class MoveIn(Sent):
    """A handle dragged in a view, to a place in that view's own mm."""

    moves: Handled
    view: Literal["front", "side", "plan"]
    to: tuple[Finite, Finite]
    leg: int = 0


class RestateIn(Sent):
    """One thing of the piece to be said another way, keeping it as it is."""

    what: What
    to: Annotated[str, Field(max_length=40)]
    support: int = 0
    leg: int = 0
    measured_from: Literal["", "side", "centre", "out", "bearing"] = ""


class OpenedIn(Sent):
    """What of a station is looked at: a card, by its id; the tool used last there; the step of the
    marking-out; the part of square stock; what comes when the
    parts are made (marks to write on them, the order of assembly)."""

    card: Annotated[str, Field(max_length=200)] = ""
    by: Annotated[str, Field(max_length=200)] = ""
    step: Annotated[int, Field(ge=0, le=1000)] = 0
    part: Annotated[str, Field(max_length=200)] = ""
    more: bool = False


class PlanIn(Sent):
    """A piece, whose tools, what was measured; `shop` empty means the installation's own; `along` asks
    for one more view of the stance, in along that bearing; `live` is for a drag of the stance under way:
    its answer has no cards, proofs or stations; `opened` is what of the station is looked at: of cards,
    steps and parts only that comes, all of them without it; `exaggerate` multiplies how unlike the feet
    are drawn at Level; `before` is the piece as it was, for the answer to say what has become of it."""

    piece: dict[str, Any]
    before: dict[str, Any] | None = None
    shop: dict[str, Any] | None = None
    readings: Annotated[list[ReadingIn], Field(max_length=400, default_factory=list)]
    moves: Annotated[list[MoveIn], Field(max_length=8, default_factory=list)]
    restate: Annotated[list[RestateIn], Field(max_length=8, default_factory=list)]
    bare: Bare | None = None
    station: Station = "all"
    live: bool = False
    along: Annotated[float, Field(ge=-360, le=360)] | None = None
    exaggerate: Annotated[float, Field(ge=1, le=100)] = 1.0
    opened: OpenedIn | None = None


class PlanOut(Schema):
    """The piece as it was read (and moved); its plan and the drawings, as far as the station shows them.
    `says` is what differs from the piece `before`, in one line."""

    piece: Piece
    says: str
    plan: Shown
    drawings: Drawings


_PLAN_OUT = TypeAdapter(PlanOut)


class MergeIn(Sent):
    """A piece as it was, and two pieces it became; where both changed the same, `take` names the paths at
    which theirs is taken."""

    base: dict[str, Any]
    mine: dict[str, Any]
    theirs: dict[str, Any]
    take: Annotated[
        list[Annotated[str, Field(max_length=200)]], Field(max_length=200, default_factory=list)
    ]


class ClashOut(Schema):
    """A place both changed: its path in mine, what it is called, what each made of it."""

    path: str
    what: str
    mine: str
    theirs: str


class MergeOut(Schema):
    """The piece with both changes, what theirs are in one line, and where both changed the same."""

    piece: Piece
    says: str
    clashes: list[ClashOut]


class AnglesIn(Sent):
    """Two of the four, as typed; the sightline from the left-right or the front-back line."""

    splay: str | float | None = None
    rake: str | float | None = None
    resultant: str | float | None = None
    from_side: str | float | None = None
    from_centre: str | float | None = None


class MitreIn(Sent):
    """A rail meeting a leg that splays: the splay and both widths, as typed."""

    splay: str | float
    rail: str | float
    leg: str | float


class QuickLeanOut(Schema):
    """The lean in all its names, the settings, a picture for each."""

    answer: QuickLean
    pictures: dict[str, View]


class QuickMitreOut(Schema):
    """Both cuts, the saw's settings, a picture for each."""

    answer: QuickMitre
    pictures: dict[str, View]


@router.post("/plan", response={200: PlanOut})
def make_plan(request: HttpRequest, payload: PlanIn) -> HttpResponse:
    """The plan of a piece; nothing is kept."""
    shop = read_shop(payload.shop, at="shop") if payload.shop is not None else the_shop(request.user)
    bare = payload.bare or shop.rounding.system
    salt = token_hex()
    piece = read_piece(payload.piece, bare, "piece", salt)
    for wanted in payload.moves:
        to = Move(wanted.moves, wanted.view, wanted.to, wanted.leg)
        piece = move(piece, to, shop.rounding.units().snap_mm())
    for said in payload.restate:
        piece = restate(piece, Restate(**said.model_dump()), salt)
    levelling = payload.station in ("level", "all")
    made = planned(
        piece,
        shop,
        read_readings(payload.readings, piece, shop, bare),
        levelling=levelling,
        live=payload.live and payload.station in ("stance", "solid"),
        spreads=spreads_of(request.user),
    )
    opened = Opened(**payload.opened.model_dump()) if payload.opened else None
    drawings = draw(piece, shop, made, payload.station, payload.along, payload.exaggerate, opened)
    # Written out by the schema itself: the plan was made by the core and needs no second check.
    body = _PLAN_OUT.dump_json(
        PlanOut.model_construct(
            piece=piece,
            says=_changed(payload.before, piece, shop),
            plan=shown(made, payload.station, opened),
            drawings=tidied(drawings),
        )
    )
    return HttpResponse(body, content_type="application/json")


def _changed(before: dict[str, Any] | None, piece: Piece, shop: Shop) -> str:
    if before is None:
        return ""
    was = read_piece(before, shop.rounding.system, "before")
    return in_words(differences(was, piece, Show(shop.rounding.units())))


@router.post("/merge", response={200: MergeOut})
def put_together(request: HttpRequest, payload: MergeIn) -> MergeOut:
    """Two changes of one piece in one; nothing is kept."""
    shop = the_shop(request.user)
    bare, show = shop.rounding.system, Show(shop.rounding.units())
    base = read_piece(payload.base, bare, "base")
    mine = read_piece(payload.mine, bare, "mine")
    theirs = read_piece(payload.theirs, bare, "theirs")
    made = merge(base, mine, theirs, frozenset(payload.take))
    return MergeOut(
        piece=made.piece,
        says=in_words(differences(base, theirs, show)),
        clashes=[
            ClashOut(
                path=clash.mine,
                what=called(payload.mine, clash.mine) or "the piece",
                mine=worded(mine, clash.mine, show) if clash.mine else "yours",
                theirs=worded(theirs, clash.theirs, show) if clash.theirs else "the other",
            )
            for clash in made.clashes
        ],
    )


@router.post("/angles", response={200: LeanFigures})
def angles(request: HttpRequest, payload: AnglesIn) -> LeanFigures:
    """All four names of a lean from any two."""
    show = Show(the_shop(request.user).rounding.units())
    return lean_figures(_lean(payload), "angles", (1.0, 1.0), show)


@router.post("/quick/lean", response={200: QuickLeanOut})
def quick(request: HttpRequest, payload: AnglesIn) -> QuickLeanOut:
    """What to set for a lean on every tool of the shop."""
    answer = quick_lean(the_shop(request.user), _lean(payload))
    return QuickLeanOut(answer=answer, pictures=_pictures((s.id, s.scene, s.tool) for s in answer.settings))


@router.post("/quick/mitre", response={200: QuickMitreOut})
def quick_corner(request: HttpRequest, payload: MitreIn) -> QuickMitreOut:
    """The mitre between a rail and a leaning leg, on the shop's saw."""
    shop = the_shop(request.user)
    bare = shop.rounding.system
    answer = quick_mitre(
        shop,
        read_angle(payload.splay, "splay"),
        read_length(payload.rail, bare, "rail"),
        read_length(payload.leg, bare, "leg"),
    )
    return QuickMitreOut(
        answer=answer, pictures=_pictures((s.id, s.scene, s.tool) for s in answer.settings)
    )


def _pictures(scenes: Any) -> dict[str, View]:
    made: dict[str, View] = {}
    for id, scene, tool in scenes:
        made[id] = picture(scene, tool)
    return made


def _lean(payload: AnglesIn) -> LeanAngles:
    read = {
        name: read_angle(value, name)
        for name, value in payload.model_dump().items()
        if value is not None and value != ""
    }
    lean = solve(**read)
    if lean.resultant > 80:
        got = shorten(f"{lean.resultant:.1f}°")
        raise BadInput(Fault("resultant", got, "a true lean up to 80°", "Lean it less."))
    return lean
