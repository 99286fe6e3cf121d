"""Set-up cards and proofs for dowels driven from outside, through what a sawn end joins and on into it."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.stick import StickPart
from splay.quantity import Figure, Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.held import DRILL
from splay.setups.outside import AIR_MM, PROUD_MM
from splay.setups.plain_card import plain_card
from splay.setups.scenes import BoredOn, ThroughBored
from splay.setups.words import counted
from splay.setups.words import every as every_of
from splay.stance.through import Through
from splay.work.does import Bit, Plain
from splay.work.joinery import Onward, ThroughPlaces
from splay.work.lays import IntoSide
from splay.work.marks import Kind, Mark
from splay.work.phrases import listed
from splay.work.proofs import proof_id
from splay.work.takes import Probed

_CARE = (
    "Clamp the part to the bench; the other hand away from where the bit comes out. Follow the drill's own "
    "manual."
)
_ON = (
    "Clamp it so that it cannot turn, the other hand out from behind the joint. Follow the drill's own "
    "manual."
)


def _mark(one: Through) -> Mark:
    return Mark(Kind.DOWEL, one.meets.mate.key, f"{one.meets.body.key}.{one.meets.end}.{one.number}")


def _joint(one: Through) -> Mark:
    return Mark(Kind.JOINS, one.meets.mate.key, f"{one.meets.body.key}.{one.meets.end}")


def through_cards(sticks: tuple[StickPart, ...], every: tuple[Through, ...], show: Show) -> Iterator[SetUp]:
    """One card for each sort of part that is bored through and the side its joints lie on; then one for
    what is bored on from outside to one depth."""
    by_key = {stick.key: stick for stick in sticks}
    sorts: dict[tuple[int, str, str], list[Through]] = {}
    for one in every:
        mate = one.meets.mate
        face = mate.sides.named(one.meets.face)
        sorts.setdefault((mate.support, mate.role, face), []).append(one)
    for mine in sorts.values():
        yield _bored(by_key, mine, show)
    deeps: dict[tuple[int, float], list[Through]] = {}
    for one in every:
        deeps.setdefault((one.meets.body.support, round(one.deep, 3)), []).append(one)
    for mine in deeps.values():
        yield _onward(by_key, mine, show)


def _bored(by_key: dict[str, StickPart], mine: list[Through], show: Show) -> SetUp:
    one = mine[0]
    mates = list({each.meets.mate.key: by_key[each.meets.mate.key] for each in mine}.values())
    face = one.meets.mate.sides.named(one.meets.face)
    key = f"through.{mates[0].key}.{one.meets.face[0]}.{one.meets.face[1]}"
    told = tuple(_places(group, by_key, show) for group in _groups(mine))
    wood = show.figure(
        f"{key}.wood", "Wood to bore through", one.wood, "w",
        show.input("w", f"{mates[0].name}, across", one.wood),
    )  # fmt: skip
    marks = tuple(_mark(each) for each in mine)
    first = told[0]
    return plain_card(
        key,
        "stretchers",
        "through",
        DRILL,
        f"Bore {counted(mates)} through for dowels from outside",
        wood,
        "Wood to bore through",
        ThroughBored(face, first.lead, first.what, first.spots[0][0].text, first.spots[0][1].text),
        lays=(IntoSide(marks, face, show.angle(90.0), ""),),
        does=(
            *told,
            Bit(show.length(one.dowels.size), None, None),
            Plain("Scrap clamped behind, so that it does not break out where the dowel will show."),
        ),
        caution=_CARE,
        parts=tuple(part.key for part in mates),
        uses=tuple(dict.fromkeys(_joint(each) for each in mine)),
        makes=marks,
    )


def _groups(mine: list[Through]) -> Iterator[list[list[Through]]]:
    """The joints of a card told in one breath: of parts named alike, at places alike. Each a list of the
    joint's dowels."""
    joints: dict[tuple[str, str], list[Through]] = {}
    for one in mine:
        joints.setdefault((one.meets.body.key, one.meets.end), []).append(one)
    found: dict[tuple[object, ...], list[list[Through]]] = {}
    for dowels in joints.values():
        meets = dowels[0].meets
        named = meets.body.sides
        dowels.sort(key=lambda one: (round(one.aside, 3), one.down))
        places = tuple((round(one.aside, 3), round(one.down, 3)) for one in dowels)
        told = (meets.body.role, named.named(meets.lead), named.named(meets.beside), places)
        found.setdefault(told, []).append(dowels)
    yield from found.values()


def _places(group: list[list[Through]], by_key: dict[str, StickPart], show: Show) -> ThroughPlaces:
    first = group[0]
    meets = first[0].meets
    mates = list({one[0].meets.mate.key: by_key[one[0].meets.mate.key] for one in group}.values())
    return ThroughPlaces(
        tuple((one[0].meets.mate.key, one[0].meets.body.key, one[0].meets.end) for one in group),
        every_of(mates, len(mates)),
        listed(dict.fromkeys(one[0].meets.body.name for one in group)),
        meets.mate.sides.named(meets.face),
        meets.body.sides.named(meets.lead),
        meets.body.sides.named(meets.beside),
        tuple((show.length(one.aside), show.length(one.down)) for one in first),
    )


def _key(one: Through) -> str:
    return f"onward.{one.meets.body.key}.{one.meets.end}"


def _onward(by_key: dict[str, StickPart], mine: list[Through], show: Show) -> SetUp:
    one, key = mine[0], _key(mine[0])
    chosen = one.dowels
    parts = list({each.meets.body.key: by_key[each.meets.body.key] for each in mine}.values())
    mates = list({each.meets.mate.key: by_key[each.meets.mate.key] for each in mine}.values())
    joints = dict.fromkeys((each.meets.mate.key, each.meets.body.key, each.meets.end) for each in mine)
    deep = show.figure(
        f"{key}.deep",
        "Hole, deep from outside",
        one.deep,
        "w + k",
        show.input("w", "wood to the joint, at the most", one.deep - chosen.depth),
        show.input("k", "on into the end", chosen.depth),
    )
    return plain_card(
        key,
        "stretchers",
        "onward",
        DRILL,
        f"Bore on into {counted(parts)} from outside",
        deep,
        "Hole, deep from outside",
        BoredOn(show.length(chosen.size).text, deep.quantity.text, mates[0].name, parts[0].name),
        setting=deep.quantity,
        does=(
            Onward(tuple(joints), counted(mates), counted(parts)),
            Bit(show.length(chosen.size), deep.quantity, None),
        ),
        jig=(_long(key, one, show),),
        caution=_ON,
        parts=tuple(part.key for part in parts),
        proofs=(_proof(one),),
        uses=tuple(_mark(each) for each in mine),
    )


def _long(key: str, one: Through, show: Show) -> Figure:
    return show.figure(
        f"{key}.long",
        "Dowel, long",
        dowel_long(one),
        "d − a + f",
        show.input("d", "hole, deep", one.deep),
        show.input("a", "room for glue", AIR_MM),
        show.input("f", "to be sawn flush", PROUD_MM),
    )


def dowel_long(one: Through) -> float:
    """A dowel as it is cut: what its hole is deep, less air for glue, and what is sawn flush, mm."""
    return one.deep - AIR_MM + PROUD_MM


def _proof(one: Through) -> str:
    return proof_id("through", one.meets.body.key, one.meets.end)


def through_proofs(every: tuple[Through, ...], ask: Asker) -> Iterator[Proof]:
    """How deep the holes are from outside, once for those of one depth."""
    done: set[tuple[int, float]] = set()
    for one in every:
        told = (one.meets.body.support, round(one.deep, 3))
        if told in done:
            continue
        done.add(told)
        words = Words(
            f"Holes from outside into the {one.meets.body.name}, deep", Probed(_key(one)),
            "a dowel that stops at the joint holds nothing", one.meets.mate.key, "stretchers",
            "holes from outside, deep",
        )  # fmt: skip
        yield ask.length(("through", one.meets.body.key, one.meets.end), ask.show.length(one.deep), words)
