"""What is left of a piece of stock once it is sawn as laid out, as stock of its own."""

from __future__ import annotations

import shapely

from splay.timber.choices import WoodChoice
from splay.timber.laid import WoodLayout
from splay.timber.sawing import THIN
from splay.timber.stock import MOST_CORNERS, AnyStock, Board, Flaw, Log, Point, Slab, SlabFlaw

LEAST_MM = 50.0


def leftovers_of(item: AnyStock, layout: WoodLayout, choice: WoodChoice) -> list[AnyStock]:
    """The offcuts of one piece of stock, each with its true size and the flaws that are in it."""
    kept: dict[str, object] = {"source": "offcut", "id": "", "seen": (), "moisture": item.now, "cost": 0.0}
    if isinstance(item, Board):
        rests = [rest for cut in layout.boards if cut.stock == item.id for rest in cut.left]
        return [
            item.model_copy(
                update={
                    **kept,
                    "name": _name(item.name, k),
                    "length": rest.length,
                    "width": rest.width,
                    "flaws": tuple(_flaws(item, rest.x, rest.y, rest.length, rest.width)),
                }
            )
            for k, rest in enumerate(rests, 1)
            if rest.length >= LEAST_MM
        ]
    if isinstance(item, Slab):
        rings = [ring for cut in layout.slabs if cut.stock == item.id for ring in cut.left]
        made: list[AnyStock] = []
        for k, ring in enumerate(rings, 1):
            shape = shapely.Polygon(ring)
            spots = tuple(spot for spot in item.spots if spot.shape().intersects(shape))
            points = tuple(Point(x=x, y=y) for x, y in ring[:MOST_CORNERS])
            fresh = {
                **kept,
                "name": _name(item.name, k),
                "outline": points,
                "spots": tuple(s for s in spots if _on(s, shape)),
                "thick": tuple(t for t in item.thick if shape.covers(shapely.Point(t.at.x, t.at.y))),
                "photo": None,
            }
            made.append(item.model_copy(update=fresh))
        return made
    if isinstance(item, Log):
        return _of_log(item, layout, choice, kept)
    return []


def _of_log(log: Log, layout: WoodLayout, choice: WoodChoice, kept: dict[str, object]) -> list[AnyStock]:
    """What is left of a log's length; one that is split up leaves nothing that is counted."""
    taken = 0.0
    for cut in layout.logs:
        if cut.stock != log.id:
            continue
        if not cut.slices:
            return []
        thick = (log.length - 2 * log.checks + choice.kerf) / cut.slices
        taken += cut.takes * thick
    rest = log.length - log.checks - taken
    if rest - log.checks < choice.keep:
        return []
    return [log.model_copy(update={**kept, "name": _name(log.name, 1), "length": round(rest, 1)})]


def _name(name: str, number: int) -> str:
    return f"{name[:68]}, rest {number}"


def _on(spot: SlabFlaw, shape: shapely.Polygon) -> bool:
    return bool(shape.buffer(1.0).intersects(shapely.MultiPoint([(p.x, p.y) for p in spot.points])))


def _flaws(board: Board, x: float, y: float, length: float, width: float) -> list[Flaw]:
    """The flaws of a part of a board, counted from that part's own end and edge."""
    found = []
    for flaw in board.flaws:
        high = board.width if flaw.high is None else flaw.high
        begin, end = max(0.0, flaw.start - x), min(length, flaw.end - x)
        low, up = max(0.0, flaw.low - y), min(width, high - y)
        if end - begin > THIN and up - low > THIN:
            found.append(Flaw(kind=flaw.kind, start=begin, end=end, low=low, high=up))
    return found
