"""What becomes of a piece: dragged, drawn anew, compared and put together, laid over a maker's hours,
printed, written out for other programs, sawn from wood that is kept."""

from __future__ import annotations

import io
import math
import re
import zipfile
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import asdict
from datetime import UTC, date, datetime, timedelta
from itertools import combinations, pairwise
from typing import Any

import pypdfium2
import trimesh
from pydantic_core import to_jsonable_python

from splay.build.cost import cost_of
from splay.build.document import Build
from splay.build.hours import read_week, week_lines
from splay.build.jobs import job_of
from splay.build.known import Record
from splay.build.order import order_of
from splay.build.progress import Done, progress
from splay.build.schedule import Hours, Stretch, moved, schedule, slipped
from splay.differences import differences, in_words
from splay.draw import draw
from splay.errors import BadInput, CannotBuild
from splay.formats.flat import dxf, svg
from splay.formats.models import gltf, stl
from splay.formats.page import Pdf, Printer
from splay.formats.tables import Table, from_csv, markdown, plain, to_csv
from splay.formats.tiles import pattern_book, sheets
from splay.instruments import listen
from splay.level.stacks import stack_for
from splay.paper.bench_sheet import Told, bench_sheet
from splay.paper.client import Handed, client_page
from splay.paper.labels import label_sheet, labels_of
from splay.paper.lists import Line, buy_blocks, cut_blocks, fixing_blocks, list_book, log_blocks
from splay.patterns.keys import key_patterns
from splay.patterns.whole import patterns_of
from splay.piece import Piece, read_piece, write_piece
from splay.piece.merge import merge
from splay.plan import Plan
from splay.quantity import Show
from splay.quick import quick_lean, quick_mitre
from splay.reading import Reading
from splay.rehearse import Hidden, reveal, take
from splay.setups.compound import mitred_corner
from splay.shop import Shop, usual_spacers
from splay.solids import solids_of
from splay.stance.lean import lean_of
from splay.stance.moves import Move, move
from splay.stance.redraw import (
    with_edge_spot,
    with_finer_corners,
    with_gap,
    with_hand_hold,
    with_outside,
    with_photo,
    with_straight_end,
)
from splay.timber.buying import to_buy
from splay.timber.choices import WoodChoice
from splay.timber.fixings import fixings
from splay.timber.keys import keys_for
from splay.timber.layout import lay_out_wood
from splay.timber.leftover import leftovers_of
from splay.timber.moisture import Weighing, drying, fit, from_weight, led_to, lies_out, movement
from splay.timber.needs import needs_of
from splay.timber.placing import first_places
from splay.timber.rounds import riven, sawn, slice_of
from splay.timber.species import WOODS, density
from splay.timber.stock import AnyStock, Log, Slab, read_stock
from splay.timber.table import from_csv as stock_from_csv
from splay.timber.table import to_csv as stock_to_csv
from tests.besides import PILES

BY = ((8.0, 6.0), (-15.0, -22.5), (60.0, 140.0), (-400.0, 3.0))
"""How far each handle is dragged, mm."""
NUMBER = re.compile(r"-?\d+\.\d+(?:e-?\d+)?")
ASIDE = 0.3719


def tried(made: Callable[[], Piece]) -> tuple[Any, Piece | None]:
    """A changed piece's document, or what is said against it."""
    try:
        piece = made()
    except BadInput as bad:
        return [fault.said() for fault in bad.faults], None
    except CannotBuild as no:
        return [no.rule, no.mend], None
    return write_piece(piece), piece


def dragged(piece: Piece, made: Plan, shop: Shop) -> Iterator[Any]:
    """Every handle dragged every way; each change in words; two changes in one."""
    show, become = Show(shop.rounding.units()), []
    for view in draw(piece, shop, made, "stance").piece:
        for handle in view.handles:
            for x, y in BY:
                to = Move(handle.moves, view.name, (handle.at[0] + x, handle.at[1] + y), handle.leg)  # type: ignore[arg-type]
                said, after = tried(lambda to=to: move(piece, to, 0.5))  # type: ignore[misc]
                yield [view.name, handle.moves, handle.leg, said]
                if after is not None:
                    become.append(after)
                    yield in_words(differences(piece, after, show))
    for mine, theirs in pairwise(become):
        both = merge(piece, mine, theirs)
        yield [write_piece(both.piece), to_jsonable_python(both.clashes)]
        with suppress(BadInput, CannotBuild):
            theirs_too = merge(piece, mine, theirs, frozenset(clash.mine for clash in both.clashes))
            yield write_piece(theirs_too.piece)


def redrawn(piece: Piece) -> Iterator[Any]:
    """Every way of drawing a part anew."""
    ways: list[Callable[[], dict[str, Any]]] = [
        lambda: with_finer_corners(piece),
        lambda: with_photo(piece, "on"),
        lambda: with_gap(piece, "on"),
        lambda: with_hand_hold(piece),
        lambda: with_hand_hold(read_piece(with_hand_hold(piece))),
    ]
    for end in ("left", "right"):
        ways.append(lambda end=end: to_jsonable_python(with_straight_end(piece.top.outline, end)))
    for k in range(len(piece.supports)):
        ways += [lambda k=k: with_edge_spot(piece, k), lambda k=k: with_outside(piece, "on", k)]
    for way in ways:
        try:
            yield way()
        except BadInput as bad:
            yield [fault.said() for fault in bad.faults]


MONDAY = datetime(2026, 3, 2, 9, 20, tzinfo=UTC)
WEEKS = (
    Hours(tuple(Stretch(day, 8.5, 17.25) for day in range(5))),
    Hours((*(Stretch(day, 18.0, 21.0) for day in (0, 2, 3)), Stretch(5, 9.0, 12.5), Stretch(5, 13.5, 16.0)),
          frozenset({date(2026, 3, 7), date(2026, 3, 11)})),
    Hours((Stretch(6, 14.0, 15.0),)),
)  # fmt: skip


def planned_in_time(made: Sequence[tuple[Piece, Plan]]) -> Iterator[Any]:
    """Several pieces over every maker's week; with one of them a day late; what that moves."""
    jobs = []
    for k, (piece, plan) in enumerate(made):
        promised = MONDAY + timedelta(days=6 * k) if k else None
        build = Build(glue="hide") if k % 2 else Build(prefinish=True)
        order = order_of(piece, plan, build)
        jobs.append(job_of(f"j{k}", piece.name, order, [(), ()][: 1 + k % 2], Record(), promised, MONDAY))
    for hours in WEEKS:
        for some in (jobs[:1], jobs[:3], jobs):
            before = schedule(some, hours, MONDAY, UTC)
            after = schedule(slipped(some, some[0].id, 7.0), hours, MONDAY, UTC)
            yield to_jsonable_python([before, after, moved(some, before, after)])


def done_so_far(piece: Piece, made: Plan) -> Iterator[Any]:
    """How far a piece is when so much of it was ticked, and what it cost by then."""
    build = Build(spent=[{"what": "wood", "amount": 31.5}, {"what": "screws", "amount": 4.0}])  # type: ignore[list-item]
    order = order_of(piece, made, build)
    units = [unit for step in order.steps for unit in step.units]
    for share in (0.0, 0.3, 0.7, 1.0):
        ticked = units[: round(share * len(units))]
        done = [
            Done(one.key, one.operation, one.of, MONDAY + timedelta(minutes=25 * k))
            for k, one in enumerate(ticked)
        ]
        minutes = [(one.operation, 4.0 + k % 5) for k, one in enumerate(ticked)]
        own: dict[str, tuple[float, ...]] = {}
        for operation, took in minutes:
            own[operation] = (*own.get(operation, ()), took)
        record = Record(minutes=own)
        for hours in (1.0, 9.0, 60.0):
            now = MONDAY + timedelta(minutes=25 * len(ticked), hours=hours)
            yield to_jsonable_python(progress(order, done, now))
            job = job_of("j", piece.name, order, [done, done[::2]], record, None, now)
            yield to_jsonable_python(
                {**asdict(job), "tasks": [asdict(one) | {"needs": sorted(one.needs)} for one in job.tasks]}
            )
        yield to_jsonable_python(cost_of(order, build, minutes, 42.0, record, len(ticked) % 3, 1, 2))


def printed(piece: Piece, made: Plan, shop: Shop) -> Iterator[Any]:
    """Where everything lies on the pages printed of it, on either paper."""
    told = Told("A maker", "2 May", address="http://here/p")
    handed = Handed("A maker", "The shop", "2 May", ("ash, white",), "oil", ("Wipe it with a damp cloth.",))
    patterns = patterns_of(piece, shop, made)
    show = Show(shop.rounding.units())
    needs = needs_of(piece, made, WoodChoice(), show)
    for printer in (Printer(), Printer("letter", 99.0)):
        yield from lies(bench_sheet(piece, shop, made, printer, told))
        yield from lies(client_page(piece, shop, made, printer, handed))
        yield from lies(label_sheet(labels_of(piece, made, needs), printer, piece.name))
        yield from lies(pattern_book(patterns, printer, piece.name))
        cut = [
            *cut_blocks(needs, WoodChoice(species="oak, white")),
            *fixing_blocks(fixings(piece, made, show)),
        ]
        buy = to_buy([(need, need.count) for need in needs], WoodChoice(), show)
        said = [Line("2 May", "A maker", f"Step {k}", "word " * k) for k in range(40)]
        for blocks in (
            [*cut, *buy_blocks(buy, True), *buy_blocks((), True), *buy_blocks((), False)],
            log_blocks(said),
        ):
            yield from lies(list_book("A list", tuple(blocks), printer))
        yield [[one.landscape, [[x, y] for _, x, y in one.placed]] for one in sheets(patterns, printer)]


def lies(pdf: Pdf) -> Iterator[Any]:
    """What lies where on each page, to a tenth of a millimetre or so: another library reads it back."""
    for page in pypdfium2.PdfDocument(pdf.file):
        yield [
            [one.type, [round(edge / 72.0 * 25.4, 1) for edge in one.get_bounds()]]
            for one in page.get_objects()
        ]


def written_out(piece: Piece, made: Plan, shop: Shop) -> Iterator[Any]:
    """Its drawings and patterns as files for other programs, their figures cut to the hundredth."""
    views = draw(piece, shop, made, "all").piece
    for view in (*views, *(pattern.view for pattern in patterns_of(piece, shop, made))):
        yield cut(dxf(view, piece.name).decode()), cut(svg(view, piece.name).decode())


def in_the_round(piece: Piece, made: Plan) -> Iterator[Any]:
    """Its solids as files for other programs, by what another library reads of them."""
    parts = solids_of(piece, made)
    scene = trimesh.load(io.BytesIO(gltf(parts)), file_type="glb")
    yield sorted([name, _box(mesh.bounds)] for name, mesh in scene.geometry.items())
    with zipfile.ZipFile(io.BytesIO(stl(parts))) as files:
        for name in files.namelist():
            yield [name, _box(trimesh.load(io.BytesIO(files.read(name)), file_type="stl").bounds)]


def _box(bounds: Any) -> list[float]:
    return [round(float(edge), 2) for edge in bounds.ravel()]


def cut(text: str) -> str:
    """A text with its figures cut to the hundredth, where the last bit does not show."""
    return NUMBER.sub(lambda found: str(math.floor(float(found[0]) * 100.0 + ASIDE)), text)


def rehearsed(piece: Piece, made: Plan, shop: Shop) -> Iterator[Any]:
    """What exact gauges read of it as it really is, proof by proof, and what lies hidden."""
    hidden = Hidden(4)
    known: tuple[Reading, ...] = ()
    kinds = Counter[str]()
    for proof in made.proofs:
        kinds[proof.kind] += 1
        if kinds[proof.kind] <= 3:
            known = (*known, take(piece, shop, hidden, known, proof.id))
    yield to_jsonable_python([known, reveal(piece, shop, hidden, known)])


def sawn_of(piece: Piece, made: Plan, shop: Shop) -> Iterator[Any]:
    """What is left of each pile it is cut from; where its parts find a place by trying."""
    show, choice = Show(shop.rounding.units()), WoodChoice()
    needs = needs_of(piece, made, choice, show)
    panels = [(need, 1) for need in needs if need.outline]
    for pile, _ in PILES:
        stock = [read_stock(one).model_copy(update={"id": f"w{k}"}) for k, one in enumerate(pile)]
        laid = lay_out_wood(needs, stock, choice, show, 0.0, piece.make)
        left = [rest for one in stock for rest in leftovers_of(one, laid, choice)]
        yield to_jsonable_python(left)
        yield _there_and_back([*stock, *left])
        slabs = [one for one in stock if isinstance(one, Slab)]
        yield to_jsonable_python(first_places(panels, slabs, 3.0, 600.0))


def _there_and_back(stock: Iterable[AnyStock]) -> Any:
    table = stock_to_csv(stock)
    return [
        table,
        to_jsonable_python(stock_from_csv(table)),
        to_jsonable_python(stock_from_csv(table, "inch")),
    ]


def of_wood() -> Iterator[Any]:
    """What the air and the saw make of every wood: figures from one end of what there is to the other."""
    wets = (4.0, 7.5, 12.0, 19.0, 34.0)
    for wood in WOODS.values():
        yield [movement(300.0, wood, way, a, b) for way in (True, False) for a, b in combinations(wets, 2)]
        yield [density(wood.gravity, wet) for wet in wets]
        yield to_jsonable_python([fit(28.0, wood, a, b, 8.0) for a, b in combinations(wets, 2)])
    yield [led_to(c, rh) for c in (-5.0, 8.0, 21.0, 38.0) for rh in (0.0, 20.0, 45.0, 70.0, 99.0)]
    yield [lies_out(size) for size in (12.0, 25.0, 50.0)]
    yield [from_weight(weight, 1000.0, 14.0) for weight in (900.0, 1000.0, 1100.0)]
    seen = [Weighing(0.0, 40.0), Weighing(9.0, 31.0), Weighing(9.5, 30.5), Weighing(30.0, 22.0)]
    for sort in ("board", "slab", "slice"):
        for wet, wanted, ends in ((40.0, 12.0, 9.0), (22.0, 11.0, 9.0), (9.0, 12.0, 9.0), (20.0, 8.0, 9.0)):
            yield to_jsonable_python([drying(sort, 52.0, wet, wanted, ends, seen[:k]) for k in (0, 2, 4)])


def of_logs(shop: Shop) -> Iterator[Any]:
    """What is split and sawn from logs of every size, and what a slice of one does."""
    show = Show(shop.rounding.units())
    for across, bark, pith in ((160.0, 0, 20), (300.0, 8, 30), (420.0, 12, 60), (700.0, 0, 0)):
        document = {"kind": "log", "name": "log", "species": "ash, white", "length": 1900}
        log = read_stock(
            document | {"small_end": across, "large_end": across + 30, "bark": bark, "pith": pith}
        )
        assert isinstance(log, Log)
        for square in (32.0, 45.0, 70.0):
            yield to_jsonable_python([riven(log, square, 520.0, show), sawn(log, square, 520.0, 3.2)])
        wood = WOODS["ash, white"]
        yield to_jsonable_python([slice_of(log, wood, wet, 9.0, show) for wet in (60.0, 20.0, 8.0)])


def in_hours() -> Iterator[Any]:
    """Hours of a week as they are typed."""
    for lines in (
        ("8 to 12, 13:30-17", "", "9-17", "", "8.30 to 12", "10 to 24", ""),
        ("9 to 17", "9-25"),
        ("9:75-11",),
        ("late",),
        ("12 to 9",),
    ):
        try:
            week = read_week(lines)
        except BadInput as bad:
            yield [fault.line() for fault in bad.faults]
        else:
            yield to_jsonable_python([week, week_lines(week)])


def of_keys(shop: Shop) -> Iterator[Any]:
    """Templates for the keys across splits."""
    show = Show(shop.rounding.units())
    lines = (((0.0, 0.0), (240.0, 10.0), (600.0, 30.0)), ((50.0, 400.0), (420.0, 380.0)))
    for thick in (30.0, 52.0):
        keys = [(f"split {k}", keys_for(line, thick, show, 60.0, ())) for k, line in enumerate(lines)]
        yield to_jsonable_python(list(key_patterns(keys)))


def at_a_glance(shop: Shop) -> Iterator[Any]:
    """What is set for a lean and a mitre by themselves; stacks of spacers; what instruments send."""
    for across, back in ((0.0, 0.0), (0.2, 0.1), (-0.3, 0.15), (0.0, -0.25)):
        yield to_jsonable_python(quick_lean(shop, lean_of((across, back, -1.0))))
    for splay, rail, leg in ((4.0, 60.0, 45.0), (12.5, 45.0, 45.0), (0.0, 30.0, 80.0)):
        yield to_jsonable_python(quick_mitre(shop, splay, rail, leg))
    yield to_jsonable_python(
        [mitred_corner(sides, slope) for sides in (3, 4, 7) for slope in (0.0, 11.0, 38.0)]
    )
    for wanted in (0.3, 1.1, 2.75, 6.2, 14.0, 33.0):
        yield to_jsonable_python([stack_for(usual_spacers(), wanted, near) for near in (0.1, 0.4)])
    lines = (None, "12.5 mm", "#7 12.5 mm", "+1.25 in", "-3.5 deg", "44 %", "12.5", "?!", "9" * 80)
    for instrument in ("angle_gauge", "caliper", "moisture_meter"):
        yield to_jsonable_python([listen(instrument, line, "#7 12.5 mm") for line in lines])


def in_tables() -> Iterator[Any]:
    """A table of everything a cell can hold, written and read again."""
    rows = (
        ("2 May", "a maker", "note", "Plain", "as it is", 1.5),
        ("=SUM(A1)", None, "done", "+4", 'a;b,"c"\n|d|', -2.25),
        ("@x", "", "time", "-x", "*one* _two_", 30),
    )
    table = Table("all sorts", ("at", "by", "sort", "title", "says", "minutes"), rows)
    text = to_csv(table).decode("utf-8-sig")
    yield [
        text,
        from_csv(text, ("at",)),
        markdown("Title", table).decode(),
        [plain(str(row[0])) for row in rows],
    ]
