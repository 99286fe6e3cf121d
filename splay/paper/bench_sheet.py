"""The bench sheet: the piece drawn, every setting, lengths, sightlines, proofs to write in, cautions."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from splay.draw import draw
from splay.formats.ink import Placed, ink
from splay.formats.page import Book, Pdf, Printer
from splay.formats.type import wide
from splay.paper.code import code
from splay.paper.flow import Ask, Block, Column, Heading, Text, fill, fitted
from splay.piece import Piece
from splay.plan import Plan
from splay.setups.card import SetUp
from splay.shop import Shop
from splay.views.shapes import View
from splay.work.phrases import cap, listed

HEAD_MM, DRAWN_MM = 17.0, 62.0
CODE_MM = 21.0
GAP_MM = 6.0
SIZES = (2.9, 2.7, 2.5, 2.35, 2.2, 2.1)
"""Letters' sizes that are tried, mm; the last is 6 points, the least that is read at a bench."""
LONG_SIZE = 2.9
USES = {
    "stool": "stool",
    "bench": "bench",
    "shoe_seat": "seat for putting shoes on",
    "child": "child's seat",
    "high_stool": "high stool",
    "table": "table",
    "other": "piece",
}


@dataclass(frozen=True)
class Told:
    """What the sheet says besides the plan: whose piece, the day, which copy of how many, the address of
    its bench mode ("" for none), and the ids of tools used last."""

    maker: str = ""
    day: str = ""
    copy: int = 1
    address: str = ""
    tools: frozenset[str] = frozenset()


def picked(setups: Sequence[SetUp], tools: frozenset[str]) -> tuple[SetUp, ...]:
    """One card a work, in the order of hands: the tool used last where it reaches, else the first that
    does."""
    works: dict[str, list[SetUp]] = {}
    for card in setups:
        works.setdefault(card.work, []).append(card)
    return tuple(
        next(
            (card for card in cards if card.by in tools and card.in_reach),
            next((card for card in cards if card.in_reach), cards[0]),
        )
        for cards in works.values()
    )


def bench_sheet(
    piece: Piece, shop: Shop, plan: Plan, printer: Printer, told: Told, whole: bool = False
) -> Pdf:
    """The sheet as a PDF: one page with letters as large as go in; `whole` with every step, over as many
    pages as it takes. What one page has no room for is counted on it."""
    book = Book(printer, f"{piece.name}, bench sheet")
    wide_mm, high = book.page()
    _head(book, piece, plan, told, wide_mm, high)
    _drawn(book, draw(piece, shop, plan, "stance").piece, wide_mm, high - HEAD_MM)
    cards = picked(plan.setups, told.tools)
    blocks = [
        *_settings(cards, whole),
        *_lengths(plan),
        *_sightlines(plan),
        *_cautions(cards, plan),
        *_proofs(plan),
    ]
    half = (wide_mm - GAP_MM) / 2.0
    top = high - HEAD_MM - DRAWN_MM
    columns = [Column(0.0, top, half, top - 4.0), Column(half + GAP_MM, top, half, top - 4.0)]
    size = LONG_SIZE if whole else fitted(blocks, columns, SIZES)
    left = fill(book, blocks, columns, size)
    if left and not whole:
        more = sum(not isinstance(block, Heading) for block in left)
        book.words((0.0, 0.6), f"{more} more lines had no room here: print the long sheet.", 2.3, bold=True)
    while left and whole:
        wide_mm, high = book.page()
        book.words((0.0, high - 3.4), f"{piece.name}, sheet {book.pages}", 3.0, bold=True)
        columns = [Column(x, high - 6.0, half, high - 8.0) for x in (0.0, half + GAP_MM)]
        left = fill(book, left, columns, size)
    return book.done()


def _head(book: Book, piece: Piece, plan: Plan, told: Told, wide_mm: float, high: float) -> None:
    room = wide_mm - (CODE_MM + 2.0 if told.address else 0.0)
    size = 6.0
    while wide(piece.name, size, True) > room and size > 3.0:
        size -= 0.25
    book.words((0.0, high - size), piece.name, size, bold=True)
    said = [USES[piece.use]]
    if "height" in plan.chosen:
        said.append(f"{plan.chosen['height'].text} high")
    if piece.make > 1:
        said.append(f"number {told.copy} of {piece.make}")
    said += [one for one in (told.maker, told.day) if one]
    book.words((0.0, high - size - 4.2), " · ".join(said), 2.9)
    sizes = " · ".join(f"{one.figure.label.lower()} {one.figure.quantity.text}" for one in plan.sizes[:2])
    book.words((0.0, high - size - 7.8), sizes, 2.6)
    if told.address:
        code(book, told.address, (wide_mm - CODE_MM, high - CODE_MM + 1.0), CODE_MM)


def _drawn(book: Book, views: Sequence[View], wide_mm: float, top: float) -> None:
    """The piece from the front, the side and above, side by side at one scale."""
    boxes = [(view.box[2] - view.box[0], view.box[3] - view.box[1]) for view in views]
    across = sum(w for w, _ in boxes)
    tallest = max(h for _, h in boxes)
    room = wide_mm - 4.0 * (len(views) - 1)
    scale = min(room / across, (DRAWN_MM - 6.0) / tallest)
    x = 0.0
    for view, (w, _) in zip(views, boxes, strict=True):
        where = Placed(x, top - DRAWN_MM + 5.0, view.box[0], view.box[1], scale)
        ink(book.canvas, view.shapes, where, 2.3)
        book.words((x + w * scale / 2.0, top - DRAWN_MM + 1.6), view.title, 2.3, anchor="middle")
        x += w * scale + 4.0


def setting_of(card: SetUp) -> str:
    """What is set, on the tool's own scale where it has one."""
    if card.dials:
        return "; ".join(f"{dial.name}: {dial.mark.text}" for dial in card.dials)
    said = card.setting.text if card.setting is not None else ""
    return f"{card.tool}: {card.setting_name} {said}".strip()


def _settings(cards: Sequence[SetUp], whole: bool) -> Iterator[Block]:
    yield Heading("Settings")
    for card in cards:
        yield Text(card.title, bold=True)
        exact = [dial for dial in card.dials if dial.mark.text != dial.reading.text]
        more = f" ({', '.join(dial.reading.text for dial in exact)} exactly)" if exact else ""
        yield Text(setting_of(card) + more, indent=1.0)
        if not card.in_reach and card.reach_note:
            yield Text(card.reach_note, indent=1.0)
        if card.which_way:
            yield Text(" ".join(card.which_way), indent=1.0)
        if whole:
            for step in card.steps:
                yield Text(step, indent=1.0)
        elif not card.which_way and card.steps:
            yield Text(card.steps[0], indent=1.0)


def _lengths(plan: Plan) -> Iterator[Block]:
    yield Heading("Lengths")
    alike: dict[tuple[str, ...], list[int]] = {}
    for part in plan.parts:
        figures = (part.exposed, part.in_top, part.finished, part.blank, part.stock)
        alike.setdefault(tuple(figure.quantity.text for figure in figures), []).append(part.number)
    for (exposed, inside, finished, blank, stock), numbers in alike.items():
        name = cap(listed(f"leg {number}" for number in numbers))
        yield Text(
            f"{name}: blank {blank}, square stock {stock}; finished {finished} ({exposed} below the top, "
            f"{inside} in it)"
        )
    seen: set[str] = set()
    for stick in plan.sticks:
        if stick.alike not in seen:
            seen.add(stick.alike)
            size = " × ".join(one.quantity.text for one in stick.stock)
            count = sum(one.alike == stick.alike for one in plan.sticks)
            many = f"{count} of it: " if count > 1 else ""
            yield Text(
                f"{cap(stick.name)}: {many}blank {stick.blank.quantity.text}, {size}; over all "
                f"{stick.overall.quantity.text}"
            )
    for member in plan.members:
        built = "as measured" if member.as_built else "as planned"
        yield Text(
            f"{cap(member.name)}: {member.total.quantity.text} over all, {built}; clear gap "
            f"{member.gap.quantity.text}"
        )


def _sightlines(plan: Plan) -> Iterator[Block]:
    if not plan.legs:
        return
    yield Heading("Sightlines")
    for leg in plan.legs:
        lean = leg.boring
        if lean.from_side is None or lean.from_centre is None:
            yield Text(f"Leg {leg.number}: square to the seat")
            continue
        yield Text(
            f"Leg {leg.number}: {lean.resultant.quantity.text} towards {lean.toward}, sightline "
            f"{lean.from_side.quantity.text} from the left-right line"
        )


def _cautions(cards: Sequence[SetUp], plan: Plan) -> Iterator[Block]:
    said = [finding.text for finding in plan.findings if finding.level != "note"]
    said += [caution for card in cards for caution in card.cautions]
    unique = list(dict.fromkeys(said))
    if unique:
        yield Heading("Cautions")
        yield from (Text(one) for one in unique)


def _proofs(plan: Plan) -> Iterator[Block]:
    """What is still to be read, with room to write it; then what was read, in less."""
    to_read = [proof for proof in plan.proofs if proof.answer is None]
    if to_read:
        yield Heading("Proofs: write what you read")
    for proof in to_read:
        yield Ask(proof.what, f"{proof.expected.text} ± {proof.near.text}")
    if len(to_read) < len(plan.proofs):
        yield Heading("Read already")
    for proof in plan.proofs:
        if proof.answer is not None:
            expected = f"{proof.expected.text} ± {proof.near.text}"
            yield Text(f"{proof.what}: read {proof.answer.text}, expected {expected}")
