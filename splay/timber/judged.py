"""What is wrong with the wood that was laid out for a piece, with its figure and what to do."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from shapely import affinity

from splay.judge import Finding
from splay.quantity import Quantity, Show
from splay.timber.effects import Effects
from splay.timber.laid import WoodLayout
from splay.timber.moisture import WETTER, drying, led_to, so_long
from splay.timber.needs import Need
from splay.timber.stock import AnyStock, Board, Slab
from splay.work.phrases import listed

DRYER = 3.0


def judged(
    laid: WoodLayout,
    needs: Sequence[Need],
    stock: Mapping[str, AnyStock],
    effects: Effects,
    outdoors: bool,
    show: Show,
) -> tuple[Finding, ...]:
    """Everything found, what would spoil the piece first. `stock` is all that it may be taken from."""
    used = [stock[id] for id in used_ids(laid) if id in stock]
    found = [
        *_wet(laid, used, effects),
        *_outdoors(laid, used, outdoors, show),
        *_mixed(laid, stock, show),
        *_narrow(laid, needs, stock, show),
    ]
    weight = {"stop": 0, "caution": 1, "note": 2}
    return tuple(sorted(found, key=lambda one: weight[one.level]))


def used_ids(laid: WoodLayout) -> list[str]:
    """The stock that something is taken from, each once."""
    those = [one.stock for one in laid.boards]
    those += [one.stock for one in laid.slabs] + [one.stock for one in laid.logs]
    those += [one.stock for one in laid.sticks]
    return list(dict.fromkeys(those))


def _finding(
    code: str, level: str, text: str, mend: str, number: Quantity, limit: Quantity | None = None
) -> Finding:
    return Finding(code, level, "wood", text, mend, (), number, limit, None, "")  # type: ignore[arg-type]


def percent(value: float) -> Quantity:
    """A moisture as it is said."""
    return Quantity(value, "ratio", f"{value:.1f} %")


SLICED, SPLIT = 60.0, 45.0
"""How thick slices and sticks of a log are taken to be for their drying, mm."""


def _wet(laid: WoodLayout, used: Sequence[AnyStock], effects: Effects) -> Iterator[Finding]:
    ends = effects.home.leads_to
    unknown = [item.name for item in used if item.now is None]
    for item in used:
        if item.now is None or item.now <= ends + WETTER:
            continue
        # A log dries as what it is split or sawn into.
        sliced = any(cut.stock == item.id and cut.slices for cut in laid.logs)
        thick = item.thickness if isinstance(item, Board | Slab) else SLICED if sliced else SPLIT
        sort = "slab" if isinstance(item, Slab) else "slice" if sliced else "board"
        wait = drying(sort, thick, item.now, ends + WETTER, effects.shop.leads_to, item.readings)
        when = "it never gets there in the shop's air" if wait.never else so_long(wait.least, wait.most)
        yield _finding(
            "too_wet",
            "caution",
            f"{item.name} has {item.now:.1f} %; where the piece will live wood comes to {ends:.1f} %: it "
            "bores "
            "badly, and moves after it is made.",
            f"Let it dry to {ends + WETTER:.0f} % in the shop: {when}.",
            percent(item.now),
            percent(ends + WETTER),
        )
    for item in used:
        if item.now is not None and item.now < ends - DRYER:
            yield _finding(
                "too_dry",
                "note",
                f"{item.name} has {item.now:.1f} %: it will take up water until {ends:.1f} % and grow.",
                "Leave room across the grain, or let it lie in the shop's air first.",
                percent(item.now),
                percent(ends - DRYER),
            )
    if unknown:
        text = f"Nobody has read the moisture of {listed(list(dict.fromkeys(unknown))[:4])}."
        mend = "Read it with a meter, in the middle and away from its ends, and enter it in the store."
        number = Quantity(len(unknown), "count", str(len(unknown)))
        yield _finding("moisture_unknown", "note", text, mend, number)


WET_MATTERS = frozenset({"glue_boards", "bore", "bore_member", "glue"})
"""The kinds of work that go wrong in wet wood (common practice, no source)."""


def wet_said(used: Sequence[AnyStock], celsius: float, humidity: float) -> str:
    """That some wood is too wet for where it will live, in one sentence for the step at hand; empty where
    none is."""
    ends = led_to(celsius, humidity)
    wet = [item for item in used if item.now is not None and item.now > ends + WETTER]
    if not wet:
        return ""
    names = ", ".join(f"{item.name} {item.now:.0f} %" for item in wet[:3])
    return (
        f"Too wet when it was last read ({names}; {ends:.0f} % where it will live): let it dry first, or "
        "read "
        "it again."
    )


def _outdoors(laid: WoodLayout, used: Sequence[AnyStock], outdoors: bool, show: Show) -> Iterator[Finding]:
    if not outdoors:
        return
    weak = sorted({item.wood.name for item in used if not item.wood.durable})
    if weak:
        yield _finding(
            "not_durable",
            "caution",
            f"{', '.join(weak)}: outdoors even its heartwood lasts a few years only.",
            "Choose a kind that stands weather, or keep it under a roof and off wet stone.",
            show.count(len(weak)),
        )
    boards = {item.id: item for item in used if isinstance(item, Board)}
    sappy = 0
    for cut in laid.boards:
        board = boards.get(cut.stock)
        for flaw in board.flaws if board else ():
            if flaw.kind != "sapwood" or board is None:
                continue
            high = board.width if flaw.high is None else flaw.high
            sappy += sum(
                blank.x < flaw.end
                and flaw.start < blank.x + blank.length
                and blank.y < high
                and flaw.low < blank.y + blank.width
                for blank in cut.blanks
            )
    if sappy:
        yield _finding(
            "sapwood",
            "caution",
            f"{sappy} blank{'s have' if sappy > 1 else ' has'} sapwood in {'them' if sappy > 1 else 'it'}: "
            "outdoors it rots first.",
            "Saw it away, or take those blanks from another board.",
            show.count(sappy),
        )


BESIDE_HOLE = 25.0
"""Least wood between a leg hole and the seat's edge, mm (common practice, no source)."""


def _narrow(
    laid: WoodLayout, needs: Sequence[Need], stock: Mapping[str, AnyStock], show: Show
) -> Iterator[Finding]:
    """A seat for which every slab that is thick and long enough is too narrow: whether one would still take
    its legs where they stand."""
    missing = {one.key for one in laid.missing}
    for need in needs:
        if need.sort != "panel" or need.key not in missing or not need.holes:
            continue
        slabs = [item for item in stock.values() if isinstance(item, Slab)]
        wide = [(across(slab), slab) for slab in slabs if slab.thickness >= need.size[2]]
        if not wide:
            continue
        width, slab = max(wide, key=lambda one: one[0])
        if width >= need.size[1]:
            continue
        least = 2.0 * max(abs(y) + r + BESIDE_HOLE for _, y, r in need.holes)
        fits = width >= least
        text = f"The widest slab, {slab.name}, is {show.length(width).text} across; the {need.name} wants "
        text += f"{need.blank[1].text}, and its legs stand over {show.length(least).text}."
        yield _finding(
            "slab_narrow",
            "note" if fits else "caution",
            text,
            "It would take the legs where they are: make the seat narrower."
            if fits
            else "It is narrower than the feet need: glue a board on, or bring the legs in, and look at "
            "Stance how easily it tips.",
            show.length(width),
            show.length(least),
        )


def across(slab: Slab) -> float:
    """How wide a slab is across its grain, mm."""
    _, low, _, high = affinity.rotate(slab.ring, -slab.grain, origin=(0, 0)).bounds
    return float(high - low)


def _mixed(laid: WoodLayout, stock: Mapping[str, AnyStock], show: Show) -> Iterator[Finding]:
    """Boards of one seat from several trees or sawn otherwise: their grain rises one way and the other."""
    from_ = {cut.stock for cut in laid.boards if any(blank.role == "board" for blank in cut.blanks)}
    if len(from_) < 2:
        return
    boards = [item for id in from_ if isinstance(item := stock.get(id), Board)]
    rings = {board.rings for board in boards if board.rings}
    more = " They are sawn differently and move differently." if len(rings) > 1 else ""
    yield _finding(
        "mixed_grain",
        "note",
        f"The seat is glued from {len(from_)} boards: the grain of some will rise against the plane.{more}",
        "Scrape and sand its faces after the glue, or plane across; do not plane it through.",
        show.count(len(from_)),
    )
