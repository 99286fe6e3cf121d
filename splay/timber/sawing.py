"""Boards as they can be sawn: cut to sections across, ripped to lanes along, the lanes cut to length.

Every figure in mm; x runs along a board from its marked end, y across it from its near edge. What lies in
one lane between flaws is a run. That is the order in which a maker saws, so every plan made of it can be.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from splay.timber.stock import SOUND, Board

THIN = 1e-6


@dataclass(frozen=True)
class Saw:
    """What sawing takes: the width of the kerf, what comes off each end of a board, and from what length
    and width on a leftover is kept; mm."""

    kerf: float = 3.0
    trim: float = 15.0
    keep: float = 300.0
    keep_wide: float = 40.0


@dataclass(frozen=True)
class Want:
    """So many blanks of one size, mm; `planed` is the thickness that is enough where a board's faces are
    planed already. `turn`: width and thickness may change places."""

    key: str
    length: float
    width: float
    thickness: float
    count: int
    planed: float = 0.0
    turn: bool = False
    species: str = ""
    stock: str = ""

    def lies(self, board: Board) -> tuple[float, float] | None:
        """How wide and thick it lies in a board, the better way of two; None where it cannot."""
        if (self.species and board.species != self.species) or (self.stock and board.id != self.stock):
            return None
        lost = self.thickness - self.planed if self.planed and board.planed else 0.0
        ways = [(self.width, self.thickness)]
        if self.turn and abs(self.width - self.thickness) > THIN:
            ways.append((self.thickness, self.width))
        fits = [
            (wide, thick)
            for wide, thick in ways
            if thick - lost <= board.thickness + THIN and wide <= board.width + THIN
        ]
        # The one that leaves least to be planed away.
        return min(fits, key=lambda way: board.thickness - way[1]) if fits else None


@dataclass(frozen=True)
class Bad:
    """What is left out of a board: a box, mm."""

    start: float
    end: float
    low: float
    high: float


@dataclass(frozen=True)
class Section:
    """A length of a board between flaws that go right across it."""

    board: Board
    begins: float
    ends: float
    bad: tuple[Bad, ...]

    @property
    def length(self) -> float:
        """Along the board, mm."""
        return self.ends - self.begins

    def runs(self, low: float, high: float) -> list[tuple[float, float]]:
        """What is sound of a lane, from its begin to its end along the board."""
        found, at = [], self.begins
        for bad in self.bad:
            if bad.high <= low + THIN or bad.low >= high - THIN:
                continue
            if bad.start > at:
                found.append((at, bad.start))
            at = max(at, bad.end)
        if self.ends > at:
            found.append((at, self.ends))
        return found


def bad_of(board: Board) -> list[Bad]:
    """What cannot be used of a board, in the order along it."""
    boxes = (
        Bad(f.start, f.end, f.low, board.width if f.high is None else f.high)
        for f in board.flaws
        if f.kind not in SOUND
    )
    return sorted(boxes, key=lambda bad: (bad.start, bad.end))


def sections(board: Board, narrowest: float, saw: Saw) -> list[Section]:
    """The board without its ends, cut where a flaw leaves no lane of the narrowest part beside it."""
    bad = bad_of(board)
    across = [b for b in bad if b.low < narrowest and board.width - b.high < narrowest]
    made, at = [], saw.trim
    last = board.length - saw.trim
    for block in [*across, Bad(last, board.length, 0.0, board.width)]:
        ends = min(block.start, last)
        if ends - at > THIN:
            inside = tuple(b for b in bad if b.end > at and b.start < ends and b not in across)
            made.append(Section(board, at, ends, inside))
        at = max(at, block.end, ends + saw.kerf)
    return made


@dataclass(frozen=True)
class Cut:
    """One blank in a board: where it lies, mm, and how wide it is sawn (its lane's width)."""

    stock: str
    key: str
    x: float
    y: float
    length: float
    width: float


@dataclass(frozen=True)
class Lane:
    """A strip that is ripped from a section, and the blanks crosscut from it."""

    low: float
    high: float
    cuts: tuple[Cut, ...]


@dataclass(frozen=True)
class Ripped:
    """A section with its lanes, from the near edge on."""

    section: Section
    lanes: tuple[Lane, ...]


@dataclass(frozen=True)
class Left:
    """A leftover that is worth keeping: part of a board, mm."""

    stock: str
    x: float
    y: float
    length: float
    width: float


def leftovers(ripped: Ripped, saw: Saw) -> list[Left]:
    """What is left of a section and large enough to go back to the store."""
    section = ripped.section
    found: list[Left] = []
    at = 0.0
    for lane in ripped.lanes:
        _strip(found, section, at, lane.low - saw.kerf, saw)
        for begins, ends in section.runs(lane.low, lane.high):
            inside = [cut for cut in lane.cuts if begins - THIN <= cut.x < ends]
            last = max((cut.x + cut.length + saw.kerf for cut in inside), default=begins)
            if ends - last >= saw.keep and lane.high - lane.low >= saw.keep_wide:
                found.append(Left(section.board.id, last, lane.low, ends - last, lane.high - lane.low))
        at = lane.high + saw.kerf
    _strip(found, section, at, section.board.width, saw)
    return found


def _strip(found: list[Left], section: Section, low: float, high: float, saw: Saw) -> None:
    if high - low >= saw.keep_wide and section.length >= saw.keep:
        found.append(Left(section.board.id, section.begins, low, section.length, high - low))


What = Literal["waste", "section", "rip_waste", "rip", "crosscut_waste", "crosscut"]


@dataclass(frozen=True)
class SawCut:
    """One cut. `figure` is measured from the end or edge that is there by then: of waste, to the line where
    the good wood begins (the kerf on the waste's side); of what is wanted, its length or width (the kerf
    beyond it). `section` and `lane` count from 1; `key` is the blank that comes off, `rip_to` the width it
    is ripped to where its strip is wider, 0 where it is not."""

    what: What
    figure: float
    section: int
    lane: int = 0
    key: str = ""
    rip_to: float = 0.0


def order_of_cuts(board: Board, done: Sequence[Ripped], saw: Saw) -> list[SawCut]:
    """The cuts of one board in their order: sections across, lanes along, blanks across."""
    made: list[SawCut] = []
    at = 0.0
    for number, ripped in enumerate(done, 1):
        section = ripped.section
        if section.begins - at > THIN:
            made.append(SawCut("waste", section.begins - at, number))
        if board.length - section.ends > THIN:
            made.append(SawCut("section", section.length, number))
        at = section.ends + saw.kerf
        edge = 0.0
        for lane_number, lane in enumerate(ripped.lanes, 1):
            if lane.low - edge > THIN:
                made.append(SawCut("rip_waste", lane.low - edge, number, lane_number))
            if board.width - lane.high > THIN:
                made.append(SawCut("rip", lane.high - lane.low, number, lane_number))
            edge = lane.high + saw.kerf
            end = section.begins
            for cut in lane.cuts:
                if cut.x - end > THIN:
                    made.append(SawCut("crosscut_waste", cut.x - end, number, lane_number))
                wider = lane.high - lane.low - cut.width > THIN
                rip_to = cut.width if wider else 0.0
                made.append(SawCut("crosscut", cut.length, number, lane_number, cut.key, rip_to))
                end = cut.x + cut.length + saw.kerf
    return made


def volume(cuts: Iterable[Cut], thickness: float) -> float:
    """Cubic millimetres of blanks in a board of a thickness."""
    return sum(cut.length * cut.width for cut in cuts) * thickness
