"""A sawyer who knows a board and the cuts that are told, and nothing of the plan they come from."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from splay.timber.sawing import SawCut
from splay.timber.stock import Board


@dataclass(frozen=True)
class Sawn:
    """A blank that came off: where it was in the board, mm."""

    key: str
    x0: float
    x1: float
    y0: float
    y1: float


def saw(board: Board, cuts: Sequence[SawCut], kerf: float) -> list[Sawn]:
    """Carry out the cuts one after the other; the blanks, and a complaint where a cut finds no wood."""
    blanks: list[Sawn] = []
    end = 0.0
    x0, x1 = 0.0, board.length
    at, edge = 0.0, 0.0
    lane = (0.0, board.width)
    number, lane_number = 0, 0
    for cut in cuts:
        if cut.section != number and cut.what != "waste":
            # The rest of the board is this section where nothing was sawn across.
            number, x0, x1, edge, lane_number = cut.section, end, board.length, 0.0, 0
        if cut.what == "waste":
            end += cut.figure
        elif cut.what == "section":
            number, x0, x1, edge, lane_number = cut.section, end, end + cut.figure, 0.0, 0
            end = x1 + kerf
        elif cut.what == "rip_waste":
            edge += cut.figure
        elif cut.what == "rip":
            lane, at, lane_number = (edge, edge + cut.figure), x0, cut.lane
            edge += cut.figure + kerf
        else:
            if cut.lane != lane_number:
                # A last strip that is as wide as what is left is not ripped.
                lane, at, lane_number = (edge, board.width), x0, cut.lane
            at += cut.figure
            if cut.what == "crosscut":
                assert at <= x1 + 1e-6, f"{cut} runs out of the section"
                wide = cut.rip_to or lane[1] - lane[0]
                blanks.append(Sawn(cut.key, at - cut.figure, at, lane[0], lane[0] + wide))
                at += kerf
        assert lane[1] <= board.width + 1e-6, f"{cut} runs off the board"
    return blanks
