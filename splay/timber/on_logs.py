"""What comes out of logs, and of legs made already: slices, sticks that no board gives, turned legs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from splay.quantity import Show
from splay.timber.choices import WoodChoice
from splay.timber.laid import LogCut, StickCut
from splay.timber.moisture import led_to
from splay.timber.needs import Need
from splay.timber.rounds import riven, sawn, slice_of
from splay.timber.stock import Log, TurnedStick


def slices(
    needs: Sequence[Need], wanted: Mapping[str, int], logs: Sequence[Log], choice: WoodChoice, show: Show
) -> tuple[list[LogCut], dict[str, int]]:
    """Seats that are slices of a log."""
    made: list[LogCut] = []
    got: dict[str, int] = {}
    by_key = {need.key: need for need in needs}
    for key, count in wanted.items():
        need = by_key[key]
        across = 2.0 * max((x * x + y * y) ** 0.5 for x, y in need.outline)
        for log in logs:
            still = count - got.get(key, 0)
            if still <= 0 or log.small_end < across * 0.9 or log.small_end > across * 1.4:
                continue
            many = int((log.length - 2 * log.checks + choice.kerf) // (need.size[2] + choice.kerf))
            if many <= 0:
                continue
            takes = min(still, many)
            got[key] = got.get(key, 0) + takes
            slice_ = log.model_copy(update={"length": need.size[2]})
            ends = led_to(choice.home_c, choice.home_rh)
            told = slice_of(slice_, log.wood, log.now if log.now is not None else 30.0, ends, show)
            made.append(LogCut(log.id, key, need.name, takes, (), many, told))
    return made, got


def from_logs(
    by_key: Mapping[str, Need],
    missing: Mapping[str, int],
    logs: Sequence[Log],
    taken: set[str],
    choice: WoodChoice,
    show: Show,
) -> tuple[list[LogCut], dict[str, int]]:
    """Square sticks that no board gives, out of logs: one log for one need."""
    made, left = [], dict(missing)
    free = [log for log in logs if log.id not in taken]
    for key in missing:
        need = by_key[key]
        length, width, thickness = need.size
        if need.sort != "strip" or need.layers > 1 or max(width, thickness) > 1.6 * min(width, thickness):
            continue
        for log in [log for log in free if not choice.species or log.species == choice.species]:
            square = max(width, thickness)
            ways = (riven(log, square, length, show), sawn(log, square, length, choice.kerf))
            most = max(way.total for way in ways)
            if most <= 0 or left[key] <= 0:
                continue
            takes = min(left[key], most)
            left[key] -= takes
            free.remove(log)
            made.append(LogCut(log.id, key, need.name, takes, ways, 0, None))
    return made, {key: count for key, count in left.items() if count > 0}


def from_sticks(
    needs: Sequence[Need], sticks: Sequence[TurnedStick], show: Show
) -> tuple[list[StickCut], dict[str, int]]:
    """Legs that were made already, for the legs a piece wants: long enough as they are, and thick enough
    for the tenon; the shortest that will do first. Spare ones are made anew."""
    made: list[StickCut] = []
    got: dict[str, int] = {}
    free = sorted(sticks, key=lambda stick: stick.length)
    for need in needs:
        if need.role != "leg":
            continue
        length = need.finished[0].value
        for stick in list(free):
            if got.get(need.key, 0) >= need.count - need.spare:
                break
            if stick.length >= length and stick.thick_end >= need.least:
                free.remove(stick)
                got[need.key] = got.get(need.key, 0) + 1
                made.append(StickCut(stick.id, need.key, need.name, show.length(stick.length - length)))
    return made, got
