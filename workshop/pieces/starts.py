"""The pieces there are to start from, drawn."""

from functools import lru_cache

from ninja import Schema

from splay.draw import draw
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.shop import workbench
from splay.views.shapes import View


class Start(Schema):
    """A piece to start from, drawn."""

    start: str
    title: str
    drawing: View


@lru_cache(maxsize=1)
def ready_starts() -> list[Start]:
    """Drawn once: the same for every shop, for no figure is written on them."""
    shop = workbench()
    made = []
    for name, title in STARTS.items():
        piece = starter(name)
        view = draw(piece, shop, plan(piece, shop), "rack").piece[0]
        made.append(Start(start=name, title=title, drawing=view))
    return made
