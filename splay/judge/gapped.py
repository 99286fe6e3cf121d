"""What can go wrong with a seat in two boards: held by nothing in common, bored at the gap, closing up."""

from __future__ import annotations

from collections.abc import Iterator

from splay.judge.finding import Finding, found
from splay.judge.joints import POINT_MM
from splay.piece import Piece
from splay.piece.kinds import HoldsTop
from splay.quantity import Show
from splay.stance.battens import screw_places
from splay.stance.body import Body
from splay.stance.buttons import Grooved
from splay.stance.gapped import TopBoard, across_at, slit, top_boards
from splay.stance.hand_hold import slot
from splay.stance.holding import Fastening
from splay.stance.staked import Stance, support_of
from splay.stance.vectors import Flat, along

LEAST_HELD = 2
"""Parts that hold a board, or it cups and twists (common practice, no source)."""
SCREW_MM = 2.0 * POINT_MM
"""A screw nearer to a board's edge than this splits it (common practice, no source)."""
LEAST_GAP_MM = 1.0
"""A gap that closes to less than this pinches (common practice, no source)."""


def gapped(
    piece: Piece,
    stance: Stance,
    screws: tuple[Fastening, ...],
    grooved: tuple[Grooved, ...],
    show: Show,
) -> Iterator[Finding]:
    """All that is wrong with the gap of a top, if it has one."""
    boards = top_boards(piece.top)
    if piece.top.gap is None:
        return
    yield from _tied(piece, stance, boards, screws, grooved, show)
    yield from _crossed(piece, stance, screws, show)
    yield from _buttons(piece, boards, grooved, show)
    yield from _closes(piece, boards, show)
    for index, _ in piece.slab_legs():
        yield found(
            "gap_mitred", "stop", "A slab leg is sawn off its top's end, which must be one piece.",
            "Close the gap, or stand this top on frames.", show.length(piece.top.gap.width),
            show.length(0.0), f"supports.{index}", station="top",
        )  # fmt: skip


def _tied(
    piece: Piece,
    stance: Stance,
    boards: tuple[TopBoard, ...],
    screws: tuple[Fastening, ...],
    grooved: tuple[Grooved, ...],
    show: Show,
) -> Iterator[Finding]:
    """Each board is to be held by two parts, and one of them at least is to hold both."""
    holders = {board.key: _holders(piece, stance, board, screws, grooved) for board in boards}
    both = set.intersection(*holders.values())
    field = next(
        (f"supports.{k}.held" for k, support in enumerate(piece.supports) if isinstance(support, HoldsTop)),
        "top.gap",
    )
    if not both:
        yield found(
            "boards_apart", "stop",
            "Nothing that lies under both boards is screwed to them, or buttoned: they come apart.",
            "Hold the top by screws or buttons to parts that run under both, or close the gap.",
            show.count(0), show.count(1), field, station="top",
        )  # fmt: skip
        return
    for board in boards:
        count = len(holders[board.key])
        if count < LEAST_HELD:
            yield found(
                "board_twists", "caution",
                f"The {board.name} is held by one part alone: it cups and twists as it likes.",
                "Let two parts at least run under both boards, near their ends.", show.count(count),
                show.count(LEAST_HELD), field, station="top",
            )  # fmt: skip


def _holders(
    piece: Piece,
    stance: Stance,
    board: TopBoard,
    screws: tuple[Fastening, ...],
    grooved: tuple[Grooved, ...],
) -> set[str]:
    """The parts that hold a board, by their keys."""

    def on(at: Flat) -> bool:
        return board.over(across_at(piece.top, at))

    held = {one.body.key for one in screws if on(one.at[:2])}
    held |= {one.body.key for one in grooved for each in one.buttons if on(each.at[:2])}
    for batten in (body for body in stance.bodies if body.role == "batten"):
        if any(on(at) for at in _batten_screws(piece, stance, batten)):
            held.add(batten.key)
    return held


def _batten_screws(piece: Piece, stance: Stance, batten: Body) -> Iterator[Flat]:
    mine = [leg for leg in stance.legs if leg.support == batten.support]
    joint = getattr(support_of(piece, mine[0]), "joint", None)
    assert joint is not None
    low, high = batten.at(0.0, 0.0)
    holes = []
    for leg in mine:
        x, y, _ = batten.pose.within(leg.socket)
        if abs(y) < 1.0:
            holes.append((x - low - leg.bore.size / 2.0, x - low + leg.bore.size / 2.0))
    for x in screw_places(high - low, holes, joint.screws):
        at = along(batten.pose.origin, batten.pose.along, low + x)
        yield at[0], at[1]


def _crossed(piece: Piece, stance: Stance, screws: tuple[Fastening, ...], show: Show) -> Iterator[Finding]:
    """What is bored through a board at the gap, or beside it."""
    top = piece.top
    opened = slit(top)
    assert opened is not None
    for leg in stance.legs:
        if leg.bore.mouth_z != 0.0:
            continue
        run = min(top.thickness, leg.bore.deep * abs(leg.d[2])) / leg.d[2]
        ends = [across_at(top, leg.socket), across_at(top, along(leg.socket, leg.d, run))]
        clear = _clear(ends, leg.bore.size / 2.0, opened)
        if clear < POINT_MM:
            yield Finding(
                "gap_crossed", "stop" if clear <= 0.0 else "caution", "boring",
                f"The hole for leg {leg.number} "
                + ("opens into the gap." if clear <= 0.0 else "leaves too little wood at the gap."),
                f"Move the leg {show.length(POINT_MM - clear).text} further from the gap, or choose other "
                "boards.",
                (leg.number,), show.length(clear), show.length(POINT_MM), leg.place.at, "top.boards",
            )  # fmt: skip
    for k, one in enumerate(top.hand_holds):
        sides = [across_at(top, (x, y)) for x, y in slot(one).exterior.coords]
        clear = _clear([min(sides), max(sides)], 0.0, opened)
        if clear < POINT_MM:
            yield found(
                "gap_crossed", "stop" if clear <= 0.0 else "caution",
                "The hand-hold lies at the gap, which is one already.",
                "Set it into one of the boards, or leave it out.",
                show.length(clear), show.length(POINT_MM), f"top.hand_holds.{k}.y", (one.x, one.y),
                station="top",
            )  # fmt: skip
    for batten in (body for body in stance.bodies if body.role == "batten"):
        tight = min(
            _clear([across_at(top, at)], 0.0, opened) for at in _batten_screws(piece, stance, batten)
        )
        if tight < SCREW_MM:
            yield found(
                "gap_screwed", "stop" if tight <= 0.0 else "caution",
                f"A screw of {batten.name} comes to stand at the gap.",
                "Take another number of screws, or choose other boards.", show.length(tight),
                show.length(SCREW_MM), f"supports.{batten.support}.joint.screws",
            )  # fmt: skip
            break
    near = [(_clear([across_at(top, screw.at)], screw.screw.size / 2.0, opened), screw) for screw in screws]
    near = sorted((two for two in near if two[0] < SCREW_MM), key=lambda two: two[0])
    for clear, screw in near[:1]:
        yield found(
            "gap_screwed", "caution",
            f"A screw of the {screw.body.name} leaves {show.length(max(0.0, clear)).text} of wood to the "
            "gap: the board's edge splits.",
            "Set the outer ones further from the ends: that is from the gap too.",
            show.length(clear), show.length(SCREW_MM), f"supports.{screw.body.support}.held.from_ends",
        )  # fmt: skip


def _buttons(
    piece: Piece, boards: tuple[TopBoard, ...], grooved: tuple[Grooved, ...], show: Show
) -> Iterator[Finding]:
    """A button's screw stands aside of its part, perhaps not on the board it is to hold."""
    for one in grooved:
        for each in one.buttons:
            across = across_at(piece.top, each.at)
            spot = across_at(piece.top, one.at(each.along, 0.0, 0.0))
            board = next((board for board in boards if board.over(spot)), None)
            if board is None:
                continue
            clear = min(across - board.low, board.high - across)
            inner = board.high - across if board is boards[0] else across - board.low
            if clear == inner and clear < POINT_MM:
                yield found(
                    "gap_screwed", "stop",
                    f"A button's screw at the {one.body.name} comes to stand at the gap, or under the "
                    "other board.",
                    "Set the outer ones further from the ends: that is from the gap too.",
                    show.length(clear), show.length(POINT_MM),
                    f"supports.{one.body.support}.held.from_ends",
                )  # fmt: skip
                return


def _clear(across: list[float], half: float, opened: tuple[float, float]) -> float:
    """Wood between the gap and what lies so far across, negative where it reaches into it."""
    return max(min(across) - half - opened[1], opened[0] - max(across) - half)


def _closes(piece: Piece, boards: tuple[TopBoard, ...], show: Show) -> Iterator[Finding]:
    """By how much the boards grow towards each other, at most what they were given room for."""
    gap = piece.top.gap
    assert gap is not None
    wood = boards[1].high - boards[0].low - gap.width
    held = [support.held for support in piece.supports if isinstance(support, HoldsTop)]
    moves = max((one.moves for one in held if one is not None), default=0.0)
    inner = (boards[0].high - boards[0].stays) + (boards[1].stays - boards[1].low)
    grow = moves * inner / wood
    if grow > gap.width - LEAST_GAP_MM:
        yield found(
            "gap_closes", "caution",
            f"The boards may grow {show.closely(grow).text} towards each other: the gap of "
            f"{show.length(gap.width).text} closes.",
            f"Make it {show.length(grow + LEAST_GAP_MM).text} wide, or let another line of the boards "
            "stay.",
            show.closely(grow), show.closely(gap.width), "top.gap.width", station="top",
        )  # fmt: skip
