"""A piece's wood laid out on what there is: boards, slabs, logs; what is missing, and what to buy."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import groupby

import shapely

from splay.quantity import Quantity, Show
from splay.timber.buying import Buy, to_buy
from splay.timber.choices import Laid, WoodChoice
from splay.timber.cutting import CutPlan, cut_plan
from splay.timber.gluing import board_widths
from splay.timber.keys import Keys, keys_for
from splay.timber.moisture import WETTER, led_to
from splay.timber.needs import Need, times
from splay.timber.placing import OnSlab, PlaceFault, faults, first_places, lay
from splay.timber.rounds import Billets, Slice, riven, sawn, slice_of
from splay.timber.sawing import Ripped, SawCut, Want, order_of_cuts
from splay.timber.stock import AnyStock, Board, Log, Slab
from splay.work.phrases import cap

Flat2 = tuple[float, float]
LEAST_LEFT_MM2 = 40_000.0
"""What is left of a slab and smaller than this goes to the stove (common practice, no source)."""


@dataclass(frozen=True)
class Blank:
    """A blank in a board: its need, where it lies (mm from the marked end and the near edge) and its
    size."""

    key: str
    name: str
    x: float
    y: float
    length: float
    width: float
    text: str
    role: str


@dataclass(frozen=True)
class Rest:
    """What is left of a board, mm, and what it is called in the maker's units."""

    x: float
    y: float
    length: float
    width: float
    text: str


@dataclass(frozen=True)
class BoardCut:
    """One board with its blanks, what is left of it, and its cuts in their order, in words."""

    stock: str
    blanks: tuple[Blank, ...]
    left: tuple[Rest, ...]
    told: tuple[str, ...]


@dataclass(frozen=True)
class SlabPart:
    """A part on a slab: its blank in the slab's frame, leg holes (x, y, radius), seams, and how it was
    laid."""

    key: str
    number: int
    name: str
    outline: tuple[Flat2, ...]
    holes: tuple[tuple[float, float, float], ...]
    seams: tuple[tuple[Flat2, Flat2], ...]
    x: float
    y: float
    turn: float


@dataclass(frozen=True)
class SplitKeys:
    """The keys that hold a split, by the id of its spot."""

    spot: str
    keys: Keys


@dataclass(frozen=True)
class SlabCut:
    """One slab with the parts laid on it, what is left of it, and the splits that are kept in its parts."""

    stock: str
    parts: tuple[SlabPart, ...]
    left: tuple[tuple[Flat2, ...], ...]
    splits: tuple[SplitKeys, ...]


@dataclass(frozen=True)
class LogCut:
    """What one log gives of one need: sticks riven or sawn, or slices; `takes` of how many it is taken
    for."""

    stock: str
    key: str
    name: str
    takes: int
    billets: tuple[Billets, ...]
    slices: int
    slice: Slice | None


@dataclass(frozen=True)
class Missing:
    """A need, and how many of it there is no wood for; for a seat the widths of boards it could be glued
    from, no glue line near a leg hole."""

    key: str
    name: str
    count: int
    boards: tuple[Quantity, ...] = ()


@dataclass(frozen=True)
class WoodLayout:
    """Everything that was laid out. `lost` and `kept` are litres (or board feet) of boards; `off` how far
    the boards' plan lies above the least loss there can be, at most, as a share; `first` whether a better
    one is still looked for; `makes` how many whole pieces the pile gives, None where it was not worked
    out."""

    boards: tuple[BoardCut, ...]
    slabs: tuple[SlabCut, ...]
    logs: tuple[LogCut, ...]
    missing: tuple[Missing, ...]
    buy: tuple[Buy, ...]
    faults: tuple[PlaceFault, ...]
    cautions: tuple[str, ...]
    laid: tuple[Laid, ...]
    lost: Quantity
    kept: Quantity
    off: float
    first: bool
    makes: int | None


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
    usable = [item for item in stock if not choice.out_of or item.id in choice.out_of]
    boards = [item for item in usable if isinstance(item, Board)]
    slabs = [item for item in usable if isinstance(item, Slab)]
    logs = [item for item in usable if isinstance(item, Log)]
    by_key = {need.key: need for need in needs}
    on_slabs, slab_faults, laid, left_panels = _panels(needs, slabs, choice, show)
    log_cuts, sliced = _slices(needs, left_panels, logs, choice, show)
    choice = _of_one_kind(needs, boards, choice)
    wants = [need.want(_species(need, choice)) for need in needs if need.sort == "strip"]
    for key, count in left_panels.items():
        if (still := count - sliced.get(key, 0)) > 0:
            # A seat can come out of one wide board.
            wants.append(replace(by_key[key].want(choice.top_species), count=still))
    found = cut_plan(wants, boards, choice.saw, seconds)
    layers = {need.key: need.layers for need in needs}
    missing = {key: -(-count // layers[key]) for key, count in found.missing.items()}
    from_logs, missing = _from_logs(by_key, missing, logs, {cut.stock for cut in log_cuts}, choice, show)
    gone = tuple(
        Missing(key, by_key[key].name, count, _glued(by_key[key], boards, choice, show))
        for key, count in missing.items()
    )
    return WoodLayout(
        boards=tuple(_board_cuts(found, boards, by_key, choice, show)),
        slabs=on_slabs,
        logs=(*log_cuts, *from_logs),
        missing=gone,
        buy=to_buy([(by_key[one.key], one.count) for one in gone], choice, show),
        faults=slab_faults,
        cautions=tuple(_cautions(found, on_slabs, (*log_cuts, *from_logs), usable)),
        laid=laid,
        lost=litres_said(found.lost, show),
        kept=litres_said(found.kept, show),
        off=found.off,
        first=seconds <= 0.0,
        makes=_makes(wants, boards, choice, make) if gone else None,
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


BOARD_FOOT = 2.359737
"""Litres in a board foot: a foot square, an inch thick."""


def litres_said(litres: float, show: Show) -> Quantity:
    """A volume of wood: litres, or board feet where the maker counts in inches."""
    metric, feet = f"{litres:.1f} litres", f"{litres / BOARD_FOOT:.1f} board feet"
    inch = show.units.system == "inch"
    return Quantity(litres, "ratio", feet if inch else metric, metric if inch else feet)


def _cautions(
    found: CutPlan, slabs: Sequence[SlabCut], logs: Sequence[LogCut], stock: Sequence[AnyStock]
) -> Iterator[str]:
    """What can hurt at this work, and where to look further."""
    by_id = {item.id: item for item in stock}
    boards = {one.section.board.id: one.section.board for one in found.sawn}
    if boards:
        yield (
            "Ripping: guard and riving knife on, a push stick for strips, hands 150 mm from the blade. "
            "The saw's "
            "manual goes before this."
        )
    if any(flaw.kind in ("split", "rot", "knot") for board in boards.values() for flaw in board.flaws):
        yield (
            "A board with a split or a loose knot can close on the blade or throw a piece: wedge it, or "
            "saw it "
            "by hand."
        )
    if logs:
        yield (
            "Splitting: eyes covered, feet clear of the wedge. Chainsaw cuts are left to a trained hand. "
            "Round "
            "stock rolls: support its whole length."
        )
    taken = [by_id.get(one.stock) for one in (*slabs,)] + list(boards.values())
    if any(item is not None and item.source == "reclaimed" for item in taken):
        yield (
            "Taken from something old: look for nails and screws with a magnet first. An old finish of "
            "unknown "
            "kind is scraped, not sanded, with a mask on and the window open."
        )


def _species(need: Need, choice: WoodChoice) -> str:
    return choice.top_species if need.role in ("top", "board") else choice.species


def _makes(wants: Sequence[Want], boards: Sequence[Board], choice: WoodChoice, make: int) -> int:
    """Of how many whole pieces the pile has the strips, by the first plan."""
    for pieces in range(make - 1, 0, -1):
        part = [replace(want, count=-(-want.count * pieces // make)) for want in wants]
        if not cut_plan(part, boards, choice.saw, 0.0).missing:
            return pieces
    return 0


def _panels(
    needs: Sequence[Need], slabs: Sequence[Slab], choice: WoodChoice, show: Show
) -> tuple[tuple[SlabCut, ...], tuple[PlaceFault, ...], tuple[Laid, ...], dict[str, int]]:
    """Seats on slabs: where the maker put them, the others where there is room."""
    by_id = {slab.id: slab for slab in slabs}
    panels = {need.key: need for need in needs if need.sort == "panel"}
    held = [
        lay(panels[one.key], one)
        for one in choice.laid
        if one.key in panels and one.stock in by_id and one.number <= panels[one.key].count
    ]
    there = {(part.laid.key, part.laid.number) for part in held}
    ask = [
        (need, number)
        for need in panels.values()
        for number in range(1, need.count + 1)
        if (need.key, number) not in there
    ]
    dry = led_to(choice.home_c, choice.home_rh) + WETTER
    fitting = [s for s in slabs if not choice.top_species or s.species == choice.top_species]
    fitting.sort(key=lambda slab: (slab.now is not None and slab.now > dry, slab.ring.area))
    found = first_places(ask, fitting, choice.kerf, held=held)
    parts = [*held, *(lay(panels[one.key], one) for one in found.laid)]
    cuts, said = [], []
    for slab in slabs:
        mine = [part for part in parts if part.laid.stock == slab.id]
        if mine:
            cuts.append(_slab_cut(slab, mine, choice, show))
            said += faults(slab, mine, choice.kerf, show)
    left: dict[str, int] = {}
    for key, _ in found.missing:
        left[key] = left.get(key, 0) + 1
    return tuple(cuts), tuple(said), tuple(part.laid for part in parts), left


def _slab_cut(slab: Slab, parts: Sequence[OnSlab], choice: WoodChoice, show: Show) -> SlabCut:
    splits = []
    for spot in slab.spots:
        line = [(p.x, p.y) for p in spot.points]
        kept = [part for part in parts if part.shape.intersects(spot.shape())]
        if spot.kind == "split" and len(line) > 1 and kept:
            inside = shapely.LineString(line).intersection(kept[0].shape)
            if inside.geom_type == "LineString" and inside.length > 0.0:
                thick = kept[0].need.finished[2].value
                holes = [hole for part in kept for hole in part.holes]
                away = _clear_by(slab, kept[0], parts, inside.length, choice.kerf, show)
                along = [(x, y) for x, y in inside.coords]
                splits.append(SplitKeys(spot.id, keys_for(along, thick, show, away, holes)))
    return SlabCut(slab.id, slab_parts(parts), tuple(left_of(slab, parts, choice.kerf)), tuple(splits))


CLEAR_OF_SPLIT = 10.0
"""A part is moved so much further than a split reaches, mm: splits run on (common practice, no source)."""


def _clear_by(
    slab: Slab, part: OnSlab, parts: Sequence[OnSlab], inside: float, kerf: float, show: Show
) -> float:
    """How far a part can be moved along the grain to have no split in it, mm; 0 where there is no room."""
    away = inside + CLEAR_OF_SPLIT
    others = [one for one in parts if one is not part]
    for way in (away, -away):
        t = math.radians(slab.grain)
        shifted = {"x": part.laid.x + way * math.cos(t), "y": part.laid.y + way * math.sin(t)}
        tried = lay(part.need, part.laid.model_copy(update=shifted))
        if not faults(slab, [tried, *others], kerf, show):
            return away
    return 0.0


def slab_parts(parts: Sequence[OnSlab]) -> tuple[SlabPart, ...]:
    """Parts on a slab, as they are sent."""
    return tuple(
        SlabPart(
            part.need.key,
            part.laid.number,
            part.need.name,
            _ring(part.shape),
            part.holes,
            part.seams,
            part.laid.x,
            part.laid.y,
            part.laid.turn,
        )
        for part in parts
    )


def left_of(slab: Slab, parts: Iterable[OnSlab], kerf: float) -> Iterator[tuple[Flat2, ...]]:
    """What is left of a slab, in pieces large enough to keep."""
    gone = [part.shape.buffer(kerf, join_style="mitre") for part in parts]
    rest = slab.ring.difference(shapely.union_all(gone)) if gone else slab.ring
    for piece in getattr(rest, "geoms", [rest]):
        # Narrow tongues along a part are no wood to keep.
        stout = piece.buffer(-25.0).buffer(25.0, join_style="mitre").intersection(piece)
        for one in getattr(stout, "geoms", [stout]):
            if one.geom_type == "Polygon" and one.area >= LEAST_LEFT_MM2:
                yield _ring(one.simplify(1.0))


def _ring(shape: shapely.Polygon) -> tuple[Flat2, ...]:
    return tuple((round(x, 1), round(y, 1)) for x, y in shape.exterior.coords[:-1])


def _slices(
    needs: Sequence[Need], wanted: Mapping[str, int], logs: Sequence[Log], choice: WoodChoice, show: Show
) -> tuple[list[LogCut], dict[str, int]]:
    """Seats that are slices of a log."""
    made: list[LogCut] = []
    got: dict[str, int] = {}
    by_key = {need.key: need for need in needs}
    for key, count in wanted.items():
        need = by_key[key]
        across = 2.0 * max((x * x + y * y) ** 0.5 for x, y in need.outline)
        for log in logs:
            still = count - got.get(key, 0)
            if still <= 0 or log.small_end < across * 0.9 or log.small_end > across * 1.4:
                continue
            many = int((log.length - 2 * log.checks + choice.kerf) // (need.size[2] + choice.kerf))
            if many <= 0:
                continue
            takes = min(still, many)
            got[key] = got.get(key, 0) + takes
            slice_ = log.model_copy(update={"length": need.size[2]})
            ends = led_to(choice.home_c, choice.home_rh)
            told = slice_of(slice_, log.wood, log.now if log.now is not None else 30.0, ends, show)
            made.append(LogCut(log.id, key, need.name, takes, (), many, told))
    return made, got


def _from_logs(
    by_key: Mapping[str, Need],
    missing: Mapping[str, int],
    logs: Sequence[Log],
    taken: set[str],
    choice: WoodChoice,
    show: Show,
) -> tuple[list[LogCut], dict[str, int]]:
    """Square sticks that no board gives, out of logs: one log for one need."""
    made, left = [], dict(missing)
    free = [log for log in logs if log.id not in taken]
    for key in missing:
        need = by_key[key]
        length, width, thickness = need.size
        if need.sort != "strip" or need.layers > 1 or max(width, thickness) > 1.6 * min(width, thickness):
            continue
        for log in [log for log in free if not choice.species or log.species == choice.species]:
            square = max(width, thickness)
            ways = (riven(log, square, length, show), sawn(log, square, length, choice.kerf))
            most = max(way.total for way in ways)
            if most <= 0 or left[key] <= 0:
                continue
            takes = min(left[key], most)
            left[key] -= takes
            free.remove(log)
            made.append(LogCut(log.id, key, need.name, takes, ways, 0, None))
    return made, {key: count for key, count in left.items() if count > 0}


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


def told(
    board: Board, done: Sequence[Ripped], by_key: Mapping[str, Need], choice: WoodChoice, show: Show
) -> Iterator[str]:
    """The cuts of one board in words, in the order of hands."""
    cuts = order_of_cuts(board, done, choice.saw)
    many = len(done)
    yield f"{cap(board.name)}: its marked end at the left hand, its near edge towards you."
    for cut, same in groupby(cuts, key=lambda one: one):
        number = len(list(same))
        yield _cut_in_words(cut, number, many, by_key, show)


def _cut_in_words(cut: SawCut, number: int, sections: int, by_key: Mapping[str, Need], show: Show) -> str:
    figure = show.length(cut.figure).text
    of = f"section {cut.section}" if sections > 1 else "the board"
    length = f"section {cut.section}" if sections > 1 else "the length to rip"
    strip = f"strip {cut.lane}" + (f" of section {cut.section}" if sections > 1 else "")
    if cut.what == "waste":
        return f"Mark {figure} from the left end as it is now; saw that off, the kerf on its side."
    if cut.what == "section":
        return f"Mark {figure} from the left end; saw there, the kerf beyond the mark. That is {length}."
    if cut.what == "rip_waste":
        return f"Rip {figure} off the near edge of {of}, the kerf within it."
    if cut.what == "rip":
        return f"Fence at {figure}, the near edge of {of} against it: rip. That is {strip}."
    if cut.what == "crosscut_waste":
        return f"On {strip}: saw {figure} off its left end, the kerf on the waste's side."
    times = f" {number} times" if number > 1 else ""
    rip = f" Rip it to {show.length(cut.rip_to).text}." if cut.rip_to else ""
    return f"On {strip}: crosscut {figure}{times}, from its left end. For: {by_key[cut.key].name}.{rip}"


def text_of(item: AnyStock, show: Show) -> str:
    """The size of a piece of stock in the maker's units."""
    one, two, three = sized(item, show)
    if isinstance(item, Board | Slab):
        return times((one, two, three))
    if isinstance(item, Log):
        return f"{two.text} across, {one.text} long"
    return f"{two.text} to {three.text}, {one.text} long"


def sized(item: AnyStock, show: Show) -> tuple[Quantity, ...]:
    """The measures of a piece of stock: length, width or diameter, thickness."""
    if isinstance(item, Board):
        sizes: tuple[float, ...] = (item.length, item.width, item.thickness)
    elif isinstance(item, Slab):
        a, b, c, d = item.ring.bounds
        sizes = (c - a, d - b, item.thickness)
    elif isinstance(item, Log):
        sizes = (item.length, item.small_end, item.small_end)
    else:
        sizes = (item.length, item.thick_end, item.thin_end)
    return tuple(show.length(mm) for mm in sizes)
