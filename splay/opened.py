"""What of a station is open: of its cards, steps and parts the maker looks at one at a time."""

from __future__ import annotations

from dataclasses import dataclass

from splay.parts.stick import StickPart
from splay.plan import Plan
from splay.setups.card import SetUp
from splay.setups.crosscut import station_of


@dataclass(frozen=True)
class Opened:
    """The card that is looked at, by its id; the tool that was used last at the station, by its id; the
    place of the step of the marking-out, the part of square stock by its key; whether what comes when the
    parts are made is looked at (`more`: the marks to write on them, the order of assembly). What is not
    there, or is not said, is the first one."""

    card: str = ""
    by: str = ""
    step: int = 0
    part: str = ""
    more: bool = False


@dataclass(frozen=True)
class Work:
    """A card as it stands in the list it is chosen from; the rest of it comes when it is opened. `first` of
    the cards of one work is the one to look at before another is chosen."""

    id: str
    work: str
    by: str
    station: str
    title: str
    tool: str
    first: bool
    legs: tuple[int, ...]
    parts: tuple[str, ...]


def works(cards: tuple[SetUp, ...], opened: Opened | None) -> tuple[Work, ...]:
    """The list of some cards."""
    sorts: dict[str, list[SetUp]] = {}
    for card in cards:
        sorts.setdefault(card.work, []).append(card)
    first = {_first(mine, opened.by if opened else "").id for mine in sorts.values()}
    return tuple(
        Work(c.id, c.work, c.by, c.station, c.title, c.tool, c.id in first, c.legs, c.parts) for c in cards
    )


def _first(mine: list[SetUp], by: str) -> SetUp:
    """The card for the tool used last where that reaches, else for the first tool that does."""
    used = next((card for card in mine if card.by == by), None)
    if used is not None and used.in_reach:
        return used
    return next((card for card in mine if card.in_reach), used or mine[0])


def open_cards(plan: Plan, station: str, opened: Opened | None) -> tuple[SetUp, ...]:
    """The card that is open at a station; all of them where nothing is said of that."""
    every = plan.cards_at(station)
    if opened is None or not every:
        return every
    one = next((card for card in every if card.id == opened.card), None)
    return (one or _first([card for card in every if card.work == every[0].work], opened.by),)


def open_step(count: int, opened: Opened | None) -> range:
    """The steps of the marking-out that are open, of so many."""
    if opened is None or not count:
        return range(count)
    at = min(max(0, opened.step), count - 1)
    return range(at, at + 1)


def open_parts(plan: Plan, station: str, opened: Opened | None) -> frozenset[str]:
    """The parts of square stock that are open at a station, by key: the one that is said, else the one the
    open card is for, else the first."""
    mine: tuple[StickPart, ...] = tuple(
        stick for stick in plan.sticks if station == "all" or station == station_of(stick.role)
    )
    keys = [stick.key for stick in mine]
    if opened is None or not keys:
        return frozenset(keys)
    wanted = (opened.part, *(key for card in open_cards(plan, station, opened) for key in card.parts))
    return frozenset({next((key for key in wanted if key in keys), keys[0])})
