"""The steps of one piece, made from the piece itself: its kinds, joints, cards and proofs."""

from __future__ import annotations

from collections.abc import Iterator

from splay.build.document import Build
from splay.build.finish import FINISHES, dries, use_of
from splay.build.fitting import DRY_READ, fitted
from splay.build.held import hold_top
from splay.build.joining import joined
from splay.build.known import NOTHING, Record
from splay.build.levels import between
from splay.build.needs import marked_out, marks_in_words
from splay.build.operations import OPERATIONS
from splay.build.plainly import told
from splay.build.step import Step, Unit, Wait
from splay.build.trimmed import trimmed
from splay.build.wood import wood
from splay.piece import Piece, StakedLegs, Through
from splay.plan import Plan
from splay.quantity import Show, Units
from splay.setups.card import SetUp
from splay.stance.splines import splined
from splay.stance.underfoot import bearings
from splay.work.marks import member_key
from splay.work.phrases import cap, listed

NO_TOOL = (
    "No tool of the shop does this: name one that you own, or do it your own way and prove it all the same."
)


def steps_of(
    piece: Piece,
    plan: Plan,
    build: Build,
    record: Record = NOTHING,
    show: Show | None = None,
    lent: frozenset[str] = frozenset(),
) -> tuple[Step, ...]:
    """Every step of a piece, one for each work, in no order yet; `build` says which schools are followed,
    `record` which joints the maker has made before, `show` their units (metric where none are); `lent` are
    tools the plan was made with though nobody owns them: their cards are not shown, their work is to be
    done all the same."""
    return (
        *wood(piece, plan, build, record),
        *_seat(piece, plan),
        *_carded(piece, plan, build, lent),
        *_sides(piece),
        *_tread_edges(piece),
        *_splines(piece, plan),
        *fitted(piece, plan, show or Show(Units())),
        *joined(piece, plan, build),
        *_ended(piece, plan, build, show or Show(Units())),
    )


def _seat(piece: Piece, plan: Plan) -> Iterator[Step]:
    # What is bored through it is proved with its own card.
    carded = {id for card in plan.setups for id in card.proofs}
    mine = tuple(p.id for p in plan.proofs if p.station == "top" and p.id not in carded)
    top = piece.top
    for operation, title, proofs in (
        ("lay_out", "Mark out the seat", mine),
        ("lay_out_upper", "Mark out the planed upper face", ()),
    ):
        if steps := marked_out(plan, operation):
            marks = marks_in_words(mark for one in steps for mark in one.makes)
            titles = tuple(step.title for step in steps)
            yield told(operation, title, "top", proofs=proofs, do=titles, marks=marks)
    if not top.bark:
        square = top.outline.kind == "rectangle"
        title = "Cut the seat to size" if square else "Cut the seat to its outline"
        do = ("Outside the line, then to it: the line is the seat's edge.",)
        yield told("cut_outline", title, "top", do=do)
    shaped = [
        name for edge, name in ((top.upper_edge, "upper"), (top.lower_edge, "lower")) if edge.inward > 0.0
    ]
    if shaped:
        yield told("edges", f"Shape the {' and the '.join(shaped)} edge", "top")


def _carded(piece: Piece, plan: Plan, build: Build, lent: frozenset[str]) -> Iterator[Step]:
    """One step for each work that has cards, whatever the tool."""
    read_dry = {p.id for p in plan.proofs if p.kind in DRY_READ}
    works: dict[str, list[SetUp]] = {}
    for card in plan.setups:
        works.setdefault(card.work, []).append(card)
    # What two works share is read after the later one: a length, once both ends are cut.
    home = {id: card.work for card in plan.setups for id in card.proofs}
    for key, cards in works.items():
        first = cards[0]
        kind = OPERATIONS[first.operation]
        own = tuple(card.id for card in cards if card.by not in lent)
        proofs = tuple(dict.fromkeys(id for card in cards for id in card.proofs))
        lay_out: tuple[str, ...] = ()
        if first.operation == "bore" and build.outline == "before_boring" and not piece.top.bark:
            lay_out = ("a cradle or a centre pin, for the seat has no straight edge any more",)
        yield Step(
            key,
            first.operation,
            first.title,
            first.station,
            _units(first, plan),
            cards=own,
            proofs=tuple(id for id in proofs if id not in read_dry and home[id] == key),
            do=_besides(piece, first, plan) if own else (NO_TOOL,),
            lay_out=(*lay_out, *kind.lay_out),
            marks=marks_in_words(mark for card in cards for mark in card.makes),
            caution=kind.caution,
            setting=kind.setting,
            serves=_serves(first, plan),
        )


def _besides(piece: Piece, card: SetUp, plan: Plan) -> tuple[str, ...]:
    """What a card does not say, for it is learned at the first hole."""
    if card.operation != "bore" or len(card.legs) < 2:
        return ()
    part = next(one for one in plan.parts if one.number == card.legs[0])
    if not isinstance(_joint(piece, part.support), Through):
        return ()
    return ("With a brace, count the turns of the first hole until the point shows: so many for the rest.",)


def _serves(card: SetUp, plan: Plan) -> tuple[str, ...]:
    ids = {member_key(one.number): one.id for one in between(plan)}
    return tuple(ids[key] for key in card.parts if key in ids)


def _units(card: SetUp, plan: Plan) -> tuple[Unit, ...]:
    """What is ticked of a card: a leg each or a part each, as its kind of work goes."""
    legs = {part.number: part.id for part in plan.parts}
    if OPERATIONS[card.operation].of == "legs" and card.legs:
        return tuple(Unit(card.work, card.operation, legs[n], f"leg {n}") for n in card.legs)
    names = {stick.key: stick.name for stick in plan.sticks}
    names |= {member_key(one.number): one.name for one in between(plan)}
    ids = {member_key(one.number): one.id for one in between(plan)}
    if card.parts:
        return tuple(
            Unit(card.work, card.operation, ids.get(key, key), names.get(key, key)) for key in card.parts
        )
    return (Unit(card.work, card.operation, "", card.title),)


def _ended(piece: Piece, plan: Plan, build: Build, show: Show) -> Iterator[Step]:
    yield from trimmed(piece, plan, show)
    mine = tuple(proof.id for proof in plan.proofs if proof.station == "level")
    do = ("As the Level station tells: measure, cut, measure again.",)
    yield told("level", "Level the feet", "level", proofs=mine, do=do)
    do = ("A small bevel round every foot's edge, so that it does not split when it is dragged.",)
    yield told("ease_feet", "Ease the feet", "level", do=do)
    yield from _coats(piece, build)
    yield from hold_top(piece, plan, show)
    if piece.underfoot is not None:
        yield _underfoot(piece, plan, show)
    if plan.ropes:
        named = listed(rope.name for rope in plan.ropes)
        yield told("rope_in", f"Tie {named}", "stretchers")
    yield told(
        "write_down",
        "Write it down",
        do=("What took how long, what went wrong and how it was saved, what to change next time.",),
    )


_UNDER = {
    "pads": ("pads", "Glue and a nail, or its own screw: the head below the face of the pad."),
    "glides": ("glides", "Drive it straight down with a wooden block between."),
    "screwed": ("screwed feet", "Screw it in until it closes; it stays adjustable, so leave all alike."),
}


def _underfoot(piece: Piece, plan: Plan, show: Show) -> Step:
    """What goes under the feet, one in the middle of each sawn end."""
    under = piece.underfoot
    assert under is not None
    many, how = _UNDER[under.kind]
    count = len(bearings(piece, plan.stance))
    return told(
        "underfoot",
        f"Put the {many} under the feet",
        "level",
        do=(
            f"{count} of them, {show.length(under.across).text} across and "
            f"{show.fine(under.thickness).text} thick: one in the middle of each foot's cut.",
            "A pilot hole first, square to the cut: end grain splits near its rim.",
            how,
            "Look again whether it rocks: put on a foot that is not flat, one of them stands too high.",
        ),
    )


def _sides(piece: Piece) -> Iterator[Step]:
    """Sides of two boards, each glued edge to edge before it is cut out or set up."""
    for _, support, _ in piece.treads():
        yield told(
            "glue_sides",
            "Glue the sides, each from its long and its short board",
            "legs",
            key=f"glue_sides.{support.id}",
            do=(
                "Dry first: the short board's back edge on the long one's front edge, no light between "
                "them; plane both edges together until there is none.",
                "Left with left, right with right, outer faces one way: a left and a right side "
                "mirror each other.",
                *(
                    ("Keep the tapers' offcuts: under the clamps they make the edges straight again.",)
                    if support.taper is not None
                    else ()
                ),
                "Glue on both edges; both feet's sawn ends in one line along a straight-edge, faces "
                "flush, clamps across, by turns over and under.",
            ),
        )


def _splines(piece: Piece, plan: Plan) -> Iterator[Step]:
    """Splines driven through the top once the sides stand under it."""
    every = splined(piece, plan.stance)
    for index, support in enumerate(piece.supports):
        mine = [one for one in every if one.support == index]
        if mine:
            yield told(
                "spline_in",
                "Drive the splines through the top",
                "legs",
                key=f"spline_in.{support.id}",
                do=(
                    "The top on its boards, mortises over notches; glue in both, and on the splines.",
                    f"{len(mine)} splines from above, lower end first, until each stands on the bottom "
                    "of its notch: the sound changes.",
                    "When the glue has set sawn off over a card, and pared from the rim inwards."
                    if mine[0].chosen.proud == 0.0
                    else "When the glue has set sawn to what is to stand out, its edges eased.",
                ),
            )


def _tread_edges(piece: Piece) -> Iterator[Step]:
    """A lower tread's shaped edge: in front and at both ends, not behind."""
    for _, support, lower in piece.treads():
        if lower.upper_edge.inward > 0.0:
            yield told(
                "tread_edges",
                "Shape the lower tread's upper edge",
                "stretchers",
                key=f"tread_edges.{support.id}",
                do=(
                    "Both ends first, a block clamped behind the back edge, so that end grain does not "
                    "break out there; then the front edge.",
                    "Not the back edge: it lies against the long boards.",
                ),
            )


def _coats(piece: Piece, build: Build) -> Iterator[Step]:
    """A step for each coat, with what is done to it when it is dry."""
    use, finish = use_of(piece, build), FINISHES[build.finish]
    coats = finish.coats.get(use) or finish.coats.get("indoors", ())
    for number, coat in enumerate(coats, 1):
        wiped = (
            f"What stands on it after {coat.wiped_after:g} min is wiped off." if coat.wiped_after else ""
        )
        first = "Dust off, everything that is seen." if number == 1 else ""
        then = f"When it is dry: rubbed down with {coat.then}, dusted off." if coat.then else ""
        how = f"{cap(coat.what)}, {coat.how}."
        yield told(
            "finish",
            f"Finish, coat {number} of {len(coats)}: {coat.what}",
            key=f"finish.{number}",
            do=tuple(line for line in (first, how, wiped, then) if line),
            wait=Wait(*dries(coat, build.air_c), "the coat to dry"),
        )


def _joint(piece: Piece, support: int) -> object:
    staked = piece.supports[support]
    return staked.joint if isinstance(staked, StakedLegs) else None
