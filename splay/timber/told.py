"""The sawing in words: cuts in the order of hands, sizes, volumes, what can hurt."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from itertools import groupby

from splay.quantity import Quantity, Show, times
from splay.timber.choices import WoodChoice
from splay.timber.needs import Need
from splay.timber.sawing import Ripped, SawCut, order_of_cuts
from splay.timber.stock import AnyStock, Board, Log, Slab
from splay.work.phrases import cap

BOARD_FOOT = 2.359737
"""Litres in a board foot: a foot square, an inch thick."""


def litres_said(litres: float, show: Show) -> Quantity:
    """A volume of wood: litres, or board feet where the maker counts in inches."""
    metric, feet = f"{litres:.1f} litres", f"{litres / BOARD_FOOT:.1f} board feet"
    inch = show.units.system == "inch"
    return Quantity(litres, "ratio", feet if inch else metric)


KG_PER_LB = 0.45359237


def weight_said(kilograms: float, show: Show) -> Quantity:
    """A weight: kilograms, or pounds where the maker counts in inches."""
    metric, pounds = f"{kilograms:.1f} kg", f"{kilograms / KG_PER_LB:.1f} lb"
    inch = show.units.system == "inch"
    return Quantity(kilograms, "ratio", pounds if inch else metric)


def cautions(boards: Sequence[Board], slabs: Sequence[Slab], logs: bool) -> Iterator[str]:
    """What can hurt at this work, and where to look further."""
    if boards:
        yield (
            "Ripping: guard and riving knife on, a push stick for strips, hands 150 mm from the blade. The "
            "saw's manual goes before this."
        )
    if any(flaw.kind in ("split", "rot", "knot") for board in boards for flaw in board.flaws):
        yield (
            "A board with a split or a loose knot can close on the blade or throw a piece: wedge it, or "
            "saw it by hand."
        )
    if logs:
        yield (
            "Splitting: eyes covered, feet clear of the wedge. Chainsaw cuts are left to a trained hand. "
            "Round stock rolls: support its whole length."
        )
    if any(item.source == "reclaimed" for item in (*boards, *slabs)):
        yield (
            "Taken from something old: look for nails and screws with a magnet first. An old finish of "
            "unknown kind is scraped, not sanded, with a mask on and the window open."
        )


def told(
    board: Board, done: Sequence[Ripped], by_key: Mapping[str, Need], choice: WoodChoice, show: Show
) -> Iterator[str]:
    """The cuts of one board in words, in the order of hands."""
    cuts = order_of_cuts(board, done, choice.saw)
    many = len(done)
    yield f"{cap(board.name)}: its marked end at the left hand, its near edge towards you."
    ripped: set[tuple[int, int]] = set()
    for cut, same in groupby(cuts, key=lambda one: one):
        number = len(list(same))
        strip = (cut.section, cut.lane)
        if cut.what == "rip":
            ripped.add(strip)
        elif cut.what in ("crosscut", "crosscut_waste") and strip not in ripped:
            # As wide as what is left: it is not ripped, and has its name all the same.
            ripped.add(strip)
            yield f"What is left of the width is strip {cut.lane}{_of(cut.section, many)}."
        yield _cut_in_words(cut, number, many, by_key, show)


def _of(section: int, sections: int) -> str:
    return f" of section {section}" if sections > 1 else ""


def _cut_in_words(cut: SawCut, number: int, sections: int, by_key: Mapping[str, Need], show: Show) -> str:
    figure = show.length(cut.figure).text
    of = f"section {cut.section}" if sections > 1 else "the board"
    length = f"section {cut.section}" if sections > 1 else "the length to rip"
    strip = f"strip {cut.lane}{_of(cut.section, sections)}"
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
