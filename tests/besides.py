"""Everything said about a piece beside its plan: its wood, patterns, glue-up, finish, what went wrong, how
its parts are called."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from itertools import pairwise
from typing import Any, get_args

import pypdfium2

from splay.build.classwork import judged as judged_order
from splay.build.document import Build
from splay.build.finish import FINISHES as FINISHES_KNOWN
from splay.build.finish import finishing
from splay.build.glues import GLUES
from splay.build.glueup import glue_up
from splay.build.operations import OPERATIONS
from splay.build.order import order_of
from splay.build.rescue import rescues
from splay.build.rules import RULES
from splay.formats.page import Pdf, Printer
from splay.paper.bench_sheet import Told, bench_sheet
from splay.paper.client import Handed, client_page
from splay.paper.labels import labels_of
from splay.patterns.whole import patterns_of
from splay.piece import Piece, write_piece
from splay.piece.naming import called
from splay.piece.starters import STARTS, starter
from splay.plan import Plan
from splay.quantity import Show
from splay.shop import Shop, workbench, write_shop
from splay.timber.buying import to_buy
from splay.timber.choices import Laid, WoodChoice
from splay.timber.effects import effects
from splay.timber.fixings import fixings
from splay.timber.judged import judged as judged_wood
from splay.timber.keys import keys_for
from splay.timber.layout import lay_out_wood
from splay.timber.needs import needs_of, said
from splay.timber.placing import faults as placed_wrong
from splay.timber.placing import lay
from splay.timber.rounds import riven
from splay.timber.species import WOODS
from splay.timber.stock import Log, Slab, read_stock
from splay.work.proofs import KINDS

FINISHES = get_args(Build.model_fields["finish"].annotation)
USES = get_args(Build.model_fields["used"].annotation)


def besides(piece: Piece, made: Plan, shop: Shop) -> Iterator[Any]:
    """It all, as dataclasses and texts."""
    show = Show(shop.rounding.units())
    needs = needs_of(piece, made, WoodChoice(), show)
    yield needs
    yield [said(need) for need in needs]
    yield to_buy([(need, need.count) for need in needs], WoodChoice(), show)
    yield fixings(piece, made, show)
    yield patterns_of(piece, shop, made)
    yield labels_of(piece, made, needs)
    for thick, holes in ((8.0, ()), (45.0, ()), (45.0, ((300.0, 20.0, 40.0),))):
        yield keys_for(((0.0, 0.0), (240.0, 10.0), (600.0, 30.0)), thick, show, 60.0, holes)
    for across in (200.0, 380.0, 640.0):
        log = {"kind": "log", "name": "log", "species": "ash, white", "length": 900, "small_end": across}
        lying = read_stock(log)
        assert isinstance(lying, Log)
        yield riven(lying, 40.0, 500.0, show)
    yield finishing(piece, made, Build(prefinish=True), show)
    yield glue_up(piece, made, Build(), show)
    yield glue_up(piece, made, Build(glue="hide", air_c=8.0, air_rh=20.0), show)
    order = order_of(piece, made, Build())
    for step in order.steps:
        yield [rescues(step, unit, piece, made, show) for unit in step.units[:1]]
    keys = [step.key for step in order.steps]
    for one, other in pairwise(range(len(keys))):
        turned = [*keys[:one], keys[other], keys[one], *keys[other + 1 :]]
        yield judged_order(order, turned)
    yield list(names(piece))


def names(piece: Piece) -> Iterator[str]:
    """What each thing of it is called where a change is said."""
    document = write_piece(piece)
    yield from (called(document, path) for path in _paths(document))


def papers(piece: Piece, made: Plan, shop: Shop) -> Iterator[str]:
    """The words on what is printed of a piece: its bench sheet, short and long, and its client's page."""
    told = Told("A maker", "2 May", address="http://here/p")
    handed = Handed("A maker", "The shop", "2 May", ("ash, white",), "oil", ("Wipe it with a damp cloth.",))
    for whole in (False, True):
        yield _words(bench_sheet(piece, shop, made, Printer(), told, whole))
    yield _words(client_page(piece, shop, made, Printer(), handed))


def _words(pdf: Pdf) -> str:
    pages = pypdfium2.PdfDocument(pdf.file)
    return " ".join(" ".join(page.get_textpage().get_text_range().split()) for page in pages)


def tables() -> Iterator[tuple[str, Any]]:
    """What the core knows by heart, table by table."""
    for name, table in (
        ("woods", WOODS),
        ("glues", GLUES),
        ("finishes", FINISHES_KNOWN),
        ("operations", OPERATIONS),
        ("proofs", KINDS),
        ("rules of the order", dict(enumerate(RULES))),
        ("starts", {name: write_piece(starter(name)) for name in STARTS}),
        ("sets of tools", write_shop(workbench())),
    ):
        yield name, {str(key): _plain(one) for key, one in table.items()}


def _plain(of: Any) -> Any:
    """Data without what has no order of its own; what is worked out by a function by its name."""
    if is_dataclass(of):
        return {one.name: _plain(getattr(of, one.name)) for one in fields(of)}
    if isinstance(of, set | frozenset):
        return sorted(map(str, of))
    if isinstance(of, dict):
        return {str(key): _plain(one) for key, one in of.items()}
    if isinstance(of, list | tuple):
        return [_plain(one) for one in of]
    return (
        of if of is None or isinstance(of, str | int | float | bool) else getattr(of, "__name__", str(of))
    )


def laid_out(piece: Piece, made: Plan, shop: Shop) -> Iterator[Any]:
    """Its wood laid out on several piles, at once and as soon as anything is found, and judged."""
    show = Show(shop.rounding.units())
    choice = WoodChoice()
    needs = needs_of(piece, made, choice, show)
    for pile, outdoors in PILES:
        stock = [read_stock(one).model_copy(update={"id": f"w{k}"}) for k, one in enumerate(pile)]
        laid = lay_out_wood(needs, stock, choice, show, 0.0, piece.make)
        done = effects(piece, made, choice, {}, None, show)
        yield laid
        yield done
        slabs = [one for one in stock if isinstance(one, Slab)]
        for slab in slabs:
            for need in needs:
                for x, y in ((-40.0, 40.0), (500.0, 100.0), (700.0, 200.0)):
                    part = lay(need, Laid(key=need.key, stock=slab.id, x=x, y=y))
                    yield placed_wrong(slab, [part], 3.0, show)
        yield judged_wood(laid, needs, {one.id: one for one in stock}, done, outdoors, show)


_SAP = {"kind": "sapwood", "start": 0, "end": 3000, "low": 0, "high": 60}
_SPLIT = {"kind": "split", "start": 900, "end": 960}
_KNOT = {"kind": "knot", "points": [{"x": 700, "y": 250}], "across": 60}
_CRACK = {"kind": "split", "points": [{"x": 0, "y": 240}, {"x": 400, "y": 250}], "across": 4}


def _board(**more: Any) -> dict[str, Any]:
    sizes = {"kind": "board", "length": 3000, "width": 240, "thickness": 65}
    return {"name": "the grey board", "species": "ash, white", **sizes, **more}


def _slab(wide: float, **more: Any) -> dict[str, Any]:
    corners = [{"x": x, "y": y} for x, y in ((0, 0), (2200, 0), (2200, wide), (0, wide))]
    about = {"kind": "slab", "name": "the window slab", "species": "elm, American"}
    return {**about, "thickness": 62, "outline": corners, **more}


def _log(**more: Any) -> dict[str, Any]:
    about = {"kind": "log", "name": "the short log", "species": "ash, white", "length": 1300}
    return {**about, "small_end": 380, "checks": 10, **more}


PILES: tuple[tuple[list[dict[str, Any]], bool], ...] = (
    ([_board(moisture=22.0, flaws=[_SPLIT]) for _ in range(4)], False),
    ([_board(moisture=3.0) for _ in range(2)] + [_board(species="oak, white", flaws=[_SAP])], True),
    ([_slab(500, source="reclaimed", spots=[_KNOT, _CRACK]), _board(width=90), _board(width=44)], False),
    ([_slab(290, moisture=8.0), _slab(700, moisture=30.0), _board()], True),
    ([_log(), _log(length=600), _board(moisture=9.0)], False),
    ([], False),
)
"""Wood that is wet, dry, sappy, cracked, narrow, still a log, or none; whether it is for outdoors."""


def finished_otherwise(piece: Piece, made: Plan, shop: Shop) -> Iterator[Any]:
    """Every finish there is, and every use."""
    show = Show(shop.rounding.units())
    for finish in FINISHES:
        yield finishing(piece, made, Build(finish=finish, reused=True), show)
    for used in USES:
        yield finishing(piece, made, Build(used=used), show)


def _paths(of: Any, at: str = "") -> Iterator[str]:
    inside = of.items() if isinstance(of, dict) else enumerate(of) if isinstance(of, list) else ()
    for name, one in inside:
        path = f"{at}.{name}" if at else str(name)
        yield path
        yield from _paths(one, path)
