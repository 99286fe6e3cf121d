"""What is told, shown and drawn of pieces that stay the same, as it was read and looked at last.

    python -m tests.approve

writes it anew and prints which of it changed. What is right is held against something outside by the other
tests; this only tells that something has become another, so that it is read before it is let through.
"""

from __future__ import annotations

import hashlib
import json
import math
import os
import random
import re
import sys
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import cache
from pathlib import Path
from typing import Any, Literal, get_args, get_origin

import numpy as np
from pydantic import TypeAdapter
from pydantic_core import to_jsonable_python

from splay.build.document import Build
from splay.build.order import Order, order_of
from splay.draw import Drawings, draw
from splay.errors import BadInput, CannotBuild
from splay.patterns.whole import patterns_of
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.reading import Reading
from splay.setups.asker import Spread
from splay.setups.scales import scale_of
from splay.shop import Shop, read_shop, reading, workbench
from splay.shown import Shown, shown
from splay.solids import Part, solids_of
from splay.stance.restate import Restate, restate
from splay.work.proofs import KINDS
from tests import onward
from tests.bench.levelled import WAYS
from tests.besides import besides, finished_otherwise, laid_out, names, papers, tables
from tests.turned_down import turned_down

HERE = Path(__file__).parent / "approved"
WORDS, ITEMS = HERE / "words.txt", HERE / "items.txt"
FAULTY, REFUSED = HERE / "faulty.json", HERE / "refused.json"
DEMO = Path(__file__).parent.parent / "workshop" / "demo" / "pieces"
STEADY = {"bore": Spread(0.3, 40), "mark": Spread(0.2, 40)}
"""A hand that is steady at some things."""
FINISHED = ("round_four", "bench", "log_slice")
"""Starts that are finished in every way there is, and cut from every sort of wood."""
PRINTED = (*FINISHED, "plane_frames", "tall")
"""Starts whose sheets are read."""
SOLID = (*STARTS, "bent", "coved", "driven", "driven-sides", "gap", "thick", "fox-wedged")
"""Pieces whose solids are looked at."""
RANDOM = 12
"""Random pieces in random shops beside the starts and the demo's."""
TALKATIVE = (
    518, 194, 614, 579, 750, 271, 130, 908, 308, 384, 625, 711, 226, 197, 725, 994, 206, 340, 72, 204, 515,
    746, 879, 83, 120, 239, 512, 556, 602, 681, 812, 533, 732, 737, 12, 135, 165, 405, 828, 839, 23, 40, 94,
    416, 536, 696,
)  # fmt: skip
"""Random pieces that say most of what no other piece here says, of a thousand tried; of these what is
shown, drawn and built is kept as a whole."""
NUMBER = re.compile(r"-?\d+(?:[.,/]\d+)?(?: \d+/\d+)?")
ASIDE = 0.3719
"""Figures are cut to a hundredth here, not halfway between two round ones, where the last bit decides."""
_SHOWN, _DRAWN, _ORDER = TypeAdapter(Shown), TypeAdapter(Drawings), TypeAdapter(Order)
_LISTS = {
    "setups": "id", "sticks": "key", "members": "id", "ropes": "id", "parts": "number", "sockets": "leg",
    "legs": "number",
}  # fmt: skip
"""What of a plan is told apart one by one, and by what."""


@dataclass(frozen=True)
class Case:
    """One piece, in whose shop, with what was read of it."""

    name: str
    piece: Piece
    shop: Shop
    read: tuple[Reading, ...] = ()


def pieces() -> Iterator[Case]:
    """The starts, the demo's pieces, ways of making one by one, random pieces in random shops; always the
    same."""
    for name in STARTS:
        yield Case(name, starter(name), workbench())
    for path in sorted(DEMO.glob("*.json")):
        yield Case(path.stem, read_piece(json.loads(path.read_text(encoding="utf-8"))), workbench())
    yield from (Case(name, piece, workbench()) for name, piece in _ways())
    yield from map(_random, range(RANDOM))


def _random(number: int) -> Case:
    # The tests' own pieces want the application's settings.
    from tests.bench.pieces import random_piece, random_shop

    rng = random.Random(f"approved {number}")
    while True:
        try:
            piece, shop = random_piece(rng), random_shop(rng)
            plan(piece, shop)
        except (BadInput, CannotBuild):
            continue
        return Case(f"random-{number}", piece, shop)


def faulty() -> Iterator[Case]:
    """Pieces with something wrong, each kind of thing once."""
    for number, one in enumerate(json.loads(FAULTY.read_text(encoding="utf-8"))):
        read = tuple(Reading(**reading) for reading in one.get("read", ()))
        shop = read_shop(one["shop"]) if "shop" in one else workbench()
        yield Case(f"faulty-{number}", read_piece(one["piece"]), shop, read)


def refused() -> Iterator[str]:
    """What is said of documents that cannot be read or cannot be built, each kind of thing once."""
    for document in json.loads(REFUSED.read_text(encoding="utf-8")):
        try:
            plan(read_piece(document), workbench())
        except BadInput as bad:
            yield from (f"{fault.allowed}. {fault.do}" for fault in bad.faults)
        except CannotBuild as no:
            yield f"{no.rule} {no.mend}"


def misread() -> Iterator[Case]:
    """One reading of every kind that starts ask for, wrong in each way hands get one wrong."""
    seen = set()
    for name in STARTS:
        piece, shop = starter(name), workbench()
        made = plan(piece, shop)
        for proof in made.proofs:
            if proof.kind in seen:
                continue
            seen.add(proof.kind)
            true = proof.expected.value
            values = [true + off for off in (-40.0, -6.0, -1.2, 1.2, 6.0, 40.0)] + [
                180.0 - true,
                90.0 - true,
            ]
            if made.stance.legs:
                lean = made.stance.legs[0].boring
                values += [90.0 - lean.splay, 90.0 - lean.rake, lean.splay, lean.rake]
            for value in values:
                yield Case(name, piece, shop, (Reading(proof.id, value, kind=proof.kind),))
    piece, shop = starter("bench"), workbench()
    made = plan(piece, shop)
    for number, proof in enumerate(one for one in made.proofs if one.kind in ("bore", "foot")):
        lean, part = made.stance.legs[number % 4].boring, made.parts[number % 4]
        half = part.high_low.quantity.value / 2.0
        of_leg = [part.exposed.quantity.value, *(part.finished.quantity.value + by for by in (half, -half))]
        scale = scale_of(KINDS[proof.kind], shop)[1] if proof.kind == "bore" else None
        for value in of_leg if scale is None else [reading(scale, one) for one in (lean.splay, lean.rake)]:
            yield Case("bench", piece, shop, (Reading(proof.id, value, kind=proof.kind),))
    gone = (Reading("bore.gone", 14.0, kind="bore"), Reading("gap.m9", 300.0, kind="gap"))
    yield Case("resting", starter("round_four"), workbench(), gone)


def _ways() -> Iterator[tuple[str, Piece]]:
    """Pieces that have what neither start nor demo has."""
    from tests.core.test_bent import bent
    from tests.core.test_gapped import two_boards
    from tests.core.test_left_on import thick
    from tests.core.test_mouth import coved
    from tests.core.test_through import driven
    from tests.core.test_underfoot import padded
    from tests.core.test_wedges import blind

    yield "bent", bent(rise=40.0, faces="right")
    yield "coved", coved(cove=10.0)
    yield "driven", driven(size=36.0, depth=150.0)
    yield "driven-sides", driven("board_sides")
    yield "gap", two_boards()
    yield "gap-closes", two_boards(gap={"width": 1.0, "stays": "outer"})
    yield "thick", thick(4.0)
    yield "fox-wedged", blind({})
    yield "wedged to the middle", _with("round_four", "supports.0.joint.wedge", {"lies": "to_middle"})
    yield "relieved", _with("round_four", "supports.0.leg.relief", 3.0)
    yield "necked", _with("round_four", "supports.0.leg.neck", "cove")
    yield "left on", _with("bench", "top.left_on", 3.0)
    for by in ("sawn", "cutter", "router"):
        yield f"tenons {by}", _with("round_four", "supports.0.leg.tenon_by", by)
    socket = {"way": "through", "socket": 39.5}
    thin = _with("round_four", "supports.0", {"leg": {"at_top": 40, "at_foot": 30, "tenon_by": "sawn"},
                                              "joint": socket})  # fmt: skip
    yield "hardly thicker", thin
    yield "flat rail", _with("board_sides", "supports.0.rails.0.lies", "flat")
    for kind in ("pads", "glides", "screwed"):
        yield kind, padded("aproned", kind=kind)[0]


def _with(name: str, path: str, value: Any) -> Piece:
    """A start with one choice of its own."""
    document: Any = write_piece(starter(name))
    *ways, last = path.split(".")
    part = document
    for way in ways:
        part = part[int(way)] if way.isdigit() else part[way]
    if last.isdigit():
        part[int(last)] |= value
    else:
        part[last] = value
    return read_piece(document)


OTHERWISE = (
    ("outline", ("round", "oval", "rectangle", "rounded_triangle", "d", "shield", "drawn")),
    ("placement", ("circle", "triangle", "insets", "free")),
    ("angle", ("splay_rake", "resultant", "under_rim", "as_wide", "footprint")),
    ("scope", ("alike", "pairs", "each")),
    ("joint", ("through", "blind", "reamed", "battened", "dowel_screw", "shouldered")),
    ("members", ("single", "side", "h", "t", "cross", "triangle", "box", "footrest", "rope")),
    ("hollow", ("trough", "dish", "none")),
    ("belly", ("belly",)),
    ("peg", ("peg", "sideways")),
    ("held", ("screws", "buttons")),
    ("hand_hold", ("on", "off")),
    ("splines", ("on",)),
    ("lower_tread", ("on",)),
    ("taper", ("on", "off")),
    ("cross_piece", ("more", "fewer")),
    ("outside", ("0", "1")),
    ("gap", ("on",)),
    ("support", ("plane_frames", "mitred_frames", "board_sides", "slab_leg", "aproned_legs")),
    ("away", ("supports.0", "members.0", "support.0")),
)
"""What can be said another way, and each way of saying it."""


def otherwise() -> Iterator[Case]:
    """Starts said another way, one thing at a time, as far as that can be."""
    for name in ("round_four", "bench", "plane_frames", "board_sides"):
        for what, ways in OTHERWISE:
            for to in ways:
                with suppress(BadInput, CannotBuild):
                    made = restate(starter(name), Restate(what, to), "x")
                    plan(made, workbench())
                    yield Case(f"{name}, {what} {to}", made, workbench())


def measured() -> Iterator[Case]:
    """Pieces read all over, a little off; levelled by each way, and once with one height far out."""
    stool = restate(starter("round_four"), Restate("members", "h"))
    for name, piece in (("h", stool), ("bench", starter("bench")), ("frames", starter("plane_frames"))):
        for way in WAYS:
            document = write_piece(piece)
            document["levelling"] = {"passes": [{"way": way}]}
            made = read_piece(document)
            proofs = plan(made, workbench()).proofs
            read = [
                Reading(proof.id, proof.expected.value + 0.4 * (-1) ** k, kind=proof.kind)
                for k, proof in enumerate(proofs)
            ]
            with suppress(BadInput, CannotBuild):
                plan(made, workbench(), read)
                yield Case(f"{name}, {way}", made, workbench(), tuple(read))
                wild = [replace(one, value=one.value * 1.3, sure=True) if k == len(read) - 1 else one
                        for k, one in enumerate(read)]  # fmt: skip
                yield Case(f"{name}, {way}, wild", made, workbench(), tuple(wild))


def template(said: str) -> str:
    """A sentence without its figures."""
    return NUMBER.sub("#", said.replace("\n", " ¶ "))


def _walk(of: Any, into: list[str], figures: bool) -> None:
    if isinstance(of, str):
        into.append(of if figures else template(of))
    elif isinstance(of, bool) or of is None:
        into.append(str(of))
    elif isinstance(of, int | float):
        into.append(str(math.floor(of * 100.0 + ASIDE)))
    elif isinstance(of, list):
        for one in of:
            _walk(one, into, figures)
    else:
        for name, one in of.items():
            into.append(name)
            _walk(one, into, figures)


def digest(of: Any, *, figures: bool = False) -> str:
    """A short sign of everything in a document; its sentences with their figures, or without, in drawings,
    whose places are told to the hundredth besides."""
    found: list[str] = []
    _walk(of, found, figures)
    return hashlib.sha256("\n".join(found).encode()).hexdigest()[:10]


def _items(case: Case, made: Plan) -> Iterator[tuple[str, Any]]:
    piece, shop = case.piece, case.shop
    told = json.loads(_SHOWN.dump_json(shown(made, "all")))
    drawn = json.loads(_DRAWN.dump_json(draw(piece, shop, made, "all")))
    pictures = drawn.pop("pictures")
    for card in told["setups"]:
        yield f"card {card['id']}", [card, pictures[card["id"]]]
    for name, by in _LISTS.items():
        for k, one in enumerate(told.pop(name)):
            if name != "setups":
                yield f"{name} {one.get(by, k)}", one
    for name, one in told.items():
        yield name, one
    for name, views in drawn.items():
        for k, view in enumerate(views):
            yield f"drawn {name} {view.get('name', view.get('part', ''))} {k}", view
    for step in json.loads(_ORDER.dump_json(order_of(piece, made, Build())))["steps"]:
        yield f"step {step['key']}", step
    for part in solids_of(piece, made) if case.name in SOLID else ():
        yield f"solid {part.key}", _solid(part)


def _solid(part: Part) -> list[Any]:
    """How many corners it has, and the box about it."""
    lows, highs = part.points.min(axis=0), part.points.max(axis=0)
    return [len(part.points), [float(v) for v in (*lows, *highs)]]


def _litres(part: Part) -> float:
    """Its volume, by the tetrahedra under its triangles."""
    a, b, c = (part.points[part.triangles[:, k]] for k in range(3))
    return float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum()) / 6e6


def _built_otherwise() -> Iterator[tuple[str, Build]]:
    """Every choice of a build, one at a time."""
    for name, field in Build.model_fields.items():
        if get_origin(field.annotation) is Literal and name != "format":
            for value in get_args(field.annotation):
                yield f"{name} {value}", Build.model_validate({name: value})


def _onward() -> Iterator[tuple[str, Any]]:
    """What becomes of the starts, one thing each; of some said another way what drags make of them."""
    shop = workbench()
    made = {name: plan(starter(name), shop) for name in STARTS}
    for name, plan_ in made.items():
        piece = plan_.piece
        for way in (onward.dragged, onward.printed, onward.written_out, onward.rehearsed, onward.sawn_of):
            yield f"{name} | {way.__name__}", list(way(piece, plan_, shop))
        yield f"{name} | redrawn", list(onward.redrawn(piece))
        yield f"{name} | done so far", list(onward.done_so_far(piece, plan_))
        yield f"{name} | in the round", list(onward.in_the_round(piece, plan_))
    for case in otherwise():
        base, _, what = case.name.partition(", ")
        if base == "round_four" and what.split()[0] in DRAGGED:
            yield f"{case.name} | dragged", list(onward.dragged(case.piece, plan(case.piece, shop), shop))
    several = [(made[name].piece, made[name]) for name in ("round_four", "bench", "slab", "plane_frames")]
    yield "in time", list(onward.planned_in_time(several))
    yield "of wood", list(onward.of_wood())
    yield "of logs", list(onward.of_logs(shop))
    yield "at a glance", list(onward.at_a_glance(shop))
    yield "of keys", list(onward.of_keys(shop))
    yield "in tables", list(onward.in_tables())
    yield "in hours", list(onward.in_hours())


DRAGGED = ("outline", "placement", "angle", "scope", "support", "members")
"""What is said another way, and moves otherwise then."""
DRAWN = ("drawn", "solids", "patterns")


def _whole(case: Case, made: Plan) -> Iterator[tuple[str, Any]]:
    """The same of a piece in a few large things: what differs is looked for among the others."""
    yield "shown", json.loads(_SHOWN.dump_json(shown(made, "all")))
    yield "order", json.loads(_ORDER.dump_json(order_of(case.piece, made, Build())))
    yield "drawn", json.loads(_DRAWN.dump_json(draw(case.piece, case.shop, made, "all")))
    yield "patterns", to_jsonable_python(patterns_of(case.piece, case.shop, made))
    # How many corners a solid has may hang on the last bit of a figure: its box and its volume do not.
    yield "solids", [[part.key, *_solid(part)[1:], _litres(part)] for part in solids_of(case.piece, made)]


def _sentences(of: Any) -> set[str]:
    found: set[str] = set()
    _said_in(of, found)
    return set(map(template, found))


def _said_in(of: Any, into: set[str]) -> None:
    if isinstance(of, str):
        if " " in of:
            into.add(of)
    elif isinstance(of, list):
        for one in of:
            _said_in(one, into)
    elif isinstance(of, dict):
        for one in of.values():
            _said_in(one, into)


@cache
def now() -> tuple[dict[str, str], frozenset[str]]:
    """What there is now: the sign of every item by piece and name, and every sentence."""
    signs: dict[str, str] = {}
    said: set[str] = set()
    for name, of in tables():
        signs[f"table | {name}"] = digest(of, figures=True)
        said |= _sentences(of)
    for case in pieces():
        made = plan(case.piece, case.shop)
        for item, of in _items(case, made):
            drawn = item.startswith(("drawn", "solid"))
            signs[f"{case.name} | {item}"] = digest(of, figures=not drawn)
            if not drawn:
                said |= _sentences(of)
        if case.name.startswith("random"):
            of = to_jsonable_python(patterns_of(case.piece, case.shop, made))
            signs[f"{case.name} | patterns"] = digest(of)
            said |= _sentences(of)
        if case.name in STARTS:
            sheets = papers(case.piece, made, case.shop) if case.name in PRINTED else ()
            for k, sheet in enumerate(sheets):
                signs[f"{case.name} | paper {k}"] = digest(sheet, figures=True)
            for k, of in enumerate(map(to_jsonable_python, besides(case.piece, made, case.shop))):
                signs[f"{case.name} | besides {k}"] = digest(of, figures=True)
                said |= _sentences(of)
    for key, of in _onward():
        signs[key] = digest(to_jsonable_python(of), figures=True)
    for name in FINISHED:
        case = Case(name, starter(name), workbench())
        made = plan(case.piece, case.shop)
        for choice, build in _built_otherwise():
            of = json.loads(_ORDER.dump_json(order_of(case.piece, made, build)))
            signs[f"{case.name} | order, {choice}"] = digest(of, figures=True)
            said |= _sentences(of)
        for more in (finished_otherwise, laid_out):
            for k, of in enumerate(map(to_jsonable_python, more(case.piece, made, case.shop))):
                signs[f"{case.name} | {more.__name__} {k}"] = digest(of, figures=True)
                said |= _sentences(of)
    for case in map(_random, TALKATIVE):
        made = plan(case.piece, case.shop)
        for item, of in _whole(case, made):
            signs[f"{case.name} | {item}"] = digest(of, figures=item not in DRAWN)
            said |= set() if item in DRAWN else _sentences(of)
    for case in (*otherwise(), *measured()):
        made = plan(case.piece, case.shop, case.read, spreads=STEADY)
        of = json.loads(_SHOWN.dump_json(shown(made, "all")))
        signs[f"{case.name} | shown"] = digest(of, figures=True)
        drawn = draw(case.piece, case.shop, made, "level" if case.read else "all")
        signs[f"{case.name} | drawn"] = digest(json.loads(_DRAWN.dump_json(drawn)))
        said |= _sentences(of) | set(map(template, names(case.piece)))
    said |= {template(words) for words in (*refused(), *turned_down())}
    for rough in ({"bore": Spread(3.0, 40)}, {"mark": Spread(2.0, 40)}):
        made = plan(starter("round_four"), workbench(), spreads=rough)
        said |= {template(words) for one in made.findings for words in (one.text, one.mend)}
    for k, case in enumerate((*faulty(), *misread())):
        made = plan(case.piece, case.shop, case.read, spreads=STEADY if case.read else None)
        signs[f"{case.name} {k} | found"] = digest(
            to_jsonable_python([made.findings, made.proofs]), figures=True
        )
        said |= {template(words) for one in made.findings for words in (one.text, one.mend)}
        read = {reading.proof for reading in case.read}
        said |= {template(one.slip) for one in made.proofs if one.id in read and one.slip}
    return signs, frozenset(said)


def approved() -> tuple[dict[str, str], frozenset[str]]:
    """What there was when it was read last."""
    rows = ITEMS.read_text(encoding="utf-8").splitlines() if ITEMS.exists() else []
    signs = dict(row.rsplit(" = ", 1) for row in rows)
    said = WORDS.read_text(encoding="utf-8").splitlines() if WORDS.exists() else []
    return signs, frozenset(said)


def main() -> None:
    """Writes what there is now, and prints what changed."""
    signs, said = now()
    old_signs, old_said = approved()
    for sign, lines in (("-", sorted(old_said - said)), ("+", sorted(said - old_said))):
        sys.stdout.writelines(f"{sign} {line}\n" for line in lines)
    changed = [key for key in sorted({*signs, *old_signs}) if signs.get(key) != old_signs.get(key)]
    sys.stdout.writelines(f"~ {key}\n" for key in changed)
    HERE.mkdir(exist_ok=True)
    ITEMS.write_text("".join(f"{key} = {sign}\n" for key, sign in signs.items()), encoding="utf-8")
    WORDS.write_text("".join(f"{line}\n" for line in sorted(said)), encoding="utf-8")


if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "workshop.test_settings")
    import django

    django.setup()
    main()
