"""Set-up cards and proofs for where one part joins another: lines drawn before anything is closed."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace

from splay.parts.stick import StickPart
from splay.quantity import Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.crosscut import end_name
from splay.setups.plain_card import PENCIL, plain_card
from splay.setups.scenes import JointLined
from splay.setups.words import counted, singular
from splay.setups.words import every as every_of
from splay.stance.body import Side
from splay.stance.meets import Meets
from splay.work.does import Plain
from splay.work.joinery import Joins
from splay.work.marks import Kind, Mark
from splay.work.phrases import listed
from splay.work.proofs import proof_id
from splay.work.takes import ToLine

_CROSS = Plain("A cross beside each line, on the side where the wood will lie.")
Told = dict[tuple[object, ...], list[Meets]]


def _groups(every: tuple[Meets, ...]) -> Told:
    """Ends told in one breath: of parts named alike, to the same figures on parts whose sides are."""
    found: Told = {}
    for one in every:
        mate, body = one.mate.sides, one.body.sides
        names = (mate.named(one.face), mate.named(one.edge), body.named(one.lead), body.named(one.beside))
        figures = (round(one.down, 3), round(one.far, 3), one.square, round(one.across, 3))
        found.setdefault((one.body.support, one.body.role, *names, *figures), []).append(one)
    return found


def join_cards(sticks: tuple[StickPart, ...], every: tuple[Meets, ...], show: Show) -> Iterator[SetUp]:
    """One card for each sort of part that others join: everything that comes on it."""
    by_key = {stick.key: stick for stick in sticks}
    sorts: dict[tuple[int, str], list[Meets]] = {}
    for one in every:
        sorts.setdefault((one.mate.support, one.mate.role), []).append(one)
    for mine in sorts.values():
        mates = list({one.mate.key: by_key[one.mate.key] for one in mine}.values())
        what = list({one.body.key: by_key[one.body.key] for one in mine}.values())
        groups = list(_groups(tuple(mine)).values())
        # The picture shows one that is not flush with an end, where there is one.
        seen = next((group[0] for group in groups if not group[0].flush), groups[0][0])
        told = [
            _joins(group, every_of([by_key[one.mate.key] for one in group], len(mates)), show)
            for group in groups
        ]
        key = f"joins.{mates[0].key}"
        down = show.figure(
            f"{key}.down",
            f"Line for {seen.body.name}, from the {end_name(seen.mate.role, 'start')}",
            max(0.0, seen.down),
            "from the sawn end, along the corner",
            show.input("x", "along the corner", max(0.0, seen.down)),
        )
        shown = _joins([seen], "", show)
        yield plain_card(
            key,
            "stretchers",
            "joins",
            PENCIL,
            f"Mark where {counted(what)} {'joins' if len(what) == 1 else 'join'} {counted(mates)}",
            down,
            down.label,
            JointLined(
                shown.face, shown.edge, shown.start, shown.lead, seen.body.name,
                shown.down.text if shown.down else "flush", shown.across.text if shown.across else "flush",
            ),
            does=(*told, _CROSS),
            parts=tuple(one.key for one in mates),
            proofs=tuple(dict.fromkeys(_key(group[0]) for group in groups if not group[0].flush)),
            uses=tuple(Mark(Kind.FACES, one.key) for one in mates),
            makes=tuple(_mark(one) for group in groups for one in group),
        )  # fmt: skip


def on_lines(cards: Iterable[SetUp], every: tuple[Meets, ...]) -> Iterator[SetUp]:
    """Cards for dowels and loose tenons lean on the lines of the joints: their mates are marked with the
    joint closed on them."""
    for card in cards:
        if card.operation in ("dowel", "slot"):
            mine = tuple(_mark(one) for one in every if one.body.key in card.parts)
            yield replace(card, uses=(*card.uses, *mine))
        else:
            yield card


def _mark(one: Meets) -> Mark:
    return Mark(Kind.JOINS, one.mate.key, f"{one.body.key}.{one.end}")


def _key(one: Meets) -> str:
    return proof_id("joins", one.body.key, one.end)


def _other(side: Side) -> Side:
    return (-side[0], -side[1])


def _joins(group: list[Meets], named: str, show: Show) -> Joins:
    one = group[0]
    mate, body = one.mate.sides, one.body.sides
    return Joins(
        tuple((each.mate.key, each.body.key, each.end) for each in group),
        named,
        listed(dict.fromkeys(each.body.name for each in group)),
        mate.named(one.face),
        mate.named(one.edge),
        "board" if one.mate.glued else singular(one.mate.role),
        end_name(one.mate.role, "start"),
        body.named(one.lead),
        body.named(one.beside),
        None if one.flush else show.length(one.down),
        None if one.square or one.flush else show.length(one.far),
        mate.named(_other(one.edge)),
        show.length(one.across) if one.across else None,
    )


def join_proofs(every: tuple[Meets, ...], ask: Asker) -> Iterator[Proof]:
    """How far a joint's line lies from the end it was measured from: once for ends told in one breath."""
    for group in _groups(every).values():
        one = group[0]
        if one.flush:
            continue
        mate = one.mate
        start, edge = end_name(mate.role, "start"), mate.sides.named(one.edge)
        words = Words(
            f"On the {mate.name}, down to the line of {one.body.name}",
            ToLine(mate.key, mate.sides.named(one.face), edge, start, one.body.key, one.end),
            "two sides marked differently set what joins them askew", mate.key, "stretchers",
            f"line, {one.body.name}",
        )  # fmt: skip
        yield ask.length(("joins", one.body.key, one.end), ask.show.length(one.down), words)
