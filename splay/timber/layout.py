"""A piece's wood laid out on what there is: boards, slabs, logs; what is missing, and what to buy."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from splay.quantity import Quantity, Show, times
from splay.timber.buying import to_buy
from splay.timber.choices import WoodChoice
from splay.timber.cutting import CutPlan, cut_plan
from splay.timber.gluing import board_widths
from splay.timber.laid import Blank, BoardCut, Missing, Rest, WoodLayout
from splay.timber.moisture import WETTER, led_to
from splay.timber.needs import Need
from splay.timber.on_logs import from_logs, from_sticks, slices
from splay.timber.on_slabs import panels
from splay.timber.sawing import Ripped, Want
from splay.timber.stock import AnyStock, Board, Log, Slab, TurnedStick
from splay.timber.told import cautions, litres_said, told


def lay_out_wood(
    needs: Sequence[Need],
    stock: Sequence[AnyStock],
    choice: WoodChoice,
    show: Show,
    seconds: float = 1.6,
    make: int = 1,
) -> WoodLayout:
    """Lay out what a piece needs on the stock that is free. With no time at all: the first plan there
    is."""
    # Legs that were made already are taken where they are named; that alone rules out no other wood.
    named = [item for item in stock if item.id in choice.out_of]
    picked = [item for item in named if not isinstance(item, TurnedStick)]
    usable = picked or stock
    boards = [item for item in usable if isinstance(item, Board)]
    slabs = [item for item in usable if isinstance(item, Slab)]
    logs = [item for item in usable if isinstance(item, Log)]
    by_key = {need.key: need for need in needs}
    on_slabs, slab_faults, laid, left_panels = panels(needs, slabs, choice, show)
    log_cuts, sliced = slices(needs, left_panels, logs, choice, show)
    choice = _of_one_kind(needs, boards, choice)
    sticks, got = from_sticks(needs, [item for item in named if isinstance(item, TurnedStick)], show)
    wants = [
        replace(want, count=want.count - got.get(need.key, 0) * need.layers)
        for need in needs
        if need.sort == "strip" and (want := need.want(choice.species_for(need.role)))
    ]
    for key, count in left_panels.items():
        if (still := count - sliced.get(key, 0)) > 0:
            # A seat can come out of one wide board.
            wants.append(replace(by_key[key].want(choice.top_species), count=still))
    found = cut_plan(wants, boards, choice.saw, seconds)
    layers = {need.key: need.layers for need in needs}
    missing = {key: -(-count // layers[key]) for key, count in found.missing.items()}
    split, missing = from_logs(by_key, missing, logs, {cut.stock for cut in log_cuts}, choice, show)
    all_logs = (*log_cuts, *split)
    ripped = list({one.section.board.id: one.section.board for one in found.sawn}.values())
    on = [slab for slab in slabs if any(cut.stock == slab.id for cut in on_slabs)]
    gone = tuple(
        Missing(key, by_key[key].name, count, _glued(by_key[key], boards, choice, show))
        for key, count in missing.items()
    )
    return WoodLayout(
        boards=tuple(_board_cuts(found, boards, by_key, choice, show)),
        slabs=on_slabs,
        logs=all_logs,
        missing=gone,
        buy=to_buy([(by_key[one.key], one.count) for one in gone], choice, show),
        faults=slab_faults,
        cautions=tuple(cautions(ripped, on, bool(all_logs))),
        laid=laid,
        lost=litres_said(found.lost, show),
        kept=litres_said(found.kept, show),
        off=found.off,
        first=seconds <= 0.0,
        makes=_makes(wants, boards, choice, make) if gone else None,
        sticks=tuple(sticks),
    )


USUAL_WIDTH = 150.0
"""Boards are taken to be so wide where there are none to look at, mm (common practice, no source)."""


def _glued(need: Need, boards: Sequence[Board], choice: WoodChoice, show: Show) -> tuple[Quantity, ...]:
    """The widths of boards a missing seat could be glued from: what there is that is thick enough,
    jointed."""
    if need.sort != "panel" or need.seam:
        return ()
    fits = [
        board.width
        for board in boards
        if board.thickness >= need.size[2]
        and (not choice.top_species or board.species == choice.top_species)
    ]
    widest = max(fits, default=USUAL_WIDTH) - 2.0 * choice.planing
    return tuple(show.length(mm) for mm in board_widths(need.finished[1].value, need.holes, widest))


def _of_one_kind(needs: Sequence[Need], boards: Sequence[Board], choice: WoodChoice) -> WoodChoice:
    """Where any kind of wood will do, the one that goes furthest: nobody mixes kinds by accident."""
    if choice.species:
        return choice
    wants = [need.want("") for need in needs if need.sort == "strip" and need.role not in ("top", "board")]
    dry = led_to(choice.home_c, choice.home_rh) + WETTER
    best: tuple[int, bool, float, str] | None = None
    for species in sorted({board.species for board in boards}):
        mine = [replace(want, species=species) for want in wants]
        found = cut_plan(mine, [b for b in boards if b.species == species], choice.saw, 0.0)
        used = {ripped.section.board.id: ripped.section.board for ripped in found.sawn}
        wet = any(board.now is not None and board.now > dry for board in used.values())
        tried = (sum(found.missing.values()), wet, found.loss, species)
        best = min(best, tried) if best else tried
    return choice.model_copy(update={"species": best[3]}) if best and wants else choice


def _makes(wants: Sequence[Want], boards: Sequence[Board], choice: WoodChoice, make: int) -> int:
    """Of how many whole pieces the pile has the strips, by the first plan."""
    for pieces in range(make - 1, 0, -1):
        part = [replace(want, count=-(-want.count * pieces // make)) for want in wants]
        if not cut_plan(part, boards, choice.saw, 0.0).missing:
            return pieces
    return 0


def _board_cuts(
    found: CutPlan, boards: Sequence[Board], by_key: Mapping[str, Need], choice: WoodChoice, show: Show
) -> Iterator[BoardCut]:
    by_id = {board.id: board for board in boards}
    sawn_from: dict[str, list[Ripped]] = {}
    for one in found.sawn:
        sawn_from.setdefault(one.section.board.id, []).append(one)
    for stock in (board.id for board in boards if board.id in sawn_from):
        board, ripped = by_id[stock], tuple(sawn_from[stock])
        yield BoardCut(
            stock,
            tuple(
                Blank(
                    cut.key,
                    by_key[cut.key].name,
                    cut.x,
                    cut.y,
                    cut.length,
                    cut.width,
                    times((show.length(cut.length), show.length(cut.width))),
                    by_key[cut.key].role,
                )
                for one in ripped
                for lane in one.lanes
                for cut in lane.cuts
            ),
            tuple(
                Rest(
                    left.x,
                    left.y,
                    left.length,
                    left.width,
                    times((show.length(left.length), show.length(left.width))),
                )
                for left in found.left
                if left.stock == stock
            ),
            tuple(told(board, ripped, by_key, choice, show)),
        )
